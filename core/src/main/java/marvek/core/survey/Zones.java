package marvek.core.survey;

import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;

/** What the zones of a survey leave of the grip. */
public final class Zones {
  // The change is felt over a length, not at a point.
  private static final double BLEND = 3;

  private Zones() {}

  /** The ground under a lap on a day; where zones overlap the worst of them counts. */
  public static Ground ground(Centreline road, List<Zone> zones, Surface surface) {
    Ground ground = new Ground(ones(road), ones(road), ones(road), ones(road));
    for (Zone zone : zones) {
      if (!zone.counts(surface)) {
        continue;
      }
      boolean edge = zone.kind() == ZoneKind.DIRTY_EDGE;
      if (zone.side() != Zone.Side.RIGHT) {
        lay(road, zone, surface, edge ? ground.leftEdge() : ground.left());
      }
      if (zone.side() != Zone.Side.LEFT) {
        lay(road, zone, surface, edge ? ground.rightEdge() : ground.right());
      }
    }
    return ground;
  }

  private static void lay(Centreline road, Zone zone, Surface surface, double[] factor) {
    double span = road.ahead(zone.from(), zone.to());
    int first = (int) Math.floor((zone.from() - BLEND) / road.step());
    int count = (int) Math.ceil((span + 2 * BLEND) / road.step());
    for (int k = 0; k <= Math.min(count, road.size() - 1); k++) {
      double inside = Math.min(k * road.step(), span + 2 * BLEND - k * road.step());
      double share = Math.max(0, Math.min(1, inside / BLEND));
      int i = road.loop().at(first + k);
      factor[i] = Math.min(factor[i], 1 - share * (1 - zone.gripLeft(surface)));
    }
  }

  private static double[] ones(Centreline road) {
    double[] ones = new double[road.size()];
    Arrays.fill(ones, 1);
    return ones;
  }
}
