package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.vehicle.Vehicle;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SheetLapTest {
  @ParameterizedTest
  @CsvSource({"36, cup-gt", "7, small-hatch", "12, single-seater", "5, motorcycle-600"})
  void theFinalDriveThatIsToldIsTheBestOfItsNeighbours(long seed, String vehicle) {
    ComputedLap base = Drives.computed(RandomRoads.of(seed, 260), vehicle);
    Vehicle v = base.vehicle();
    SheetLap told = SheetLap.of(base, v, null);
    assertThat(told.lapTime()).isEqualTo(told.without());
    // What two axles leave is told anew from the lap itself.
    assertThat(told.lapTime()).isCloseTo(base.lap().lapTime(), within(1e-3 * told.lapTime()));
    assertThat(told.finalLap()).isLessThanOrEqualTo(told.lapTime());
    for (double off : new double[] {0.85, 0.95, 1.05, 1.15}) {
      assertThat(base.driven(v.withFinalDrive(told.finalDrive() * off)).lapTime())
          .as("%.2f of it", off)
          .isGreaterThan(told.finalLap() - 0.004);
    }
  }

  /** Far too short it is on the limiter for seconds; far too long the last gear never pulls. */
  @ParameterizedTest
  @CsvSource({"36, cup-gt", "12, single-seater"})
  void theLimiterAndRevsThatAreNeverReachedAreTold(long seed, String vehicle) {
    ComputedLap base = Drives.computed(RandomRoads.of(seed, 260), vehicle);
    Vehicle v = base.vehicle();
    double drive = v.gearbox().finalDrive();
    SheetLap tooShort = SheetLap.of(base, v, v.withFinalDrive(drive * 1.9));
    assertThat(tooShort.onLimiter()).isGreaterThan(1);
    assertThat(tooShort.topRevs()).isGreaterThan(0.98 * v.engine().limitRevs());
    assertThat(tooShort.finalDrive()).isLessThan(drive * 1.9);
    assertThat(tooShort.lapTime()).isGreaterThan(tooShort.without());
    SheetLap asItIs = SheetLap.of(base, v, null);
    assertThat(asItIs.onLimiter()).isLessThan(tooShort.onLimiter());
    assertThat(asItIs.straight()).isBetween(50.0, base.path().length());
    SheetLap tooLong = SheetLap.of(base, v, v.withFinalDrive(drive * 0.45));
    assertThat(tooLong.onLimiter()).isZero();
    // Gears between are as good as gears beside them: what is found is quicker, not always shorter.
    assertThat(tooLong.finalLap()).isLessThan(tooLong.lapTime());
  }
}
