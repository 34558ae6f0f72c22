package marvek.core.telemetry;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Path;
import org.jspecify.annotations.Nullable;

/** Where on the road the vehicle was in one corner. */
final class Placing {
  private static final double INSIDE = 0.2;

  private final CornerStretch on;
  private final Trace t;
  private final Centreline road;
  private final Corner corner;
  private final Path line;
  private final double half;
  private final double[] s;
  private final double from;
  private final double to;
  private final int last;

  /**
   * A reader of places.
   *
   * @param line usual path
   * @param width of the vehicle, m
   */
  Placing(CornerStretch on, Path line, double width) {
    this.on = on;
    this.t = on.t;
    this.road = on.road;
    this.corner = on.corner;
    this.line = line;
    this.half = width / 2;
    this.s = on.s;
    this.from = on.from;
    this.to = on.to;
    this.last = on.last;
  }

  double[] apexes(double entry, double exit) {
    if (!t.placed()) {
      return new double[] {Double.NaN, Double.NaN, Double.NaN};
    }
    double slack = 20;
    if (corner.apexes().size() == 2) {
      double a = on.unwrapped(corner.apexes().get(0));
      double middle = (a + corner.apex()) / 2;
      double[] one = closest(Math.max(from, entry - slack), middle);
      double[] two = closest(middle, Math.min(to, exit + slack));
      return new double[] {one[0], two[0], two[1]};
    }
    double[] only =
        closest(
            Math.max(from, Math.max(entry - slack, corner.apex() - 80)),
            Math.min(to, Math.min(exit + slack, corner.apex() + 80)));
    return new double[] {Double.NaN, only[0], only[1]};
  }

  private double gap(int i) {
    int k = road.index(s[i]);
    return corner.left() ? road.left()[k] - t.offset()[i] : road.right()[k] + t.offset()[i];
  }

  /**
   * Station and gap of the closest approach to the inside: the middle of the stretch that lies
   * within 0.2 m of it, as one runs along the inside for a while.
   */
  private double[] closest(double a, double b) {
    int i = t.at(a);
    int end = Math.min(t.size() - 1, t.at(b));
    int best = i;
    for (int k = i; k <= end; k++) {
      best = gap(k) < gap(best) ? k : best;
    }
    int low = best;
    int high = best;
    while (low > i && gap(low - 1) < gap(best) + INSIDE) {
      low--;
    }
    while (high < end && gap(high + 1) < gap(best) + INSIDE) {
      high++;
    }
    double sum = 0;
    for (int k = low; k <= high; k++) {
      sum += gap(k);
    }
    // The closest of many noisy samples is closer than was driven; their mean is not.
    double mean = sum / (high - low + 1);
    return new double[] {(s[low] + s[high]) / 2, (mean + gap(best)) / 2};
  }

  /** The shift along the road at which the usual line fits best what was driven on the way in. */
  @Nullable Double lineShift(double entry) {
    double a = Math.max(from + 10, entry - 30);
    double b = on.unwrapped(corner.apexes().get(0));
    if (b - a < 25 || t.at(a) == 0 || t.at(b) >= t.size()) {
      return null;
    }
    int count = (int) ((b - a) / 2) + 1;
    double[] driven = new double[count];
    for (int i = 0; i < count; i++) {
      driven[i] = t.value(t.offset(), a + 2 * i);
    }
    double best = 0;
    double least = Double.MAX_VALUE;
    for (double d = -20; d <= 20; d += 0.5) {
      double sum = 0;
      for (int i = 0; i < count; i++) {
        double miss = driven[i] - line.offset()[road.index(a + 2 * i - d)];
        sum += miss * miss;
      }
      if (sum < least) {
        least = sum;
        best = d;
      }
    }
    return best;
  }

  double[] widest(int apex) {
    if (!t.placed()) {
      return new double[] {Double.NaN, Double.NaN};
    }
    double reach = Math.min(to - 10, on.unwrapped(corner.exit()) + 60);
    double at = Double.NaN;
    double least = Double.MAX_VALUE;
    for (int i = apex + 2; i < last && s[i] <= reach; i++) {
      int k = road.index(s[i]);
      double room =
          (corner.left() ? road.right()[k] + t.offset()[i] : road.left()[k] - t.offset()[i]) - half;
      if (room < least) {
        least = room;
        at = s[i];
      }
    }
    return new double[] {at, Double.isNaN(at) ? Double.NaN : least};
  }
}
