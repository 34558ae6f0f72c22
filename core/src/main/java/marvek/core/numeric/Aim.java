package marvek.core.numeric;

import org.hipparchus.distribution.continuous.NormalDistribution;

/**
 * Where to aim when one scatters about one's aim and missing costs more on one side than on the
 * other. Places are metres from the place as planned, positive is later.
 *
 * <p>The newsvendor's question (Arrow, Harris and Marschak 1951, from memory).
 */
public final class Aim {
  private static final NormalDistribution NORMAL = new NormalDistribution(0, 1);
  private static final double FINE = 0.25;
  private static final double WIDE = 4;
  private static final int PARTS = 96;

  private Aim() {}

  /** Seconds that a place costs. */
  @FunctionalInterface
  public interface Cost {
    /** Seconds at a place in metres. */
    double at(double metres);
  }

  /**
   * Where to aim between two straight flanks.
   *
   * @param early seconds a metre on the early side
   * @param late seconds a metre on the late side
   * @param sigma standard deviation, m
   * @return metres; negative is early
   */
  public static double straight(double early, double late, double sigma) {
    return -sigma * NORMAL.inverseCumulativeProbability(late / (late + early));
  }

  /** Mean cost of an aim, by quadrature over four standard deviations to each side. */
  public static double mean(Cost cost, double aim, double sigma) {
    double sum = 0;
    double weight = 0;
    for (int k = 0; k <= PARTS; k++) {
      double z = WIDE * (2.0 * k / PARTS - 1);
      double w = NORMAL.density(z);
      sum += w * cost.at(aim + z * sigma);
      weight += w;
    }
    return sum / weight;
  }

  /** Metres before a limit that are passed with no more than a chance. */
  public static double before(double sigma, double chance) {
    return sigma * NORMAL.inverseCumulativeProbability(1 - chance);
  }

  /**
   * The aim that costs least on average.
   *
   * @param from earliest aim looked at, m
   * @param to latest
   */
  public static double best(Cost cost, double sigma, double from, double to) {
    double best = from;
    double least = Double.MAX_VALUE;
    for (double aim = from; aim <= to + 1e-9; aim += FINE) {
      double mean = mean(cost, aim, sigma);
      if (mean < least - 1e-12) {
        least = mean;
        best = aim;
      }
    }
    return best;
  }
}
