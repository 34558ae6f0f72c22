package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import marvek.core.circuit.Centreline;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Day;
import marvek.core.entry.DayKind;
import marvek.core.entry.Detail;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.entry.Variant;
import marvek.core.entry.Wording;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.Plain;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.review.Consistency;
import marvek.core.review.Hazards;
import marvek.core.review.Warning;
import marvek.core.review.Worth;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.score.Sureness;
import marvek.core.survey.Kerb;
import marvek.core.survey.KerbProfile;
import marvek.core.survey.Things;
import marvek.core.survey.TrackLimit;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.technique.School;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What choices lead to: exits, gears, days, copies, warnings. */
@Tag("slow")
public class ConsequencesTest {
  private static final Example GT = Example.of("cup-gt");
  private static final Example WINGS = Example.of("downforce-prototype");

  /** Constant drive and braking, no drag: what closed forms are for. */
  private static ComputedLap pointMass() {
    Vehicle v =
        new Vehicle(
            VehicleKind.CAR,
            1000,
            1.8,
            2.5,
            1e-9,
            1.25,
            new Vehicle.Engine(
                List.of(new Vehicle.TorquePoint(0, 600), new Vehicle.TorquePoint(30_000, 600)),
                29_000,
                30_000),
            new Vehicle.Gearbox(List.of(2.0), 1, 0.3, 1, 0, Vehicle.Drive.ALL),
            new Vehicle.Tyres(1.2, 1.2, 0, 0),
            new Vehicle.Aero(0, 0),
            new Vehicle.Brakes(10_000, 0.5, 0),
            null,
            null);
    return Drives.computed(GT.survey, v);
  }

  @Test
  void whatAnExitIsWorthFollowsTheClosedForm() {
    // Constant acceleration a over L from v: t = (√(v² + 2aL) − v)/a; a = 600·2/0.3/1000 = 4 m/s².
    ComputedLap computed = pointMass();
    CornerEntry draft = Drafter.entry(computed, 0);
    Centreline road = computed.road();
    double full = road.wrap(draft.station(PointKind.EXIT).orElseThrow() + 60);
    CornerEntry entry = draft.copy().moved(PointKind.FULL_THROTTLE, full).done();
    CornerAnswer answer = Answers.answer(computed, entry);
    CornerAnswer.Profile p = answer.profile();
    double v = p.speed()[(int) Math.round(road.ahead(p.from(), full) / p.step())];
    double length = answer.exit().straight();
    double w = v + 1 / 3.6;
    double won = time(v, length) - time(w, length);
    assertThat(length).isGreaterThan(100);
    assertThat(answer.exit().seconds()).isCloseTo(won, within(0.02 * won));
    assertThat(answer.exit().atBraking())
        .isCloseTo(Math.sqrt(w * w + 8 * length) - Math.sqrt(v * v + 8 * length), within(0.002));
    assertThat(answer.exit().metres())
        .isCloseTo(answer.exit().seconds() * answer.minimumSpeed(), within(1e-9));
  }

  private static double time(double v, double length) {
    return (Math.sqrt(v * v + 8 * length) - v) / 4;
  }

  @Test
  void gearSpeedsAgreeWithTheHandbookRule() {
    // Handbook rule, from memory: mph = rpm × tyre diameter (in) / (overall ratio × 336).
    Vehicle v = GT.computed.vehicle();
    for (CornerAnswer.GearChoice g : GT.answer(GT.first()).gears()) {
      double overall = v.gearbox().ratios().get(g.gear() - 1) * v.gearbox().finalDrive();
      double inches = 2 * v.gearbox().rollingRadius() / 0.0254;
      double mph = v.engine().limitRevs() * 0.94 * inches / (overall * 336);
      assertThat(g.safeDown() * 3600 / 1609.344).isCloseTo(mph, within(0.002 * mph));
    }
  }

  @Test
  void aDownshiftForcedTooEarlyIsNotSafe() {
    double brake = GT.first().station(PointKind.BRAKE).orElseThrow();
    CornerEntry early = with(GT.first(), new CornerPoint(PointKind.DOWNSHIFT, brake + 2, null));
    CornerAnswer answer = GT.answer(early);
    assertThat(answer.shifts().down().get(0).safe()).isFalse();
    assertThat(rules(early, Things.none())).contains("OVER_REV");
    CornerAnswer own = GT.answer(GT.first());
    assertThat(own.shifts().down()).isNotEmpty().allMatch(CornerAnswer.Downshift::safe);
    assertThat(own.shifts().down())
        .extracting(CornerAnswer.Downshift::gear)
        .isSortedAccordingTo((a, b) -> b - a);
  }

  private static CornerEntry with(CornerEntry e, CornerPoint... more) {
    List<CornerPoint> points = new java.util.ArrayList<>(e.points());
    points.addAll(List.of(more));
    return e.copy().points(points).done();
  }

  @Test
  void aShortShiftCostsTimeAndTheLimiterTooOnALongStraight() {
    double full = GT.first().station(PointKind.FULL_THROTTLE).orElseThrow();
    CornerEntry shift = with(GT.first(), new CornerPoint(PointKind.SHORT_SHIFT, full + 3, null));
    CornerAnswer.Shifts shifts = GT.answer(shift).shifts();
    assertThat(Objects.requireNonNull(shifts.shortShiftCost())).isPositive();
    assertThat(Objects.requireNonNull(shifts.limiterCost())).isPositive();
  }

  private static Variant variant(DayKind kind, Day day) {
    return new Variant("v", kind, "", day, List.of());
  }

  private static Variants.Adjusted on(Example example, Variant v) {
    return Variants.adjust(
        example.computed,
        Variants.computed(example.computed, Footing.plain(List.of()), v.day()),
        v,
        example.first());
  }

  @Test
  void eachDayMovesThePointsTheWayItMust() {
    CornerEntry own = GT.first();
    double brake = own.station(PointKind.BRAKE).orElseThrow();
    for (DayKind kind : DayKind.values()) {
      Variants.Adjusted adjusted = on(GT, variant(kind, kind.usual()));
      double moved = adjusted.entry().station(PointKind.BRAKE).orElseThrow() - brake;
      switch (kind) {
        case COLD_TYRES, DAMP, WET, DRYING, WORN, TYRE_SAVING ->
            assertThat(moved).as(kind.name()).isNegative();
        case QUALIFYING -> {
          // One per cent of grip moves this marker by less than the metre it is rounded to.
          assertThat(moved).as(kind.name()).isNotNegative();
          assertThat(
                  Variants.computed(GT.computed, Footing.plain(List.of()), kind.usual())
                      .lap()
                      .lapTime())
              .isLessThan(GT.computed.lap().lapTime() - 0.1);
        }
        case OTHER_HOUR -> assertThat(adjusted.changes()).isEmpty();
        case FULL_TANK ->
            assertThat(
                    Variants.computed(GT.computed, Footing.plain(List.of()), kind.usual())
                        .lap()
                        .lapTime())
                .isGreaterThan(GT.computed.lap().lapTime() + 0.1);
        default -> assertThat(Math.abs(moved)).as(kind.name()).isLessThan(25);
      }
      assertThat(adjusted.changes()).allMatch(c -> !c.byHand());
    }
    assertThat(on(GT, variant(DayKind.WET, DayKind.WET.usual())).changes())
        .anyMatch(
            c ->
                c.kind() == PointKind.BRAKE
                    && Plain.words(c.words())
                        .matches("wet, grip 70 %, road wet: braking \\d+ m sooner"));
  }

  @Test
  void theModelCanBeSetToTheWetOfTheTradeAndSaysWhatGripThatMeans() {
    // Common practice, no source: with treaded tyres on a good surface a heavy stop of a downforce
    // car begins 5 to 10 m sooner.
    double brake = WINGS.first().station(PointKind.BRAKE).orElseThrow();
    double found = 0;
    for (double grip = 1; grip > 0.8 && found == 0; grip -= 0.01) {
      Variant v = variant(DayKind.WET, DayKind.WET.usual().withGrip(grip));
      double sooner = brake - on(WINGS, v).entry().station(PointKind.BRAKE).orElseThrow();
      if (sooner >= 7) {
        found = grip;
        assertThat(sooner).isBetween(5.0, 10.0);
        assertThat(on(WINGS, v).changes())
            .anyMatch(
                c ->
                    Plain.words(c.words())
                        .contains(String.format("grip %.0f %%", 100 * v.day().grip())));
      }
    }
    assertThat(found).isBetween(0.85, 0.98);
  }

  @Test
  void whatTheDriverSetsForADayStaysAndTheRestFollows() {
    Variant wet = variant(DayKind.WET, DayKind.WET.usual());
    Variants.Adjusted proposed = on(GT, wet);
    double at = proposed.entry().station(PointKind.BRAKE).orElseThrow() - 6;
    CornerEntry edited = proposed.entry().copy().moved(PointKind.BRAKE, at).gear(3).done();
    Variant.ByHand hand =
        Variants.byHand(GT.computed.road().length(), proposed.proposed(), edited).orElseThrow();
    assertThat(hand.points()).extracting(CornerPoint::kind).containsExactly(PointKind.BRAKE);
    Variant set = new Variant("v", wet.kind(), "", wet.day(), List.of(hand));
    Variants.Adjusted after = on(GT, set);
    assertThat(after.entry().station(PointKind.BRAKE)).contains(at);
    assertThat(after.entry().gear()).isEqualTo(3);
    assertThat(after.byHand()).containsExactly(PointKind.BRAKE);
    assertThat(after.entry().station(PointKind.FULL_THROTTLE))
        .isEqualTo(proposed.entry().station(PointKind.FULL_THROTTLE));
    assertThat(Variants.byHand(GT.computed.road().length(), proposed.proposed(), proposed.entry()))
        .isEmpty();
  }

  @Test
  void aCopyIsOnesOwnPlusWhatTheModelSaysHasChanged() {
    CornerEntry own = GT.moved(PointKind.BRAKE, 4);
    CornerEntry was = Drafter.entry(GT.computed, 0);
    CornerEntry is = Drafter.entry(WINGS.computed, 0);
    CornerEntry copied = Carried.entry(GT.computed.road(), own, was, is, 0.5, 6, Sureness.CARRIED);
    double model =
        is.station(PointKind.BRAKE).orElseThrow() - was.station(PointKind.BRAKE).orElseThrow();
    assertThat(copied.station(PointKind.BRAKE).orElseThrow())
        .isCloseTo(own.station(PointKind.BRAKE).orElseThrow() + model, within(0.26));
    assertThat(copied.points()).allMatch(p -> p.sure() == Sureness.CARRIED);
    assertThat(Carried.entry(GT.computed.road(), own, was, was, 0.5, 6, null)).isEqualTo(own);
  }

  private static List<String> rules(CornerEntry e, Things things) {
    return Consistency.corner(GT.computed, things, e, Answers.answer(GT.computed, things, e))
        .stream()
        .map(Warning::rule)
        .toList();
  }

  private static Things found(List<Kerb> kerbs, List<Zone> zones, List<TrackLimit> limits) {
    return new Things(GT.boards, kerbs, zones, limits, List.of());
  }

  private static Kerb shaped(Kerb k, KerbProfile profile, double height) {
    return new Kerb(
        k.id(),
        k.left(),
        k.from(),
        k.to(),
        k.corner(),
        k.part(),
        profile,
        k.width(),
        height,
        k.behind(),
        k.slippery(),
        k.verdict(),
        k.note(),
        k.photo());
  }

  private static Kerb kerb(Kerb.Part part, boolean left, Kerb.Verdict verdict) {
    double exit = GT.first().station(PointKind.EXIT).orElseThrow();
    return new Kerb(
        "k",
        left,
        exit - 20,
        exit + 15,
        "c1",
        part,
        KerbProfile.RAMP,
        1,
        0.05,
        Kerb.Behind.GRASS,
        false,
        verdict,
        "",
        "");
  }

  @Test
  void pedalsThatWereChangedSinceAWayWasTakenAreWarnedOf() {
    String rule = "PEDALS_AGAINST_CHOICE";
    CornerEntry plain = GT.first();
    double release = plain.station(PointKind.RELEASE).orElseThrow();
    CornerEntry never = plain.copy().schools(List.of(School.NEVER_COAST)).done();
    CornerEntry rolls = plain.copy().schools(List.of(School.COAST)).done();
    for (double metres : new double[] {1, 3, 12, 20}) {
      boolean far = metres > 8;
      PointKind first = PointKind.FIRST_THROTTLE;
      assertThat(rules(never.copy().moved(first, release + metres).done(), Things.none()))
          .as("%.0f m", metres)
          .matches(said -> said.contains(rule) == far);
      assertThat(rules(rolls.copy().moved(first, release + metres).done(), Things.none()))
          .as("%.0f m", metres)
          .matches(said -> said.contains(rule) == !far);
    }
    double first = plain.station(PointKind.FIRST_THROTTLE).orElseThrow();
    for (double metres : new double[] {4, 7, 10, 25}) {
      CornerEntry opens = plain.copy().moved(PointKind.FULL_THROTTLE, first + metres).done();
      for (School school : List.of(School.AT_ONCE, School.SQUEEZED)) {
        assertThat(rules(opens.copy().schools(List.of(school)).done(), Things.none()))
            .as("%s over %.0f m", school, metres)
            .matches(said -> said.contains(rule) == ((school == School.AT_ONCE) == metres > 8));
      }
    }
    assertThat(rules(plain.copy().schools(List.of(School.NO_BRAKE)).done(), Things.none()))
        .contains(rule);
    assertThat(rules(plain.copy().schools(List.of(School.BRAKED)).done(), Things.none()))
        .doesNotContain(rule);
    CornerEntry lifts =
        plain
            .copy()
            .slowing(Slowing.LIFT)
            .points(
                plain.points().stream()
                    .filter(p -> p.kind() != PointKind.BRAKE && p.kind() != PointKind.RELEASE)
                    .toList())
            .done();
    double turnIn = plain.station(PointKind.TURN_IN).orElseThrow();
    for (double kept : new double[] {0, 0.4}) {
      Action lift = Action.of("lift", ActionKind.LIFT, turnIn - 40, kept);
      CornerEntry written = lifts.copy().actions(List.of(lift)).done();
      assertThat(rules(written.copy().schools(List.of(School.BRAKED)).done(), Things.none()))
          .contains(rule);
      assertThat(rules(written.copy().schools(List.of(School.NO_BRAKE)).done(), Things.none()))
          .doesNotContain(rule);
      for (School school : List.of(School.LIFT_ALL, School.LIFT_SOME)) {
        assertThat(rules(written.copy().schools(List.of(school)).done(), Things.none()))
            .as("%s with %.1f kept", school, kept)
            .matches(said -> said.contains(rule) == ((school == School.LIFT_ALL) == kept > 0));
      }
    }
  }

  private static boolean warned(CornerEntry e, School school, String rule) {
    return rules(e.copy().schools(List.of(school)).done(), Things.none()).contains(rule);
  }

  @Test
  void aBrakeThatIsMovedAcrossTurnInAndALiftThatIsTakenOutAreWarnedOf() {
    String rule = "PEDALS_AGAINST_CHOICE";
    CornerEntry plain = GT.first();
    double turnIn = plain.station(PointKind.TURN_IN).orElseThrow();
    for (double past : new double[] {-60, -4, 4, 9}) {
      CornerEntry moved = plain.copy().moved(PointKind.BRAKE, turnIn + past).done();
      assertThat(warned(moved, School.HANDS_FIRST, rule)).isEqualTo(past < 0);
      assertThat(warned(moved, School.BRAKE_FIRST, rule)).isEqualTo(past > 0);
    }
    Action lift = Action.of("lift", ActionKind.LIFT, turnIn + 40, 0.5);
    for (boolean back : new boolean[] {false, true}) {
      CornerEntry lifts =
          plain.copy().actions(List.of(back ? lift.until(turnIn + 55) : lift)).done();
      assertThat(warned(lifts, School.SETTLED_BEFORE, rule)).isEqualTo(!back);
      assertThat(warned(lifts, School.HELD_FLAT, rule)).isEqualTo(back);
    }
  }

  @Test
  void aMarkerThatHangsOnMoreOrLessThanChosenIsWarnedOf() {
    String rule = "CUES_AGAINST_CHOICE";
    CornerEntry plain = GT.first();
    Action marker =
        Score.of(GT.computed.road(), plain).stream()
            .filter(a -> a.kind() == ActionKind.BRAKE)
            .findFirst()
            .orElseThrow();
    Cue one = Cue.of(CueKind.PAST, "a", "post", 3);
    CornerEntry alone = Score.with(plain, marker.found(one, null, null));
    CornerEntry two = Score.with(plain, marker.found(one, one.with(5), null));
    assertThat(warned(alone, School.ONE_MARKER, rule)).isFalse();
    assertThat(warned(alone, School.TWO_MARKERS, rule)).isTrue();
    assertThat(warned(two, School.ONE_MARKER, rule)).isTrue();
    assertThat(warned(two, School.TWO_MARKERS, rule)).isFalse();
    assertThat(warned(plain, School.TO_APEX, rule)).isFalse();
  }

  @Test
  void everyRuleWarnsWhenBrokenAndOnlyThen() {
    CornerEntry plain = GT.first();
    assertThat(rules(plain, found(List.of(), List.of(), List.of()))).isEmpty();
    double brake = plain.station(PointKind.BRAKE).orElseThrow();
    double turnIn = plain.station(PointKind.TURN_IN).orElseThrow();
    double apex = plain.station(PointKind.APEX).orElseThrow();
    assertThat(rules(GT.moved(PointKind.BRAKE, 60), Things.none())).contains("CANNOT_BE_MADE");
    assertThat(rules(plain.copy().moved(PointKind.FULL_THROTTLE, apex - 10).done(), Things.none()))
        .contains("APEX_AFTER_FULL");
    CornerEntry toApex = plain.copy().schools(List.of(School.TO_APEX)).done();
    assertThat(rules(toApex, Things.none())).doesNotContain("RELEASE_AGAINST_CHOICE");
    assertThat(rules(toApex.copy().moved(PointKind.RELEASE, turnIn - 8).done(), Things.none()))
        .contains("RELEASE_AGAINST_CHOICE");
    CornerEntry straight = plain.copy().schools(List.of(School.STRAIGHT)).done();
    assertThat(rules(straight.copy().moved(PointKind.RELEASE, turnIn).done(), Things.none()))
        .doesNotContain("RELEASE_AGAINST_CHOICE");
    assertThat(rules(straight.copy().moved(PointKind.RELEASE, turnIn + 12).done(), Things.none()))
        .contains("RELEASE_AGAINST_CHOICE");
    assertThat(
            rules(
                with(plain, new CornerPoint(PointKind.BACK_UP, brake + 45, null)),
                found(List.of(), List.of(), List.of())))
        .contains("BACK_UP_FARTHER");
    assertThat(
            rules(
                with(plain, new CornerPoint(PointKind.BACK_UP, brake + 1, null)),
                found(List.of(), List.of(), List.of())))
        .doesNotContain("BACK_UP_FARTHER");
    CornerEntry rides =
        plain
            .copy()
            .kerbs(List.of(new KerbUse(Kerb.Part.EXIT, Kerb.Verdict.HALF_THE_CAR, null, null, "")))
            .done();
    boolean outside = !GT.survey.corners().get(0).left();
    Kerb touch = kerb(Kerb.Part.EXIT, outside, Kerb.Verdict.TOUCH);
    assertThat(rules(rides, found(List.of(touch), List.of(), List.of())))
        .contains("KERB_AGAINST_VERDICT");
    Kerb half = kerb(Kerb.Part.EXIT, outside, Kerb.Verdict.HALF_THE_CAR);
    assertThat(rules(rides, found(List.of(half), List.of(), List.of())))
        .as("as much as the survey found good")
        .doesNotContain("KERB_AGAINST_VERDICT");
    // So high that the body, which follows half of the wheel's rise, does not clear it.
    double high = 2.8 * GT.computed.vehicle().floorOrUsual().rideHeight();
    Kerb sausage = shaped(half, KerbProfile.SAUSAGE, high);
    assertThat(rules(rides, found(List.of(sausage), List.of(), List.of())))
        .contains("FLOOR_ON_KERB");
    assertThat(
            rules(
                rides, found(List.of(shaped(half, KerbProfile.FLAT, 0.02)), List.of(), List.of())))
        .doesNotContain("FLOOR_ON_KERB");
    CornerEntry touches =
        plain
            .copy()
            .kerbs(List.of(new KerbUse(Kerb.Part.EXIT, Kerb.Verdict.TOUCH, null, null, "")))
            .done();
    assertThat(rules(touches, found(List.of(sausage), List.of(), List.of())))
        .as("no tyre goes so far")
        .doesNotContain("FLOOR_ON_KERB");
    TrackLimit limit =
        new TrackLimit(
            "l",
            "c1",
            Kerb.Part.EXIT,
            outside,
            TrackLimit.Line.WHITE_LINE,
            4,
            "",
            "Time deleted",
            List.of());
    assertThat(rules(rides, found(List.of(touch), List.of(), List.of(limit))))
        .contains("LIMIT_AT_EXIT");
    assertThat(rules(plain, found(List.of(touch), List.of(), List.of(limit))))
        .doesNotContain("LIMIT_AT_EXIT");
    kerbs(plain, outside, half);
    Zone wall =
        new Zone(
            "z",
            ZoneKind.WALL,
            outside ? Zone.Side.LEFT : Zone.Side.RIGHT,
            apex - 30,
            apex + 30,
            3,
            null,
            "",
            "");
    assertThat(rules(plain, found(List.of(), List.of(wall), List.of())))
        .containsExactly("NO_ESCAPE");
    CornerEntry planned =
        plain.copy().details(Map.of(Detail.ESCAPE, "slow it in a line first")).done();
    assertThat(rules(planned, found(List.of(), List.of(wall), List.of()))).isEmpty();
    CornerEntry worded = plain.copy().wording(new Wording("my words", "other points")).done();
    assertThat(rules(worded, Things.none())).contains("WORDING_DUE");
  }

  /** Where a kerb's front bites, where it throws, and where a limit holds it. */
  private static void kerbs(CornerEntry plain, boolean outside, Kerb half) {
    double bites = 9;
    for (double after : new double[] {-5, 2, 8, 9, 14}) {
      CornerEntry joins =
          plain
              .copy()
              .kerbs(
                  List.of(
                      new KerbUse(
                          Kerb.Part.EXIT, Kerb.Verdict.RIDE, half.from() + after, null, "")))
              .done();
      List<String> told = rules(joins, found(List.of(doing(half, bites)), List.of(), List.of()));
      assertThat(told.contains("KERB_FRONT")).as("%.0f m on", after).isEqualTo(after < bites);
      assertThat(rules(joins, found(List.of(half), List.of(), List.of())))
          .doesNotContain("KERB_FRONT", "KERB_THROWS");
      assertThat(
              rules(
                  joins,
                  found(List.of(doing(half, null, Kerb.Does.LAUNCHES)), List.of(), List.of())))
          .contains("KERB_THROWS");
    }
    Kerb inside =
        new Kerb(
            "i",
            !outside,
            half.from(),
            half.to(),
            "c1",
            Kerb.Part.APEX,
            KerbProfile.FLAT,
            1,
            0.02,
            Kerb.Behind.TARMAC,
            false,
            Kerb.Verdict.STRADDLE,
            "",
            "");
    for (Kerb.Verdict how : List.of(Kerb.Verdict.TOUCH, Kerb.Verdict.RIDE)) {
      for (int wheels : new int[] {2, 4}) {
        TrackLimit limit =
            new TrackLimit(
                "l",
                "c1",
                Kerb.Part.APEX,
                !outside,
                TrackLimit.Line.WHITE_LINE,
                wheels,
                "",
                "",
                List.of());
        CornerEntry uses =
            plain.copy().kerbs(List.of(new KerbUse(Kerb.Part.APEX, how, null, null, ""))).done();
        assertThat(
                rules(uses, found(List.of(inside), List.of(), List.of(limit)))
                    .contains("KERB_PAST_LIMIT"))
            .as("%s with %d inside", how, wheels)
            .isEqualTo(wheels == 4);
      }
    }
  }

  private static Kerb doing(Kerb k, @Nullable Double bites, Kerb.Does... does) {
    return new Kerb(
        k.id(),
        k.left(),
        k.from(),
        k.to(),
        k.corner(),
        k.part(),
        k.profile(),
        k.width(),
        k.height(),
        k.behind(),
        k.slippery(),
        k.verdict(),
        k.note(),
        k.photo(),
        bites,
        List.of(does));
  }

  @Test
  void theEscapePlanIsNeverEmptyWhereTheRunOffIsShort() {
    boolean outside = !GT.survey.corners().get(0).left();
    double apex = GT.first().station(PointKind.APEX).orElseThrow();
    Zone drop =
        new Zone(
            "z",
            ZoneKind.NO_RUN_OFF,
            outside ? Zone.Side.LEFT : Zone.Side.RIGHT,
            apex,
            apex + 40,
            2,
            null,
            "Drop",
            "");
    Hazards hazards =
        Hazards.of(GT.computed, found(List.of(), List.of(drop), List.of()), GT.first());
    assertThat(hazards.shortRunOff()).isTrue();
    assertThat(Plain.words(hazards.escape()))
        .contains("no room on the " + (outside ? "left" : "right"));
    assertThat(hazards.warnings())
        .anyMatch(w -> Plain.words(w).contains("no run-off") && Plain.words(w).contains("Drop"));
    CornerEntry flat = GT.first().copy().slowing(Slowing.FLAT).done();
    assertThat(
            Plain.words(
                Hazards.of(GT.computed, found(List.of(), List.of(drop), List.of()), flat).escape()))
        .isNotBlank();
  }

  @Test
  void whereOthersGoOffMoreIsKeptInHandAndMoreRoom() {
    String rule = "OTHERS_GO_OFF";
    CornerEntry e = GT.first();
    double apex = e.station(PointKind.APEX).orElseThrow();
    for (int severity = 1; severity <= 3; severity++) {
      Zone zone =
          new Zone("z", ZoneKind.GO_OFF, Zone.Side.LEFT, apex, apex + 60, severity, null, "", "");
      Things things = found(List.of(), List.of(zone), List.of());
      CornerAnswer answer = Answers.answer(GT.computed, things, e);
      double more =
          GT.computed.conditions().driving().margin()
              + 0.1 * severity
              - answer.braking().marginSeconds();
      assertThat(rules(e, things).contains(rule)).isEqualTo(more > 0.005);
      // Braked for so much sooner it is as careful as it is asked to be.
      double sooner = Math.max(0, more) * answer.arrivalSpeed() + 3;
      CornerEntry careful =
          e.copy().moved(PointKind.BRAKE, e.station(PointKind.BRAKE).orElseThrow() - sooner).done();
      assertThat(rules(careful, things)).doesNotContain(rule);
      // Two corners on nobody goes off.
      Zone far =
          new Zone("z", ZoneKind.GO_OFF, Zone.Side.LEFT, apex + 900, apex + 960, 3, null, "", "");
      assertThat(rules(e, found(List.of(), List.of(far), List.of()))).doesNotContain(rule);
    }
    assertThat(ZoneKind.GO_OFF.usual(3)).isGreaterThan(ZoneKind.GO_OFF.usual(1));
  }

  @Test
  void cornersAreOrderedByWhatTheyOfferUnlessTheDriverSaysOtherwise() {
    List<CornerEntry> entries = new java.util.ArrayList<>(GT.draft.corners());
    entries.set(2, Example.with(entries.get(2), moved(entries.get(2), -40), 2, ""));
    List<CornerAnswer> answers = entries.stream().map(GT::answer).toList();
    List<Worth> order = Worth.order(entries, answers);
    assertThat(order.get(0).corner()).isEqualTo("c3");
    assertThat(order).isSortedAccordingTo((a, b) -> Double.compare(b.seconds(), a.seconds()));
    CornerEntry first = entries.get(1);
    entries.set(
        1,
        new CornerEntry(
            first.corner(),
            first.slowing(),
            first.points(),
            first.approachGear(),
            first.approachSpeed(),
            first.firstEffort(),
            first.gear(),
            first.minimumSpeed(),
            first.apexType(),
            first.apexGap(),
            first.firstThrottle(),
            first.note(),
            first.schools(),
            0,
            0,
            null,
            first.details(),
            first.kerbs(),
            1,
            null,
            List.of(),
            List.of()));
    assertThat(Worth.order(entries, answers).get(0).corner()).isEqualTo("c2");
  }

  private static List<CornerPoint> moved(CornerEntry e, double by) {
    return e.points().stream()
        .map(p -> p.kind() == PointKind.BRAKE ? p.at(p.station() + by) : p)
        .toList();
  }

  @Test
  void aLineLaidAnewBetweenTwoPlacesJoinsWithoutAKink() {
    Centreline road = GT.computed.road();
    Room room = Room.on(road, GT.computed.vehicle());
    double[] ones = new double[road.size()];
    java.util.Arrays.fill(ones, 1);
    double[] base = GT.computed.path().offset();
    int from = road.index(GT.survey.corners().get(0).entry() - 100);
    double[] laid = MinimumCurvature.between(road, room, base, from, 320, ones);
    var path = marvek.core.lap.Path.over(road, laid);
    double sharpest = 0;
    for (int k = -5; k < 325; k++) {
      int i = Math.floorMod(from + k, road.size());
      int q = Math.floorMod(from + k + 1, road.size());
      sharpest = Math.max(sharpest, Math.abs(path.curvature()[q] - path.curvature()[i]));
      assertThat(laid[i]).isBetween(room.lower()[i] - 0.02, room.upper()[i] + 0.02);
    }
    assertThat(sharpest).as("change of curvature in a metre").isLessThan(0.0015);
    // Where it is not asked otherwise it stays close to the line of least bending it left.
    assertThat(laid[Math.floorMod(from - 3, road.size())])
        .isEqualTo(base[Math.floorMod(from - 3, road.size())]);
  }
}
