package marvek.core.telemetry;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * What feet, hand and vehicle did in a lap, drawn with few knots: enough to read every action from
 * it, and small enough to keep with the lap.
 *
 * @param throttle share; null where it was not recorded
 * @param brake share of the hardest press of the recording; null where it was not recorded
 * @param gear from 1; null where it was not recorded
 * @param across metres to the left of the centreline; null where the place is not known
 * @param shortest seconds that an action must last to be seen
 * @param least share by which a pedal must move to be seen
 */
public record LapSketch(
    @Nullable Knots throttle,
    @Nullable Knots brake,
    @Nullable Knots gear,
    @Nullable Knots across,
    double shortest,
    double least) {
  // Shares and metres within which a column is drawn.
  private static final double PEDAL = 0.025;
  private static final double GEAR = 0.4;
  private static final double ACROSS = 0.05;
  // What is never seen, and samples that an action needs.
  private static final double SHORTEST = 0.15;
  private static final double LEAST = 0.06;
  private static final double SAMPLES = 3;
  private static final double TIMES_NOISE = 5;
  // Standard deviation of a second difference of independent errors, and of the median of their
  // sizes.
  private static final double SECOND = Math.sqrt(6) * 0.6745;

  /** Draws a lap, with what came just before and after it. */
  public static LapSketch of(DrivenLap lap) {
    Trace t = lap.trace();
    double noise =
        Math.max(
            t.recorded(Channel.THROTTLE) ? noise(t.of(Channel.THROTTLE)) : 0,
            t.recorded(Channel.BRAKE) ? noise(t.of(Channel.BRAKE)) : 0);
    double pedal = Math.max(PEDAL, 3 * noise);
    return new LapSketch(
        column(t, Channel.THROTTLE, pedal),
        column(t, Channel.BRAKE, pedal),
        column(t, Channel.GEAR, GEAR),
        t.placed() ? Knots.of(t.station(), t.time(), t.offset(), ACROSS) : null,
        Math.max(SHORTEST, SAMPLES / t.sampled()),
        Math.max(LEAST, TIMES_NOISE * noise));
  }

  private static @Nullable Knots column(Trace t, Channel channel, double tolerance) {
    return t.recorded(channel) ? Knots.of(t.station(), t.time(), t.of(channel), tolerance) : null;
  }

  /** The scatter of a column, as a standard deviation, from its second differences. */
  private static double noise(double[] x) {
    double[] d = new double[Math.max(0, x.length - 2)];
    int n = 0;
    for (int i = 0; i < d.length; i++) {
      double second = Math.abs(x[i + 2] - 2 * x[i + 1] + x[i]);
      // Where a pedal rests at its stop nothing scatters.
      if (second > 1e-9) {
        d[n++] = second;
      }
    }
    if (n == 0) {
      return 0;
    }
    double[] sorted = Arrays.copyOf(d, n);
    Arrays.sort(sorted);
    return sorted[n / 2] / SECOND;
  }
}
