package marvek.core.telemetry;

import org.jspecify.annotations.Nullable;

/** Why a recording cannot be used: what is wrong, where, and what to do about it. */
public final class TelemetryProblem extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final @Nullable String where;
  private final String remedy;

  public TelemetryProblem(String what, @Nullable String where, String remedy) {
    super(what);
    this.where = where;
    this.remedy = remedy;
  }

  /** Row or column, as the driver would look for it in the file; null for the whole file. */
  public @Nullable String where() {
    return where;
  }

  public String remedy() {
    return remedy;
  }

  public String what() {
    return String.valueOf(getMessage());
  }
}
