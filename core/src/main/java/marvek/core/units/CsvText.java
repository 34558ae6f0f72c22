package marvek.core.units;

import java.util.regex.Pattern;

/**
 * Texts in CSV. A spreadsheet takes what begins with certain characters for a formula and runs it;
 * such texts get an apostrophe before them, which is taken off again where Marvek reads the file.
 * OWASP, "CSV Injection" (characters from memory).
 */
public final class CsvText {
  private static final String BEGINS_A_FORMULA = "=+-@\t\r";
  private static final Pattern NUMBER = Pattern.compile("[+-]?\\d+(\\.\\d+)?([eE][+-]?\\d+)?");

  private CsvText() {}

  /** A text as it may stand in a file; numbers stay as they are. */
  public static String safe(String text) {
    return NUMBER.matcher(text).matches() || !(formula(text, 0) || marked(text))
        ? text
        : "'" + text;
  }

  /** A text as it was before {@link #safe}. */
  public static String plain(String text) {
    return marked(text) ? text.substring(1) : text;
  }

  private static boolean marked(String text) {
    return text.length() > 1
        && text.charAt(0) == '\''
        && (formula(text, 1) || text.charAt(1) == '\'');
  }

  private static boolean formula(String text, int at) {
    return text.length() > at && BEGINS_A_FORMULA.indexOf(text.charAt(at)) >= 0;
  }
}
