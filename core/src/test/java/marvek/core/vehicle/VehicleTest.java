package marvek.core.vehicle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.vehicle.VehicleCheck.Finding;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class VehicleTest {

  @ParameterizedTest
  @CsvSource({"0,1.2250", "1000,1.1117", "2000,1.0066"})
  void airThinsAsInTheStandardAtmosphere(double altitude, double density) {
    // ICAO standard atmosphere (Doc 7488), table of densities.
    assertThat(AirDensity.atAltitude(altitude)).isCloseTo(density, within(5e-5));
  }

  @Test
  void gearSpeedsAgreeWithAHandWorkedExample() {
    // By hand: 6000 rpm = 100 turns a second; ratio 2.0 x 4.0 = 8; wheel 12.5 turns a second;
    // radius 0.30 m gives a circumference of 1.88496 m: 23.562 m/s.
    Vehicle v = with(VehicleClasses.byId("small-hatch").vehicle(), 2.0, 4.0, 0.30);
    assertThat(v.speed(6000, 1)).isCloseTo(23.562, within(5e-4));
    assertThat(v.revs(23.562, 1)).isCloseTo(6000, within(0.2));
    // Force = torque x 8 x efficiency / radius.
    assertThat(v.wheelForce(23.562, 1))
        .isCloseTo(v.engine().torque(6000) * 8 * v.gearbox().efficiency() / 0.30, within(0.5));
    assertThat(v.wheelForce(60, 1)).as("past the limit").isZero();
  }

  private static Vehicle with(Vehicle v, double ratio, double finalDrive, double radius) {
    return new Vehicle(
        v.kind(),
        v.mass(),
        v.width(),
        v.wheelbase(),
        v.cogHeight(),
        v.cogToFront(),
        v.engine(),
        new Vehicle.Gearbox(List.of(ratio), finalDrive, radius, 0.9, 0.1, Vehicle.Drive.FRONT),
        v.tyres(),
        v.aero(),
        v.brakes(),
        v.leanLimit(),
        v.boost());
  }

  @Test
  void everyClassMakesSense() {
    assertThat(VehicleClasses.all()).hasSizeGreaterThanOrEqualTo(6);
    for (VehicleClasses.VehicleClass c : VehicleClasses.all()) {
      assertThat(VehicleCheck.problems(c.vehicle())).as(c.id()).isEmpty();
      assertThat(VehicleClasses.byId(c.id())).isEqualTo(c);
    }
  }

  @Test
  void nonsenseIsNamedByItsField() {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    List<Double> ratios = new ArrayList<>(v.gearbox().ratios());
    ratios.set(2, 5.0);
    Vehicle broken =
        new Vehicle(
            v.kind(),
            Double.NaN,
            v.width(),
            v.wheelbase(),
            v.cogHeight(),
            9,
            new Vehicle.Engine(v.engine().curve(), 9000, 8000),
            new Vehicle.Gearbox(ratios, 4, 0.33, 0.9, 0.1, Vehicle.Drive.REAR),
            v.tyres(),
            v.aero(),
            v.brakes(),
            null,
            new Vehicle.Boost(1e308, 5e5, 0.5));
    assertThat(VehicleCheck.problems(broken))
        .extracting(Finding::field)
        .contains("mass", "cogToFront", "engine.shiftRevs", "gearbox.ratios", "boost.power");
    Vehicle upright =
        new Vehicle(
            VehicleKind.MOTORCYCLE,
            250,
            0.8,
            1.4,
            0.6,
            0.7,
            v.engine(),
            v.gearbox(),
            v.tyres(),
            v.aero(),
            v.brakes(),
            null,
            null);
    assertThat(VehicleCheck.problems(upright))
        .extracting(Finding::field)
        .containsExactly("leanLimit");
  }

  @Test
  void springsDeviceAndFuelAreCheckedFieldByField() {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    Vehicle broken =
        VehicleBuilder.builder(v)
            .device(new Vehicle.Device(1.4, -0.1))
            .ride(new Vehicle.Ride(30, 0, 0.9))
            .fuel(new Vehicle.Fuel(20, 60, 0.75, 900.0, 0.01))
            .build();
    assertThat(VehicleCheck.problems(broken))
        .extracting(Finding::field)
        .containsExactlyInAnyOrder(
            "device.drag",
            "device.downforce",
            "ride.frequency",
            "ride.bump",
            "ride.droop",
            "fuel.heating",
            "fuel.efficiency");
    Vehicle well =
        VehicleBuilder.builder(v)
            .device(new Vehicle.Device(0.8, 1))
            .ride(new Vehicle.Ride(2.4, 0.04, 0.05))
            .fuel(new Vehicle.Fuel(20, 60, 0.75))
            .build();
    assertThat(VehicleCheck.problems(well)).isEmpty();
  }

  @Test
  void torqueLiesBetweenItsPoints() {
    Vehicle.Engine engine =
        new Vehicle.Engine(
            List.of(new Vehicle.TorquePoint(1000, 100), new Vehicle.TorquePoint(3000, 200)),
            2800,
            3000);
    assertThat(engine.torque(2000)).isEqualTo(150);
    assertThat(engine.torque(500)).isEqualTo(100);
    assertThat(engine.torque(4000)).isEqualTo(200);
  }
}
