package marvek.core.words;

import java.util.List;
import java.util.Locale;
import marvek.core.marker.Tie;
import marvek.core.units.Display;

/** How parts are put into sentences, and a place into few words. */
public final class Punctuation {
  private Punctuation() {}

  /** Parts as one sentence. */
  static String sentence(List<String> parts) {
    return stopped(
        sentenceCase(String.join("; ", parts.stream().filter(p -> !p.isBlank()).toList())));
  }

  static String stopped(String text) {
    return text.endsWith(".") ? text : text + ".";
  }

  /** "100 board + 8 m". */
  public static String brief(Tie tie, Display units) {
    String name = tie.spoken().replaceFirst("^the ", "");
    long past = Math.round(tie.past());
    return past == 0 ? name : name + (past > 0 ? " + " : " − ") + units.length(tie.past());
  }

  static String sentenceCase(String text) {
    return text.isEmpty()
        ? text
        : text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
  }
}
