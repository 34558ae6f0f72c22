package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
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
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where the hands turn in, as read from a recording against where the driver did. */
class TurnInReadTest {
  @ParameterizedTest
  @CsvSource({
    "722, 240, motorcycle-600",
    "61, 280, small-hatch",
    "62, 300, cup-gt",
    "841, 200, single-seater",
    "842, 260, motorcycle-1000"
  })
  void isReadWhereTheDriverDid(int seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    Plan plan =
        new Plan(lap, Drafter.draft(lap, List.of()).corners(), List.of(), 3, 1.5, 1, 0, true);
    Drive drive = SimulatedDriver.drive(plan, new Random(seed));
    List<Truth.Lap> whole = drive.truth().laps().stream().filter(l -> l.number() > 0).toList();
    List<DrivenLap> read = Drives.read(drive, lap, 50, Recorder.Noise.usual(), seed);
    EventFinder finder = new EventFinder(lap.road(), lap.corners(), lap.limits(), lap.path());
    List<Double> off = new ArrayList<>();
    for (int k = 0; k < read.size(); k++) {
      List<CornerEvents> events = finder.find(read.get(k));
      for (Truth.Done d : whole.get(k).corners()) {
        Double found =
            events.stream().filter(e -> e.corner().equals(d.corner())).findFirst().get().turnIn();
        if (d.turnIn() != null && found != null) {
          off.add(Math.abs(lap.road().apart(d.turnIn(), found)));
        }
      }
    }
    Collections.sort(off);
    assertThat(off).hasSizeGreaterThan(15);
    assertThat(off.get(off.size() / 2)).isLessThan(1);
    assertThat(off.get(off.size() * 19 / 20)).isLessThan(10);
    assertThat(off.get(off.size() - 1)).isLessThan(25);
  }
}
