package marvek.core.session;

import java.util.List;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.hipparchus.stat.StatUtils;

/**
 * How much a driver's own times differ from lap to lap.
 *
 * @param seconds as a standard deviation; where laps are few, the most that it may well be
 * @param laps that it rests on; 0 where it is the usual one
 */
public record OwnSpread(double seconds, int laps) {
  /** Of a corner's section with no laps at hand (common practice, no source). */
  public static final double USUAL_CORNER = 0.1;

  /** Of a lap with no laps at hand (common practice, no source). */
  public static final double USUAL_LAP = 0.35;

  private static final int FEWEST = 4;
  private static final int MANY = 10;
  private static final double SURE = 0.8;
  // Nobody is steadier than timing can tell.
  private static final double LEAST = 0.02;

  /**
   * From times of several runs: each lap against the others of its run, so that what differs from
   * run to run does not count. With under ten laps the upper end of its one-sided 80 % interval, by
   * the chi-squared distribution.
   *
   * @param runs seconds by run
   * @param usual where there are too few
   */
  public static OwnSpread of(List<double[]> runs, double usual) {
    int laps = 0;
    int freedom = 0;
    double squares = 0;
    for (double[] run : runs) {
      if (run.length >= 2) {
        laps += run.length;
        freedom += run.length - 1;
        squares += StatUtils.variance(run) * (run.length - 1);
      }
    }
    if (laps < FEWEST) {
      return new OwnSpread(usual, 0);
    }
    double divisor =
        laps < MANY
            ? new ChiSquaredDistribution(freedom).inverseCumulativeProbability(1 - SURE)
            : freedom;
    return new OwnSpread(Math.max(LEAST, Math.sqrt(squares / divisor)), laps);
  }
}
