package marvek.server.session;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Objects;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import marvek.core.words.Speaker;
import marvek.server.access.DemoSettings;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.mock.env.MockEnvironment;

/** A weather station that answers, that does not, and that answers what nobody should send. */
class WeatherReaderTest {
  private static final Instant NOON = Instant.parse("2026-06-06T12:00:00Z");
  private static final String GOOD =
      "{\"readings\":[{\"at\":\"2026-06-06T11:58:00Z\",\"air\":20}],\"forecast\":[]}";

  private HttpServer station;
  private final AtomicInteger asked = new AtomicInteger();
  private volatile String answer = GOOD;
  private volatile int status = 200;
  private volatile Duration drop = Duration.ZERO;
  private volatile Instant now = NOON;

  @BeforeEach
  void open() throws IOException {
    station = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    station.setExecutor(Executors.newCachedThreadPool());
    station.createContext(
        "/",
        exchange -> {
          asked.incrementAndGet();
          exchange.sendResponseHeaders(status, 0);
          try (OutputStream out = exchange.getResponseBody()) {
            for (byte b : answer.getBytes(StandardCharsets.UTF_8)) {
              out.write(b);
              if (!drop.isZero()) {
                out.flush();
                Thread.sleep(drop.toMillis());
              }
            }
          } catch (IOException e) {
            // The reader hung up.
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
          }
        });
    station.start();
  }

  @AfterEach
  void close() {
    station.stop(0);
  }

  private WeatherReader reader(String address) {
    Clock clock =
        new Clock() {
          @Override
          public ZoneOffset getZone() {
            return ZoneOffset.UTC;
          }

          @Override
          public Clock withZone(java.time.ZoneId zone) {
            return this;
          }

          @Override
          public Instant instant() {
            return now;
          }
        };
    return new WeatherReader(address, new DemoSettings(false), new MockEnvironment(), clock);
  }

  private String address() {
    return "http://127.0.0.1:" + station.getAddress().getPort() + "/weather";
  }

  @Test
  void whatItSaysIsKeptForAMinuteAndAskedAgainAfter() {
    WeatherReader reader = reader(address());
    assertThat(reader.there()).isTrue();
    assertThat(reader.weather().orElseThrow().readings()).hasSize(1);
    reader.weather();
    assertThat(asked).hasValue(1);
    now = NOON.plusSeconds(61);
    reader.weather();
    assertThat(asked).hasValue(2);
    assertThat(reader.trouble()).isNull();
  }

  private static String words(WeatherReader reader) {
    return Speaker.PLAIN.say(Objects.requireNonNull(reader.trouble()));
  }

  @Test
  void whatItSaidBeforeStandsWhileItIsInTrouble() {
    WeatherReader reader = reader(address());
    reader.weather();
    String[] bad = {"{nonsense", "x".repeat(1_100_000), ""};
    for (String b : bad) {
      answer = b;
      now = now.plusSeconds(61);
      assertThat(reader.weather().orElseThrow().readings()).hasSize(1);
      assertThat(words(reader)).isNotBlank();
    }
    answer = GOOD;
    status = 503;
    now = now.plusSeconds(61);
    assertThat(reader.weather()).isPresent();
    assertThat(words(reader)).contains("does not answer as it should");
    status = 200;
    now = now.plusSeconds(61);
    reader.weather();
    assertThat(reader.trouble()).isNull();
  }

  /** One that sends a letter a second would hold every request that asks for the weather. */
  @Test
  void oneThatSendsDropByDropIsNotWaitedFor() {
    drop = Duration.ofMillis(300);
    long began = System.nanoTime();
    assertThat(reader(address()).weather()).isEmpty();
    assertThat(Duration.ofNanos(System.nanoTime() - began)).isLessThan(Duration.ofSeconds(8));
  }

  @Test
  void whereThereIsNoneNothingIsAsked() {
    assertThat(reader("").there()).isFalse();
    assertThat(reader("").weather()).isEmpty();
    station.stop(0);
    WeatherReader gone = reader(address());
    assertThat(gone.weather()).isEmpty();
    assertThat(words(gone)).contains("does not answer");
  }
}
