package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.hipparchus.stat.StatUtils;

/**
 * A mistake of a corner driven on purpose, beside the plan: an action that comes elsewhere.
 *
 * @param kind of the action
 * @param whose mistake it is
 * @param of laps or presses that it is told from; 0 for what is usual
 * @param metres by which the action comes later, negative is sooner
 * @param happened what becomes of it
 * @param planned the stretch as planned
 * @param wrong the same stretch with the mistake
 */
public record OnPurpose(
    ActionKind kind,
    Whose whose,
    int of,
    double metres,
    Happened happened,
    CornerAnswer.Profile planned,
    CornerAnswer.Profile wrong) {
  /** Mistakes of a corner that are shown. */
  public static final int MOST = 3;

  /** Laps, or presses, from which a mistake is one's own. */
  static final int FEWEST = 3;

  /** Metres from which an action is elsewhere. */
  static final double ELSEWHERE = 3;

  // Of usual mistakes: a fifth of a second (common practice, no source).
  private static final double USUAL = 0.2;
  private static final double MISSED = 10;

  /** Whose mistake it is. */
  public enum Whose {
    /** The driver's, in recorded laps. */
    DRIVEN,
    /** The driver's, in laps by heart. */
    BY_HEART,
    /** A usual one. */
    USUAL
  }

  private double cost() {
    Double seconds = happened.seconds();
    return seconds == null ? MISSED : seconds;
  }

  /**
   * Mistakes of a corner: the driver's own first, then by what they cost.
   *
   * @param entry as it is planned
   * @param driven stations of its actions in recorded laps, by id
   * @param byHeart metres late of its actions in laps by heart at full speed, by id
   */
  public static List<OnPurpose> of(
      ComputedLap then,
      Things things,
      CornerEntry entry,
      Map<String, List<Double>> driven,
      Map<String, List<Double>> byHeart) {
    List<OnPurpose> out = new ArrayList<>();
    for (Action a : Score.of(then.road(), entry)) {
      if (!Facts.placed(a.kind())) {
        continue;
      }
      List<Double> laps =
          driven.getOrDefault(a.id(), List.of()).stream()
              .map(s -> then.road().apart(a.station(), s))
              .toList();
      List<Double> presses = byHeart.getOrDefault(a.id(), List.of());
      double far = USUAL * then.lap().speed()[then.road().index(a.station())];
      boolean asDriven =
          elsewhere(laps)
              && add(out, then, things, entry, a, Whose.DRIVEN, laps.size(), median(laps));
      if (asDriven) {
        continue;
      }
      if (elsewhere(presses)) {
        add(out, then, things, entry, a, Whose.BY_HEART, presses.size(), median(presses));
      } else {
        add(out, then, things, entry, a, Whose.USUAL, 0, far);
        add(out, then, things, entry, a, Whose.USUAL, 0, -far);
      }
    }
    out.sort(
        Comparator.comparing((OnPurpose p) -> p.whose() == Whose.USUAL)
            .thenComparing(p -> -p.cost()));
    return List.copyOf(out.subList(0, Math.min(MOST, out.size())));
  }

  private static boolean elsewhere(List<Double> metres) {
    return metres.size() >= FEWEST && Math.abs(median(metres)) >= ELSEWHERE;
  }

  private static double median(List<Double> values) {
    double[] sorted = values.stream().mapToDouble(v -> v).toArray();
    Arrays.sort(sorted);
    return StatUtils.percentile(sorted, 50);
  }

  private static boolean add(
      List<OnPurpose> out,
      ComputedLap then,
      Things things,
      CornerEntry entry,
      Action a,
      Whose whose,
      int of,
      double metres) {
    int before = out.size();
    Happened.drive(then, things, entry, a.id(), metres)
        // What was driven was made: where it could not be, something else was measured.
        .filter(d -> whose != Whose.DRIVEN || d.told().seconds() != null)
        .filter(d -> d.told().seconds() == null || d.told().seconds() > 0)
        .ifPresent(
            d ->
                out.add(
                    new OnPurpose(
                        d.kind(),
                        whose,
                        of,
                        metres,
                        d.told(),
                        d.planned().profile(),
                        wrong(then, d, metres))));
    return out.size() > before;
  }

  private static CornerAnswer.Profile wrong(ComputedLap then, Happened.Driven d, double metres) {
    CornerAnswer.Profile planned = d.planned().profile();
    double road = then.road().step();
    if (d.told().seconds() != null) {
      return d.otherwise().profile();
    }
    return Happened.slows(d.kind())
        ? Astray.slowedLater(then.path(), road, planned, metres)
        : d.kind() == ActionKind.HANDS
            ? Astray.turnedLater(then.path(), road, planned, metres)
            : d.otherwise().profile();
  }
}
