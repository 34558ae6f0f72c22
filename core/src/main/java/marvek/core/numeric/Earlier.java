package marvek.core.numeric;

import org.hipparchus.distribution.continuous.NormalDistribution;

/**
 * When the earlier of two comes that scatter apart from each other (C. E. Clark, <i>The greatest of
 * a finite set of random variables</i>, Operations Research 9, 1961, from memory).
 *
 * @param mean where it comes on average, m
 * @param sigma standard deviation, m
 */
public record Earlier(double mean, double sigma) {
  private static final NormalDistribution NORMAL = new NormalDistribution(0, 1);

  /**
   * The earlier of two.
   *
   * @param one mean of the first, m
   * @param its standard deviation of the first, m
   * @param other mean of the second, m
   * @param others standard deviation of the second, m
   */
  public static Earlier of(double one, double its, double other, double others) {
    double apart = Math.hypot(its, others);
    if (apart == 0) {
      return new Earlier(Math.min(one, other), 0);
    }
    double alpha = (other - one) / apart;
    double first = NORMAL.cumulativeProbability(alpha);
    double second = 1 - first;
    double shared = apart * NORMAL.density(alpha);
    double mean = one * first + other * second - shared;
    double square =
        (its * its + one * one) * first
            + (others * others + other * other) * second
            - (one + other) * shared;
    return new Earlier(mean, Math.sqrt(Math.max(0, square - mean * mean)));
  }
}
