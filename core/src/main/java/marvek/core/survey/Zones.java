package marvek.core.survey;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.lap.Surface.Dries;
import marvek.core.units.Units;

/**
 * What the zones of a survey do to the road: the grip they leave, how it lies, its wind and the
 * room on it. Zone and file are not added: of vertical curvature the larger counts, a level reading
 * beats a zone of camber, and that beats the file.
 */
public final class Zones {
  /** Speed at which bumps take the share of the load that is said of them, m/s. */
  public static final double BUMPS_AT = 50;

  // Grip changes over a length that is felt, not at a point; so do wind and room, over more. Camber
  // and crests come and go as roads do.
  private static final double BLEND = 3;
  private static final double ROOM_BLEND = 15;
  private static final double LIE_BLEND = 20;

  private Zones() {}

  /** The ground under a lap on a day; where zones overlap the worst of them counts. */
  public static Ground ground(Centreline road, List<Zone> zones, Surface surface) {
    double[] left = ones(road);
    double[] right = ones(road);
    List<Ground.Strip> strips = new ArrayList<>();
    for (Zone zone : zones) {
      double factor = zone.gripLeft(surface);
      if (factor == 1) {
        continue;
      }
      Zone.Across across = zone.strip();
      if (zone.side() != Zone.Side.RIGHT) {
        lay(road, zone, factor, across == null ? left : strip(road, strips, true, across));
      }
      if (zone.side() != Zone.Side.LEFT) {
        lay(road, zone, factor, across == null ? right : strip(road, strips, false, across));
      }
    }
    boolean lies =
        zones.stream().anyMatch(z -> z.kind().effect() != Zone.Effect.GRIP && z.counts());
    return new Ground(
        left,
        right,
        strips,
        lies ? lie(road, zones) : null,
        null,
        null,
        surface.holds(Dries.WITH_THE_REST));
  }

  private static double[] strip(
      Centreline road, List<Ground.Strip> strips, boolean left, Zone.Across across) {
    for (Ground.Strip s : strips) {
      if (s.leftEdge() == left && s.near() == across.near() && s.far() == across.far()) {
        return s.grip();
      }
    }
    Ground.Strip made = new Ground.Strip(left, across.near(), across.far(), ones(road));
    strips.add(made);
    return made.grip();
  }

  private static void lay(Centreline road, Zone zone, double left, double[] factor) {
    along(
        road,
        zone,
        BLEND,
        (i, share) -> {
          double here = 1 - share * (1 - left);
          // What grips more counts where nothing takes grip.
          if (left <= 1) {
            factor[i] = Math.min(factor[i], here);
          } else if (factor[i] >= 1) {
            factor[i] = Math.max(factor[i], here);
          }
        });
  }

  private static Ground.Lie lie(Centreline road, List<Zone> zones) {
    Ground.Lie lie = Ground.Lie.of(road);
    double[] vertical = lie.verticalCurvature();
    double[] bumps = new double[road.size()];
    List<Zone> parts = new ArrayList<>();
    for (Zone z : zones) {
      if (z.lies() && z.side() != Zone.Side.BOTH) {
        parts.add(z);
        continue;
      }
      double size = z.size();
      switch (z.kind().effect()) {
        case GRIP -> {}
        case CREST ->
            along(
                road,
                z,
                LIE_BLEND,
                (i, share) -> vertical[i] = Math.min(vertical[i], -share / size));
        case DIP ->
            along(
                road,
                z,
                LIE_BLEND,
                (i, share) -> vertical[i] = Math.max(vertical[i], share / size));
        case LOAD -> bumps(road, z, bumps);
        case CAMBER_IN, CAMBER_OUT -> {
          double to = bend(road, z) * (z.kind().effect() == Zone.Effect.CAMBER_IN ? size : -size);
          fall(road, z, to, lie.crossfall());
        }
        case WIND ->
            along(road, z, ROOM_BLEND, (i, share) -> lie.wind()[i] = 1 + share * (size - 1));
        case ROOM -> {
          if (z.side() != Zone.Side.RIGHT) {
            keep(road, z, lie.keepLeft());
          }
          if (z.side() != Zone.Side.LEFT) {
            keep(road, z, lie.keepRight());
          }
        }
        case LEVEL, BEYOND -> {}
      }
    }
    double[] level = new double[road.size()];
    for (Zone z : zones) {
      if (z.kind().effect() == Zone.Effect.LEVEL) {
        fall(road, z, z.side() == Zone.Side.RIGHT ? -z.size() : z.size(), lie.crossfall());
        along(road, z, LIE_BLEND, (i, share) -> level[i] = Math.max(level[i], share));
      }
    }
    List<Ground.Part> lies = new ArrayList<>();
    for (Zone z : parts) {
      lay(road, z, lie, level, part(road, lies, z));
    }
    for (Ground.Part p : lies) {
      double[] worst = bumps.clone();
      for (Zone z : parts) {
        if (z.kind().effect() == Zone.Effect.LOAD && part(road, lies, z) == p) {
          bumps(road, z, worst);
        }
      }
      for (int i = 0; i < worst.length; i++) {
        p.verticalCurvature()[i] -= worst[i] - bumps[i];
      }
    }
    for (int i = 0; i < bumps.length; i++) {
      vertical[i] -= bumps[i];
    }
    return lie.with(lies);
  }

  private static Ground.Part part(Centreline road, List<Ground.Part> parts, Zone zone) {
    boolean left = zone.side() == Zone.Side.LEFT;
    Zone.Across across = zone.across();
    double near = across == null ? 0 : across.near();
    double far = across == null ? Ground.Part.HALF : across.far();
    for (Ground.Part p : parts) {
      if (p.leftEdge() == left && p.near() == near && p.far() == far) {
        return p;
      }
    }
    Ground.Part made =
        new Ground.Part(left, near, far, new double[road.size()], new double[road.size()]);
    parts.add(made);
    return made;
  }

  /**
   * Lays a zone on a part of the width, as on the whole of it: what it makes of the road's own lie
   * there is what the part has more.
   */
  private static void lay(
      Centreline road, Zone z, Ground.Lie lie, double[] level, Ground.Part part) {
    double size = z.size();
    double[] vertical = part.verticalCurvature();
    switch (z.kind().effect()) {
      case CREST ->
          along(
              road,
              z,
              LIE_BLEND,
              (i, share) ->
                  vertical[i] +=
                      Math.min(0, -share / size - lie.verticalCurvature()[i] - vertical[i]));
      case DIP ->
          along(
              road,
              z,
              LIE_BLEND,
              (i, share) ->
                  vertical[i] +=
                      Math.max(0, share / size - lie.verticalCurvature()[i] - vertical[i]));
      // Of all the bumps there the worst count, when the rest is laid.
      case LOAD -> {}
      default -> {
        double to =
            Math.atan(bend(road, z) * (z.kind().effect() == Zone.Effect.CAMBER_IN ? size : -size));
        along(
            road,
            z,
            LIE_BLEND,
            (i, share) -> {
              double now = lie.crossfall()[i] + part.crossfall()[i];
              part.crossfall()[i] += share * (1 - level[i]) * (to - now);
            });
      }
    }
  }

  /**
   * What bumps take of the load, 1/m: what the wheels lose over bumps of one size grows with the
   * square of the speed, as over a crest. Where they overlap the worst count.
   */
  private static void bumps(Centreline road, Zone z, double[] worst) {
    double takes = (1 - z.size()) * Units.G / (BUMPS_AT * BUMPS_AT);
    along(road, z, BLEND, (i, share) -> worst[i] = Math.max(worst[i], share * takes));
  }

  private static void keep(Centreline road, Zone z, double[] keep) {
    along(road, z, ROOM_BLEND, (i, share) -> keep[i] = Math.max(keep[i], share * z.size()));
  }

  private static void fall(Centreline road, Zone z, double slope, double[] crossfall) {
    double angle = Math.atan(slope);
    along(road, z, LIE_BLEND, (i, share) -> crossfall[i] += share * (angle - crossfall[i]));
  }

  /** 1 where the road bends to the left over a zone on the whole, −1 where it bends right. */
  private static int bend(Centreline road, Zone z) {
    Loop loop = road.loop();
    double turn =
        loop.between(road.index(z.from()), road.index(z.to()))
            .indices()
            .mapToDouble(i -> road.curvature()[i])
            .sum();
    return turn < 0 ? -1 : 1;
  }

  private interface Laid {
    void at(int index, double share);
  }

  /** Goes along a zone that comes and goes smoothly just outside its ends. */
  private static void along(Centreline road, Zone zone, double blend, Laid laid) {
    double span = road.ahead(zone.from(), zone.to());
    int first = (int) Math.floor((zone.from() - blend) / road.step());
    int count = (int) Math.ceil((span + 2 * blend) / road.step());
    for (int k = 0; k <= Math.min(count, road.size() - 1); k++) {
      double inside = Math.min(k * road.step(), span + 2 * blend - k * road.step());
      double share = Math.max(0, Math.min(1, inside / blend));
      laid.at(road.loop().at(first + k), share);
    }
  }

  private static double[] ones(Centreline road) {
    double[] ones = new double[road.size()];
    Arrays.fill(ones, 1);
    return ones;
  }

  /**
   * Whether a line crosses bumps at a place.
   *
   * @param station m
   * @param offset metres to the left of the middle
   */
  public static boolean bumps(Centreline road, Things things, double station, double offset) {
    for (Zone z : things.zones()) {
      boolean there =
          z.kind() == ZoneKind.BUMP
              && road.ahead(z.from(), station) <= road.ahead(z.from(), z.to());
      if (there && under(road, z, road.index(station), offset)) {
        return true;
      }
    }
    return false;
  }

  /** Whether the middle of a vehicle is on a zone's side, or on its strip. */
  private static boolean under(Centreline road, Zone z, int i, double offset) {
    if (z.side() == Zone.Side.BOTH) {
      return true;
    }
    boolean left = z.side() == Zone.Side.LEFT;
    Zone.Across across = z.across();
    double out = left ? road.left()[i] - offset : road.right()[i] + offset;
    return across == null ? left == offset > 0 : out >= across.near() && out <= across.far();
  }
}
