package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.LocalPlane;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Device;
import marvek.core.logger.Drive;
import marvek.core.logger.Mistake;
import marvek.core.logger.Plan;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.logger.Truth;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A motorcycle: two brakes, lean in place of steering. */
@Tag("slow")
class RiderTest {
  private static final ComputedLap DESK = Device.computed("motorcycle-600");
  private static final List<CornerEntry> DRAFT =
      Drafter.draft(DESK, Drafter.boards(DESK)).corners();

  private static Drive ride(Planted... habits) {
    return SimulatedDriver.drive(
        new Plan(DESK, DRAFT, List.of(habits), 3, 1.5, 0.97, 0, true), new Random(4));
  }

  private static List<String> rows(Drive driven) {
    List<String> rows = new ArrayList<>();
    new Recorder(driven, DESK.road(), null, Recorder.Noise.usual(), new Random(9))
        .table(50, rows::add);
    return rows;
  }

  private record Read(List<DrivenLap> laps, ReadReport report) {
    List<List<CornerEvents>> events() {
      EventFinder finder = new EventFinder(DESK.road(), DESK.corners(), DESK.limits(), DESK.path());
      return laps.stream().filter(l -> l.number() > 0).map(finder::find).toList();
    }
  }

  private static Read read(String text) throws Exception {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    Mapping mapping =
        RecordingFile.sniff(Arrays.copyOf(bytes, Math.min(bytes.length, RecordingFile.HEAD)));
    LocalPlane plane = mapping.format() == Mapping.Format.NMEA ? new LocalPlane(-8, 39) : null;
    List<DrivenLap> laps = new ArrayList<>();
    ReadReport report = new ReadReport();
    RecordingFile.read(
        new ByteArrayInputStream(bytes),
        mapping,
        new Blocks(new LapReader(DESK.road(), plane, DESK.vehicle(), report, laps::add)),
        report);
    return new Read(laps, report);
  }

  private static void agrees(Truth truth, Read read) {
    List<Truth.Lap> whole = truth.laps().stream().filter(l -> l.number() > 0).toList();
    assertThat(read.events()).hasSameSizeAs(whole);
    for (int lap = 0; lap < whole.size(); lap++) {
      for (Truth.Done d : whole.get(lap).corners()) {
        CornerEvents e =
            read.events().get(lap).stream()
                .filter(x -> x.corner().equals(d.corner()))
                .findFirst()
                .orElseThrow();
        assertThat(DESK.road().apart(d.brake(), e.brake())).as("brake").isBetween(-2.5, 2.5);
        assertThat(DESK.road().apart(d.release(), e.release())).as("release").isBetween(-4.0, 4.0);
        assertThat(DESK.road().apart(d.turnIn(), e.turnIn())).as("turn-in").isBetween(-6.0, 6.0);
      }
    }
  }

  @Test
  void aRidersPointsAreFoundFromTwoBrakesAndTheLean() throws Exception {
    Drive driven = ride();
    List<String> rows = rows(driven);
    assertThat(rows.get(0)).contains("front brake (bar)", "lean (deg)").doesNotContain("steering");
    Read read = read(String.join("\n", rows));
    agrees(driven.truth(), read);
    assertThat(read.report().remarks())
        .anyMatch(
            r ->
                Speaker.PLAIN
                    .say(r.words())
                    .contains("harder pressed of the front and the rear brake"));
  }

  @Test
  void theLeanIsThatOfBalanceInTheBend() {
    Drive d = ride();
    int steepest = 0;
    for (int i = 0; i < d.lean().length; i++) {
      steepest = Math.abs(d.lean()[i]) > Math.abs(d.lean()[steepest]) ? i : steepest;
    }
    // tan(lean) = a/g in a steady bend: Cossalter, Motorcycle Dynamics (from memory).
    assertThat(Math.tan(d.lean()[steepest]) * 9.80665)
        .isCloseTo(d.across()[steepest], within(1e-6));
    assertThat(Math.toDegrees(Math.abs(d.lean()[steepest]))).isBetween(35.0, 65.0);
  }

  @Test
  void whoUsesOneBrakeAloneIsSeenBrakingAllTheSame() throws Exception {
    Drive driven = ride();
    for (String gone : List.of("front brake (bar)", "rear brake (bar)")) {
      List<String> rows = rows(driven);
      rows.set(0, rows.get(0).replace(gone, "fork"));
      Read read = read(String.join("\n", rows));
      agrees(driven.truth(), read);
      assertThat(read.report().remarks())
          .anyMatch(r -> Speaker.PLAIN.say(r.words()).startsWith("Braking is that of the"));
    }
  }

  @Test
  void leanThatIsTakenBackIsACorrection() throws Exception {
    String corner = DRAFT.get(1).corner();
    Read read =
        read(String.join("\n", rows(ride(new Planted(Mistake.EXTRA_STEERING, corner, 1, 1)))));
    assertThat(read.events())
        .allSatisfy(
            lap ->
                assertThat(lap)
                    .anyMatch(e -> e.corner().equals(corner) && e.corrections() > 0)
                    .allMatch(e -> e.corner().equals(corner) || e.corrections() == 0));
  }

  @Test
  void linesOfTheDeviceCarryLeanWheelsAndKnocks() throws Exception {
    Drive driven = ride();
    List<String> lines = new ArrayList<>();
    new Recorder(driven, DESK.road(), new LocalPlane(-8, 39), Recorder.Noise.usual(), new Random(9))
        .nmea(10, 50, (due, line) -> lines.add(line));
    Read read = read(String.join("\r\n", lines));
    Trace t = read.laps().get(1).trace();
    assertThat(t.recorded(Channel.LEAN)).isTrue();
    assertThat(t.has(Channel.STEERING)).isFalse();
    assertThat(t.recorded(Channel.WHEEL_REAR)).isTrue();
    assertThat(t.recorded(Channel.VERTICAL)).isTrue();
    for (int i = t.begin(); i < t.end(); i += 50) {
      assertThat(t.of(Channel.WHEEL_FRONT)[i]).isCloseTo(t.speed()[i], within(3.0));
    }
  }
}
