package marvek.server.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import marvek.core.circuit.Centreline;
import marvek.core.logger.Recorder;
import marvek.core.logger.Truth;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.EventFinder;
import marvek.core.telemetry.LapKind;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Errors of what is found in noisy recordings, against what the simulated driver really did. */
@Tag("slow")
class AccuracyTest {
  private static final Path REPORT = Path.of("target", "accuracy.md");

  /** Errors of one sort. */
  static final class Errors {
    final Map<String, List<Double>> all = new LinkedHashMap<>();
    int missed;
    int asked;

    void add(String what, double error) {
      all.computeIfAbsent(what, w -> new ArrayList<>()).add(Math.abs(error));
    }

    double at(String what, double share) {
      List<Double> sorted = all.getOrDefault(what, List.of()).stream().sorted().toList();
      return sorted.isEmpty() ? Double.NaN : sorted.get((int) (share * (sorted.size() - 1)));
    }

    void write(StringBuilder out, String title) {
      out.append("\n| ")
          .append(title)
          .append(" | median | 95th percentile | n |\n|---|---|---|---|\n");
      all.forEach(
          (what, list) ->
              out.append(
                  String.format(
                      Locale.ROOT,
                      "| %s | %.3f | %.3f | %d |%n",
                      what,
                      at(what, 0.5),
                      at(what, 0.95),
                      list.size())));
      out.append("\nNot found: ").append(missed).append(" of ").append(asked).append(" points.\n");
    }
  }

  static Errors errors(DemoDesk demo, Recorded recorded) {
    Errors errors = new Errors();
    Centreline road = demo.computed().road();
    EventFinder finder =
        new EventFinder(
            road, demo.computed().corners(), demo.computed().limits(), demo.computed().path());
    List<Truth.Lap> whole = recorded.truth().laps().stream().filter(l -> l.number() > 0).toList();
    List<DrivenLap> laps = recorded.laps().stream().filter(l -> l.number() > 0).toList();
    assertThat(laps).hasSameSizeAs(whole);
    for (int i = 0; i < laps.size(); i++) {
      errors.add("lap time (s)", laps.get(i).lapTime() - whole.get(i).lapTime());
      Map<String, CornerEvents> found = new LinkedHashMap<>();
      finder.find(laps.get(i)).forEach(e -> found.put(e.corner(), e));
      for (Truth.Done d : whole.get(i).corners()) {
        CornerEvents e = found.get(d.corner());
        assertThat(e).as("corner " + d.corner()).isNotNull();
        place(errors, road, "braking start (m)", d.brake(), e.brake());
        place(errors, road, "release (m)", d.release(), e.release());
        place(errors, road, "turn-in (m)", d.turnIn(), e.turnIn());
        place(errors, road, "apex (m)", d.apex(), e.apex());
        place(errors, road, "first throttle (m)", d.firstThrottle(), e.firstThrottle());
        place(errors, road, "full throttle (m)", d.fullThrottle(), e.fullThrottle());
        errors.add("minimum speed (km/h)", (e.minimumSpeed() - d.minimumSpeed()) * 3.6);
        // Where the speed rises all through, the gear at its slowest is that of a moment.
        if (e.gear() != null && d.brake() != null) {
          errors.add("gear", e.gear() - d.gear());
        }
      }
    }
    return errors;
  }

  private static void place(
      Errors errors, Centreline road, String what, @Nullable Double truth, @Nullable Double found) {
    if (truth == null) {
      return;
    }
    errors.asked++;
    if (found == null) {
      errors.missed++;
      return;
    }
    double off = road.apart(truth, found);
    errors.add(what, off);
    if (Math.abs(off) > 15 && System.getProperty("accuracy.tell") != null) {
      System.out.println(what + " truth " + truth + " found " + found + " off " + off);
    }
  }

  @Test
  void eventsOfANoisyRecordingAreWithinTheAims() throws IOException {
    StringBuilder out = new StringBuilder();
    DemoDesk ring = DemoDesk.of("falcoeira-ring", "cup-gt");
    Recorded table = Recorded.table(ring, List.of(), 10, 11);
    assertThat(table.laps()).filteredOn(l -> l.kind() == LapKind.OUT).hasSize(1);
    assertThat(table.laps()).filteredOn(l -> l.kind() == LapKind.IN).hasSize(1);
    Errors fine = errors(ring, table);
    fine.write(out, "50 Hz, all channels, cup GT on the ring");
    Errors worn = errors(ring, Recorded.table(ring, List.of(), 10, 50, Recorder.Noise.worn(), 14));
    worn.write(out, "50 Hz, all channels, a device that wanders and lags");
    Errors coarse = errors(ring, Recorded.nmea(ring, List.of(), 10, 12));
    coarse.write(out, "10 Hz, position and its speed alone, cup GT on the ring");
    DemoDesk hill = DemoDesk.of("serra-quebrada", "motorcycle-600");
    Errors ride = errors(hill, Recorded.table(hill, List.of(), 4, 13));
    ride.write(out, "50 Hz, all channels, motorcycle on the hill");
    Files.writeString(REPORT, out.toString());
    System.out.println(out);
    assertThat(fine.at("braking start (m)", 0.5)).isLessThan(1);
    assertThat(fine.at("braking start (m)", 0.95)).isLessThan(2.5);
    assertThat(fine.at("turn-in (m)", 0.5)).isLessThan(3);
    assertThat(fine.at("turn-in (m)", 0.95)).isLessThan(6);
    assertThat(fine.at("minimum speed (km/h)", 0.5)).isLessThan(0.5);
    assertThat(fine.at("minimum speed (km/h)", 0.95)).isLessThan(1);
    assertThat(fine.at("first throttle (m)", 0.5)).isLessThan(2);
    assertThat(fine.at("first throttle (m)", 0.95)).isLessThan(4);
    assertThat(fine.at("full throttle (m)", 0.5)).isLessThan(2);
    assertThat(fine.at("full throttle (m)", 0.95)).isLessThan(4);
    assertThat(fine.at("lap time (s)", 0.5)).isLessThan(0.01);
    assertThat(fine.at("lap time (s)", 0.95)).isLessThan(0.02);
    assertThat(fine.at("gear", 0.95)).isZero();
    assertThat(worn.at("braking start (m)", 0.5)).isLessThan(1.5);
    assertThat(worn.at("braking start (m)", 0.95)).isLessThan(4);
    assertThat(worn.at("lap time (s)", 0.95)).isLessThan(0.05);
    assertThat(fine.missed).isLessThan(fine.asked / 100 + 1);
  }
}
