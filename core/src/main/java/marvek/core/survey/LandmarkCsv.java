package marvek.core.survey;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Value;
import marvek.core.units.CsvText;
import org.jspecify.annotations.Nullable;

/**
 * Landmarks as CSV (RFC 4180). Read by column names in any order; a row needs {@code kind} and
 * either {@code station_m} or {@code longitude} and {@code latitude}.
 */
public final class LandmarkCsv {
  private static final int MOST = 5000;
  private static final String[] COLUMNS = {
    "id",
    "kind",
    "label",
    "station_m",
    "side",
    "out_m",
    "height_m",
    "permanence",
    "readable",
    "noted",
    "corner",
    "note",
    "longitude",
    "latitude",
    "length_m",
    "comes_into_view_m",
    "leaves_view_m"
  };

  private LandmarkCsv() {}

  /** The file, UTF-8. */
  public static byte[] write(
      List<Landmark> landmarks, Centreline road, @Nullable LocalPlane plane) {
    SurveyPlace place = new SurveyPlace(road, plane);
    StringWriter out = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
      csv.writeRecord(COLUMNS);
      for (Landmark l : landmarks) {
        Optional<double[]> at = place.degrees(l.station(), l.left(), l.out());
        Instant noted = l.noted();
        csv.writeRecord(
            CsvText.safe(l.id()),
            l.kind().name().toLowerCase(Locale.ROOT),
            CsvText.safe(l.label()),
            Double.toString(l.station()),
            l.left() ? "left" : "right",
            Double.toString(l.out()),
            Double.toString(l.height()),
            l.permanence().name().toLowerCase(Locale.ROOT),
            l.readable() ? "yes" : "no",
            noted == null ? "" : noted.toString(),
            CsvText.safe(l.corner()),
            CsvText.safe(l.note()),
            at.map(d -> Double.toString(d[0])).orElse(""),
            at.map(d -> Double.toString(d[1])).orElse(""),
            Double.toString(l.length()),
            seen(l.seen() == null ? null : l.seen().comes()),
            seen(l.seen() == null ? null : l.seen().leaves()));
      }
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return out.toString().getBytes(StandardCharsets.UTF_8);
  }

  private static String seen(@Nullable Double station) {
    return station == null ? "" : Double.toString(station);
  }

  /**
   * Reads a file. Rows without an id get one made of the row's number and the prefix.
   *
   * @throws Refusal with row and column
   */
  public static List<Landmark> read(
      byte[] content, Centreline road, @Nullable LocalPlane plane, String prefix) {
    String text = new String(content, StandardCharsets.UTF_8);
    if (text.startsWith("\uFEFF")) {
      text = text.substring(1);
    }
    SurveyPlace place = new SurveyPlace(road, plane);
    List<Landmark> landmarks = new ArrayList<>();
    try (CsvReader<NamedCsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(separator(text))
            .allowMissingFields(true)
            .allowExtraFields(true)
            .ofNamedCsvRecord(text)) {
      for (NamedCsvRecord row : csv) {
        if (landmarks.size() >= MOST) {
          throw Refusal.of("refusal.survey.file_holds_more_landmarks", Value.figure(MOST, 0));
        }
        landmarks.add(new Row(row, landmarks.size() + 2, road, place).landmark(prefix));
      }
    } catch (CsvParseException e) {
      throw Refusal.of("refusal.survey.file_not_table", Value.own(String.valueOf(e.getMessage())));
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    if (landmarks.isEmpty()) {
      throw Refusal.of(
              "refusal.survey.file_holds_no_landmarks", Value.own(String.join(", ", COLUMNS)))
          .at(Where.row(1));
    }
    return List.copyOf(landmarks);
  }

  private static char separator(String text) {
    String head = text.lines().findFirst().orElse("");
    return head.chars().filter(c -> c == ';').count() > head.chars().filter(c -> c == ',').count()
        ? ';'
        : ',';
  }

  private record Row(NamedCsvRecord fields, int number, Centreline road, SurveyPlace place) {
    Landmark landmark(String prefix) {
      LandmarkKind kind = one(LandmarkKind.class, "kind", null);
      String id = text("id");
      double station;
      boolean left = !text("side").equalsIgnoreCase("right");
      double out = number("out_m", kind.usualOut());
      if (!text("station_m").isEmpty()) {
        station = number("station_m", 0);
      } else {
        SurveyPlace.Beside beside = beside();
        station = beside.station();
        left = beside.left();
        out = beside.out();
      }
      return new Landmark(
          id.isEmpty() ? prefix + number : id,
          kind,
          text("label"),
          station,
          left,
          text("corner"),
          out,
          number("height_m", kind.usualHeight()),
          one(Landmark.Permanence.class, "permanence", kind.usualPermanence()),
          !text("readable").equalsIgnoreCase("no"),
          noted(),
          text("note"),
          "",
          number("length_m", 0),
          seen());
    }

    private SurveyPlace.Beside beside() {
      if (text("longitude").isEmpty() || text("latitude").isEmpty()) {
        throw problem("refusal.survey.no_place", "station_m");
      }
      double longitude = number("longitude", 0);
      double latitude = number("latitude", 0);
      if (Math.abs(latitude) > 90 || Math.abs(longitude) > 180) {
        throw problem("refusal.survey.lies_off_earth", "longitude, latitude");
      }
      SurveyPlace.Beside beside =
          place
              .beside(longitude, latitude)
              .orElseThrow(
                  () ->
                      problem("refusal.survey.gives_degrees_but_circuits", "longitude, latitude"));
      if (Math.abs(beside.out()) > 500) {
        throw problem(
            "refusal.survey.lies_from_road",
            "longitude, latitude",
            Value.length(Math.abs(beside.out())));
      }
      return beside;
    }

    private String text(String column) {
      return CsvText.plain(fields.findField(column).orElse("").strip());
    }

    private double number(String column, double otherwise) {
      String text = text(column);
      if (text.isEmpty()) {
        return otherwise;
      }
      try {
        double value = Double.parseDouble(text.replace(',', '.'));
        if (Double.isFinite(value)) {
          return value;
        }
      } catch (NumberFormatException e) {
        // Said below, with the place.
      }
      throw problem("refusal.survey.no_number", column, Value.own(text));
    }

    private Landmark.@Nullable Seen seen() {
      boolean comes = !text("comes_into_view_m").isEmpty();
      boolean leaves = !text("leaves_view_m").isEmpty();
      return comes || leaves
          ? new Landmark.Seen(
              comes ? Double.valueOf(number("comes_into_view_m", 0)) : null,
              leaves ? Double.valueOf(number("leaves_view_m", 0)) : null)
          : null;
    }

    private @Nullable Instant noted() {
      String text = text("noted");
      try {
        return text.isEmpty() ? null : Instant.parse(text);
      } catch (DateTimeParseException e) {
        throw problem("refusal.survey.no_time", "noted", Value.own(text));
      }
    }

    private <E extends Enum<E>> E one(Class<E> type, String column, @Nullable E otherwise) {
      String text = text(column);
      if (text.isEmpty() && otherwise != null) {
        return otherwise;
      }
      for (E value : type.getEnumConstants()) {
        if (value.name().equalsIgnoreCase(text)) {
          return value;
        }
      }
      String all =
          Arrays.stream(type.getEnumConstants())
              .map(v -> v.name().toLowerCase(Locale.ROOT))
              .collect(Collectors.joining(", "));
      throw problem("refusal.survey.not_known", column, Value.own(text), Value.own(all));
    }

    private Refusal problem(String key, String column, Value... values) {
      return Refusal.of(key, values).at(Where.cell(number, column));
    }
  }
}
