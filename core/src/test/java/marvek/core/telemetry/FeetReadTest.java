package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import java.util.Random;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.logger.Truth;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Gears and feet as read from a recording against what the driver did. */
class FeetReadTest {
  private static EventFinder finder(ComputedLap lap) {
    return new EventFinder(lap.road(), lap.corners(), lap.limits(), lap.path());
  }

  /** The gear of a corner is that of its slowest place, or of a moment before. */
  @ParameterizedTest
  @CsvSource({"789, 480, cup-gt", "783, 440, small-hatch", "861, 260, single-seater"})
  void theGearIsThatOfTheSlowestPlace(long seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    Plan plan =
        new Plan(lap, Drafter.draft(lap, List.of()).corners(), List.of(), 3, 1.5, 1, 0, true);
    int gears = 0;
    for (DrivenLap driven : Drives.read(plan, seed)) {
      Trace t = driven.trace();
      double[] gear = Objects.requireNonNull(t.of(Channel.GEAR));
      for (CornerEvents e : finder(lap).find(driven)) {
        boolean there = false;
        for (int i = 0; i < t.size(); i++) {
          double ahead = lap.road().apart(lap.road().wrap(t.station()[i]), e.minimumAt());
          if (ahead > -3 && ahead < 0.3 * e.minimumSpeed() + 3) {
            there |= Math.round(gear[i]) == Objects.requireNonNull(e.gear());
          }
        }
        assertThat(there).as("gear %s in %s", e.gear(), e.corner()).isTrue();
        gears++;
      }
    }
    assertThat(gears).isGreaterThan(20);
  }

  /** A foot that rests on its way to full is not taken to come there later than it does. */
  @Test
  void aThrottleThatRestsOnItsWayIsFullWhereItIs() {
    ComputedLap lap = Drives.computed(RandomRoads.of(720, 400), "motorcycle-1000");
    Plan plan =
        new Plan(lap, Drafter.draft(lap, List.of()).corners(), List.of(), 4, 1.5, 1, 0, true);
    Drive drive = SimulatedDriver.drive(plan, new Random(720));
    List<Truth.Lap> whole = drive.truth().laps().stream().filter(l -> l.number() > 0).toList();
    List<DrivenLap> read = Drives.read(drive, lap, 50, Recorder.Noise.usual(), 721);
    for (int k = 0; k < read.size(); k++) {
      double truth =
          whole.get(k).corners().stream()
              .filter(d -> d.corner().equals("c3"))
              .mapToDouble(d -> Objects.requireNonNull(d.fullThrottle()))
              .findFirst()
              .orElseThrow();
      double found =
          finder(lap).find(read.get(k)).stream()
              .filter(e -> e.corner().equals("c3"))
              .mapToDouble(e -> Objects.requireNonNull(e.fullThrottle()))
              .findFirst()
              .orElseThrow();
      assertThat(lap.road().apart(truth, found)).isBetween(-8.0, 8.0);
    }
    assertThat(read).hasSizeGreaterThan(2);
  }
}
