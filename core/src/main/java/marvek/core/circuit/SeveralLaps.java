package marvek.core.circuit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * The middle of several laps that were driven over the same road: what one lap wanders and its
 * receiver scatters goes out. It is the line that was driven, not the middle of the road.
 */
final class SeveralLaps {
  // A lap that differs by more from the middle one in length went somewhere else.
  private static final double DIFFERS = 0.02;
  // Metres to the side at which a place still lies on the same road.
  private static final double BESIDE = 15;
  private static final double SHORTEST = 150;
  // Metres between the nodes of the middle, at least and at most, and places that each is made of.
  private static final double FINEST = 4;
  private static final double COARSEST = 10;
  private static final double EACH = 10;
  private static final double ANCHOR = 5;
  private static final int ROUNDS = 4;
  // Nodes before and after the expected one among which the nearest is looked for.
  private static final int REACH = 12;

  private static final String PLACE = "place of the middle";

  private final Outline points;
  private final double[] way;
  private double node = FINEST;

  private SeveralLaps(Outline points) {
    this.points = points;
    way = new double[points.size()];
    int anchor = 0;
    for (int i = 1; i < way.length; i++) {
      // Scatter between places close together is no way that was driven.
      double on = Math.hypot(dx(anchor, i), dy(anchor, i));
      way[i] = Math.max(way[i - 1], way[anchor] + on);
      anchor = on > ANCHOR ? i : anchor;
    }
  }

  /**
   * The middle of the laps that the points hold; null where they hold fewer than two whole ones.
   *
   * @param points in metres, in driving order
   * @param remarks takes what was done
   */
  static @Nullable Outline middle(Outline points, List<Said> remarks) {
    SeveralLaps laps = new SeveralLaps(points);
    List<int[]> found = laps.alike(laps.whole());
    if (found.size() < 2) {
      return null;
    }
    remarks.add(Said.of("report.circuit.laps_go_round_middle", Value.figure(found.size(), 0)));
    return laps.mean(found);
  }

  /**
   * By how much the scatter across the road is more than that of a coordinate: all of it lies
   * across where the points are a middle of laps, and in both directions alike where they are not.
   */
  static double across(Outline points) {
    return points.place().equals(PLACE) ? Math.sqrt(2) : 1;
  }

  private double dx(int a, int b) {
    return points.x()[b] - points.x()[a];
  }

  private double dy(int a, int b) {
    return points.y()[b] - points.y()[a];
  }

  /** Laps as first and last point, from one passing of a gate to the next. */
  private List<int[]> whole() {
    // Half-way through a recording it is sure to be on the road.
    int gate = 1;
    while (gate < way.length - 2 && way[gate] < way[way.length - 1] / 2) {
      gate++;
    }
    int ahead = gate;
    int behind = gate;
    while (ahead < way.length - 1 && way[ahead] < way[gate] + 2 * ANCHOR) {
      ahead++;
    }
    while (behind > 0 && way[behind] > way[gate] - 2 * ANCHOR) {
      behind--;
    }
    double length = Math.max(1e-9, Math.hypot(dx(behind, ahead), dy(behind, ahead)));
    double hx = dx(behind, ahead) / length;
    double hy = dy(behind, ahead) / length;
    List<Integer> passed = new ArrayList<>();
    for (int i = 0; i + 1 < way.length; i++) {
      double before = dx(gate, i) * hx + dy(gate, i) * hy;
      double after = dx(gate, i + 1) * hx + dy(gate, i + 1) * hy;
      double across = -dx(gate, i) * hy + dy(gate, i) * hx;
      boolean on = before < 0 && after >= 0 && Math.abs(across) < BESIDE && -before < 100;
      if (on
          && sameWay(i, hx, hy)
          && (passed.isEmpty() || way[i] - way[passed.get(passed.size() - 1)] > SHORTEST)) {
        passed.add(i + 1);
      }
    }
    List<int[]> out = new ArrayList<>();
    for (int k = 0; k + 1 < passed.size(); k++) {
      out.add(new int[] {passed.get(k), passed.get(k + 1)});
    }
    return out;
  }

  /** Whether the points go on along a direction: a road that crosses here goes another way. */
  private boolean sameWay(int i, double hx, double hy) {
    int a = i;
    int b = i;
    while (a > 0 && way[a] > way[i] - ANCHOR) {
      a--;
    }
    while (b < way.length - 1 && way[b] < way[i] + ANCHOR) {
      b++;
    }
    double length = Math.max(1e-9, Math.hypot(dx(a, b), dy(a, b)));
    return (dx(a, b) * hx + dy(a, b) * hy) / length > 0.7;
  }

  private List<int[]> alike(List<int[]> laps) {
    double[] lengths = laps.stream().mapToDouble(l -> way[l[1]] - way[l[0]]).sorted().toArray();
    if (lengths.length == 0) {
      return laps;
    }
    double middle = lengths[lengths.length / 2];
    return laps.stream()
        .filter(l -> Math.abs(way[l[1]] - way[l[0]] - middle) < Math.max(30, DIFFERS * middle))
        .toList();
  }

  private Outline mean(List<int[]> laps) {
    int[] first = laps.get(0);
    double length = way[first[1]] - way[first[0]];
    int places = laps.stream().mapToInt(l -> l[1] - l[0]).sum();
    node = Math.max(FINEST, Math.min(COARSEST, EACH * length / places));
    int n = Math.max(8, (int) Math.round(length / node));
    double[] x = new double[n];
    double[] y = new double[n];
    for (int k = 0; k < n; k++) {
      double[] place = along(first, k / (double) n);
      x[k] = place[0];
      y[k] = place[1];
    }
    double[] z = points.z() == null ? null : new double[n];
    for (int round = 0; round < ROUNDS; round++) {
      double[] off = new double[n];
      double[] high = new double[n];
      double[] weight = new double[n];
      for (int[] lap : laps) {
        beside(lap, x, y, off, high, weight);
      }
      moved(x, y, off, weight);
      if (z != null) {
        for (int k = 0; k < n; k++) {
          z[k] = weight[k] > 0 ? high[k] / weight[k] : z[k];
        }
      }
    }
    int[] number = new int[n];
    Arrays.setAll(number, k -> k + 1);
    return new Outline(false, x, y, z, null, null, null, PLACE, number);
  }

  /** The place of a share of a lap, without what scatters within some metres. */
  private double[] along(int[] lap, double share) {
    double at = way[lap[0]] + share * (way[lap[1]] - way[lap[0]]);
    int i = lap[0];
    while (i + 1 < lap[1] && way[i + 1] < at) {
      i++;
    }
    double step = Math.max(1e-9, way[i + 1] - way[i]);
    double t = Math.max(0, Math.min(1, (at - way[i]) / step));
    return new double[] {points.x()[i] + t * dx(i, i + 1), points.y()[i] + t * dy(i, i + 1)};
  }

  /** Adds how far the places of a lap lie to the left of the nodes that they pass. */
  private void beside(
      int[] lap, double[] x, double[] y, double[] off, double[] high, double[] weight) {
    int n = x.length;
    double length = way[lap[1]] - way[lap[0]];
    int near = -1;
    for (int i = lap[0]; i < lap[1]; i++) {
      int guess = near < 0 ? (int) ((way[i] - way[lap[0]]) / length * n) : near;
      int best = guess;
      double least = Double.MAX_VALUE;
      for (int k = guess - REACH; k <= guess + REACH; k++) {
        int j = Math.floorMod(k, n);
        double d = Math.hypot(points.x()[i] - x[j], points.y()[i] - y[j]);
        if (d < least) {
          least = d;
          best = j;
        }
      }
      if (least > BESIDE + node) {
        continue;
      }
      near = best;
      int p = Math.floorMod(best - 1, n);
      int q = Math.floorMod(best + 1, n);
      double tx = x[q] - x[p];
      double ty = y[q] - y[p];
      double l = Math.max(1e-9, Math.hypot(tx, ty));
      double ex = points.x()[i] - x[best];
      double ey = points.y()[i] - y[best];
      double left = (ey * tx - ex * ty) / l;
      if (Math.abs(left) > BESIDE) {
        continue;
      }
      // To one node only: what nodes share would hide how far their places scatter.
      double[] z = points.z();
      off[best] += left;
      high[best] += z == null ? 0 : z[i];
      weight[best] += 1;
    }
  }

  /** Moves the nodes to the middle of what lies beside them. */
  private static void moved(double[] x, double[] y, double[] off, double[] weight) {
    int n = x.length;
    double[] left = new double[n];
    for (int k = 0; k < n; k++) {
      int j = k;
      // Where nothing passed, as the node before.
      for (int back = 0; back < n && weight[j] == 0; back++) {
        j = Math.floorMod(k - back, n);
      }
      left[k] = weight[j] > 0 ? off[j] / weight[j] : 0;
    }
    double[] nx = new double[n];
    double[] ny = new double[n];
    for (int k = 0; k < n; k++) {
      int p = Math.floorMod(k - 1, n);
      int q = Math.floorMod(k + 1, n);
      double tx = x[q] - x[p];
      double ty = y[q] - y[p];
      double l = Math.max(1e-9, Math.hypot(tx, ty));
      nx[k] = x[k] - left[k] * ty / l;
      ny[k] = y[k] + left[k] * tx / l;
    }
    System.arraycopy(nx, 0, x, 0, n);
    System.arraycopy(ny, 0, y, 0, n);
  }
}
