package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.RoadPosition;
import marvek.core.lap.Path;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;

/**
 * Finds by how much all places of a recording lie beside the road: a receiver that was told another
 * datum, or a base station that was set up a little off, moves all of them alike.
 *
 * <p>The places are laid on the usual line by moving them as a whole, least squares of their
 * distances across it with the farthest weighed down (point to line, after Chen &amp; Medioni
 * 1992), begun from the best of a grid of moves. It is told where it is more than {@value #TELLS}
 * m, fits much better than no move, and two halves of the recording agree about it.
 */
final class PlaceShift {
  /** Less may be the driver's line, metres. */
  static final double TELLS = 2;

  /** As much as the two halves may differ, metres. */
  static final double AGREES = 0.5;

  private static final double REACH = 120;
  private static final double GRID = 12;
  private static final double NODES = 4;
  private static final double APART = 8;
  private static final int MOST = 12_000;
  private static final int FEW = 240;
  private static final int FEWEST = 80;
  private static final double CLOSE = 1.5;
  private static final double ROUGH = 4;
  private static final int ROUNDS = 30;
  private static final double SAME_WAY = 0.5;

  private final List<double[]> places = new ArrayList<>();
  private double stride = APART;

  /**
   * What was found.
   *
   * @param east metres that the places lie too far east
   * @param north metres that they lie too far north
   * @param settled whether the whole recording says so
   */
  record Found(double east, double north, boolean settled) {
    static final Found NONE = new Found(0, 0, true);

    double metres() {
      return Math.hypot(east, north);
    }

    /** "12.3 m to the north-east". */
    Said said() {
      long way = Math.floorMod(Math.round(Math.atan2(north, east) / (Math.PI / 4)), 8);
      return Said.of(
          "report.recording.shifted",
          Value.length(metres(), 1),
          Value.choice(Compass.values()[(int) way]));
    }

    /** Anticlockwise from the east. */
    private enum Compass {
      EAST,
      NORTH_EAST,
      NORTH,
      NORTH_WEST,
      WEST,
      SOUTH_WEST,
      SOUTH,
      SOUTH_EAST
    }
  }

  /** Takes places as they were recorded, in order, metres. */
  void take(double[] x, double[] y, boolean[] gap) {
    for (int i = 0; i < x.length; i++) {
      double[] last = places.isEmpty() ? null : places.get(places.size() - 1);
      if (gap[i] || Double.isNaN(x[i]) || Double.isNaN(y[i])) {
        continue;
      }
      double moved = last == null ? stride : Math.hypot(x[i] - last[0], y[i] - last[1]);
      if (moved >= stride) {
        // The way it went, for telling one branch of the road from another beside it.
        double dx = last == null ? 0 : (x[i] - last[0]) / moved;
        double dy = last == null ? 0 : (y[i] - last[1]) / moved;
        places.add(new double[] {x[i], y[i], dx, dy});
      }
    }
    while (places.size() > MOST) {
      List<double[]> half = new ArrayList<>();
      for (int i = 0; i < places.size(); i += 2) {
        half.add(places.get(i));
      }
      places.clear();
      places.addAll(half);
      stride *= 2;
    }
  }

  /**
   * The move, or none.
   *
   * @param line that is usually driven, along the road
   */
  Found found(Centreline road, Path line) {
    if (places.size() < FEWEST) {
      return Found.NONE;
    }
    Line usual = new Line(road, line);
    double[] best = start(usual);
    Fit whole = settle(usual, places, best);
    if (whole == null || Math.hypot(whole.x, whole.y) < TELLS) {
      return Found.NONE;
    }
    double before = usual.miss(places, 0, 0);
    boolean better = whole.miss < 0.6 * before || before - whole.miss > CLOSE;
    if (!better || whole.miss > ROUGH) {
      return Found.NONE;
    }
    int half = places.size() / 2;
    double[] from = {whole.x, whole.y};
    Fit first = settle(usual, places.subList(0, half), from);
    Fit second = settle(usual, places.subList(half, places.size()), from);
    boolean settled =
        first != null
            && second != null
            && Math.hypot(first.x - second.x, first.y - second.y) < 2 * AGREES;
    return new Found(whole.x, whole.y, settled);
  }

  private double[] start(Line usual) {
    List<double[]> some = new ArrayList<>();
    for (int k = 0; k < FEW; k++) {
      some.add(places.get((int) ((long) k * (places.size() - 1) / (FEW - 1))));
    }
    double[] best = {0, 0};
    double least = usual.miss(some, 0, 0);
    for (double x = -REACH; x <= REACH; x += GRID) {
      for (double y = -REACH; y <= REACH; y += GRID) {
        double miss = Math.hypot(x, y) <= REACH ? usual.miss(some, x, y) : Double.MAX_VALUE;
        if (miss < least) {
          least = miss;
          best = new double[] {x, y};
        }
      }
    }
    return best;
  }

  private record Fit(double x, double y, double miss) {}

  private static @Nullable Fit settle(Line usual, List<double[]> places, double[] from) {
    double x = from[0];
    double y = from[1];
    for (int round = 0; round < ROUNDS; round++) {
      double xx = 0;
      double xy = 0;
      double yy = 0;
      double bx = 0;
      double by = 0;
      double weights = 0;
      for (double[] p : places) {
        double[] near = usual.nearest(p, x, y);
        if (near == null) {
          continue;
        }
        double across = near[0];
        double w = 1 / Math.max(1, Math.abs(across) / CLOSE);
        xx += w * near[1] * near[1];
        xy += w * near[1] * near[2];
        yy += w * near[2] * near[2];
        bx += w * near[1] * across;
        by += w * near[2] * across;
        weights += w;
      }
      double determinant = xx * yy - xy * xy;
      // A road that runs one way only does not tell a move along it.
      if (weights < FEWEST / 4.0 || determinant < 0.02 * weights * weights) {
        return null;
      }
      double dx = (yy * bx - xy * by) / determinant;
      double dy = (xx * by - xy * bx) / determinant;
      x += dx;
      y += dy;
      if (Math.hypot(dx, dy) < 0.005) {
        break;
      }
    }
    return Math.hypot(x, y) > REACH ? null : new Fit(x, y, usual.miss(places, x, y));
  }

  /** The usual line as places to be near to. */
  private static final class Line {
    private static final double FAR = 40;
    private final STRtree tree = new STRtree();

    Line(Centreline road, Path path) {
      int n = (int) (road.length() / NODES);
      double[][] at = new double[n][];
      for (int i = 0; i < n; i++) {
        double station = i * road.length() / n;
        at[i] = RoadPosition.toPlane(road, station, path.offset()[road.index(station)]);
      }
      for (int i = 0; i < n; i++) {
        double[] p = at[(i + n - 1) % n];
        double[] q = at[(i + 1) % n];
        double l = Math.hypot(q[0] - p[0], q[1] - p[1]);
        double[] node = {at[i][0], at[i][1], (q[0] - p[0]) / l, (q[1] - p[1]) / l};
        tree.insert(new Envelope(new Coordinate(node[0], node[1])), node);
      }
      tree.build();
    }

    /** Distance to the left of the nearest piece that runs the same way, and its normal. */
    double @Nullable [] nearest(double[] place, double x, double y) {
      double px = place[0] - x;
      double py = place[1] - y;
      double[] best = null;
      double least = Double.MAX_VALUE;
      for (double reach = 3 * NODES; best == null && reach <= FAR; reach *= 2) {
        Envelope around = new Envelope(px - reach, px + reach, py - reach, py + reach);
        for (Object found : tree.query(around)) {
          double[] node = (double[]) found;
          boolean moving = place[2] != 0 || place[3] != 0;
          if (moving && node[2] * place[2] + node[3] * place[3] < SAME_WAY) {
            continue;
          }
          double d = Math.hypot(px - node[0], py - node[1]);
          if (d < least) {
            least = d;
            best = node;
          }
        }
      }
      if (best == null) {
        return null;
      }
      double across = best[2] * (py - best[1]) - best[3] * (px - best[0]);
      return new double[] {across, -best[3], best[2]};
    }

    /** Root mean square of the distances across, the farthest tenth left out. */
    double miss(List<double[]> places, double x, double y) {
      double[] squares = new double[places.size()];
      for (int i = 0; i < squares.length; i++) {
        double[] near = nearest(places.get(i), x, y);
        squares[i] = near == null ? FAR * FAR : near[0] * near[0];
      }
      Arrays.sort(squares);
      int kept = Math.max(1, squares.length * 9 / 10);
      return Math.sqrt(Arrays.stream(squares, 0, kept).average().orElse(0));
    }
  }
}
