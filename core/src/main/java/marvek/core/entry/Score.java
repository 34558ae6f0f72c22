package marvek.core.entry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.score.Manner;
import org.jspecify.annotations.Nullable;

/**
 * All that is done in a corner as one sequence of actions: the points that every entry has, and the
 * actions that a driver added. The one place that knows that the two are stored apart.
 */
public final class Score {
  /** Points that are actions, with the id of the action that each of them is. */
  private static final Map<PointKind, ActionKind> POINTS =
      Map.of(
          PointKind.BRAKE, ActionKind.BRAKE,
          PointKind.RELEASE, ActionKind.EASE,
          PointKind.DOWNSHIFT, ActionKind.SHIFT,
          PointKind.SHORT_SHIFT, ActionKind.SHIFT,
          PointKind.TURN_IN, ActionKind.HANDS,
          PointKind.FIRST_APEX, ActionKind.APEX,
          PointKind.APEX, ActionKind.APEX,
          PointKind.FIRST_THROTTLE, ActionKind.THROTTLE,
          PointKind.FULL_THROTTLE, ActionKind.FULL);

  private Score() {}

  /** The id of the action that a point is. */
  public static String id(PointKind kind) {
    return kind.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
  }

  /** The point that an action is stored as; empty for one of the driver's own. */
  public static Optional<PointKind> point(String id) {
    return POINTS.keySet().stream().filter(k -> id(k).equals(id)).findFirst();
  }

  /**
   * Everything done in a corner, in driving order.
   *
   * @param road on which it is driven
   */
  public static List<Action> of(Centreline road, CornerEntry entry) {
    List<Action> all = new ArrayList<>();
    for (CornerPoint p : entry.points()) {
      ActionKind kind = POINTS.get(p.kind());
      if (kind != null) {
        all.add(action(entry, p, kind));
      }
    }
    all.addAll(entry.actions());
    return inOrder(road, entry, all);
  }

  /** Actions in driving order around the middle of their corner. */
  static List<Action> inOrder(Centreline road, CornerEntry entry, List<Action> actions) {
    if (actions.isEmpty()) {
      return List.of();
    }
    double middle =
        entry
            .station(PointKind.APEX)
            .or(() -> entry.station(PointKind.TURN_IN))
            .orElse(actions.get(0).station());
    return actions.stream()
        .sorted(
            Comparator.<Action>comparingDouble(a -> road.apart(middle, a.station()))
                .thenComparing(Action::id))
        .toList();
  }

  private static Action action(CornerEntry entry, CornerPoint p, ActionKind kind) {
    @Nullable Cue cue =
        p.cue() != null
            ? p.cue()
            : p.tie() == null
                ? null
                : Cue.of(CueKind.PAST, p.tie().landmark(), p.tie().spoken(), p.tie().past());
    ActionBuilder made =
        ActionBuilder.builder(Action.of(id(p.kind()), kind, p.station(), null))
            .cue(cue)
            .sure(p.sure());
    switch (p.kind()) {
      case RELEASE -> made.amount(0.0);
      case DOWNSHIFT -> made.gear(entry.gear());
      case SHORT_SHIFT -> made.gear(entry.gear() + 1);
      case FIRST_THROTTLE -> made.amount(entry.firstThrottle()).manner(Manner.EVENLY);
      case APEX -> made.amount(entry.apexOff());
      default -> {}
    }
    return made.build();
  }

  /** Whether anything is written that moves a pedal otherwise than the points do. */
  public static boolean plays(CornerEntry entry) {
    return entry.actions().stream().anyMatch(a -> a.kind().pedal());
  }

  /** The entry with an action in place of the one with its id, or besides what there is. */
  public static CornerEntry with(CornerEntry entry, Action action) {
    Optional<PointKind> point = point(action.id());
    if (point.isPresent()) {
      return entry
          .copy()
          .points(
              entry.points().stream()
                  .map(
                      p -> p.kind() == point.get() ? p.at(action.station()).found(action.cue()) : p)
                  .toList())
          .done();
    }
    List<Action> actions =
        new ArrayList<>(entry.actions().stream().filter(a -> !a.id().equals(action.id())).toList());
    actions.add(action);
    return entry.copy().actions(actions).done();
  }
}
