package marvek.core.lap;

import java.util.ArrayList;
import java.util.List;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/**
 * Figures of a vehicle on a level, straight, dry road.
 *
 * @param gears speed of each gear at the shift revs and at the limit, m/s
 * @param topSpeed m/s
 * @param stopDistance braking from 100 km/h to standstill, m
 * @param stopTime seconds for it
 * @param toHundred seconds from standstill to 100 km/h, without slip of the clutch
 * @param points forces per mass against speed, for drawing
 * @param pulls tractive force of each gear against speed
 * @param envelopes what the tyres give in every direction at three speeds
 * @param stops distance to standstill from several speeds
 * @param motorcycle where its wheels lift; null for a car
 */
public record VehicleFigures(
    List<GearSpeed> gears,
    double topSpeed,
    double stopDistance,
    double stopTime,
    double toHundred,
    List<Point> points,
    List<GearPull> pulls,
    List<Envelope> envelopes,
    List<Stop> stops,
    @Nullable MotorcycleLimits motorcycle) {

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

  /**
   * Tractive force of a gear.
   *
   * @param gear 1 is the lowest
   * @param speed m/s, ascending
   * @param force at the wheels, N
   */
  public record GearPull(int gear, double[] speed, double[] force) {}

  /**
   * The grip envelope at a speed, from full drive round one side to full braking.
   *
   * @param speed m/s
   * @param along m/s², positive forwards
   * @param across m/s², one side
   */
  public record Envelope(double speed, double[] along, double[] across) {}

  /** Metres and seconds from a speed in m/s to standstill. */
  public record Stop(double speed, double metres, double seconds) {}

  /**
   * Where a motorcycle's wheels lift, and how far it leans. Source: V. Cossalter, Motorcycle
   * Dynamics: rear lifts at a/g = b/h, front at (p − b)/h, b from the front contact to the centre
   * of gravity, p the wheelbase, h its height.
   *
   * @param frontLift acceleration at which the front wheel lifts, m/s²
   * @param rearLift deceleration at which the rear wheel lifts, m/s²
   * @param lean at the cornering limit at low speed, radians
   * @param leanLimit largest lean, radians
   */
  public record MotorcycleLimits(
      double frontLift, double rearLift, double lean, double leanLimit) {}

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
              limits.sidewaysMost(load, 1),
              limits.bestGear(v)));
    }
    return new VehicleFigures(
        List.copyOf(gears),
        topBetween(limits, flat, top),
        stop(limits, flat, Units.fromKmh(100))[0],
        stop(limits, flat, Units.fromKmh(100))[1],
        toHundred(limits, flat),
        List.copyOf(points),
        pulls(vehicle),
        envelopes(limits, flat, top),
        stops(limits, flat, top),
        motorcycle(vehicle, limits));
  }

  private static List<GearPull> pulls(Vehicle vehicle) {
    List<GearPull> pulls = new ArrayList<>();
    int steps = 24;
    for (int g = 1; g <= vehicle.gears(); g++) {
      double from = vehicle.speed(vehicle.engine().curve().get(0).revs(), g);
      double to = vehicle.speed(vehicle.engine().limitRevs(), g);
      double[] speed = new double[steps + 1];
      double[] force = new double[steps + 1];
      for (int i = 0; i <= steps; i++) {
        // A hair below the limit, where the engine still pulls.
        speed[i] = from + (to * (1 - 1e-9) - from) * i / steps;
        force[i] = vehicle.wheelForce(speed[i], g);
      }
      pulls.add(new GearPull(g, speed, force));
    }
    return List.copyOf(pulls);
  }

  private static List<Envelope> envelopes(Limits limits, Path flat, double top) {
    List<Envelope> envelopes = new ArrayList<>();
    for (double share : new double[] {0.3, 0.6, 0.9}) {
      envelopes.add(envelope(limits, flat, Math.round(share * top)));
    }
    return List.copyOf(envelopes);
  }

  /** What a vehicle gives in every direction at one speed. */
  public static Envelope envelope(Vehicle vehicle, Conditions conditions, double speed) {
    return envelope(new Limits(vehicle, conditions), flat(), speed);
  }

  private static Envelope envelope(Limits limits, Path flat, double v) {
    int steps = 36;
    double load = limits.load(flat, 0, v * v);
    double resistance = limits.resistance(flat, 0, v, load);
    double most = limits.sidewaysMost(load, 1);
    double[] along = new double[steps + 1];
    double[] across = new double[steps + 1];
    for (int i = 0; i <= steps; i++) {
      double angle = Math.PI * i / steps;
      double left = Math.abs(Math.cos(angle));
      across[i] = most * Math.sin(angle);
      along[i] =
          angle <= Math.PI / 2
              ? Math.min(limits.engineDrive(v), limits.traction(load, left, 1)) - resistance
              : -limits.brakingMost(load, left, 1) - resistance;
    }
    return new Envelope(v, along, across);
  }

  private static List<Stop> stops(Limits limits, Path flat, double top) {
    List<Stop> stops = new ArrayList<>();
    for (double v = 10; v < top; v += 5) {
      double[] stop = stop(limits, flat, v);
      stops.add(new Stop(v, stop[0], stop[1]));
    }
    return List.copyOf(stops);
  }

  private static @Nullable MotorcycleLimits motorcycle(Vehicle v, Limits limits) {
    Double lean = v.leanLimit();
    if (v.kind() != VehicleKind.MOTORCYCLE || lean == null) {
      return null;
    }
    return new MotorcycleLimits(
        Units.G * (v.wheelbase() - v.cogToFront()) / v.cogHeight(),
        Units.G * v.cogToFront() / v.cogHeight(),
        Math.atan(limits.sidewaysMost(Units.G, 1) / Units.G),
        lean);
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

  /** Distance and time from a speed to standstill. */
  private static double[] stop(Limits limits, Path flat, double from) {
    double v = from;
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
