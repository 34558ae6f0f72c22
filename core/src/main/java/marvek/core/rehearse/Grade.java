package marvek.core.rehearse;

/** How well something was known. */
public enum Grade {
  AGAIN,
  HARD,
  GOOD,
  EASY;

  /** 1 to 4, as the formulas count them. */
  int number() {
    return ordinal() + 1;
  }

  /**
   * The grade of an answer, by what the cue itself can tell: half of its precision, all of it,
   * twice, or more.
   *
   * @param error how far off, in any unit
   * @param precision in the same
   */
  public static Grade of(double error, double precision) {
    // A tenth told in floating point is still a tenth.
    double off = Math.abs(error) - 1e-9;
    if (off <= precision / 2) {
      return EASY;
    }
    if (off <= precision) {
      return GOOD;
    }
    return off <= 2 * precision ? HARD : AGAIN;
  }
}
