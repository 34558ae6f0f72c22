package marvek.core.telemetry;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Path;
import org.jspecify.annotations.Nullable;

/** Where on the road the vehicle was in one corner. */
final class Placing {
  // Metres.
  private static final double INSIDE = 0.2;
  private static final double CLEARLY = 0.3;
  private static final double ABOUT = 5;

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
      double[] one = closest(Math.max(from, entry - slack), middle, entry, middle);
      double[] two = closest(middle, Math.min(to, exit + slack), middle, exit);
      return new double[] {one[0], two[0], two[1]};
    }
    double[] only =
        closest(
            Math.max(from, Math.max(entry - slack, corner.apex() - 80)),
            Math.min(to, Math.min(exit + slack, corner.apex() + 80)),
            entry,
            exit);
    return new double[] {Double.NaN, only[0], only[1]};
  }

  private double gap(int i) {
    int k = road.index(s[i]);
    return corner.left() ? road.left()[k] - t.offset()[i] : road.right()[k] + t.offset()[i];
  }

  /**
   * Station and gap of the closest approach to the inside: the middle of the stretch that lies
   * within 0.2 m of it, as one runs along the inside for a while. A place beyond the bend's ends
   * counts where it is clearly closer than all in the bend: who drives parallel to the road is
   * nowhere closer, and has the apex in the middle of the bend.
   */
  private double[] closest(double a, double b, double bends, double ends) {
    int start = t.at(a);
    int end = Math.min(t.size() - 1, t.at(b));
    double[] gap = smooth(start, end);
    int best = least(gap, start, start, end);
    int low = Math.max(start, t.at(Math.max(a, bends)));
    int high = Math.min(end, t.at(Math.min(b, ends)));
    if (low < high && (best < low || best > high)) {
      int inside = least(gap, start, low, high);
      best = gap[inside - start] < gap[best - start] + CLEARLY ? inside : best;
    }
    boolean within = best >= low && best <= high;
    int first = best;
    int to = best;
    while (first > (within ? low : start) && gap[first - 1 - start] < gap[best - start] + INSIDE) {
      first--;
    }
    while (to < (within ? high : end) && gap[to + 1 - start] < gap[best - start] + INSIDE) {
      to++;
    }
    double sum = 0;
    for (int k = first; k <= to; k++) {
      sum += gap(k);
    }
    // The closest of many noisy samples is closer than was driven; their mean is not.
    double mean = sum / (to - first + 1);
    return new double[] {(s[first] + s[to]) / 2, (mean + gap[best - start]) / 2};
  }

  private static int least(double[] gap, int start, int from, int to) {
    int best = from;
    for (int k = from; k <= to; k++) {
      best = gap[k - start] < gap[best - start] ? k : best;
    }
    return best;
  }

  /** Gaps of a stretch, each the mean over some metres about it. */
  private double[] smooth(int start, int end) {
    double[] sum = new double[end - start + 2];
    for (int k = start; k <= end; k++) {
      sum[k - start + 1] = sum[k - start] + gap(k);
    }
    double[] out = new double[end - start + 1];
    int low = start;
    int high = start;
    for (int k = start; k <= end; k++) {
      while (s[low] < s[k] - ABOUT) {
        low++;
      }
      while (high < end && s[high + 1] <= s[k] + ABOUT) {
        high++;
      }
      out[k - start] = (sum[high - start + 1] - sum[low - start]) / (high - low + 1);
    }
    return out;
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
