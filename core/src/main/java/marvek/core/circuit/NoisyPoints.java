package marvek.core.circuit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.numeric.CyclicBanded;

/**
 * The road under points that scatter: a closed curve whose curvature changes as little, and in as
 * few places, as the points allow, as roads of straights and arcs do.
 *
 * <p>Least squares of the points' distances from the curve, plus a price on the change of curvature
 * from node to node, squared where small and plain where large (Huber), solved by weighting anew
 * and moving a curve of even nodes along its normals (Gauss-Newton). A plain price leaves arcs
 * their curvature, which a smoothing spline takes away from tight bends first.
 */
final class NoisyPoints {
  // Price of a change of curvature, metres: found on roads drawn for it, flat between 50 and 200.
  private static final double PRICE = 90;
  // A change slower than this, 1/m², is priced by its square: an ordinary way into a wide bend.
  private static final double EASY = 6e-5;
  // Errors of the radii of drawn roads over what the fit itself tells of them.
  private static final double UNTOLD = 1.6;
  private static final double NODE = 2;
  private static final int ROUNDS = 25;
  private static final double MOST_MOVED = 2;
  private static final double WINDOW = 40;
  // Points nearer than this on the curve are one.
  private static final double APART = 0.3;

  private final double[] px;
  private final double[] py;
  private final double sigma;
  private double[] x;
  private double[] y;
  private double h;
  private double[] kappa;
  private double[] station;
  private double[] off;
  private final CyclicBanded matrix;

  /**
   * Fits the curve.
   *
   * @param px points in driving order, metres
   * @param py as {@code px}
   * @param sigma scatter of a coordinate, metres
   * @param sx a closed curve near them, dense
   * @param sy as {@code sx}
   */
  NoisyPoints(double[] px, double[] py, double sigma, double[] sx, double[] sy) {
    this.px = px;
    this.py = py;
    this.sigma = sigma;
    even(sx, sy);
    for (int round = 0; round < ROUNDS; round++) {
      project();
      Equations e = equations();
      double[] move = e.matrix().solve(e.right());
      double[] nx = new double[x.length];
      double[] ny = new double[x.length];
      for (int i = 0; i < x.length; i++) {
        int p = (i + x.length - 1) % x.length;
        int q = (i + 1) % x.length;
        double dx = x[q] - x[p];
        double dy = y[q] - y[p];
        double l = Math.hypot(dx, dy);
        double m = Math.max(-MOST_MOVED, Math.min(MOST_MOVED, move[i]));
        nx[i] = x[i] - m * dy / l;
        ny[i] = y[i] + m * dx / l;
      }
      even(nx, ny);
    }
    project();
    // Of the curve as it lies now, for the doubts.
    matrix = equations().matrix();
  }

  /** Length of the curve, metres. */
  double length() {
    return h * x.length;
  }

  /**
   * The points that differ in where they lie along the curve, in that order, the first still first.
   *
   * @param along takes the station of each from the first, metres
   */
  int[] inOrder(List<Double> along) {
    Integer[] order = new Integer[px.length];
    double[] from = new double[px.length];
    for (int j = 0; j < order.length; j++) {
      order[j] = j;
      double ahead = (station[j] - station[0]) % length();
      from[j] = ahead < 0 ? ahead + length() : ahead;
    }
    Arrays.sort(order, (a, b) -> Double.compare(from[a], from[b]));
    List<Integer> keep = new ArrayList<>();
    for (int j : order) {
      double last = along.isEmpty() ? -1 : along.get(along.size() - 1);
      if (from[j] - last > APART && length() - from[j] > APART) {
        keep.add(j);
        along.add(from[j]);
      }
    }
    return keep.stream().mapToInt(Integer::intValue).toArray();
  }

  /** The place {x, y} on the curve at a station from the first point. */
  double[] place(double along) {
    double at = (station[0] + along) / h;
    int i = Math.floorMod((int) Math.floor(at), x.length);
    int q = (i + 1) % x.length;
    double t = at - Math.floor(at);
    // Between the nodes the curve bends on: the sag of the chord.
    double bend = (kappa[i] + kappa[q]) / 2 * h * h * t * (1 - t) / 2;
    double dx = x[q] - x[i];
    double dy = y[q] - y[i];
    return new double[] {x[i] + t * dx + bend * dy / h, y[i] + t * dy - bend * dx / h};
  }

  /**
   * How far the mean curvature of a stretch may be out, one standard deviation, 1/m.
   *
   * @param from metres from the first point along the lap
   * @param to metres from the first point, past {@code from}
   */
  double doubt(double from, double to) {
    int m = x.length;
    int a = (int) Math.round((station[0] + from) / h);
    int b = Math.max(a + 2, (int) Math.round((station[0] + to) / h));
    // The mean of the second differences is the difference of the slopes at the ends.
    double[] slope = new double[m];
    double share = 1 / (h * h * (b - a + 1));
    slope[Math.floorMod(a - 1, m)] += share;
    slope[Math.floorMod(a, m)] -= share;
    slope[Math.floorMod(b, m)] -= share;
    slope[Math.floorMod(b + 1, m)] += share;
    double[] solved = matrix.solve(slope);
    double variance = 0;
    for (int i = 0; i < m; i++) {
      variance += slope[i] * solved[i];
    }
    return UNTOLD * Math.sqrt(Math.max(0, variance));
  }

  private void even(double[] sx, double[] sy) {
    int n = sx.length;
    double[] arc = new double[n + 1];
    for (int i = 0; i < n; i++) {
      int q = (i + 1) % n;
      arc[i + 1] = arc[i] + Math.hypot(sx[q] - sx[i], sy[q] - sy[i]);
    }
    int m = Math.max(24, (int) Math.round(arc[n] / NODE));
    h = arc[n] / m;
    x = new double[m];
    y = new double[m];
    int k = 0;
    for (int i = 0; i < m; i++) {
      double s = i * h;
      while (k + 1 < n && arc[k + 1] <= s) {
        k++;
      }
      double t = (s - arc[k]) / (arc[k + 1] - arc[k]);
      int q = (k + 1) % n;
      x[i] = sx[k] + t * (sx[q] - sx[k]);
      y[i] = sy[k] + t * (sy[q] - sy[k]);
    }
    kappa = new double[m];
    for (int i = 0; i < m; i++) {
      int p = (i + m - 1) % m;
      int q = (i + 1) % m;
      double ax = x[i] - x[p];
      double ay = y[i] - y[p];
      double bx = x[q] - x[i];
      double by = y[q] - y[i];
      kappa[i] = Math.atan2(ax * by - ay * bx, ax * bx + ay * by) / h;
    }
  }

  /** Station and distance to the left of every point, each near the one before. */
  private void project() {
    int m = x.length;
    int n = px.length;
    boolean first = station == null;
    double[] s = new double[n];
    off = new double[n];
    int reach = (int) Math.ceil(WINDOW / h);
    double last = 0;
    for (int j = 0; j < n; j++) {
      double about = 0;
      if (!first) {
        about = station[j];
      } else if (j > 0) {
        about = last + Math.hypot(px[j] - px[j - 1], py[j] - py[j - 1]);
      }
      int centre = (int) Math.round(about / h);
      double best = Double.MAX_VALUE;
      for (int k = centre - reach; k <= centre + reach; k++) {
        int i = Math.floorMod(k, m);
        int q = (i + 1) % m;
        double dx = x[q] - x[i];
        double dy = y[q] - y[i];
        double l2 = dx * dx + dy * dy;
        double t = Math.max(0, Math.min(1, ((px[j] - x[i]) * dx + (py[j] - y[i]) * dy) / l2));
        double ex = px[j] - x[i] - t * dx;
        double ey = py[j] - y[i] - t * dy;
        double d = ex * ex + ey * ey;
        if (d < best) {
          best = d;
          s[j] = (k + t) * h;
          off[j] = Math.copySign(Math.sqrt(d), dx * ey - dy * ex);
        }
      }
      last = s[j];
    }
    station = s;
  }

  private record Equations(CyclicBanded matrix, double[] right) {}

  /** Of the moves along the normals that come nearest to the points. */
  private Equations equations() {
    int m = x.length;
    double[][] a = new double[4][m];
    double[] right = new double[m];
    double w = 1 / (sigma * sigma);
    for (int j = 0; j < px.length; j++) {
      int i = Math.floorMod((int) Math.floor(station[j] / h), m);
      int q = (i + 1) % m;
      double t = station[j] / h - Math.floor(station[j] / h);
      a[0][i] += w * (1 - t) * (1 - t);
      a[0][q] += w * t * t;
      a[1][i] += w * t * (1 - t);
      right[i] += w * (1 - t) * off[j];
      right[q] += w * t * off[j];
    }
    double[] c = new double[4];
    for (int i = 0; i < m; i++) {
      int q = (i + 1) % m;
      double jump = kappa[q] - kappa[i];
      double price = PRICE / Math.max(Math.abs(jump), EASY * h);
      // Change of the jump with the moves of nodes i−1 .. i+2.
      double b = 1 / (h * h);
      c[0] = -b;
      c[1] = 3 * b - kappa[i] * kappa[i];
      c[2] = -3 * b + kappa[q] * kappa[q];
      c[3] = b;
      for (int r = 0; r < 4; r++) {
        int row = Math.floorMod(i - 1 + r, m);
        right[row] -= price * c[r] * jump;
        for (int d = 0; r + d < 4; d++) {
          a[d][row] += price * c[r] * c[r + d];
        }
      }
    }
    return new Equations(new CyclicBanded(a), right);
  }
}
