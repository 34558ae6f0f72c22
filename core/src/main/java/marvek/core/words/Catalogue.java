package marvek.core.words;

import com.ibm.icu.text.MessageFormat;
import com.ibm.icu.util.ULocale;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The words of one language: patterns in ICU's message format (plural and select), by key. Values
 * come as text, counts as numbers.
 */
public final class Catalogue {
  /** Stands before what comes from {@link #MARKED}, and after it. */
  public static final String MARK = "\u2039";

  public static final String END = "\u203a";

  /** The words that Marvek speaks. */
  public static final Catalogue ENGLISH = read("en");

  /**
   * The same with whatever comes from it between two marks, to see on a screen what does not: a
   * pseudo-language.
   */
  public static final Catalogue MARKED = ENGLISH.marked(MARK, END);

  private final ULocale language;
  private final Map<String, String> patterns;
  private final Map<String, MessageFormat> formats = new ConcurrentHashMap<>();

  private Catalogue(ULocale language, Map<String, String> patterns) {
    this.language = language;
    this.patterns = patterns;
  }

  private static Catalogue read(String language) {
    Properties read = new Properties();
    try (InputStream in = Catalogue.class.getResourceAsStream(language + ".properties")) {
      if (in == null) {
        throw new IllegalStateException("no words in " + language);
      }
      Reader text = new InputStreamReader(in, StandardCharsets.UTF_8);
      read.load(text);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    Map<String, String> patterns = new TreeMap<>();
    read.stringPropertyNames().forEach(k -> patterns.put(k, read.getProperty(k)));
    return new Catalogue(new ULocale(language), patterns);
  }

  private Catalogue marked(String before, String after) {
    Map<String, String> marked = new TreeMap<>();
    patterns.forEach((k, p) -> marked.put(k, before + p + after));
    return new Catalogue(language, marked);
  }

  /** What stands outside every mark of a text in marked words: what is not of a catalogue. */
  public static String outsideMarks(String text) {
    StringBuilder out = new StringBuilder();
    int depth = 0;
    for (char c : text.toCharArray()) {
      depth += c == MARK.charAt(0) ? 1 : 0;
      if (depth == 0) {
        out.append(c);
      }
      depth -= c == END.charAt(0) ? 1 : 0;
    }
    if (depth != 0) {
      throw new IllegalArgumentException("marks without their partners: " + text);
    }
    return out.toString();
  }

  /** Keys that have words. */
  public Set<String> keys() {
    return new TreeSet<>(patterns.keySet());
  }

  /**
   * A pattern with its values.
   *
   * @throws IllegalArgumentException where the catalogue lacks the key
   */
  String say(String key, Object[] values) {
    MessageFormat format =
        formats.computeIfAbsent(
            key,
            k -> {
              String pattern = patterns.get(k);
              if (pattern == null) {
                throw new IllegalArgumentException("no words for " + k);
              }
              return new MessageFormat(pattern, language);
            });
    // A format may not be used by two at once, and is dear to copy.
    synchronized (format) {
      return format.format(values);
    }
  }
}
