package marvek.core.logger;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * Weather at a place that there is not, in the stead of a station: temperatures through the day,
 * and a shower on most days. The same seed and instant always give the same weather. It knows
 * nothing of the code that reads it.
 */
public final class SimulatedWeather {
  private static final Duration GRAIN = Duration.ofMinutes(5);
  private static final double DRIES_MIN = 35;
  private static final double SOAKS_MIN = 12;
  private static final double SUN = 9;

  private final long seed;

  public SimulatedWeather(long seed) {
    this.seed = seed;
  }

  /**
   * What the station reads.
   *
   * @param air °C
   * @param road °C
   * @param pressure hPa
   * @param wind m/s
   * @param from compass degrees
   * @param rain mm/h
   * @param wet share of the road that is wet
   */
  public record Sample(
      Instant at,
      double air,
      double road,
      double pressure,
      double wind,
      double from,
      double rain,
      double wet) {}

  /**
   * Samples every five minutes.
   *
   * @param from first instant, rounded down
   */
  public List<Sample> between(Instant from, Instant until) {
    long grain = GRAIN.toSeconds();
    Instant at = Instant.ofEpochSecond(Math.floorDiv(from.getEpochSecond(), grain) * grain);
    List<Sample> out = new ArrayList<>();
    // Water lies for hours: it is followed from some time before.
    double wet = 0;
    Instant before = at.minus(Duration.ofHours(4));
    for (Instant t = before; !t.isAfter(until); t = t.plus(GRAIN)) {
      double rain = rain(t);
      double minutes = GRAIN.toMinutes();
      wet += (1 - wet) * (1 - Math.exp(-minutes * rain / 2 / SOAKS_MIN));
      wet *= rain > 0 ? 1 : Math.exp(-minutes / DRIES_MIN);
      if (!t.isBefore(at)) {
        out.add(sample(t, rain, wet));
      }
    }
    return out;
  }

  private Sample sample(Instant t, double rain, double wet) {
    LocalDate date = t.atOffset(ZoneOffset.UTC).toLocalDate();
    Random day = of(date);
    double warm = 12 + 10 * day.nextDouble();
    double high = 1000 + 22 * day.nextDouble();
    double windy = 1 + 6 * day.nextDouble();
    double from = 360 * day.nextDouble();
    double hour = (t.getEpochSecond() % 86_400) / 3600.0;
    double sun = Math.max(0, Math.sin(Math.PI * (hour - 6) / 13));
    double wave = Math.sin(2 * Math.PI * hour / 24 * 3 + from);
    double air = warm + 5 * Math.sin(Math.PI * (hour - 9) / 12) - (rain > 0 ? 2 : 0);
    return new Sample(
        t,
        round(air, 1),
        round(air + SUN * sun * (1 - wet), 1),
        round(high + 2 * wave, 1),
        round(Math.max(0, windy + wave), 1),
        Math.floorMod(Math.round(from + 15 * wave), 360),
        round(rain, 1),
        round(wet, 2));
  }

  private double rain(Instant t) {
    LocalDate date = t.atOffset(ZoneOffset.UTC).toLocalDate();
    Random day = of(date);
    day.nextDouble();
    boolean any = day.nextDouble() < 0.8;
    double begins = 8 + 9 * day.nextDouble();
    double hours = 0.4 + 0.9 * day.nextDouble();
    double most = 1.5 + 5 * day.nextDouble();
    double hour = (t.getEpochSecond() % 86_400) / 3600.0;
    double share = (hour - begins) / hours;
    return any && share > 0 && share < 1 ? most * Math.sin(Math.PI * share) : 0;
  }

  private Random of(LocalDate date) {
    return new Random(seed * 31 + date.toEpochDay() * 7919);
  }

  private static double round(double value, int digits) {
    double scale = Math.pow(10, digits);
    return Math.round(value * scale) / scale;
  }
}
