package marvek.core.session;

import marvek.core.said.Said;
import marvek.core.said.Value;
import org.hipparchus.distribution.continuous.TDistribution;
import org.hipparchus.stat.StatUtils;

/**
 * What two ways took, once they were driven.
 *
 * @param lapsA laps, or stints, of the first way
 * @param lapsB of the second way
 * @param difference mean of B less mean of A, s; negative when B is quicker
 * @param low lower end of its 95 % interval
 * @param high upper end
 * @param decided whether as many were driven as were planned, so that this is the one verdict
 * @param verdict what that means
 */
public record TrialResult(
    int lapsA,
    int lapsB,
    double difference,
    double low,
    double high,
    boolean decided,
    Said verdict) {
  /** One level everywhere. */
  private static final double LEVEL = 0.05;

  /**
   * Compares two sets of times. Interval: B. L. Welch, "The generalization of Student's problem
   * when several different population variances are involved", Biometrika 34 (1947).
   *
   * @param a seconds of the first way
   * @param b seconds of the second way
   * @param planned how many of each make the verdict; 0 where nothing was planned. Looking before
   *     that and stopping when it suits would find differences that are not there
   * @param worth the difference that the trial was to tell, s
   */
  public static TrialResult of(double[] a, double[] b, int planned, double worth) {
    int fewer = Math.min(a.length, b.length);
    if (fewer < 2) {
      Said what =
          planned > 0
              ? Said.of("trial.going", Value.count(fewer), Value.count(planned))
              : Said.of("trial.few");
      return new TrialResult(
          a.length, b.length, 0, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, false, what);
    }
    double difference = StatUtils.mean(b) - StatUtils.mean(a);
    double half =
        half(
            StatUtils.variance(a) / a.length, a.length, StatUtils.variance(b) / b.length, b.length);
    boolean decided = fewer >= planned;
    return new TrialResult(
        a.length,
        b.length,
        difference,
        difference - half,
        difference + half,
        decided,
        decided
            ? verdict(difference, half, worth)
            : Said.of("trial.going", Value.count(fewer), Value.count(planned)));
  }

  /**
   * Half the interval of a difference of two means.
   *
   * @param va variance of the mean of a, s²
   * @param a how many it is the mean of, 2 or more
   * @param vb variance of the mean of b, s²
   * @param b how many that is of, 2 or more
   */
  static double half(double va, int a, double vb, int b) {
    if (va + vb <= 0) {
      return 0;
    }
    double df = (va + vb) * (va + vb) / (va * va / (a - 1) + vb * vb / (b - 1));
    return new TDistribution(df).inverseCumulativeProbability(1 - LEVEL / 2) * Math.sqrt(va + vb);
  }

  private static Said verdict(double difference, double half, double worth) {
    double size = Math.abs(difference);
    if (size > half) {
      return Said.of(
          "trial.quicker",
          Value.choice(difference < 0),
          Value.figure(size, 2),
          Value.figure(size - half, 2),
          Value.figure(size + half, 2));
    }
    return size + half < worth
        ? Said.of("trial.same", Value.figure(size + half, 2))
        : Said.of("trial.untold");
  }
}
