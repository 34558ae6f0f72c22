package marvek.server.session;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.session.Weather;
import marvek.server.access.DemoSettings;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/** Asks the weather station, whose address is the operator's alone to set. */
@Component
class WeatherReader {
  private static final Logger LOG = LoggerFactory.getLogger(WeatherReader.class);
  private static final Duration PATIENCE = Duration.ofSeconds(3);
  private static final Duration KEEP = Duration.ofSeconds(60);
  static final int LARGEST = 1_000_000;

  private final HttpClient client = HttpClient.newBuilder().connectTimeout(PATIENCE).build();
  private final @Nullable URI station;
  private final DemoSettings demo;
  private final Environment environment;
  private final Clock clock;

  /** What the station said last, and when it was asked. */
  private record Asked(@Nullable Weather weather, @Nullable Said trouble, Instant at) {}

  private @Nullable Asked last;

  /** Reads what is sent drop by drop, beside whoever waits for it. */
  private final ExecutorService reader =
      Executors.newCachedThreadPool(
          work -> {
            Thread thread = new Thread(work, "weather");
            thread.setDaemon(true);
            return thread;
          });

  WeatherReader(
      @Value("${marvek.weather:}") String address,
      DemoSettings demo,
      Environment environment,
      Clock clock) {
    // One that is none is found when the server starts, and not in the middle of a session.
    this.station = address.isBlank() ? null : URI.create(address);
    this.demo = demo;
    this.environment = environment;
    this.clock = clock;
  }

  /** Where the station is; nothing where there is none. */
  private Optional<URI> station() {
    if (station != null) {
      return Optional.of(station);
    }
    String port = environment.getProperty("local.server.port");
    return demo.demo() && port != null
        ? Optional.of(URI.create("http://127.0.0.1:" + port + "/simulated/weather.json"))
        : Optional.empty();
  }

  boolean there() {
    return station().isPresent();
  }

  /** What the station says; what it said before while it does not answer. */
  synchronized Optional<Weather> weather() {
    Instant now = clock.instant();
    Asked before = last;
    if (before == null || before.at().plus(KEEP).isBefore(now)) {
      last = asked(before, now);
    }
    return last == null ? Optional.empty() : Optional.ofNullable(last.weather());
  }

  /** Why the station was not understood, in words; null where it was. */
  synchronized @Nullable Said trouble() {
    return last == null ? null : last.trouble();
  }

  private @Nullable Asked asked(@Nullable Asked before, Instant now) {
    URI asked = station().orElse(null);
    if (asked == null) {
      return null;
    }
    Weather kept = before == null ? null : before.weather();
    try {
      HttpResponse<InputStream> answer =
          client.send(
              HttpRequest.newBuilder(asked).timeout(PATIENCE).build(),
              HttpResponse.BodyHandlers.ofInputStream());
      byte[] sent = body(answer);
      if (answer.statusCode() != 200 || sent.length > LARGEST) {
        return new Asked(kept, Said.of("weather.station_odd"), now);
      }
      return new Asked(Weather.read(sent), null, now);
    } catch (IOException | ExecutionException | TimeoutException e) {
      LOG.info("the weather station does not answer");
      return new Asked(kept, Said.of("weather.station_silent"), now);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return new Asked(kept, Said.of("weather.station_late"), now);
    } catch (Refusal e) {
      return new Asked(kept, e.what(), now);
    }
  }

  /** What was sent, as much as is taken; one that sends drop by drop is not waited for. */
  private byte[] body(HttpResponse<InputStream> answer)
      throws IOException, InterruptedException, ExecutionException, TimeoutException {
    try (InputStream body = answer.body()) {
      return CompletableFuture.supplyAsync(
              () -> {
                try {
                  return body.readNBytes(LARGEST + 1);
                } catch (IOException e) {
                  throw new UncheckedIOException(e);
                }
              },
              reader)
          .get(PATIENCE.toMillis(), TimeUnit.MILLISECONDS);
    }
  }
}
