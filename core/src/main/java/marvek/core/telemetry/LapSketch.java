package marvek.core.telemetry;

import java.util.Arrays;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import org.jspecify.annotations.Nullable;

/**
 * What feet, hand and vehicle did in a lap, drawn with few knots: enough to read every action from
 * it, and small enough to keep with the lap.
 *
 * @param throttle share; null where it was not recorded
 * @param brake share of the hardest press of the recording; null where it was not recorded
 * @param gear from 1; null where it was not recorded
 * @param across metres to the left of the centreline; null where the place is not known
 * @param effort share of the driver's full press that a brake of 1 is, told from how it slows; null
 *     where that cannot be told
 * @param curve power of the share of the engine's force that the throttle of the recording shows,
 *     told from how it drives; 1 where it is straight or cannot be told
 * @param shortest seconds that an action must last to be seen
 * @param least share by which a pedal must move to be seen
 */
public record LapSketch(
    @Nullable Knots throttle,
    @Nullable Knots brake,
    @Nullable Knots gear,
    @Nullable Knots across,
    @Nullable Double effort,
    double curve,
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
  // A press that tells how the brake slows: share, m/s, seconds of it in a lap.
  private static final double FIRM = 0.3;
  private static final double SLOW = 15;
  private static final double ENOUGH = 0.5;
  // Efforts that a brake of 1 can be.
  private static final double FAINT = 0.1;
  private static final double MOST = 2.5;
  // Part throttle that tells how it is shown, what is steady from one sample to the next but one,
  // and
  // powers that count as straight.
  private static final double PART = 0.15;
  private static final double STEADY = 0.03;
  private static final double STRAIGHT = 0.15;
  // Standard deviation of a second difference of independent errors, and of the median of their
  // sizes.
  private static final double SECOND = Math.sqrt(6) * 0.6745;

  /**
   * Draws a lap, with what came just before and after it.
   *
   * @param road that it was driven on
   * @param line usual path
   * @param limits of the vehicle on the day
   * @param fullPress m/s² of the driver's full press
   */
  static LapSketch of(Trace t, Centreline road, Path line, Limits limits, double fullPress) {
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
        effort(t, road, line, limits, fullPress),
        curve(t, road, line, limits),
        Math.max(SHORTEST, SAMPLES / t.sampled()),
        Math.max(LEAST, TIMES_NOISE * noise));
  }

  private static @Nullable Knots column(Trace t, Channel channel, double tolerance) {
    return t.recorded(channel) ? Knots.of(t.station(), t.time(), t.of(channel), tolerance) : null;
  }

  /** What a brake of 1 is, from the middle of what all firm presses slow by. */
  private static @Nullable Double effort(
      Trace t, Centreline road, Path line, Limits limits, double fullPress) {
    if (!t.recorded(Channel.BRAKE) || !t.has(Channel.ALONG)) {
      return null;
    }
    double[] brake = t.of(Channel.BRAKE);
    double[] along = t.of(Channel.ALONG);
    double[] all = new double[brake.length];
    int n = 0;
    for (int i = t.begin(); i < t.end(); i++) {
      double v = t.speed()[i];
      if (brake[i] > FIRM && v > SLOW) {
        int k = road.index(t.station()[i]);
        double slows = -along[i] - limits.resistance(line, k, v, limits.load(line, k, v * v));
        slows -= limits.vehicle().brakes().engineBraking();
        all[n++] = slows / brake[i] / fullPress;
      }
    }
    if (n < ENOUGH * t.rate()) {
      return null;
    }
    double[] sorted = Arrays.copyOf(all, n);
    Arrays.sort(sorted);
    return sorted[n / 2];
  }

  /**
   * How the recording shows the throttle, from the middle of what all part throttle drives with.
   */
  private static double curve(Trace t, Centreline road, Path line, Limits limits) {
    if (!t.recorded(Channel.THROTTLE) || !t.recorded(Channel.GEAR) || !t.has(Channel.ALONG)) {
      return 1;
    }
    double[] throttle = t.of(Channel.THROTTLE);
    double[] gear = t.of(Channel.GEAR);
    double[] along = t.of(Channel.ALONG);
    double engine = limits.vehicle().brakes().engineBraking();
    double[] all = new double[throttle.length];
    int n = 0;
    for (int i = t.begin() + 1; i < t.end() - 1; i++) {
      double v = t.speed()[i];
      boolean steady =
          gear[i - 1] == gear[i + 1] && Math.abs(throttle[i + 1] - throttle[i - 1]) < STEADY;
      if (throttle[i] < PART || throttle[i] > 1 - PART || v < SLOW || gear[i] < 1 || !steady) {
        continue;
      }
      int k = road.index(t.station()[i]);
      double load = limits.load(line, k, v * v);
      double force = limits.wheelForce().at(v, (int) Math.round(gear[i])) / limits.mass();
      double share =
          (along[i] + limits.resistance(line, k, v, load) + engine) / Math.max(0.1, force + engine);
      if (share > PART / 2 && share < 1 - PART / 2) {
        all[n++] = Math.log(throttle[i]) / Math.log(share);
      }
    }
    if (n < ENOUGH * t.rate()) {
      return 1;
    }
    double curve = middle(all, n);
    return curve > 1 - STRAIGHT && curve < 1 + STRAIGHT ? 1 : curve;
  }

  /** The share of the engine's force that a throttle of the recording is. */
  public double force(double shown) {
    return curve == 1 ? shown : Math.pow(Math.max(0, Math.min(1, shown)), 1 / curve);
  }

  /**
   * The share of the driver's full press that a brake of the recording is; as shown if not known.
   */
  public double pressed(double shown) {
    Double of = effort;
    return of == null ? shown : shown * of;
  }

  /** The scatter of a column, as a standard deviation, from its second differences. */
  static double noise(double[] x) {
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
    return middle(d, n) / SECOND;
  }

  private static double middle(double[] values, int count) {
    double[] sorted = Arrays.copyOf(values, count);
    Arrays.sort(sorted);
    return sorted[count / 2];
  }
}
