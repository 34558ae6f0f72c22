package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.hipparchus.distribution.continuous.TDistribution;
import org.hipparchus.stat.StatUtils;
import org.jspecify.annotations.Nullable;

/**
 * Whether a moved point kept what it promised, like for like: only where the driver really moved
 * it, and against what the corners that nobody touched did at the same time, which takes out
 * learning, tyres and fuel.
 *
 * <p>Difference in differences (Card &amp; Krueger 1994, from memory) with an interval after Welch
 * (Biometrika 34, 1947), 95 %, that takes in the spread of the untouched corners.
 *
 * @param verdict what became of it
 * @param before laps without the change
 * @param after laps with it
 * @param moved metres by which the driven point moved, positive to later; null where not measured
 * @param difference seconds, after less before and less what the other corners did; null with too
 *     few laps
 * @param low lower end of its interval
 * @param high upper end
 * @param words what that means; nothing where nothing was driven yet
 */
@RecordBuilder
public record Promise(
    Verdict verdict,
    int before,
    int after,
    @Nullable Double moved,
    @Nullable Double difference,
    @Nullable Double low,
    @Nullable Double high,
    Said words) {
  private static final int FEWEST = 3;
  private static final double LEVEL = 0.95;
  // Of the planned metres, what must have been driven.
  private static final double REALLY = 0.5;
  private static final double ERRORS = 2;

  /** What became of a promise. */
  public enum Verdict {
    /** Too few laps. */
    OPEN,
    /** The driver did not move the point. */
    NOT_MOVED,
    /** The interval includes the promise and excludes nothing at all. */
    KEPT,
    /** The interval includes nothing at all, or a loss, and excludes the promise. */
    NOT_KEPT,
    /** The interval lies wholly beyond the promise. */
    MORE,
    CANNOT_BE_TOLD,
    /** The change promised no time. */
    NO_PROMISE
  }

  /** What a change was of: where something is done, or how much of a pedal is used. */
  public enum About {
    PLACE,
    SHARE
  }

  /**
   * Laps of one side.
   *
   * @param seconds of the corner's section, by lap
   * @param others seconds of the sections of all corners that were not touched, by lap
   * @param points stations where the point was driven, unwrapped about the planned place, m; fewer
   *     than laps where it was not measured
   */
  public record Seen(double[] seconds, double[] others, double[] points) {}

  /**
   * Judges a promise.
   *
   * @param about what was changed of it
   * @param planned metres, positive to later; or share of a pedal
   * @param gain seconds promised, positive; null where it was not about time
   */
  public static Promise of(
      About about, double planned, @Nullable Double gain, Seen before, Seen after) {
    int b = before.seconds().length;
    int a = after.seconds().length;
    if (b < FEWEST || a < FEWEST) {
      return new Promise(
          Verdict.OPEN,
          b,
          a,
          null,
          null,
          null,
          null,
          a > 0 ? Said.of("promise.OPEN") : Said.NOTHING);
    }
    Double moved = moved(before.points(), after.points());
    double t = StatUtils.mean(before.seconds());
    double c = StatUtils.mean(before.others());
    double share = c > 0 ? t / c : 0;
    double difference =
        StatUtils.mean(after.seconds()) - t - share * (StatUtils.mean(after.others()) - c);
    double[] parts = {
      StatUtils.variance(after.seconds()) / a,
      StatUtils.variance(before.seconds()) / b,
      share * share * StatUtils.variance(after.others()) / a,
      share * share * StatUtils.variance(before.others()) / b
    };
    int[] laps = {a, b, a, b};
    double sum = StatUtils.sum(parts);
    double half = 0;
    if (sum > 0) {
      double freedom = 0;
      for (int i = 0; i < parts.length; i++) {
        freedom += parts[i] * parts[i] / (laps[i] - 1);
      }
      half =
          new TDistribution(sum * sum / freedom).inverseCumulativeProbability((1 + LEVEL) / 2)
              * Math.sqrt(sum);
    }
    double low = difference - half;
    double high = difference + half;
    Verdict verdict = verdict(planned, gain, moved, before.points(), after.points(), low, high);
    return new Promise(
        verdict,
        b,
        a,
        moved,
        difference,
        low,
        high,
        words(verdict, about, planned, moved, difference, low, high));
  }

  /** The same in other words. */
  public Promise saying(Said other) {
    return PromiseBuilder.builder(this).words(other).build();
  }

  private static Verdict verdict(
      double planned,
      @Nullable Double gain,
      @Nullable Double moved,
      double[] before,
      double[] after,
      double low,
      double high) {
    if (moved == null) {
      return Verdict.CANNOT_BE_TOLD;
    }
    double error =
        Math.sqrt(
            StatUtils.variance(before) / before.length + StatUtils.variance(after) / after.length);
    boolean really =
        moved * planned > 0
            && Math.abs(moved) >= REALLY * Math.abs(planned)
            && Math.abs(moved) > ERRORS * error;
    if (!really) {
      return Verdict.NOT_MOVED;
    }
    if (gain == null) {
      return Verdict.NO_PROMISE;
    }
    double promise = -gain;
    if (low > 0) {
      return Verdict.NOT_KEPT;
    }
    if (high < promise) {
      return Verdict.MORE;
    }
    boolean includesPromise = low <= promise && promise <= high;
    boolean includesNothing = high >= 0;
    if (includesPromise && !includesNothing) {
      return Verdict.KEPT;
    }
    return includesNothing && !includesPromise ? Verdict.NOT_KEPT : Verdict.CANNOT_BE_TOLD;
  }

  /** Metres between the medians; null where fewer than three laps of a side show the point. */
  private static @Nullable Double moved(double[] before, double[] after) {
    return before.length < FEWEST || after.length < FEWEST
        ? null
        : StatUtils.percentile(after, 50) - StatUtils.percentile(before, 50);
  }

  private static Said words(
      Verdict verdict,
      About about,
      double planned,
      @Nullable Double moved,
      double difference,
      double low,
      double high) {
    Said seconds =
        Said.of(
            "promise.seconds",
            Value.signed(difference, 3),
            Value.signed(low, 3),
            Value.signed(high, 3));
    Said driven =
        moved == null
            ? Said.of("promise.unseen")
            : about == About.PLACE
                ? Said.of("promise.moved", Value.length(moved), Value.length(planned))
                : Said.of(
                    "promise.changed",
                    Value.percent(Math.abs(moved)),
                    Value.percent(Math.abs(planned)));
    boolean costs = verdict == Verdict.NOT_KEPT && low > 0;
    boolean some = verdict == Verdict.CANNOT_BE_TOLD && moved != null && high < 0;
    return Said.of(
        "promise." + verdict + (costs ? ".costs" : some ? ".some" : ""), seconds.in(), driven.in());
  }
}
