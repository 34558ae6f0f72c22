package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

@Tag("slow")
class SameLapsTest {
  private static Drive drive(long seed, double spread) {
    return SimulatedDriver.drive(
        new Plan(Device.DESK, Device.DRAFT, List.of(), 8, spread, 0.98, 0, true),
        new java.util.Random(seed));
  }

  private static List<SameLaps.Recorded> recorded(
      Drive driven, String source, double rate, Recorder.Noise noise, long seed) {
    return Drives.read(driven, Device.DESK, rate, noise, seed).stream()
        .map(l -> new SameLaps.Recorded(source, Drives.data(l, Device.DESK)))
        .toList();
  }

  @Test
  void twoDevicesThatRecordADriveBringItsLapsOnce() {
    for (long seed = 1; seed <= 6; seed++) {
      Drive driven = drive(seed, 1.5);
      List<SameLaps.Recorded> all = new ArrayList<>();
      all.addAll(recorded(driven, "a", 50, Recorder.Noise.usual(), 3 * seed));
      all.addAll(recorded(driven, "b", 10, Recorder.Noise.usual(), 5 * seed));
      all.addAll(recorded(driven, "c", 20, Recorder.Noise.worn(), 7 * seed));
      assertThat(all).hasSize(24);
      assertThat(SameLaps.once(all)).as("seed " + seed).hasSize(8);
    }
  }

  @Test
  void lapsOfAnotherDriveAreOthersAlsoWhereTheDriverIsEven() {
    int merged = 0;
    for (long seed = 1; seed <= 10; seed++) {
      List<SameLaps.Recorded> all = new ArrayList<>();
      all.addAll(recorded(drive(seed, 1.5), "a", 50, Recorder.Noise.usual(), seed));
      all.addAll(recorded(drive(seed + 100, 1.5), "b", 50, Recorder.Noise.usual(), seed));
      merged += all.size() - SameLaps.once(all).size();
    }
    assertThat(merged).as("of ten pairs of drives").isZero();
  }

  @Test
  void theOneWithPedalsStays() {
    Drive driven = drive(4, 1.5);
    List<SameLaps.Recorded> with = recorded(driven, "b", 50, Recorder.Noise.usual(), 2);
    List<SameLaps.Recorded> all = new ArrayList<>();
    recorded(driven, "a", 10, Recorder.Noise.usual(), 1)
        .forEach(
            r -> {
              LapData l = r.lap();
              all.add(
                  new SameLaps.Recorded(
                      "a",
                      new LapData(
                          l.id(),
                          l.run(),
                          l.number(),
                          l.lapTime(),
                          l.step(),
                          l.times(),
                          l.events(),
                          false)));
            });
    all.addAll(with);
    assertThat(SameLaps.once(all)).hasSize(8).allMatch(i -> all.get(i).lap().told());
  }
}
