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

  private final int n;
  private final double[] lower;
  private final double[] upper;
  private final double[] x;
  // Multipliers of the bounds, and how a step changes them.
  private final double[] ofLower;
  private final double[] ofUpper;
  private final double[] lowerChange;
  private final double[] upperChange;

  private BoxQuadratic(double[] lower, double[] upper, double multiplier) {
    n = lower.length;
    this.lower = lower;
    this.upper = upper;
    x = new double[n];
    ofLower = new double[n];
    ofUpper = new double[n];
    lowerChange = new double[n];
    upperChange = new double[n];
    for (int i = 0; i < n; i++) {
      if (!(upper[i] > lower[i])) {
        throw new IllegalArgumentException("no room between the bounds at " + i);
      }
      x[i] = 0.5 * (lower[i] + upper[i]);
      ofLower[i] = multiplier;
      ofUpper[i] = multiplier;
    }
  }

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
    double scale = 0;
    for (double d : diagonal) {
      scale = Math.max(scale, d);
    }
    BoxQuadratic search = new BoxQuadratic(lower, upper, scale * 0.01);
    for (int step = 0; step < MOST_STEPS; step++) {
      double[] gradient = times(diagonal, next, second, search.x);
      for (int i = 0; i < gradient.length; i++) {
        gradient[i] += linear[i];
      }
      double gap = search.gap();
      double mu = gap / (2 * gradient.length);
      if (mu < tolerance * scale * 1e-6 && search.worst(gradient) < tolerance * scale * 1e-3) {
        break;
      }
      double[] within = search.within(diagonal, 1e-12 * scale);
      search.step(new CyclicPentadiagonal(within, next, second), gradient, gap);
    }
    return search.x;
  }

  private double gap() {
    double gap = 0;
    for (int i = 0; i < n; i++) {
      gap += ofLower[i] * (x[i] - lower[i]) + ofUpper[i] * (upper[i] - x[i]);
    }
    return gap;
  }

  /** How far the gradient is from what the multipliers bear, at most. */
  private double worst(double[] gradient) {
    double worst = 0;
    for (int i = 0; i < n; i++) {
      worst = Math.max(worst, Math.abs(gradient[i] - ofLower[i] + ofUpper[i]));
    }
    return worst;
  }

  /** The diagonal with what the bounds add to it. */
  private double[] within(double[] diagonal, double least) {
    double[] d = diagonal.clone();
    for (int i = 0; i < n; i++) {
      d[i] += ofLower[i] / (x[i] - lower[i]) + ofUpper[i] / (upper[i] - x[i]) + least;
    }
    return d;
  }

  private void step(CyclicPentadiagonal system, double[] gradient, double gap) {
    for (int i = 0; i < n; i++) {
      lowerChange[i] = -ofLower[i];
      upperChange[i] = -ofUpper[i];
    }
    double[] plain = move(system, gradient);
    double reach = reach(plain);
    double after = 0;
    for (int i = 0; i < n; i++) {
      double above = x[i] - lower[i];
      double below = upper[i] - x[i];
      after += (above + reach * plain[i]) * (ofLower[i] + reach * lowerChange[i]);
      after += (below - reach * plain[i]) * (ofUpper[i] + reach * upperChange[i]);
    }
    double centring = Math.pow(Math.max(after, 0) / gap, 3) * (gap / (2 * n));
    for (int i = 0; i < n; i++) {
      lowerChange[i] = (centring - plain[i] * lowerChange[i]) / (x[i] - lower[i]) - ofLower[i];
      upperChange[i] = (centring + plain[i] * upperChange[i]) / (upper[i] - x[i]) - ofUpper[i];
    }
    double[] move = move(system, gradient);
    double alpha = 0.995 * reach(move);
    for (int i = 0; i < n; i++) {
      x[i] += alpha * move[i];
      ofLower[i] += alpha * lowerChange[i];
      ofUpper[i] += alpha * upperChange[i];
    }
  }

  /**
   * The move of x for changes of the multipliers that are told for x at rest; adds to them what
   * goes with the move.
   */
  private double[] move(CyclicPentadiagonal system, double[] gradient) {
    double[] right = new double[n];
    for (int i = 0; i < n; i++) {
      right[i] = -(gradient[i] - ofLower[i] + ofUpper[i]) + lowerChange[i] - upperChange[i];
    }
    double[] move = system.solve(right);
    for (int i = 0; i < n; i++) {
      lowerChange[i] -= ofLower[i] * move[i] / (x[i] - lower[i]);
      upperChange[i] += ofUpper[i] * move[i] / (upper[i] - x[i]);
    }
    return move;
  }

  /** The share of the step at which the first slack or multiplier comes to nothing; at most 1. */
  private double reach(double[] move) {
    double alpha = 1;
    for (int i = 0; i < n; i++) {
      alpha = shorter(alpha, x[i] - lower[i], move[i]);
      alpha = shorter(alpha, upper[i] - x[i], -move[i]);
      alpha = shorter(alpha, ofLower[i], lowerChange[i]);
      alpha = shorter(alpha, ofUpper[i], upperChange[i]);
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
      // No division: this is asked for hundreds of thousands of times in a search.
      int q = i + 1 < n ? i + 1 : 0;
      int r = i + 2 < n ? i + 2 : i + 2 - n;
      y[i] += d[i] * x[i] + e[i] * x[q] + f[i] * x[r];
      y[q] += e[i] * x[i];
      y[r] += f[i] * x[i];
    }
    return y;
  }
}
