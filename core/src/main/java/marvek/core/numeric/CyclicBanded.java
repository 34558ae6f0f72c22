package marvek.core.numeric;

/**
 * A symmetric positive definite matrix whose entries lie within some places of the diagonal, closed
 * on itself: the row after the last is the first. Solved by LDLᵀ of the open band, with the rows
 * that close it as a border (Golub &amp; Van Loan, "Matrix Computations", 4.3 and 4.5).
 */
public final class CyclicBanded {
  private final int n;
  private final int b;
  private final double[][] low;
  private final double[][] solved;
  private final double[][] border;
  private final double[][] corner;

  /**
   * Factors the matrix.
   *
   * @param bands bands[d][i] is the entry of row i and column (i + d) modulo n, for d from 0 (the
   *     diagonal) to the half width; n is at least three half widths
   * @throws IllegalArgumentException when it is not positive definite
   */
  public CyclicBanded(double[][] bands) {
    n = bands[0].length;
    b = bands.length - 1;
    int m = n - b;
    if (m < 2 * b) {
      throw new IllegalArgumentException("too few rows for the band: " + n);
    }
    low = new double[b + 1][m];
    for (int i = 0; i < m; i++) {
      for (int d = 0; d <= b && i + d < m; d++) {
        double v = bands[d][i];
        for (int k = Math.max(0, i + d - b); k < i; k++) {
          v -= low[i - k][k] * low[i + d - k][k] * low[0][k];
        }
        if (d == 0) {
          if (!(v > 0)) {
            throw new IllegalArgumentException("the matrix is not positive definite at row " + i);
          }
          low[0][i] = v;
        } else {
          low[d][i] = v / low[0][i];
        }
      }
    }
    border = new double[b][m];
    corner = new double[b][b];
    for (int c = 0; c < b; c++) {
      int row = m + c;
      for (int d = 0; d <= b; d++) {
        add(bands, d, Math.floorMod(row - d, n), row, c);
        if (d > 0) {
          addAfter(bands[d][row], (row + d) % n, c);
        }
      }
    }
    solved = new double[b][];
    for (int c = 0; c < b; c++) {
      solved[c] = open(border[c]);
    }
    for (int r = 0; r < b; r++) {
      for (int c = 0; c < b; c++) {
        for (int i = 0; i < m; i++) {
          corner[r][c] -= border[r][i] * solved[c][i];
        }
      }
    }
  }

  private void add(double[][] bands, int d, int column, int row, int c) {
    double v = bands[d][column];
    int m = n - b;
    if (column < m) {
      border[c][column] += v;
    } else {
      corner[c][column - m] += v;
      if (column != row) {
        corner[column - m][c] += v;
      }
    }
  }

  private void addAfter(double v, int column, int c) {
    if (column < n - b) {
      border[c][column] += v;
    }
  }

  /** Returns x with A·x = {@code right}; the argument is left as it is. */
  public double[] solve(double[] right) {
    int m = n - b;
    double[] head = new double[m];
    System.arraycopy(right, 0, head, 0, m);
    double[] x = open(head);
    double[] tail = new double[b];
    for (int c = 0; c < b; c++) {
      tail[c] = right[m + c];
      for (int i = 0; i < m; i++) {
        tail[c] -= border[c][i] * x[i];
      }
    }
    double[] z = small(tail);
    double[] out = new double[n];
    for (int i = 0; i < m; i++) {
      out[i] = x[i];
      for (int c = 0; c < b; c++) {
        out[i] -= solved[c][i] * z[c];
      }
    }
    System.arraycopy(z, 0, out, m, b);
    return out;
  }

  /** Elimination on the few rows that close the band; they are positive definite as well. */
  private double[] small(double[] right) {
    double[][] a = new double[b][];
    double[] z = right.clone();
    for (int r = 0; r < b; r++) {
      a[r] = corner[r].clone();
    }
    for (int k = 0; k < b; k++) {
      for (int r = k + 1; r < b; r++) {
        double f = a[r][k] / a[k][k];
        for (int c = k; c < b; c++) {
          a[r][c] -= f * a[k][c];
        }
        z[r] -= f * z[k];
      }
    }
    for (int k = b - 1; k >= 0; k--) {
      for (int c = k + 1; c < b; c++) {
        z[k] -= a[k][c] * z[c];
      }
      z[k] /= a[k][k];
    }
    return z;
  }

  private double[] open(double[] right) {
    int m = right.length;
    double[] x = right.clone();
    for (int i = 0; i < m; i++) {
      for (int k = Math.max(0, i - b); k < i; k++) {
        x[i] -= low[i - k][k] * x[k];
      }
    }
    for (int i = 0; i < m; i++) {
      x[i] /= low[0][i];
    }
    for (int i = m - 1; i >= 0; i--) {
      for (int d = 1; d <= b && i + d < m; d++) {
        x[i] -= low[d][i] * x[i + d];
      }
    }
    return x;
  }
}
