package marvek.server.simulator;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import marvek.core.logger.SimulatedWeather;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * The simulated weather station: readings of the last hours, and a forecast that knows the less the
 * farther ahead it looks. Open JSON and CSV, as a station of one's own would send them.
 */
@RestController
@ConditionalOnProperty("marvek.demo")
@RequestMapping("/simulated")
class WeatherStation {
  private static final Duration BACK = Duration.ofHours(6);
  private static final Duration AHEAD = Duration.ofHours(36);
  private static final int EVERY = 6;
  private static final double PER_HOUR = 0.08;

  private final SimulatedWeather weather = new SimulatedWeather(4);
  private final Clock clock;

  WeatherStation(Clock clock) {
    this.clock = clock;
  }

  /** A time of the forecast. */
  record Ahead(
      Instant at,
      double air,
      double road,
      double pressure,
      double wind,
      double from,
      double rainLow,
      double rainHigh,
      double wet) {}

  record Station(List<SimulatedWeather.Sample> readings, List<Ahead> forecast) {}

  @GetMapping(value = "/weather.json", produces = MediaType.APPLICATION_JSON_VALUE)
  Station json() {
    Instant now = clock.instant();
    return new Station(weather.between(now.minus(BACK), now), ahead(now));
  }

  private List<Ahead> ahead(Instant now) {
    List<SimulatedWeather.Sample> all = weather.between(now, now.plus(AHEAD));
    return java.util.stream.IntStream.range(0, all.size())
        .filter(i -> i % EVERY == 0)
        .mapToObj(all::get)
        .map(
            s -> {
              double doubt =
                  Math.min(0.9, PER_HOUR * Duration.between(now, s.at()).toMinutes() / 60.0);
              return new Ahead(
                  s.at(),
                  s.air(),
                  s.road(),
                  s.pressure(),
                  s.wind(),
                  s.from(),
                  s.rain() * (1 - doubt),
                  s.rain() * (1 + doubt) + doubt * 0.3,
                  s.wet());
            })
        .toList();
  }

  @GetMapping(value = "/weather.csv", produces = "text/csv")
  String csv() {
    StringBuilder out =
        new StringBuilder("at,air,road,pressure,wind,from,rain,rainLow,rainHigh,wet\n");
    Instant now = clock.instant();
    for (SimulatedWeather.Sample s : weather.between(now.minus(BACK), now)) {
      out.append(
          String.format(
              Locale.ROOT,
              "%s,%s,%s,%s,%s,%s,%s,,,%s%n",
              s.at(),
              s.air(),
              s.road(),
              s.pressure(),
              s.wind(),
              s.from(),
              s.rain(),
              s.wet()));
    }
    for (Ahead a : ahead(now)) {
      out.append(
          String.format(
              Locale.ROOT,
              "%s,%s,%s,%s,%s,%s,,%s,%s,%s%n",
              a.at(),
              a.air(),
              a.road(),
              a.pressure(),
              a.wind(),
              a.from(),
              a.rainLow(),
              a.rainHigh(),
              a.wet()));
    }
    return out.toString();
  }
}
