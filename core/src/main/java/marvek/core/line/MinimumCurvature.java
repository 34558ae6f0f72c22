package marvek.core.line;

import marvek.core.circuit.Centreline;
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

  private MinimumCurvature() {}

  /** Offsets in metres to the left of the centreline, one for each station of the road. */
  public static double[] offsets(Centreline road, Room room) {
    int[] at = nodes(road);
    int m = at.length;
    double[] offset = new double[m];
    for (int round = 0; round < ROUNDS; round++) {
      offset = solve(road, room, at, offset);
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

  private static int[] nodes(Centreline road) {
    int stride = Math.max(1, (int) Math.round(SPACING / road.step()));
    int m = road.size() / stride;
    int[] at = new int[m];
    for (int k = 0; k < m; k++) {
      at[k] = k * stride;
    }
    return at;
  }

  private static double[] solve(Centreline road, Room room, int[] at, double[] from) {
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
    double[] lower = new double[m];
    double[] upper = new double[m];
    for (int k = 0; k < m; k++) {
      int p = (k + m - 1) % m;
      int q = (k + 1) % m;
      double span = (h[p] + h[k]) / 2;
      double ap = 1 / (h[p] * span);
      double aq = 1 / (h[k] * span);
      double ak = -(ap + aq);
      double cx = ap * road.x()[at[p]] + ak * road.x()[at[k]] + aq * road.x()[at[q]];
      double cy = ap * road.y()[at[p]] + ak * road.y()[at[k]] + aq * road.y()[at[q]];
      diagonal[p] += span * ap * ap;
      diagonal[k] += span * ak * ak;
      diagonal[q] += span * aq * aq;
      next[p] += span * ap * ak * (nx[p] * nx[k] + ny[p] * ny[k]);
      next[k] += span * ak * aq * (nx[k] * nx[q] + ny[k] * ny[q]);
      second[p] += span * ap * aq * (nx[p] * nx[q] + ny[p] * ny[q]);
      linear[p] += span * ap * (nx[p] * cx + ny[p] * cy);
      linear[k] += span * ak * (nx[k] * cx + ny[k] * cy);
      linear[q] += span * aq * (nx[q] * cx + ny[q] * cy);
      lower[k] = room.lower()[at[k]];
      upper[k] = room.upper()[at[k]];
    }
    return BoxQuadratic.minimise(diagonal, next, second, linear, lower, upper, TOLERANCE);
  }
}
