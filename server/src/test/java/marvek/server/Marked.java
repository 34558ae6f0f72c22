package marvek.server;

import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import marvek.core.words.Catalogue;

/** What is told in marked words. */
final class Marked {
  private static final Pattern WORD = Pattern.compile("\\p{L}*\\p{Ll}{3,}\\p{L}*");

  private Marked() {}

  /** Words that stand outside every mark, but for people's own. */
  static List<String> outside(String text, String... theirs) {
    String left = Catalogue.outsideMarks(text);
    for (String own : theirs) {
      left = left.replace(own, "");
    }
    return WORD.matcher(left).results().map(MatchResult::group).toList();
  }
}
