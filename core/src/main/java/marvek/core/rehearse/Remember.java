package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.marker.Landmark;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Cues;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/**
 * A place that is often missed, and how it may be remembered.
 *
 * @param corner id
 * @param action id
 * @param times how often it was asked
 * @param missed how often it was not right, of those
 * @param better a cue in reach that tells it more closely; null with none
 * @param from doubt of the cue that it has, m
 * @param photo id of a picture of what it hangs on, or of what is beside it; empty without one
 */
public record Remember(
    String corner,
    String action,
    int times,
    int missed,
    Cues.@Nullable Offer better,
    double from,
    String photo) {
  /** Answers from which on a place can be often missed. */
  static final int FEWEST = 3;

  /** Ways that are named at once. */
  public static final int MOST = 5;

  // A cue is better that tells a place by a quarter and two metres more closely, where it is.
  private static final double BETTER = 0.75;
  private static final double STAYS = 2;
  private static final double LEAST = 2;
  private static final double HALF = 0.03;
  private static final double NEAR = 15;
  private static final double BESIDE = 60;

  /** Places that were wrong at least every other time and the last time, the most missed first. */
  public static List<Remember> of(
      ComputedLap then,
      Things things,
      List<CornerEntry> entries,
      List<Fact> facts,
      Map<String, Known.Standing> known) {
    Cues cues = new Cues(then, things);
    List<Remember> out = new ArrayList<>();
    List<Fact> missed =
        facts.stream()
            .filter(f -> f.asks() == Fact.Asks.PLACE && often(known.get(f.id())))
            .sorted(
                Comparator.comparingDouble(
                    f -> {
                      Known.Standing s = known.get(f.id());
                      return s == null ? 0 : -f.worth() * s.missed() / s.times();
                    }))
            .limit(MOST)
            .toList();
    for (Fact f : missed) {
      Known.Standing s = known.get(f.id());
      for (CornerEntry e : entries) {
        List<Action> score =
            e.corner().equals(f.corner()) ? Score.of(then.road(), e) : List.<Action>of();
        for (Action a : score) {
          if (s != null && a.id().equals(f.action())) {
            out.add(
                new Remember(
                    f.corner(),
                    f.action(),
                    s.times(),
                    s.missed(),
                    better(cues, f, a, score),
                    f.precision(),
                    photo(then.road(), things, a)));
          }
        }
      }
    }
    return out;
  }

  private static boolean often(Known.@Nullable Standing s) {
    return s != null
        && s.times() >= FEWEST
        && 2 * s.missed() >= s.times()
        && s.grade().compareTo(Grade.GOOD) < 0;
  }

  private static Cues.@Nullable Offer better(Cues cues, Fact f, Action a, List<Action> score) {
    Cue now = a.cue();
    return cues.reach(a, score).stream()
        .filter(o -> simple(o.cue()))
        .filter(
            o ->
                o.precision() <= BETTER * f.precision()
                    && o.precision() <= f.precision() - LEAST
                    && Math.abs(o.moves()) <= STAYS)
        .filter(o -> now == null || !(o.cue().kind() == now.kind() && same(o.cue(), now)))
        .findFirst()
        .orElse(null);
  }

  /** Whether nothing must be reckoned on the way: 18 % of the way is nobody's cue. */
  private static boolean simple(Cue cue) {
    return switch (cue.kind()) {
      case BETWEEN, SHARE -> Math.abs(cue.number() - 0.5) < HALF;
      case PAST -> Math.abs(cue.number()) < NEAR;
      case FEEL, REVS -> false;
      default -> true;
    };
  }

  private static boolean same(Cue one, Cue other) {
    return one.thing().equals(other.thing()) && one.other().equals(other.other());
  }

  /** The picture of what it hangs on, else of the nearest thing that has one. */
  private static String photo(Centreline road, Things things, Action a) {
    Cue cue = a.cue();
    String on = cue == null ? "" : cue.thing();
    return things.landmarks().stream()
        .filter(l -> !l.photo().isEmpty())
        .filter(l -> l.id().equals(on) || away(road, l, a) < BESIDE)
        .min(Comparator.comparingDouble(l -> l.id().equals(on) ? -1 : away(road, l, a)))
        .map(Landmark::photo)
        .orElse("");
  }

  private static double away(Centreline road, Landmark l, Action a) {
    return Math.abs(road.apart(l.station(), a.station()));
  }
}
