package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Sight;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;

/**
 * What a survey warns of in a corner, and the escape plan that follows. The usual cautions of the
 * trade (common practice, no source); marshals, flags and instructors come first.
 *
 * @param corner id
 * @param warnings in driving order
 * @param shortRunOff whether a car that leaves the road on the outside soon meets something hard
 * @param blind whether the driver cannot see through it in time
 * @param escape the plan offered; {@link Said#NOTHING} only where there is room
 */
public record Hazards(
    String corner, List<Said> warnings, boolean shortRunOff, boolean blind, Said escape) {
  private static final double BEFORE = 120;
  private static final double AFTER = 60;
  private static final double BLIND_SECONDS = 1.5;
  // So many times a corner's speed is fast, and for so many seconds is long.
  private static final double FAST = 1.8;
  private static final double FAST_SECONDS = 8;
  // Share of the speed reached before, going back, below which another corner lies there.
  private static final double ANOTHER = 0.97;
  // Share of full throttle below which too much of it is warned of (common practice, no source).
  private static final double BEARS_RIDER = 0.75;
  private static final double BEARS_CAR = 0.55;

  public Hazards {
    warnings = List.copyOf(warnings);
  }

  /** What the survey and the road say about a corner. */
  public static Hazards of(ComputedLap computed, Things things, CornerEntry entry) {
    Centreline road = computed.road();
    Corner corner = computed.corners().get(computed.indexOf(entry.corner()));
    List<Said> warnings = new ArrayList<>();
    boolean hard = false;
    boolean soft = false;
    for (Zone z : things.zones()) {
      if (!touches(road, corner, z)) {
        continue;
      }
      boolean outside = z.side() == Zone.Side.BOTH || (z.side() == Zone.Side.LEFT) != corner.left();
      hard |= outside && (z.kind() == ZoneKind.WALL || z.kind() == ZoneKind.NO_RUN_OFF);
      soft |= z.kind() == ZoneKind.DAMP || z.kind() == ZoneKind.STANDING_WATER;
      warnings.add(words(road, corner, z));
    }
    for (Kerb k : things.kerbs()) {
      boolean bites =
          k.corner().equals(corner.id())
              && (k.behind() == Kerb.Behind.WALL || k.behind() == Kerb.Behind.DROP);
      if (bites) {
        boolean outside = k.left() != corner.left();
        hard |= outside;
        warnings.add(
            Said.of("hazard.behind", Value.choice(k.behind()), Said.of(side(k.left())).in()));
      }
    }
    double eye = computed.eye();
    double approach = entry.station(PointKind.BRAKE).orElse(corner.entry() - 60);
    double needed = road.ahead(approach, corner.apex());
    double seen = Sight.distance(road, approach, eye, 0, Math.min(needed, 400));
    boolean blind = seen < needed && seen < BLIND_SECONDS * Math.max(10, entry.approachSpeed());
    if (blind) {
      warnings.add(Said.of("hazard.blind", Value.length(seen)));
    }
    afterFast(computed, corner).ifPresent(warnings::add);
    atPower(computed, corner).ifPresent(warnings::add);
    return new Hazards(
        corner.id(), warnings, hard, blind, escape(computed, corner, hard, blind, soft, entry));
  }

  /** Whether a zone lies where a corner is approached, driven or left. */
  public static boolean touches(Centreline road, Corner corner, Zone z) {
    double from = corner.entry() - BEFORE;
    double span = road.ahead(from, corner.exit() + AFTER);
    return road.ahead(from, z.from()) <= span
        || road.ahead(z.from(), from) <= road.ahead(z.from(), z.to());
  }

  /**
   * A corner that looks slower than it is, as what came before it was fast for long: one gets used
   * to speed, and what follows is judged too slow (G. G. Denton, <i>A subjective scale of speed
   * when driving a motor vehicle</i>, Ergonomics 9, 1966, from memory; how long and how much
   * faster: common practice, no source).
   */
  private static Optional<Said> afterFast(ComputedLap computed, Corner corner) {
    Centreline road = computed.road();
    double[] speed = computed.lap().speed();
    int slowest = road.index(corner.entry());
    for (int i : road.loop().between(slowest, road.index(corner.exit())).indices().toArray()) {
      slowest = speed[i] < speed[slowest] ? i : slowest;
    }
    double fast = FAST * speed[slowest];
    int n = road.size();
    int k = 1;
    double most = speed[slowest];
    while (k < n && speed[Math.floorMod(slowest - k, n)] < fast) {
      double v = speed[Math.floorMod(slowest - k, n)];
      // The braking for it, and no other corner, lies between.
      if (v < ANOTHER * most) {
        return Optional.empty();
      }
      most = Math.max(most, v);
      k++;
    }
    double seconds = 0;
    double metres = 0;
    for (; k < n && speed[Math.floorMod(slowest - k, n)] >= fast; k++) {
      double v = speed[Math.floorMod(slowest - k, n)];
      seconds += road.step() / v;
      metres += road.step();
    }
    return seconds < FAST_SECONDS
        ? Optional.empty()
        : Optional.of(
            Said.of(
                "hazard.after_fast",
                Value.figure(seconds, 0),
                Value.speed(metres / seconds),
                Value.speed(speed[slowest])));
  }

  /**
   * Where on the way out the driven tyres bear so little of full throttle that too much of it spins
   * a car round or, when the rear wheel slides and grips again, throws a rider over.
   */
  private static Optional<Said> atPower(ComputedLap computed, Corner corner) {
    boolean rider = computed.vehicle().kind() == VehicleKind.MOTORCYCLE;
    if (computed.vehicle().gearbox().drive() != Vehicle.Drive.REAR) {
      return Optional.empty();
    }
    Centreline road = computed.road();
    int[] through =
        road.loop()
            .between(road.index(corner.entry()), road.index(corner.exit()))
            .indices()
            .toArray();
    int slowest = 0;
    for (int k = 0; k < through.length; k++) {
      slowest =
          computed.lap().speed()[through[k]] < computed.lap().speed()[through[slowest]]
              ? k
              : slowest;
    }
    int full = slowest;
    while (full < through.length - 1 && bears(computed, through[full]) < 1) {
      full++;
    }
    // Half-way to where all of it is borne: at the slowest place the turn leaves nothing at all.
    int at = through[(slowest + full) / 2];
    double least = bears(computed, at);
    if (full == slowest || least >= (rider ? BEARS_RIDER : BEARS_CAR)) {
      return Optional.empty();
    }
    double v = computed.lap().speed()[at];
    double lean = Math.atan(computed.limits().sideways(computed.path(), at, v * v) / Units.G);
    return Optional.of(
        Said.of(
            rider ? "hazard.high_side" : "hazard.spin",
            Value.length(at * road.step()),
            Value.percent(least),
            Value.figure(Math.toDegrees(lean), 0),
            Value.choice(computed.vehicle().hasTractionControl())));
  }

  /** Share of full throttle that the driven tyres bear at a station of the lap, 0 to 1. */
  private static double bears(ComputedLap computed, int i) {
    Limits limits = computed.limits();
    Path path = computed.path();
    double v = computed.lap().speed()[i];
    double load = limits.load(path, i, v * v);
    double most = limits.traction(load, limits.ellipse(path, i, v * v, load), path.driving(i));
    return Math.min(1, most / Math.max(0.1, limits.engineDrive(v)));
  }

  private static Said words(Centreline road, Corner corner, Zone z) {
    double to = road.apart(corner.apex(), z.from());
    double end = road.apart(corner.apex(), z.to());
    String where = end < -20 ? "before" : to > 20 ? "exit" : "in";
    Said side =
        z.side() == Zone.Side.BOTH
            ? Said.NOTHING
            : Said.of("hazard.zone.side", Said.of(side(z.side() == Zone.Side.LEFT)).in());
    Said note =
        z.note().isBlank()
            ? Said.NOTHING
            : Said.of("hazard.zone.note", Value.own(z.note().strip()));
    return Said.of("hazard.zone." + where, z.kind().said().in(), side.in(), note.in());
  }

  private static String side(boolean left) {
    return left ? "side.left" : "side.right";
  }

  private static Said escape(
      ComputedLap computed,
      Corner corner,
      boolean hard,
      boolean blind,
      boolean soft,
      CornerEntry entry) {
    if (entry.slowing() == Slowing.FLAT && !hard) {
      return Said.NOTHING;
    }
    boolean motorcycle = computed.vehicle().kind() == VehicleKind.MOTORCYCLE;
    Value rides = Value.choice(motorcycle);
    List<Said> parts = new ArrayList<>();
    parts.add(
        hard
            ? Said.of("escape.no_room", rides, Said.of(side(!corner.left())).in())
            : Said.of("escape.room", rides));
    if (blind) {
      parts.add(Said.of("escape.blind"));
    }
    if (soft) {
      parts.add(Said.of("escape.wet"));
    }
    parts.add(Said.of("escape.last", rides));
    return Said.joined(parts);
  }
}
