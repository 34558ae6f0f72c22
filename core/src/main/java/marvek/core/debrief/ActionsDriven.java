package marvek.core.debrief;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import marvek.core.debrief.Debrief.ActionFinding;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.LapSketch;
import org.jspecify.annotations.Nullable;

/** What several laps made of the actions that are written beyond the points of every corner. */
final class ActionsDriven {
  // Metres within which an action counts as done as it is written, and the share of a pedal.
  private static final double LIFT = 6;
  private static final double PRESS = 5;
  private static final double STAGE = 9;
  private static final double SHIFT = 12;
  private static final double SHARE = 0.08;
  // Share of the laps in which it is done, below which it is left out more often than not.
  private static final double MOSTLY = 0.5;

  private final ComputedLap computed;
  private final List<CornerEntry> entries;
  private final Map<String, DoneActions> done = new LinkedHashMap<>();
  private final Map<String, LapSketch> sketches = new LinkedHashMap<>();

  /**
   * Reads laps.
   *
   * @param entries the reference, one for each corner
   */
  ActionsDriven(ComputedLap computed, List<CornerEntry> entries, List<LapData> laps) {
    this.computed = computed;
    this.entries = entries;
    for (LapData l : laps) {
      LapSketch sketch = l.sketch();
      if (sketch != null) {
        sketches.put(l.id(), sketch);
        done.put(l.id(), DoneActions.of(computed.road(), computed.corners(), entries, sketch));
      }
    }
  }

  /** What a lap made of what is written; empty where it has no sketch. */
  Optional<DoneActions> of(String lap) {
    return Optional.ofNullable(done.get(lap));
  }

  /**
   * Where a point was driven; null where it was not, or cannot be told. Where the throttle is full
   * more than once in a corner the last is meant.
   */
  @Nullable Double measured(String lap, CornerEvents e, CornerEntry plan, PointKind kind) {
    boolean feet = kind == PointKind.BRAKE || kind == PointKind.RELEASE;
    if (feet && DoneActions.furtherPress(computed.road(), plan, e.brake())) {
      return null;
    }
    if (kind != PointKind.FULL_THROTTLE || !DoneActions.fullAgain(computed.road(), plan)) {
      return point(e, kind);
    }
    DoneActions known = done.get(lap);
    Double late =
        known == null
            ? null
            : known.of(plan.corner(), Score.id(kind)).map(DoneActions.Done::late).orElse(null);
    return late == null
        ? null
        : Double.valueOf(computed.road().wrap(plan.station(kind).orElseThrow() + late));
  }

  /** Where a point was driven, or null. */
  private static @Nullable Double point(CornerEvents e, PointKind kind) {
    return switch (kind) {
      case BRAKE -> e.brake();
      case TURN_IN -> e.turnIn();
      case RELEASE -> e.release();
      case FIRST_APEX -> e.firstApex();
      case APEX -> e.apex();
      case FIRST_THROTTLE -> e.firstThrottle();
      case FULL_THROTTLE -> e.fullThrottle();
      case EXIT -> e.exitAt();
      default -> null;
    };
  }

  /** Metres within which an action counts as met. */
  private static double tolerance(ActionKind kind) {
    return switch (kind) {
      case LIFT -> LIFT;
      case BRAKE, EASE -> PRESS;
      case SHIFT -> SHIFT;
      default -> STAGE;
    };
  }

  /** The findings of a corner, in driving order. */
  List<ActionFinding> of(CornerEntry plan) {
    List<ActionFinding> out = new ArrayList<>();
    if (plan.actions().isEmpty() || done.isEmpty()) {
      return out;
    }
    List<Action> score = Score.of(computed.road(), plan);
    for (Action a : score) {
      boolean own = Score.point(a.id()).isEmpty();
      if (own && (a.kind().pedal() || a.kind() == ActionKind.SHIFT)) {
        out.add(one(plan, score, a));
      }
    }
    return out;
  }

  private ActionFinding one(CornerEntry plan, List<Action> score, Action a) {
    List<String> laps = new ArrayList<>();
    List<@Nullable Double> lates = new ArrayList<>();
    List<@Nullable Double> amounts = new ArrayList<>();
    int able = 0;
    for (Map.Entry<String, DoneActions> lap : done.entrySet()) {
      LapSketch sketch = Objects.requireNonNull(sketches.get(lap.getKey()));
      if (!DoneActions.shows(sketch, a.kind())) {
        continue;
      }
      able++;
      lap.getValue()
          .of(plan.corner(), a.id())
          .ifPresent(
              d -> {
                laps.add(lap.getKey());
                lates.add(d.late());
                amounts.add(d.amount());
              });
    }
    double[] late = known(lates);
    double[] share = known(amounts);
    Double written = a.amount();
    Double middle = late.length == 0 ? null : Double.valueOf(Robust.median(late));
    Double more =
        share.length == 0 || written == null
            ? null
            : Double.valueOf(Robust.median(share) - written);
    double often = able == 0 ? 0 : laps.size() / (double) able;
    boolean off =
        able > 0
            && (often < MOSTLY
                || middle != null && Math.abs(middle) > tolerance(a.kind())
                || more != null && Math.abs(more) > SHARE);
    return new ActionFinding(
        a.id(),
        a.kind(),
        a.said(score),
        a.station(),
        written,
        able > 0,
        unseen(a, able),
        often,
        off,
        middle,
        late.length == 0 ? 0 : Robust.spread(late),
        tolerance(a.kind()),
        more,
        share.length == 0 ? 0 : Robust.spread(share),
        laps,
        lates,
        amounts);
  }

  /** Why it cannot be seen, or what of it is too little to be seen. */
  private Said unseen(Action a, int able) {
    if (able == 0) {
      return Said.of("debrief.unseen.channel", a.kind().said().in());
    }
    double least = 0;
    double shortest = 0;
    for (LapSketch s : sketches.values()) {
      least = Math.max(least, s.least());
      shortest = Math.max(shortest, s.shortest());
    }
    Double amount = a.amount();
    boolean faint =
        amount != null && a.kind() == ActionKind.LIFT && 1 - amount < least
            || amount != null && a.kind() == ActionKind.BRAKE && amount < least;
    if (faint) {
      return Said.of("debrief.unseen.faint", Value.percent(least));
    }
    Double until = a.until();
    double speed = computed.lap().speed()[computed.road().index(a.station())];
    boolean brief = until != null && computed.road().ahead(a.station(), until) / speed < shortest;
    return brief ? Said.of("debrief.unseen.brief", Value.figure(shortest, 2)) : Said.NOTHING;
  }

  private static double[] known(List<@Nullable Double> values) {
    return values.stream().filter(Objects::nonNull).mapToDouble(v -> v).toArray();
  }
}
