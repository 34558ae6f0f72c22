package marvek.core.plan;

import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Stance;
import org.jspecify.annotations.Nullable;

/**
 * What a corner would take with one action otherwise.
 *
 * @param action id
 * @param change what is otherwise
 * @param seconds more than as written, up to the next braking; null where one of the two cannot be
 *     made
 * @param makes whether the corner can be made with it
 */
public record WhatIf(String action, Change change, @Nullable Double seconds, boolean makes) {
  /** Seconds by which an action is late. */
  static final double LATE = 0.1;

  private static final double METRES = 5;
  private static final double SHARE = 0.1;
  private static final double ACROSS = 0.5;

  /**
   * What the mistake looks like from the seat (common practice, no source).
   *
   * @param kind of the action
   */
  public Said look(ActionKind kind) {
    boolean slow =
        switch (change) {
          case SOONER -> kind == ActionKind.BRAKE || kind == ActionKind.LIFT;
          case LATER, LATE ->
              kind != ActionKind.BRAKE && kind != ActionKind.LIFT && kind != ActionKind.HANDS;
          case LESS -> kind != ActionKind.BRAKE;
          case MORE -> kind == ActionKind.BRAKE || kind == ActionKind.EASE;
          case WIDER, WITHOUT -> false;
        };
    return Said.of("mistake.look", Value.choice(kind), Value.choice(slow), Value.choice(makes));
  }

  /** What is otherwise. */
  public enum Change {
    /** 5 m sooner. */
    SOONER,
    /** 5 m later. */
    LATER,
    /** 0.1 s later. */
    LATE,
    /** 10 points less. */
    LESS,
    /** 10 points more. */
    MORE,
    /** Half a metre further off the inside. */
    WIDER,
    /** Not done at all. */
    WITHOUT;

    Optional<CornerEntry> of(CornerEntry entry, Action a, Centreline road, double late) {
      return switch (this) {
        case SOONER -> moved(entry, a, road, -METRES);
        case LATER -> moved(entry, a, road, METRES);
        case LATE -> moved(entry, a, road, late);
        case LESS -> share(entry, a, -SHARE);
        case MORE -> share(entry, a, SHARE);
        case WIDER -> across(entry, a, ACROSS);
        case WITHOUT ->
            a.rides()
                ? Optional.of(neutral(entry, a))
                : Score.point(a.id()).isPresent() || !a.kind().pedal()
                    ? Optional.empty()
                    : Optional.of(Score.without(entry, a.id()));
      };
    }

    /** Without what a rider does there, driven by the same rules. */
    private static CornerEntry neutral(CornerEntry entry, Action a) {
      boolean alone = entry.actions().stream().filter(Action::rides).count() == 1;
      return alone
          ? Score.with(entry, ActionBuilder.builder(a).amount(null).stance(Stance.MIDDLE).build())
          : Score.without(entry, a.id());
    }

    private static Optional<CornerEntry> moved(
        CornerEntry entry, Action a, Centreline road, double by) {
      if (a.kind() == ActionKind.EYES || a.kind() == ActionKind.BODY && !a.rides()) {
        return Optional.empty();
      }
      Double until = a.until();
      Action there = a.at(road.wrap(a.station() + by));
      return Optional.of(
          Score.with(entry, until == null ? there : there.until(road.wrap(until + by))));
    }

    /** The apex so many metres further off the inside, never beyond it. */
    static Optional<CornerEntry> across(CornerEntry entry, Action a, double by) {
      return a.id().equals(Score.id(PointKind.APEX)) && entry.apexOff() + by >= 0
          ? Optional.of(entry.copy().apexOff(entry.apexOff() + by).done())
          : Optional.empty();
    }

    /** So much more of the pedal, where it is told how much. */
    static Optional<CornerEntry> share(CornerEntry entry, Action a, double by) {
      Double amount = a.amount();
      if (!a.kind().shared() || amount == null || (a.kind() == ActionKind.EASE && amount == 0)) {
        return Optional.empty();
      }
      double share = amount + by;
      return share < 0 || share > 1
          ? Optional.empty()
          : Optional.of(Score.with(entry, a.amounting(share)));
    }
  }
}
