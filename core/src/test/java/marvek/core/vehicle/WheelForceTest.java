package marvek.core.vehicle;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What is laid out to be quick says what the vehicle says, to the last bit. */
class WheelForceTest {
  @Test
  void isTheVehiclesAtEverySpeedInEveryGear() {
    Random random = new Random(5);
    for (VehicleClasses.VehicleClass kind : VehicleClasses.all()) {
      Vehicle v = kind.vehicle();
      WheelForce force = new WheelForce(v);
      List<Vehicle.TorquePoint> curve = v.engine().curve();
      for (int gear = 1; gear <= v.gears(); gear++) {
        for (int k = 0; k < 500; k++) {
          double speed = 110 * random.nextDouble();
          assertThat(force.at(speed, gear)).isEqualTo(v.wheelForce(speed, gear));
          assertThat(force.revs(speed, gear)).isEqualTo(v.revs(speed, gear));
          assertThat(force.limited(speed, gear))
              .isEqualTo(v.revs(speed, gear) > v.engine().limitRevs());
        }
        // At the points of the curve themselves, before the first and past the last.
        for (Vehicle.TorquePoint p : curve) {
          double speed = v.speed(p.revs(), gear);
          assertThat(force.at(speed, gear)).isEqualTo(v.wheelForce(speed, gear));
        }
        assertThat(force.at(0, gear)).isEqualTo(v.wheelForce(0, gear)).isPositive();
      }
    }
  }
}
