package marvek.core.rehearse;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** What is known of a lap, told from all that was answered. */
public final class Known {
  /** Metres within which a place counts as known. */
  public static final double METRES = 8;

  private static final double FAR = 1000;

  private Known() {}

  /**
   * An answer that was given.
   *
   * @param at when
   */
  public record Given(Instant at, Rehearsed answered) {}

  /**
   * How a fact stands.
   *
   * @param error how far off the last answer was, in its unit; null for "no idea"
   * @param last when it was last asked
   * @param right when it was last right, to its precision; null for never
   * @param times how often it was asked
   * @param missed how often it was not right, of those
   * @param memory of it
   */
  public record Standing(
      @Nullable Double error,
      Instant last,
      @Nullable Instant right,
      int times,
      int missed,
      Grade grade,
      Memory memory) {}

  /**
   * How each fact stands that was ever asked. Of facts that are other than they were when they were
   * answered nothing is known any more.
   *
   * @param facts there are
   * @param given in the order answered
   * @param lap metres once round
   * @param by weights of the driver's memory
   */
  public static Map<String, Standing> of(
      List<Fact> facts, List<Given> given, double lap, Weights by) {
    Map<String, Fact> byId = new TreeMap<>();
    facts.forEach(f -> byId.put(f.id(), f));
    Map<String, Standing> out = new TreeMap<>();
    for (Given g : given) {
      Rehearsed a = g.answered();
      Fact fact = byId.get(a.fact());
      if (fact == null || Math.abs(fact.error(a.right(), lap)) > Math.max(fact.precision(), 1e-9)) {
        continue;
      }
      Double told = a.told();
      Grade grade = told == null ? Grade.AGAIN : fact.grade(told, lap);
      Standing was = out.get(fact.id());
      boolean well = grade.compareTo(Grade.GOOD) >= 0;
      out.put(
          fact.id(),
          new Standing(
              told == null ? null : (Double) fact.error(told, lap),
              g.at(),
              well ? g.at() : was == null ? null : was.right(),
              was == null ? 1 : was.times() + 1,
              (was == null ? 0 : was.missed()) + (well ? 0 : 1),
              grade,
              was == null
                  ? Memory.first(grade, by)
                  : was.memory().next(grade, days(was.last(), g.at()))));
    }
    return out;
  }

  /**
   * Answers by fact, for telling how somebody remembers. A fact that is other than it was begins
   * anew.
   *
   * @param given to facts of one lap, in the order answered
   */
  public static List<List<OwnWeights.Answer>> rows(List<Given> given) {
    Map<String, List<OwnWeights.Answer>> open = new TreeMap<>();
    Map<String, Double> right = new TreeMap<>();
    List<List<OwnWeights.Answer>> out = new ArrayList<>();
    for (Given g : given) {
      Rehearsed a = g.answered();
      Double told = a.told();
      // Beside the line a place may be told from its other side: how far off is not known here.
      if (told != null && Math.abs(told - a.right()) > FAR) {
        continue;
      }
      Double was = right.get(a.fact());
      List<OwnWeights.Answer> row = open.get(a.fact());
      if (row == null || was == null || Math.abs(was - a.right()) > Math.max(a.precision(), 1e-9)) {
        row = new ArrayList<>();
        open.put(a.fact(), row);
        out.add(row);
      }
      right.put(a.fact(), a.right());
      row.add(
          new OwnWeights.Answer(
              told == null ? Grade.AGAIN : Grade.of(told - a.right(), a.precision()),
              days(Instant.EPOCH, g.at())));
    }
    return out;
  }

  /** Days from one moment to another, with fractions. */
  public static double days(Instant from, Instant to) {
    return Duration.between(from, to).toMillis() / 86_400_000.0;
  }

  /**
   * What is held, for planning.
   *
   * @param zone of the driver's day
   */
  public static Map<String, Recall.Held> held(
      Map<String, Standing> known, Instant now, ZoneId zone) {
    Map<String, Recall.Held> out = new TreeMap<>();
    known.forEach(
        (id, s) ->
            out.put(
                id,
                new Recall.Held(
                    s.memory(),
                    days(s.last(), now),
                    s.grade().compareTo(Grade.GOOD) >= 0
                        && s.last()
                            .atZone(zone)
                            .toLocalDate()
                            .equals(now.atZone(zone).toLocalDate()))));
    return out;
  }

  /**
   * How ready a lap is.
   *
   * @param ready corners of which every place was last told within {@link #METRES}
   * @param corners of the lap
   * @param unknown corners that are not, in driving order
   */
  public record Readiness(int ready, int corners, List<String> unknown) {
    public Readiness {
      unknown = List.copyOf(unknown);
    }
  }

  /** How ready a lap is by what was last told of its places. */
  public static Readiness readiness(List<Fact> facts, Map<String, Standing> known) {
    List<String> corners = new ArrayList<>();
    List<String> unknown = new ArrayList<>();
    for (Fact f : facts) {
      if (!corners.contains(f.corner())) {
        corners.add(f.corner());
      }
      if (f.asks() != Fact.Asks.PLACE) {
        continue;
      }
      Standing s = known.get(f.id());
      Double error = s == null ? null : s.error();
      boolean knows = error != null && Math.abs(error) <= METRES;
      if (!knows && !unknown.contains(f.corner())) {
        unknown.add(f.corner());
      }
    }
    return new Readiness(corners.size() - unknown.size(), corners.size(), unknown);
  }
}
