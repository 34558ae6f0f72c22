package marvek.core.ways;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BinaryOperator;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.line.CornerLine;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.ActionKind;
import marvek.core.technique.School;

/** Braked before the hands move, or only once they have. */
final class HandsWays {
  // Metres past turn-in from which on it is turned in first, those from which on it is asked about,
  // so that there is a way back, and shares of the way from there to the apex at which the brake is
  // tried to be let go.
  private static final double HANDS_ON = 2;
  private static final double CLEARLY = 3;
  private static final double[] INTO = {0.25, 0.5, 0.75, 0.94};
  // Metres before turn-in at which it is pressed at the latest to be braked straight.
  private static final double BEFORE = 10;
  private static final double[] STRAIGHT = {0};

  private final ComputedLap computed;
  private final int c;
  private final Answers answers;
  private final BinaryOperator<CornerEntry> atMargin;

  /**
   * For one corner.
   *
   * @param atMargin a way, and the corner as it is now: the way with the margin of now
   */
  HandsWays(ComputedLap computed, int c, Answers answers, BinaryOperator<CornerEntry> atMargin) {
    this.computed = computed;
    this.c = c;
    this.answers = answers;
    this.atMargin = atMargin;
  }

  /** Whether the brake may be pressed only once it is turned in: the lap itself does so. */
  boolean arises(CornerEntry entry) {
    boolean one =
        entry.slowing() == Slowing.BRAKE
            && entry.point(PointKind.BRAKE).isPresent()
            && entry.point(PointKind.TURN_IN).isPresent()
            && entry.point(PointKind.RELEASE).isPresent()
            && entry.again().isEmpty()
            && entry.actions().stream().noneMatch(a -> a.kind() == ActionKind.BRAKE);
    if (!one) {
      return false;
    }
    CornerEntry draft = Drafter.entry(computed, c);
    return turned(entry) >= CLEARLY
        || draft.point(PointKind.BRAKE).isPresent()
            && draft.point(PointKind.TURN_IN).isPresent()
            && turned(draft) >= CLEARLY;
  }

  /** Metres from turn-in to the braking. */
  private double turned(CornerEntry entry) {
    return computed
        .road()
        .apart(
            entry.station(PointKind.TURN_IN).orElseThrow(),
            entry.station(PointKind.BRAKE).orElseThrow());
  }

  /**
   * Braked before the hands move, or only after; at the present margin on the line as it is.
   * Nothing where there is no room for it.
   */
  Optional<CornerEntry> moved(CornerEntry now, CornerEntry wanted, School school) {
    boolean first = school == School.HANDS_FIRST;
    if (first ? turned(now) >= HANDS_ON : turned(now) <= -BEFORE) {
      return Optional.of(wanted);
    }
    double turnIn = now.station(PointKind.TURN_IN).orElseThrow();
    CornerLine line = answers.line(now).line();
    double way = computed.road().apart(turnIn, line.apexes().get(0));
    CornerEntry best = null;
    double quickest = Double.MAX_VALUE;
    List<Double> releases = new ArrayList<>();
    for (double share : first ? INTO : STRAIGHT) {
      releases.add(computed.road().wrap(Math.round((turnIn + share * way) * 2) / 2.0));
    }
    if (first) {
      Drafter.entry(computed, c).station(PointKind.RELEASE).ifPresent(releases::add);
    }
    for (double at : releases) {
      CornerEntry released =
          wanted
              .copy()
              .pedals(null)
              .firstEffort(now.firstEffort())
              .moved(PointKind.RELEASE, at)
              .done();
      CornerEntry tried = atMargin.apply(released, now);
      boolean done = first ? turned(tried) >= HANDS_ON : turned(tried) <= -BEFORE;
      Double time = done ? answers.answer(tried).time() : null;
      if (time != null && time < quickest) {
        quickest = time;
        best = tried;
      }
    }
    return Optional.ofNullable(best);
  }
}
