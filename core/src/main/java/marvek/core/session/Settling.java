package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.LapKind;
import org.jspecify.annotations.Nullable;

/**
 * How many laps a driver takes to settle in, by the laps of sessions before: nerves, eyes and tyres
 * together. Before that neither a later marker is tried nor a target looked at.
 *
 * @param lap first one that is settled, counted from 1
 * @param sessions that it is told from
 * @param costs seconds that the laps before it cost on the mean of those sessions
 */
public record Settling(int lap, int sessions, double costs) {
  /** Laps within this share of what the driver does later are settled (common practice). */
  static final double SETTLED = 0.006;

  // Fewer laps or sessions tell nothing.
  private static final int LAPS = 5;
  private static final int SESSIONS = 2;

  /**
   * Told from sessions before.
   *
   * @param sessions seconds of the laps of each in their order from the first flying one; null for
   *     one that says nothing
   */
  public static Optional<Settling> of(List<? extends List<@Nullable Double>> sessions) {
    List<Integer> first = new ArrayList<>();
    double costs = 0;
    for (List<@Nullable Double> laps : sessions) {
      List<Double> told = new ArrayList<>();
      for (Double t : laps) {
        if (t != null) {
          told.add(t);
        }
      }
      if (told.size() < LAPS) {
        continue;
      }
      // What is done later: the middle of the second half.
      double usual = middle(told.subList(told.size() / 2, told.size()));
      int k = 0;
      double lost = 0;
      while (k < laps.size() - 1) {
        Double t = laps.get(k);
        if (t != null && t <= usual * (1 + SETTLED)) {
          break;
        }
        lost += t == null ? 0 : t - usual;
        k++;
      }
      first.add(k + 1);
      costs += lost;
    }
    if (first.size() < SESSIONS) {
      return Optional.empty();
    }
    first.sort(Integer::compare);
    return Optional.of(
        new Settling(first.get(first.size() / 2), first.size(), costs / first.size()));
  }

  /**
   * Seconds of the flying laps up to where the driver came in; null for one that says nothing.
   *
   * @param laps of a session in the order driven
   */
  public static List<@Nullable Double> firstStint(List<Timed> laps) {
    List<@Nullable Double> out = new ArrayList<>();
    for (Timed l : laps) {
      if (l.kind() == LapKind.OUT && out.isEmpty()) {
        continue;
      }
      if (l.kind() == LapKind.IN || l.kind() == LapKind.OUT) {
        break;
      }
      boolean says =
          l.kind() == LapKind.PUSH || l.kind() == LapKind.COLD || l.kind() == LapKind.SLOW;
      out.add(says ? (Double) l.seconds() : null);
    }
    return out;
  }

  /** A lap by its kind and time, s. */
  public record Timed(LapKind kind, double seconds) {}

  private static double middle(List<Double> values) {
    List<Double> sorted = new ArrayList<>(values);
    sorted.sort(Double::compare);
    int n = sorted.size();
    return n % 2 == 1 ? sorted.get(n / 2) : (sorted.get(n / 2 - 1) + sorted.get(n / 2)) / 2;
  }

  /**
   * In words, beside when the tyres are warm.
   *
   * @param warmFrom first lap with warm tyres
   */
  public Said words(int warmFrom) {
    return Said.of(
        "settling.lap",
        Value.count(lap),
        Value.count(sessions),
        Value.figure(costs, 1),
        Value.choice(lap > warmFrom),
        Value.count(lap - warmFrom),
        Value.count(warmFrom));
  }
}
