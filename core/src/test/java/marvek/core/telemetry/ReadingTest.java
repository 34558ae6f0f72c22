package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import marvek.core.fixtures.Refused;
import marvek.core.refusal.Refusal;
import marvek.core.words.Speaker;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

/** Files of many kinds are understood, and what is wrong with others is said. */
class ReadingTest {
  private static Mapping sniff(String text) {
    return RecordingFile.sniff(text.getBytes(StandardCharsets.UTF_8));
  }

  private record Read(List<Samples> blocks, ReadReport report) {
    double[] column(Channel c) {
      return java.util.Arrays.copyOf(blocks.get(0).of(c), blocks.get(0).size());
    }

    String said() {
      return report.remarks().stream()
          .map(r -> Speaker.PLAIN.say(r.words()))
          .collect(Collectors.joining("\n"));
    }
  }

  private static Read read(String text) {
    List<Samples> blocks = new ArrayList<>();
    ReadReport report = new ReadReport();
    try {
      RecordingFile.read(
          new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)),
          sniff(text),
          new Blocks(
              (block, last) -> {
                blocks.add(block.part(0, block.size()));
                return block.size();
              }),
          report);
    } catch (IOException e) {
      throw new AssertionError(e);
    }
    return new Read(blocks, report);
  }

  @Test
  void ownNamesSemicolonsAndDecimalCommas() {
    StringBuilder text =
        new StringBuilder(
            "Meine Fahrt;Samstag\n\nZeit [s];Geschwindigkeit [km/h];Gas (%);Bremsdruck (bar);Lenkwinkel;Gang\n");
    for (int i = 0; i < 300; i++) {
      text.append(
          String.format(
              java.util.Locale.ROOT,
              "%d,%02d;%d,5;%d,0;0,0;-12,5;3%n",
              i / 50,
              i % 50 * 2,
              100 + i % 60,
              i % 101));
    }
    Mapping m = sniff(text.toString());
    assertThat(m.delimiter()).isEqualTo(';');
    assertThat(m.decimalComma()).isTrue();
    assertThat(m.headerRow()).isEqualTo(3);
    assertThat(m.of(Channel.SPEED).orElseThrow().unit()).isEqualTo(Unit.KM_PER_HOUR);
    assertThat(m.of(Channel.BRAKE).orElseThrow().unit()).isEqualTo(Unit.BAR);
    assertThat(m.of(Channel.STEERING).orElseThrow().unit()).isEqualTo(Unit.DEGREE);
    assertThat(m.of(Channel.GEAR)).isPresent();
    Read read = read(text.toString());
    assertThat(read.column(Channel.TIME)[1]).isCloseTo(0.02, within(1e-12));
    assertThat(read.column(Channel.SPEED)[0]).isCloseTo(100.5 / 3.6, within(1e-9));
    assertThat(read.column(Channel.STEERING)[0]).isCloseTo(Math.toRadians(-12.5), within(1e-12));
  }

  @Test
  void aRowOfUnitsUnderTheNames() {
    Mapping m =
        sniff(
            "Time,GPS Speed,Engine RPM,Lat,Lon\ns,mph,rpm,deg,deg\n" + rows("%d,60,5000,1.5,2.5"));
    assertThat(m.firstRow()).isEqualTo(3);
    assertThat(m.of(Channel.SPEED).orElseThrow().unit()).isEqualTo(Unit.MILE_PER_HOUR);
    assertThat(m.of(Channel.REVS)).isPresent();
    assertThat(m.of(Channel.LATITUDE)).isPresent();
  }

  @Test
  void unitsInNamesClockTimesTabsAndByteOrderMarks() {
    assertThat(
            sniff("t_s\tspeed_mps\tx\ty\n" + rows("%d\t12.5\t1\t2"))
                .of(Channel.SPEED)
                .orElseThrow()
                .unit())
        .isEqualTo(Unit.METRE_PER_SECOND);
    String clocked =
        "\uFEFFtime,speed km/h,lap\n"
            + IntStream.range(0, 30)
                .mapToObj(i -> String.format("10:00:%02d.500,50,1", i))
                .collect(Collectors.joining("\n"));
    assertThat(sniff(clocked).of(Channel.TIME).orElseThrow().unit()).isEqualTo(Unit.CLOCK);
    assertThat(read(clocked).column(Channel.TIME)[2]).isCloseTo(36002.5, within(1e-9));
    assertThat(sniff("time,speed\n" + rows("%d00,50")).of(Channel.TIME).orElseThrow().unit())
        .isEqualTo(Unit.MILLISECOND);
  }

  private static String rows(String format) {
    return IntStream.range(0, 40)
        .mapToObj(i -> String.format(java.util.Locale.ROOT, format, i))
        .collect(Collectors.joining("\n"));
  }

  @Test
  void whatIsMissingIsAskedFor() {
    Mapping m = sniff("a,b,c\n" + rows("%d,2,3"));
    assertThat(Refused.what(m.problem().orElseThrow())).contains("time");
    Mapping timed = sniff("time,foo\n" + rows("%d,2"));
    assertThat(Refused.what(timed.problem().orElseThrow())).contains("where the vehicle was");
    Mapping twice =
        m.with(
            List.of(
                new Mapping.Column(0, "a", Channel.TIME, Unit.SECOND, false),
                new Mapping.Column(1, "b", Channel.TIME, Unit.SECOND, false)));
    assertThat(Refused.where(twice.problem().orElseThrow())).contains("column 2");
    Mapping unitless = m.with(List.of(new Mapping.Column(0, "a", Channel.TIME, Unit.BAR, false)));
    assertThat(Refused.remedy(unitless.problem().orElseThrow())).isEqualTo("Choose it.");
  }

  @Test
  void textInNumbersRepeatedStampsAndClocksThatGoBackAreTold() {
    StringBuilder text = new StringBuilder("time (s),speed (km/h)\n");
    for (int i = 0; i < 60; i++) {
      text.append(i * 0.1).append(",").append(i == 20 ? "n/a" : "50").append('\n');
    }
    text.append("5.9,51\n");
    for (int i = 0; i < 60; i++) {
      text.append(i * 0.1).append(",52\n");
    }
    Read read = read(text.toString());
    assertThat(read.blocks()).hasSize(2);
    assertThat(read.said())
        .contains("1 value of speed cannot be read as a number, first in row 22")
        .contains("1 row with the time of the row before")
        .contains("The clock went back by 5.9 s at row 63");
  }

  @Test
  void aFileThatIsNoneIsRefusedWithWhatToDo() {
    assertThatThrownBy(() -> sniff(""))
        .isInstanceOfSatisfying(Refusal.class, p -> assertThat(Refused.what(p)).contains("empty"));
    assertThatThrownBy(() -> sniff("PK\u0003\u0004\0\0\0\0\0\0\0\0"))
        .isInstanceOfSatisfying(
            Refusal.class, p -> assertThat(Refused.what(p)).contains("not a text file"));
    assertThatThrownBy(() -> sniff("a,b\nhello,world\nfoo,bar\n"))
        .isInstanceOfSatisfying(Refusal.class, p -> assertThat(Refused.remedy(p)).contains("CSV"));
    assertThatThrownBy(() -> sniff("<?xml version='1.0'?><kml/>"))
        .isInstanceOfSatisfying(Refusal.class, p -> assertThat(Refused.what(p)).contains("no GPX"));
    String wide = "1,".repeat(5000) + "1\n";
    assertThatThrownBy(() -> sniff(wide + wide + wide + wide))
        .isInstanceOfSatisfying(
            Refusal.class, p -> assertThat(Refused.what(p)).contains("5001 columns"));
    String endless = "1,".repeat(130_000);
    assertThatThrownBy(() -> sniff(endless)).isInstanceOf(Refusal.class);
  }

  @Test
  void declarationsInGpxAreRefused() {
    String bomb =
        "<?xml version='1.0'?><!DOCTYPE gpx [<!ENTITY a 'b'>]><gpx><trk><trkseg>"
            + "<trkpt lat='1' lon='2'><time>2026-01-01T10:00:00Z</time></trkpt></trkseg></trk></gpx>";
    assertThatThrownBy(() -> read(bomb))
        .isInstanceOfSatisfying(
            Refusal.class, p -> assertThat(Refused.what(p)).contains("types of its own"));
    String broken = "<?xml version='1.0'?><!DOCTYPE gpx [<!ENTITY a \u0001>]><gpx/>";
    assertThatThrownBy(() -> read(broken))
        .isInstanceOfSatisfying(
            Refusal.class, p -> assertThat(Refused.what(p)).contains("types of its own"));
  }

  /** The sentence and its checksum are the usual example of NMEA 0183 texts (from memory). */
  @Test
  void nmeaIsReadAndItsChecksumsHeld() {
    String good = "$GPRMC,123519,A,4807.038,N,01131.000,E,022.4,084.4,230394,003.1,W*6A\r\n";
    Read read =
        read(
            good
                + good.replace("*6A", "*6B")
                + good.replace("123519", "123520").replace("*6A", "*60"));
    assertThat(read.column(Channel.LATITUDE)[0]).isCloseTo(48 + 7.038 / 60, within(1e-9));
    assertThat(read.column(Channel.LONGITUDE)[0]).isCloseTo(11 + 31.0 / 60, within(1e-9));
    assertThat(read.column(Channel.SPEED)[0]).isCloseTo(22.4 * 1852 / 3600, within(1e-9));
    assertThat(read.column(Channel.TIME)).containsExactly(45319, 45320);
    assertThat(read.said()).contains("1 sentence with a wrong checksum");
  }

  @Test
  void aThousandSamplesASecondAreAveraged() {
    StringBuilder text = new StringBuilder("time (s),speed (km/h)\n");
    for (int i = 0; i < 5000; i++) {
      text.append(i / 1000.0).append(',').append(100 + i % 2).append('\n');
    }
    Read read = read(text.toString());
    assertThat(read.blocks().get(0).size()).isEqualTo(500);
    assertThat(read.column(Channel.SPEED)[100] * 3.6).isCloseTo(100.5, within(1e-9));
    assertThat(read.said()).contains("means of 10 are kept");
  }

  @Test
  void aLongFileTakesTheMemoryOfABlock() throws IOException {
    int[] most = {0};
    long[] all = {0};
    StringBuilder text = new StringBuilder("time (s),speed (km/h)\n");
    for (int i = 0; i < 300_000; i++) {
      text.append(i / 50.0).append(",90\n");
    }
    RecordingFile.read(
        new ByteArrayInputStream(text.toString().getBytes(StandardCharsets.UTF_8)),
        sniff(text.substring(0, 100_000)),
        new Blocks(
            (block, last) -> {
              most[0] = Math.max(most[0], block.size());
              all[0] += block.size();
              return block.size();
            }),
        new ReadReport());
    assertThat(most[0]).isEqualTo(Blocks.SIZE);
    assertThat(all[0]).isEqualTo(300_000);
  }

  @Test
  void readingStopsWhenItsStreamSaysSo() {
    String head = "time (s),speed (km/h)\n" + "1,2\n2,3\n3,4\n4,5\n";
    java.io.InputStream stopped =
        new java.io.SequenceInputStream(
            new ByteArrayInputStream(head.repeat(20_000).getBytes(StandardCharsets.UTF_8)),
            new java.io.InputStream() {
              @Override
              public int read() throws IOException {
                throw new InterruptedIOException("cancelled");
              }
            });
    assertThatThrownBy(
            () ->
                RecordingFile.read(
                    stopped, sniff(head), new Blocks((b, l) -> b.size()), new ReadReport()))
        .isInstanceOfAny(ReadingStopped.class, InterruptedIOException.class);
  }

  @Property
  void plainDecimalsAreReadToTheLastBit(@ForAll @DoubleRange(min = -1e6, max = 1e6) double value) {
    String text = String.format(java.util.Locale.ROOT, "%.6f", value);
    assertThat(Numbers.parse(text, false)).isEqualTo(Double.parseDouble(text));
    assertThat(Numbers.parse(text.replace('.', ','), true)).isEqualTo(Double.parseDouble(text));
  }

  @Test
  void hostileNumbersAreNone() {
    for (String text : List.of("NaN", "1e308", "Infinity", "--1", "1.2.3", "0x10", "1d", "", " ")) {
      assertThat(Numbers.parse(text, false)).as(text).isNaN();
    }
    assertThat(Numbers.time("2026-05-16T10:00:00.250Z", false) % 60).isCloseTo(0.25, within(1e-6));
    assertThat(Numbers.time("1:02,5", true)).isCloseTo(62.5, within(1e-9));
    assertThat(Numbers.time("a:b", false)).isNaN();
  }
}
