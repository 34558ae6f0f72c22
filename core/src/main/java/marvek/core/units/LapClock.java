package marvek.core.units;

import java.util.Locale;

/** Lap times as people write them. */
public final class LapClock {
  private LapClock() {}

  /** Seconds as "1:42.35". */
  public static String of(double seconds) {
    long hundredths = Math.round(seconds * 100);
    return String.format(Locale.ROOT, "%d:%05.2f", hundredths / 6000, (hundredths % 6000) / 100.0);
  }
}
