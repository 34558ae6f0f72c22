package marvek.core.reference;

import org.jspecify.annotations.Nullable;

/** Why a reference file cannot be taken: what is wrong, where, and what to do. */
public final class ReferenceProblem extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final @Nullable String where;
  private final String remedy;

  public ReferenceProblem(String what, @Nullable String where, String remedy) {
    super(what);
    this.where = where;
    this.remedy = remedy;
  }

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
