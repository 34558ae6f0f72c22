package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Cues;
import marvek.core.plan.WhatIf;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.Sureness;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/** What there is to know of a lap, and what it is worth. */
public final class Facts {
  /** Seconds that missing a corner altogether counts for. */
  private static final double MISSED = 1;

  // What costs next to nothing is still asked, last.
  private static final double LEAST = 0.005;
  private static final double SHARE = 0.1;
  // Of a place with no cue: a tenth of a second, and no finer than two metres.
  private static final double BY_TIME = 0.1;
  private static final double LEAST_METRES = 2;

  private Facts() {}

  /**
   * The facts of a lap.
   *
   * @param then lap of the day that it is to be driven on
   * @param entries as they are to be driven then
   * @param changed corners in which something is other than it was
   */
  public static List<Fact> of(
      ComputedLap then, Things things, List<CornerEntry> entries, Set<String> changed) {
    List<Fact> out = new ArrayList<>();
    for (int i = 0; i < entries.size(); i++) {
      CornerEntry e = entries.get(i);
      CornerEntry next = entries.get((i + 1) % entries.size());
      out.addAll(
          corner(then, things, e, Score.of(then.road(), next), changed.contains(e.corner())));
    }
    return List.copyOf(out);
  }

  private static List<Fact> corner(
      ComputedLap then, Things things, CornerEntry entry, List<Action> next, boolean changed) {
    List<Action> score = Score.of(then.road(), entry);
    List<WhatIf> costs = Answers.at(then, things, then.indexOf(entry.corner())).whatIfs(entry);
    Cues cues = new Cues(then, things);
    List<Fact> out = new ArrayList<>();
    for (int i = 0; i < score.size(); i++) {
      Action a = score.get(i);
      Sureness sure = a.sure();
      boolean leads = changed || (sure != null && sure.standsOut());
      if (placed(a.kind())) {
        out.add(
            new Fact(
                id(entry, a, Fact.Asks.PLACE),
                entry.corner(),
                a.id(),
                a.kind(),
                Fact.Asks.PLACE,
                a.station(),
                precision(then, cues, a, score),
                worth(costs, a, WhatIf.Change.LATE),
                leads));
      }
      Double amount = a.amount();
      if (amount != null && a.kind().pedal() && a.kind().shared() && amount > 0) {
        out.add(
            new Fact(
                id(entry, a, Fact.Asks.SHARE),
                entry.corner(),
                a.id(),
                a.kind(),
                Fact.Asks.SHARE,
                amount,
                SHARE,
                worth(costs, a, WhatIf.Change.LESS),
                leads));
      }
      out.addAll(neighbours(entry, score, i, next));
    }
    out.add(
        new Fact(
            entry.corner() + "/gear",
            entry.corner(),
            "",
            null,
            Fact.Asks.GEAR,
            entry.gear(),
            0,
            LEAST * 2,
            changed));
    return out;
  }

  /** What comes before and after an action on the pedals, in the next corner too. */
  private static List<Fact> neighbours(
      CornerEntry entry, List<Action> score, int i, List<Action> next) {
    Action a = score.get(i);
    List<Fact> out = new ArrayList<>();
    if (!a.kind().pedal()) {
      return out;
    }
    Action after =
        i + 1 < score.size()
            ? score.get(i + 1)
            : next.stream().filter(n -> n.kind().pedal()).findFirst().orElse(null);
    if (after != null && after.kind().pedal()) {
      out.add(neighbour(entry, a, Fact.Asks.NEXT, after.kind()));
    }
    if (i > 0 && score.get(i - 1).kind().pedal()) {
      out.add(neighbour(entry, a, Fact.Asks.BEFORE, score.get(i - 1).kind()));
    }
    return out;
  }

  private static Fact neighbour(CornerEntry entry, Action a, Fact.Asks asks, ActionKind kind) {
    return new Fact(
        id(entry, a, asks),
        entry.corner(),
        a.id(),
        a.kind(),
        asks,
        kind.ordinal(),
        0,
        LEAST,
        false);
  }

  private static String id(CornerEntry entry, Action a, Fact.Asks asks) {
    return entry.corner() + "/" + a.id() + "/" + asks;
  }

  /** Whether its place is known by heart; an apex and an exit come of themselves. */
  static boolean placed(ActionKind kind) {
    return switch (kind) {
      case BRAKE, LIFT, HANDS, THROTTLE, FULL, EASE -> true;
      case PLACE, SHIFT, APEX, EYES, BODY -> false;
    };
  }

  private static double precision(ComputedLap then, Cues cues, Action a, List<Action> score) {
    Cue cue = a.cue();
    if (cue != null) {
      Cues.Found found = cues.find(cue, a, score);
      if (found.station() != null) {
        return Math.max(LEAST_METRES, found.precision());
      }
    }
    double speed = then.lap().speed()[then.road().index(a.station())];
    return Math.max(LEAST_METRES, BY_TIME * speed);
  }

  /** Seconds that it costs otherwise. */
  private static double worth(List<WhatIf> costs, Action a, WhatIf.Change change) {
    return costs.stream()
        .filter(w -> w.action().equals(a.id()) && w.change() == change)
        .findFirst()
        .map(Facts::worth)
        .orElse(LEAST);
  }

  private static double worth(WhatIf w) {
    Double seconds = w.seconds();
    if (seconds == null) {
      return w.makes() ? LEAST : MISSED;
    }
    return Math.max(LEAST, Math.abs(seconds));
  }

  /** The key that an action is pressed with; null for what needs none. */
  static Performance.@Nullable Control key(ActionKind kind) {
    return switch (kind) {
      case BRAKE -> Performance.Control.BRAKE;
      case HANDS -> Performance.Control.HANDS;
      case THROTTLE, LIFT, FULL -> Performance.Control.THROTTLE;
      case SHIFT -> Performance.Control.GEAR;
      case EASE, PLACE, APEX, EYES, BODY -> null;
    };
  }
}
