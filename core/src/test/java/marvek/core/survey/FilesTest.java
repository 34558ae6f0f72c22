package marvek.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayInputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.OutlineFile;
import marvek.core.fixtures.Refused;
import marvek.core.fixtures.Tracks;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.refusal.Refusal;
import net.sf.geographiclib.Geodesic;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.geojson.GeoJsonReader;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** What goes out is read by libraries that had no part in writing it. */
class FilesTest {
  private static final CircuitReading READING =
      CircuitReader.read(
          OutlineFile.read(Tracks.square(300, 40, 4).csv()),
          new CircuitReader.Choices(false, 150, 12, false));
  private static final LocalPlane PLANE = new LocalPlane(-8.05, 39.62);
  private static final Things THINGS =
      new Things(
          List.of(
              new Landmark("a-1", LandmarkKind.BOARD, "100", 40, true, "c1"),
              new Landmark(
                  "a-2",
                  LandmarkKind.SHADOW,
                  "stand, \"old\"; with; marks",
                  250.5,
                  false,
                  "",
                  -1.5,
                  11,
                  Landmark.Permanence.LIGHT,
                  false,
                  Instant.parse("2026-05-16T15:20:00Z"),
                  "line one\nline two",
                  "",
                  35,
                  new Landmark.Seen(180.25, null)),
              new Landmark(
                  "a-3",
                  LandmarkKind.TREE,
                  "",
                  300,
                  true,
                  "",
                  9,
                  6,
                  Landmark.Permanence.SEASONAL,
                  true,
                  null,
                  "",
                  "",
                  0,
                  new Landmark.Seen(210.0, 291.5))),
          List.of(
              new Kerb(
                  "k-1",
                  true,
                  280,
                  310,
                  "c1",
                  Kerb.Part.APEX,
                  KerbProfile.STEP,
                  1.1,
                  0.09,
                  Kerb.Behind.TURF,
                  true,
                  Kerb.Verdict.KEEP_OFF,
                  "hard",
                  "")),
          List.of(new Zone("z-1", ZoneKind.DAMP, Zone.Side.RIGHT, 100, 180, 3, 0.8, "", "")),
          List.of(
              new TrackLimit(
                  "l-1",
                  "c1",
                  Kerb.Part.EXIT,
                  true,
                  TrackLimit.Line.KERB_OUTER,
                  2,
                  "kerb",
                  "time",
                  List.of(new TrackLimit.Breach(LocalDate.of(2026, 5, 15), "ran wide")))),
          List.of(new Place("p-1", PlaceKind.PASS, false, 60, 120, "", "late")));

  @Test
  void aWholeSurveyComesBackTheSame() {
    byte[] file =
        new SurveyFile(READING.corners(), THINGS).write("Square", READING.centreline(), PLANE);
    SurveyFile back = SurveyFile.read(file);
    assertThat(back.things()).isEqualTo(THINGS);
    assertThat(back.corners()).isEqualTo(READING.corners());
  }

  @Test
  void geometryIsGeoJsonWhereTheThingsLie() throws Exception {
    byte[] file =
        new SurveyFile(READING.corners(), THINGS).write("Square", READING.centreline(), PLANE);
    JsonNode root = new ObjectMapper().readTree(file);
    GeoJsonReader reader = new GeoJsonReader();
    int lines = 0;
    for (JsonNode f : root.path("features")) {
      if (f.path("geometry").isNull()) {
        assertThat(f.at("/properties/marvek").asText()).isEqualTo("limit");
        continue;
      }
      Geometry geometry = reader.read(f.path("geometry").toString());
      assertThat(geometry.isValid()).isTrue();
      lines += geometry.getGeometryType().equals("LineString") ? 1 : 0;
      if (f.at("/properties/thing/id").asText().equals("a-1")) {
        // 40 m on, left edge 6 m out and 3 m beyond it: metres on the ellipsoid by GeographicLib.
        double[] foot = {
          READING.centreline().x()[40] - 9 * Math.sin(READING.centreline().heading()[40]),
          READING.centreline().y()[40] + 9 * Math.cos(READING.centreline().heading()[40])
        };
        double metres =
            Geodesic.WGS84.Inverse(
                    PLANE.latitude(),
                    PLANE.longitude(),
                    geometry.getCoordinate().y,
                    geometry.getCoordinate().x)
                .s12;
        assertThat(metres).isCloseTo(Math.hypot(foot[0], foot[1]), within(0.05));
      }
    }
    assertThat(lines).isEqualTo(READING.corners().size() + 2);
  }

  @Test
  void withoutAPlaceOnTheEarthTheThingsAreStillWhole() {
    byte[] file =
        new SurveyFile(READING.corners(), THINGS).write("Square", READING.centreline(), null);
    assertThat(SurveyFile.read(file).things()).isEqualTo(THINGS);
    assertThat(new String(file, StandardCharsets.UTF_8)).contains("\"geometry\" : null");
  }

  @Test
  void landmarksAsCsvAreReadByAnotherLibrary() throws Exception {
    byte[] file = LandmarkCsv.write(THINGS.landmarks(), READING.centreline(), PLANE);
    List<CSVRecord> rows =
        CSVFormat.RFC4180
            .builder()
            .setHeader()
            .setSkipHeaderRecord(true)
            .get()
            .parse(new StringReader(new String(file, StandardCharsets.UTF_8)))
            .getRecords();
    assertThat(rows).hasSize(3);
    assertThat(rows.get(2).get("leaves_view_m")).isEqualTo("291.5");
    assertThat(rows.get(1).get("label")).isEqualTo("stand, \"old\"; with; marks");
    assertThat(Double.parseDouble(rows.get(1).get("station_m"))).isEqualTo(250.5);
    assertThat(LandmarkCsv.read(file, READING.centreline(), PLANE, "x"))
        .isEqualTo(THINGS.landmarks());
  }

  @Test
  void csvFromASpreadsheetWithDegreesAndCommasIsPlaced() {
    double[] at = PLANE.toDegrees(0, 0);
    double[] beside =
        new SurveyPlace(READING.centreline(), PLANE).degrees(123, false, 4).orElseThrow();
    String text =
        "\uFEFFlatitude;longitude;kind;label\r\n"
            + (beside[1] + ";" + beside[0]).replace('.', ',')
            + ";tree;old oak\r\n";
    Landmark tree =
        LandmarkCsv.read(text.getBytes(StandardCharsets.UTF_8), READING.centreline(), PLANE, "x-")
            .get(0);
    assertThat(tree.station()).isCloseTo(123, within(0.02));
    assertThat(tree.left()).isFalse();
    assertThat(tree.out()).isCloseTo(4, within(0.02));
    assertThat(tree.permanence()).isEqualTo(Landmark.Permanence.SEASONAL);
    assertThat(at).hasSize(2);
  }

  @Test
  void landmarksAsGpxAreReadByAnotherLibrary() throws Exception {
    byte[] file = LandmarkGpx.write(THINGS.landmarks(), READING.centreline(), PLANE);
    DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
    factory.setNamespaceAware(true);
    NodeList points =
        factory
            .newDocumentBuilder()
            .parse(new ByteArrayInputStream(file))
            .getElementsByTagNameNS("http://www.topografix.com/GPX/1/1", "wpt");
    assertThat(points.getLength()).isEqualTo(3);
    Element first = (Element) points.item(0);
    assertThat(first.getElementsByTagNameNS("*", "name").item(0).getTextContent()).isEqualTo("100");
    double[] expected =
        new SurveyPlace(READING.centreline(), PLANE).degrees(40, true, 3).orElseThrow();
    assertThat(Double.parseDouble(first.getAttribute("lat"))).isCloseTo(expected[1], within(1e-7));
    assertThat(LandmarkGpx.read(file, READING.centreline(), PLANE, "x"))
        .isEqualTo(THINGS.landmarks());
  }

  @Test
  void waypointsFromElsewhereNeedNoMoreThanAPlaceAndAName() {
    double[] at = new SurveyPlace(READING.centreline(), PLANE).degrees(77, true, 2).orElseThrow();
    String gpx =
        "<gpx xmlns=\"http://www.topografix.com/GPX/1/1\" version=\"1.1\" creator=\"t\"><wpt lat=\""
            + at[1]
            + "\" lon=\""
            + at[0]
            + "\"><name>gate</name></wpt></gpx>";
    Landmark gate =
        LandmarkGpx.read(gpx.getBytes(StandardCharsets.UTF_8), READING.centreline(), PLANE, "g-")
            .get(0);
    assertThat(gate.label()).isEqualTo("gate");
    assertThat(gate.station()).isCloseTo(77, within(0.05));
    assertThat(gate.left()).isTrue();
    String far = gpx.replace("lat=\"" + at[1], "lat=\"" + (at[1] + 1));
    assertThatThrownBy(
            () ->
                LandmarkGpx.read(
                    far.getBytes(StandardCharsets.UTF_8), READING.centreline(), PLANE, "g-"))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("from the road"));
  }
}
