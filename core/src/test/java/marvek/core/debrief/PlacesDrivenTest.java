package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.debrief.Debrief.PlaceFinding;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.line.Gate;
import marvek.core.line.Warp;
import marvek.core.logger.Aside;
import marvek.core.logger.Plan;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import org.junit.jupiter.api.Test;

/** Places across the road, passed where they are asked for and beside them. */
class PlacesDrivenTest {
  private static Gate gate(ComputedLap lap, Corner corner, boolean left, int number) {
    Centreline road = lap.road();
    double station = road.wrap(corner.entry() - 40);
    int i = road.index(station);
    double at = lap.path().offset()[i];
    double half = lap.vehicle().width() / 2;
    double metres = left ? road.left()[i] - at - half : at + road.right()[i] - half;
    return new Gate("g" + number, station, left, metres, 0.3);
  }

  @Test
  void eachIsMetOrMissedByAsMuchAsItIs() {
    int met = 0;
    int missed = 0;
    for (long seed = 41; seed <= 43; seed++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 320), "cup-gt");
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      List<Gate> gates = new ArrayList<>();
      List<Aside> asides = new ArrayList<>();
      for (int c = 0; c < lap.corners().size(); c++) {
        boolean left = c % 2 == 0;
        Gate g = gate(lap, lap.corners().get(c), left, c);
        gates.add(g);
        if (c % 3 == 0) {
          // To the middle, where there is room.
          double to = -1.6 * Math.signum(lap.path().offset()[lap.road().index(g.station())]);
          asides.add(new Aside(g.station(), to, 1));
        }
      }
      Plan plan = new Plan(lap, draft, List.of(), 3, 0, 1, 0, true).deviating(List.of(), asides);
      List<LapData> laps = Drives.read(plan, seed).stream().map(l -> Drives.data(l, lap)).toList();
      Debrief debrief = Debriefer.read(lap, draft, gates, laps);
      assertThat(debrief.places()).hasSize(gates.size());
      for (int c = 0; c < gates.size(); c++) {
        PlaceFinding f = debrief.places().get(c);
        double by = 0;
        for (Aside a : asides) {
          by += a.station() == gates.get(c).station() ? a.by() : 0;
        }
        boolean alone =
            asides.stream()
                .noneMatch(
                    a ->
                        a.station() != f.station()
                            && Math.abs(lap.road().apart(a.station(), f.station())) < 130);
        // The line of the corner's own points may lie a little beside the computed one.
        if (alone) {
          double expected = f.left() ? -by : by;
          assertThat(f.off()).describedAs("%s", f).isCloseTo(expected, within(0.5));
          assertThat(f.missed()).describedAs("%s", f).isEqualTo(by != 0);
          met += by == 0 ? 1 : 0;
          missed += by == 0 ? 0 : 1;
        }
      }
    }
    assertThat(met).isGreaterThan(6);
    assertThat(missed).isGreaterThan(4);
  }

  /** What was to be held alongside the edge and runs off it in the end is told by how far. */
  @Test
  void driftingOffTheEdgeIsTold() {
    int drifts = 0;
    for (long seed = 44; seed <= 45; seed++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 320), "cup-gt");
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      for (int c = 0; c < lap.corners().size(); c += 2) {
        Gate at = gate(lap, lap.corners().get(c), c % 4 == 0, c);
        Gate held = new Gate(at.id(), at.station(), at.left(), at.metres(), 0.3, 60);
        double by = -1.6 * Math.signum(lap.path().offset()[lap.road().index(at.station())]);
        Aside aside = new Aside(at.station(), by, 1);
        Plan plan = new Plan(lap, draft, List.of(), 8, 0, 1, 0, true);
        PlaceFinding straight = driven(lap, draft, held, plan, seed);
        PlaceFinding off =
            driven(lap, draft, held, plan.deviating(List.of(), List.of(aside)), seed);
        double way = off.drift() - straight.drift();
        double drifted = (off.left() ? -by : by) * -rise(lap, at.station());
        assertThat(way).isCloseTo(drifted, within(0.4));
        assertThat(Math.abs(way)).isLessThan(2.2);
        assertThat(off.over()).isEqualTo(60);
        drifts += off.missed() ? 1 : 0;
      }
    }
    assertThat(drifts).isGreaterThan(3);
  }

  /** By how much the straight line rises that fits the 60 m after a bump of 1 best as driven. */
  private static double rise(ComputedLap lap, double station) {
    double[] straight = new double[lap.road().size()];
    double[] bump = Warp.bumped(lap.road(), straight, station, 1, 60);
    double[] eased = Warp.eased(lap.road(), straight, bump, 20);
    double across = 0;
    double along = 0;
    for (int k = 0; k <= 60; k++) {
      across += (k - 30) * eased[lap.road().loop().at(lap.road().index(station) + k)];
      along += (k - 30) * (k - 30);
    }
    return 60 * across / along;
  }

  private static PlaceFinding driven(
      ComputedLap lap, List<CornerEntry> draft, Gate gate, Plan plan, long seed) {
    List<LapData> laps = Drives.read(plan, seed).stream().map(l -> Drives.data(l, lap)).toList();
    return Debriefer.read(lap, draft, List.of(gate), laps).places().get(0);
  }
}
