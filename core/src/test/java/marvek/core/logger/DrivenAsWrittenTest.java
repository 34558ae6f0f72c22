package marvek.core.logger;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.Trace;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The simulated driver does what is written where corners reach into each other. */
class DrivenAsWrittenTest {
  /** Also where the corner before is lifted for and its apex comes after the marker. */
  @ParameterizedTest
  @CsvSource({
    "713, 280, single-seater",
    "720, 360, motorcycle-600",
    "851, 240, cup-gt",
    "852, 200, small-hatch"
  })
  void brakingBeginsAboutWhereItIsWritten(long seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
    int braked = 0;
    for (DrivenLap l : Drives.read(new Plan(lap, draft, List.of(), 3, 0, 1, 0, true), seed)) {
      Trace t = l.trace();
      double[] pressed = Objects.requireNonNull(t.of(Channel.BRAKE));
      for (CornerEntry e : draft) {
        double marker = e.station(PointKind.BRAKE).orElse(Double.NaN);
        double whole = 0;
        double soon = 0;
        for (int i = 0; i < t.size() && !Double.isNaN(marker); i++) {
          double past = lap.road().apart(marker, lap.road().wrap(t.station()[i]));
          whole = past > 0 && past < 80 ? Math.max(whole, pressed[i]) : whole;
          soon = past > 0 && past < 16 ? Math.max(soon, pressed[i]) : soon;
        }
        if (whole > 0.3) {
          braked++;
          assertThat(soon).as("%s of %d, lap %d", e.corner(), seed, l.number()).isGreaterThan(0.1);
        }
      }
    }
    assertThat(braked).isGreaterThan(4);
  }

  /** What the corner before has opened already is not shut to be opened again. */
  @ParameterizedTest
  @CsvSource({"783, 480, cup-gt, 2630, 2655", "760, 240, cup-gt, 882, 930"})
  void aThrottleThatIsOpenIsNotShutToOpenIt(
      long seed, double radius, String vehicle, double from, double to) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
    for (DrivenLap l : Drives.read(new Plan(lap, draft, List.of(), 3, 0, 1, 0, true), seed)) {
      Trace t = l.trace();
      double[] throttle = Objects.requireNonNull(t.of(Channel.THROTTLE));
      double[] brake = Objects.requireNonNull(t.of(Channel.BRAKE));
      double most = 0;
      for (int i = 0; i < t.size(); i++) {
        double at = lap.road().wrap(t.station()[i]);
        if (at > from && at < to && brake[i] < 0.03) {
          most = Math.max(most, throttle[i]);
          assertThat(throttle[i]).as("throttle at %.0f", at).isGreaterThan(most - 0.15);
        }
      }
      assertThat(most).isGreaterThan(0.5);
    }
  }

  /** A brake that is let go past the apex, where that is written, is not bled off before it. */
  @Test
  void aBrakeThatIsLetGoPastTheApexIsHeldUntilThen() {
    ComputedLap lap = Drives.computed(RandomRoads.of(720, 360), "motorcycle-600");
    List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
    CornerEntry e = draft.get(lap.indexOf("c11"));
    double brake = e.station(PointKind.BRAKE).orElseThrow();
    double release = e.station(PointKind.RELEASE).orElseThrow();
    assertThat(lap.road().apart(e.station(PointKind.APEX).orElseThrow(), release))
        .isGreaterThan(60);
    int seen = 0;
    for (DrivenLap l : Drives.read(new Plan(lap, draft, List.of(), 4, 1.5, 1, 0, true), 720)) {
      Trace t = l.trace();
      double[] pressed = Objects.requireNonNull(t.of(Channel.BRAKE));
      double early = 0;
      double late = 0;
      for (int i = 0; i < t.size(); i++) {
        double way =
            lap.road().apart(brake, lap.road().wrap(t.station()[i]))
                / lap.road().apart(brake, release);
        early = way > 0 && way < 0.2 ? Math.max(early, pressed[i]) : early;
        late = way > 0.3 && way < 0.45 ? Math.max(late, pressed[i]) : late;
      }
      if (early > 0.06) {
        seen++;
        assertThat(late).as("lap %d", l.number()).isGreaterThan(0.6 * early);
      }
    }
    assertThat(seen).isGreaterThan(0);
  }
}
