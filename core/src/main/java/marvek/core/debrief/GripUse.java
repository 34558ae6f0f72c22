package marvek.core.debrief;

import java.util.Arrays;
import java.util.stream.DoubleStream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.reference.Desk;

/** How much of the grip across laps use. */
public final class GripUse {
  /** A corner that asks for less of the grip in the computed lap tells nothing of it. */
  static final double ASKS = 0.7;

  // Steps that are taken together.
  private static final int WIDE = 9;

  private GripUse() {}

  /**
   * The grip across that a lap uses, as a factor on what the computed lap of a desk uses: the
   * middle of its corners, so that a mistake in some of them does not count.
   *
   * @param speed m/s at each station of the road
   * @param across m/s² at each station, measured; empty to tell it from speed and computed line
   * @return NaN where no corner tells it
   */
  public static double of(Desk desk, double[] speed, double[] across) {
    double[] shares =
        desk.corners().stream()
            .flatMapToDouble(
                corner -> {
                  double full = in(desk, corner, desk.lap().speed(), new double[0]);
                  return full > ASKS
                      ? DoubleStream.of(in(desk, corner, speed, across) / full)
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
  static double in(Desk desk, Corner corner, double[] speed, double[] measured) {
    Centreline road = desk.road();
    int from = road.index(corner.entry());
    int count = (int) (road.ahead(corner.entry(), corner.exit()) / road.step());
    if (count <= WIDE) {
      return 0;
    }
    double[] use = new double[count];
    for (int k = 0; k < count; k++) {
      int i = Math.floorMod(from + k, road.size());
      double v = speed[i];
      double load = desk.limits().load(desk.path(), i, v * v);
      double need = measured.length > 0 ? measured[i] : v * v * desk.path().curvature()[i];
      use[k] =
          Math.abs(need) / Math.max(0.1, desk.limits().sidewaysMost(load, desk.path().grip()[i]));
    }
    // One noisy metre is not the corner's grip; a stretch of it is.
    double[] smooth = new double[count - WIDE];
    for (int k = 0; k < smooth.length; k++) {
      smooth[k] = Arrays.stream(use, k, k + WIDE).average().orElseThrow();
    }
    return Robust.quantile(smooth, 0.9);
  }
}
