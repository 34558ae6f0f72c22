package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.analysis.integration.gauss.GaussIntegrator;
import org.hipparchus.analysis.integration.gauss.GaussIntegratorFactory;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * How many laps it takes to see a difference through a driver's own spread, and in which order to
 * drive them.
 *
 * @param laps of each way
 * @param told whether there are laps enough to tell
 * @param order ways lap by lap
 */
public record TrialPlan(int laps, boolean told, List<Way> order) {
  /** The two ways. */
  public enum Way {
    A,
    B
  }

  /** Chance of seeing a difference that is there. */
  public static final double POWER = 0.8;

  private static final double LEVEL = 0.05;
  private static final int MOST = 2000;
  // Laps of each way above which it matters little that each has its own spread.
  private static final int MANY = 12;
  // A technique wants two or three laps in a row; the first of them does not count.
  public static final int BLOCK = 3;

  /** Stints of each side below which nothing can be told. */
  public static final int FEWEST_STINTS = 3;

  public TrialPlan {
    order = List.copyOf(order);
  }

  /**
   * Laps of each way for a difference.
   *
   * @param difference seconds
   * @param spread of a lap as a standard deviation, s
   */
  public static int laps(double difference, double spread) {
    double d = Math.abs(difference) / spread;
    if (!(d > 0)) {
      return MOST;
    }
    NormalDistribution normal = new NormalDistribution();
    double z =
        normal.inverseCumulativeProbability(1 - LEVEL / 2)
            + normal.inverseCumulativeProbability(POWER);
    // The formula for a known spread is a little short; from there by the spreads told from the
    // laps.
    int n = Math.max(2, (int) Math.floor(2 * z * z / (d * d)));
    while (n < MOST && power(n, d) < POWER) {
      n++;
    }
    return n;
  }

  /**
   * Chance that the verdict tells a difference of d spreads with n laps each, two-sided 5 %: by
   * quadrature over the two spreads told from the laps. From {@link #MANY} on it is hardly less
   * than with one spread told from all of them (Cohen 1988, the noncentral t distribution).
   */
  static double power(int n, double d) {
    NormalDistribution normal = new NormalDistribution();
    double deviation = Math.sqrt(2.0 / n);
    DoubleUnaryOperator told =
        half ->
            1
                - normal.cumulativeProbability((half - d) / deviation)
                + normal.cumulativeProbability((-half - d) / deviation);
    GaussIntegratorFactory rules = new GaussIntegratorFactory();
    if (n > MANY) {
      int freedom = 2 * n - 2;
      double critical = new TDistribution(freedom).inverseCumulativeProbability(1 - LEVEL / 2);
      ChiSquaredDistribution chi = new ChiSquaredDistribution(freedom);
      return rules
          .legendre(60, 0, 1)
          .integrate(
              p ->
                  told.applyAsDouble(
                      critical
                          * Math.sqrt(chi.inverseCumulativeProbability(p) / freedom)
                          * deviation));
    }
    ChiSquaredDistribution chi = new ChiSquaredDistribution(n - 1);
    GaussIntegrator rule = rules.legendre(14, 0, 1);
    double[] variance = new double[rule.getNumberOfPoints()];
    for (int i = 0; i < variance.length; i++) {
      variance[i] = chi.inverseCumulativeProbability(rule.getPoint(i)) / (n - 1) / n;
    }
    double sum = 0;
    for (int i = 0; i < variance.length; i++) {
      for (int j = 0; j <= i; j++) {
        // Either may be the one that is spread more.
        double weight = rule.getWeight(i) * rule.getWeight(j) * (i == j ? 1 : 2);
        sum += weight * told.applyAsDouble(TrialResult.half(variance[i], n, variance[j], n));
      }
    }
    return sum;
  }

  /**
   * Which way comes when: A B B A · B A A B, which takes out what drifts straight or in a bow
   * (Thue–Morse).
   *
   * @param blocks how many
   */
  public static List<Way> blocks(int blocks) {
    List<Way> out = new ArrayList<>();
    for (int i = 0; i < blocks; i++) {
      out.add(Integer.bitCount(i) % 2 == 0 ? Way.A : Way.B);
    }
    return out;
  }

  /**
   * A plan for what is changed in the pits: one unit is the mean of a stint.
   *
   * @param spread of a lap; that of a stint is told from it, so what differs from stint to stint
   *     besides is not in it
   * @param available stints that there are
   */
  public static TrialPlan stints(double difference, double spread, int available) {
    int each =
        Math.max(FEWEST_STINTS, laps(difference, spread / Math.sqrt(PlannedTrial.STINT - 2.0)));
    boolean told = 2 * each <= available;
    return new TrialPlan(each, told, told ? blocks(2 * each) : List.of());
  }

  /**
   * A plan for two ways of driving, in blocks of three laps of which the first does not count.
   *
   * @param available laps that there are
   */
  public static TrialPlan driving(double difference, double spread, int available) {
    // One block of each would take for a difference what drifts from the first to the second.
    int laps = Math.max(BLOCK, laps(difference, spread));
    int each = (laps + BLOCK - 2) / (BLOCK - 1);
    int blocks = 2 * each;
    // Whole groups of two, so that neither way is driven more.
    boolean told = blocks * BLOCK <= available;
    List<Way> order = new ArrayList<>();
    if (told) {
      for (Way w : blocks(blocks)) {
        for (int k = 0; k < BLOCK; k++) {
          order.add(w);
        }
      }
    }
    return new TrialPlan(laps, told, order);
  }
}
