package marvek.core.anew;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import marvek.core.circuit.Centreline;
import marvek.core.day.Variants;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.fixtures.Example;
import marvek.core.lap.Conditions;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Hazards;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.KerbProfile;
import marvek.core.survey.Things;
import marvek.core.survey.TrackLimit;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.words.ReferenceCsv;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What follows when something else changes, and by which sign. */
@Tag("slow")
class WhatFollowsTest {
  private static final Example GT = Example.of("cup-gt");
  private static final Centreline ROAD = GT.computed.road();

  private static CornerEntry at(CornerEntry e, PointKind kind, double station) {
    List<CornerPoint> points = new ArrayList<>(e.points());
    points.removeIf(p -> p.kind() == kind);
    points.add(new CornerPoint(kind, station, null));
    return e.copy().points(points).done();
  }

  private static CornerEntry carried(CornerEntry own, CornerEntry was, CornerEntry is) {
    return Carried.entry(ROAD, own, was, is, 0.5, 6, null);
  }

  @ParameterizedTest
  @EnumSource(
      value = PointKind.class,
      names = {"BUILD_UP", "TARGET", "BACK_UP", "DOWNSHIFT"})
  void whatBelongsToTheBrakeGoesWithItWhenACopyMovesIt(PointKind kind) {
    CornerEntry was = GT.first();
    double brake = was.station(PointKind.BRAKE).orElseThrow();
    CornerEntry is = at(was, PointKind.BRAKE, brake - 12);
    CornerEntry own = at(at(was, PointKind.BRAKE, brake + 3), kind, brake + 7);
    CornerEntry out = carried(own, was, is);
    assertThat(out.station(PointKind.BRAKE).orElseThrow()).isCloseTo(brake - 9, within(1e-9));
    assertThat(out.station(kind).orElseThrow()).isCloseTo(brake - 5, within(1e-9));
  }

  @Test
  void aShortShiftGoesWithTheThrottle() {
    CornerEntry was = GT.first();
    double full = was.station(PointKind.FULL_THROTTLE).orElseThrow();
    CornerEntry own = at(was, PointKind.SHORT_SHIFT, full + 30);
    CornerEntry out = carried(own, was, at(was, PointKind.FULL_THROTTLE, full + 8));
    assertThat(out.station(PointKind.SHORT_SHIFT).orElseThrow()).isCloseTo(full + 38, within(1e-9));
  }

  @Test
  void aCopyKeepsWhatTheDriverHasAddedToTheApex() {
    CornerEntry was = GT.first();
    CornerEntry own = was.copy().apex(was.apexType(), was.apexGap() + 0.7).done();
    CornerEntry is = was.copy().apex(was.apexType(), was.apexGap() + 0.2).done();
    assertThat(carried(own, was, is).apexGap()).isCloseTo(was.apexGap() + 0.9, within(1e-9));
  }

  @Test
  void pointsThatWouldChangePlacesStandWhereTheyAreDrafted() {
    CornerEntry was = GT.first();
    double brake = was.station(PointKind.BRAKE).orElseThrow();
    double release = was.station(PointKind.RELEASE).orElseThrow();
    CornerEntry own = at(was, PointKind.RELEASE, brake + 10);
    CornerEntry is = at(was, PointKind.BRAKE, brake + 20);
    CornerEntry out = carried(own, was, is);
    assertThat(out.station(PointKind.BRAKE).orElseThrow()).isCloseTo(brake + 20, within(1e-9));
    assertThat(out.station(PointKind.RELEASE).orElseThrow()).isCloseTo(release, within(1e-9));
  }

  @Test
  void aTableHasEachPointUnderItsOwnName() {
    CornerEntry e = GT.first();
    double apex = e.station(PointKind.APEX).orElseThrow();
    double[] at = new double[PointKind.values().length];
    for (PointKind kind : PointKind.values()) {
      at[kind.ordinal()] = apex - 40 + 3 * kind.ordinal();
      e = at(e, kind, at[kind.ordinal()]);
    }
    List<CornerEntry> all = new ArrayList<>(GT.draft.corners());
    all.set(0, e);
    String[] rows =
        ReferenceCsv.write(GT.survey.corners(), new ReferenceContent(all, List.of()))
            .split("\r?\n");
    List<String> names = Arrays.asList(rows[0].split(","));
    String[] first = rows[1].split(",", -1);
    for (PointKind kind : PointKind.values()) {
      String name =
          switch (kind) {
            case EXIT -> "exit_m";
            default -> kind.name().toLowerCase(java.util.Locale.ROOT) + "_m";
          };
      assertThat(names).as(kind.name()).contains(name);
      assertThat(Double.parseDouble(first[names.indexOf(name)]))
          .as(name)
          .isCloseTo(at[kind.ordinal()], within(0.06));
    }
  }

  private static LapTrace lap(Conditions day) {
    return LapSimulator.lap(GT.computed.path(), GT.computed.vehicle(), day);
  }

  private static double quickest(LapTrace lap, int from, int to) {
    return IntStream.range(from, to).mapToDouble(i -> lap.speed()[i]).max().orElseThrow();
  }

  @Test
  void whatIsHeavierIsSlowerAndBrakesSooner() {
    Conditions dry = GT.computed.conditions();
    double time = lap(dry).lapTime();
    assertThat(lap(dry.withExtraMass(60)).lapTime()).isGreaterThan(time + 0.1);
    assertThat(lap(dry.withExtraMass(-60)).lapTime()).isLessThan(time - 0.1);
    CornerAnswer.BrakingNumbers braking = GT.answer(GT.first()).braking();
    assertThat(braking).isNotNull();
    CornerAnswer.Sensitivity s = braking.sensitivity();
    // Ten kilograms on 1,300: less slowing by drag and wings, which is centimetres to decimetres.
    assertThat(s.perTenKilograms()).isBetween(0.005, 1.0);
    assertThat(s.perPercentGrip()).isGreaterThan(s.perTenKilograms());
  }

  @Test
  void windOnTheNoseSlowsAStraightAndFromBehindQuickensIt() {
    // The longest way without a bend, from its heading in the middle.
    int corner = ROAD.index(GT.survey.corners().get(0).entry());
    int from = corner - 150;
    double heading = ROAD.heading()[corner - 75];
    Conditions dry = GT.computed.conditions();
    double still = quickest(lap(dry), from, corner);
    double nose = quickest(lap(wind(dry, 12, heading)), from, corner);
    double back = quickest(lap(wind(dry, 12, heading + Math.PI)), from, corner);
    assertThat(nose).isLessThan(still - 0.3);
    assertThat(back).isGreaterThan(still + 0.3);
  }

  private static Conditions wind(Conditions c, double speed, double from) {
    return new Conditions(
        c.grip(), c.airDensity(), speed, from, c.extraMass(), c.drag(), c.downforce(), c.driving());
  }

  @Test
  void inATowTheStraightIsQuickerAndTheCornerSlower() {
    Conditions tow = Variants.conditions(GT.computed.conditions(), DayKind.TOW.usual());
    Conditions noDrag =
        new Conditions(
            tow.grip(),
            tow.airDensity(),
            tow.windSpeed(),
            tow.windFrom(),
            tow.extraMass(),
            tow.drag(),
            GT.computed.conditions().downforce(),
            tow.driving());
    int corner = ROAD.index(GT.survey.corners().get(0).entry());
    assertThat(quickest(lap(noDrag), corner - 150, corner))
        .isGreaterThan(quickest(lap(GT.computed.conditions()), corner - 150, corner) + 0.3);
    double apex = GT.first().station(PointKind.APEX).orElseThrow();
    assertThat(lap(tow).speed()[ROAD.index(apex)])
        .isLessThan(lap(GT.computed.conditions()).speed()[ROAD.index(apex)]);
  }

  @Test
  void aMarkerAnywhereOnTheLapIsAnsweredAndCannotBeMadePastTheCorner() {
    double exit = GT.first().station(PointKind.EXIT).orElseThrow();
    for (double on = -300; on < ROAD.length() - 300; on += 55) {
      double station = ROAD.wrap(exit + on);
      CornerAnswer answer = GT.answer(at(GT.first(), PointKind.BRAKE, station));
      CornerAnswer.BrakingNumbers braking = answer.braking();
      assertThat(braking).as("%.0f m past the exit", on).isNotNull();
      assertThat(braking.marginMetres()).isFinite();
      if (on > 20 && on < 300) {
        assertThat(braking.makesIt()).as("%.0f m past the exit", on).isFalse();
      }
    }
  }

  @Test
  void aMarkerFromWhichTheWholeCornerIsSeenIsNotBlindHoweverNear() {
    CornerEntry near = GT.moved(PointKind.BRAKE, 60);
    assertThat(
            ROAD.ahead(
                near.station(PointKind.BRAKE).orElseThrow(), GT.survey.corners().get(0).apex()))
        .isLessThan(1.5 * near.approachSpeed());
    assertThat(Hazards.of(GT.computed, Things.none(), near).warnings())
        .noneMatch(w -> w.key().equals("hazard.blind"));
  }

  @ParameterizedTest
  @EnumSource(TrackLimit.Line.class)
  void aLimitHoldsItsWheelsInsideItsLine(TrackLimit.Line line) {
    Kerb kerb =
        new Kerb(
            "k",
            true,
            10,
            30,
            "c1",
            Kerb.Part.EXIT,
            KerbProfile.FLAT,
            1,
            0.02,
            Kerb.Behind.TARMAC,
            false,
            Kerb.Verdict.OPEN,
            "",
            "");
    Vehicle car = GT.computed.vehicle();
    Vehicle bike = VehicleClasses.byId("motorcycle-600").vehicle();
    boolean beyond = line == TrackLimit.Line.KERB_OUTER || line == TrackLimit.Line.NONE;
    // The inner two stay wholly inside with a margin: this much of the car may be over.
    double two = car.width() - car.floorOrUsual().tyreWidth() - 0.25;
    assertThat(two).isBetween(1.0, 1.7);
    for (int wheels = 0; wheels <= 4; wheels++) {
      TrackLimit limit =
          new TrackLimit("l", "c1", Kerb.Part.EXIT, true, line, wheels, "", "", List.of());
      for (double width : new double[] {1, 3}) {
        Things things =
            new Things(List.of(), List.of(wide(kerb, width)), List.of(), List.of(limit), List.of());
        double expected = wheels == 0 || beyond ? width : wheels <= 2 ? Math.min(width, two) : 0;
        assertThat(Edges.allowed(wide(kerb, width), car, things))
            .as("%d wheels, %.0f m", wheels, width)
            .isCloseTo(expected, within(1e-9));
        assertThat(Edges.allowed(wide(kerb, width), bike, things))
            .as("a rider, %d wheels", wheels)
            .isEqualTo(wheels == 0 || beyond ? width : 0);
      }
    }
  }

  private static Kerb wide(Kerb k, double width) {
    return new Kerb(
        k.id(),
        k.left(),
        k.from(),
        k.to(),
        k.corner(),
        k.part(),
        k.profile(),
        width,
        k.height(),
        k.behind(),
        k.slippery(),
        k.verdict(),
        k.note(),
        k.photo());
  }
}
