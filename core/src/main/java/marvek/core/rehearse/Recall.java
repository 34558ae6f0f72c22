package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;

/**
 * What to ask now, planned back from the hour of the session: what is worth most and least likely
 * to be known then comes first, unsure and changed actions before all.
 *
 * @param asked in this order
 * @param left facts that there is no time for
 */
public record Recall(List<Question> asked, List<Question> left) {
  /** Facts that ten minutes hold (common practice, no source). */
  public static final int TEN_MINUTES = 40;

  /** Chance from which on something counts as known. */
  public static final double KNOWN = 0.97;

  public Recall {
    asked = List.copyOf(asked);
    left = List.copyOf(left);
  }

  /**
   * A fact, and how it stands.
   *
   * @param then chance that it is known at the hour of the session; 0 for what was never asked
   */
  public record Question(Fact fact, double then) {
    double weight() {
      return fact.worth() * (1 - then);
    }
  }

  /**
   * A memory, and since when.
   *
   * @param ago days since it was last answered
   * @param wellToday whether it was known when it was asked on this same day
   */
  public record Held(Memory memory, double ago, boolean wellToday) {}

  /**
   * Plans ten minutes.
   *
   * @param held by id of the fact; none for what was never asked
   * @param until days until the session
   */
  public static Recall of(List<Fact> facts, Map<String, Held> held, double until) {
    List<Question> all = new ArrayList<>();
    for (Fact f : facts) {
      Held h = held.get(f.id());
      double then = h == null ? 0 : h.memory().recall(h.ago() + Math.max(0, until));
      if (h == null || !h.wellToday()) {
        all.add(new Question(f, then));
      }
    }
    all.sort(
        Comparator.comparing((Question q) -> !(q.fact().leads() && q.then() < KNOWN))
            .thenComparing(q -> -q.weight()));
    int n = Math.min(TEN_MINUTES, all.size());
    return new Recall(mixed(all.subList(0, n)), all.subList(n, all.size()));
  }

  /** No two of one corner in a row where that can be: what was just seen is not remembered. */
  private static List<Question> mixed(List<Question> in) {
    List<Question> rest = new ArrayList<>(in);
    List<Question> out = new ArrayList<>();
    String last = "";
    while (!rest.isEmpty()) {
      int at = 0;
      for (int i = 0; i < rest.size(); i++) {
        if (!rest.get(i).fact().corner().equals(last)) {
          at = i;
          break;
        }
      }
      Question q = rest.remove(at);
      out.add(q);
      last = q.fact().corner();
    }
    return out;
  }
}
