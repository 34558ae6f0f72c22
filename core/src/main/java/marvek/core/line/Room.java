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
  // Metres beside the room from which on it is long, over which the way back is smoothed at first,
  // and how often.
  private static final double LONG = 25;
  private static final double WIDEST = 30;
  private static final int ROUNDS = 120;
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
    if (count == offset.length && from == 0) {
      // The ends of a stretch stay where they are: on a whole lap they come where nothing moves.
      return moved(road, offset, farthest(road.loop(), offset), count);
    }
    return moved(road, offset, from, count);
  }

  /** The middle of the longest piece of a lap that lies in the room; 0 where all of it does. */
  private int farthest(Loop loop, double[] offset) {
    int n = offset.length;
    int most = 0;
    int end = 0;
    int run = 0;
    for (int k = 0; k < 2 * n && run < n; k++) {
      run = beside(offset, loop.at(k)) > FITS ? 0 : run + 1;
      if (run > most) {
        most = run;
        end = k;
      }
    }
    return run >= n ? 0 : loop.at(end - most / 2);
  }

  private double[] moved(Centreline road, double[] offset, int from, int count) {
    if (longest(road.loop(), offset, from, count) * road.step() > LONG) {
      return eased(road, offset, from, count);
    }
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

  /** Stations of the longest piece of a stretch that lies beside the room. */
  private int longest(Loop loop, double[] offset, int from, int count) {
    int most = 0;
    int run = 0;
    for (int k = 0; k < count; k++) {
      run = beside(offset, loop.at(from + k)) > FITS ? run + 1 : 0;
      most = Math.max(most, run);
    }
    return most;
  }

  /**
   * A line that lies beside the room for long, brought into it by what is left of the way to it,
   * smoothed again and again: bumps there would follow each other from side to side.
   */
  private double[] eased(Centreline road, double[] offset, int from, int count) {
    Loop loop = road.loop();
    double[] out = offset.clone();
    double[] way = new double[count];
    double wide = WIDEST;
    for (int round = 0; round < ROUNDS; round++) {
      boolean all = true;
      for (int k = 0; k < count; k++) {
        int i = loop.at(from + k);
        all &= k == 0 || k == count - 1 || beside(out, i) <= FITS;
        way[k] = clamp(i, out[i]) - out[i];
      }
      if (all) {
        break;
      }
      int reach = Math.max(2, (int) (wide / road.step()));
      wide = Math.max(SHORT / 2, wide * SHORTER);
      for (int k = 1; k < count - 1; k++) {
        out[loop.at(from + k)] += smoothed(way, k, Math.min(reach, Math.min(k, count - 1 - k)));
      }
    }
    return out;
  }

  /** Mean around a place that counts what is nearer more. */
  private static double smoothed(double[] values, int at, int reach) {
    double sum = 0;
    double weights = 0;
    for (int k = -reach; k <= reach; k++) {
      double w = reach + 1 - Math.abs(k);
      sum += w * values[at + k];
      weights += w;
    }
    return sum / weights;
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
