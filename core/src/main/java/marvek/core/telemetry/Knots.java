package marvek.core.telemetry;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import org.jspecify.annotations.Nullable;

/**
 * A column of a lap drawn with few knots, straight between them. Arrays are not to be changed by
 * whoever reads them.
 *
 * @param at stations of the knots, m, rising; below zero before the line
 * @param time seconds since the line
 * @param value there
 */
public record Knots(double[] at, double[] time, double[] value) {
  private static final double DIGITS = 1e4;

  /**
   * Leaves out what lies on the straight between what is kept (Ramer, Douglas and Peucker, by the
   * distance in value).
   *
   * @param at stations, m
   * @param time s, rising
   * @param value NaN where not known; what lies before the first and after the last is left out
   * @param tolerance greatest distance from the straight
   */
  public static Knots of(double[] at, double[] time, double[] value, double tolerance) {
    int first = 0;
    int last = value.length - 1;
    while (first < last && Double.isNaN(value[first])) {
      first++;
    }
    while (last > first && Double.isNaN(value[last])) {
      last--;
    }
    boolean[] keep = new boolean[value.length];
    Deque<int[]> spans = new ArrayDeque<>();
    if (last >= first && value.length > 0) {
      keep[first] = true;
      keep[last] = true;
      spans.push(new int[] {first, last});
    }
    while (!spans.isEmpty()) {
      int[] span = spans.pop();
      int a = span[0];
      int b = span[1];
      double most = tolerance;
      int split = -1;
      for (int i = a + 1; i < b; i++) {
        double share = (time[i] - time[a]) / (time[b] - time[a]);
        double off = Math.abs(value[i] - value[a] - share * (value[b] - value[a]));
        if (off > most) {
          most = off;
          split = i;
        }
      }
      if (split > 0) {
        keep[split] = true;
        spans.push(new int[] {a, split});
        spans.push(new int[] {split, b});
      }
    }
    int count = 0;
    for (boolean k : keep) {
      count += k ? 1 : 0;
    }
    double[][] out = new double[3][count];
    int j = 0;
    for (int i = 0; i < keep.length; i++) {
      if (keep[i]) {
        out[0][j] = rounded(at[i]);
        out[1][j] = rounded(time[i]);
        out[2][j++] = rounded(value[i]);
      }
    }
    return new Knots(out[0], out[1], out[2]);
  }

  private static double rounded(double x) {
    return Math.rint(x * DIGITS) / DIGITS;
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof Knots k
        && Arrays.equals(at, k.at)
        && Arrays.equals(time, k.time)
        && Arrays.equals(value, k.value);
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(at) + 31 * Arrays.hashCode(value);
  }

  /** Number of knots. */
  public int size() {
    return at.length;
  }

  /** The value at a station; NaN where the lap was not drawn. */
  public double valueAt(double station) {
    return along(at, value, station);
  }

  /** Seconds since the line at a station; NaN where the lap was not drawn. */
  public double timeAt(double station) {
    return along(at, time, station);
  }

  /** The station at a time; NaN where the lap was not drawn. */
  public double stationAt(double seconds) {
    return along(time, at, seconds);
  }

  private static double along(double[] x, double[] y, double where) {
    int n = x.length;
    if (n == 0 || where < x[0] || where > x[n - 1]) {
      return Double.NaN;
    }
    int low = 0;
    int high = n - 1;
    while (high - low > 1) {
      int middle = (low + high) >>> 1;
      if (x[middle] <= where) {
        low = middle;
      } else {
        high = middle;
      }
    }
    double span = x[high] - x[low];
    return span > 0 ? y[low] + (y[high] - y[low]) * (where - x[low]) / span : y[low];
  }

  /**
   * The stations where the value passes a level on its way up, or on its way down.
   *
   * @param up which way
   */
  public double[] passes(double level, boolean up) {
    double[] out = new double[at.length];
    int n = 0;
    for (int i = 1; i < at.length; i++) {
      boolean crossed =
          up
              ? value[i - 1] < level && value[i] >= level
              : value[i - 1] > level && value[i] <= level;
      if (crossed) {
        double share = (level - value[i - 1]) / (value[i] - value[i - 1]);
        out[n++] = at[i - 1] + share * (at[i] - at[i - 1]);
      }
    }
    return Arrays.copyOf(out, n);
  }
}
