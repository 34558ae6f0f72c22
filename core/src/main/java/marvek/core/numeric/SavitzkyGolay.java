package marvek.core.numeric;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * Smoothing and differentiation of even samples by local polynomials of second degree.
 *
 * <p>Source: A. Savitzky and M. J. E. Golay, "Smoothing and differentiation of data by simplified
 * least squares procedures", Analytical Chemistry 36 (1964). Near the ends the window is cut and
 * the polynomial is fitted to what is left of it.
 */
public final class SavitzkyGolay {
  private final int half;
  // One row of weights for each place of the middle inside a cut window.
  private final double[][] smooth;
  private final double[][] slope;

  /**
   * Weights for windows of 2·half + 1 samples.
   *
   * @param half samples to each side, at least 1
   */
  public SavitzkyGolay(int half) {
    if (half < 1) {
      throw new IllegalArgumentException("half a window must hold at least one sample: " + half);
    }
    this.half = half;
    smooth = new double[half + 1][];
    slope = new double[half + 1][];
    for (int before = 0; before <= half; before++) {
      double[][] weights = weights(before, half);
      smooth[before] = weights[0];
      slope[before] = weights[1];
    }
  }

  /** Weights of the full window, for smoothing. */
  public double[] weights() {
    return smooth[half].clone();
  }

  /** Weights of the full window, for the first derivative per sample. */
  public double[] slopeWeights() {
    return slope[half].clone();
  }

  private static double[][] weights(int before, int after) {
    int count = before + after + 1;
    int degree = Math.min(2, count - 1);
    double[][] powers = new double[count][degree + 1];
    for (int i = 0; i < count; i++) {
      double x = i - before;
      double p = 1;
      for (int d = 0; d <= degree; d++) {
        powers[i][d] = p;
        p *= x;
      }
    }
    RealMatrix inverse =
        new QRDecomposition(new Array2DRowRealMatrix(powers)).getSolver().getInverse();
    return new double[][] {inverse.getRow(0), degree >= 1 ? inverse.getRow(1) : new double[count]};
  }

  /** Smoothed values; input shorter than a window is fitted as far as it goes. */
  public double[] smooth(double[] values) {
    return apply(values, false);
  }

  /** First derivative per sample. */
  public double[] slope(double[] values) {
    return apply(values, true);
  }

  private double[] apply(double[] values, boolean slopes) {
    int n = values.length;
    if (n < 3) {
      return slopes ? new double[n] : values.clone();
    }
    if (n < 2 * half + 1) {
      return new SavitzkyGolay((n - 1) / 2).apply(values, slopes);
    }
    double[][] table = slopes ? slope : smooth;
    double[] out = new double[n];
    double[] full = table[half];
    for (int i = half; i < n - half; i++) {
      double sum = 0;
      for (int k = 0; k < full.length; k++) {
        sum += full[k] * values[i - half + k];
      }
      out[i] = sum;
    }
    // At the far end the same weights run backwards, and so does a slope.
    double sign = slopes ? -1 : 1;
    for (int i = 0; i < half; i++) {
      double start = 0;
      double end = 0;
      double[] cut = table[i];
      for (int k = 0; k < cut.length; k++) {
        start += cut[k] * values[k];
        end += cut[k] * values[n - 1 - k];
      }
      out[i] = start;
      out[n - 1 - i] = sign * end;
    }
    return out;
  }
}
