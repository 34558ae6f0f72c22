package marvek.core.line;

import marvek.core.circuit.Centreline;
import marvek.core.lap.LapSlope;
import marvek.core.lap.Path;

/**
 * Changes to a line as a closed cubic B-spline with even knots: n(s) = n₀(s) + Σ cⱼBⱼ(s). Few
 * unknowns, each of which moves the line over four knots.
 */
final class LineSpline {
  private static final double TIGHT = 1e-3;
  private static final int HELD = 2;

  final int knots;
  private final Centreline road;
  private final double[] base;
  private final int[] first;
  private final double[] weight;

  /**
   * A spline of no change yet.
   *
   * @param base offsets that are changed, one for each station
   * @param spacing metres between knots, about
   */
  LineSpline(Centreline road, double[] base, double spacing) {
    this.road = road;
    this.base = base;
    int n = road.size();
    knots = Math.max(8, (int) Math.round(road.length() / spacing));
    first = new int[n];
    weight = new double[4 * n];
    for (int i = 0; i < n; i++) {
      double at = i * (double) knots / n;
      int j = Math.min(knots - 1, (int) at);
      double t = at - j;
      double u = 1 - t;
      first[i] = (j + knots - 1) % knots;
      weight[4 * i] = u * u * u / 6;
      weight[4 * i + 1] = (3 * t * t * t - 6 * t * t + 4) / 6;
      weight[4 * i + 2] = (-3 * t * t * t + 3 * t * t + 3 * t + 1) / 6;
      weight[4 * i + 3] = t * t * t / 6;
    }
  }

  /** Knot that lies nearest to a station. */
  int knot(int station) {
    return (int) Math.round(station * (double) knots / road.size()) % knots;
  }

  /** Station that lies nearest to a knot. */
  int station(int knot) {
    return (int) Math.round(knot * (double) road.size() / knots) % road.size();
  }

  double[] offsets(double[] c) {
    double[] out = base.clone();
    for (int i = 0; i < out.length; i++) {
      for (int k = 0; k < 4; k++) {
        out[i] += weight[4 * i + k] * c[(first[i] + k) % knots];
      }
    }
    return out;
  }

  /** Slopes by the knots, from slopes by the offsets. */
  double[] byKnots(double[] byOffset) {
    double[] out = new double[knots];
    for (int i = 0; i < byOffset.length; i++) {
      for (int k = 0; k < 4; k++) {
        out[(first[i] + k) % knots] += weight[4 * i + k] * byOffset[i];
      }
    }
    return out;
  }

  /** Bounds of the knots, from the tightest room within half a knot. */
  Room box(Room room) {
    double[] lower = new double[knots];
    double[] upper = new double[knots];
    java.util.Arrays.fill(lower, -Double.MAX_VALUE);
    java.util.Arrays.fill(upper, Double.MAX_VALUE);
    int half = (int) Math.ceil(0.5 * road.size() / knots);
    for (int j = 0; j < knots; j++) {
      for (int k = -half; k <= half; k++) {
        int i = road.loop().at(station(j) + k);
        lower[j] = Math.max(lower[j], room.lower()[i] - base[i]);
        upper[j] = Math.min(upper[j], room.upper()[i] - base[i]);
      }
      open(lower, upper, j);
    }
    return new Room(lower, upper);
  }

  /** Keeps the ends of a piece of road as they are: what a closed spline has in common there. */
  void holdEnds(Room box) {
    for (int k = 0; k < HELD; k++) {
      for (int j : new int[] {k, knots - 1 - k}) {
        box.lower()[j] = -TIGHT / 10;
        box.upper()[j] = TIGHT / 10;
      }
    }
  }

  private static void open(double[] lower, double[] upper, int j) {
    if (upper[j] - lower[j] < 2 * TIGHT) {
      double middle = (upper[j] + lower[j]) / 2;
      lower[j] = middle - TIGHT;
      upper[j] = middle + TIGHT;
    }
  }

  /**
   * Tightens the box where the line leaves the room between two knots.
   *
   * @return the most by which it leaves the room, metres; zero or less where it stays
   */
  double tighten(Room box, Room room, double[] offsets) {
    double worst = 0;
    double[] over = new double[knots];
    double[] under = new double[knots];
    for (int i = 0; i < offsets.length; i++) {
      double above = offsets[i] - room.upper()[i];
      double below = room.lower()[i] - offsets[i];
      worst = Math.max(worst, Math.max(above, below));
      for (int k = 1; k <= 2; k++) {
        int j = (first[i] + k) % knots;
        if (weight[4 * i + k] > 0.3) {
          over[j] = Math.max(over[j], above);
          under[j] = Math.max(under[j], below);
        }
      }
    }
    for (int j = 0; j < knots; j++) {
      // A knot that is asked to go both ways stays where it is.
      if (over[j] > TIGHT && under[j] <= TIGHT) {
        box.upper()[j] = Math.max(box.lower()[j] + TIGHT, box.upper()[j] - over[j]);
      } else if (under[j] > TIGHT && over[j] <= TIGHT) {
        box.lower()[j] = Math.min(box.upper()[j] - TIGHT, box.lower()[j] + under[j]);
      }
    }
    return worst;
  }

  /**
   * Slopes by the offset of each station, from slopes by the curvature, step and grip of the path.
   * The chain of {@link Path#over}.
   *
   * @param gripSlope how the grip changes with the offset, 1/m
   */
  static double[] byOffset(
      Centreline road, double[] offset, Path path, LapSlope.Slopes slopes, double[] gripSlope) {
    int n = road.size();
    double h = road.step();
    double[] out = new double[n];
    for (int i = 0; i < n; i++) {
      int p = i == 0 ? n - 1 : i - 1;
      int q = i + 1 == n ? 0 : i + 1;
      double k = road.curvature()[i];
      double dk = (road.curvature()[q] - road.curvature()[p]) / (2 * h);
      double d1 = (offset[q] - offset[p]) / (2 * h);
      double d2 = (offset[q] - 2 * offset[i] + offset[p]) / (h * h);
      double a = 1 - offset[i] * k;
      double da = -d1 * k - offset[i] * dk;
      double square = a * a + d1 * d1;
      double pace = Math.sqrt(square);
      double cube = square * pace;
      double bend = path.curvature()[i];
      double byA = (d2 + 2 * a * k - bend * 3 * a * pace) / cube;
      double byD1 = (-da + 2 * d1 * k - bend * 3 * d1 * pace) / cube;
      double byD2 = a / cube;
      double byDa = -d1 / cube;
      double byBend = slopes.curvature()[i];
      // The length of a step is the mean of the pace at its two ends.
      double byPace = h / 2 * (slopes.step()[i] + slopes.step()[p]);
      double byN = byBend * (-k * byA - dk * byDa) + byPace * (-k * a / pace);
      double by1 = byBend * (byD1 - k * byDa) + byPace * d1 / pace;
      double by2 = byBend * byD2;
      out[i] += byN - 2 * by2 / (h * h) + slopes.grip()[i] * gripSlope[i];
      out[q] += by1 / (2 * h) + by2 / (h * h);
      out[p] += -by1 / (2 * h) + by2 / (h * h);
    }
    return out;
  }
}
