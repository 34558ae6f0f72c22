package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.score.ActionKind;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import org.jspecify.annotations.Nullable;

/**
 * Brakings of the computed lap that a reference has no point for: the corner is entered as one that
 * is lifted for or flat, or its marker stands past where the brake is to be pressed. Whoever drove
 * that would arrive much too fast. A lift that is written and slows enough is no loss.
 */
public final class LostBrakings {
  // A marker later than the lap's own braking by less is the driver's choice, and answered as such.
  private static final double LATER = 5;

  private LostBrakings() {}

  /**
   * A braking without a point.
   *
   * @param corner id
   * @param station where the lap presses the brake
   * @param from m/s there
   * @param to m/s at the slowest place that it serves
   * @param later metres past it where the entry has its marker; null where it has none
   */
  public record Lost(
      String corner, double station, double from, double to, @Nullable Double later) {}

  /** All of a reference, in driving order. */
  public static List<Lost> in(ComputedLap computed, ReferenceContent content) {
    List<Lost> out = new ArrayList<>();
    for (CornerEntry e : content.corners()) {
      int c = computed.indexOf(e.corner());
      if (!SchoolLine.bends(e.schools()) && lost(computed, c, e)) {
        Brakings.Braking b = computed.brakings().of(c).get(0);
        double onset = b.onset() * computed.road().step();
        Double later =
            e.slowing() == Slowing.BRAKE
                ? e.station(PointKind.BRAKE).map(s -> computed.road().apart(onset, s)).orElse(null)
                : null;
        out.add(new Lost(e.corner(), onset, b.from(), b.to(), later));
      }
    }
    return List.copyOf(out);
  }

  private static boolean lost(ComputedLap computed, int c, CornerEntry e) {
    List<Brakings.Braking> brakings = computed.brakings().of(c);
    if (brakings.isEmpty() || brakings.get(0).lost() <= Brakings.COUNTS) {
      return false;
    }
    if (LongerLift.does(computed, e)) {
      return false;
    }
    double onset = brakings.get(0).onset() * computed.road().step();
    return e.slowing() != Slowing.BRAKE
        || e.station(PointKind.BRAKE)
            .map(s -> computed.road().apart(onset, s) > LATER)
            .orElse(true);
  }

  /**
   * A corner carried over to other circumstances, with its braking: where the lap brakes there and
   * the carried entry does not, the draft's slowing, braking and release are taken. A lift chosen
   * in place of a braking comes in time instead, as long as there is room for it.
   *
   * @param draft of the corner in those circumstances
   */
  public static CornerEntry kept(ComputedLap computed, CornerEntry entry, CornerEntry draft) {
    int c = computed.indexOf(entry.corner());
    CornerEntry carried = entry;
    boolean again = false;
    if (LongerLift.chosen(entry)) {
      double margin = computed.conditions().driving().margin();
      Optional<CornerEntry> inTime = LongerLift.inTime(computed, entry, margin);
      if (inTime.isPresent()) {
        return inTime.get();
      }
      carried = braking(entry);
      again = draft.slowing() == Slowing.BRAKE;
    }
    boolean braked = carried.slowing() == Slowing.BRAKE;
    boolean marked = braked && carried.point(PointKind.BRAKE).isPresent();
    if (!again && (marked || !lost(computed, c, carried))) {
      return carried;
    }
    List<CornerPoint> points = new ArrayList<>(carried.points());
    for (PointKind kind : List.of(PointKind.BRAKE, PointKind.RELEASE, PointKind.FIRST_THROTTLE)) {
      boolean has = points.stream().anyMatch(p -> p.kind() == kind);
      draft.point(kind).filter(p -> !has).ifPresent(points::add);
    }
    double origin = draft.station(PointKind.APEX).orElse(0.0) - computed.road().length() / 2;
    points.sort(
        Comparator.<CornerPoint>comparingDouble(p -> computed.road().ahead(origin, p.station()))
            .thenComparing(CornerPoint::kind));
    return carried
        .copy()
        .slowing(Slowing.BRAKE)
        .points(points)
        .firstEffort(draft.firstEffort())
        .done();
  }

  /** Without a lift that was to spare the brake. */
  private static CornerEntry braking(CornerEntry entry) {
    return entry
        .copy()
        .schools(entry.schools().stream().filter(s -> s != School.NO_BRAKE).toList())
        .actions(Score.without(entry, ActionKind.LIFT))
        .done();
  }
}
