package marvek.core.telemetry;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Locale;

/** Numbers and times as files write them; NaN for what is neither. */
final class Numbers {
  // Beyond this nothing is measured; the clock of a device may count nanoseconds since 1970.
  private static final double MOST = 1e19;

  private Numbers() {}

  static double parse(String text, boolean comma) {
    int n = text.length();
    if (n == 0 || n > 40) {
      return Double.NaN;
    }
    double quick = quick(text, comma ? ',' : '.');
    if (!Double.isNaN(quick)) {
      return quick;
    }
    String t = text.strip();
    if (comma) {
      t = t.replace(',', '.');
    }
    if (t.isEmpty() || !(Character.isDigit(t.charAt(t.length() - 1)) || t.endsWith("."))) {
      return Double.NaN;
    }
    try {
      double v = Double.parseDouble(t);
      return Math.abs(v) <= MOST ? v : Double.NaN;
    } catch (NumberFormatException e) {
      return Double.NaN;
    }
  }

  private static final double[] TENTHS = {
    1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15
  };

  /** Plain decimals of up to 15 digits, exact to the last bit; NaN for anything else. */
  private static double quick(String text, char mark) {
    int n = text.length();
    int i = 0;
    boolean negative = false;
    char first = text.charAt(0);
    if (first == '-' || first == '+') {
      negative = first == '-';
      i++;
    }
    long digits = 0;
    int count = 0;
    int after = -1;
    for (; i < n; i++) {
      char ch = text.charAt(i);
      if (ch >= '0' && ch <= '9') {
        digits = digits * 10 + (ch - '0');
        count++;
        if (count > 15) {
          return Double.NaN;
        }
      } else if (ch == mark && after < 0) {
        after = count;
      } else {
        return Double.NaN;
      }
    }
    if (count == 0) {
      return Double.NaN;
    }
    double v = after < 0 ? digits : digits / TENTHS[count - after];
    return v > MOST ? Double.NaN : negative ? -v : v;
  }

  /** Whether a cell says that there is no value. */
  static boolean missing(String text) {
    return switch (text.strip().toLowerCase(Locale.ROOT)) {
      case "nan", "n/a", "na", "null", "none", "inf", "-inf", "-", "--", "#n/a", "?" -> true;
      default -> false;
    };
  }

  /** Seconds from a number, from hours, minutes and seconds, or from a date with a time. */
  static double time(String text, boolean comma) {
    double plain = parse(text, comma);
    if (!Double.isNaN(plain) || text.indexOf(':') < 0) {
      return plain;
    }
    String t = text.strip().replace(',', '.');
    try {
      if (t.indexOf('-') > 0 || t.indexOf('T') > 0) {
        String iso = t.replace(' ', 'T');
        Instant at =
            iso.endsWith("Z") || iso.matches(".*[+-]\\d\\d:?\\d\\d$")
                ? OffsetDateTime.parse(iso).toInstant()
                : LocalDateTime.parse(iso).toInstant(ZoneOffset.UTC);
        return at.getEpochSecond() + at.getNano() * 1e-9;
      }
      double sum = 0;
      for (String part : t.split(":", -1)) {
        double v = parse(part, false);
        if (Double.isNaN(v) || v < 0) {
          return Double.NaN;
        }
        sum = sum * 60 + v;
      }
      return sum;
    } catch (DateTimeException e) {
      return Double.NaN;
    }
  }
}
