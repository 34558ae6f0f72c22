package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Sight;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.vehicle.Vehicle;

/**
 * What a survey warns of in a corner, and the escape plan that follows. The usual cautions of the
 * trade (common practice, no source); marshals, flags and instructors come first.
 *
 * @param corner id
 * @param warnings in driving order, in words
 * @param shortRunOff whether a car that leaves the road on the outside soon meets something hard
 * @param escape the plan offered; never empty where the run-off is short
 */
public record Hazards(String corner, List<String> warnings, boolean shortRunOff, String escape) {
  private static final double BEFORE = 120;
  private static final double AFTER = 60;
  private static final double BLIND_SECONDS = 1.5;

  public Hazards {
    warnings = List.copyOf(warnings);
  }

  /** What the survey and the road say about a corner. */
  public static Hazards of(ComputedLap computed, Things things, CornerEntry entry) {
    Centreline road = computed.road();
    Corner corner = computed.corners().get(computed.indexOf(entry.corner()));
    double from = corner.entry() - BEFORE;
    double span = road.ahead(from, corner.exit() + AFTER);
    List<String> warnings = new ArrayList<>();
    boolean hard = false;
    boolean soft = false;
    for (Zone z : things.zones()) {
      double at = road.ahead(from, z.from());
      boolean touches = at <= span || road.ahead(z.from(), from) <= road.ahead(z.from(), z.to());
      if (!touches) {
        continue;
      }
      boolean outside = z.side() == Zone.Side.BOTH || (z.side() == Zone.Side.LEFT) != corner.left();
      hard |= outside && (z.kind() == Zone.Kind.WALL || z.kind() == Zone.Kind.NO_RUN_OFF);
      soft |= z.kind() == Zone.Kind.DAMP || z.kind() == Zone.Kind.STANDING_WATER;
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
            (k.behind() == Kerb.Behind.WALL ? "wall" : "drop")
                + " behind the kerb on the "
                + (k.left() ? "left" : "right"));
      }
    }
    double eye =
        computed.vehicle().kind() == Vehicle.Kind.MOTORCYCLE ? Sight.EYE_MOTORCYCLE : Sight.EYE_CAR;
    double approach = entry.station(PointKind.BRAKE).orElse(corner.entry() - 60);
    double needed = road.ahead(approach, corner.apex());
    double seen = Sight.distance(road, approach, eye, 0, Math.min(needed, 400));
    boolean blind = seen < needed && seen < BLIND_SECONDS * Math.max(10, entry.approachSpeed());
    if (blind) {
      warnings.add(
          String.format(Locale.ROOT, "blind: %.0f m of road to be seen at the marker", seen));
    }
    return new Hazards(
        corner.id(), warnings, hard, escape(computed, corner, hard, blind, soft, entry));
  }

  private static String words(Centreline road, Corner corner, Zone z) {
    double to = road.apart(corner.apex(), z.from());
    double end = road.apart(corner.apex(), z.to());
    String where = end < -20 ? "before it" : to > 20 ? "at the exit" : "in it";
    String side =
        z.side() == Zone.Side.BOTH ? "" : " on the " + z.side().name().toLowerCase(Locale.ROOT);
    return z.kind().words()
        + side
        + " "
        + where
        + (z.note().isBlank() ? "" : " (" + z.note().strip() + ")");
  }

  private static String escape(
      ComputedLap computed,
      Corner corner,
      boolean hard,
      boolean blind,
      boolean soft,
      CornerEntry entry) {
    if (entry.slowing() == Slowing.FLAT && !hard) {
      return "";
    }
    boolean motorcycle = computed.vehicle().kind() == Vehicle.Kind.MOTORCYCLE;
    List<String> parts = new ArrayList<>();
    if (hard) {
      parts.add(
          motorcycle
              ? "no room on the "
                  + (corner.left() ? "right" : "left")
                  + ": stay leaned in, look through, ease the brake and let it run wide no further"
              : "no room on the "
                  + (corner.left() ? "right" : "left")
                  + ": get the speed off in a straight line before you turn");
    } else {
      parts.add(
          motorcycle
              ? "too fast: stand it up, brake straight, off the road upright"
              : "too fast: straight on, brake in a line, stay off the throttle");
    }
    if (blind) {
      parts.add("expect a stopped car past the brow");
    }
    if (soft) {
      parts.add("no sudden brake on the wet");
    }
    parts.add("lose the place, not the " + (motorcycle ? "bike" : "car"));
    return String.join("; ", parts);
  }
}
