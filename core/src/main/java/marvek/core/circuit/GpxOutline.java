package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.UNREADABLE;
import static marvek.core.circuit.OutlineProblem.Kind.UNSAFE_XML;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Length;
import io.jenetics.jpx.Point;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import java.util.MissingResourceException;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** GPX: the points of the tracks, or of the routes where there is no track. */
final class GpxOutline {
  private GpxOutline() {}

  static Outline read(byte[] content) {
    refuseDeclarations(content);
    GPX gpx;
    try {
      gpx = GPX.Reader.of(GPX.Reader.Mode.LENIENT).read(new ByteArrayInputStream(content));
    } catch (IOException e) {
      throw unreadable(null);
    }
    List<Point> points =
        gpx.tracks()
            .flatMap(t -> t.segments().flatMap(s -> s.points().map(Point.class::cast)))
            .toList();
    if (points.isEmpty()) {
      points = gpx.routes().flatMap(r -> r.points().map(Point.class::cast)).toList();
    }
    if (points.isEmpty()) {
      throw OutlineProblem.of(UNREADABLE, "refusal.circuit.no_track_gpx_file");
    }
    boolean heights = points.stream().allMatch(p -> p.getElevation().isPresent());
    double @Nullable [] z =
        heights
            ? points.stream()
                .mapToDouble(p -> p.getElevation().map(Length::doubleValue).orElseThrow())
                .toArray()
            : null;
    return new Outline(
        true,
        points.stream().mapToDouble(p -> p.getLongitude().doubleValue()).toArray(),
        points.stream().mapToDouble(p -> p.getLatitude().doubleValue()).toArray(),
        z,
        null,
        null,
        null,
        "track_point",
        IntStream.rangeClosed(1, points.size()).toArray());
  }

  /**
   * Reads the whole document once with declarations and outside entities off. A document type, and
   * with it any entity of its own, is refused before another reader sees it; and so is a point
   * whose place is no number, which the library would leave out in silence.
   */
  private static void refuseDeclarations(byte[] content) {
    XMLInputFactory factory = XMLInputFactory.newInstance();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    String root = null;
    int point = 0;
    try {
      XMLStreamReader xml = factory.createXMLStreamReader(new ByteArrayInputStream(content));
      while (xml.hasNext()) {
        int event = xml.next();
        if (event == XMLStreamConstants.DTD || event == XMLStreamConstants.ENTITY_REFERENCE) {
          throw declared(Where.line(xml.getLocation().getLineNumber()));
        }
        if (event == XMLStreamConstants.START_ELEMENT) {
          root = root == null ? xml.getLocalName() : root;
          if (Stream.of("trkpt", "rtept").anyMatch(xml.getLocalName()::equals)) {
            point++;
            requireDegrees(xml, point, "lon", 180);
            requireDegrees(xml, point, "lat", 90);
          }
        }
      }
    } catch (MissingResourceException e) {
      // The platform's reader has no words of its own for what is wrong inside a document type.
      throw declared(null);
    } catch (XMLStreamException e) {
      throw unreadable(
          e.getLocation() == null ? null : Where.line(e.getLocation().getLineNumber()));
    }
    if (!"gpx".equals(root)) {
      throw OutlineProblem.of(
          OutlineProblem.Kind.UNKNOWN_FORMAT,
          "refusal.circuit.xml_not_gpx",
          Value.own(String.valueOf(root)));
    }
  }

  private static Refusal declared(@Nullable Said where) {
    return OutlineProblem.of(UNSAFE_XML, "refusal.circuit.file_declares_document_type").at(where);
  }

  private static void requireDegrees(XMLStreamReader xml, int point, String name, double most) {
    String value = xml.getAttributeValue(null, name);
    double degrees;
    try {
      degrees = value == null ? Double.NaN : Double.parseDouble(value);
    } catch (NumberFormatException e) {
      degrees = Double.NaN;
    }
    Said where = Where.trackPoint(point, xml.getLocation().getLineNumber());
    if (Double.isNaN(degrees)) {
      throw OutlineProblem.of(
              OutlineProblem.Kind.NOT_A_NUMBER,
              "refusal.circuit.not_number",
              Value.own(name),
              Value.own(String.valueOf(value)))
          .at(where);
    }
    if (Math.abs(degrees) > most) {
      boolean swapped = "lat".equals(name) && Math.abs(degrees) <= 180;
      throw OutlineProblem.of(
              swapped ? OutlineProblem.Kind.SWAPPED_COORDINATES : OutlineProblem.Kind.OUT_OF_RANGE,
              "refusal.circuit.degrees_range",
              Value.own(name),
              Value.own(value),
              Value.choice(swapped))
          .at(where);
    }
  }

  private static Refusal unreadable(@Nullable Said where) {
    return OutlineProblem.of(UNREADABLE, "refusal.circuit.gpx_breaks_off_malformed").at(where);
  }
}
