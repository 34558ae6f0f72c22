package marvek.core.day;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.KerbUse;
import marvek.core.entry.OtherGates;
import marvek.core.entry.OwnPace;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.RoadUse;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Gate;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.Zones;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * What a reference is driven on: the zones of its road, what it uses beyond the edges, where it
 * must pass, and how much of the grip its driver uses.
 *
 * @param zones that the computation feels, on some day
 * @param used of edges and gates
 * @param pace null for all of the grip
 */
public record Footing(List<Zone> zones, Used used, @Nullable OwnPace pace) {
  /**
   * Edges that are opened, as the survey had them, and gates.
   *
   * @param edges that may be used and are
   * @param gates that the line passes
   */
  public record Used(List<Edge> edges, List<Gate> gates) {
    /** Nothing. */
    public static final Used NONE = new Used(List.of(), List.of());

    public Used {
      edges = List.copyOf(edges);
      gates = List.copyOf(gates);
    }
  }

  public Footing {
    zones = List.copyOf(zones);
  }

  /** Zones alone: the road with all of its grip. */
  public static Footing plain(List<Zone> zones) {
    return new Footing(zones, Used.NONE, null);
  }

  /** That of a reference as its content and the survey ask for it. */
  public static Footing of(
      Centreline road,
      List<Corner> corners,
      Things things,
      Vehicle vehicle,
      ReferenceContent content) {
    return new Footing(
        things.ground(), used(road, corners, things, vehicle, content), content.pace());
  }

  /** Edges and gates as a content asks for them. */
  public static Used used(
      Centreline road,
      List<Corner> corners,
      Things things,
      Vehicle vehicle,
      ReferenceContent content) {
    RoadUse use = RoadUse.of(content.use());
    List<Edge> edges = new ArrayList<>();
    for (Edge e : Edges.of(road, corners, things, vehicle, use.opened())) {
      Optional<Kerb.Verdict> how = how(things, content.corners(), e);
      if (e.usable() && how.map(h -> h != Kerb.Verdict.KEEP_OFF).orElse(true)) {
        edges.add(how.map(h -> h == Kerb.Verdict.TOUCH).orElse(false) ? e.within(Edges.TOUCH) : e);
      }
    }
    return new Used(edges, use.gates());
  }

  /** What a corner's entry says is done with a kerb. */
  private static Optional<Kerb.Verdict> how(Things things, List<CornerEntry> entries, Edge edge) {
    return things.kerbs().stream()
        .filter(k -> k.id().equals(edge.id()))
        .flatMap(
            k ->
                entries.stream()
                    .filter(e -> e.corner().equals(k.corner()))
                    .flatMap(e -> e.kerbs().stream())
                    .filter(u -> u.part() == k.part()))
        .map(KerbUse::how)
        .findFirst();
  }

  /** The same with other zones. */
  public Footing withZones(List<Zone> others) {
    return new Footing(others, used, pace);
  }

  /** The same with other edges and gates. */
  public Footing withUsed(Used other) {
    return new Footing(zones, other, pace);
  }

  /** The same through the gates of a day. */
  public Footing on(Day day) {
    OtherGates others = day.gates();
    return others == null ? this : withUsed(new Used(used.edges(), others.in(used.gates())));
  }

  /** The same at another pace. */
  public Footing withPace(@Nullable OwnPace other) {
    return new Footing(zones, used, other);
  }

  /** The ground that it makes on a day. */
  public Ground ground(Centreline road, List<Corner> corners, Vehicle vehicle, Surface surface) {
    Ground open = Edges.open(road, Zones.ground(road, zones, surface), used.edges(), vehicle);
    return Paced.ground(road, corners, Gate.through(road, open, used.gates(), vehicle), pace);
  }

  /**
   * The stretch of road on which two uses differ.
   *
   * @param start station, m
   * @param end station, m; may lie past the line
   */
  public record Stretch(double start, double end) {}

  /**
   * The shortest stretch that holds all that differs between two uses; empty where nothing does.
   */
  public static Optional<Stretch> differ(Centreline road, Used before, Used after) {
    List<Stretch> parts = new ArrayList<>();
    parts(road, parts, before, after);
    parts(road, parts, after, before);
    parts.sort(Comparator.comparingDouble(Stretch::start));
    // It begins after the widest gap.
    Stretch best = null;
    for (Stretch first : parts) {
      double ahead = 0;
      for (Stretch p : parts) {
        ahead =
            Math.max(ahead, road.ahead(first.start(), p.start()) + road.ahead(p.start(), p.end()));
      }
      if (best == null || ahead < road.ahead(best.start(), best.end())) {
        best = new Stretch(first.start(), road.wrap(first.start() + ahead));
      }
    }
    return Optional.ofNullable(best);
  }

  private static void parts(Centreline road, List<Stretch> out, Used in, Used notIn) {
    in.edges().stream()
        .filter(e -> !notIn.edges().contains(e))
        .forEach(e -> out.add(new Stretch(e.from(), e.to())));
    in.gates().stream()
        .filter(g -> !notIn.gates().contains(g))
        .forEach(g -> out.add(new Stretch(road.wrap(g.station() - g.over()), g.station())));
  }
}
