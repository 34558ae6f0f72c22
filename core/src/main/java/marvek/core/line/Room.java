package marvek.core.line;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import marvek.core.lap.Ground;
import marvek.core.vehicle.Vehicle;

/**
 * How far the middle of the vehicle may go to either side of the centreline, metres.
 *
 * @param lower most to the right, negative
 * @param upper most to the left
 */
public record Room(double[] lower, double[] upper) {
  static final double LEAST = 0.1;
  // As much as a line may lie beside it, metres.
  private static final double OUT = 0.05;
  private static final double FITS = 0.01;
  private static final int BUMPS = 60;
  private static final double REACH = 60;
  private static final double SHORT = 12;
  private static final double SHORTER = 0.88;
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
    double keep = vehicle.width() / 2 + Ground.MARGIN;
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

  /** Whether a line lies in it, or so little beside it that nobody could tell. */
  public boolean holds(double[] offset) {
    for (int i = 0; i < offset.length; i++) {
      if (beside(offset, i) > OUT) {
        return false;
      }
    }
    return true;
  }

  /** Metres by which a line lies beside it at a station; negative inside. */
  private double beside(double[] offset, int i) {
    return Math.max(offset[i] - upper[i], lower[i] - offset[i]);
  }

  /**
   * A line brought into it by smooth bumps, the worst place first, on a stretch of the lap; as near
   * as that comes.
   *
   * @param from index of the first station
   * @param count stations
   */
  public double[] fitted(Centreline road, double[] offset, int from, int count) {
    double[] out = offset;
    Loop loop = road.loop();
    for (int round = 0; round < BUMPS; round++) {
      int worst = -1;
      for (int k = 1; k < count - 1; k++) {
        int i = loop.at(from + k);
        if (beside(out, i) > FITS
            && (worst < 0 || beside(out, i) > beside(out, loop.at(from + worst)))) {
          worst = k;
        }
      }
      if (worst < 0) {
        return out;
      }
      int i = loop.at(from + worst);
      double by = clamp(i, out[i]) - out[i];
      // Shorter and shorter, where one bump drives the line out of the room beside it.
      double wide = Math.max(SHORT, REACH * Math.pow(SHORTER, round));
      double reach = Math.min(wide, Math.min(worst, count - 1 - worst) * road.step());
      out = Warp.bumped(road, out, i * road.step(), by, Math.max(4 * road.step(), reach));
    }
    return out;
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
