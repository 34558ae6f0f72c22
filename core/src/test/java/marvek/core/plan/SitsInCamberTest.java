package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.CornerFinder;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.survey.Zones;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

/** A road that lies otherwise on part of its width, and the line that seeks or shuns it. */
class SitsInCamberTest {
  /**
   * Where an inner strip falls into the bend a line sits in it, and where it falls out it stays
   * off.
   */
  @Test
  void theLineSitsInACamberOfPartOfTheRoad() {
    for (long seed : new long[] {61, 62, 63}) {
      Centreline road = RandomRoads.of(seed, 220).centreline();
      Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
      Corner corner =
          CornerFinder.find(road).stream()
              .max(Comparator.comparingDouble(c -> Math.abs(c.angle())))
              .orElseThrow();
      double inner = corner.left() ? 1 : -1;
      double[] near = new double[3];
      double[] lap = new double[3];
      for (int way = -1; way <= 1; way++) {
        Zone strip =
            new Zone(
                "z",
                way < 0 ? ZoneKind.ADVERSE_CAMBER : ZoneKind.HELPFUL_CAMBER,
                corner.left() ? Zone.Side.LEFT : Zone.Side.RIGHT,
                corner.entry(),
                corner.exit(),
                3,
                way == 0 ? 0.0 : 0.12,
                new Zone.Across(2.2, 4.5),
                null,
                null,
                "",
                "");
        Ground ground = Zones.ground(road, List.of(strip), Surface.DRY);
        ComputedLap computed =
            ComputedLap.compute(road, List.of(corner), ground, v, Conditions.dryWarm());
        double sum = 0;
        int count = 0;
        for (double s = corner.apex() - 30; s <= corner.apex() + 30; s += road.step()) {
          int i = road.index(road.wrap(s));
          double edge = corner.left() ? road.left()[i] : road.right()[i];
          double out = edge - inner * computed.path().offset()[i];
          sum += Math.abs(out - 3.35);
          count++;
        }
        near[way + 1] = sum / count;
        lap[way + 1] = computed.lap().lapTime();
      }
      assertThat(near[2]).as("road %d: into the helpful strip", seed).isLessThan(near[1]);
      assertThat(near[0]).as("road %d: off the adverse one", seed).isGreaterThan(near[2]);
      assertThat(lap[2]).as("road %d: it helps", seed).isLessThan(lap[1]);
      assertThat(lap[0]).as("road %d: it does not", seed).isGreaterThanOrEqualTo(lap[1] - 0.002);
    }
  }
}
