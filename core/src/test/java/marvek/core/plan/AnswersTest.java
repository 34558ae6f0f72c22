package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import marvek.core.anew.Refresh;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.Tracks;
import marvek.core.lap.Conditions;
import marvek.core.lap.Driving;
import marvek.core.marker.Landmark;
import marvek.core.plan.CornerAnswer.BrakingNumbers;
import marvek.core.refusal.Refusal;
import marvek.core.survey.Things;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@Tag("slow")
class AnswersTest {
  private static Example gt;

  @BeforeAll
  static void draft() {
    gt = Example.of("cup-gt");
  }

  private static BrakingNumbers braking(CornerEntry e) {
    return Objects.requireNonNull(gt.answer(e).braking());
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "small-hatch",
        "cup-gt",
        "single-seater",
        "downforce-prototype",
        "motorcycle-600",
        "motorcycle-1000"
      })
  void everyClassGetsACompleteDraftThatCanBeMade(String vehicle) {
    Example example = Example.of(vehicle);
    Centreline road = example.computed.road();
    for (CornerEntry e : example.draft.corners()) {
      assertThat(e.slowing()).isEqualTo(Slowing.BRAKE);
      assertThat(e.points())
          .extracting(CornerPoint::kind)
          .containsAll(Stream.of(PointKind.values()).filter(PointKind::drafted).toList());
      double brake = e.station(PointKind.BRAKE).orElseThrow();
      double apex = e.station(PointKind.APEX).orElseThrow();
      double exit = e.station(PointKind.EXIT).orElseThrow();
      assertThat(road.apart(brake, apex)).isPositive();
      assertThat(road.apart(apex, exit)).isPositive();
      assertThat(e.approachSpeed()).isGreaterThan(e.minimumSpeed() * 1.15);
      assertThat(e.approachGear()).isGreaterThanOrEqualTo(e.gear());
      // Common practice, no source: a heavy stop is 80–90 % at first.
      assertThat(e.firstEffort()).isBetween(0.8, 0.9);
      CornerAnswer answer = example.answer(e);
      BrakingNumbers b = Objects.requireNonNull(answer.braking());
      assertThat(b.makesIt()).isTrue();
      assertThat(b.marginSeconds()).isCloseTo(Driving.FULL.margin(), within(0.06));
      assertThat(b.needMean()).isLessThan(b.capability());
      assertThat(answer.remarks()).isEmpty();
    }
  }

  @Test
  void movingTheMarkerMovesTheMarginByAsMuch() {
    BrakingNumbers now = braking(gt.first());
    BrakingNumbers sooner = braking(gt.moved(PointKind.BRAKE, -10));
    assertThat(sooner.marginMetres() - now.marginMetres()).isCloseTo(10, within(0.6));
    assertThat(sooner.limitStation()).isCloseTo(now.limitStation(), within(0.6));
    assertThat(sooner.needMean()).isLessThan(now.needMean());
    assertThat(gt.answer(gt.moved(PointKind.BRAKE, -10)).lapEffect())
        .isGreaterThan(Objects.requireNonNull(gt.answer(gt.first()).lapEffect()));
  }

  @Test
  void pastTheLastPlaceItSaysSoAndGivesNoTime() {
    double margin = braking(gt.first()).marginMetres();
    CornerAnswer late = gt.answer(gt.moved(PointKind.BRAKE, margin + 4));
    BrakingNumbers b = Objects.requireNonNull(late.braking());
    assertThat(b.makesIt()).isFalse();
    assertThat(b.marginMetres()).isCloseTo(-4, within(1.2));
    assertThat(b.needMean()).isGreaterThan(b.capability());
    assertThat(late.lapEffect()).isNull();
    assertThat(late.time()).isNull();
    CornerAnswer just = gt.answer(gt.moved(PointKind.BRAKE, margin - 1.5));
    assertThat(Objects.requireNonNull(just.braking()).makesIt()).isTrue();
    assertThat(Objects.requireNonNull(just.lapEffect())).isCloseTo(0, within(0.03));
  }

  @Test
  void needAgreesWithConstantDecelerationByHand() {
    // v² − u² = 2as between the marker and turn-in, with the plan's own speeds read off it.
    CornerAnswer answer = gt.answer(gt.first());
    BrakingNumbers b = Objects.requireNonNull(answer.braking());
    CornerAnswer.Profile p = answer.profile();
    Centreline road = gt.computed.road();
    double brake = gt.first().station(PointKind.BRAKE).orElseThrow();
    double turnIn = gt.first().station(PointKind.TURN_IN).orElseThrow();
    double v = speedAt(p, road, brake);
    double u = speedAt(p, road, turnIn);
    assertThat(b.needMean())
        .isCloseTo((v * v - u * u) / (2 * road.apart(brake, turnIn)), within(0.6));
  }

  private static double speedAt(CornerAnswer.Profile p, Centreline road, double station) {
    int k = (int) Math.round(road.ahead(p.from(), station) / p.step());
    return p.speed()[k];
  }

  @Test
  void sensitivitiesHaveTheirSignAndSize() {
    CornerAnswer.Sensitivity s = braking(gt.first()).sensitivity();
    double v = gt.answer(gt.first()).arrivalSpeed();
    double a = braking(gt.first()).capability();
    // v dv / a: metres for 1 km/h more, by the same deceleration.
    assertThat(s.perKmh()).isCloseTo(v / 3.6 / a, within(0.35));
    assertThat(s.perPercentGrip()).isBetween(0.2, 3.0);
    assertThat(s.perTenKilograms()).isBetween(0.0, 1.0);
    assertThat(s.perPercentGradient()).isBetween(0.2, 2.5);
    assertThat(s.perTenthSecond()).isCloseTo(v * 0.1, within(1e-9));
  }

  @Test
  void laterThrottleEarlierReleaseAndWrongGearCostTime() {
    double base = Objects.requireNonNull(gt.answer(gt.first()).lapEffect());
    for (CornerEntry worse :
        new CornerEntry[] {
          gt.moved(PointKind.FULL_THROTTLE, 45),
          gt.moved(PointKind.FIRST_THROTTLE, 18),
          gt.moved(PointKind.RELEASE, -20),
          gt.moved(PointKind.APEX, 14),
          gt.moved(PointKind.TURN_IN, -14),
          Example.with(gt.first(), gt.first().points(), gt.first().gear() + 2, "")
        }) {
      assertThat(gt.answer(worse).lapEffect()).isNotNull().isGreaterThan(base + 0.004);
    }
  }

  @Test
  void gearsAreGuardedAgainstOverRevvingAndOneCostsNothing() {
    CornerAnswer answer = gt.answer(gt.first());
    double limit = gt.computed.vehicle().engine().limitRevs();
    double mass = gt.computed.limits().mass();
    double turn = answer.gears().get(0).pull() * answer.gears().get(0).bears();
    for (CornerAnswer.GearChoice g : answer.gears()) {
      assertThat(g.pull())
          .isCloseTo(
              gt.computed.vehicle().wheelForce(answer.minimumSpeed(), g.gear()) / mass,
              within(0.02 * g.pull() + 1e-9));
      assertThat(g.bears()).isBetween(0.0, 1.0);
      // What the tyres bear is the same in every gear; a higher gear asks for less of it.
      assertThat(g.bears() < 1 ? g.pull() * g.bears() : turn).isCloseTo(turn, within(1e-6));
    }
    assertThat(answer.gears()).hasSize(6);
    assertThat(answer.gears())
        .filteredOn(CornerAnswer.GearChoice::usable)
        .allMatch(g -> g.revsAtMinimum() <= limit)
        .extracting(CornerAnswer.GearChoice::cost)
        .contains(0.0);
    CornerAnswer low = gt.answer(Example.with(gt.first(), gt.first().points(), 1, ""));
    assertThat(low.remarks()).anyMatch(r -> r.key().equals("plan.over_revs"));
  }

  @Test
  void pointsOutOfOrderAreSaid() {
    assertThat(gt.answer(gt.moved(PointKind.APEX, 300)).remarks())
        .anyMatch(r -> Plain.words(r).equals("Exit comes before apex."));
    assertThat(gt.answer(gt.moved(PointKind.FULL_THROTTLE, -80)).remarks())
        .anyMatch(r -> Plain.words(r).startsWith("Full throttle comes before"));
  }

  @Test
  void anUnknownCornerIsRefused() {
    CornerEntry e = gt.first();
    CornerEntry other =
        new CornerEntry(
            "c99", e.slowing(), e.points(), 3, 50, 0.9, 2, 20, e.apexType(), 1, 0.4, "");
    assertThatThrownBy(() -> gt.answer(other)).hasMessageContaining("c99");
    assertThatThrownBy(
            () -> ContentCheck.entry(gt.survey.corners(), gt.computed.road().length(), 6, other))
        .isInstanceOf(Refusal.class);
  }

  @Test
  void boardsStandBeforeBrakedCornersOnTheOutside() {
    assertThat(gt.boards).isNotEmpty().allMatch(l -> !l.left());
    for (Corner corner : gt.survey.corners()) {
      double[] distances =
          gt.boards.stream()
              .filter(l -> l.corner().equals(corner.id()))
              .sorted(Comparator.comparing((Landmark l) -> -Double.parseDouble(l.label())))
              .mapToDouble(l -> gt.computed.road().ahead(l.station(), corner.entry()))
              .toArray();
      assertThat(distances).containsExactly(new double[] {300, 200, 150, 100, 50}, within(1e-6));
    }
  }

  @Test
  void refreshingKeepsTheLandmarkWhileItIsNearAndIsStable() {
    CornerEntry moved = gt.moved(PointKind.BRAKE, -12);
    CornerEntry once = Refresh.entry(gt.computed, gt.boards, moved, gt.answer(moved).reached());
    CornerEntry twice = Refresh.entry(gt.computed, gt.boards, once, gt.answer(once).reached());
    assertThat(twice).isEqualTo(once);
    Answers quick = Answers.at(gt.computed, Things.none(), gt.computed.indexOf(moved.corner()));
    assertThat(quick.reached(moved)).isEqualTo(gt.answer(moved).reached());
    assertThat(once.point(PointKind.BRAKE).orElseThrow().tie()).isNotNull();
    assertThat(once.approachSpeed()).isLessThan(gt.first().approachSpeed());
  }

  @Test
  void aFastBendIsFlatForTheSlowAndATighterOneIsBrakedForByTheFast() {
    // √(1.06 · 9.81 · 190 m) is 160 km/h and the hatch does 206; with 2.5 times the grip it is 253.
    assertThat(slowing("small-hatch", 190, 2.5)).isIn(Slowing.FLAT, Slowing.LIFT);
    assertThat(slowing("small-hatch", 190, 1)).isEqualTo(Slowing.BRAKE);
    assertThat(slowing("motorcycle-1000", 110, 1)).isEqualTo(Slowing.BRAKE);
  }

  private static Slowing slowing(String vehicle, double radius, double grip) {
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(Tracks.square(700, radius, 5).csv()),
            new CircuitReader.Choices(false, 100, 12, false));
    ComputedLap computed =
        ComputedLap.compute(
            survey.centreline(),
            survey.corners(),
            VehicleClasses.byId(vehicle).vehicle(),
            Conditions.dryWarm().withGrip(grip));
    return Drafter.draft(computed, List.of()).corners().get(0).slowing();
  }
}
