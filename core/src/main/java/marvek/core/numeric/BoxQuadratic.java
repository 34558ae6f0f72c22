package marvek.core.numeric;

/**
 * Minimises ½xᵀHx + cᵀx within lower ≤ x ≤ upper, where H has five cyclic diagonals.
 *
 * <p>A primal-dual interior-point method with Mehrotra's predictor and corrector (Nocedal &amp;
 * Wright, "Numerical Optimization", 2nd ed., ch. 16.6). Every step solves one banded system, so a
 * whole lap costs milliseconds.
 */
public final class BoxQuadratic {
  private static final int MOST_STEPS = 60;

  private BoxQuadratic() {}

  /**
   * Returns the minimiser.
   *
   * @param diagonal H(i, i); H must be positive semidefinite
   * @param next H(i, i+1 mod n)
   * @param second H(i, i+2 mod n)
   * @param linear c
   * @param lower lower bounds
   * @param upper upper bounds, each above its lower bound
   * @param tolerance distance from the bounds' complementarity at which to stop, in units of x
   */
  public static double[] minimise(
      double[] diagonal,
      double[] next,
      double[] second,
      double[] linear,
      double[] lower,
      double[] upper,
      double tolerance) {
    int n = diagonal.length;
    double scale = 0;
    for (double d : diagonal) {
      scale = Math.max(scale, d);
    }
    double[] x = new double[n];
    double[] zl = new double[n];
    double[] zu = new double[n];
    for (int i = 0; i < n; i++) {
      if (!(upper[i] > lower[i])) {
        throw new IllegalArgumentException("no room between the bounds at " + i);
      }
      x[i] = 0.5 * (lower[i] + upper[i]);
      zl[i] = scale * 0.01;
      zu[i] = scale * 0.01;
    }
    for (int step = 0; step < MOST_STEPS; step++) {
      double gap = 0;
      for (int i = 0; i < n; i++) {
        gap += zl[i] * (x[i] - lower[i]) + zu[i] * (upper[i] - x[i]);
      }
      double mu = gap / (2 * n);
      double[] gradient = times(diagonal, next, second, x);
      double worst = 0;
      double[] d = diagonal.clone();
      for (int i = 0; i < n; i++) {
        gradient[i] += linear[i];
        worst = Math.max(worst, Math.abs(gradient[i] - zl[i] + zu[i]));
        d[i] += zl[i] / (x[i] - lower[i]) + zu[i] / (upper[i] - x[i]) + 1e-12 * scale;
      }
      if (mu < tolerance * scale * 1e-6 && worst < tolerance * scale * 1e-3) {
        break;
      }
      CyclicPentadiagonal system = new CyclicPentadiagonal(d, next, second);
      double[] plain = direction(system, gradient, x, zl, zu, lower, upper, 0, null);
      double reach = reach(plain, x, zl, zu, lower, upper, 0, null);
      double after = 0;
      for (int i = 0; i < n; i++) {
        double sl = x[i] - lower[i];
        double su = upper[i] - x[i];
        double dl = -zl[i] - zl[i] * plain[i] / sl;
        double du = -zu[i] + zu[i] * plain[i] / su;
        after += (sl + reach * plain[i]) * (zl[i] + reach * dl);
        after += (su - reach * plain[i]) * (zu[i] + reach * du);
      }
      double centring = Math.pow(Math.max(after, 0) / gap, 3) * mu;
      double[] move = direction(system, gradient, x, zl, zu, lower, upper, centring, plain);
      double alpha = 0.995 * reach(move, x, zl, zu, lower, upper, centring, plain);
      for (int i = 0; i < n; i++) {
        double dl = dual(zl[i], x[i] - lower[i], move[i], centring, plain[i]);
        double du = dual(zu[i], upper[i] - x[i], -move[i], centring, -plain[i]);
        x[i] += alpha * move[i];
        zl[i] += alpha * dl;
        zu[i] += alpha * du;
      }
    }
    return x;
  }

  /** The change of a bound's multiplier z with slack s that goes with the move of x. */
  private static double dual(double z, double s, double move, double centring, double plain) {
    double secondOrder = plain * (-z - z * plain / s);
    return (centring - (centring == 0 ? 0 : secondOrder)) / s - z - z * move / s;
  }

  private static double[] direction(
      CyclicPentadiagonal system,
      double[] gradient,
      double[] x,
      double[] zl,
      double[] zu,
      double[] lower,
      double[] upper,
      double centring,
      double @org.jspecify.annotations.Nullable [] plain) {
    int n = x.length;
    double[] right = new double[n];
    for (int i = 0; i < n; i++) {
      double sl = x[i] - lower[i];
      double su = upper[i] - x[i];
      double p = plain == null ? 0 : plain[i];
      double l = dual(zl[i], sl, 0, centring, p);
      double u = dual(zu[i], su, 0, centring, -p);
      right[i] = -(gradient[i] - zl[i] + zu[i]) + l - u;
    }
    return system.solve(right);
  }

  private static double reach(
      double[] move,
      double[] x,
      double[] zl,
      double[] zu,
      double[] lower,
      double[] upper,
      double centring,
      double @org.jspecify.annotations.Nullable [] plain) {
    double alpha = 1;
    for (int i = 0; i < x.length; i++) {
      double p = plain == null ? 0 : plain[i];
      double sl = x[i] - lower[i];
      double su = upper[i] - x[i];
      alpha = shorter(alpha, sl, move[i]);
      alpha = shorter(alpha, su, -move[i]);
      alpha = shorter(alpha, zl[i], dual(zl[i], sl, move[i], centring, p));
      alpha = shorter(alpha, zu[i], dual(zu[i], su, -move[i], centring, -p));
    }
    return alpha;
  }

  private static double shorter(double alpha, double room, double change) {
    return change < 0 && alpha * -change > room ? room / -change : alpha;
  }

  private static double[] times(double[] d, double[] e, double[] f, double[] x) {
    int n = d.length;
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      int q = (i + 1) % n;
      int r = (i + 2) % n;
      y[i] += d[i] * x[i] + e[i] * x[q] + f[i] * x[r];
      y[q] += e[i] * x[i];
      y[r] += f[i] * x[i];
    }
    return y;
  }
}
