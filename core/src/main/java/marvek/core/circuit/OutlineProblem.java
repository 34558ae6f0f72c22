package marvek.core.circuit;

import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;

/** Why an outline cannot be used: what is wrong, where, and what to do about it. */
public final class OutlineProblem extends Refusal {
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

  public OutlineProblem(Kind kind, String what, @Nullable String where, String remedy) {
    super(what, where, remedy);
    this.kind = kind;
  }

  public Kind kind() {
    return kind;
  }
}
