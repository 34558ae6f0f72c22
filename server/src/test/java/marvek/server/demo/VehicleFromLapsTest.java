package marvek.server.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.debrief.VehicleFit;
import marvek.core.logger.Habit;
import marvek.core.logger.Mistake;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.LapGrid;
import org.junit.jupiter.api.Test;

/** The vehicle as the laps of a simulated driver show it, who drives the very vehicle entered. */
class VehicleFromLapsTest {
  private static final DemoDesk RING = DemoDesk.of("falcoeira-ring", "cup-gt");

  private static VehicleFit fit(List<Habit> habits) {
    int n = RING.desk().road().size();
    List<VehicleFit.Lap> laps = new ArrayList<>();
    for (DrivenLap l : Recorded.table(RING, habits, 6, 55).laps()) {
      if (l.number() > 0 && l.kind().whole()) {
        LapGrid grid = LapGrid.of(l, RING.desk().road().length(), n);
        laps.add(
            new VehicleFit.Lap(
                l.lapTime(),
                grid.speed(),
                grid.channels().get(Channel.ALONG),
                grid.channels().get(Channel.ACROSS),
                grid.channels().get(Channel.THROTTLE),
                grid.offset()));
      }
    }
    return VehicleFit.of(RING.desk(), laps);
  }

  private static void engineIsAsEntered(VehicleFit fit) {
    // Shifts, at full throttle without any pull, must not be taken for a weak engine.
    assertThat(fit.powerFactor()).isCloseTo(1, within(0.01));
    assertThat(fit.dragFactor()).isCloseTo(1, within(0.02));
    // What is used: this driver keeps something back at some stops, and presses up to 1.08 of what
    // the computation takes for the most at others.
    assertThat(fit.alongFactor()).isBetween(0.9, 1.08);
  }

  private static double off(double computed, VehicleFit fit) {
    return Math.abs(computed - fit.measured()) / fit.measured();
  }

  @Test
  void theComputedLapComesNearerToCleanLaps() {
    VehicleFit fit = fit(List.of());
    engineIsAsEntered(fit);
    assertThat(off(fit.after(), fit)).isLessThan(0.02).isLessThan(0.7 * off(fit.before(), fit));
  }

  @Test
  void mistakesInSomeCornersAreNotTakenForGripOrPower() {
    VehicleFit clean = fit(List.of());
    VehicleFit with =
        fit(
            List.of(
                new Habit(Mistake.BRAKES_LATE_RUNS_DEEP, "c1", 1, 1),
                new Habit(Mistake.OVER_SLOWED, "c4", 1, 1),
                new Habit(Mistake.EXTRA_STEERING, "c6", 1, 1),
                new Habit(Mistake.TURNS_IN_EARLY_RUNS_WIDE, "c10", 1, 1)));
    engineIsAsEntered(with);
    assertThat(with.acrossFactor()).isCloseTo(clean.acrossFactor(), within(0.02));
  }

  @Test
  void whoSlowsTooMuchEverywhereIsComputedAsDriven() {
    VehicleFit fit =
        fit(
            RING.desk().corners().stream()
                .map(Corner::id)
                .map(c -> new Habit(Mistake.OVER_SLOWED, c, 1, 1))
                .toList());
    engineIsAsEntered(fit);
    assertThat(off(fit.before(), fit)).isGreaterThan(0.05);
    assertThat(off(fit.after(), fit)).isLessThan(0.02);
  }
}
