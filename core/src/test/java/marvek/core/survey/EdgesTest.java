package marvek.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Room;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What may be driven beyond the edges, and what must not. */
class EdgesTest {
  private static final CircuitReading READ = RandomRoads.of(11, 400);
  private static final Centreline ROAD = READ.centreline();
  private static final List<Corner> CORNERS = READ.corners();
  private static final Corner CORNER = CORNERS.get(2);
  private static final Vehicle CAR = VehicleClasses.byId("cup-gt").vehicle();
  private static final double FROM = ROAD.wrap(CORNER.apex() + 10);
  private static final double TO = ROAD.wrap(CORNER.apex() + 60);
  private static final double MIDDLE = ROAD.wrap(CORNER.apex() + 35);

  private static Kerb kerb(KerbProfile profile, boolean slippery, Kerb.Verdict verdict) {
    return new Kerb(
        "k",
        !CORNER.left(),
        FROM,
        TO,
        CORNER.id(),
        Kerb.Part.EXIT,
        profile,
        1,
        0.03,
        Kerb.Behind.GRASS,
        slippery,
        verdict,
        "",
        "");
  }

  private static Zone zone(ZoneKind kind, boolean left, @Nullable Double amount) {
    Zone.Side side = left ? Zone.Side.LEFT : Zone.Side.RIGHT;
    return new Zone("z-" + kind, kind, side, FROM, TO, 2, amount, "", "");
  }

  private static Zone beyond(@Nullable Double width, @Nullable Double grip, @Nullable Double lip) {
    return ZoneBuilder.builder(zone(ZoneKind.BEYOND, !CORNER.left(), width))
        .id("b")
        .beyond(new Zone.Beyond(grip, lip))
        .build();
  }

  private static Things things(List<Kerb> kerbs, List<Zone> zones, List<TrackLimit> limits) {
    return new Things(List.of(), kerbs, zones, limits, List.of());
  }

  private static Edge only(Things things) {
    List<Edge> all = Edges.all(ROAD, CORNERS, things, CAR);
    assertThat(all).hasSize(1);
    return all.get(0);
  }

  private static Ground good() {
    return Ground.good(ROAD.size());
  }

  @Test
  void anOpenedKerbGivesItsRoomOnItsSideAloneAndTakesItsGrip() {
    Edge edge =
        only(
            things(
                List.of(kerb(KerbProfile.FLAT, false, Kerb.Verdict.OPEN)), List.of(), List.of()));
    assertThat(edge.usable()).isTrue();
    assertThat(edge.risks()).containsExactly(Edge.Risk.SOFT);
    Ground open = Edges.open(ROAD, good(), List.of(edge), CAR);
    Room was = Room.on(ROAD, CAR, good());
    Room is = Room.on(ROAD, CAR, open);
    int at = ROAD.index(MIDDLE);
    boolean left = edge.left();
    double more = left ? is.upper()[at] - was.upper()[at] : was.lower()[at] - is.lower()[at];
    assertThat(more).as("kerb and margin").isCloseTo(1 + Ground.MARGIN, within(1e-9));
    for (int i = 0; i < ROAD.size(); i++) {
      double far = left ? is.lower()[i] - was.lower()[i] : is.upper()[i] - was.upper()[i];
      assertThat(far).isZero();
      boolean on = ROAD.ahead(FROM, i * ROAD.step()) <= ROAD.ahead(FROM, TO);
      if (!on && ROAD.ahead(i * ROAD.step(), FROM) > ROAD.step()) {
        assertThat(is.upper()[i]).isEqualTo(was.upper()[i]);
        assertThat(is.lower()[i]).isEqualTo(was.lower()[i]);
      }
    }
    double inside = left ? is.upper()[at] : is.lower()[at];
    double outer = left ? -1 : 1;
    // Two thirds of the load is on the outer wheels, which have 97 % there.
    assertThat(open.at(ROAD, at, inside)).isCloseTo(1 - 0.65 * 0.03, within(1e-9));
    double road = left ? was.upper()[at] : was.lower()[at];
    assertThat(open.at(ROAD, at, road + outer * 0.2)).as("on the road").isEqualTo(1);
  }

  @Test
  void onTheInsideTheWheelsBearLess() {
    Kerb outside = kerb(KerbProfile.SAUSAGE, false, Kerb.Verdict.OPEN);
    Kerb inside =
        new Kerb(
            "i",
            CORNER.left(),
            ROAD.wrap(CORNER.apex() - 10),
            ROAD.wrap(CORNER.apex() + 10),
            CORNER.id(),
            Kerb.Part.APEX,
            KerbProfile.FLAT,
            1,
            0.03,
            Kerb.Behind.GRASS,
            false,
            Kerb.Verdict.OPEN,
            "",
            "");
    Edge edge = only(things(List.of(inside), List.of(), List.of()));
    Ground open = Edges.open(ROAD, good(), List.of(edge), CAR);
    int at = ROAD.index(CORNER.apex());
    double edgeOf = CORNER.left() ? ROAD.left()[at] : -ROAD.right()[at];
    assertThat(open.at(ROAD, at, edgeOf)).isCloseTo(1 - 0.3 * 0.03, within(1e-9));
    assertThat(only(things(List.of(outside), List.of(), List.of())).risks())
        .contains(Edge.Risk.THROWS);
  }

  @ParameterizedTest
  @EnumSource(KerbProfile.class)
  void slipperyPaintLosesItsGripInTheWetOnly(KerbProfile profile) {
    Edge plain =
        only(things(List.of(kerb(profile, false, Kerb.Verdict.OPEN)), List.of(), List.of()));
    Edge paint =
        only(things(List.of(kerb(profile, true, Kerb.Verdict.OPEN)), List.of(), List.of()));
    assertThat(paint.grip(0)).isEqualTo(plain.grip(0)).isBetween(0.5, 1.0);
    assertThat(paint.grip(1)).isLessThan(0.7 * plain.grip(1));
    assertThat(plain.grip(1)).isEqualTo(plain.grip(0));
    if (paint.usable()) {
      int at = ROAD.index(MIDDLE);
      double edge = paint.left() ? ROAD.left()[at] : -ROAD.right()[at];
      Ground dry =
          Edges.open(ROAD, Zones.ground(ROAD, List.of(), Surface.DRY), List.of(paint), CAR);
      Ground wet =
          Edges.open(ROAD, Zones.ground(ROAD, List.of(), Surface.wet()), List.of(paint), CAR);
      assertThat(wet.at(ROAD, at, edge)).isLessThan(dry.at(ROAD, at, edge) - 0.1);
    }
  }

  @Test
  void groundBeyondTheEdgeIsUsedOnlyWhenWidthGripAndLipAreKnown() {
    Double[][] known = {{null, 0.9, 0.0}, {3.0, null, 0.0}, {3.0, 0.9, null}, {3.0, 0.9, 0.0}};
    for (Double[] k : known) {
      Edge edge = only(things(List.of(), List.of(beyond(k[0], k[1], k[2])), List.of()));
      boolean all = k[0] != null && k[1] != null && k[2] != null;
      assertThat(edge.usable()).isEqualTo(all);
      assertThat(edge.never()).isEqualTo(all ? null : Edge.Never.UNKNOWN);
    }
    Edge edge = only(things(List.of(), List.of(beyond(3.0, 0.6, 0.0)), List.of()));
    assertThat(edge.risks()).containsExactly(Edge.Risk.LESS_GRIP);
    Ground open = Edges.open(ROAD, good(), List.of(edge), CAR);
    int at = ROAD.index(MIDDLE);
    double out = edge.left() ? ROAD.left()[at] : -ROAD.right()[at];
    double outwards = edge.left() ? 1 : -1;
    assertThat(open.at(ROAD, at, out)).as("one side on it").isCloseTo(1 - 0.65 * 0.4, within(1e-9));
    double all = out + outwards * (CAR.width() / 2 + 0.5);
    assertThat(open.at(ROAD, at, all)).as("all of it").isCloseTo(0.6, within(1e-9));
  }

  @Test
  void aHighLipIsForVehiclesThatClearIt() {
    double clears = CAR.floorOrUsual().rideHeight();
    Edge low = only(things(List.of(), List.of(beyond(3.0, 0.9, 0.02)), List.of()));
    Edge high = only(things(List.of(), List.of(beyond(3.0, 0.9, 0.4)), List.of()));
    Edge drop = only(things(List.of(), List.of(beyond(3.0, 0.9, -clears - 0.02)), List.of()));
    assertThat(low.usable()).isTrue();
    assertThat(low.risks()).contains(Edge.Risk.LIP);
    assertThat(high.never()).isEqualTo(Edge.Never.FLOOR);
    assertThat(drop.never()).isEqualTo(Edge.Never.FLOOR);
  }

  @Test
  void nothingIsOpenedTowardAWallOrAgainstKeepOff() {
    Kerb kerb = kerb(KerbProfile.FLAT, false, Kerb.Verdict.OPEN);
    boolean side = !CORNER.left();
    for (ZoneKind kind : List.of(ZoneKind.WALL, ZoneKind.NARROW, ZoneKind.LOOSE)) {
      Edge.Never why = kind == ZoneKind.LOOSE ? Edge.Never.LOOSE : Edge.Never.WALL;
      assertThat(only(things(List.of(kerb), List.of(zone(kind, side, null)), List.of())).never())
          .as(kind.name())
          .isEqualTo(why);
      assertThat(only(things(List.of(kerb), List.of(zone(kind, !side, null)), List.of())).never())
          .as("%s on the other side", kind.name())
          .isNull();
    }
    Landmark barrier = new Landmark("l", LandmarkKind.BARRIER, "", MIDDLE, side, "");
    Landmark near = at(barrier, 1);
    assertThat(
            only(new Things(List.of(near), List.of(kerb), List.of(), List.of(), List.of())).never())
        .isEqualTo(Edge.Never.WALL);
    assertThat(
            only(new Things(
                    List.of(at(barrier, 8)), List.of(kerb), List.of(), List.of(), List.of()))
                .never())
        .isNull();
    Kerb off = kerb(KerbProfile.FLAT, false, Kerb.Verdict.KEEP_OFF);
    assertThat(only(things(List.of(off), List.of(), List.of())).never())
        .isEqualTo(Edge.Never.KEEP_OFF);
    List<Edge> both =
        Edges.all(
            ROAD, CORNERS, things(List.of(off), List.of(beyond(3.0, 1.0, 0.0)), List.of()), CAR);
    assertThat(both).extracting(Edge::never).containsOnly(Edge.Never.KEEP_OFF);
    // Also if somebody asks for it all the same.
    Ground plain = good();
    assertThat(Edges.open(ROAD, plain, both, CAR)).isSameAs(plain);
  }

  private static Landmark at(Landmark l, double out) {
    return new Landmark(
        l.id(),
        l.kind(),
        l.label(),
        l.station(),
        l.left(),
        l.corner(),
        out,
        l.height(),
        l.permanence(),
        l.readable(),
        l.noted(),
        l.note(),
        l.photo(),
        0);
  }

  @Test
  void ridersAreKeptOffWhatThrowsThemAndStandOnItWithBothWheels() {
    Vehicle bike = VehicleClasses.byId("motorcycle-600").vehicle();
    for (KerbProfile profile : KerbProfile.values()) {
      Things things =
          things(List.of(kerb(profile, false, Kerb.Verdict.OPEN)), List.of(), List.of());
      Edge edge = Edges.all(ROAD, CORNERS, things, bike).get(0);
      boolean throwsRider = profile == KerbProfile.SAUSAGE || profile == KerbProfile.STEP;
      assertThat(edge.never()).as(profile.name()).isEqualTo(throwsRider ? Edge.Never.RIDER : null);
      if (!throwsRider) {
        Ground open = Edges.open(ROAD, good(), List.of(edge), bike);
        int at = ROAD.index(MIDDLE);
        double out = edge.left() ? ROAD.left()[at] : -ROAD.right()[at];
        double outwards = edge.left() ? 1 : -1;
        assertThat(open.at(ROAD, at, out + outwards * 0.2)).isCloseTo(edge.grip(0), within(1e-9));
        assertThat(open.at(ROAD, at, out - outwards * 0.3)).as("before it").isEqualTo(1);
      }
    }
  }

  @Test
  void groundBeyondAKerbBeforeAWallIsNeverUsedNorNearABarriersEnd() {
    Kerb walled =
        new Kerb(
            "k",
            !CORNER.left(),
            FROM,
            TO,
            CORNER.id(),
            Kerb.Part.EXIT,
            KerbProfile.FLAT,
            1,
            0.02,
            Kerb.Behind.WALL,
            false,
            Kerb.Verdict.OPEN,
            "",
            "");
    Things things = things(List.of(walled), List.of(beyond(3.0, 1.0, 0.0)), List.of());
    assertThat(Edges.all(ROAD, CORNERS, things, CAR))
        .extracting(Edge::never)
        .containsOnly(Edge.Never.WALL);
    Kerb kerb = kerb(KerbProfile.FLAT, false, Kerb.Verdict.OPEN);
    for (double past : new double[] {20, 60}) {
      Landmark end =
          at(
              new Landmark("l", LandmarkKind.BARRIER, "", ROAD.wrap(TO + past), !CORNER.left(), ""),
              0.5);
      Edge edge = only(new Things(List.of(end), List.of(kerb), List.of(), List.of(), List.of()));
      assertThat(edge.never())
          .as("%.0f m past", past)
          .isEqualTo(past < 30 ? Edge.Never.WALL : null);
    }
  }

  @ParameterizedTest
  @EnumSource(Kerb.Part.class)
  void aLimitKeepsWheelsOffTheGroundBeyondInItsPartOfTheCorner(Kerb.Part part) {
    double free = 3 - Ground.MARGIN;
    double two = CAR.width() - CAR.floorOrUsual().tyreWidth() - Ground.MARGIN;
    for (int wheels : new int[] {0, 2, 4}) {
      TrackLimit limit =
          new TrackLimit(
              "l",
              CORNER.id(),
              part,
              !CORNER.left(),
              TrackLimit.Line.KERB_OUTER,
              wheels,
              "",
              "",
              List.of());
      Edge edge = only(things(List.of(), List.of(beyond(3.0, 1.0, 0.0)), List.of(limit)));
      boolean none = part == Kerb.Part.ENTRY || wheels == 0;
      assertThat(edge.never())
          .as("%d wheels", wheels)
          .isEqualTo(none || wheels == 2 ? null : Edge.Never.LIMIT);
      assertThat(edge.reach())
          .as("%d wheels", wheels)
          .isCloseTo(none ? free : wheels == 2 ? two : 0, within(1e-9));
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

  /** Behind the front edge that bites a kerb gives its room; on it, and where it bites, none. */
  @Test
  void aFrontEdgeThatBitesIsNotUsed() {
    Kerb plain = kerb(KerbProfile.RAMP, false, Kerb.Verdict.OPEN);
    Edge behind = only(things(List.of(doing(plain, 20.0)), List.of(), List.of()));
    assertThat(behind.from()).isCloseTo(ROAD.wrap(FROM + 20), within(1e-9));
    assertThat(behind.risks()).contains(Edge.Risk.BITES);
    Ground open = Edges.open(ROAD, good(), List.of(behind), CAR);
    Room was = Room.on(ROAD, CAR, good());
    Room is = Room.on(ROAD, CAR, open);
    for (double s : new double[] {5, 15, 25, 45}) {
      int at = ROAD.index(ROAD.wrap(FROM + s));
      double more =
          behind.left() ? is.upper()[at] - was.upper()[at] : was.lower()[at] - is.lower()[at];
      assertThat(more > 0.5).as("%.0f m on", s).isEqualTo(s > 20);
    }
    Edge none = only(things(List.of(doing(plain, 60.0)), List.of(), List.of()));
    assertThat(none.never()).isEqualTo(Edge.Never.BITES);
    assertThat(Edges.open(ROAD, good(), List.of(none), CAR).sameAs(good())).isTrue();
  }

  /** What takes grip from one axle leaves the vehicle no more than that axle has. */
  @Test
  void whatAKerbDoesCounts() {
    for (KerbProfile profile : KerbProfile.values()) {
      Kerb plain = kerb(profile, false, Kerb.Verdict.OPEN);
      Edge as = only(things(List.of(plain), List.of(), List.of()));
      for (Kerb.Does one : List.of(Kerb.Does.TURNS, Kerb.Does.PUSHES)) {
        Edge edge = only(things(List.of(doing(plain, null, one)), List.of(), List.of()));
        assertThat(1 - edge.grip(0)).isCloseTo(2 * (1 - as.grip(0)), within(1e-9));
      }
      Edge throwing =
          only(things(List.of(doing(plain, null, Kerb.Does.LAUNCHES)), List.of(), List.of()));
      assertThat(throwing.reach()).isLessThanOrEqualTo(Edges.TOUCH);
      assertThat(throwing.risks()).contains(Edge.Risk.THROWS);
      Vehicle bike = VehicleClasses.byId("motorcycle-600").vehicle();
      Things launching =
          things(List.of(doing(plain, null, Kerb.Does.LAUNCHES)), List.of(), List.of());
      assertThat(Edges.all(ROAD, CORNERS, launching, bike).get(0).usable()).isFalse();
      assertThat(
              only(things(List.of(doing(plain, null, Kerb.Does.LOCKS)), List.of(), List.of()))
                  .risks())
          .contains(Edge.Risk.LOCKS);
    }
  }

  @Test
  void whereSomethingTakesRoomFromTheRoadNothingIsOpened() {
    Random random = new Random(5);
    for (int k = 0; k < 50; k++) {
      List<Zone> zones = new ArrayList<>();
      double from = ROAD.wrap(FROM - 40 + 60 * random.nextDouble());
      zones.add(
          new Zone("w", ZoneKind.WALL, Zone.Side.BOTH, from, ROAD.wrap(from + 30), 2, 0.4, "", ""));
      Ground walled = Zones.ground(ROAD, zones, Surface.DRY);
      // Opened by a survey that did not know of the wall yet.
      Edge edge =
          only(
              things(
                  List.of(kerb(KerbProfile.FLAT, false, Kerb.Verdict.OPEN)), List.of(), List.of()));
      Ground open = Edges.open(ROAD, walled, List.of(edge), CAR);
      Room was = Room.on(ROAD, CAR, walled);
      Room is = Room.on(ROAD, CAR, open);
      for (int i = 0; i < ROAD.size(); i++) {
        if (walled.lie() != null && walled.lie().keepLeft()[i] > 0) {
          assertThat(is.upper()[i]).isEqualTo(was.upper()[i]);
          assertThat(is.lower()[i]).isEqualTo(was.lower()[i]);
        }
      }
    }
  }
}
