package marvek.core.logger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.RoadPosition;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Path;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The simulated driver does what it says it did. */
class SimulatedDriverTest {
  private static final String SECOND = Device.DRAFT.get(1).corner();

  private static Truth.Done done(Drive driven, int lap) {
    return driven.truth().laps().get(lap).corners().stream()
        .filter(d -> d.corner().equals(SECOND))
        .findFirst()
        .orElseThrow();
  }

  private static Drive clean(Planted... habits) {
    return SimulatedDriver.drive(
        new Plan(Device.DESK, Device.DRAFT, List.of(habits), 2, 0, 0.97, 0, false), new Random(1));
  }

  @Test
  void theSameSeedGivesTheSameDrive() {
    Drive a = Device.drive(2, 5);
    Drive b = Device.drive(2, 5);
    assertThat(a.time()).isEqualTo(b.time());
    assertThat(a.truth()).isEqualTo(b.truth());
    assertThat(Device.drive(2, 6).time()).isNotEqualTo(a.time());
  }

  @Test
  void withoutScatterThePointsAreThoseOfTheReference() {
    Truth.Done d = done(clean(), 1);
    double brake = Device.DRAFT.get(1).station(PointKind.BRAKE).orElseThrow();
    assertThat(Device.DESK.road().apart(brake, d.brake())).isBetween(-1.0, 1.0);
    assertThat(d.mistakes()).isEmpty();
    assertThat(d.gear()).isEqualTo(Device.DRAFT.get(1).gear());
  }

  @Test
  void timeSpeedAndDistanceBelongTogether() {
    Drive d = clean();
    double[] t = d.time();
    for (int i = 1; i < t.length; i++) {
      assertThat(t[i]).isGreaterThan(t[i - 1]);
      assertThat(d.speed()[i]).isBetween(3.0, 120.0);
      assertThat(d.brake()[i]).isBetween(0.0, 1.1);
      assertThat(d.throttle()[i]).isBetween(0.0, 1.0);
      assertThat(d.brake()[i] > 0.02 && d.throttle()[i] > 0.02).isFalse();
    }
    double sum = d.truth().laps().stream().mapToDouble(Truth.Lap::lapTime).sum();
    assertThat(sum).isCloseTo(d.duration(), within(0.2));
  }

  /** Who turns in a metre or two elsewhere bends the line there, and by no kink at the apex. */
  @ParameterizedTest
  @CsvSource({"706, 200, small-hatch", "706, 240, cup-gt", "712, 200, small-hatch"})
  void aCleanLapIsSteeredWithoutKinks(long seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    Plan plan =
        new Plan(lap, Drafter.draft(lap, List.of()).corners(), List.of(), 4, 1.5, 1, 0, false);
    Drive d = SimulatedDriver.drive(plan, new Random(seed));
    Path path = lap.path();
    int n = path.size();
    List<Double> tighter = new ArrayList<>();
    for (int k = 0; k < d.time().length; k++) {
      double bends = Math.abs(d.across()[k]) / (d.speed()[k] * d.speed()[k]);
      int i = lap.road().index(lap.road().wrap(d.station()[k]));
      double planned = 0;
      for (int j = -20; j <= 20; j++) {
        planned = Math.max(planned, Math.abs(path.curvature()[Math.floorMod(i + j, n)]));
      }
      if (planned > 1 / 60.0) {
        tighter.add(bends / planned);
      }
    }
    assertThat(tighter).hasSizeGreaterThan(400);
    assertThat(tighter).allMatch(by -> by < 1.25);
  }

  @Test
  void mistakesDoWhatTheyAreCalled() {
    Truth.Done plain = done(clean(), 1);
    var road = Device.DESK.road();
    Truth.Done late = done(clean(new Planted(Mistake.BRAKES_LATE_RUNS_DEEP, SECOND, 1, 1)), 1);
    assertThat(road.apart(plain.brake(), late.brake())).isCloseTo(9, within(1.1));
    assertThat(road.apart(plain.fullThrottle(), late.fullThrottle())).isGreaterThan(10);
    Truth.Done early = done(clean(new Planted(Mistake.BRAKES_EARLY, SECOND, 1, 1)), 1);
    assertThat(road.apart(plain.brake(), early.brake())).isCloseTo(-16, within(1.1));
    Truth.Done slow = done(clean(new Planted(Mistake.OVER_SLOWED, SECOND, 1, 1)), 1);
    assertThat(slow.minimumSpeed()).isLessThan(0.95 * plain.minimumSpeed());
    Truth.Done coasts = done(clean(new Planted(Mistake.COASTS, SECOND, 1, 1)), 1);
    assertThat(road.apart(plain.firstThrottle(), coasts.firstThrottle())).isGreaterThan(12);
    Truth.Done soon = done(clean(new Planted(Mistake.RELEASES_SOON, SECOND, 1, 1)), 1);
    assertThat(road.apart(plain.release(), soon.release())).isLessThan(-12);
    Truth.Done high = done(clean(new Planted(Mistake.GEAR_TOO_HIGH, SECOND, 1, 1)), 1);
    assertThat(high.gear()).isEqualTo(plain.gear() + 1);
    assertThat(high.mistakes()).containsExactly(Mistake.GEAR_TOO_HIGH);
    assertThat(late.mistakes()).containsExactly(Mistake.BRAKES_LATE_RUNS_DEEP);
  }

  @Test
  void mistakesCostTimeAndNoneGainsAny() {
    double plain = clean().truth().laps().get(1).lapTime();
    for (Mistake m :
        List.of(
            Mistake.OVER_SLOWED,
            Mistake.COASTS,
            Mistake.FULL_THROTTLE_LATE,
            Mistake.RELEASES_LATE)) {
      assertThat(clean(new Planted(m, SECOND, 1, 1)).truth().laps().get(1).lapTime())
          .as(m.name())
          .isGreaterThan(plain + 0.02);
    }
    // Striking a kerb is the shorter way, and uneven braking is as often late as early.
    for (Mistake m :
        EnumSet.complementOf(EnumSet.of(Mistake.STRIKES_THE_KERB, Mistake.UNEVEN_BRAKING))) {
      assertThat(clean(new Planted(m, SECOND, 1, 1)).truth().laps().get(1).lapTime())
          .as(m.name())
          .isGreaterThan(plain - 0.01);
    }
  }

  @Test
  void theDeviceWritesWhatWasDriven() {
    Drive d = clean();
    List<String> rows = new ArrayList<>();
    new Recorder(d, Device.DESK.road(), null, Recorder.Noise.none(), new Random(1))
        .table(50, rows::add);
    assertThat(rows.get(0)).startsWith("time (s),x (m),y (m),speed (km/h)");
    assertThat(rows).hasSize((int) (d.duration() * 50) + 2);
    String[] c = rows.get(501).split(",");
    RoadPosition at =
        RoadPosition.nearest(
            Device.DESK.road(), Double.parseDouble(c[1]), Double.parseDouble(c[2]));
    int k = 0;
    while (d.time()[k] < 10) {
      k++;
    }
    assertThat(Device.DESK.road().apart(at.station(), d.station()[k])).isBetween(-1.5, 1.5);
    assertThat(Double.parseDouble(c[3]) / 3.6).isCloseTo(d.speed()[k], within(0.5));
  }

  @Test
  void sentencesCarryTheirChecksumAndNeedAPlace() {
    List<String> lines = new ArrayList<>();
    Drive d = clean();
    new Recorder(
            d, Device.DESK.road(), new LocalPlane(-8, 39), Recorder.Noise.usual(), new Random(1))
        .nmea(10, 50, (due, line) -> lines.add(line));
    assertThat(lines.stream().filter(l -> l.startsWith("$GPRMC")).count())
        .isCloseTo((long) (d.duration() * 10), within(2L));
    assertThat(lines.stream().filter(l -> l.startsWith("$PMKV")).count())
        .isCloseTo((long) (d.duration() * 50), within(2L));
    for (String l : lines.subList(0, 50)) {
      int sum = 0;
      for (char ch : l.substring(1, l.indexOf('*')).toCharArray()) {
        sum ^= ch;
      }
      assertThat(l).endsWith(String.format("*%02X", sum));
    }
    Recorder nowhere =
        new Recorder(d, Device.DESK.road(), null, Recorder.Noise.none(), new Random(1));
    assertThatThrownBy(() -> nowhere.nmea(10, 0, (due, line) -> {}))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void decimalsAreWrittenAsAFormatterWould() {
    for (double v : new double[] {0, 1.005, -3.14159, 99.9996, -0.0001, 12345.678}) {
      double shown = Double.parseDouble(Recorder.fixed(v, 3));
      assertThat(shown).isCloseTo(v, within(5.001e-4));
    }
    assertThat(Recorder.fixed(-0.0001, 3)).isEqualTo("0.000");
    assertThat(Recorder.fixed(7, 0)).isEqualTo("7");
  }

  @Test
  void plansThatMakeNoSenseAreRefused() {
    assertThatThrownBy(() -> new Plan(Device.DESK, Device.DRAFT, List.of(), 0, 1, 0.98, 0, true))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(
            () -> new Plan(Device.DESK, Device.DRAFT, List.of(), 3, Double.NaN, 0.98, 0, true))
        .isInstanceOf(IllegalArgumentException.class);
  }

  /** Whatever the draft of a road says: a bend is no faster for the driver than for the tyres. */
  @Test
  void nobodyIsFasterThroughABendThanTheTyresBear() {
    for (Object[] on :
        new Object[][] {
          {722, 240.0, "motorcycle-600"},
          {63, 260.0, "small-hatch"},
          {64, 260.0, "downforce-prototype"}
        }) {
      int seed = (int) on[0];
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, (double) on[1]), (String) on[2]);
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      List<DrivenLap> laps = Drives.read(new Plan(lap, draft, List.of(), 2, 1.5, 1, 0, true), seed);
      assertThat(laps).isNotEmpty();
      for (DrivenLap driven : laps) {
        double[] at = driven.trace().station();
        double[] v = driven.trace().speed();
        double since = Double.NaN;
        for (int i = 0; i < at.length; i++) {
          double bears = lap.limits().cornerSpeed(lap.path(), lap.road().index(at[i]));
          boolean over = v[i] > 1.15 * bears;
          since = !over ? Double.NaN : Double.isNaN(since) ? at[i] : since;
          assertThat(over ? at[i] - since : 0)
              .as("metres too fast at %.0f of %d: %.1f m/s", at[i], seed, v[i])
              .isLessThan(15);
        }
      }
    }
  }

  /** A braking that goes on past the start line is not let go there. */
  @Test
  void whatIsBrakedAcrossTheLineIsBrakedOn() {
    ComputedLap lap = Drives.computed(RandomRoads.of(763, 200), "small-hatch");
    List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
    CornerEntry last = draft.get(draft.size() - 1);
    double on = last.station(PointKind.RELEASE).orElseThrow();
    assertThat(on).isBetween(15.0, 60.0);
    List<DrivenLap> laps = Drives.read(new Plan(lap, draft, List.of(), 3, 0, 1, 0, true), 1);
    assertThat(laps).hasSize(3);
    for (DrivenLap driven : laps.subList(1, 3)) {
      double[] at = driven.trace().station();
      double[] brake = Objects.requireNonNull(driven.trace().of(Channel.BRAKE));
      int pressed = 0;
      for (int i = 0; i < at.length; i++) {
        if (at[i] > 0.5 && at[i] < on / 2) {
          assertThat(brake[i]).as("brake at %.1f", at[i]).isGreaterThan(0.03);
          pressed++;
        }
      }
      assertThat(pressed).isGreaterThan(2);
    }
  }
}
