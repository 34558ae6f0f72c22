package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assertions.assertTimeout;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import marvek.core.circuit.LocalPlane;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Refused;
import marvek.core.logger.Drive;
import marvek.core.logger.Recorder;
import marvek.core.refusal.Refusal;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The same drive in files as devices and spreadsheets write them: read alike, or refused rightly.
 */
@Tag("slow")
class OddFilesTest {
  private static final LocalPlane PLACE = new LocalPlane(-8, 39);
  private static final Drive DRIVEN = Device.drive(2, 77);
  private static final List<String> METRES = rows(null);
  private static final List<String> DEGREES = rows(PLACE);

  private static List<String> rows(LocalPlane plane) {
    List<String> rows = new ArrayList<>();
    new Recorder(DRIVEN, Device.DESK.road(), plane, Recorder.Noise.usual(), new Random(9))
        .table(20, rows::add);
    return rows;
  }

  private static int column(List<String> rows, String name) {
    List<String> names = Arrays.asList(rows.get(0).split(","));
    for (int i = 0; i < names.size(); i++) {
      if (names.get(i).startsWith(name)) {
        return i;
      }
    }
    throw new AssertionError(name + " in " + names);
  }

  /** The text with another name for the column of the metres that begins so. */
  private static String renamed(String text, String column, String name) {
    String was = METRES.get(0).split(",")[column(METRES, column)];
    return text.replaceFirst(Pattern.quote(was), name);
  }

  /** Every row with its cells changed; the names are those of the file. */
  private static String with(List<String> rows, BiFunction<Integer, String[], String[]> how) {
    StringBuilder out = new StringBuilder(rows.get(0)).append('\n');
    for (int i = 1; i < rows.size(); i++) {
      out.append(String.join(",", how.apply(i - 1, rows.get(i).split(",")))).append('\n');
    }
    return out.toString();
  }

  private static Device.Read read(String text, LocalPlane plane) {
    return Device.read(text, Device.DESK, plane);
  }

  private static void sameLaps(Device.Read read) {
    List<DrivenLap> clean = read(String.join("\n", METRES) + "\n", null).whole();
    assertThat(clean).hasSize(2);
    assertThat(read.whole()).as(read.said()).hasSameSizeAs(clean);
    for (int l = 0; l < clean.size(); l++) {
      assertThat(read.whole().get(l).lapTime()).isCloseTo(clean.get(l).lapTime(), within(0.02));
      assertThat(read.whole().get(l).kind()).isEqualTo(LapKind.PUSH);
    }
  }

  private static String unitsRow(String unknown) {
    // A row of names, a row of units of which some are not known, and columns of other sensors.
    String[] names = METRES.get(0).split(",");
    StringBuilder out = new StringBuilder("recorded by somebody\n");
    List<String> bare = new ArrayList<>();
    List<String> units = new ArrayList<>();
    for (String n : names) {
      int cut = n.indexOf('(');
      bare.add(cut > 0 ? n.substring(0, cut).strip() : n);
      units.add(cut > 0 ? n.substring(cut + 1, n.indexOf(')')) : "");
    }
    out.append(String.join(",", bare)).append(",Brake temp,Battery\n");
    out.append(String.join(",", units)).append(',').append(unknown).append(",V\n");
    METRES.stream().skip(1).forEach(r -> out.append(r).append(",420.5,12.6\n"));
    return out.toString();
  }

  @ParameterizedTest
  @ValueSource(strings = {"°C", "Nm", "l", "V", "hh", "furlong", "[degC]"})
  void oneUnknownUnitLosesNoNames(String unknown) {
    String text = unitsRow(unknown);
    Mapping m = RecordingFile.sniff(text.getBytes(StandardCharsets.UTF_8));
    assertThat(m.columns())
        .as("a sensor of heat is no brake")
        .allSatisfy(
            c -> {
              if (c.header().startsWith("Brake temp")) {
                assertThat(c.channel()).isNull();
              }
            });
    sameLaps(read(text, null));
  }

  @ParameterizedTest
  @CsvSource({
    "Brake bias (%), ",
    "Brake temp FL, ",
    "Brake temperature (C), ",
    "Throttle voltage (V), ",
    "Target speed (km/h), ",
    "Throttle pedal (raw), THROTTLE",
    "Brake pressure sensor (front left), BRAKE",
    "Speed (GPS), SPEED",
    "GPS Speed [km/h], SPEED"
  })
  void aRemarkInBracketsIsNoUnitAndWhatIsAboutAPedalIsNoPedal(String name, Channel channel) {
    StringBuilder text = new StringBuilder("time (s)," + name + "\n");
    for (int i = 0; i < 50; i++) {
      text.append(i / 10.0).append(',').append(40 + i % 7).append('\n');
    }
    assertThat(sniffed(text.toString()).columns().get(1).channel()).isEqualTo(channel);
  }

  /** A first row of 20 000 names above three columns is looked at no further than these go. */
  @Test
  void namesWithoutEndAreNotReadToTheEnd() {
    String many = String.join(",", java.util.Collections.nCopies(20_000, "a"));
    String text = "time,speed,brake," + many + "\n1,2,3\n2,3,4\n3,4,5\n4,5,6\n";
    Mapping m =
        assertTimeout(
            Duration.ofMillis(500),
            () -> RecordingFile.sniff(text.getBytes(StandardCharsets.UTF_8)));
    assertThat(m.columns())
        .extracting(Mapping.Column::channel)
        .containsExactly(Channel.TIME, Channel.SPEED, Channel.BRAKE);
  }

  @Test
  void aDeviceThatStartsAnewInTheAfternoonIsNotMidnight() {
    int t = column(METRES, "time");
    String text =
        with(
            METRES,
            (i, c) -> {
              double at = Double.parseDouble(c[t]);
              c[t] = String.valueOf(i < METRES.size() / 2 ? at + 60_000 : at);
              return c;
            });
    assertThat(read(text, null).said()).contains("The clock went back by");
  }

  @ParameterizedTest
  @CsvSource({"1e3, 1763895600000", "1e6, 1763895600000000", "1e9, 1763895600000000000"})
  void theClockMayCountFrom1970InThousandthsOrFiner(double perSecond, long from) {
    int t = column(METRES, "time");
    String text =
        with(
            METRES,
            (i, c) -> {
              c[t] = String.valueOf(from + Math.round(Double.parseDouble(c[t]) * perSecond));
              return c;
            });
    sameLaps(read(renamed(text, "time", "timestamp"), null));
  }

  @ParameterizedTest
  @CsvSource({"NaN, 1", "nan, 40", "n/a, 40", "-, 40"})
  void noValueInTheFirstRowsOrSecondsLosesNothingElse(String none, int rows) {
    int x = column(METRES, "x");
    int speed = column(METRES, "speed");
    String text =
        with(
            METRES,
            (i, c) -> {
              if (i < rows) {
                c[x] = none;
                c[x + 1] = none;
                c[speed] = none;
              }
              return c;
            });
    sameLaps(read(text, null));
  }

  @Test
  void tempoIsTimeOrSpeedByWhatItHolds() {
    String time = renamed(String.join("\n", METRES), "time", "tempo") + "\n";
    assertThat(sniffed(time).of(Channel.TIME).orElseThrow().header()).isEqualTo("tempo");
    sameLaps(read(time, null));
    String speed = renamed(String.join("\n", METRES), "speed", "Tempo") + "\n";
    assertThat(sniffed(speed).of(Channel.SPEED).orElseThrow().header()).isEqualTo("Tempo");
    assertThat(sniffed(speed).of(Channel.TIME).orElseThrow().header()).startsWith("time");
  }

  private static Mapping sniffed(String text) {
    return RecordingFile.sniff(text.getBytes(StandardCharsets.UTF_8));
  }

  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void aLapOverMidnightStaysOneLap(boolean clock) {
    int t = column(METRES, "time");
    double last = Double.parseDouble(METRES.get(METRES.size() - 1).split(",")[t]);
    String text =
        with(
            METRES,
            (i, c) -> {
              double of = (86_400 - last / 2 + Double.parseDouble(c[t])) % 86_400;
              c[t] =
                  clock
                      ? String.format(
                          Locale.ROOT,
                          "%02d:%02d:%06.3f",
                          (int) of / 3600,
                          (int) of / 60 % 60,
                          of % 60)
                      : String.format(Locale.ROOT, "%.3f", of);
              return c;
            });
    sameLaps(read(text, null));
  }

  @Test
  void swappedLatitudeAndLongitudeAreRecognisedAndSaid() {
    String[] names = DEGREES.get(0).split(",");
    int lat = column(DEGREES, "lat");
    int lon = column(DEGREES, "lon");
    String[] changed = names.clone();
    changed[lat] = names[lon];
    changed[lon] = names[lat];
    String other =
        String.join(",", changed) + "\n" + String.join("\n", DEGREES.subList(1, DEGREES.size()));
    Device.Read read = read(other + "\n", PLACE);
    assertThat(read.said()).contains("each other's columns");
    sameLaps(read);
    Device.Read right = read(String.join("\n", DEGREES) + "\n", PLACE);
    assertThat(right.said()).doesNotContain("each other's columns");
    sameLaps(right);
    assertThatThrownBy(() -> read(String.join("\n", DEGREES) + "\n", new LocalPlane(11, 45)))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("km from this circuit"));
  }

  @Test
  void aLayoutWithoutAPlaceIsSaidToHaveNone() {
    assertThatThrownBy(() -> read(String.join("\n", DEGREES) + "\n", null))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("no place on the earth"));
  }

  @Test
  void distanceThatRunsOnOverLapsIsRefusedWithTheReason() {
    int t = column(METRES, "time");
    int v = column(METRES, "speed");
    double factor = METRES.get(0).split(",")[v].contains("kmh") ? 1 / 3.6 : 1;
    StringBuilder text = new StringBuilder("time_s,distance_m,speed_ms\n");
    double d = 0;
    double before = 0;
    for (String row : METRES.subList(1, METRES.size())) {
      String[] c = row.split(",");
      double now = Double.parseDouble(c[t]);
      d += (now - before) * Double.parseDouble(c[v]) * factor;
      before = now;
      text.append(
          String.format(
              Locale.ROOT, "%.3f,%.2f,%.2f%n", now, d, Double.parseDouble(c[v]) * factor));
    }
    assertThatThrownBy(() -> read(text.toString(), null))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("nothing says where a lap begins"));
  }

  /** What a reading gave, to the last bit. */
  public static void main(String[] args) {
    StringBuilder out = new StringBuilder();
    for (String text : tricky()) {
      out.append(sniffed(text));
      Device.Read read = read(text, null);
      out.append(read.said());
      for (DrivenLap l : read.laps()) {
        out.append(l.kind()).append(Double.doubleToLongBits(l.lapTime()));
        out.append(Arrays.hashCode(l.trace().station())).append(Arrays.hashCode(l.trace().speed()));
        new TreeSet<>(l.trace().channels().keySet())
            .forEach(c -> out.append(c).append(Arrays.hashCode(l.trace().of(c))));
      }
    }
    try {
      System.out.println(
          HexFormat.of()
              .formatHex(
                  java.security.MessageDigest.getInstance("SHA-256")
                      .digest(out.toString().getBytes(StandardCharsets.UTF_8))));
    } catch (java.security.NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  private static List<String> tricky() {
    return List.of(unitsRow("°C"), renamed(String.join("\n", METRES), "time", "tempo") + "\n");
  }

  @Test
  void tenFreshMachinesInSeveralLocalesAndZonesReadTheSameToTheLastBit() throws Exception {
    String line =
        Arrays.stream(Device.DESK.path().offset())
            .mapToObj(Double::toString)
            .collect(Collectors.joining(","));
    String[][] places = {
      {"en", "US", "UTC"}, {"de", "DE", "Europe/Berlin"}, {"tr", "TR", "Asia/Tokyo"},
    };
    List<Process> all = new ArrayList<>();
    List<String> seen = new ArrayList<>();
    for (int k = 0; k < 10; k++) {
      String[] p = places[k % places.length];
      all.add(
          new ProcessBuilder(
                  System.getProperty("java.home") + "/bin/java",
                  "-Duser.language=" + p[0],
                  "-Duser.country=" + p[1],
                  "-Duser.timezone=" + p[2],
                  "-Dfile.encoding=" + (k % 2 == 0 ? "UTF-8" : "ISO-8859-1"),
                  "-D" + Device.GIVEN + "=" + line,
                  "-cp",
                  System.getProperty("java.class.path"),
                  OddFilesTest.class.getName())
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .start());
      if (all.size() == 2 || k == 9) {
        for (Process process : all) {
          seen.add(
              new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip());
          assertThat(process.waitFor()).isZero();
        }
        all.clear();
      }
    }
    assertThat(seen).hasSize(10).allMatch(s -> s.length() == 64);
    assertThat(seen.stream().collect(Collectors.toSet())).hasSize(1);
  }
}
