package marvek.core.telemetry;

import java.io.InputStream;
import java.util.EnumSet;
import java.util.List;
import java.util.MissingResourceException;
import java.util.Set;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.ReadReport.Sort;
import org.jspecify.annotations.Nullable;

/** Points of a GPX track as samples, read as they come; declarations of types are refused. */
final class GpxTrack {
  private static final Set<Channel> CHANNELS =
      EnumSet.of(Channel.TIME, Channel.LATITUDE, Channel.LONGITUDE, Channel.HEIGHT, Channel.SPEED);

  private GpxTrack() {}

  static Mapping mapping() {
    return new Mapping(Mapping.Format.GPX, ',', false, 0, 1, List.of());
  }

  static void read(InputStream in, Blocks blocks, ReadReport report) {
    XMLInputFactory factory = XMLInputFactory.newFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    blocks.start(CHANNELS);
    int points = 0;
    int untimed = 0;
    double last = Double.NaN;
    double[] value = new double[Channel.values().length];
    boolean inside = false;
    try {
      XMLStreamReader xml = factory.createXMLStreamReader(in);
      while (xml.hasNext()) {
        int event = xml.next();
        if (event == XMLStreamConstants.DTD) {
          throw declared(Where.line(xml.getLocation().getLineNumber()));
        }
        if (event == XMLStreamConstants.START_ELEMENT) {
          switch (xml.getLocalName()) {
            case "trkseg" -> {
              if (points > 0) {
                blocks.cut();
                last = Double.NaN;
              }
            }
            case "trkpt" -> {
              inside = true;
              java.util.Arrays.fill(value, Double.NaN);
              value[Channel.LATITUDE.ordinal()] = number(xml.getAttributeValue(null, "lat"));
              value[Channel.LONGITUDE.ordinal()] = number(xml.getAttributeValue(null, "lon"));
            }
            case "ele" -> {
              if (inside) {
                value[Channel.HEIGHT.ordinal()] = number(xml.getElementText());
              }
            }
            case "speed" -> {
              if (inside) {
                value[Channel.SPEED.ordinal()] = number(xml.getElementText());
              }
            }
            case "time" -> {
              if (inside) {
                value[Channel.TIME.ordinal()] = Numbers.time(xml.getElementText(), false);
              }
            }
            default -> {}
          }
        } else if (event == XMLStreamConstants.END_ELEMENT && xml.getLocalName().equals("trkpt")) {
          inside = false;
          points++;
          double t = value[Channel.TIME.ordinal()];
          if (Double.isNaN(t)) {
            untimed++;
            continue;
          }
          if (!Double.isNaN(last) && t <= last) {
            if (t < last) {
              blocks.cut();
              report.add(
                  Sort.CLEANED,
                  Said.of("report.recording.clock_went_back_point", Value.count(points)));
            } else {
              continue;
            }
          }
          last = t;
          int i = blocks.grow();
          for (Channel c : CHANNELS) {
            blocks.open().of(c)[i] = value[c.ordinal()];
          }
        }
      }
    } catch (MissingResourceException e) {
      // The platform's reader has no words of its own for what is wrong inside a document type.
      throw declared(null);
    } catch (XMLStreamException e) {
      ReadingStopped.ifSo(e.getNestedException() == null ? e : e.getNestedException());
      if (points == 0) {
        throw Refusal.of("refusal.telemetry.file_cannot_read_gpx")
            .at(e.getLocation() == null ? null : Where.line(e.getLocation().getLineNumber()));
      }
      report.add(
          Sort.DROPPED, Said.of("report.recording.file_breaks_off_after", Value.count(points)));
    }
    if (points == 0 || untimed == points) {
      throw Refusal.of(
          points == 0 ? "refusal.telemetry.no_track" : "refusal.telemetry.track_no_times");
    }
    report.add(Sort.READ, Said.of("report.recording.points", Value.count(points)));
    if (untimed > 0) {
      report.add(
          Sort.DROPPED, Said.of("report.recording.points_without_time", Value.count(untimed)));
    }
  }

  private static double number(String text) {
    return text == null ? Double.NaN : Numbers.parse(text.strip(), false);
  }

  private static Refusal declared(@Nullable Said where) {
    return Refusal.of("refusal.telemetry.file_declares_types_own").at(where);
  }
}
