package marvek.core.words;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;

/**
 * A lap in what can be said in ten seconds: thirty words at most, of the corners that are worth
 * most.
 */
public final class TenSeconds {
  /** So many words are said in ten seconds (common practice, no source). */
  public static final int MOST = 30;

  private TenSeconds() {}

  /**
   * The summary, its corners in driving order.
   *
   * @param corners of the road, in driving order
   * @param entries of the reference
   * @param worth ids of corners, those worth most first
   */
  public static String of(
      List<Corner> corners, List<CornerEntry> entries, List<String> worth, Speech speech) {
    List<Integer> chosen = new ArrayList<>();
    int words = 0;
    for (String id : worth) {
      int at = index(corners, id);
      Optional<String> phrase = phrase(corners, entries, at, speech);
      if (phrase.isEmpty()) {
        continue;
      }
      int more = phrase.get().split("[\\s-]+").length;
      if (words + more <= MOST) {
        chosen.add(at);
        words += more;
      }
    }
    chosen.sort(Integer::compare);
    return String.join(
        " ", chosen.stream().flatMap(at -> phrase(corners, entries, at, speech).stream()).toList());
  }

  private static int index(List<Corner> corners, String id) {
    for (int i = 0; i < corners.size(); i++) {
      if (corners.get(i).id().equals(id)) {
        return i;
      }
    }
    return -1;
  }

  private static Optional<String> phrase(
      List<Corner> corners, List<CornerEntry> entries, int at, Speech speech) {
    return at < 0
        ? Optional.empty()
        : entries.stream()
            .filter(e -> e.corner().equals(corners.get(at).id()))
            .findFirst()
            .map(e -> Sentence.brief(corners.get(at), e, speech));
  }
}
