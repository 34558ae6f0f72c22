package marvek.core.debrief;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;

/**
 * The lap cut into corners, the same for every lap. A corner's section begins shortly before its
 * braking and ends where the next begins, so that what a slow exit costs on the straight counts for
 * the corner that caused it.
 */
public final class Sections {
  /** Parts of a section. */
  public enum Phase {
    APPROACH,
    BRAKING,
    ENTRY,
    EXIT,
    STRAIGHT;

    /** What it is called. */
    public Said said() {
      return Said.of("phase." + name());
    }
  }

  private static final double LEAD = 40;

  private final Centreline road;
  // Six stations a corner: begin, braking, turn-in, apex, exit, end.
  private final double[][] cuts;

  /** Cuts by a reference. */
  public Sections(ComputedLap computed, List<CornerEntry> entries) {
    road = computed.road();
    int n = entries.size();
    cuts = new double[n][6];
    double[] begin = new double[n];
    for (int c = 0; c < n; c++) {
      CornerEntry e = entries.get(c);
      CornerEntry before = entries.get((c + n - 1) % n);
      double first = slows(computed, e);
      double was =
          before.station(PointKind.APEX).orElse(computed.lines().get((c + n - 1) % n).apex());
      double room = n == 1 ? road.length() : road.ahead(was, first);
      begin[c] = road.wrap(first - Math.min(LEAD, 0.4 * room));
    }
    for (int c = 0; c < n; c++) {
      CornerEntry e = entries.get(c);
      double[] k = cuts[c];
      double length = n == 1 ? road.length() : road.ahead(begin[c], begin[(c + 1) % n]);
      k[0] = 0;
      k[1] = road.ahead(begin[c], slows(computed, e));
      k[2] =
          road.ahead(
              begin[c], e.station(PointKind.TURN_IN).orElse(computed.lines().get(c).turnIn()));
      k[3] = road.ahead(begin[c], e.station(PointKind.APEX).orElse(computed.lines().get(c).apex()));
      k[4] = road.ahead(begin[c], e.station(PointKind.EXIT).orElse(computed.lines().get(c).exit()));
      k[5] = length;
      for (int i = 1; i < 5; i++) {
        k[i] = Math.max(k[i - 1], Math.min(k[i], length));
      }
      for (int i = 0; i < 6; i++) {
        k[i] = begin[c] + k[i];
      }
    }
  }

  private static double slows(ComputedLap computed, CornerEntry e) {
    int c = computed.indexOf(e.corner());
    return e.station(PointKind.BRAKE)
        .orElse(e.station(PointKind.TURN_IN).orElse(computed.lines().get(c).turnIn()));
  }

  /** Station where a corner's section begins. */
  public double begin(int c) {
    return cuts[c][0];
  }

  /** Station at which a part of a section begins. */
  public double begin(int c, Phase phase) {
    return road.wrap(cuts[c][phase.ordinal()]);
  }

  /** Seconds in a corner's section. */
  public double time(LapData lap, int c) {
    return between(lap, cuts[c][0], cuts[c][5]);
  }

  /** Seconds in a part of a section. */
  public double time(LapData lap, int c, Phase phase) {
    return between(lap, cuts[c][phase.ordinal()], cuts[c][phase.ordinal() + 1]);
  }

  /** A section over the line is taken from both ends of the same lap, so that all add up to it. */
  private double between(LapData lap, double from, double to) {
    double length = road.length();
    double sum = 0;
    double a = from;
    while (a < to - 1e-9) {
      double base = Math.floor(a / length) * length;
      double b = Math.min(to, base + length);
      double end = b - base;
      sum += (end >= length - 1e-9 ? lap.lapTime() : lap.at(end)) - lap.at(a - base);
      a = b;
    }
    return sum;
  }
}
