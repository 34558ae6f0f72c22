package marvek.core.telemetry;

import marvek.core.circuit.Corner;

/**
 * What the feet did in one corner. Edges are found by going from the middle of a press outwards and
 * drawing the flank on to where it leaves zero, so that noise at rest does not count.
 */
final class PedalWork {
  private static final double TOUCH = 0.05;
  static final double PRESSED = 0.06;

  /** Seconds without brakes that do not end a braking. */
  static final double GAP = 0.5;

  private static final double FULL = 0.965;
  // Metres that a foot on its way all the time is read wrong by.
  private static final double RESTS = 6;
  // Seconds of it that count as held, and as touched.
  private static final double FULL_HELD = 0.25;
  private static final double FULL_TOUCHED = 0.08;
  // Seconds for which a brake that is bled off may lie below what counts as pressed.
  private static final double LONG_TRAIL = 1.2;
  // A rise that was only seen through the speed starts about this long before its middle.
  private static final double HALF_RISE = 0.06;

  private final CornerStretch on;
  private final Trace t;
  private final Corner corner;
  private final double[] s;
  private final double[] v;
  private final double[] brake;
  private final double[] throttle;
  private final boolean seenBrake;
  private final boolean seenThrottle;
  private final double from;
  private final double to;
  private final double nextEntry;
  private final int first;
  private final int last;

  PedalWork(CornerStretch on) {
    this.on = on;
    this.t = on.t;
    this.corner = on.corner;
    this.s = on.s;
    this.v = on.v;
    this.brake = on.brake;
    this.throttle = on.throttle;
    this.seenBrake = on.seenBrake;
    this.seenThrottle = on.seenThrottle;
    this.from = on.from;
    this.to = on.to;
    this.nextEntry = on.nextEntry;
    this.first = on.first;
    this.last = on.last;
  }

  /** Where the brake is pressed anew after the apex, the next corner has begun. */
  int beforeNext(int a, int b) {
    int off = 0;
    for (int i = Math.max(a, t.at(corner.apex() - 10)); i <= b; i++) {
      if (brake[i] > PRESSED && off > 0.12 * t.rate()) {
        return i;
      }
      off = brake[i] > PRESSED ? 0 : off + 1;
    }
    return b;
  }

  int highest(double[] x, int a, int b) {
    int best = a;
    for (int i = a; i <= b; i++) {
      if (x[i] > x[best]) {
        best = i;
      }
    }
    return best;
  }

  /**
   * The last sample of braking for this corner: of the press that lasts over the slowest place, or
   * of the last one before it.
   */
  int lastPress(int slow) {
    int near = Math.min(last, slow + (int) (0.12 * t.rate()));
    int end = -1;
    for (int i = near; i > first; i--) {
      if (brake[i] > PRESSED) {
        end = i;
        break;
      }
      if (throttle[i] > 0.5 && s[i] < s[slow] - 60) {
        break;
      }
    }
    while (end >= 0 && end < last && brake[end + 1] > PRESSED) {
      end++;
    }
    int again = end < 0 ? -1 : on.pressedAgain(Math.min(end, t.at(corner.apex())), end);
    end = again > 0 ? again - 1 : end;
    // Braking that ended long before the corner belongs to another one.
    return end >= 0 && s[slow] - s[end] < 160 ? end : -1;
  }

  /** The first sample of the next press up to a sample that is not for the corner after; or -1. */
  int nextPress(int from, int to) {
    for (int i = Math.max(first + 1, from); i <= Math.min(last, to); i++) {
      if (brake[i] > PRESSED && brake[i - 1] <= PRESSED) {
        return i;
      }
    }
    return -1;
  }

  /** The first sample of the same braking; short releases in between belong to it. */
  int firstPress(int end) {
    int start = end;
    int gap = 0;
    // What was pressed already at the apex before is that corner's, up to where it is pressed anew.
    int anew = brake[first] > PRESSED ? on.pressedAgain(first, end) : first;
    for (int i = end; i >= Math.max(first, anew); i--) {
      if (brake[i] > PRESSED) {
        start = i;
        gap = 0;
      } else {
        gap++;
        if (gap > 1.2 * t.rate() || throttle[i] > 0.4) {
          break;
        }
      }
    }
    if (anew < 0 && start <= first + 1) {
      return -1;
    }
    // A press too short to slow anything is noise of the sensor.
    return end - start < 0.08 * t.rate() ? -1 : start;
  }

  double risen(int start, int end) {
    int to = (int) Math.min(end, start + 0.6 * t.rate());
    double top = brake[highest(brake, start, to)];
    if (!seenBrake) {
      double middle = crossed(brake, start, 0.5 * top, -1);
      return middle - HALF_RISE * v[start];
    }
    double low = crossed(brake, start, Math.max(PRESSED, 0.15 * top), 1);
    double high = crossed(brake, start, 0.6 * top, 1);
    double share = (0.6 * top - Math.max(PRESSED, 0.15 * top));
    double back = share > 1e-6 ? (high - low) * Math.max(PRESSED, 0.15 * top) / share : 0;
    return low - Math.max(0, Math.min(back, 0.5 * v[start]));
  }

  /** Station where a rising signal crosses a level, looked for from a sample near it. */
  private double crossed(double[] x, int near, double level, int way) {
    int i = near;
    if (way > 0 || x[i] < level) {
      while (i < last && x[i] < level) {
        i++;
      }
    }
    while (i > first && x[i - 1] >= level) {
      i--;
    }
    if (i == 0 || x[i] == x[i - 1]) {
      return s[i];
    }
    double share = (level - x[i - 1]) / (x[i] - x[i - 1]);
    return s[i - 1] + Math.max(0, Math.min(1, share)) * (s[i] - s[i - 1]);
  }

  double fallen(int end) {
    double a = falls(end, 2.5 * PRESSED);
    double b = falls(end, PRESSED);
    double onward = Double.isNaN(a) ? 0 : (b - a) / 1.5;
    return b + Math.max(0, Math.min(onward, seenBrake ? LONG_TRAIL * v[end] : 0));
  }

  /** Station where the signal last falls through a level before a sample. */
  private double falls(int end, double level) {
    int i = Math.min(last, end + 1);
    while (i > first && brake[i - 1] < level) {
      i--;
    }
    if (i <= first || i >= s.length || t.time()[end] - t.time()[i] > 2 * LONG_TRAIL) {
      return Double.NaN;
    }
    double share = (brake[i - 1] - level) / Math.max(1e-9, brake[i - 1] - brake[i]);
    return s[i - 1] + Math.max(0, Math.min(1, share)) * (s[i] - s[i - 1]);
  }

  int presses(int start, int end) {
    int count = 1;
    int off = 0;
    double top = brake[highest(brake, start, end)];
    for (int i = start; i <= end; i++) {
      if (brake[i] < Math.max(PRESSED, 0.15 * top)) {
        off++;
      } else {
        if (off > 0.12 * t.rate()) {
          count++;
        }
        off = 0;
      }
    }
    return count;
  }

  double lift(int begin) {
    int i = begin;
    int limit = Math.max(first, begin - (int) (6 * t.rate()));
    while (i > limit && throttle[i] < 0.9) {
      i--;
    }
    return throttle[i] >= 0.9 && i < begin ? s[i] : Double.NaN;
  }

  /** Sample at which the throttle is shut before or after a press begins. */
  int shut(int start) {
    int i = Math.min(last, start + (int) (0.5 * t.rate()));
    if (throttle[i] > TOUCH) {
      return -1;
    }
    while (i > first && throttle[i - 1] <= TOUCH) {
      i--;
      if (i < start - 1 && brake[i] > PRESSED) {
        // Shut since the braking before.
        return -1;
      }
    }
    if (i <= first) {
      return -1;
    }
    return t.time()[start] - t.time()[i] > 4 ? -1 : i;
  }

  /** The sample from which the throttle is touched for good after the braking or lift. */
  int throttleOn(int search, int slow, int pressEnd) {
    int i = search;
    while (i < last && throttle[i] > TOUCH) {
      i++;
    }
    if (i >= Math.min(last, slow + (int) (4 * t.rate()))) {
      return -1;
    }
    int until = pressEnd < 0 ? beforeNext(slow, last) : last;
    int hold = (int) Math.max(2, (seenThrottle ? 0.18 : 0.3) * t.rate());
    for (; i < until - hold; i++) {
      if (throttle[i] <= TOUCH) {
        continue;
      }
      int k = i;
      while (k < last && throttle[k] > 0.8 * TOUCH) {
        k++;
      }
      boolean blip = i < slow && pressEnd >= 0 && i < pressEnd && k - i < 0.45 * t.rate();
      if (k - i >= hold && !blip) {
        return i;
      }
      i = k;
    }
    return -1;
  }

  double touched(int open) {
    double a = crossed(throttle, open, TOUCH, 1);
    return a - 0.02 * v[open];
  }

  /**
   * The sample from which the throttle stays full until the next corner is slowed for; where it is
   * full for a moment only, that moment, as far as the pedal was recorded; -1 if it never is.
   */
  int fullFrom(int open) {
    int held = heldFull(open, FULL_HELD);
    return held < 0 && seenThrottle ? heldFull(open, FULL_TOUCHED) : held;
  }

  private int heldFull(int open, double seconds) {
    int hold = (int) Math.max(3, seconds * t.rate());
    for (int i = open; i < last - 1; i++) {
      if (throttle[i] < FULL) {
        continue;
      }
      int k = i;
      while (k < last && throttle[k] >= FULL - 0.04) {
        k++;
      }
      if (k - i >= hold) {
        return i;
      }
      i = k;
    }
    return -1;
  }

  /**
   * The sample at which a throttle that was eased without being shut is least open, between the
   * lift and a while after the slowest place; -1 if it was not eased.
   */
  int leastOpen(double lift, int slow) {
    if (Double.isNaN(lift)) {
      return -1;
    }
    int to = Math.min(last, slow + (int) (2 * t.rate()));
    int least = t.at(lift);
    for (int i = least; i <= to; i++) {
      least = throttle[i] < throttle[least] ? i : least;
    }
    return least;
  }

  double filled(int open, int full) {
    if (!seenThrottle) {
      return s[full];
    }
    double b = crossed(throttle, full, 0.93, -1);
    double a = crossed(throttle, full, 0.8, -1);
    double onward = (b - a) * 0.07 / 0.13;
    // A pedal that rests on its way is opened no farther than it goes on from there.
    double last = (s[full] - b) * 0.07 / (FULL - 0.93);
    onward = b <= s[full] && onward > last + RESTS ? last : onward;
    boolean drawn = a > s[open] - 1 && onward >= 0;
    return drawn ? b + Math.min(onward, 0.5 * v[full]) : s[full];
  }

  int lifts(int open, int exitIndex) {
    // What is eased for the next corner is not a lift in this one.
    int next = t.at(Math.min(to - 30, nextEntry + 5));
    int end = Math.min(last, Math.min(exitIndex + (int) (1.5 * t.rate()), Math.max(next, open)));
    double top = 0;
    int count = 0;
    boolean eased = false;
    double low = 1;
    for (int i = open; i <= end; i++) {
      if (brake[i] > PRESSED && i > open + t.rate() / 3) {
        break;
      }
      if (!eased) {
        top = Math.max(top, throttle[i]);
        if (throttle[i] < top - 0.18) {
          eased = true;
          low = throttle[i];
        }
      } else {
        low = Math.min(low, throttle[i]);
        if (throttle[i] > low + 0.15) {
          count++;
          eased = false;
          top = throttle[i];
        }
      }
    }
    return count;
  }

  double coasting(double lift, double open) {
    if (Double.isNaN(open)) {
      return 0;
    }
    double begin = Double.isNaN(lift) ? from : lift;
    int a = Math.max(first, t.at(begin));
    int b = Math.min(last, t.at(open));
    int n = 0;
    for (int i = a; i < b; i++) {
      n += throttle[i] < TOUCH && brake[i] < TOUCH ? 1 : 0;
    }
    return n / t.rate();
  }

  private double timeAt(double station) {
    return on.timeAt(station);
  }
}
