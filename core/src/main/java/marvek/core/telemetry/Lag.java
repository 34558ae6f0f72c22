package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.IntToDoubleFunction;

/**
 * By how much positions and their speed come later than what the vehicle measures itself.
 *
 * <p>It is told from beginnings only, which no taper of a pedal and no gap moves: where the brake
 * is pressed against where the speed begins to fall, where the throttle is shut against where the
 * pull ends, and the steering against the bend of the path. The brake and one of the others must
 * agree; otherwise none is taken.
 *
 * @param seconds by which positions come later; negative where they come sooner
 * @param doubt half of the interval that holds it at 95 %, seconds
 */
record Lag(double seconds, double doubt) {
  private static final double MOST = 0.6;
  private static final double LEAST = 0.06;
  private static final int FEWEST = 6;
  // Widest interval that a lag is taken with, and how far two ways of telling it may differ.
  private static final double WIDEST = 0.035;
  private static final double AGREE = 0.05;
  private static final double ANSWERS = 0.08;
  // Seconds before a beginning in which the pedal rests, in which it is worked, and to its full
  // effect.
  private static final double REST = 0.3;
  private static final double WORKED = 0.5;
  private static final double EFFECT = 0.9;
  // What the shut throttle slows, of what the brake does.
  private static final double SHUT = 0.12;

  /**
   * Learns it from even samples.
   *
   * @param even with the brake, and the throttle or the steering
   * @param speed m/s, of the positions' clock
   * @param curvature of the path driven, 1/m; NaN where the place is not known
   */
  static Optional<Lag> of(Even even, double[] speed, double[] curvature) {
    double rate = even.rate();
    if (!even.has(Channel.BRAKE) || rate < 9 || speed.length < 60 * rate) {
      return Optional.empty();
    }
    double[] slope = Even.over(0.1, rate).slope(speed);
    for (int i = 0; i < slope.length; i++) {
      slope[i] *= rate;
    }
    double[] brake = even.of(Channel.BRAKE);
    double most = Arrays.stream(brake).filter(b -> !Double.isNaN(b)).max().orElse(0);
    double[] pressed =
        delays(even, i -> brake[i] / Math.max(1e-9, most), i -> -slope[i], new double[0]);
    if (pressed.length < FEWEST) {
      return Optional.empty();
    }
    double middle = median(pressed);
    double spread = spread(pressed, middle);
    double doubt = 2 * 1.2533 * spread / Math.sqrt(pressed.length) + 0.1 / rate;
    boolean agreed = false;
    if (even.has(Channel.STEERING)) {
      OptionalDouble bend = bend(even, curvature);
      // A vehicle answers its steering a little later.
      double after = bend.orElse(Double.NaN) - middle;
      agreed = after > -AGREE - doubt && after < AGREE + ANSWERS + doubt;
    }
    if (!agreed && even.has(Channel.THROTTLE)) {
      double[] throttle = even.of(Channel.THROTTLE);
      double[] shut = delays(even, i -> 1 - throttle[i], i -> -slope[i], brake);
      agreed = shut.length >= FEWEST && Math.abs(median(shut) - middle) < AGREE + doubt;
    }
    boolean tells = Math.abs(middle) >= Math.max(LEAST, 0.75 / rate) && Math.abs(middle) > doubt;
    return agreed && tells && doubt < WIDEST
        ? Optional.of(new Lag(middle, doubt))
        : Optional.empty();
  }

  /**
   * Seconds from half of each sharp beginning of a cause to half of its effect.
   *
   * @param calm what must rest while the effect shows; empty for nothing
   */
  private static double[] delays(
      Even even, IntToDoubleFunction cause, IntToDoubleFunction effect, double[] calm) {
    double rate = even.rate();
    int n = even.time().length;
    int rest = (int) Math.ceil(REST * rate);
    int worked = (int) Math.ceil(WORKED * rate);
    int shows = (int) Math.ceil((EFFECT + MOST) * rate);
    int before = (int) Math.ceil(MOST / 2 * rate);
    List<Double> out = new ArrayList<>();
    for (int i = Math.max(rest, 2 * before) + 1; i + shows + worked < n; i++) {
      if (!(cause.applyAsDouble(i) > 0.1 && cause.applyAsDouble(i - 1) <= 0.1)) {
        continue;
      }
      double top = 0;
      double low = 0;
      boolean usable = true;
      for (int k = i - Math.max(rest, 2 * before); k <= i + shows; k++) {
        usable &= !even.gap()[k] && !Double.isNaN(cause.applyAsDouble(k));
      }
      for (int k = i - rest; k < i; k++) {
        low = Math.max(low, cause.applyAsDouble(k));
      }
      for (int k = i; k <= i + worked; k++) {
        top = Math.max(top, cause.applyAsDouble(k));
        usable &= calm.length == 0 || calm[k] < 0.02 * max(calm);
      }
      if (!usable || low > 0.12 || top < 0.4) {
        continue;
      }
      double begun = crossing(cause, i - 1, i + worked, (low + top) / 2);
      // What the effect is before and after, wherever it lies within the longest lag.
      double full = -Double.MAX_VALUE;
      for (int k = i - before; k <= i + shows; k++) {
        full = Math.max(full, effect.applyAsDouble(k));
      }
      // With the throttle just shut, what slows is engine and air.
      double quiet = Math.max(mean(effect, i - 2 * before, i - before), SHUT * full);
      double seen = crossing(effect, i - before, i + shows, quiet + 0.5 * (full - quiet));
      if (full > 2 && !Double.isNaN(begun) && !Double.isNaN(seen)) {
        out.add((seen - begun) / rate);
      }
    }
    return out.stream().mapToDouble(Double::doubleValue).toArray();
  }

  private static double max(double[] x) {
    double most = 1e-9;
    for (double v : x) {
      most = v > most ? v : most;
    }
    return most;
  }

  private static double mean(IntToDoubleFunction f, int from, int to) {
    double sum = 0;
    for (int k = from; k < to; k++) {
      sum += f.applyAsDouble(k);
    }
    return sum / Math.max(1, to - from);
  }

  /** Where something first passes a level upwards, in samples; NaN where it does not. */
  private static double crossing(IntToDoubleFunction f, int from, int to, double level) {
    for (int k = from + 1; k <= to; k++) {
      double a = f.applyAsDouble(k - 1);
      double b = f.applyAsDouble(k);
      if (a < level && b >= level) {
        return k - 1 + (level - a) / (b - a);
      }
    }
    return Double.NaN;
  }

  /** The delay at which the bend of the path is most like the steering; empty at the ends. */
  private static OptionalDouble bend(Even even, double[] curvature) {
    double rate = even.rate();
    int most = (int) Math.round(MOST * rate);
    double[] steering = even.of(Channel.STEERING);
    double[] alike = new double[most + most / 2 + 1];
    int from = -most / 2;
    int best = 0;
    for (int k = 0; k < alike.length; k++) {
      alike[k] = Math.abs(alike(even, steering, curvature, from + k, most));
      best = alike[k] > alike[best] ? k : best;
    }
    if (best == 0 || best == alike.length - 1 || alike[best] < 0.6) {
      return OptionalDouble.empty();
    }
    double a = alike[best - 1];
    double b = alike[best + 1];
    double bent = a - 2 * alike[best] + b;
    double between = bent == 0 ? 0 : (a - b) / (2 * bent);
    return OptionalDouble.of((from + best + between) / rate);
  }

  private static double alike(Even even, double[] a, double[] b, int late, int margin) {
    double n = 0;
    double sa = 0;
    double sb = 0;
    double saa = 0;
    double sbb = 0;
    double sab = 0;
    for (int i = margin; i < a.length - margin; i++) {
      double x = a[i];
      double y = b[i + late];
      if (Double.isNaN(x) || Double.isNaN(y) || even.gap()[i] || even.gap()[i + late]) {
        continue;
      }
      n++;
      sa += x;
      sb += y;
      saa += x * x;
      sbb += y * y;
      sab += x * y;
    }
    double both = (n * saa - sa * sa) * (n * sbb - sb * sb);
    return both <= 0 ? 0 : (n * sab - sa * sb) / Math.sqrt(both);
  }

  private static double median(double[] x) {
    double[] sorted = x.clone();
    Arrays.sort(sorted);
    int h = sorted.length / 2;
    return sorted.length % 2 == 1 ? sorted[h] : (sorted[h - 1] + sorted[h]) / 2;
  }

  private static double spread(double[] x, double middle) {
    return 1.4826 * median(Arrays.stream(x).map(v -> Math.abs(v - middle)).toArray());
  }
}
