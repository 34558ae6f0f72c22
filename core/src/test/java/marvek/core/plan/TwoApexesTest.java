package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.Tracks;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.SimulatedDriver;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.ways.Choices;
import org.junit.jupiter.api.Test;

/** A long straight into a bend of two apexes, the second the slower, and the same once more. */
class TwoApexesTest {
  private static final ComputedLap DESK = computed();
  private static final CornerEntry ENTRY =
      Drafter.draft(DESK, Drafter.boards(DESK)).corners().get(0);

  private static ComputedLap computed() {
    Tracks road = Tracks.every(4);
    for (int half = 0; half < 2; half++) {
      road.straight(500).bend(60, 78, 20).arc(230, 16).bend(48, 86, 20);
    }
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(road.csv()), new CircuitReader.Choices(false, 200, 12, false));
    return Drives.computed(survey, "cup-gt");
  }

  private static double at(PointKind kind) {
    return ENTRY.station(kind).orElseThrow();
  }

  private static double lapSpeed(double station) {
    return DESK.lap().speed()[DESK.road().index(station)];
  }

  @Test
  void theLapSlowsForBothAndTheSecondIsTheSlower() {
    assertThat(DESK.lines().get(0).apexes()).hasSize(2);
    double first = lapSpeed(at(PointKind.FIRST_APEX));
    assertThat(lapSpeed(at(PointKind.APEX))).isLessThan(first);
    double quickest = 0;
    for (double s = at(PointKind.FIRST_APEX); s < at(PointKind.APEX); s++) {
      quickest = Math.max(quickest, lapSpeed(s));
    }
    assertThat(quickest).isGreaterThan(first + 0.5);
  }

  @Test
  void theMarkerIsForTheBrakingOffTheStraight() {
    assertThat(ENTRY.slowing()).isEqualTo(Slowing.BRAKE);
    assertThat(ENTRY.points().stream().map(CornerPoint::kind))
        .containsSubsequence(
            PointKind.BRAKE,
            PointKind.RELEASE,
            PointKind.FIRST_THROTTLE,
            PointKind.APEX,
            PointKind.FULL_THROTTLE,
            PointKind.EXIT);
    assertThat(DESK.road().apart(at(PointKind.BRAKE), at(PointKind.FIRST_APEX))).isGreaterThan(40);
    assertThat(DESK.road().apart(at(PointKind.RELEASE), at(PointKind.FIRST_APEX)))
        .isBetween(-5.0, 15.0);
    assertThat(at(PointKind.FIRST_THROTTLE)).isLessThan(at(PointKind.APEX) - 20);
    assertThat(ENTRY.approachSpeed()).isGreaterThan(1.4 * ENTRY.minimumSpeed());
  }

  /** Against the simulated lap, which knows nothing of markers. */
  @Test
  void theLastPlaceToBrakeLeavesRoomForTheFirstApex() {
    CornerAnswer.BrakingNumbers braking = Answers.answer(DESK, ENTRY).braking();
    assertThat(braking.makesIt()).isTrue();
    assertThat(braking.marginMetres()).isBetween(3.0, 15.0);
    int lap = DESK.road().index(at(PointKind.FIRST_APEX) - 15);
    while (DESK.lap().brake()[lap] > 0.01) {
      lap--;
    }
    assertThat(braking.limitStation()).isCloseTo(lap * DESK.road().step(), within(3.0));
    CornerEntry late =
        ENTRY
            .copy()
            .moved(PointKind.BRAKE, at(PointKind.BRAKE) + braking.marginMetres() + 5)
            .done();
    assertThat(Answers.answer(DESK, late).braking().makesIt()).isFalse();
  }

  @Test
  void betweenThemTheThrottleIsHeldNoQuickerThanTheSecondAllows() {
    CornerAnswer answer = Answers.answer(DESK, ENTRY);
    CornerAnswer.Profile p = answer.profile();
    List<Double> held = new ArrayList<>();
    double pressed = 0;
    double slowest = DESK.lap().speed()[DESK.slowest(0)];
    for (int i = 0; i < p.speed().length; i++) {
      double s = DESK.road().wrap(p.from() + i * p.step());
      if (s > at(PointKind.FIRST_THROTTLE) + 5 && s < at(PointKind.APEX) - 5) {
        double lap = DESK.lap().speed()[DESK.road().index(s)];
        assertThat(p.speed()[i]).isBetween(slowest - 0.5, 1.03 * lap);
        held.add(p.throttle()[i]);
        pressed = Math.max(pressed, p.brake()[i]);
      }
    }
    // On the throttle, on the brake for the second, and on the throttle again.
    assertThat(held).anyMatch(t -> t > 0.4).anyMatch(t -> t < 0.05);
    assertThat(pressed).isBetween(0.1, 0.6);
    assertThat(answer.lapEffect()).isBetween(0.0, 0.15);
  }

  private static CornerEntry chosen(School school) {
    return Choices.choose(DESK, Things.none(), List.of(ENTRY), ENTRY.corner(), school).get(0);
  }

  @Test
  void theBrakeIsBledToTheFirstApexOrLetGoBeforeIt() {
    double first = at(PointKind.FIRST_APEX);
    double bled = chosen(School.TO_APEX).station(PointKind.RELEASE).orElseThrow();
    double early = chosen(School.EARLY_ROLL).station(PointKind.RELEASE).orElseThrow();
    assertThat(DESK.road().apart(bled, first)).isBetween(0.0, 12.0);
    assertThat(DESK.road().apart(early, first)).isGreaterThan(25);
  }

  @Test
  void elsewhereTheFirstApexGoesByItsOwnPlaceOrWithTheLine() {
    double first = at(PointKind.FIRST_APEX);
    CornerEntry further =
        ENTRY
            .copy()
            .moved(PointKind.FIRST_APEX, first + 6)
            .moved(PointKind.APEX, at(PointKind.APEX) + 1)
            .done();
    CornerEntry moved = Carried.entry(DESK.road(), ENTRY, ENTRY, further, 0.5, 6, null);
    assertThat(moved.station(PointKind.FIRST_APEX)).contains(first + 6);
    CornerEntry once =
        Example.with(
            ENTRY,
            ENTRY.points().stream().filter(p -> p.kind() != PointKind.FIRST_APEX).toList(),
            ENTRY.gear(),
            "");
    CornerEntry carried = Carried.entry(DESK.road(), ENTRY, ENTRY, once, 0.5, 6, null);
    assertThat(carried.point(PointKind.FIRST_APEX)).isEmpty();
    assertThat(carried.point(PointKind.RELEASE)).isPresent();
  }

  @Test
  void everyShapeOfTheBrakeCanBeDriven() {
    for (School school : List.of(School.FRONT_LOADED, School.PROGRESSIVE)) {
      CornerAnswer answer = Answers.answer(DESK, chosen(school));
      assertThat(answer.braking().makesIt()).as(school.name()).isTrue();
      assertThat(answer.pressing().asks()).as(school.name()).isLessThan(1.04);
      assertThat(answer.lapEffect()).as(school.name()).isBetween(0.0, 0.6);
    }
  }

  @Test
  void whoDrivesTheDraftMeetsBoth() {
    List<CornerEntry> all = Drafter.draft(DESK, List.of()).corners();
    Drive driven =
        SimulatedDriver.drive(new Plan(DESK, all, List.of(), 2, 0, 0.98, 0, false), new Random(1));
    double length = DESK.road().length();
    for (int i = 0; i < driven.time().length; i++) {
      double s = driven.station()[i];
      if (s > length && s < 2 * length) {
        double most = DESK.lap().cornerSpeed()[DESK.road().index(s)];
        assertThat(driven.speed()[i]).as("at " + (s - length)).isLessThan(1.03 * most);
      }
    }
  }
}
