package marvek.core.debrief;

import java.util.Arrays;
import java.util.stream.DoubleStream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.plan.ComputedLap;

/** How much of the grip across laps use. */
public final class GripUse {
  /** A corner that asks for less of the grip in the computed lap tells nothing of it. */
  static final double ASKS = 0.7;

  // Steps that are taken together.
  private static final int WIDE = 9;

  private GripUse() {}

  /**
   * The grip across that a lap uses, as a factor on what the computed lap of a computed uses: the
   * middle of its corners, so that a mistake in some of them does not count.
   *
   * @param speed m/s at each station of the road
   * @param across m/s² at each station, measured; empty to tell it from speed and computed line
   * @return NaN where no corner tells it
   */
  public static double of(ComputedLap computed, double[] speed, double[] across) {
    double[] shares =
        computed.corners().stream()
            .flatMapToDouble(
                corner -> {
                  double full = in(computed, corner, computed.lap().speed(), new double[0]);
                  return full > ASKS
                      ? DoubleStream.of(in(computed, corner, speed, across) / full)
                      : DoubleStream.empty();
                })
            .filter(Double::isFinite)
            .toArray();
    return shares.length == 0 ? Double.NaN : Robust.median(shares);
  }

  /**
   * Share of the grip across that a lap keeps to for most of its hardest part of a corner.
   *
   * @param measured m/s² across at each station; empty to tell it from speed and line
   */
  static double in(ComputedLap computed, Corner corner, double[] speed, double[] measured) {
    Centreline road = computed.road();
    int from = road.index(corner.entry());
    int count = (int) (road.ahead(corner.entry(), corner.exit()) / road.step());
    if (count <= WIDE) {
      return 0;
    }
    double[] use = new double[count];
    for (int k = 0; k < count; k++) {
      int i = road.loop().at(from + k);
      double v = speed[i];
      double load = computed.limits().load(computed.path(), i, v * v);
      double need = measured.length > 0 ? measured[i] : v * v * computed.path().curvature()[i];
      use[k] =
          Math.abs(need)
              / Math.max(0.1, computed.limits().sidewaysMost(load, computed.path().turning(i)));
    }
    // One noisy metre is not the corner's grip; a stretch of it is.
    double[] smooth = new double[count - WIDE];
    for (int k = 0; k < smooth.length; k++) {
      smooth[k] = Arrays.stream(use, k, k + WIDE).average().orElseThrow();
    }
    return Robust.quantile(smooth, 0.9);
  }
}
