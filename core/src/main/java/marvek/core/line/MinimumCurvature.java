package marvek.core.line;

import java.util.Arrays;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import marvek.core.numeric.BoxQuadratic;
import marvek.core.numeric.PeriodicSpline;

/**
 * The line of least ∫κ² ds within the room of the road.
 *
 * <p>Points p = c + nN on the normals; the sum of squared second derivatives is quadratic in n and
 * is minimised within bounds, then once more with the spacing of the line found. Source of the
 * method: Braghin, Cheli, Melzi, Sabbioni, "Race driver model", Computers &amp; Structures 86
 * (2008).
 */
public final class MinimumCurvature {
  private static final double SPACING = 3;
  private static final int ROUNDS = 2;
  private static final double TOLERANCE = 1e-3;
  private static final double INTERPOLATION_WAVE = 9;
  // Nodes at each end of an open stretch that stay on the line they leave or join.
  private static final int FIXED = 3;
  private static final double HELD = 0.001;
  // Nodes over which a change grows from nothing, so that the joint keeps no kink.
  private static final int JOINT = 10;

  private MinimumCurvature() {}

  /** Offsets in metres to the left of the centreline, one for each station of the road. */
  public static double[] offsets(Centreline road, Room room) {
    int[] at = nodes(road);
    int m = at.length;
    double[] offset = new double[m];
    double[] even = new double[m];
    Arrays.fill(even, 1);
    for (int round = 0; round < ROUNDS; round++) {
      offset =
          solve(road, at, offset, picked(room.lower(), at), picked(room.upper(), at), even, true);
    }
    double[] u = new double[m];
    for (int k = 0; k < m; k++) {
      u[k] = at[k] * road.step();
    }
    PeriodicSpline spline =
        PeriodicSpline.fit(
            u, road.length(), offset, PeriodicSpline.lambdaForWavelength(INTERPOLATION_WAVE));
    double[] out = new double[road.size()];
    for (int i = 0; i < out.length; i++) {
      out[i] = spline.at(i * road.step())[0];
    }
    return out;
  }

  /**
   * The line of least bending over a stretch, leaving and joining another line at its ends without
   * a kink.
   *
   * @param room of the whole road, narrowed where the line must pass
   * @param offset of the line to leave and join
   * @param from index of the first station; the stretch may run over the start/finish line
   * @param count steps of the stretch
   * @param weight of the bending at each station of the road, 1 for plain least bending: where it
   *     is less the line may bend more, in favour of the rest
   */
  public static double[] between(
      Centreline road, Room room, double[] offset, int from, int count, double[] weight) {
    int stride = Math.max(1, (int) Math.round(SPACING / road.step()));
    int m = count / stride + 1;
    int[] at = new int[m];
    double[] start = new double[m];
    double[] lower = new double[m];
    double[] upper = new double[m];
    for (int k = 0; k < m; k++) {
      at[k] = road.loop().at(from + k * stride);
      start[k] = offset[at[k]];
      boolean fixed = k < FIXED || k >= m - FIXED;
      lower[k] = fixed ? start[k] - HELD : tightest(room.lower(), from + k * stride, stride, true);
      upper[k] = fixed ? start[k] + HELD : tightest(room.upper(), from + k * stride, stride, false);
      if (upper[k] - lower[k] < HELD) {
        double middle = (upper[k] + lower[k]) / 2;
        lower[k] = middle - HELD;
        upper[k] = middle + HELD;
      }
    }
    double[] solved = start;
    for (int round = 0; round < ROUNDS; round++) {
      solved = solve(road, at, solved, lower, upper, picked(weight, at), false);
    }
    double[] change = new double[m];
    double[] u = new double[m];
    for (int k = 0; k < m; k++) {
      u[k] = k * stride * road.step();
      double in = Math.min(k - FIXED, m - 1 - FIXED - k) / (double) JOINT;
      double t = Math.max(0, Math.min(1, in));
      change[k] = t * t * t * (10 - t * (15 - 6 * t)) * (solved[k] - start[k]);
    }
    double span = m * stride * road.step();
    PeriodicSpline spline =
        PeriodicSpline.fit(u, span, change, PeriodicSpline.lambdaForWavelength(INTERPOLATION_WAVE));
    double[] out = offset.clone();
    for (int k = FIXED * stride; k < (m - FIXED) * stride; k++) {
      out[road.loop().at(from + k)] += spline.at(k * road.step())[0];
    }
    return out;
  }

  /** The tightest bound within half a stride, so that none falls between two nodes. */
  private static double tightest(double[] bound, int at, int stride, boolean lower) {
    double tightest = bound[new Loop(bound.length).at(at)];
    for (int j = -stride / 2; j <= stride / 2; j++) {
      double b = bound[new Loop(bound.length).at(at + j)];
      tightest = lower ? Math.max(tightest, b) : Math.min(tightest, b);
    }
    return tightest;
  }

  private static int[] nodes(Centreline road) {
    int stride = Math.max(1, (int) Math.round(SPACING / road.step()));
    int m = road.size() / stride;
    int[] at = new int[m];
    for (int k = 0; k < m; k++) {
      at[k] = k * stride;
    }
    return at;
  }

  private static double[] picked(double[] values, int[] at) {
    double[] out = new double[at.length];
    for (int k = 0; k < at.length; k++) {
      out[k] = values[at[k]];
    }
    return out;
  }

  private static double[] solve(
      Centreline road,
      int[] at,
      double[] from,
      double[] lower,
      double[] upper,
      double[] weight,
      boolean closed) {
    int m = at.length;
    double[] nx = new double[m];
    double[] ny = new double[m];
    double[] h = new double[m];
    for (int k = 0; k < m; k++) {
      nx[k] = -Math.sin(road.heading()[at[k]]);
      ny[k] = Math.cos(road.heading()[at[k]]);
    }
    for (int k = 0; k < m; k++) {
      int q = (k + 1) % m;
      double dx = road.x()[at[q]] + from[q] * nx[q] - road.x()[at[k]] - from[k] * nx[k];
      double dy = road.y()[at[q]] + from[q] * ny[q] - road.y()[at[k]] - from[k] * ny[k];
      h[k] = Math.hypot(dx, dy);
    }
    double[] diagonal = new double[m];
    double[] next = new double[m];
    double[] second = new double[m];
    double[] linear = new double[m];
    // An open stretch has no bending at its two ends, which ties them to nothing.
    for (int k = closed ? 0 : 1; k < (closed ? m : m - 1); k++) {
      int p = (k + m - 1) % m;
      int q = (k + 1) % m;
      double span = (h[p] + h[k]) / 2;
      double ap = 1 / (h[p] * span);
      double aq = 1 / (h[k] * span);
      double ak = -(ap + aq);
      double cx = ap * road.x()[at[p]] + ak * road.x()[at[k]] + aq * road.x()[at[q]];
      double cy = ap * road.y()[at[p]] + ak * road.y()[at[k]] + aq * road.y()[at[q]];
      span *= weight[k];
      diagonal[p] += span * ap * ap;
      diagonal[k] += span * ak * ak;
      diagonal[q] += span * aq * aq;
      next[p] += span * ap * ak * (nx[p] * nx[k] + ny[p] * ny[k]);
      next[k] += span * ak * aq * (nx[k] * nx[q] + ny[k] * ny[q]);
      second[p] += span * ap * aq * (nx[p] * nx[q] + ny[p] * ny[q]);
      linear[p] += span * ap * (nx[p] * cx + ny[p] * cy);
      linear[k] += span * ak * (nx[k] * cx + ny[k] * cy);
      linear[q] += span * aq * (nx[q] * cx + ny[q] * cy);
    }
    return BoxQuadratic.minimise(diagonal, next, second, linear, lower, upper, TOLERANCE);
  }
}
