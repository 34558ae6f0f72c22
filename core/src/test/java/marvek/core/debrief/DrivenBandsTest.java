package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Device;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.EventFinder;
import marvek.core.telemetry.LapGrid;
import org.junit.jupiter.api.Test;

/** Laps laid over each other. */
class DrivenBandsTest {
  private static final String SECOND = Device.DRAFT.get(1).corner();

  private static DrivenBands.Lap constant(double speed, double brake, boolean told) {
    int n = 100;
    double[] times = new double[n + 1];
    double[] v = new double[n];
    double[] offset = new double[n];
    double[] pressed = new double[n];
    Arrays.fill(v, speed);
    Arrays.fill(pressed, brake);
    v[0] = speed + 1;
    return new DrivenBands.Lap(
        new LapGrid(2, times, v, offset, Map.of(Channel.BRAKE, pressed)), told, null);
  }

  @Test
  void theBandIsTheTenthsOfTheLapsAndGoesOnBeyondTheLine() {
    List<DrivenBands.Lap> laps = new ArrayList<>();
    for (int i = 0; i <= 10; i++) {
      laps.add(constant(30 + i, i / 10.0, true));
    }
    DrivenBands over = DrivenBands.over(laps, -6, 4);
    assertThat(over.laps()).isEqualTo(11);
    assertThat(over.from()).isEqualTo(-6);
    assertThat(over.speed().middle()).hasSize(6);
    // Of 0, 1, … 10 a tenth lies below 1 and a tenth above 9.
    assertThat(over.speed().low()[0]).isCloseTo(31, within(1e-9));
    assertThat(over.speed().middle()[0]).isCloseTo(35, within(1e-9));
    assertThat(over.speed().high()[0]).isCloseTo(39, within(1e-9));
    assertThat(over.brake().middle()[0]).isCloseTo(0.5, within(1e-9));
    // The line itself: every lap is 1 m/s quicker there.
    assertThat(over.speed().middle()[3]).isCloseTo(36, within(1e-9));
    assertThat(over.throttle()).isNull();
    assertThat(over.points()).isEmpty();
  }

  @Test
  void pedalsThatWereNotRecordedMakeNoBand() {
    DrivenBands over =
        DrivenBands.over(List.of(constant(30, 0.2, false), constant(40, 0.9, true)), 10, 20);
    assertThat(over.laps()).isEqualTo(2);
    assertThat(over.speed().middle()[0]).isCloseTo(35, within(1e-9));
    assertThat(over.brake().low()[0]).isCloseTo(0.9, within(1e-9));
    assertThat(DrivenBands.over(List.of(constant(30, 0.2, false)), 10, 20).brake()).isNull();
    assertThatThrownBy(() -> DrivenBands.over(List.of(), 0, 10))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void pointsOfRealLapsLieWhereTheBandsRise() {
    EventFinder finder =
        new EventFinder(
            Device.DESK.road(), Device.DESK.corners(), Device.DESK.limits(), Device.DESK.path());
    double length = Device.DESK.road().length();
    List<DrivenBands.Lap> laps = new ArrayList<>();
    for (DrivenLap l : Device.read(Device.drive(4, 6)).whole()) {
      laps.add(
          new DrivenBands.Lap(
              LapGrid.of(l, length, (int) (length / 2)),
              true,
              finder.find(l).stream()
                  .filter(e -> e.corner().equals(SECOND))
                  .findFirst()
                  .orElseThrow()));
    }
    double apex = Device.DESK.corners().get(1).apex();
    DrivenBands over = DrivenBands.over(laps, apex - 200, apex + 100);
    List<Double> braking = over.points().get(PointKind.BRAKE);
    assertThat(braking).hasSize(4);
    double first = braking.stream().mapToDouble(Double::doubleValue).min().orElseThrow();
    double last = braking.stream().mapToDouble(Double::doubleValue).max().orElseThrow();
    for (int i = 0; i < over.speed().middle().length; i++) {
      double s = over.from() + i * over.step();
      if (s < first - 3) {
        assertThat(over.brake().high()[i]).as("before " + s).isLessThan(0.1);
      }
      if (s > last + 12 && s < last + 20) {
        assertThat(over.brake().low()[i]).as("after " + s).isGreaterThan(0.3);
      }
      assertThat(over.speed().low()[i]).isLessThanOrEqualTo(over.speed().high()[i]);
    }
  }
}
