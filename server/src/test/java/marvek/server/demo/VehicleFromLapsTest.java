package marvek.server.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.debrief.Robust;
import marvek.core.debrief.VehicleFit;
import marvek.core.logger.Drive;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import marvek.core.plan.ComputedLap;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.LapGrid;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The vehicle as the laps of a simulated driver show it, who drives the very vehicle entered. */
@Tag("slow")
class VehicleFromLapsTest {
  private static final DemoDesk RING = DemoDesk.of("falcoeira-ring", "cup-gt");

  private static VehicleFit fit(List<Planted> habits) {
    int n = RING.computed().road().size();
    List<VehicleFit.Lap> laps = new ArrayList<>();
    for (DrivenLap l : Recorded.table(RING, habits, 6, 55).laps()) {
      if (l.number() > 0 && l.kind().whole()) {
        LapGrid grid = LapGrid.of(l, RING.computed().road().length(), n);
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
    return VehicleFit.of(RING.computed(), laps);
  }

  /**
   * How much of the computed most the driver slowed with in truth, as the fit asks: over 25 m, in a
   * straight line, tyres and closed engine together without the drag.
   */
  private static double pressed(List<Planted> habits) {
    Drive driven = Recorded.drive(RING, habits, 6, 55);
    List<Double> uses = new ArrayList<>();
    List<Double> run = new ArrayList<>();
    for (int i = 0; i < driven.brake().length; i++) {
      if (driven.brake()[i] > 0.5 && Math.abs(driven.across()[i]) < 0.2 * 9.81) {
        run.add(slowing(driven, i));
      } else {
        run.clear();
      }
      if (run.size() >= 25) {
        uses.add(
            run.subList(run.size() - 25, run.size()).stream()
                .mapToDouble(Double::doubleValue)
                .average()
                .orElseThrow());
      }
    }
    return Robust.quantile(uses.stream().mapToDouble(Double::doubleValue).toArray(), 0.85);
  }

  private static double slowing(Drive driven, int i) {
    ComputedLap lap = RING.computed();
    double v = driven.speed()[i];
    int k = lap.road().index(driven.station()[i]);
    double load = lap.limits().load(lap.path(), k, v * v);
    double tyres = -driven.along()[i] - lap.limits().resistance(lap.path(), k, v, load);
    return tyres / lap.limits().brakingMost(load, 1, lap.path().braking(k));
  }

  private static void engineIsAsEntered(VehicleFit fit, double pressed) {
    // Shifts, at full throttle without any pull, must not be taken for a weak engine.
    assertThat(fit.powerFactor()).isCloseTo(1, within(0.01));
    assertThat(fit.dragFactor()).isCloseTo(1, within(0.02));
    // What is used: this driver keeps something back at some stops, and presses up to 1.08 of what
    // grip there is for them at others.
    assertThat(fit.alongFactor()).isBetween(0.9, 1.08).isCloseTo(pressed, within(0.03));
  }

  private static double off(double computed, VehicleFit fit) {
    return Math.abs(computed - fit.measured()) / fit.measured();
  }

  @Test
  void theComputedLapComesNearerToCleanLaps() {
    VehicleFit fit = fit(List.of());
    engineIsAsEntered(fit, pressed(List.of()));
    assertThat(off(fit.after(), fit)).isLessThan(0.02).isLessThan(0.7 * off(fit.before(), fit));
    drawnPointsFillTheEnvelopeAndStayInIt(fit);
  }

  private static void drawnPointsFillTheEnvelopeAndStayInIt(VehicleFit fit) {
    assertThat(fit.reaches()).hasSize(3);
    double before = 0;
    for (VehicleFit.DrivenReach r : fit.reaches()) {
      assertThat(r.before().speed()).isEqualTo(r.after().speed()).isGreaterThan(before);
      before = r.after().speed();
      assertThat(r.along()).hasSameSizeAs(r.across());
      assertThat(r.along().length).isBetween(20, 200);
      double across = Arrays.stream(r.after().across()).max().orElseThrow();
      double braking = -Arrays.stream(r.after().along()).min().orElseThrow();
      double[] uses = new double[r.along().length];
      for (int k = 0; k < uses.length; k++) {
        uses[k] = Math.hypot(r.across()[k] / across, Math.min(0, r.along()[k]) / braking);
      }
      Arrays.sort(uses);
      // Crests and dips, cambers and slopes are in the laps, not in the drawing of a level road.
      assertThat(uses[(int) (0.95 * uses.length)]).as("%.0f m/s", before).isLessThan(1.2);
      assertThat(uses[uses.length - 1]).as("%.0f m/s", before).isGreaterThan(0.7);
    }
  }

  @Test
  void mistakesInSomeCornersAreNotTakenForGripOrPower() {
    VehicleFit clean = fit(List.of());
    List<Planted> some =
        List.of(
            new Planted(Mistake.BRAKES_LATE_RUNS_DEEP, "c1", 1, 1),
            new Planted(Mistake.OVER_SLOWED, "c4", 1, 1),
            new Planted(Mistake.EXTRA_STEERING, "c6", 1, 1),
            new Planted(Mistake.TURNS_IN_EARLY_RUNS_WIDE, "c10", 1, 1));
    VehicleFit with = fit(some);
    engineIsAsEntered(with, pressed(some));
    assertThat(with.acrossFactor()).isCloseTo(clean.acrossFactor(), within(0.02));
  }

  @Test
  void whoSlowsTooMuchEverywhereIsComputedAsDriven() {
    List<Planted> all =
        RING.computed().corners().stream()
            .map(Corner::id)
            .map(c -> new Planted(Mistake.OVER_SLOWED, c, 1, 1))
            .toList();
    VehicleFit fit = fit(all);
    engineIsAsEntered(fit, pressed(all));
    assertThat(off(fit.before(), fit)).isGreaterThan(0.05);
    assertThat(off(fit.after(), fit)).isLessThan(0.02);
  }
}
