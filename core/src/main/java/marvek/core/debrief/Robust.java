package marvek.core.debrief;

import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.distribution.discrete.BinomialDistribution;
import org.hipparchus.stat.descriptive.rank.Percentile;

/** Statistics that a few odd laps do not upset. */
public final class Robust {
  private static final double NORMAL = 1.4826;
  private static final int MOST = 100;
  private static final double CHANCE = 0.01;

  private Robust() {}

  /** The value in the middle, between the two of them where their number is even. */
  public static double median(double[] values) {
    return quantile(values, 0.5);
  }

  /** A quantile, 0 to 1, between the values by straight lines. */
  public static double quantile(double[] values, double share) {
    if (values.length == 0) {
      return Double.NaN;
    }
    double p = Math.max(1e-9, Math.min(1, share)) * 100;
    return new Percentile().withEstimationType(Percentile.EstimationType.R_7).evaluate(values, p);
  }

  /**
   * Spread as a standard deviation, from the median of the distances to the median. Source: F. R.
   * Hampel, "The influence curve and its role in robust estimation" (1974).
   */
  public static double spread(double[] values) {
    double middle = median(values);
    return NORMAL * median(Arrays.stream(values).map(v -> Math.abs(v - middle)).toArray());
  }

  /**
   * The least of so many that chance alone brings about less than once in a hundred times.
   *
   * @param chance of each, 0 to 1
   * @param of how many; the answer may be one more than that
   */
  public static int beyondChance(double chance, int of) {
    return 1 + new BinomialDistribution(of, chance).inverseCumulativeProbability(1 - CHANCE);
  }

  /**
   * A slope with its interval.
   *
   * @param value change of y for 1 of x
   * @param low lower end of the interval
   * @param high upper end
   */
  public record Slope(double value, double low, double high) {
    /** Whether the interval tells which way it goes. */
    public boolean tells() {
      return low > 0 || high < 0;
    }
  }

  /**
   * The median of the slopes between pairs, with the interval of Kendall's rank statistic. Source:
   * P. K. Sen, "Estimates of the regression coefficient based on Kendall's tau", J. Amer. Statist.
   * Assoc. 63 (1968).
   *
   * @param confidence of the interval, such as 0.9
   */
  public static Slope slope(double[] x, double[] y, double confidence) {
    return slope(x, y, new int[x.length], confidence);
  }

  /**
   * The same from pairs within groups only, so that what differs between groups has no say. Source:
   * R. M. Hirsch, J. R. Slack and R. A. Smith, "Techniques of trend analysis for monthly water
   * quality data", Water Resources Research 18 (1982).
   *
   * @param group of each point
   */
  public static Slope slope(double[] x, double[] y, int[] group, double confidence) {
    if (x.length > MOST) {
      // Pairs grow with the square of the points; so many evenly chosen ones say as much.
      int[] chosen = new int[MOST];
      for (int i = 0; i < MOST; i++) {
        chosen[i] = (int) ((long) i * x.length / MOST);
      }
      return slope(
          Arrays.stream(chosen).mapToDouble(i -> x[i]).toArray(),
          Arrays.stream(chosen).mapToDouble(i -> y[i]).toArray(),
          Arrays.stream(chosen).map(i -> group[i]).toArray(),
          confidence);
    }
    int n = x.length;
    double[] slopes = new double[n * (n - 1) / 2];
    int m = 0;
    Map<Integer, Integer> sizes = new TreeMap<>();
    for (int i = 0; i < n; i++) {
      sizes.merge(group[i], 1, Integer::sum);
      for (int j = i + 1; j < n; j++) {
        if (group[i] == group[j] && Math.abs(x[j] - x[i]) > 1e-9) {
          slopes[m++] = (y[j] - y[i]) / (x[j] - x[i]);
        }
      }
    }
    if (m < 3) {
      return new Slope(0, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }
    double[] sorted = Arrays.copyOf(slopes, m);
    Arrays.sort(sorted);
    double variance = 0;
    for (int k : sizes.values()) {
      variance += k * (k - 1.0) * (2 * k + 5) / 18;
    }
    double z = new NormalDistribution().inverseCumulativeProbability(0.5 + confidence / 2);
    double c = z * Math.sqrt(variance);
    int low = (int) Math.floor((m - c) / 2);
    int high = (int) Math.ceil((m + c) / 2);
    return new Slope(
        median(sorted),
        low < 0 ? Double.NEGATIVE_INFINITY : sorted[low],
        high >= m ? Double.POSITIVE_INFINITY : sorted[high]);
  }
}
