package marvek.core.vehicle;

import java.util.ArrayList;
import java.util.List;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** Whether the numbers of a vehicle make sense, each with the reason. */
public final class VehicleCheck {
  private VehicleCheck() {}

  /**
   * A number that cannot be right.
   *
   * @param field path of the field, like {@code tyres.muX}
   * @param message what is wrong and what to do
   */
  public record Finding(String field, Said message) {}

  /** What must be corrected before anything can be computed; empty when all is well. */
  public static List<Finding> problems(Vehicle v) {
    Checks c = new Checks();
    c.within("mass", v.mass(), 80, 5000, "vehicle.unit.kg_with_driver_and_fuel");
    c.within("width", v.width(), 0.4, 3, "vehicle.unit.m");
    c.within("wheelbase", v.wheelbase(), 0.8, 5, "vehicle.unit.m");
    c.within("cogHeight", v.cogHeight(), 0.1, 1.5, "vehicle.unit.m_above_the_road");
    c.within("cogToFront", v.cogToFront(), 0.05, 5, "vehicle.unit.m_behind_the_front_axle");
    if (v.cogToFront() >= v.wheelbase()) {
      c.add("cogToFront", Said.of("vehicle.between_axles"));
    }
    c.within("tyres.muX", v.tyres().muX(), 0.1, 4, "vehicle.unit.as_a_share_of_load");
    c.within("tyres.muY", v.tyres().muY(), 0.1, 4, "vehicle.unit.as_a_share_of_load");
    c.within("tyres.loadSensitivity", v.tyres().loadSensitivity(), 0, 0.3, "");
    c.within("tyres.rolling", v.tyres().rolling(), 0, 0.1, "vehicle.unit.as_a_share_of_load");
    c.within("aero.cdA", v.aero().cdA(), 0.05, 4, "vehicle.unit.m_square");
    c.within("aero.clA", v.aero().clA(), -1, 8, "vehicle.unit.m_square_positive_downwards");
    c.within("brakes.mostForce", v.brakes().mostForce(), 200, 200_000, "vehicle.unit.n");
    c.within("brakes.frontShare", v.brakes().frontShare(), 0.2, 1, "");
    c.within(
        "brakes.engineBraking", v.brakes().engineBraking(), 0, 4, "vehicle.unit.m_per_s_square");
    Vehicle.Floor floor = v.floor();
    if (floor != null) {
      c.within("floor.rideHeight", floor.rideHeight(), 0.01, 0.6, "vehicle.unit.m");
      c.within(
          "floor.width", floor.width(), 0.1, v.width(), "vehicle.unit.m_no_wider_than_the_vehicle");
      c.within(
          "floor.track",
          floor.track(),
          0,
          v.width(),
          "vehicle.unit.m_between_the_middles_of_the_tyres");
      c.within("floor.tyreWidth", floor.tyreWidth(), 0.05, 0.6, "vehicle.unit.m");
    }
    Vehicle.Chassis chassis = v.chassis();
    if (chassis != null) {
      double narrow = v.kind() == VehicleKind.MOTORCYCLE ? 0 : 0.5;
      c.within(
          "chassis.trackFront",
          chassis.trackFront(),
          narrow,
          v.width(),
          "vehicle.unit.m_front_wheels");
      c.within(
          "chassis.trackRear",
          chassis.trackRear(),
          narrow,
          v.width(),
          "vehicle.unit.m_rear_wheels");
      c.within("chassis.rollFront", chassis.rollFront(), 0.05, 0.95, "");
      c.within("chassis.liftFront", chassis.liftFront(), 0, 1, "");
      c.within("chassis.gripRear", chassis.gripRear(), 0.7, 1.4, "");
      c.within("chassis.closedTorque", chassis.closedTorque(), 0, 500, "vehicle.unit.nm");
      c.within("chassis.brakeStep", chassis.brakeStep(), 0, 0.1, "");
      c.within("chassis.barStep", chassis.barStep(), 0, 0.2, "");
      c.within("chassis.wingStep", chassis.wingStep(), 0, 1, "vehicle.unit.m_square");
      c.within("chassis.wingDrag", chassis.wingDrag(), 0, 0.5, "vehicle.unit.m_square");
    }
    Vehicle.Fuel fuel = v.fuel();
    if (fuel != null) {
      c.within("fuel.capacity", fuel.capacity(), 1, 300, "vehicle.unit.litres");
      c.within(
          "fuel.load",
          fuel.load(),
          0,
          fuel.capacity(),
          "vehicle.unit.litres_no_more_than_the_tank_holds");
      c.within("fuel.density", fuel.density(), 0.6, 1.1, "vehicle.unit.kg_per_litre");
      Double heating = fuel.heating();
      Double efficiency = fuel.efficiency();
      c.within(
          "fuel.heating",
          heating == null ? Vehicle.Fuel.PETROL : heating,
          15,
          130,
          "vehicle.unit.mj_per_kg");
      c.within(
          "fuel.efficiency",
          efficiency == null ? Vehicle.Fuel.USUAL_EFFICIENCY : efficiency,
          0.1,
          0.6,
          "vehicle.unit.as_a_share");
    }
    Vehicle.Device device = v.device();
    if (device != null) {
      c.within("device.drag", device.drag(), 0.3, 1, "vehicle.unit.as_the_share_that_is_left");
      c.within(
          "device.downforce", device.downforce(), 0, 1, "vehicle.unit.as_the_share_that_is_left");
    }
    Vehicle.Seat seat = v.seatOrUsual();
    c.within("seat.eye", seat.eye(), 0.3, 3, "vehicle.unit.m");
    c.within("seat.halfAngle", Math.toDegrees(seat.halfAngle()), 15, 100, "vehicle.unit.degrees");
    Vehicle.Ride ride = v.ride();
    if (ride != null) {
      c.within("ride.frequency", ride.frequency(), 0.8, 12, "vehicle.unit.hz");
      c.within("ride.bump", ride.bump(), 0.002, 0.4, "vehicle.unit.m");
      c.within("ride.droop", ride.droop(), 0.002, 0.4, "vehicle.unit.m");
    }
    gearbox(v, c);
    engine(v, c);
    Double lean = v.leanLimit();
    if (v.kind() == VehicleKind.MOTORCYCLE) {
      if (lean == null) {
        c.add("leanLimit", Said.of("vehicle.needs_lean"));
      } else {
        c.within("leanLimit", Math.toDegrees(lean), 30, 68, "vehicle.unit.degrees");
      }
    }
    Vehicle.Boost boost = v.boost();
    if (boost != null) {
      c.within("boost.power", boost.power(), 1000, 1e6, "vehicle.unit.w");
      c.within("boost.energyPerLap", boost.energyPerLap(), 1000, 1e8, "vehicle.unit.j");
      c.within("boost.recovery", boost.recovery(), 0, 1, "");
    }
    return c.found;
  }

  private static void gearbox(Vehicle v, Checks c) {
    List<Double> ratios = v.gearbox().ratios();
    if (ratios.isEmpty() || ratios.size() > 10) {
      c.add("gearbox.ratios", Said.of("vehicle.gears"));
    }
    for (int i = 0; i < ratios.size(); i++) {
      c.within(
          "gearbox.ratios",
          ratios.get(i),
          0.2,
          20,
          Said.of("vehicle.unit.of_gear", Value.figure(i + 1, 0)));
      if (i > 0 && ratios.get(i) >= ratios.get(i - 1)) {
        c.add(
            "gearbox.ratios",
            Said.of("vehicle.smaller_ratio", Value.figure(i + 1, 0), Value.figure(i, 0)));
      }
    }
    c.within("gearbox.finalDrive", v.gearbox().finalDrive(), 0.5, 20, "");
    c.within("gearbox.rollingRadius", v.gearbox().rollingRadius(), 0.1, 0.6, "vehicle.unit.m");
    c.within("gearbox.efficiency", v.gearbox().efficiency(), 0.5, 1, "");
    c.within("gearbox.shiftTime", v.gearbox().shiftTime(), 0, 1.5, "vehicle.unit.s");
  }

  private static void engine(Vehicle v, Checks c) {
    List<Vehicle.TorquePoint> curve = v.engine().curve();
    if (curve.size() < 2 || curve.size() > 60) {
      c.add("engine.curve", Said.of("vehicle.curve"));
    }
    for (int i = 0; i < curve.size(); i++) {
      c.within("engine.curve", curve.get(i).revs(), 0, 25_000, "vehicle.unit.revs_per_minute");
      c.within("engine.curve", curve.get(i).torque(), 0, 3000, "vehicle.unit.nm");
      if (i > 0 && curve.get(i).revs() <= curve.get(i - 1).revs()) {
        c.add("engine.curve", Said.of("vehicle.revs_rise", Value.figure(i + 1, 0)));
      }
    }
    c.within(
        "engine.shiftRevs", v.engine().shiftRevs(), 1000, 25_000, "vehicle.unit.revs_per_minute");
    c.within(
        "engine.limitRevs", v.engine().limitRevs(), 1000, 25_000, "vehicle.unit.revs_per_minute");
    c.within("engine.cylinders", v.engine().firing(), 1, 16, "");
    if (v.engine().strokesOrUsual() != 2 && v.engine().strokesOrUsual() != 4) {
      c.add("engine.strokes", Said.of("vehicle.strokes"));
    }
    if (v.engine().shiftRevs() > v.engine().limitRevs()) {
      c.add("engine.shiftRevs", Said.of("vehicle.shift_below"));
    }
  }

  private static final class Checks {
    private final List<Finding> found = new ArrayList<>();

    void add(String field, Said message) {
      found.add(new Finding(field, message));
    }

    /** The unit by its key, empty where there is none. */
    void within(String field, double value, double least, double most, String unit) {
      within(field, value, least, most, unit.isEmpty() ? Said.NOTHING : Said.of(unit));
    }

    void within(String field, double value, double least, double most, Said unit) {
      if (!(value >= least && value <= most)) {
        add(
            field,
            Said.of(
                "vehicle.out_of_range",
                Value.number(value),
                Value.number(least),
                Value.number(most),
                Value.choice(!unit.equals(Said.NOTHING)),
                unit.in()));
      }
    }
  }
}
