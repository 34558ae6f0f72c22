package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.WhatIf;
import marvek.core.rehearse.Performance.Met;
import marvek.core.said.Said;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/**
 * What would have become of a corner, had an action been done where it was pressed and all else as
 * planned.
 *
 * @param seconds lost up to the next braking, negative is won; null where the corner cannot be made
 * @param deep metres by which it was braked too late; null where it was not, or nothing is braked
 * @param look how that looks from the seat; empty where it is as planned
 */
public record Happened(
    String corner, String action, @Nullable Double seconds, @Nullable Double deep, Said look) {
  /** Presses that are driven: the farthest from their place. */
  public static final int MOST = 8;

  /** Metres within which an action is where it is due. */
  static final double THERE = 1;

  private static final double NOTHING = 0.01;

  /**
   * Drives the farthest of what was pressed.
   *
   * @param then the lap as it is computed for the day
   * @param entries of its corners, as planned
   */
  public static List<Happened> of(
      ComputedLap then, Things things, List<CornerEntry> entries, List<Met> met) {
    List<Met> far =
        met.stream()
            .filter(m -> Math.abs(m.metres()) > THERE)
            .sorted(Comparator.comparingDouble(m -> -Math.abs(m.metres())))
            .limit(MOST)
            .sorted(Comparator.comparingDouble(m -> m.due().at()))
            .toList();
    List<Happened> out = new ArrayList<>();
    for (Met m : far) {
      entries.stream()
          .filter(e -> e.corner().equals(m.due().corner()))
          .findFirst()
          .flatMap(e -> drive(then, things, e, m.due().action(), m.metres()))
          .ifPresent(d -> out.add(d.told()));
    }
    return out;
  }

  /**
   * A corner as planned, and with one action elsewhere.
   *
   * @param kind of the action
   */
  record Driven(Happened told, ActionKind kind, CornerAnswer planned, CornerAnswer otherwise) {}

  /**
   * Drives a corner with one action elsewhere.
   *
   * @param metres by which it comes later, negative is sooner
   * @return nothing where there is no such action, or the corner is not made as planned
   */
  static Optional<Driven> drive(
      ComputedLap then, Things things, CornerEntry entry, String action, double metres) {
    Optional<Action> found =
        Score.of(then.road(), entry).stream().filter(a -> a.id().equals(action)).findFirst();
    CornerAnswer plan = Answers.answer(then, things, entry);
    Double planned = plan.time();
    if (found.isEmpty() || planned == null) {
      return Optional.empty();
    }
    Action a = found.get();
    Double until = a.until();
    Action there = a.at(then.road().wrap(a.station() + metres));
    CornerAnswer answer =
        Answers.answer(
            then,
            things,
            Score.with(
                entry, until == null ? there : there.until(then.road().wrap(until + metres))));
    Double time = answer.time();
    CornerAnswer.BrakingNumbers braking = answer.braking();
    double margin = time != null || braking == null ? 0 : braking.marginMetres();
    WhatIf as =
        new WhatIf(
            a.id(), metres < 0 ? WhatIf.Change.SOONER : WhatIf.Change.LATER, null, time != null);
    boolean same = time != null && Math.abs(time - planned) < NOTHING;
    Happened told =
        new Happened(
            entry.corner(),
            a.id(),
            time == null ? null : time - planned,
            margin < 0 && slows(a.kind()) ? Double.valueOf(-margin) : null,
            same ? Said.NOTHING : as.look(a.kind()));
    return Optional.of(new Driven(told, a.kind(), plan, answer));
  }

  /** Whether it is the slowing that was moved; else there is no braking that came too late. */
  static boolean slows(ActionKind kind) {
    return kind == ActionKind.BRAKE || kind == ActionKind.LIFT || kind == ActionKind.EASE;
  }
}
