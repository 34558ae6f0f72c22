package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;

/**
 * The lap called aloud: each call ends a second before its marker, so that there is time to act.
 * Calls that would overlap are shortened, or left out, by what they are worth.
 */
public final class Calls {
  /** Seconds between the end of a call and its marker (common practice, no source). */
  public static final double ACTING = 1.0;

  /** Seconds of a word, at 150 words a minute. */
  public static final double WORD = 0.4;

  // What each shorter length is still worth.
  private static final double[] LENGTHS = {1, 0.9, 0.75, 0.6};

  private Calls() {}

  /**
   * Something to be called.
   *
   * @param at seconds of the road at which it is due
   * @param worth seconds that it is worth
   * @param texts from the longest to the shortest, four at most
   */
  public record Cue(double at, double worth, List<String> texts) {
    public Cue {
      texts = List.copyOf(texts);
    }
  }

  /**
   * A call.
   *
   * @param start seconds of the road
   * @param end when it is over
   * @param at when what it calls is due
   */
  public record Call(double start, double end, double at, String text) {}

  /** Words as they are spoken: 100 is two, "one hundred". */
  public static int words(String text) {
    int n = 0;
    for (String token : text.trim().split("\\s+")) {
      String digits = token.replaceAll("[^0-9]", "");
      n += token.matches(".*\\p{L}.*") ? 1 : 0;
      n += digits.isEmpty() ? 0 : spoken(digits);
    }
    return n;
  }

  private static int spoken(String digits) {
    int v = digits.length() > 6 ? 999_999 : Integer.parseInt(digits);
    if (v < 21) {
      return 1;
    }
    if (v < 100) {
      return v % 10 == 0 ? 1 : 2;
    }
    if (v < 1000) {
      return 2 + (v % 100 == 0 ? 0 : spoken(String.format(Locale.ROOT, "%d", v % 100)));
    }
    return spoken(Integer.toString(v / 1000))
        + 1
        + (v % 1000 == 0 ? 0 : spoken(Integer.toString(v % 1000)));
  }

  /**
   * The best calls: exactly, over all lengths and silence, the greatest worth of which no two
   * overlap.
   *
   * @param cues in driving order
   * @param speed 1 at full speed; a slower road leaves more time
   */
  public static List<Call> of(List<Cue> cues, double speed) {
    return of(cues, speed, Calls::estimate);
  }

  /** Seconds that a text takes to be said, as far as its words tell. */
  public static double estimate(String text) {
    return WORD * words(text);
  }

  /**
   * The same with a voice that is known.
   *
   * @param seconds that it takes for a text
   */
  public static List<Call> of(List<Cue> cues, double speed, ToDoubleFunction<String> seconds) {
    int n = cues.size();
    // Best worth of the first i, when the last of them that is spoken is the i-th.
    double[] best = new double[n];
    int[] before = new int[n];
    int[] length = new int[n];
    for (int i = 0; i < n; i++) {
      best[i] = Double.NEGATIVE_INFINITY;
      Cue c = cues.get(i);
      for (int k = 0; k < c.texts().size(); k++) {
        Call call = call(c, k, speed, seconds);
        double own = c.worth() * LENGTHS[Math.min(k, LENGTHS.length - 1)];
        double most = 0;
        int from = -1;
        for (int j = 0; j < i; j++) {
          boolean free = end(cues.get(j), speed) <= call.start() + 1e-9;
          if (free && best[j] > most) {
            most = best[j];
            from = j;
          }
        }
        if (own + most > best[i]) {
          best[i] = own + most;
          before[i] = from;
          length[i] = k;
        }
      }
    }
    int last = -1;
    for (int i = 0; i < n; i++) {
      last = best[i] > (last < 0 ? 0 : best[last]) ? i : last;
    }
    List<Call> out = new ArrayList<>();
    while (last >= 0) {
      out.add(0, call(cues.get(last), length[last], speed, seconds));
      last = before[last];
    }
    return List.copyOf(out);
  }

  private static double end(Cue c, double speed) {
    return c.at() - ACTING * speed;
  }

  private static Call call(Cue c, int k, double speed, ToDoubleFunction<String> seconds) {
    String text = c.texts().get(k);
    double end = end(c, speed);
    return new Call(end - seconds.applyAsDouble(text) * speed, end, c.at(), text);
  }
}
