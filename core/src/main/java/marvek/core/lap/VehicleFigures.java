package marvek.core.lap;

import java.util.ArrayList;
import java.util.List;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;

/**
 * Figures of a vehicle on a level, straight, dry road.
 *
 * @param gears speed of each gear at the shift revs and at the limit, m/s
 * @param topSpeed m/s
 * @param stopDistance braking from 100 km/h to standstill, m
 * @param stopTime seconds for it
 * @param toHundred seconds from standstill to 100 km/h, without slip of the clutch
 * @param points forces per mass against speed, for drawing
 */
public record VehicleFigures(
    List<GearSpeed> gears,
    double topSpeed,
    double stopDistance,
    double stopTime,
    double toHundred,
    List<Point> points) {

  private static final double STEP = 0.002;

  /**
   * Speeds of a gear.
   *
   * @param gear 1 is the lowest
   * @param atShift m/s at the shift revs
   * @param atLimit m/s at the rev limit
   * @param safeDown fastest speed at which the gear may be taken on the way down, m/s
   */
  public record GearSpeed(int gear, double atShift, double atLimit, double safeDown) {}

  /**
   * What the vehicle can do at a speed.
   *
   * @param speed m/s
   * @param drive most drive at the wheels, tyres considered, m/s²
   * @param resistance drag and rolling resistance, m/s²
   * @param braking most deceleration in a straight line, m/s²
   * @param cornering most sideways acceleration, m/s²
   * @param gear that pulls best
   */
  public record Point(
      double speed, double drive, double resistance, double braking, double cornering, int gear) {}

  /** Revs that a downshift may reach, as a share of the limit. */
  public static final double SAFE_DOWNSHIFT = 0.94;

  /** Computes the figures. */
  public static VehicleFigures of(Vehicle vehicle, Conditions conditions) {
    Limits limits = new Limits(vehicle, conditions);
    Path flat = flat();
    List<GearSpeed> gears = new ArrayList<>();
    for (int g = 1; g <= vehicle.gears(); g++) {
      gears.add(
          new GearSpeed(
              g,
              vehicle.speed(vehicle.engine().shiftRevs(), g),
              vehicle.speed(vehicle.engine().limitRevs(), g),
              vehicle.speed(vehicle.engine().limitRevs() * SAFE_DOWNSHIFT, g)));
    }
    List<Point> points = new ArrayList<>();
    double top = 0;
    for (double v = 1; v < Limits.FASTEST - 1; v += 1) {
      double load = limits.load(flat, 0, v * v);
      double drive = limits.driveMost(flat, 0, v);
      double resistance = limits.resistance(flat, 0, v, load);
      if (drive < resistance) {
        break;
      }
      top = v;
      points.add(
          new Point(
              v,
              drive,
              resistance,
              limits.deceleration(flat, 0, v),
              limits.sidewaysMost(load),
              limits.bestGear(v)));
    }
    return new VehicleFigures(
        List.copyOf(gears),
        topBetween(limits, flat, top),
        stop(limits, flat)[0],
        stop(limits, flat)[1],
        toHundred(limits, flat),
        List.copyOf(points));
  }

  private static double topBetween(Limits limits, Path flat, double from) {
    double low = from;
    double high = from + 1;
    for (int i = 0; i < 30; i++) {
      double v = (low + high) / 2;
      double load = limits.load(flat, 0, v * v);
      if (limits.driveMost(flat, 0, v) > limits.resistance(flat, 0, v, load)) {
        low = v;
      } else {
        high = v;
      }
    }
    return low;
  }

  /** Distance and time from 100 km/h to standstill. */
  private static double[] stop(Limits limits, Path flat) {
    double v = Units.fromKmh(100);
    double distance = 0;
    double time = 0;
    while (v > 0) {
      double a = limits.deceleration(flat, 0, v);
      double step = Math.min(STEP, v / a);
      distance += v * step - a * step * step / 2;
      time += step;
      v -= a * step;
      if (v < 1e-9) {
        break;
      }
    }
    return new double[] {distance, time};
  }

  private static double toHundred(Limits limits, Path flat) {
    double v = 1;
    double time = 0;
    int gear = 1;
    while (v < Units.fromKmh(100)) {
      double load = limits.load(flat, 0, v * v);
      double a = limits.driveMost(flat, 0, v) - limits.resistance(flat, 0, v, load);
      if (a <= 0) {
        return Double.NaN;
      }
      int best = limits.bestGear(v);
      time += best > gear ? limits.vehicle().gearbox().shiftTime() : 0;
      gear = best;
      v += a * STEP;
      time += STEP;
    }
    return time;
  }

  /** A level straight of one station. */
  static Path flat() {
    double[] zero = new double[1];
    return new Path(zero, new double[] {1}, zero, zero, zero, zero, zero);
  }
}
