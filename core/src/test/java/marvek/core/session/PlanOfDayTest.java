package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import marvek.core.circuit.LocalPlane;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.Debriefer;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Day;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.marker.MarkerJudge;
import marvek.core.numeric.Spread;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.said.Said;
import marvek.core.score.Sureness;
import marvek.core.survey.Things;
import marvek.core.telemetry.LapKind;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What is planned for a session, on roads that nobody drew. */
class PlanOfDayTest {
  private static final ZoneId ZONE = ZoneId.of("Europe/Lisbon");
  private static final Things NOTHING = Things.none();
  private static final ComputedLap BASE = Drives.computed(RandomRoads.of(4711, 420), "cup-gt");

  private static TrackSessionBuilder session(SessionKind kind, int minutes) {
    return TrackSessionBuilder.builder(
        TrackSession.of(
            kind, "One", Timing.of(new Start(LocalDateTime.of(2026, 6, 6, 14, 0), ZONE), minutes)));
  }

  private static ReferenceContent draft() {
    return new ReferenceContent(Drafter.draft(BASE, List.of()).corners());
  }

  /** The same with the marker of one corner unsure. */
  private static ReferenceContent unsure(String corner) {
    List<CornerEntry> out = new ArrayList<>();
    for (CornerEntry e : draft().corners()) {
      List<CornerPoint> points =
          e.points().stream()
              .map(
                  p ->
                      e.corner().equals(corner) && p.kind() == PointKind.BRAKE
                          ? p.sure(Sureness.UNSURE)
                          : p)
              .toList();
      out.add(e.copy().points(points).done());
    }
    return new ReferenceContent(out);
  }

  private static OnTheDay day(TrackSession s, ReferenceContent content) {
    Footing footing = Footing.plain(List.of());
    Day warm = Today.warm(s, BASE.vehicle());
    return OnTheDay.of(
        BASE,
        Variants.computed(BASE, footing, warm),
        Today.Roads.computed(BASE, footing),
        Spread.inTurn(),
        NOTHING,
        content,
        s,
        List.of(),
        new MarkerJudge.View(null, null, false, BASE.eye()));
  }

  private static PlanOfDay plan(TrackSession s, ReferenceContent content, @Nullable Lately lately) {
    OnTheDay day = day(s, content);
    List<Sentence.Words> words =
        day.entries().stream()
            .map(e -> Sentence.words(BASE.corners().get(BASE.indexOf(e.corner())), e, Speech.PLAIN))
            .toList();
    return PlanOfDay.of(
        day,
        new PlanOfDay.Ground(BASE, NOTHING, content, s, lately, List.of(), List.of(), null, 0),
        PlannedLine.of(day, NOTHING, words, Speech.PLAIN));
  }

  private static String braked() {
    return draft().corners().stream()
        .filter(e -> e.station(PointKind.BRAKE).isPresent())
        .max(java.util.Comparator.comparingDouble(CornerEntry::approachSpeed))
        .orElseThrow()
        .corner();
  }

  @Test
  void anUnsureMarkerIsApproachedFromWhereLessGripWouldStillMakeIt() {
    String corner = braked();
    for (DayKind kind : List.of(DayKind.DAMP, DayKind.WET)) {
      TrackSession s =
          session(SessionKind.PRACTICE, 40)
              .day(SessionDayBuilder.builder(SessionDay.usual()).day(kind.usual()).build())
              .build();
      PlanOfDay plan = plan(s, unsure(corner), null);
      assertThat(plan.rungs()).as(kind.name()).hasSize(1);
      RungLine line = plan.rungs().get(0);
      assertThat(line.rungs().corner()).isEqualTo(corner);
      double first = line.rungs().rungs().get(0);
      assertThat(first).isGreaterThan(1);
      ComputedLap then = plan.day().then();
      CornerEntry e =
          plan.lines().stream()
              .filter(l -> l.corner().equals(corner))
              .findFirst()
              .orElseThrow()
              .today()
              .entry();
      ComputedLap less =
          then.on(then.conditions().withGrip(then.conditions().grip() * (1 - Rungs.LESS_UNKNOWN)));
      Answers with = Answers.at(less, NOTHING, less.indexOf(corner));
      double marker = e.station(PointKind.BRAKE).orElseThrow();
      double margin = Answers.at(then, NOTHING, then.indexOf(corner)).margin(e);
      assertThat(margin).isGreaterThan(0);
      // Rungs are whole metres.
      assertThat(with.margin(braking(e, then.road().wrap(marker - first - 1))))
          .as("as much in hand as at the marker, with less grip")
          .isGreaterThanOrEqualTo(margin);
      assertThat(with.margin(braking(e, then.road().wrap(marker - 0.7 * first))))
          .as("not sooner than that asks for")
          .isLessThan(margin);
    }
  }

  private static CornerEntry braking(CornerEntry e, double station) {
    return e.copy()
        .points(
            e.points().stream().map(p -> p.kind() == PointKind.BRAKE ? p.at(station) : p).toList())
        .done();
  }

  @Test
  void aSureMarkerIsNotApproached() {
    assertThat(plan(session(SessionKind.PRACTICE, 40).build(), draft(), null).rungs()).isEmpty();
  }

  /** Worked by hand: floor(20·60 / lap) whole laps, one on which the leader ends, two before. */
  @Test
  void fuelOfARaceIsForWhatTheRuleAsks() {
    double lap = day(session(SessionKind.RACE, 20).build(), draft()).then().lap().lapTime();
    int whole = (int) Math.floor(1200 / lap);
    SessionFuel fuel = new SessionFuel(30.0, null, 2, 2, null, false, List.of(3.0, 3.2, 3.1));
    FuelLine line = plan(session(SessionKind.RACE, 20).fuel(fuel).build(), draft(), null).fuel();
    assertThat(line.laps()).isEqualTo(whole + 1 + 2);
    assertThat(line.need().own()).isEqualTo(3);
    assertThat(line.need().perLap()).isCloseTo(3.1, within(1e-9));
    assertThat(line.litres()).isCloseTo(line.need().litres(whole + 3) + 2, within(1e-9));
    assertThat(line.reaches()).isCloseTo(line.need().reaches(28, whole + 3), within(1e-9));
    assertThat(line.otherReaches()).isNull();
    SessionFuel again = SessionFuelBuilder.builder(fuel).oneMore(true).leader(lap / 2).build();
    assertThat(plan(session(SessionKind.RACE, 20).fuel(again).build(), draft(), null).fuel().laps())
        .isEqualTo((int) Math.floor(1200 / (lap / 2)) + 2 + 2);
  }

  @Test
  void anotherLoadCostsWhatItsMassCosts() {
    SessionFuel fuel = new SessionFuel(20.0, 60.0, 0, 0, null, false, List.of());
    TrackSession s = session(SessionKind.PRACTICE, 20).fuel(fuel).build();
    OnTheDay day = day(s, draft());
    double mass = 40 * FuelNeed.density(day.then().vehicle());
    ComputedLap heavier =
        day.then()
            .on(day.then().conditions().withExtraMass(day.then().conditions().extraMass() + mass));
    assertThat(day.heavier())
        .isCloseTo(heavier.lap().lapTime() - day.then().lap().lapTime(), within(1e-9))
        .isGreaterThan(0.1);
    assertThat(plan(s, draft(), null).fuel().otherCosts()).isEqualTo(day.heavier());
  }

  private static Lately lately(String corner, String cause, double grip) {
    Debrief none = Debriefer.times(List.of(), BASE);
    Debrief.HabitFinding habit =
        new Debrief.HabitFinding(
            cause, 1, 0.3, Said.NOTHING, Said.of("focus.chosen"), Said.NOTHING, null, List.of());
    Debrief.CornerFinding found =
        new Debrief.CornerFinding(
            corner,
            0.3,
            9,
            8.7,
            0.05,
            "",
            Map.of(),
            List.of(),
            List.of(),
            30,
            0.2,
            31,
            List.of(habit),
            Said.NOTHING,
            Said.NOTHING);
    Debrief debrief =
        new Debrief(
            8,
            none.best(),
            none.median(),
            none.theoretical(),
            none.planned(),
            1,
            List.of(),
            List.of(found),
            List.of());
    return new Lately(debrief, 8, grip);
  }

  @Test
  void whatTheLapsSpeakForIsWorkedOnWhereTheirDayWasLikeIt() {
    String corner = braked();
    TrackSession s = session(SessionKind.PRACTICE, 40).build();
    PlanOfDay alike = plan(s, draft(), lately(corner, "BRAKED_EARLY", 1));
    assertThat(alike.alike()).isTrue();
    assertThat(alike.evidence()).isEqualTo(8);
    assertThat(alike.focus()).extracting(f -> f.focus().corner()).containsExactly(corner);
    // What is worked on is approached, though its marker is sure.
    assertThat(alike.rungs()).extracting(r -> r.rungs().corner()).containsExactly(corner);

    PlanOfDay wet = plan(s, draft(), lately(corner, "BRAKED_EARLY", 0.8));
    assertThat(wet.alike()).isFalse();
    assertThat(wet.focus()).as("braking later is not told from another day").isEmpty();
    assertThat(plan(s, draft(), lately(corner, "TWO_PRESSES", 0.8)).focus())
        .as("what asks for nothing more is")
        .hasSize(1);
  }

  @Test
  void theDriversOwnChoiceStandsWhateverTheLapsSay() {
    List<String> ids = BASE.corners().stream().map(marvek.core.circuit.Corner::id).toList();
    List<String> own = List.of(ids.get(ids.size() - 1), ids.get(0));
    PlanOfDay plan =
        plan(
            session(SessionKind.PRACTICE, 40).focus(own).build(),
            draft(),
            lately(ids.get(1), "BRAKED_EARLY", 1));
    assertThat(plan.focus()).extracting(f -> f.focus().corner()).containsExactlyElementsOf(own);
    assertThat(plan.focus()).allMatch(FocusLine::chosen);
  }

  @Test
  void aStintEndsWhereTheDriverComesIn() {
    List<Settling.Timed> laps =
        List.of(
            new Settling.Timed(LapKind.OUT, 120),
            new Settling.Timed(LapKind.COLD, 95),
            new Settling.Timed(LapKind.TRAFFIC, 99),
            new Settling.Timed(LapKind.PUSH, 91),
            new Settling.Timed(LapKind.IN, 100),
            new Settling.Timed(LapKind.OUT, 120),
            new Settling.Timed(LapKind.PUSH, 90));
    assertThat(Settling.firstStint(laps)).containsExactly(95.0, null, 91.0);
  }

  /** In Lisbon on 6 June the sun rises near 5:11 UTC and sets near 19:59 (from memory). */
  @Test
  void theSunRisesAndSetsOnTheCircuitsDay() {
    Daylight light =
        Daylight.of(session(SessionKind.PRACTICE, 20).build(), new LocalPlane(-9.14, 38.72), 100)
            .orElseThrow();
    assertThat(light.rises())
        .isBetween(Instant.parse("2026-06-06T04:50:00Z"), Instant.parse("2026-06-06T05:35:00Z"));
    assertThat(light.sets())
        .isBetween(Instant.parse("2026-06-06T19:35:00Z"), Instant.parse("2026-06-06T20:20:00Z"));
  }
}
