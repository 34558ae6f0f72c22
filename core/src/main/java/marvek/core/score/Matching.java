package marvek.core.score;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Which actions of two scores are the same: of one kind, in driving order, with the least sum of
 * metres between them.
 */
public final class Matching {
  // An action without its like counts as much as metres between two that are the same.
  private static final double ALONE = 60;

  private final List<Pair> pairs;

  /** Two that are the same. */
  public record Pair(Action first, Action second) {}

  private Matching(List<Pair> pairs) {
    this.pairs = pairs;
  }

  /**
   * Matches two scores.
   *
   * @param first in driving order
   * @param second in driving order
   * @param lap metres once round
   */
  public static Matching of(List<Action> first, List<Action> second, double lap) {
    List<Pair> pairs = new ArrayList<>();
    for (ActionKind kind : ActionKind.values()) {
      List<Action> a = first.stream().filter(x -> x.kind() == kind).toList();
      List<Action> b = second.stream().filter(x -> x.kind() == kind).toList();
      align(a, b, lap, pairs);
    }
    return new Matching(List.copyOf(pairs));
  }

  private static void align(List<Action> a, List<Action> b, double lap, List<Pair> out) {
    double[][] least = new double[a.size() + 1][b.size() + 1];
    for (int i = a.size(); i >= 0; i--) {
      for (int j = b.size(); j >= 0; j--) {
        double one = i < a.size() ? ALONE + least[i + 1][j] : Double.MAX_VALUE;
        double other = j < b.size() ? ALONE + least[i][j + 1] : Double.MAX_VALUE;
        double both =
            i < a.size() && j < b.size()
                ? apart(a.get(i), b.get(j), lap) + least[i + 1][j + 1]
                : Double.MAX_VALUE;
        boolean end = i == a.size() && j == b.size();
        least[i][j] = end ? 0 : Math.min(both, Math.min(one, other));
      }
    }
    int i = 0;
    int j = 0;
    while (i < a.size() && j < b.size()) {
      double both = apart(a.get(i), b.get(j), lap) + least[i + 1][j + 1];
      if (both <= least[i][j] + 1e-9) {
        out.add(new Pair(a.get(i++), b.get(j++)));
      } else if (ALONE + least[i + 1][j] <= least[i][j] + 1e-9) {
        i++;
      } else {
        j++;
      }
    }
  }

  private static double apart(Action a, Action b, double lap) {
    return Math.abs(Math.IEEEremainder(b.station() - a.station(), lap));
  }

  /** What belongs together. */
  public List<Pair> pairs() {
    return pairs;
  }

  /** What an action of the first score is in the second. */
  public Optional<Action> second(Action first) {
    return pairs.stream().filter(p -> p.first() == first).map(Pair::second).findFirst();
  }

  /** What an action of the second score is in the first. */
  public Optional<Action> first(Action second) {
    return pairs.stream().filter(p -> p.second() == second).map(Pair::first).findFirst();
  }
}
