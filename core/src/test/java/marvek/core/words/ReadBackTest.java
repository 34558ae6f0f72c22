package marvek.core.words;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import marvek.core.circuit.Outline;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.fixtures.Example;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.geojson.GeoJsonReader;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** Files that go out or lie beside the drop area, read by libraries that had no part in them. */
class ReadBackTest {
  private static final Path SAMPLES = Path.of("../server/src/main/resources/samples");

  @Test
  void commonsCsvReadsTheReferenceBackWithItsAwkwardNotes() throws IOException {
    // RFC 4180, read by Apache Commons CSV.
    Example gt = Example.of("cup-gt");
    String note = "Late, \"very\" late; then\nwait, wait";
    CornerEntry first = Example.with(gt.first(), gt.first().points(), gt.first().gear(), note);
    ReferenceContent content =
        new ReferenceContent(
            java.util.stream.Stream.concat(
                    java.util.stream.Stream.of(first), gt.draft.corners().stream().skip(1))
                .toList());
    String text = ReferenceCsv.write(gt.survey.corners(), content);
    List<CSVRecord> rows =
        CSVFormat.RFC4180
            .builder()
            .setHeader()
            .setSkipHeaderRecord(true)
            .get()
            .parse(new java.io.StringReader(text))
            .getRecords();
    assertThat(rows).hasSize(content.corners().size());
    assertThat(rows.get(0).get("note")).isEqualTo(note);
    for (int c = 0; c < rows.size(); c++) {
      assertThat(Double.parseDouble(rows.get(c).get("apex_m")))
          .isCloseTo(content.corners().get(c).station(PointKind.APEX).orElseThrow(), within(0.051));
      assertThat(rows.get(c).size()).isEqualTo(ReferenceCsv.HEADER.size());
    }
    ReferenceContent back =
        ReferenceCsv.read(text, gt.survey.corners(), gt.computed.road().length(), gt.draft);
    assertThat(back.corners().get(0).note()).isEqualTo(note);
  }

  @Test
  void jtsReadsTheGeoJsonSampleAsWeDo() throws Exception {
    // RFC 7946, read by JTS.
    byte[] bytes = Files.readAllBytes(SAMPLES.resolve("outline.geojson"));
    Geometry theirs = new GeoJsonReader().read(new String(bytes, UTF_8));
    Outline ours = OutlineFile.read(bytes);
    Coordinate[] points = theirs.getCoordinates();
    assertThat(points).hasSize(ours.size());
    for (int i = 0; i < points.length; i += 17) {
      assertThat(ours.x()[i]).isEqualTo(points[i].x);
      assertThat(ours.y()[i]).isEqualTo(points[i].y);
    }
  }

  @Test
  void aPlainXmlReaderFindsTheSamePointsInTheGpxSample() throws Exception {
    // GPX 1.1, read by the JDK's own DOM parser.
    byte[] bytes = Files.readAllBytes(SAMPLES.resolve("outline.gpx"));
    NodeList points =
        DocumentBuilderFactory.newInstance()
            .newDocumentBuilder()
            .parse(new ByteArrayInputStream(bytes))
            .getElementsByTagName("trkpt");
    Outline ours = OutlineFile.read(bytes);
    assertThat(points.getLength()).isEqualTo(ours.size());
    for (int i = 0; i < ours.size(); i += 13) {
      Element point = (Element) points.item(i);
      assertThat(ours.x()[i])
          .isCloseTo(Double.parseDouble(point.getAttribute("lon")), within(1e-9));
      assertThat(ours.y()[i])
          .isCloseTo(Double.parseDouble(point.getAttribute("lat")), within(1e-9));
      double height =
          Double.parseDouble(point.getElementsByTagName("ele").item(0).getTextContent());
      assertThat(ours.z()).isNotNull();
      assertThat(ours.z()[i]).isCloseTo(height, within(1e-9));
    }
  }
}
