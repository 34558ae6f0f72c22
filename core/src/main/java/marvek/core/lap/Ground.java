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

  private static final double BLEND = 0.3;

  /** Good tarmac all round. */
  public static Ground good(int size) {
    double[] ones = new double[size];
    Arrays.fill(ones, 1);
    return new Ground(ones, ones, ones, ones);
  }

  /** Whether it leaves the same grip everywhere. */
  public boolean sameAs(Ground other) {
    return Arrays.equals(left, other.left)
        && Arrays.equals(right, other.right)
        && Arrays.equals(leftEdge, other.leftEdge)
        && Arrays.equals(rightEdge, other.rightEdge);
  }

  /** The ground of a piece of the road. */
  public Ground piece(int from, int count) {
    return new Ground(
        Centreline.piece(left, from, count),
        Centreline.piece(right, from, count),
        Centreline.piece(leftEdge, from, count),
        Centreline.piece(rightEdge, from, count));
  }

  /** The factor under each place of a line. */
  double[] under(Centreline road, double[] offset) {
    double[] grip = new double[offset.length];
    for (int i = 0; i < grip.length; i++) {
      grip[i] = at(road, i, offset[i]);
    }
    return grip;
  }

  /**
   * The factor at a place; from one strip of the road to the next it changes over 0.3 metres, as
   * the wheels of a vehicle do not cross all at once.
   */
  public double at(Centreline road, int i, double n) {
    double middle = right[i] + share(n) * (left[i] - right[i]);
    double toLeft = share(n - road.left()[i] + EDGE);
    double toRight = share(EDGE - road.right()[i] - n);
    double grip = middle + toLeft * (Math.min(left[i], leftEdge[i]) - middle);
    return grip + toRight * (Math.min(right[i], rightEdge[i]) - grip);
  }

  /** How the factor changes with the place across, 1/m. */
  public double slope(Centreline road, int i, double n) {
    double h = BLEND / 100;
    return (at(road, i, n + h) - at(road, i, n - h)) / (2 * h);
  }

  private static double share(double past) {
    return Math.max(0, Math.min(1, past / BLEND + 0.5));
  }
}
