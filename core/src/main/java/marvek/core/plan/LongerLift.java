package marvek.core.plan;

import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Slowing;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.technique.School;

/** A lift in place of a braking: early enough for a corner that the lap itself brakes for. */
public final class LongerLift {
  // Metres by which it comes sooner, at most.
  private static final double SOONEST = 400;
  private static final double GRAIN = 0.5;

  private LongerLift() {}

  /** Whether a corner that the lap brakes for is lifted for by the driver's own choice. */
  public static boolean chosen(CornerEntry entry) {
    return entry.slowing() == Slowing.LIFT && entry.schools().contains(School.NO_BRAKE);
  }

  /** Whether what is lifted alone makes the corner, let go before more is asked than there is. */
  static boolean does(ComputedLap computed, CornerEntry entry) {
    return entry.slowing() == Slowing.LIFT
        && lift(entry).isPresent()
        && Answers.at(computed, Things.none(), computed.indexOf(entry.corner())).holds(entry);
  }

  /**
   * The corner with its lift sooner by the least that leaves a margin to the last place; as it is
   * where that is enough. Empty without a lift, and where the corner before leaves no room.
   *
   * @param margin seconds at the speed of arrival
   */
  public static Optional<CornerEntry> inTime(
      ComputedLap computed, CornerEntry entry, double margin) {
    Optional<Action> lift = lift(entry);
    if (lift.isEmpty()) {
      return Optional.empty();
    }
    int c = computed.indexOf(entry.corner());
    Answers answers = Answers.at(computed, Things.none(), c);
    double reserve = Math.ceil(margin * Math.max(1, entry.approachSpeed()));
    int most = (int) Math.floor(room(computed, c, lift.get().station()) / GRAIN);
    if (!answers.holds(sooner(computed, entry, most * GRAIN - reserve))) {
      return Optional.empty();
    }
    // Sooner is slower, and made where later is.
    int not = -1;
    int yes = most;
    while (yes - not > 1) {
      int middle = (not + yes) / 2;
      if (answers.holds(sooner(computed, entry, middle * GRAIN - reserve))) {
        yes = middle;
      } else {
        not = middle;
      }
    }
    return Optional.of(yes == 0 ? entry : sooner(computed, entry, yes * GRAIN));
  }

  private static Optional<Action> lift(CornerEntry entry) {
    return entry.actions().stream().filter(a -> a.kind() == ActionKind.LIFT).findFirst();
  }

  /** Metres from the exit of the corner before to a station. */
  private static double room(ComputedLap computed, int c, double station) {
    List<Corner> corners = computed.corners();
    if (corners.size() < 2) {
      return SOONEST;
    }
    Corner before = corners.get((c + corners.size() - 1) % corners.size());
    return Math.max(0, Math.min(SOONEST, computed.road().apart(before.exit(), station)));
  }

  private static CornerEntry sooner(ComputedLap computed, CornerEntry entry, double metres) {
    return entry
        .copy()
        .actions(
            entry.actions().stream()
                .map(
                    a ->
                        a.kind() == ActionKind.LIFT
                            ? a.at(computed.road().wrap(a.station() - metres))
                            : a)
                .toList())
        .done();
  }
}
