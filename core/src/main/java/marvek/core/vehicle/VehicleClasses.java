package marvek.core.vehicle;

import java.util.List;
import marvek.core.said.Said;
import marvek.core.vehicle.Vehicle.Aero;
import marvek.core.vehicle.Vehicle.Boost;
import marvek.core.vehicle.Vehicle.Brakes;
import marvek.core.vehicle.Vehicle.Drive;
import marvek.core.vehicle.Vehicle.Engine;
import marvek.core.vehicle.Vehicle.Gearbox;
import marvek.core.vehicle.Vehicle.TorquePoint;
import marvek.core.vehicle.Vehicle.Tyres;
import org.jspecify.annotations.Nullable;

/**
 * Generic classes as starting points. Round figures of the trade for each class (common practice,
 * no source), not those of any make.
 */
public final class VehicleClasses {
  private VehicleClasses() {}

  /**
   * A starting point.
   *
   * @param id stable name
   * @param name as shown
   * @param about one line about what it stands for
   * @param vehicle the numbers
   */
  public record VehicleClass(String id, Said name, Said about, Vehicle vehicle) {}

  private static VehicleClass of(String id, Vehicle vehicle) {
    String key = "vehicle.class." + id;
    return new VehicleClass(id, Said.of(key + ".name"), Said.of(key + ".about"), vehicle);
  }

  private static final List<VehicleClass> ALL =
      List.of(
          of(
              "small-hatch",
              car(
                  1080,
                  1.70,
                  2.45,
                  0.52,
                  1.00,
                  engine(180, 5500, 7000, 7300),
                  gears(Drive.FRONT, 0.290, 4.1, 0.25, 3.45, 2.05, 1.45, 1.13, 0.92),
                  new Tyres(1.08, 1.06, 0.06, 0.013),
                  new Aero(0.70, -0.05),
                  new Brakes(11_500, 0.80, 0.7),
                  null)),
          of(
              "cup-gt",
              car(
                  1330,
                  1.92,
                  2.46,
                  0.46,
                  1.48,
                  engine(470, 6250, 8400, 8750),
                  gears(Drive.REAR, 0.335, 3.85, 0.06, 3.30, 2.32, 1.80, 1.45, 1.20, 1.00),
                  new Tyres(1.48, 1.50, 0.07, 0.014),
                  new Aero(0.88, 1.15),
                  new Brakes(21_500, 0.66, 0.9),
                  null)),
          of(
              "single-seater",
              car(
                  675,
                  1.85,
                  2.85,
                  0.31,
                  1.60,
                  engine(255, 5200, 7000, 7300),
                  gears(Drive.REAR, 0.285, 3.1, 0.05, 2.92, 2.20, 1.74, 1.42, 1.18, 1.00),
                  new Tyres(1.55, 1.58, 0.08, 0.015),
                  new Aero(0.85, 2.1),
                  new Brakes(15_500, 0.59, 0.9),
                  null)),
          of(
              "downforce-prototype",
              car(
                  960,
                  1.90,
                  2.90,
                  0.31,
                  1.58,
                  engine(455, 6500, 8800, 9100),
                  gears(Drive.REAR, 0.325, 3.55, 0.04, 3.00, 2.22, 1.74, 1.41, 1.17, 1.00),
                  new Tyres(1.60, 1.62, 0.08, 0.014),
                  new Aero(0.95, 3.1),
                  new Brakes(26_000, 0.60, 1.0),
                  new Boost(60_000, 1_200_000, 0.25))),
          of(
              "motorcycle-600",
              motorcycle(
                  252,
                  1.39,
                  0.63,
                  0.70,
                  engine(70, 12_000, 15_200, 15_800),
                  gears(Drive.REAR, 0.315, 5.9, 0.05, 2.58, 2.05, 1.73, 1.51, 1.35, 1.24),
                  new Tyres(1.30, 1.32, 0.03, 0.018),
                  new Aero(0.33, 0),
                  new Brakes(3600, 0.90, 0.9),
                  Math.toRadians(55))),
          of(
              "motorcycle-1000",
              motorcycle(
                  270,
                  1.43,
                  0.64,
                  0.70,
                  engine(115, 10_500, 13_800, 14_300),
                  gears(Drive.REAR, 0.318, 4.85, 0.04, 2.40, 1.95, 1.68, 1.49, 1.35, 1.25),
                  new Tyres(1.35, 1.36, 0.03, 0.018),
                  new Aero(0.35, 0.04),
                  new Brakes(3900, 0.90, 1.0),
                  Math.toRadians(57))));

  /** All of them, tamest first within cars and motorcycles. */
  public static List<VehicleClass> all() {
    return ALL;
  }

  /** The class of that id; throws IllegalArgumentException where there is none. */
  public static VehicleClass byId(String id) {
    return ALL.stream()
        .filter(c -> c.id().equals(id))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException("no vehicle class " + id));
  }

  private static Vehicle car(
      double mass,
      double width,
      double wheelbase,
      double cogHeight,
      double cogToFront,
      Engine engine,
      Gearbox gearbox,
      Tyres tyres,
      Aero aero,
      Brakes brakes,
      @Nullable Boost boost) {
    return new Vehicle(
        VehicleKind.CAR,
        mass,
        width,
        wheelbase,
        cogHeight,
        cogToFront,
        engine,
        gearbox,
        tyres,
        aero,
        brakes,
        null,
        boost);
  }

  private static Vehicle motorcycle(
      double mass,
      double wheelbase,
      double cogHeight,
      double cogToFront,
      Engine engine,
      Gearbox gearbox,
      Tyres tyres,
      Aero aero,
      Brakes brakes,
      double lean) {
    return new Vehicle(
        VehicleKind.MOTORCYCLE,
        mass,
        0.8,
        wheelbase,
        cogHeight,
        cogToFront,
        engine,
        gearbox,
        tyres,
        aero,
        brakes,
        lean,
        null);
  }

  /** A common shape of torque curve about its peak. */
  private static Engine engine(double peakTorque, double peakRevs, double shift, double limit) {
    double[][] shape = {
      {0.25, 0.58},
      {0.4, 0.74},
      {0.55, 0.85},
      {0.7, 0.93},
      {0.85, 0.98},
      {1, 1},
      {1.12, 0.985},
      {1.22, 0.95},
      {1.32, 0.88},
      {1.42, 0.76}
    };
    return new Engine(
        java.util.Arrays.stream(shape)
            .map(p -> new TorquePoint(Math.round(p[0] * peakRevs), round1(p[1] * peakTorque)))
            .toList(),
        shift,
        limit);
  }

  private static Gearbox gears(
      Drive drive, double radius, double finalDrive, double shiftTime, Double... ratios) {
    return new Gearbox(List.of(ratios), finalDrive, radius, 0.92, shiftTime, drive);
  }

  private static double round1(double value) {
    return Math.round(value * 10) / 10.0;
  }
}
