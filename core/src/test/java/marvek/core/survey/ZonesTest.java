package marvek.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.ReliefTest;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.lap.Surface;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

class ZonesTest {
  private static final Centreline ROAD = ReliefTest.hill(s -> 0);

  private static Zone zone(ZoneKind kind, Zone.Side side, double from, double to, Double grip) {
    return new Zone("z", kind, side, from, to, 2, grip, "", "");
  }

  private static double[] under(List<Zone> zones, double offset) {
    double[] n = new double[ROAD.size()];
    Arrays.fill(n, offset);
    return Path.over(ROAD, n, Zones.ground(ROAD, zones, Surface.damp())).grip();
  }

  @Test
  void aZoneCountsWhereItLiesAndOnItsSideOnly() {
    List<Zone> left = List.of(zone(ZoneKind.DAMP, Zone.Side.LEFT, 300, 360, 0.8));
    assertThat(under(left, 2)[330]).isCloseTo(0.8, within(1e-12));
    assertThat(under(left, -2)[330]).isEqualTo(1);
    assertThat(under(left, 2)[280]).isEqualTo(1);
    assertThat(under(left, 2)[380]).isEqualTo(1);
    List<Zone> two =
        List.of(
            zone(ZoneKind.DAMP, Zone.Side.BOTH, 300, 360, 0.8),
            zone(ZoneKind.POLISHED, Zone.Side.BOTH, 320, 400, 0.9));
    assertThat(under(two, 0)[340]).as("the worst counts").isCloseTo(0.8, within(1e-12));
    assertThat(under(two, 0)[380]).isCloseTo(0.9, within(1e-12));
    List<Zone> edge = List.of(zone(ZoneKind.DIRTY_EDGE, Zone.Side.BOTH, 300, 360, 0.7));
    assertThat(under(edge, 4)[330]).isCloseTo(0.7, within(1e-12));
    assertThat(under(edge, 0)[330]).isEqualTo(1);
    List<Zone> across = List.of(zone(ZoneKind.DAMP, Zone.Side.BOTH, 1180, 20, 0.8));
    assertThat(under(across, 0)[5]).as("over the line").isCloseTo(0.8, within(1e-12));
    assertThat(under(across, 0)[1190]).isCloseTo(0.8, within(1e-12));
  }

  @Test
  void whatIsOnlyToBeLookedAtChangesNothing() {
    assertThat(zone(ZoneKind.NO_RUN_OFF, Zone.Side.LEFT, 1, 9, null).counts()).isFalse();
    assertThat(zone(ZoneKind.DAMP, Zone.Side.LEFT, 1, 9, null).counts(Surface.damp(), 0)).isTrue();
    assertThat(zone(ZoneKind.DAMP, Zone.Side.LEFT, 1, 9, null).counts(Surface.DRY, 9)).isFalse();
    assertThat(zone(ZoneKind.WIND, Zone.Side.BOTH, 1, 9, null).counts(Surface.DRY, 0)).isFalse();
    assertThat(zone(ZoneKind.WIND, Zone.Side.BOTH, 1, 9, null).counts(Surface.DRY, 5)).isTrue();
    assertThat(
            Zones.ground(
                ROAD,
                List.of(
                    zone(ZoneKind.SHADE, Zone.Side.BOTH, 1, 99, null),
                    zone(ZoneKind.NO_RUN_OFF, Zone.Side.LEFT, 1, 99, null)),
                Surface.DRY))
        .satisfies(g -> assertThat(g.sameAs(Ground.good(ROAD.size()))).isTrue());
  }

  /**
   * Every kind acts on something, more so when it is severe, and comes back whole from its file.
   */
  @Test
  void everyKindActsOnWhatItSays() {
    for (ZoneKind kind : ZoneKind.values()) {
      double before = -1;
      for (int severity = 1; severity <= 3; severity++) {
        Zone z =
            new Zone("z", kind, Zone.Side.LEFT, 300, 420, severity, null, null, null, null, "", "");
        Ground ground = Zones.ground(ROAD, List.of(z), Surface.wet());
        Ground.Lie file = Ground.Lie.of(ROAD);
        Ground.Lie lie = ground.lie() == null ? file : ground.lie();
        double acts =
            switch (kind.effect()) {
              case GRIP -> 1 - ground.at(ROAD, 360, ROAD.left()[360]);
              case CREST, DIP, LOAD ->
                  Math.abs(lie.verticalCurvature(ROAD, 360, 3) - file.verticalCurvature()[360]);
              case CAMBER_IN, CAMBER_OUT, LEVEL ->
                  Math.abs(lie.crossfall(ROAD, 360, 3) - file.crossfall()[360]);
              case WIND -> Math.abs(lie.wind()[360] - 1);
              case ROOM -> lie.keepLeft()[360];
              // Only where a reference opens it.
              case BEYOND -> 0;
            };
        assertThat(acts).as("%s %d", kind, severity).isGreaterThanOrEqualTo(0);
        assertThat(acts > 0).as("%s %d", kind, severity).isEqualTo(z.counts());
        if (kind != ZoneKind.NO_RUN_OFF && kind != ZoneKind.BEYOND) {
          assertThat(acts).as("%s %d", kind, severity).isGreaterThan(before);
        }
        before = acts;
        double elsewhere =
            Math.abs(lie.verticalCurvature(ROAD, 600, 3) - file.verticalCurvature()[600])
                + Math.abs(lie.crossfall(ROAD, 600, 3) - file.crossfall()[600])
                + Math.abs(lie.wind()[600] - 1)
                + lie.keepLeft()[600]
                + lie.keepRight()[360]
                + (1 - ground.at(ROAD, 600, 0));
        assertThat(elsewhere).isZero();
      }
    }
  }

  @Test
  void whereWaterGathersCountsOnlyWhileThereIsSome() {
    for (ZoneKind kind : ZoneKind.values()) {
      if (kind.effect() != Zone.Effect.GRIP) {
        continue;
      }
      for (int severity = 1; severity <= 3; severity++) {
        for (Surface.Dries dries : Surface.Dries.values()) {
          Zone z =
              new Zone(
                  "z", kind, Zone.Side.BOTH, 300, 360, severity, 0.8, null, dries, null, "", "");
          boolean wet =
              kind == ZoneKind.DAMP
                  || kind == ZoneKind.STANDING_WATER
                  || kind == ZoneKind.DRAIN
                  || kind == ZoneKind.SHADE;
          assertThat(z.gripLeft(Surface.DRY)).as(kind.name()).isEqualTo(wet ? 1 : 0.8);
          assertThat(z.gripLeft(Surface.damp())).isCloseTo(0.8, within(1e-12));
          assertThat(z.gripLeft(Surface.wet())).isCloseTo(0.8, within(1e-12));
          double before = z.gripLeft(Surface.drying(0));
          assertThat(before).isCloseTo(0.8, within(1e-12));
          for (double dried = 0.1; dried <= 1; dried += 0.1) {
            double now = z.gripLeft(Surface.drying(Math.min(1, dried)));
            assertThat(now).isGreaterThanOrEqualTo(before - 1e-12);
            before = now;
          }
          assertThat(z.gripLeft(Surface.drying(1))).isEqualTo(wet ? 1 : 0.8);
        }
      }
    }
    Zone damp = zone(ZoneKind.DAMP, Zone.Side.BOTH, 1, 9, 0.8);
    Zone pool = zone(ZoneKind.STANDING_WATER, Zone.Side.BOTH, 1, 9, 0.8);
    Zone early =
        new Zone(
            "z",
            ZoneKind.DAMP,
            Zone.Side.BOTH,
            1,
            9,
            2,
            0.8,
            null,
            Surface.Dries.FIRST,
            null,
            "",
            "");
    assertThat(damp.gripLeft(Surface.drying(0.4)))
        .as("what stays damp is the last to dry")
        .isLessThan(pool.gripLeft(Surface.drying(0.4)));
    assertThat(early.gripLeft(Surface.drying(0.5))).as("dries first").isEqualTo(1);
  }

  @Test
  void aStripIsCountedFromItsEdge() {
    Zone patch =
        new Zone(
            "z",
            ZoneKind.POLISHED,
            Zone.Side.LEFT,
            300,
            360,
            2,
            0.8,
            new Zone.Across(1.5, 3),
            null,
            null,
            "",
            "");
    double edge = ROAD.left()[330];
    assertThat(under(List.of(patch), edge - 2.2)[330]).isCloseTo(0.8, within(1e-12));
    assertThat(under(List.of(patch), edge - 1)[330]).isEqualTo(1);
    assertThat(under(List.of(patch), edge - 3.6)[330]).isEqualTo(1);
    assertThat(under(List.of(patch), -edge + 2)[330]).isEqualTo(1);
    Zone worse = zone(ZoneKind.POLISHED, Zone.Side.BOTH, 300, 360, 0.7);
    assertThat(under(List.of(patch, worse), edge - 2.2)[330])
        .as("the worst of them counts")
        .isCloseTo(0.7, within(1e-12));
  }

  @Test
  void groundThatGripsMoreCountsWhereNothingTakesGrip() {
    Zone paint = zone(ZoneKind.SURFACE_CHANGE, Zone.Side.BOTH, 300, 360, 1.2);
    Zone damp = zone(ZoneKind.DAMP, Zone.Side.BOTH, 340, 400, 0.8);
    for (List<Zone> both : List.of(List.of(paint, damp), List.of(damp, paint))) {
      assertThat(under(both, 0)[320]).isCloseTo(1.2, within(1e-12));
      assertThat(under(both, 0)[350]).isCloseTo(0.8, within(1e-12));
      assertThat(under(both, 0)[390]).isCloseTo(0.8, within(1e-12));
    }
    Zone strip =
        new Zone(
            "z",
            ZoneKind.SURFACE_CHANGE,
            Zone.Side.RIGHT,
            300,
            360,
            2,
            1.15,
            new Zone.Across(0, 3),
            null,
            null,
            "",
            "");
    double edge = -ROAD.right()[330];
    assertThat(under(List.of(strip), edge + 1)[330]).isCloseTo(1.15, within(1e-12));
    assertThat(under(List.of(strip), 0)[330]).isEqualTo(1);
    assertThat(
            under(List.of(strip, zone(ZoneKind.DAMP, Zone.Side.BOTH, 300, 360, 0.8)), edge + 1)[
                330])
        .as("wet paint is wet")
        .isCloseTo(0.8, within(1e-12));
  }

  @Test
  void zoneAndFileAreNotAddedAndALevelBeatsBoth() {
    Centreline hilly = ReliefTest.hill(s -> 6 * Math.exp(-Math.pow((s - 600) / 80, 2)));
    double file = hilly.verticalCurvature()[600];
    assertThat(file).isNegative();
    for (double radius : new double[] {-0.5 / file, -2 / file}) {
      Zone crest = zone(ZoneKind.CREST, Zone.Side.BOTH, 560, 640, radius);
      Ground.Lie lie = Zones.ground(hilly, List.of(crest), Surface.DRY).lie();
      assertThat(lie.verticalCurvature()[600])
          .as("of the two the larger")
          .isCloseTo(Math.min(file, -1 / radius), within(1e-12));
    }
    Zone camber = zone(ZoneKind.ADVERSE_CAMBER, Zone.Side.BOTH, 560, 640, 0.04);
    Zone level = zone(ZoneKind.LEVEL, Zone.Side.RIGHT, 590, 610, 0.02);
    Ground.Lie told = Zones.ground(ROAD, List.of(level, camber), Surface.DRY).lie();
    assertThat(told.crossfall()[600]).isCloseTo(-Math.atan(0.02), within(1e-12));
    assertThat(Math.abs(told.crossfall()[565])).isCloseTo(Math.atan(0.04), within(1e-12));
  }

  /** On one half, or on a strip, the road lies otherwise there alone; a level reading beats it. */
  @Test
  void whatLiesOnPartOfTheWidthCountsThereAlone() {
    for (ZoneKind kind :
        List.of(ZoneKind.ADVERSE_CAMBER, ZoneKind.CREST, ZoneKind.COMPRESSION, ZoneKind.BUMP)) {
      Zone all = new Zone("z", kind, Zone.Side.BOTH, 560, 640, 3, null, "", "");
      Zone half = new Zone("z", kind, Zone.Side.RIGHT, 560, 640, 3, null, "", "");
      Zone strip =
          new Zone(
              "z",
              kind,
              Zone.Side.RIGHT,
              560,
              640,
              3,
              null,
              new Zone.Across(1, 3),
              null,
              null,
              "",
              "");
      Ground.Lie whole = Zones.ground(ROAD, List.of(all), Surface.DRY).lie();
      Ground.Lie halves = Zones.ground(ROAD, List.of(half), Surface.DRY).lie();
      Ground.Lie strips = Zones.ground(ROAD, List.of(strip), Surface.DRY).lie();
      double edge = ROAD.right()[600];
      for (double out : new double[] {0.2, 2, edge - 1, edge + 1, edge + 3}) {
        double n = out - edge;
        String what = kind + " " + out + " m from the right edge";
        boolean onHalf = out < edge;
        boolean onStrip = out > 1 && out < 3;
        assertThat(halves.crossfall(ROAD, 600, n))
            .as(what)
            .isCloseTo(onHalf ? whole.crossfall()[600] : 0, within(1e-12));
        assertThat(halves.verticalCurvature(ROAD, 600, n))
            .as(what)
            .isCloseTo(onHalf ? whole.verticalCurvature()[600] : 0, within(1e-12));
        assertThat(strips.crossfall(ROAD, 600, n))
            .as(what)
            .isCloseTo(onStrip ? whole.crossfall()[600] : 0, within(1e-12));
        assertThat(strips.verticalCurvature(ROAD, 600, n))
            .as(what)
            .isCloseTo(onStrip ? whole.verticalCurvature()[600] : 0, within(1e-12));
      }
    }
    Zone camber = zone(ZoneKind.ADVERSE_CAMBER, Zone.Side.RIGHT, 560, 640, 0.04);
    Zone level = zone(ZoneKind.LEVEL, Zone.Side.RIGHT, 590, 610, 0.02);
    Ground.Lie told = Zones.ground(ROAD, List.of(camber, level), Surface.DRY).lie();
    assertThat(told.crossfall(ROAD, 600, -3)).isCloseTo(-Math.atan(0.02), within(1e-12));
    assertThat(Math.abs(told.crossfall(ROAD, 565, -3))).isCloseTo(Math.atan(0.04), within(1e-12));
  }

  /** Bumps on bumps, on the whole road, a half or a strip of it, are no worse than the worst. */
  @Test
  void ofBumpsThatOverlapTheWorstCountsOnce() {
    Zone half = zone(ZoneKind.BUMP, Zone.Side.RIGHT, 560, 640, 0.9);
    Zone same = zone(ZoneKind.BUMP, Zone.Side.RIGHT, 570, 630, 0.95);
    Zone all = zone(ZoneKind.BUMP, Zone.Side.BOTH, 560, 640, 0.93);
    Zone strip =
        new Zone(
            "z",
            ZoneKind.BUMP,
            Zone.Side.RIGHT,
            560,
            640,
            3,
            0.85,
            new Zone.Across(1, 3),
            null,
            null,
            "",
            "");
    double edge = ROAD.right()[600];
    double alone =
        Zones.ground(ROAD, List.of(half), Surface.DRY).lie().verticalCurvature(ROAD, 600, -2);
    assertThat(alone).isNegative();
    for (List<Zone> more :
        List.of(List.of(half, same), List.of(same, half), List.of(all, half), List.of(half, all))) {
      Ground.Lie lie = Zones.ground(ROAD, more, Surface.DRY).lie();
      assertThat(lie.verticalCurvature(ROAD, 600, -2)).isCloseTo(alone, within(1e-12));
    }
    double worst =
        Zones.ground(ROAD, List.of(strip), Surface.DRY)
            .lie()
            .verticalCurvature(ROAD, 600, 2 - edge);
    Ground.Lie both = Zones.ground(ROAD, List.of(half, strip, all), Surface.DRY).lie();
    assertThat(both.verticalCurvature(ROAD, 600, 2 - edge)).isCloseTo(worst, within(1e-12));
    assertThat(both.verticalCurvature(ROAD, 600, -0.6)).isCloseTo(alone, within(1e-12));
    Things things = new Things(List.of(), List.of(), List.of(strip), List.of(), List.of());
    assertThat(Zones.bumps(ROAD, things, 600, 2 - edge)).isTrue();
    assertThat(Zones.bumps(ROAD, things, 600, 3.5 - edge))
        .as("on its side, off its strip")
        .isFalse();
  }

  @Test
  void whatIsPlainHereIsToldByATable() {
    Severity table = new Severity("s", ZoneKind.BUMP, 0.99, 0.9, 0.7);
    Zone own = zone(ZoneKind.BUMP, Zone.Side.BOTH, 1, 9, 0.95);
    Zone usual = zone(ZoneKind.BUMP, Zone.Side.BOTH, 1, 9, null);
    assertThat(usual.told(List.of(table)).size()).isEqualTo(0.9);
    assertThat(own.told(List.of(table)).size()).isEqualTo(0.95);
    assertThat(usual.told(List.of()).size()).isEqualTo(0.95);
    assertThat(zone(ZoneKind.DAMP, Zone.Side.BOTH, 1, 9, null).told(List.of(table)).size())
        .isEqualTo(0.85);
  }

  /** v² = μ g r on the flat without downforce: with 0.64 of the grip, 0.8 of the speed. */
  @Test
  void cornerSpeedFallsWithTheRootOfTheGrip() {
    Vehicle v = VehicleClasses.byId("motorcycle-600").vehicle();
    double[] one = {1};
    double[] zero = {0};
    double[] bend = {1 / 60.0};
    Limits limits = new Limits(v, Conditions.dryWarm());
    double good = limits.cornerSpeed(new Path(zero, one, bend, zero, zero, zero, zero), 0);
    double damp =
        limits.cornerSpeed(
            new Path(zero, one, bend, zero, zero, zero, zero, new double[] {0.64}), 0);
    assertThat(good).isCloseTo(Math.sqrt(1.32 * 9.80665 * 60), within(0.05));
    assertThat(damp / good).isCloseTo(0.8, within(1e-6));
  }
}
