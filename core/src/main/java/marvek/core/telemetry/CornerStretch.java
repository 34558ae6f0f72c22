package marvek.core.telemetry;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.line.CornerLine;

/** The part of a lap that belongs to one corner, with the columns that are read from it. */
final class CornerStretch {
  private static final double FARTHEST = 700;
  // Metres after the end of a braking that runs on, in which the slowest place lies.
  private static final double AFTER = 15;
  // Share of the brake by which it is pressed harder again where a new braking begins.
  private static final double HARDER = 0.3;

  final Trace t;
  final Centreline road;
  final Corner corner;
  // Stations, m/s and shares, sample by sample.
  final double[] s;
  final double[] v;
  final double[] brake;
  final double[] throttle;
  // Whether the pedals were recorded, and not told from the speed.
  final boolean seenBrake;
  final boolean seenThrottle;
  // Stations: from the corner before to the corner after, which begins to bend at nextEntry.
  final double from;
  final double to;
  final double nextEntry;
  // Station from which it may be turned into.
  final double turnsFrom;
  // The same as samples.
  final int first;
  final int last;
  // The last sample of a braking that runs on through the next corner; -1 without one.
  final int over;

  /**
   * The stretch of a corner.
   *
   * @param corners all, in driving order
   * @param c which of them
   */
  CornerStretch(Trace t, Centreline road, List<Corner> corners, int c) {
    this.t = t;
    this.road = road;
    this.corner = corners.get(c);
    this.s = t.station();
    this.v = t.speed();
    this.brake = t.of(Channel.BRAKE);
    this.throttle = t.of(Channel.THROTTLE);
    this.seenBrake = t.recorded(Channel.BRAKE);
    this.seenThrottle = t.recorded(Channel.THROTTLE);
    int count = corners.size();
    Corner before = corners.get((c + count - 1) % count);
    Corner after = corners.get((c + 1) % count);
    double start = corner.apexes().get(0);
    double back = count == 1 ? road.length() / 2 : road.ahead(before.apex(), start);
    double onward =
        count == 1 ? road.length() / 2 : road.ahead(corner.apex(), after.apexes().get(0));
    double apex = corner.apex();
    // The first apex lies before the last, also where the line lies between them.
    this.from = apex - road.ahead(start, apex) - Math.min(back, FARTHEST);
    this.nextEntry = count == 1 ? apex + onward : apex + road.ahead(apex, after.entry());
    this.turnsFrom =
        count == 1
            ? from
            : Math.max(
                from,
                apex
                    - road.ahead(start, apex)
                    - CornerLine.turnsWithin(road, before, corner, back));
    this.first = t.at(from);
    // A braking that runs on through the next corner is this one's, and so is what it slows for.
    double end = apex + Math.min(onward, FARTHEST);
    this.over = braked(Math.min(t.size() - 1, t.at(end)));
    this.to = Math.max(end, over < 0 ? end : s[over] + AFTER);
    this.last = Math.min(t.size() - 1, t.at(to));
  }

  /**
   * The end of a braking begun in this stretch, before the apex, that runs on over a sample; -1 if
   * there is none.
   */
  private int braked(int over) {
    int begin = over;
    int free = 0;
    for (int i = over; i > first && free <= PedalWork.GAP * t.rate(); i--) {
      free = brake[i] > PedalWork.PRESSED ? 0 : free + 1;
      begin = free == 0 ? i : begin;
    }
    boolean mine = brake[first] <= PedalWork.PRESSED && s[begin] < corner.apex();
    if (!mine || brake[over] <= PedalWork.PRESSED) {
      return -1;
    }
    int end = over;
    while (end < t.size() - 1 && brake[end + 1] > PedalWork.PRESSED) {
      end++;
    }
    return pressedAgain(t.at(corner.apex()), over) < 0 ? end : -1;
  }

  /**
   * The sample from which the brake, eased through a corner, is pressed much harder again, for the
   * next one; -1 if it is not.
   */
  int pressedAgain(int a, int b) {
    int low = a;
    int high = -1;
    for (int i = a; i <= b && high < 0; i++) {
      low = brake[i] < brake[low] ? i : low;
      high = brake[i] > brake[low] + HARDER ? i : -1;
    }
    int i = high;
    while (i > low && brake[i] > Math.max(PedalWork.PRESSED, brake[low] + HARDER / 6)) {
      i--;
    }
    return high < 0 ? -1 : i + 1;
  }

  /**
   * The sample from which on the throttle of a corner without brakes may be its own: what is
   * touched nearer to the apex before belongs to the corner before.
   */
  int unbraked() {
    return Math.max(first, t.at((from + unwrapped(corner.entry())) / 2));
  }

  /** A station as it is counted near this corner, without a jump at the line. */
  double unwrapped(double station) {
    return corner.apex() + road.apart(corner.apex(), station);
  }

  double timeAt(double station) {
    return t.value(t.time(), station);
  }

  int slowest(int a, int b) {
    int best = a;
    for (int i = a; i <= b; i++) {
      best = v[i] < v[best] ? i : best;
    }
    return best;
  }

  /** The last of the fastest samples. */
  int fastest(int a, int b) {
    int best = b;
    for (int i = b; i >= a; i--) {
      best = v[i] > v[best] ? i : best;
    }
    return best;
  }
}
