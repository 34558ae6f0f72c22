package marvek.core.numeric;

/**
 * A symmetric positive definite matrix with five diagonals that wrap round: element (i, i+1) and
 * (i, i+2) are taken modulo n. It is what a closed curve gives when neighbours and next neighbours
 * are coupled.
 *
 * <p>Solved by eliminating the last two unknowns (a border of two columns) from a banded LDLᵀ
 * factorisation of the rest, so that time and memory grow with n.
 */
public final class CyclicPentadiagonal {
  private static final int SMALLEST = 7;

  private final int n;
  private final double[] pivot;
  private final double[] low1;
  private final double[] low2;
  private final double[][] border = new double[2][];
  private final double[][] solvedBorder = new double[2][];
  private final double s00;
  private final double s01;
  private final double s11;

  /**
   * Factors the matrix.
   *
   * @param diagonal elements (i, i), length n ≥ 7
   * @param next elements (i, i+1 mod n)
   * @param second elements (i, i+2 mod n)
   * @throws IllegalArgumentException if n &lt; 7 or the matrix is not positive definite
   */
  public CyclicPentadiagonal(double[] diagonal, double[] next, double[] second) {
    n = diagonal.length;
    if (n < SMALLEST) {
      throw new IllegalArgumentException("at least " + SMALLEST + " unknowns are needed, got " + n);
    }
    int m = n - 2;
    pivot = new double[m];
    low1 = new double[m];
    low2 = new double[m];
    for (int i = 0; i < m; i++) {
      double d = diagonal[i];
      double e = i + 1 < m ? next[i] : 0;
      double f = i + 2 < m ? second[i] : 0;
      if (i >= 1) {
        d -= low1[i - 1] * low1[i - 1] * pivot[i - 1];
        e -= low1[i - 1] * low2[i - 1] * pivot[i - 1];
      }
      if (i >= 2) {
        d -= low2[i - 2] * low2[i - 2] * pivot[i - 2];
      }
      if (!(d > 0)) {
        throw new IllegalArgumentException("the matrix is not positive definite at row " + i);
      }
      pivot[i] = d;
      low1[i] = e / d;
      low2[i] = f / d;
    }
    border[0] = new double[m];
    border[1] = new double[m];
    border[0][m - 2] += second[m - 2];
    border[0][m - 1] += next[m - 1];
    border[0][0] += second[n - 2];
    border[1][m - 1] += second[m - 1];
    border[1][0] += next[n - 1];
    border[1][1] += second[n - 1];
    solvedBorder[0] = border[0].clone();
    solvedBorder[1] = border[1].clone();
    banded(solvedBorder[0], solvedBorder[1]);
    s00 = diagonal[n - 2] - dot(border[0], solvedBorder[0]);
    s01 = next[n - 2] - dot(border[0], solvedBorder[1]);
    s11 = diagonal[n - 1] - dot(border[1], solvedBorder[1]);
  }

  /** Returns x with A·x = {@code right}; the argument is left as it is. */
  public double[] solve(double[] right) {
    int m = n - 2;
    double[] y = new double[m];
    System.arraycopy(right, 0, y, 0, m);
    banded(y);
    double r0 = right[m] - dot(border[0], y);
    double r1 = right[m + 1] - dot(border[1], y);
    double determinant = s00 * s11 - s01 * s01;
    double z0 = (r0 * s11 - r1 * s01) / determinant;
    double z1 = (r1 * s00 - r0 * s01) / determinant;
    double[] x = new double[n];
    for (int i = 0; i < m; i++) {
      x[i] = y[i] - solvedBorder[0][i] * z0 - solvedBorder[1][i] * z1;
    }
    x[m] = z0;
    x[m + 1] = z1;
    return x;
  }

  /** Puts the solution in place of the right-hand side. */
  private void banded(double[] x) {
    int m = x.length;
    // The last two values are kept at hand: each waits for the one before it.
    double one = 0;
    double two = 0;
    for (int i = 0; i < m; i++) {
      double value = x[i];
      if (i >= 1) {
        value -= low1[i - 1] * one;
      }
      if (i >= 2) {
        value -= low2[i - 2] * two;
      }
      two = one;
      one = value;
      x[i] = value;
    }
    for (int i = 0; i < m; i++) {
      x[i] /= pivot[i];
    }
    one = 0;
    two = 0;
    for (int i = m - 1; i >= 0; i--) {
      double value = x[i];
      if (i + 1 < m) {
        value -= low1[i] * one;
      }
      if (i + 2 < m) {
        value -= low2[i] * two;
      }
      two = one;
      one = value;
      x[i] = value;
    }
  }

  /** The same for two at once: neither waits for the other. */
  private void banded(double[] x, double[] y) {
    int m = x.length;
    double oneX = 0;
    double twoX = 0;
    double oneY = 0;
    double twoY = 0;
    for (int i = 0; i < m; i++) {
      double valueX = x[i];
      double valueY = y[i];
      if (i >= 1) {
        valueX -= low1[i - 1] * oneX;
        valueY -= low1[i - 1] * oneY;
      }
      if (i >= 2) {
        valueX -= low2[i - 2] * twoX;
        valueY -= low2[i - 2] * twoY;
      }
      twoX = oneX;
      oneX = valueX;
      x[i] = valueX;
      twoY = oneY;
      oneY = valueY;
      y[i] = valueY;
    }
    for (int i = 0; i < m; i++) {
      x[i] /= pivot[i];
      y[i] /= pivot[i];
    }
    oneX = 0;
    twoX = 0;
    oneY = 0;
    twoY = 0;
    for (int i = m - 1; i >= 0; i--) {
      double valueX = x[i];
      double valueY = y[i];
      if (i + 1 < m) {
        valueX -= low1[i] * oneX;
        valueY -= low1[i] * oneY;
      }
      if (i + 2 < m) {
        valueX -= low2[i] * twoX;
        valueY -= low2[i] * twoY;
      }
      twoX = oneX;
      oneX = valueX;
      x[i] = valueX;
      twoY = oneY;
      oneY = valueY;
      y[i] = valueY;
    }
  }

  private static double dot(double[] a, double[] b) {
    double sum = 0;
    for (int i = 0; i < a.length; i++) {
      sum += a[i] * b[i];
    }
    return sum;
  }
}
