package marvek.core.numeric;

import java.util.Arrays;

/**
 * A periodic cubic smoothing spline through (u, y).
 *
 * <p>Minimises Σ wᵢ(yᵢ − g(uᵢ))² + λ∫g″² with weights equal to the local spacing, by the method of
 * Reinsch in the form of Green &amp; Silverman, "Nonparametric Regression and Generalized Linear
 * Models" (1994), ch. 2, closed on itself. λ has the unit u⁴; a wave of wavelength W is halved
 * where λ = (W/2π)⁴. λ = 0 interpolates.
 */
public final class PeriodicSpline {
  private final double[] u;
  private final double period;
  private final double[] value;
  private final double[] second;

  private PeriodicSpline(double[] u, double period, double[] value, double[] second) {
    this.u = u;
    this.period = period;
    this.value = value;
    this.second = second;
  }

  /** The smoothing that halves a wave of the given length. */
  public static double lambdaForWavelength(double wavelength) {
    return Math.pow(wavelength / (2 * Math.PI), 4);
  }

  /**
   * Fits the spline.
   *
   * @param u strictly increasing knots in [u₀, u₀ + period), at least 7
   * @param period distance after which the curve repeats
   * @param y values at the knots
   * @param lambda smoothing, ≥ 0
   */
  public static PeriodicSpline fit(double[] u, double period, double[] y, double lambda) {
    int n = u.length;
    double[] h = spacings(u, period);
    double[] weight = new double[n];
    for (int i = 0; i < n; i++) {
      weight[i] = 0.5 * (h[i] + h[(i + n - 1) % n]);
    }
    double[] diagonal = new double[n];
    double[] next = new double[n];
    double[] far = new double[n];
    double[] right = new double[n];
    for (int i = 0; i < n; i++) {
      int p = (i + n - 1) % n;
      int q = (i + 1) % n;
      diagonal[i] = (h[p] + h[i]) / 3;
      next[i] = h[i] / 6;
      double before = 1 / h[p];
      double after = 1 / h[i];
      double centre = -(before + after);
      diagonal[i] +=
          lambda
              * (before * before / weight[p]
                  + centre * centre / weight[i]
                  + after * after / weight[q]);
      // Row i of Qᵀ touches p, i, q; row i+1 touches i, q, q+1.
      double afterNext = 1 / h[q];
      next[i] += lambda * (centre * after / weight[i] + after * -(after + afterNext) / weight[q]);
      far[i] = lambda * after * afterNext / weight[q];
      right[i] = (y[q] - y[i]) * after - (y[i] - y[p]) * before;
    }
    double[] second = new CyclicPentadiagonal(diagonal, next, far).solve(right);
    double[] value = new double[n];
    for (int i = 0; i < n; i++) {
      int p = (i + n - 1) % n;
      int q = (i + 1) % n;
      double bend = (second[q] - second[i]) / h[i] - (second[i] - second[p]) / h[p];
      value[i] = y[i] - lambda * bend / weight[i];
    }
    return new PeriodicSpline(u.clone(), period, value, second);
  }

  /** The spline at its knots. */
  public double[] knotValues() {
    return value.clone();
  }

  /** The value, first and second derivative at {@code at}, which may lie in any period. */
  public double[] at(double at) {
    int n = u.length;
    double local = at - Math.floor((at - u[0]) / period) * period;
    if (local >= u[0] + period) {
      local = u[0];
    }
    int found = Arrays.binarySearch(u, local);
    int i = found >= 0 ? found : Math.max(0, -found - 2);
    int q = (i + 1) % n;
    double h = (q == 0 ? u[0] + period : u[q]) - u[i];
    double b = (local - u[i]) / h;
    double a = 1 - b;
    double slope = (value[q] - value[i]) / h;
    double v =
        a * value[i]
            + b * value[q]
            + ((a * a * a - a) * second[i] + (b * b * b - b) * second[q]) * h * h / 6;
    double d1 = slope + ((1 - 3 * a * a) * second[i] + (3 * b * b - 1) * second[q]) * h / 6;
    double d2 = a * second[i] + b * second[q];
    return new double[] {v, d1, d2};
  }

  private static double[] spacings(double[] u, double period) {
    int n = u.length;
    double[] h = new double[n];
    for (int i = 0; i < n; i++) {
      h[i] = (i + 1 < n ? u[i + 1] : u[0] + period) - u[i];
      if (!(h[i] > 0)) {
        throw new IllegalArgumentException("knots must increase: knot " + i);
      }
    }
    return h;
  }
}
