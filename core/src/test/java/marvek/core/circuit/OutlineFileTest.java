package marvek.core.circuit;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import io.jenetics.jpx.GPX;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import marvek.core.circuit.OutlineProblem.Kind;
import marvek.core.fixtures.Refused;
import marvek.core.fixtures.Tracks;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class OutlineFileTest {
  private static final String ROWS =
      IntStream.range(0, 40)
          .mapToObj(i -> circle(i, 100))
          .map(p -> p[0] + "," + p[1] + "\n")
          .collect(Collectors.joining());

  private static double[] circle(int i, double radius) {
    double a = i * Math.PI / 20;
    return new double[] {radius * Math.cos(a), radius * Math.sin(a)};
  }

  private static OutlineProblem refused(String text) {
    try {
      CircuitReading survey =
          CircuitReader.read(
              OutlineFile.read(text.getBytes(UTF_8)), CircuitReader.Choices.asItComes());
      throw new AssertionError("taken, with " + survey.corners().size() + " corners");
    } catch (OutlineProblem p) {
      assertThat(Refused.what(p)).isNotBlank();
      assertThat(Refused.remedy(p)).isNotBlank();
      return p;
    }
  }

  @Test
  void readsCsvWithAndWithoutHeaderAndWithDecimalCommas() {
    Outline plain = OutlineFile.read(ROWS.getBytes(UTF_8));
    Outline named = OutlineFile.read(("# x_m,y_m\n" + ROWS).getBytes(UTF_8));
    String comma = ("x_m;y_m\n" + ROWS.replace(',', ';')).replace('.', ',');
    Outline german = OutlineFile.read(comma.getBytes(UTF_8));
    assertThat(plain.x()).containsExactly(named.x());
    assertThat(german.y()).containsExactly(named.y());
    assertThat(Speaker.PLAIN.say(named.where(3))).isEqualTo("row 5");
  }

  @Test
  void readsWidthsHeightsAndCrossfallByName() {
    String text =
        "y_m,x_m,z_m,w_left_m,w_right_m,crossfall_deg\n"
            + IntStream.range(0, 40)
                .mapToObj(i -> circle(i, 100))
                .map(p -> p[1] + "," + p[0] + ",12.5,4,6,-2\n")
                .collect(Collectors.joining());
    Outline o = OutlineFile.read(text.getBytes(UTF_8));
    assertThat(o.x()[0]).isEqualTo(100);
    assertThat(o.z()).containsOnly(12.5);
    assertThat(o.left()).containsOnly(4);
    assertThat(o.right()).containsOnly(6);
    assertThat(o.crossfall()[7]).isCloseTo(Math.toRadians(-2), within(1e-12));
  }

  @Test
  void readsGpxThatAnIndependentLibraryWrote() throws IOException {
    // GPX 1.1 written by jpx; the points must come back in order and place.
    GPX gpx =
        GPX.builder()
            .addTrack(
                t ->
                    t.addSegment(
                        s ->
                            IntStream.range(0, 40)
                                .forEach(
                                    i ->
                                        s.addPoint(
                                            p ->
                                                p.lat(38 + circle(i, 0.001)[1])
                                                    .lon(-29 + circle(i, 0.001)[0])
                                                    .ele(7)))))
            .build();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    GPX.Writer.DEFAULT.write(gpx, out);
    Outline o = OutlineFile.read(out.toByteArray());
    assertThat(o.geographic()).isTrue();
    assertThat(o.size()).isEqualTo(40);
    assertThat(o.x()[10]).isCloseTo(-29, within(1e-6));
    assertThat(o.z()[10]).isEqualTo(7);
  }

  @Test
  void readsGeoJsonPolygonInsideACollection() {
    String ring =
        IntStream.rangeClosed(0, 40)
            .mapToObj(i -> circle(i % 40, 0.002))
            .map(p -> "[" + (10 + p[0]) + "," + (50 + p[1]) + "]")
            .collect(Collectors.joining(","));
    String text =
        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"geometry\":"
            + "{\"type\":\"Point\",\"coordinates\":[1,2]}},{\"type\":\"Feature\",\"geometry\":"
            + "{\"type\":\"Polygon\",\"coordinates\":[["
            + ring
            + "]]}}]}";
    assertThat(OutlineFile.read(text.getBytes(UTF_8)).size()).isEqualTo(41);
  }

  @Test
  void sayWhereANumberIsWrong() {
    OutlineProblem word = refused("x_m,y_m\n" + ROWS + "12,about here\n");
    assertThat(word.kind()).isEqualTo(Kind.NOT_A_NUMBER);
    assertThat(Refused.where(word)).isEqualTo("row 42, column 2");
    OutlineProblem nan = refused("x_m,y_m\n" + ROWS + "NaN,3\n");
    assertThat(nan.kind()).isEqualTo(Kind.NOT_A_NUMBER);
    assertThat(Refused.where(nan)).isEqualTo("row 42");
    assertThat(refused("x_m,y_m\n" + ROWS + "1e308,3\n").kind()).isEqualTo(Kind.OUT_OF_RANGE);
    assertThat(Refused.where(refused("x_m,y_m\n" + ROWS + "7\n"))).isEqualTo("row 42, column 2");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "x_m,y_m;0,0;100,0|TOO_FEW_POINTS",
        "hello|UNKNOWN_FORMAT",
        "name,value;a,1|UNREADABLE",
        "{\"type\":\"Point\",\"coordinates\":[1,2]}|UNREADABLE",
        "{\"type\":\"LineString\",\"coordinates\":[[1,2|UNREADABLE",
        "<html><body/></html>|UNKNOWN_FORMAT",
        "<gpx><trk><trkseg><trkpt lat=\"95\" lon=\"3\"/></trkseg></trk></gpx>|SWAPPED_COORDINATES",
        "<gpx><trk><trkseg><trkpt lat=\"x\" lon=\"3\"/></trkseg></trk></gpx>|NOT_A_NUMBER",
        "<gpx version=\"1.1\" creator=\"t\" xmlns=\"http://www.topografix.com/GPX/1/1\"/>|UNREADABLE",
        "<gpx><trk>|UNREADABLE"
      })
  void refusesWithTheKindOfProblem(String text, Kind kind) {
    assertThat(refused(text.replace(';', '\n')).kind()).isEqualTo(kind);
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "   \n  "})
  void refusesNothing(String text) {
    assertThat(refused(text).kind()).isEqualTo(Kind.TOO_FEW_POINTS);
  }

  @Test
  void refusesEntitiesBeforeTheyAreExpanded() {
    String bomb =
        "<?xml version=\"1.0\"?><!DOCTYPE gpx [<!ENTITY a \"aaaaaaaaaa\">"
            + "<!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\">]><gpx>&b;</gpx>";
    assertThat(refused(bomb).kind()).isEqualTo(Kind.UNSAFE_XML);
    String outside =
        "<?xml version=\"1.0\"?><!DOCTYPE gpx [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>"
            + "<gpx><name>&x;</name></gpx>";
    assertThat(refused(outside).kind()).isEqualTo(Kind.UNSAFE_XML);
    // The platform's reader trips over its own words for this.
    String broken = "<?xml version=\"1.0\"?><!DOCTYPE gpx [<!ENTITY a \u0001>]><gpx/>";
    assertThat(refused(broken).kind()).isEqualTo(Kind.UNSAFE_XML);
  }

  @Test
  void refusesSwappedCoordinatesThatPassThePole() {
    String text =
        "{\"type\":\"LineString\",\"coordinates\":["
            + IntStream.range(0, 20)
                .mapToObj(i -> "[" + (38 + i * 1e-4) + "," + (-120 + i * 1e-4) + "]")
                .collect(Collectors.joining(","))
            + "]}";
    assertThat(refused(text).kind()).isEqualTo(Kind.SWAPPED_COORDINATES);
    String metres = text.replace("-120", "250000").replace("[38", "[450038");
    assertThat(refused(metres).kind()).isEqualTo(Kind.OUT_OF_RANGE);
  }

  @Test
  void refusesSizesBeyondReason() {
    assertThatThrownBy(() -> OutlineFile.read(new byte[OutlineFile.MOST_BYTES + 1]))
        .isInstanceOf(OutlineProblem.class);
    byte[] many = "1,2\n".repeat(OutlineFile.MOST_POINTS + 10).getBytes(UTF_8);
    assertThatThrownBy(() -> OutlineFile.read(many)).isInstanceOf(OutlineProblem.class);
    assertThat(refused("{\"a\":".repeat(5000)).kind()).isEqualTo(Kind.UNREADABLE);
    byte[] binary = new byte[400];
    binary[0] = 'P';
    assertThatThrownBy(() -> OutlineFile.read(binary)).isInstanceOf(OutlineProblem.class);
  }

  @Test
  void refusesALapThatIsNotClosedAndSaysByHowMuch() {
    OutlineProblem open =
        refused(new String(Tracks.every(5).straight(600).bend(40, 90, 10).csv(), UTF_8));
    assertThat(open.kind()).isEqualTo(Kind.NOT_CLOSED);
    assertThat(Refused.what(open)).matches(".* 6\\d\\d m .*");
  }

  @Test
  void refusesAKnotButTakesABridge() {
    // A recording that ran round a small loop of 31 m on a straight.
    OutlineProblem knot =
        refused(
            new String(
                Tracks.every(2)
                    .straight(200)
                    .arc(5, 360)
                    .straight(200)
                    .arc(60, 180)
                    .straight(400)
                    .arc(60, 180)
                    .csv(),
                UTF_8));
    assertThat(knot.kind()).isEqualTo(Kind.CROSSES_ITSELF);
    assertThat(Refused.what(knot)).contains("knot");
    String text = figureOfEight();
    OutlineProblem crossing = refused(text);
    assertThat(crossing.kind()).isEqualTo(Kind.CROSSES_ITSELF);
    assertThat(Refused.where(crossing)).contains("row");
    CircuitReading bridge =
        CircuitReader.read(
            OutlineFile.read(text.getBytes(UTF_8)), new CircuitReader.Choices(false, 0, 10, true));
    assertThat(bridge.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.contains("bridge"));
    assertThat(bridge.corners()).hasSize(2);
  }

  @Test
  void seesACrossingThatFallsOnAPointOfTheFile() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (String row : figureOfEight().lines().skip(1).toList()) {
      String[] p = row.split(",");
      text.append(Math.round(Double.parseDouble(p[0]) * 100) / 100.0)
          .append(',')
          .append(Math.round(Double.parseDouble(p[1]) * 100) / 100.0)
          .append('\n');
    }
    assertThat(text.toString()).contains("\n0.0,0.0\n");
    assertThat(refused(text.toString()).kind()).isEqualTo(Kind.CROSSES_ITSELF);
  }

  @Test
  void takesABridgeByItselfWhenHeightsTell() {
    String[] rows = figureOfEight().split("\n");
    StringBuilder text = new StringBuilder("x_m,y_m,z_m\n");
    for (int i = 1; i < rows.length; i++) {
      double height = 6 * Math.sin(2 * Math.PI * i / rows.length);
      text.append(rows[i].strip()).append(',').append(height).append('\n');
    }
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(text.toString().getBytes(UTF_8)), CircuitReader.Choices.asItComes());
    assertThat(survey.corners()).hasSize(2);
  }

  /** Two loops of one turn each, the second the other way, crossing once in the middle. */
  static String figureOfEight() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < 200; i++) {
      double t = (i + 25) * 2 * Math.PI / 200;
      double x = 300 * Math.cos(t) / (1 + Math.sin(t) * Math.sin(t));
      double y = 300 * Math.sin(t) * Math.cos(t) / (1 + Math.sin(t) * Math.sin(t));
      text.append(x).append(',').append(y).append('\n');
    }
    return text.toString();
  }

  /** A row of ten thousands of fields is refused at once: reading it costs their square. */
  @Test
  void aRowOfVeryManyFieldsIsRefusedAtOnce() {
    byte[] wide = "a,".repeat(20_000).getBytes(java.nio.charset.StandardCharsets.UTF_8);
    org.assertj.core.api.Assertions.assertThatThrownBy(() -> OutlineFile.read(wide))
        .isInstanceOf(OutlineProblem.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("200 fields"));
  }
}
