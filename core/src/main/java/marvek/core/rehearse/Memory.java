package marvek.core.rehearse;

/**
 * What is known of one fact: FSRS-6, the open model of spaced repetition. Times are in days with
 * fractions.
 *
 * @param stability days after which it is still known in nine cases of ten
 * @param difficulty 1 to 10
 * @param by weights of the driver
 */
public record Memory(double stability, double difficulty, Weights by) {
  private static final double LEAST = 0.001;
  private static final double MOST = 36_500;
  // Answers within a day are of the same sitting.
  static final double DAY = 1;

  /** By the usual weights. */
  public Memory(double stability, double difficulty) {
    this(stability, difficulty, Weights.USUAL);
  }

  private double w(int i) {
    return by.at(i);
  }

  /** After the first answer, by the usual weights. */
  public static Memory first(Grade grade) {
    return first(grade, Weights.USUAL);
  }

  /** After the first answer. */
  public static Memory first(Grade grade, Weights by) {
    return new Memory(
        Math.max(by.at(grade.number() - 1), 0.1),
        clamped(difficulty(grade.number(), by), 1, 10),
        by);
  }

  private static double difficulty(int grade, Weights by) {
    return by.at(4) - Math.exp(by.at(5) * (grade - 1)) + 1;
  }

  /**
   * Chance that it is still known.
   *
   * @param days since it was last answered
   */
  public double recall(double days) {
    double factor = Math.pow(0.9, -1 / w(20)) - 1;
    return Math.pow(1 + factor * Math.max(0, days) / stability, -w(20));
  }

  /**
   * After another answer.
   *
   * @param days since the last
   */
  public Memory next(Grade grade, double days) {
    double harder = harder(grade);
    if (days < DAY) {
      return new Memory(sameDay(grade), harder, by);
    }
    return new Memory(
        grade == Grade.AGAIN ? forgotten(recall(days)) : known(grade, recall(days)), harder, by);
  }

  private double harder(Grade grade) {
    double change = -w(6) * (grade.number() - 3);
    double damped = difficulty + change * (10 - difficulty) / 9;
    return clamped(w(7) * difficulty(Grade.EASY.number(), by) + (1 - w(7)) * damped, 1, 10);
  }

  private double sameDay(Grade grade) {
    double more = Math.exp(w(17) * (grade.number() - 3 + w(18))) * Math.pow(stability, -w(19));
    boolean well = grade != Grade.AGAIN;
    return clamped(stability * (well ? Math.max(1, more) : more), LEAST, MOST);
  }

  private double known(Grade grade, double recall) {
    double hard = grade == Grade.HARD ? w(15) : 1;
    double easy = grade == Grade.EASY ? w(16) : 1;
    double more =
        Math.exp(w(8))
            * (11 - difficulty)
            * Math.pow(stability, -w(9))
            * (Math.exp(w(10) * (1 - recall)) - 1)
            * hard
            * easy;
    return clamped(stability * (1 + more), LEAST, MOST);
  }

  private double forgotten(double recall) {
    double after =
        w(11)
            * Math.pow(difficulty, -w(12))
            * (Math.pow(stability + 1, w(13)) - 1)
            * Math.exp(w(14) * (1 - recall));
    return clamped(Math.min(after, stability / Math.exp(w(17) * w(18))), LEAST, MOST);
  }

  private static double clamped(double value, double least, double most) {
    return Math.min(most, Math.max(least, value));
  }
}
