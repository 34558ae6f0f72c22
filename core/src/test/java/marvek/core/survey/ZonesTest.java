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
    assertThat(zone(ZoneKind.WALL, Zone.Side.LEFT, 1, 9, null).counts(Surface.damp())).isFalse();
    assertThat(zone(ZoneKind.DAMP, Zone.Side.LEFT, 1, 9, null).counts(Surface.damp())).isTrue();
    assertThat(
            Zones.ground(
                ROAD, List.of(zone(ZoneKind.SHADE, Zone.Side.BOTH, 1, 99, null)), Surface.wet()))
        .satisfies(g -> assertThat(g.left()).containsOnly(1));
  }

  @Test
  void whereWaterGathersCountsOnlyWhileThereIsSome() {
    for (ZoneKind kind : ZoneKind.values()) {
      for (int severity = 1; severity <= 3; severity++) {
        Zone z = new Zone("z", kind, Zone.Side.BOTH, 300, 360, severity, 0.8, "", "");
        boolean wet =
            kind == ZoneKind.DAMP
                || kind == ZoneKind.STANDING_WATER
                || kind == ZoneKind.DRAIN
                || kind == ZoneKind.SHADE;
        assertThat(z.gripLeft(Surface.DRY)).as(kind.words()).isEqualTo(wet ? 1 : 0.8);
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
    Zone damp = zone(ZoneKind.DAMP, Zone.Side.BOTH, 1, 9, 0.8);
    Zone pool = zone(ZoneKind.STANDING_WATER, Zone.Side.BOTH, 1, 9, 0.8);
    assertThat(damp.gripLeft(Surface.drying(0.4)))
        .as("what stays damp is the last to dry")
        .isLessThan(pool.gripLeft(Surface.drying(0.4)));
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
    assertThat(Ground.EDGE).isPositive();
  }
}
