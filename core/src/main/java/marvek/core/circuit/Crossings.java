package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.CROSSES_ITSELF;

import java.util.ArrayList;
import java.util.List;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;
import org.locationtech.jts.algorithm.RobustLineIntersector;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;

/** Places where the line of a lap crosses itself, and whether a bridge explains them. */
final class Crossings {
  private static final double BRIDGE_CLEARANCE = 3;
  private static final double SHORTEST_LOOP = 60;

  private Crossings() {}

  /**
   * Refuses crossings that no bridge explains.
   *
   * @param lap closed lap in metres
   * @param bridges the driver says that every crossing is a bridge
   * @param remarks takes a line for each crossing accepted
   */
  static void check(Outline lap, boolean bridges, List<Said> remarks) {
    int n = lap.size();
    double[] station = new double[n + 1];
    STRtree tree = new STRtree();
    for (int i = 0; i < n; i++) {
      Coordinate a = at(lap, i);
      Coordinate b = at(lap, i + 1);
      station[i + 1] = station[i] + a.distance(b);
      tree.insert(new Envelope(a, b), i);
    }
    RobustLineIntersector cross = new RobustLineIntersector();
    List<int[]> found = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      Coordinate a = at(lap, i);
      Coordinate b = at(lap, i + 1);
      for (Object other : tree.query(new Envelope(a, b))) {
        int j = (Integer) other;
        if (j <= i + 1 || (i == 0 && j == n - 1)) {
          continue;
        }
        cross.computeIntersection(a, b, at(lap, j), at(lap, j + 1));
        // A crossing in a point of the file shows on all the segments that end there.
        if (cross.hasIntersection() && !known(found, i, j, n)) {
          found.add(new int[] {i, j});
        }
      }
    }
    for (int[] pair : found) {
      double loop = station[pair[1]] - station[pair[0]];
      loop = Math.min(loop, station[n] - loop);
      Said where =
          Said.of(
              "where.crossing",
              lap.where(pair[0]).in(),
              lap.where(pair[1]).in(),
              Value.length(station[pair[0]]),
              Value.length(station[pair[1]]));
      if (loop < SHORTEST_LOOP) {
        throw OutlineProblem.of(
                CROSSES_ITSELF, "refusal.circuit.line_ties_knot", Value.length(loop))
            .at(where);
      }
      Double clearance = clearance(lap, pair);
      boolean high = clearance != null && clearance >= BRIDGE_CLEARANCE;
      if (!high && !bridges) {
        throw (clearance == null
                ? OutlineProblem.of(CROSSES_ITSELF, "refusal.circuit.crosses_itself")
                : OutlineProblem.of(
                    CROSSES_ITSELF, "refusal.circuit.crosses_near", Value.length(clearance, 1)))
            .at(where);
      }
      remarks.add(Said.of("report.circuit.bridge_taken_where_line", where.in()));
    }
  }

  private static boolean known(List<int[]> found, int i, int j, int n) {
    return found.stream().anyMatch(f -> near(f[0], i, n) && near(f[1], j, n));
  }

  private static boolean near(int a, int b, int n) {
    int apart = Math.abs(a - b);
    return Math.min(apart, n - apart) <= 1;
  }

  private static @Nullable Double clearance(Outline lap, int[] pair) {
    double[] z = lap.z();
    return z == null ? null : Math.abs(z[pair[0]] - z[pair[1]]);
  }

  private static Coordinate at(Outline lap, int i) {
    int k = i % lap.size();
    return new Coordinate(lap.x()[k], lap.y()[k]);
  }
}
