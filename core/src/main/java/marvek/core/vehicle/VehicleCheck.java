package marvek.core.vehicle;

import java.util.ArrayList;
import java.util.List;

/** Whether the numbers of a vehicle make sense, each with the reason. */
public final class VehicleCheck {
  private VehicleCheck() {}

  /**
   * A number that cannot be right.
   *
   * @param field path of the field, like {@code tyres.muX}
   * @param message what is wrong and what to do
   */
  public record Finding(String field, String message) {}

  /** What must be corrected before anything can be computed; empty when all is well. */
  public static List<Finding> problems(Vehicle v) {
    Checks c = new Checks();
    c.within("mass", v.mass(), 80, 5000, "kg with driver and fuel");
    c.within("width", v.width(), 0.4, 3, "m");
    c.within("wheelbase", v.wheelbase(), 0.8, 5, "m");
    c.within("cogHeight", v.cogHeight(), 0.1, 1.5, "m above the road");
    c.within("cogToFront", v.cogToFront(), 0.05, 5, "m behind the front axle");
    if (v.cogToFront() >= v.wheelbase()) {
      c.add(
          "cogToFront",
          "The centre of gravity must lie between the axles; give less than the" + " wheelbase.");
    }
    c.within("tyres.muX", v.tyres().muX(), 0.1, 4, "as a share of load");
    c.within("tyres.muY", v.tyres().muY(), 0.1, 4, "as a share of load");
    c.within("tyres.loadSensitivity", v.tyres().loadSensitivity(), 0, 0.3, "");
    c.within("tyres.rolling", v.tyres().rolling(), 0, 0.1, "as a share of load");
    c.within("aero.cdA", v.aero().cdA(), 0.05, 4, "m²");
    c.within("aero.clA", v.aero().clA(), -1, 8, "m², positive downwards");
    c.within("brakes.mostForce", v.brakes().mostForce(), 200, 200_000, "N");
    c.within("brakes.frontShare", v.brakes().frontShare(), 0.2, 1, "");
    c.within("brakes.engineBraking", v.brakes().engineBraking(), 0, 4, "m/s²");
    Vehicle.Floor floor = v.floor();
    if (floor != null) {
      c.within("floor.rideHeight", floor.rideHeight(), 0.01, 0.6, "m");
      c.within("floor.width", floor.width(), 0.1, v.width(), "m, no wider than the vehicle");
      c.within("floor.track", floor.track(), 0, v.width(), "m between the middles of the tyres");
      c.within("floor.tyreWidth", floor.tyreWidth(), 0.05, 0.6, "m");
    }
    Vehicle.Chassis chassis = v.chassis();
    if (chassis != null) {
      double narrow = v.kind() == VehicleKind.MOTORCYCLE ? 0 : 0.5;
      c.within("chassis.trackFront", chassis.trackFront(), narrow, v.width(), "m, front wheels");
      c.within("chassis.trackRear", chassis.trackRear(), narrow, v.width(), "m, rear wheels");
      c.within("chassis.rollFront", chassis.rollFront(), 0.05, 0.95, "");
      c.within("chassis.liftFront", chassis.liftFront(), 0, 1, "");
      c.within("chassis.gripRear", chassis.gripRear(), 0.7, 1.4, "");
      c.within("chassis.closedTorque", chassis.closedTorque(), 0, 500, "Nm");
      c.within("chassis.brakeStep", chassis.brakeStep(), 0, 0.1, "");
      c.within("chassis.barStep", chassis.barStep(), 0, 0.2, "");
      c.within("chassis.wingStep", chassis.wingStep(), 0, 1, "m²");
      c.within("chassis.wingDrag", chassis.wingDrag(), 0, 0.5, "m²");
    }
    Vehicle.Fuel fuel = v.fuel();
    if (fuel != null) {
      c.within("fuel.capacity", fuel.capacity(), 1, 300, "litres");
      c.within("fuel.load", fuel.load(), 0, fuel.capacity(), "litres, no more than the tank holds");
      c.within("fuel.density", fuel.density(), 0.6, 1.1, "kg per litre");
      Double heating = fuel.heating();
      Double efficiency = fuel.efficiency();
      c.within("fuel.heating", heating == null ? Vehicle.Fuel.PETROL : heating, 15, 130, "MJ/kg");
      c.within(
          "fuel.efficiency",
          efficiency == null ? Vehicle.Fuel.USUAL_EFFICIENCY : efficiency,
          0.1,
          0.6,
          "as a share");
    }
    Vehicle.Device device = v.device();
    if (device != null) {
      c.within("device.drag", device.drag(), 0.3, 1, "as the share that is left");
      c.within("device.downforce", device.downforce(), 0, 1, "as the share that is left");
    }
    Vehicle.Ride ride = v.ride();
    if (ride != null) {
      c.within("ride.frequency", ride.frequency(), 0.8, 12, "Hz");
      c.within("ride.bump", ride.bump(), 0.002, 0.4, "m");
      c.within("ride.droop", ride.droop(), 0.002, 0.4, "m");
    }
    gearbox(v, c);
    engine(v, c);
    Double lean = v.leanLimit();
    if (v.kind() == VehicleKind.MOTORCYCLE) {
      if (lean == null) {
        c.add("leanLimit", "A motorcycle needs its largest lean, 30 to 68 degrees.");
      } else {
        c.within("leanLimit", Math.toDegrees(lean), 30, 68, "degrees");
      }
    }
    Vehicle.Boost boost = v.boost();
    if (boost != null) {
      c.within("boost.power", boost.power(), 1000, 1e6, "W");
      c.within("boost.energyPerLap", boost.energyPerLap(), 1000, 1e8, "J");
      c.within("boost.recovery", boost.recovery(), 0, 1, "");
    }
    return c.found;
  }

  private static void gearbox(Vehicle v, Checks c) {
    List<Double> ratios = v.gearbox().ratios();
    if (ratios.isEmpty() || ratios.size() > 10) {
      c.add("gearbox.ratios", "Give 1 to 10 gears.");
    }
    for (int i = 0; i < ratios.size(); i++) {
      c.within("gearbox.ratios", ratios.get(i), 0.2, 20, "for gear " + (i + 1));
      if (i > 0 && ratios.get(i) >= ratios.get(i - 1)) {
        c.add(
            "gearbox.ratios",
            "Gear " + (i + 1) + " must have a smaller ratio than gear " + i + ".");
      }
    }
    c.within("gearbox.finalDrive", v.gearbox().finalDrive(), 0.5, 20, "");
    c.within("gearbox.rollingRadius", v.gearbox().rollingRadius(), 0.1, 0.6, "m");
    c.within("gearbox.efficiency", v.gearbox().efficiency(), 0.5, 1, "");
    c.within("gearbox.shiftTime", v.gearbox().shiftTime(), 0, 1.5, "s");
  }

  private static void engine(Vehicle v, Checks c) {
    List<Vehicle.TorquePoint> curve = v.engine().curve();
    if (curve.size() < 2 || curve.size() > 60) {
      c.add("engine.curve", "Give 2 to 60 points of revs and torque.");
    }
    for (int i = 0; i < curve.size(); i++) {
      c.within("engine.curve", curve.get(i).revs(), 0, 25_000, "revs per minute");
      c.within("engine.curve", curve.get(i).torque(), 0, 3000, "Nm");
      if (i > 0 && curve.get(i).revs() <= curve.get(i - 1).revs()) {
        c.add("engine.curve", "Revs must rise from point to point; see point " + (i + 1) + ".");
      }
    }
    c.within("engine.shiftRevs", v.engine().shiftRevs(), 1000, 25_000, "revs per minute");
    c.within("engine.limitRevs", v.engine().limitRevs(), 1000, 25_000, "revs per minute");
    c.within("engine.cylinders", v.engine().firing(), 1, 16, "");
    if (v.engine().strokesOrUsual() != 2 && v.engine().strokesOrUsual() != 4) {
      c.add("engine.strokes", "An engine has two strokes or four.");
    }
    if (v.engine().shiftRevs() > v.engine().limitRevs()) {
      c.add("engine.shiftRevs", "The shift must come at or below the limit.");
    }
  }

  private static final class Checks {
    private final List<Finding> found = new ArrayList<>();

    void add(String field, String message) {
      found.add(new Finding(field, message));
    }

    void within(String field, double value, double least, double most, String unit) {
      if (!(value >= least && value <= most)) {
        add(
            field,
            (plain(value)
                    + " is out of range; give "
                    + plain(least)
                    + " to "
                    + plain(most)
                    + (unit.isEmpty() ? "" : " " + unit))
                + ".");
      }
    }

    private static String plain(double value) {
      return value == Math.rint(value) && Math.abs(value) < 1e9
          ? Long.toString((long) value)
          : Double.toString(value);
    }
  }
}
