package marvek.core.lap;

import java.util.Arrays;
import marvek.core.circuit.Centreline;

/**
 * What the ground leaves of the tyres' grip, at each station: 1 for good, dry tarmac. Arrays are
 * not to be changed by whoever reads them.
 *
 * @param left of the middle
 * @param right of the middle
 * @param leftEdge the last {@link #EDGE} metres on the left
 * @param rightEdge the last {@link #EDGE} metres on the right
 */
public record Ground(double[] left, double[] right, double[] leftEdge, double[] rightEdge) {
  /** What counts as the edge of the road, for the middle of a vehicle, metres. */
  public static final double EDGE = 2;

  /** Good tarmac all round. */
  public static Ground good(int size) {
    double[] ones = new double[size];
    Arrays.fill(ones, 1);
    return new Ground(ones, ones, ones, ones);
  }

  /** The factor under each place of a line. */
  double[] under(Centreline road, double[] offset) {
    double[] grip = new double[offset.length];
    for (int i = 0; i < grip.length; i++) {
      double n = offset[i];
      if (n > road.left()[i] - EDGE) {
        grip[i] = Math.min(left[i], leftEdge[i]);
      } else if (n < EDGE - road.right()[i]) {
        grip[i] = Math.min(right[i], rightEdge[i]);
      } else {
        grip[i] = n >= 0 ? left[i] : right[i];
      }
    }
    return grip;
  }
}
