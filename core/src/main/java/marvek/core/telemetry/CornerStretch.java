package marvek.core.telemetry;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;

/** The part of a lap that belongs to one corner, with the columns that are read from it. */
final class CornerStretch {
  private static final double FARTHEST = 700;

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
  // The same as samples.
  final int first;
  final int last;

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
    this.to = apex + Math.min(onward, FARTHEST);
    this.nextEntry = count == 1 ? to : apex + road.ahead(apex, after.entry());
    this.first = t.at(from);
    this.last = Math.min(t.size() - 1, t.at(to));
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
