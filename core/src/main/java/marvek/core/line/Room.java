package marvek.core.line;

import marvek.core.circuit.Centreline;
import marvek.core.lap.Ground;
import marvek.core.vehicle.Vehicle;

/**
 * How far the middle of the vehicle may go to either side of the centreline, metres.
 *
 * @param lower most to the right, negative
 * @param upper most to the left
 */
public record Room(double[] lower, double[] upper) {
  /** Left between the vehicle's side and the edge of the road, metres. */
  public static final double MARGIN = 0.25;

  private static final double LEAST = 0.1;
  // Metres kept for each m/s² that gusts push towards an edge (common practice, no source).
  private static final double LEE = 0.25;

  /** The road less half the vehicle and a margin; at least a strip of 0.2 m in the middle. */
  public static Room on(Centreline road, Vehicle vehicle) {
    return on(road, vehicle, Ground.good(road.size()));
  }

  /**
   * The road less half the vehicle, a margin, what narrows it and what a side wind needs on its lee
   * side; at least a strip of 0.2 m.
   */
  public static Room on(Centreline road, Vehicle vehicle, Ground ground) {
    Ground.Lie lie = ground.lie();
    Ground.SideWind side = ground.push();
    double keep = vehicle.width() / 2 + MARGIN;
    int n = road.size();
    double[] lower = new double[n];
    double[] upper = new double[n];
    for (int i = 0; i < n; i++) {
      double right = road.right()[i] - (lie == null ? 0 : lie.keepRight()[i]);
      double left = road.left()[i] - (lie == null ? 0 : lie.keepLeft()[i]);
      double blown = side == null ? 0 : LEE * side.push()[i];
      double middle = (left - right) / 2;
      lower[i] = Math.min(-(right - keep) + Math.max(0, -blown), middle - LEAST);
      upper[i] = Math.max(left - keep - Math.max(0, blown), middle + LEAST);
    }
    return new Room(lower, upper);
  }

  /** The room of a piece of the road. */
  Room piece(int from, int count) {
    return new Room(Centreline.piece(lower, from, count), Centreline.piece(upper, from, count));
  }

  /** Values brought within the room. */
  double[] clamped(double[] values) {
    double[] out = new double[values.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = clamp(i, values[i]);
    }
    return out;
  }

  double clamp(int i, double offset) {
    return Math.max(lower[i], Math.min(upper[i], offset));
  }
}
