package marvek.core.line;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;

/**
 * Moves a feature of a line along the road: the offset that was at one station comes to lie at
 * another, and the change fades out smoothly to both sides.
 */
public final class Warp {
  private Warp() {}

  /**
   * Returns new offsets.
   *
   * @param offset metres to the left at each station
   * @param centre station of the feature
   * @param shift metres along the road, positive onwards; cut to a fifth of the shorter reach, so
   *     that the line never folds
   * @param before metres behind the feature that are changed
   * @param after metres past the feature that are changed
   */
  public static double[] shifted(
      Centreline road, double[] offset, double centre, double shift, double before, double after) {
    double most = 0.2 * Math.min(before, after);
    double by = Math.max(-most, Math.min(most, shift));
    double[] out = offset.clone();
    Loop loop = road.loop();
    int from = (int) Math.ceil((centre - before) / road.step());
    int to = (int) Math.floor((centre + after) / road.step());
    for (int k = from; k <= to; k++) {
      double away = k * road.step() - centre;
      double share = away < 0 ? -away / before : away / after;
      double bump = share >= 1 ? 0 : fade(share);
      out[loop.at(k)] = at(road, offset, k * road.step() - by * bump);
    }
    return out;
  }

  /**
   * Returns offsets moved sideways at a place, fading out to both sides.
   *
   * @param by metres to the left
   * @param reach metres to each side that are changed
   */
  public static double[] bumped(
      Centreline road, double[] offset, double centre, double by, double reach) {
    double[] out = offset.clone();
    int from = (int) Math.ceil((centre - reach) / road.step());
    int to = (int) Math.floor((centre + reach) / road.step());
    for (int k = from; k <= to; k++) {
      double share = Math.abs(k * road.step() - centre) / reach;
      out[road.loop().at(k)] += share >= 1 ? 0 : by * fade(share);
    }
    return out;
  }

  /**
   * Returns offsets that differ from a line as others do, but by no kink: the difference is spread
   * by a raised cosine. Where the road itself turns sharply, a line moved along it has bends that
   * nobody steers.
   *
   * @param line metres to the left at each station
   * @param other metres to the left at each station
   * @param reach metres to each side over which a difference is spread, less than half a lap
   */
  public static double[] eased(Centreline road, double[] line, double[] other, double reach) {
    Loop loop = road.loop();
    int wide = (int) (Math.min(reach, road.length() / 2 - road.step()) / road.step());
    double[] weight = new double[wide + 1];
    double all = 0;
    for (int j = 0; j <= wide; j++) {
      weight[j] = 1 + Math.cos(Math.PI * j / (wide + 1));
      all += j == 0 ? weight[j] : 2 * weight[j];
    }
    double[] out = new double[line.length];
    for (int k = 0; k < out.length; k++) {
      double sum = weight[0] * (other[k] - line[k]);
      for (int j = 1; j <= wide; j++) {
        int a = loop.at(k - j);
        int b = loop.at(k + j);
        sum += weight[j] * (other[a] - line[a] + other[b] - line[b]);
      }
      out[k] = line[k] + sum / all;
    }
    return out;
  }

  /** From 1 to 0 with three smooth derivatives at both ends, so that curvature keeps no kink. */
  private static double fade(double share) {
    double t = 1 - share;
    return t * t * t * t * (35 + t * (-84 + t * (70 - 20 * t)));
  }

  /** Offset between stations by a cubic through four neighbours (Catmull–Rom). */
  private static double at(Centreline road, double[] offset, double station) {
    Loop loop = road.loop();
    double at = station / road.step();
    int i = (int) Math.floor(at);
    double t = at - i;
    double a = offset[loop.at(i - 1)];
    double b = offset[loop.at(i)];
    double c = offset[loop.at(i + 1)];
    double d = offset[loop.at(i + 2)];
    return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
  }
}
