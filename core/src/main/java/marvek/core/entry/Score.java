package marvek.core.entry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.marker.Tie;
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
  private Score() {}

  /** What a point is as an action; null for those that only mark. */
  public static @Nullable ActionKind kind(PointKind point) {
    return switch (point) {
      case BRAKE -> ActionKind.BRAKE;
      case RELEASE -> ActionKind.EASE;
      case DOWNSHIFT, SHORT_SHIFT -> ActionKind.SHIFT;
      case TURN_IN -> ActionKind.HANDS;
      case FIRST_APEX, APEX -> ActionKind.APEX;
      case FIRST_THROTTLE -> ActionKind.THROTTLE;
      case FULL_THROTTLE -> ActionKind.FULL;
      case BUILD_UP, TARGET, BACK_UP, EXIT -> null;
    };
  }

  /** The id of the action that a point is. */
  public static String id(PointKind kind) {
    return kind.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /** The point that an action is stored as; empty for one of the driver's own. */
  public static Optional<PointKind> point(String id) {
    return Arrays.stream(PointKind.values())
        .filter(k -> kind(k) != null && id(k).equals(id))
        .findFirst();
  }

  /**
   * Everything done in a corner, in driving order.
   *
   * @param road on which it is driven
   */
  public static List<Action> of(Centreline road, CornerEntry entry) {
    return of(road.length(), entry);
  }

  /**
   * Everything done in a corner, in driving order.
   *
   * @param lap metres once round; endless where not known
   */
  public static List<Action> of(double lap, CornerEntry entry) {
    List<Action> all = new ArrayList<>();
    for (CornerPoint p : entry.points()) {
      ActionKind kind = kind(p.kind());
      if (kind != null) {
        all.add(action(entry, p, kind));
      }
    }
    all.addAll(entry.actions());
    return inOrder(lap, entry, all);
  }

  /** Actions in driving order around the middle of their corner. */
  static List<Action> inOrder(double lap, CornerEntry entry, List<Action> actions) {
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
            Comparator.<Action>comparingDouble(a -> apart(middle, a.station(), lap))
                .thenComparing(Action::id))
        .toList();
  }

  private static double apart(double from, double to, double lap) {
    double by = to - from;
    return Math.abs(by) > lap / 2 ? by - Math.signum(by) * lap : by;
  }

  private static Action action(CornerEntry entry, CornerPoint p, ActionKind kind) {
    Action written = p.play();
    if (written != null) {
      ActionBuilder again =
          ActionBuilder.builder(written).id(id(p.kind())).kind(kind).station(p.station());
      // What an entry says of it in a field of its own is kept there.
      return own(entry, p.kind(), again.sure(p.sure())).build();
    }
    Tie tie = p.tie();
    ActionBuilder made =
        ActionBuilder.builder(Action.of(id(p.kind()), kind, p.station(), null))
            .cue(
                tie == null ? null : Cue.of(CueKind.PAST, tie.landmark(), tie.spoken(), tie.past()))
            .sure(p.sure());
    if (p.kind() == PointKind.FIRST_THROTTLE) {
      made.manner(Manner.EVENLY);
    }
    return own(entry, p.kind(), made).build();
  }

  private static ActionBuilder own(CornerEntry entry, PointKind kind, ActionBuilder action) {
    return switch (kind) {
      case RELEASE -> action.amount(0.0);
      case DOWNSHIFT -> action.gear(entry.gear());
      case SHORT_SHIFT -> action.gear(entry.gear() + 1);
      case FIRST_THROTTLE -> action.amount(entry.firstThrottle());
      case APEX -> action.amount(entry.apexOff());
      default -> action;
    };
  }

  /** Whether anything is written that moves a pedal otherwise than the points do. */
  public static boolean plays(CornerEntry entry) {
    return entry.actions().stream()
            .anyMatch(a -> a.kind().pedal() || a.kind() == ActionKind.SHIFT || a.rides())
        || entry.points().stream().anyMatch(p -> pressed(p.play()));
  }

  private static boolean pressed(@Nullable Action a) {
    return a != null
        && a.kind().pedal()
        && (a.manner() != usual(a) || (a.kind() == ActionKind.BRAKE && a.amount() != null));
  }

  private static Manner usual(Action a) {
    return a.kind() == ActionKind.THROTTLE ? Manner.EVENLY : Manner.AT_ONCE;
  }

  /** The entry's own actions but for those of a kind. */
  public static List<Action> without(CornerEntry entry, ActionKind kind) {
    return entry.actions().stream().filter(a -> a.kind() != kind).toList();
  }

  /** The entry with an action in place of the one with its id, or besides what there is. */
  public static CornerEntry with(CornerEntry entry, Action action) {
    Optional<PointKind> point = point(action.id());
    if (point.isEmpty()) {
      List<Action> actions =
          new ArrayList<>(
              entry.actions().stream().filter(a -> !a.id().equals(action.id())).toList());
      actions.add(action);
      return entry.copy().actions(actions).done();
    }
    CornerEntry.Copy copy =
        entry
            .copy()
            .points(
                entry.points().stream()
                    .map(p -> p.kind() == point.get() ? p.played(action) : p)
                    .toList());
    Double amount = action.amount();
    Integer gear = action.gear();
    switch (point.get()) {
      case FIRST_THROTTLE -> copy.firstThrottle(amount == null ? entry.firstThrottle() : amount);
      case APEX -> copy.apexOff(amount == null ? entry.apexOff() : amount);
      case DOWNSHIFT -> copy.gear(gear == null ? entry.gear() : gear);
      default -> {}
    }
    return copy.done();
  }

  /** An id that no action has yet: the one wanted, or that with a number. */
  public static String free(String wanted, List<Action> taken) {
    String id = wanted;
    for (int k = 2; has(taken, id); k++) {
      id = wanted + "-" + k;
    }
    return id;
  }

  private static boolean has(List<Action> actions, String id) {
    return actions.stream().anyMatch(a -> a.id().equals(id));
  }

  /** The entry without an action; the points that every corner has stay. */
  public static CornerEntry without(CornerEntry entry, String id) {
    return entry
        .copy()
        .actions(entry.actions().stream().filter(a -> !a.id().equals(id)).toList())
        .points(entry.points().stream().filter(p -> !id(p.kind()).equals(id)).toList())
        .done();
  }
}
