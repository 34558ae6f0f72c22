package marvek.core.line;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;

/**
 * Moves the apex of each corner earlier or later, and those of linked corners together, for as long
 * as the simulated time from the corner before to the corner after gets shorter.
 */
public final class LineTuner {
  private static final double[] FIRST_STEPS = {-10, -5, 5, 10};
  private static final double[] PAIR_STEPS = {-6, 6};
  private static final double WORTH = 0.002;

  private final Centreline road;
  private final Room room;
  private final Ground ground;
  private final Limits limits;
  private final List<Corner> corners;
  private final LapTrace base;
  private double[] offset;

  private LineTuner(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      List<Corner> corners,
      double[] offset,
      LapTrace base) {
    this.road = road;
    this.room = room;
    this.ground = ground;
    this.limits = limits;
    this.corners = corners;
    this.offset = offset;
    this.base = base;
  }

  /**
   * Returns tuned offsets.
   *
   * @param offset of the line to start from
   * @param base the lap on that line
   */
  public static double[] tuned(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      List<Corner> corners,
      double[] offset,
      LapTrace base) {
    LineTuner tuner = new LineTuner(road, room, ground, limits, corners, offset, base);
    List<CornerLine> lines = CornerLine.all(road, Path.over(road, offset, ground), corners);
    for (int c = 0; c < corners.size(); c++) {
      tuner.one(c, lines.get(c).apex());
    }
    for (int c = 0; c + 1 < corners.size(); c++) {
      int group = corners.get(c).complex();
      if (group != 0 && group == corners.get(c + 1).complex()) {
        tuner.pair(c, lines.get(c).apex(), lines.get(c + 1).apex());
      }
    }
    return tuner.offset;
  }

  private void one(int c, double apex) {
    double best = time(offset, c, c);
    double kept = 0;
    double[] start = offset;
    for (double step : FIRST_STEPS) {
      double[] tried = moved(start, c, apex, step);
      double t = time(tried, c, c);
      if (t < best - WORTH) {
        best = t;
        offset = tried;
        kept = step;
      }
    }
    for (double step : new double[] {kept - 2.5, kept + 2.5}) {
      double[] tried = moved(start, c, apex, step);
      double t = time(tried, c, c);
      if (t < best - WORTH) {
        best = t;
        offset = tried;
      }
    }
  }

  private void pair(int c, double first, double second) {
    double best = time(offset, c, c + 1);
    double[] start = offset;
    for (double a : PAIR_STEPS) {
      for (double b : PAIR_STEPS) {
        double[] tried = moved(moved(start, c, first, a), c + 1, second, b);
        double t = time(tried, c, c + 1);
        if (t < best - WORTH) {
          best = t;
          offset = tried;
        }
      }
    }
  }

  private double[] moved(double[] from, int c, double apex, double by) {
    double before = reach(c, -1);
    double after = reach(c, 1);
    double[] out = Warp.shifted(road, from, apex, by, before, after);
    int first = road.index(apex - before);
    int count = (int) ((before + after) / road.step()) + 2;
    for (int k = 0; k < count; k++) {
      int i = Math.floorMod(first + k, road.size());
      out[i] = room.clamp(i, out[i]);
    }
    return out;
  }

  /** How far a change in a corner may reach towards its neighbour. */
  private double reach(int c, int direction) {
    int count = corners.size();
    if (count == 1) {
      return Math.min(80, road.length() / 3);
    }
    Corner here = corners.get(c);
    Corner other = corners.get(Math.floorMod(c + direction, count));
    double gap =
        direction < 0
            ? road.ahead(other.apex(), here.apex())
            : road.ahead(here.apex(), other.apexes().get(0));
    return Math.max(12, Math.min(90, 0.85 * gap));
  }

  private double time(double[] offsets, int first, int last) {
    int count = corners.size();
    double from = corners.get(Math.floorMod(first - 1, count)).apex();
    double to = corners.get((last + 1) % count).apexes().get(0);
    double length = count == 1 ? road.length() * 0.9 : road.ahead(from, to);
    int i = road.index(from);
    int steps = Math.max(2, (int) (length / road.step()));
    int end = Math.floorMod(i + steps, road.size());
    return LapSimulator.stretchTime(
        Path.over(road, offsets, ground), limits, i, steps, base.speed()[i], base.speed()[end]);
  }
}
