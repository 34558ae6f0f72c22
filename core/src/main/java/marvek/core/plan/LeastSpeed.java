package marvek.core.plan;

/** Where a corner allows the least. */
final class LeastSpeed {
  private static final double EVEN = 1.012;

  private LeastSpeed() {}

  /**
   * The first step, of some, that allows no more than the least of them; even bends count as one.
   */
  static int first(double[] corner, int low, int high) {
    int best = low;
    for (int k = low; k <= high; k++) {
      if (corner[k] < corner[best]) {
        best = k;
      }
    }
    for (int k = low; k < best; k++) {
      if (corner[k] <= corner[best] * EVEN) {
        return k;
      }
    }
    return best;
  }
}
