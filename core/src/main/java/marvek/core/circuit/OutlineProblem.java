package marvek.core.circuit;

import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.said.Value;

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

  private OutlineProblem(Kind kind, Said what, Said remedy) {
    super(what, remedy);
    this.kind = kind;
  }

  /**
   * Says what is wrong with an outline.
   *
   * @param key of the catalogue
   * @param values in the words of what is wrong and of what to do
   */
  public static OutlineProblem of(Kind kind, String key, Value... values) {
    return new OutlineProblem(kind, what(key, values), remedy(key, values));
  }

  /** What sort of problem it is. */
  public Kind kind() {
    return kind;
  }
}
