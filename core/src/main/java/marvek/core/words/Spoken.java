package marvek.core.words;

import com.ibm.icu.text.RuleBasedNumberFormat;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Words as they are said aloud: numbers in words, signs and units named. */
final class Spoken {
  private static final Pattern NUMBER = Pattern.compile("\\d+(?:[.,]\\d+)?");
  private static final Pattern UNIT =
      Pattern.compile("(?<=\\d) ?(%|km/h|mph|ft|yd|kg|rpm|m|s)(?![\\p{L}])");

  // Made of many rules, and not for two threads at once.
  private static final ThreadLocal<RuleBasedNumberFormat> IN_WORDS =
      ThreadLocal.withInitial(
          () -> new RuleBasedNumberFormat(Locale.ENGLISH, RuleBasedNumberFormat.SPELLOUT));

  private Spoken() {}

  static String of(String written) {
    String text = written.replace(" + ", " plus ").replace(" − ", " minus ").replace(" (", ", ");
    text = text.replace(")", "").replace(" · ", ", ").replace("−", "minus ");
    Matcher units = UNIT.matcher(text);
    text = units.replaceAll(r -> " " + named(r.group(1)));
    Matcher numbers = NUMBER.matcher(text);
    RuleBasedNumberFormat words = IN_WORDS.get();
    return numbers.replaceAll(r -> words.format(Double.parseDouble(r.group().replace(',', '.'))));
  }

  private static String named(String unit) {
    return switch (unit) {
      case "%" -> "percent";
      case "km/h" -> "kilometres an hour";
      case "mph" -> "miles an hour";
      case "ft" -> "feet";
      case "yd" -> "yards";
      case "kg" -> "kilos";
      case "rpm" -> "revs";
      case "m" -> "metres";
      default -> "seconds";
    };
  }
}
