package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.List;

/** The lap in ten seconds, to be said aloud: what is worth most, in driving order. */
public final class TenSeconds {
  /** Words of ten seconds, at 150 a minute. */
  public static final int WORDS = 25;

  // What less than the whole of it is still worth.
  static final double SHORTER = 0.6;

  private TenSeconds() {}

  /**
   * What may be said of a corner: one of its texts, or nothing.
   *
   * @param worth seconds that not knowing it costs
   * @param texts from the fullest to the shortest
   */
  public record Item(double worth, List<String> texts) {
    public Item {
      texts = List.copyOf(texts);
    }
  }

  /**
   * Chooses what is said: of all that fits into so many words, what is worth most together.
   *
   * @param items in driving order
   */
  public static List<String> of(List<Item> items) {
    int n = items.size();
    double[][] best = new double[n + 1][WORDS + 1];
    int[][] said = new int[n + 1][WORDS + 1];
    for (int i = n - 1; i >= 0; i--) {
      Item item = items.get(i);
      for (int room = 0; room <= WORDS; room++) {
        best[i][room] = best[i + 1][room];
        said[i][room] = -1;
        for (int k = 0; k < item.texts().size(); k++) {
          int takes = Calls.words(item.texts().get(k));
          double worth = item.worth() * (k == 0 ? 1 : SHORTER);
          if (takes > 0 && takes <= room && worth + best[i + 1][room - takes] > best[i][room]) {
            best[i][room] = worth + best[i + 1][room - takes];
            said[i][room] = k;
          }
        }
      }
    }
    List<String> out = new ArrayList<>();
    int room = WORDS;
    for (int i = 0; i < n; i++) {
      int k = said[i][room];
      if (k >= 0) {
        String text = items.get(i).texts().get(k);
        out.add(text);
        room -= Calls.words(text);
      }
    }
    return out;
  }
}
