package marvek.core.circuit;

import org.jspecify.annotations.Nullable;

/** Why an outline cannot be used: what is wrong, where, and what to do about it. */
public final class OutlineProblem extends RuntimeException {
  private static final long serialVersionUID = 1L;

  /** The kind of problem, for programs. */
  public enum Kind {
    UNKNOWN_FORMAT,
    UNREADABLE,
    UNSAFE_XML,
    TOO_FEW_POINTS,
    TOO_LARGE,
    NOT_A_NUMBER,
    OUT_OF_RANGE,
    SWAPPED_COORDINATES,
    NOT_CLOSED,
    CROSSES_ITSELF,
    TOO_SHORT,
    WIDTH
  }

  private final Kind kind;
  private final @Nullable String where;
  private final String remedy;

  public OutlineProblem(Kind kind, String what, @Nullable String where, String remedy) {
    super(what);
    this.kind = kind;
    this.where = where;
    this.remedy = remedy;
  }

  public Kind kind() {
    return kind;
  }

  /**
   * Row, point or station, as the driver would look for it in the file; null for the whole file.
   */
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
