package marvek.core.telemetry;

import java.util.Arrays;
import marvek.core.circuit.Corner;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.line.Onset;
import org.jspecify.annotations.Nullable;

/** What the hands did in one corner, or the body on a motorcycle. */
final class Hands {
  // Shares of the most steering by which it is taken back and put on again in a correction, and of
  // those what counts on the line itself.
  private static final double TAKEN_BACK = 0.2;
  private static final double PUT_ON = 0.15;
  private static final double NEARLY = 0.5;

  private final CornerStretch on;
  private final double @Nullable [] bend;
  private final Path line;
  private final Trace t;
  private final Corner corner;
  private final double sign;
  private final double[] s;
  private final int first;
  private final int last;

  /**
   * A reader of steering.
   *
   * @param bend that the steering or the lean makes, 1/m; null without either
   * @param line usual path
   */
  Hands(CornerStretch on, double @Nullable [] bend, Path line) {
    this.on = on;
    this.line = line;
    this.bend = bend;
    this.t = on.t;
    this.corner = on.corner;
    this.sign = corner.left() ? 1 : -1;
    this.s = on.s;
    this.first = on.first;
    this.last = on.last;
  }

  double turnIn(double apex, int slow) {
    double[] u = new double[t.size()];
    double[] steered = bend;
    if (steered == null && !t.placed()) {
      return Double.NaN;
    }
    double[] column = steered != null ? steered : t.curvature();
    // Devices disagree on which side is positive: the side of the corner itself tells.
    double around = Double.isNaN(apex) ? s[slow] : apex;
    double entry = on.unwrapped(corner.entry());
    double until =
        corner.apexes().size() == 2
            ? (on.unwrapped(corner.apexes().get(0)) + on.unwrapped(corner.apex())) / 2
            : on.unwrapped(corner.exit());
    double side = 0;
    int lo = Math.max(first, t.at(Math.min(entry, around)));
    int hi = Math.max(lo, Math.min(last, t.at(Math.max(until, around))));
    for (int i = lo; i <= hi; i++) {
      side += column[i];
    }
    double turn = steered != null ? Math.signum(side) : sign;
    // A path that was only seen by positions weaves on the straight: far before the bend it is
    // not the corner.
    double begins =
        steered != null
            ? Math.min(around - CornerLine.LONGEST - 10, entry - CornerLine.BEFORE_ENTRY)
            : entry - 50;
    int back = Math.max(first, t.at(Math.max(on.turnsFrom, begins)));
    int width = (int) Math.max(1, Math.round(0.04 * t.rate()));
    for (int i = back; i <= hi; i++) {
      double sum = 0;
      int n = 0;
      for (int k = Math.max(0, i - width); k <= Math.min(t.size() - 1, i + width); k++) {
        sum += column[k];
        n++;
      }
      u[i] = turn * sum / n;
    }
    // Where along a long bend it is nearest to the inside is hardly known.
    double later = Math.max(around, on.unwrapped(corner.apexes().get(0)));
    int apexAt = Double.isNaN(apex) ? hi : Math.min(hi, t.at(later));
    double rest = steered != null ? CornerLine.REST : 2 * CornerLine.REST;
    double at =
        Onset.of(k -> u[Math.max(0, k)], k -> s[Math.max(0, k)], lo, apexAt, hi, back, rest);
    return at <= s[back] || Arrays.stream(u, lo, hi + 1).allMatch(b -> b <= 0) ? Double.NaN : at;
  }

  /** Times the hands went back by a fifth of the most and on again, before they unwind. */
  int corrections(double turnIn, double exit) {
    boolean steered = t.recorded(Channel.STEERING);
    if (!steered && !t.recorded(Channel.LEAN)) {
      return 0;
    }
    double[] raw = t.of(steered ? Channel.STEERING : Channel.LEAN);
    int a = t.at(turnIn);
    int b = Math.min(last, t.at(exit + 15));
    double[] meant = new double[raw.length];
    for (int i = a; i <= b; i++) {
      meant[i] = line.curvature()[on.road.index(s[i])];
    }
    // What the usual line itself asks of the hands is no correction, nor what it nearly asks: the
    // laps follow it by some metres.
    return Math.max(0, takenBack(raw, a, b, 1) - takenBack(meant, a, b, NEARLY));
  }

  /**
   * Times something went back by a fifth of its most and on again.
   *
   * @param share of that fifth from which it counts
   */
  private int takenBack(double[] raw, int a, int b, double share) {
    int width = (int) Math.max(1, Math.round(0.05 * t.rate()));
    double side = 0;
    for (int i = a; i <= b; i++) {
      side += raw[i];
    }
    double turn = Math.signum(side);
    double[] u = new double[Math.max(0, b - a + 1)];
    double peak = 0;
    for (int i = a; i <= b; i++) {
      double sum = 0;
      int n = 0;
      for (int k = Math.max(0, i - width); k <= Math.min(raw.length - 1, i + width); k++) {
        sum += raw[k];
        n++;
      }
      u[i - a] = turn * sum / n;
      peak = Math.max(peak, u[i - a]);
    }
    int count = 0;
    double top = 0;
    double low = 0;
    int topAt = 0;
    int lowAt = 0;
    boolean back = false;
    for (int i = 0; i < u.length; i++) {
      if (!back) {
        if (u[i] >= top) {
          top = u[i];
          topAt = i;
        }
        if (u[i] < top - share * TAKEN_BACK * peak) {
          back = true;
          low = u[i];
          lowAt = i;
        }
      } else {
        if (u[i] <= low) {
          low = u[i];
          lowAt = i;
        }
        if (u[i] > low + share * PUT_ON * peak) {
          // Two bends of one corner are slower than a correction.
          count += lowAt - topAt < 0.8 * t.rate() ? 1 : 0;
          back = false;
          top = u[i];
          topAt = i;
        }
      }
    }
    return count;
  }
}
