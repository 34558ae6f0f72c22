package marvek.core.line;

import java.util.List;
import marvek.core.circuit.Loop;

/**
 * Stretches of a lap that are judged one by one, from cut to cut. Around a cut a change fades from
 * the one stretch into the other, so that a step taken in one and not in the other leaves no kink.
 */
final class Blocks {
  // Knots to each side of a cut over which a change fades.
  private static final int FADE = 6;

  private final int count;
  private final int[] knot;
  private final int[] station;
  private final int[] other;
  private final double[] share;

  private Blocks(int count, int knots, int stations) {
    this.count = count;
    knot = new int[knots];
    station = new int[stations];
    other = new int[knots];
    share = new double[knots];
  }

  /** The lap as a whole. */
  static Blocks one(int knots, int stations) {
    return new Blocks(1, knots, stations);
  }

  /**
   * From cut to cut.
   *
   * @param cuts stations in order, two or more
   */
  static Blocks between(List<Integer> cuts, LineSpline spline, int stations) {
    Blocks out = new Blocks(cuts.size(), spline.knots, stations);
    for (int i = 0; i < stations; i++) {
      int b = 0;
      while (b < cuts.size() && cuts.get(b) <= i) {
        b++;
      }
      out.station[i] = b % out.count;
    }
    int m = spline.knots;
    Loop loop = new Loop(m);
    for (int j = 0; j < m; j++) {
      out.knot[j] = out.station[spline.station(j)];
    }
    for (int at : cuts) {
      int middle = spline.knot(at);
      for (int k = -FADE; k < FADE; k++) {
        int j = loop.at(middle + k);
        out.other[j] = out.knot[loop.at(k < 0 ? middle + 1 : middle - 2)];
        out.share[j] = 0.5 * (1 - Math.abs((k + 0.5) / FADE));
      }
    }
    return out;
  }

  int count() {
    return count;
  }

  int ofStation(int i) {
    return station[i];
  }

  int ofKnot(int j) {
    return knot[j];
  }

  /** Share of a change that is taken at a knot, 0 to 1, when some blocks take it. */
  double taken(int j, boolean[] takes) {
    return (takes[knot[j]] ? 1 - share[j] : 0) + (takes[other[j]] ? share[j] : 0);
  }

  /** Sums over the knots of each block. */
  double[] dot(double[] a, double[] b) {
    double[] out = new double[count];
    for (int j = 0; j < a.length; j++) {
      out[knot[j]] += a[j] * b[j];
    }
    return out;
  }
}
