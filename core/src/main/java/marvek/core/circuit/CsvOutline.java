package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.NOT_A_NUMBER;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_LARGE;
import static marvek.core.circuit.OutlineProblem.Kind.UNREADABLE;

import de.siegmar.fastcsv.reader.CommentStrategy;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.CsvRecordHandler;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import marvek.core.refusal.Where;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** CSV: {@code x_m,y_m[,w_right_m,w_left_m][,z_m][,crossfall_deg]}, or {@code lon,lat} for x, y. */
final class CsvOutline {
  private static final List<List<String>> NAMES =
      List.of(
          List.of("x_m", "x", "lon", "longitude"),
          List.of("y_m", "y", "lat", "latitude"),
          List.of("w_right_m", "w_tr_right_m", "width_right_m"),
          List.of("w_left_m", "w_tr_left_m", "width_left_m"),
          List.of("z_m", "z", "ele", "height_m"),
          List.of("crossfall_deg"));

  // More cost the reader the square of their number, and no outline has them.
  private static final int MOST_FIELDS = 200;

  private CsvOutline() {}

  static Outline read(String text) {
    char delimiter = delimiter(text);
    List<String[]> rows = new ArrayList<>();
    List<Integer> numbers = new ArrayList<>();
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(delimiter)
            .commentStrategy(CommentStrategy.NONE)
            .skipEmptyLines(true)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .build(CsvRecordHandler.builder().maxFields(MOST_FIELDS).build(), text)) {
      for (CsvRecord row : csv) {
        if (rows.size() > OutlineFile.MOST_POINTS) {
          throw OutlineProblem.of(
              TOO_LARGE, "refusal.circuit.more_rows", Value.figure(OutlineFile.MOST_POINTS, 0));
        }
        rows.add(row.getFields().stream().map(String::strip).toArray(String[]::new));
        numbers.add((int) row.getStartingLineNumber());
      }
    } catch (CsvParseException | java.io.IOException e) {
      throw OutlineProblem.of(
          UNREADABLE, "refusal.circuit.csv_cannot_read", Value.own(String.valueOf(e.getMessage())));
    }
    int[] column = columns(rows);
    boolean header = column.length > 0;
    if (!header) {
      column = plainColumns(rows);
    }
    int from = header ? 1 : 0;
    boolean decimalComma = delimiter != ',';
    double[][] values = new double[NAMES.size()][];
    for (int c = 0; c < values.length; c++) {
      if (column[c] < 0) {
        continue;
      }
      values[c] = new double[rows.size() - from];
      for (int r = from; r < rows.size(); r++) {
        values[c][r - from] =
            number(rows.get(r), column[c], numbers.get(r), NAMES.get(c).get(0), decimalComma);
      }
    }
    boolean geographic = header && normal(rows.get(0)[column[0]]).startsWith("lon");
    double @Nullable [] crossfall = values[5];
    return new Outline(
        geographic,
        values[0],
        values[1],
        values[4],
        values[3] == null ? null : values[2],
        values[2] == null ? null : values[3],
        crossfall == null ? null : Arrays.stream(crossfall).map(Math::toRadians).toArray(),
        "row",
        numbers.subList(from, numbers.size()).stream().mapToInt(Integer::intValue).toArray());
  }

  private static char delimiter(String text) {
    String line = text.lines().filter(l -> !l.isBlank()).findFirst().orElse("");
    for (char candidate : new char[] {';', '\t', ','}) {
      if (line.indexOf(candidate) >= 0) {
        return candidate;
      }
    }
    throw OutlineProblem.of(
            OutlineProblem.Kind.UNKNOWN_FORMAT, "refusal.circuit.neither_geojson_gpx_nor")
        .at(Where.row(1));
  }

  /** The column of each name, -1 where it is missing; empty when the first row is no header. */
  private static int[] columns(List<String[]> rows) {
    String[] first = rows.isEmpty() ? new String[0] : rows.get(0);
    if (Arrays.stream(first).noneMatch(f -> f.matches(".*[A-Za-z_]{1}.*") && !isWordNumber(f))) {
      return new int[0];
    }
    int[] column = new int[NAMES.size()];
    Arrays.fill(column, -1);
    for (int i = 0; i < first.length; i++) {
      for (int c = 0; c < column.length; c++) {
        if (column[c] < 0 && NAMES.get(c).contains(normal(first[i]))) {
          column[c] = i;
        }
      }
    }
    if (column[0] < 0 || column[1] < 0) {
      throw OutlineProblem.of(
              UNREADABLE,
              "refusal.circuit.header_no_columns_x",
              Value.own(String.join(", ", first)))
          .at(Where.row(1));
    }
    return column;
  }

  private static int[] plainColumns(List<String[]> rows) {
    int width = rows.isEmpty() ? 0 : rows.get(0).length;
    if (width < 2) {
      throw OutlineProblem.of(UNREADABLE, "refusal.circuit.first_row_one_column").at(Where.row(1));
    }
    return new int[] {
      0, 1, width >= 4 ? 2 : -1, width >= 4 ? 3 : -1, width >= 5 ? 4 : -1, width >= 6 ? 5 : -1
    };
  }

  private static boolean isWordNumber(String field) {
    return field.matches("(?i)[+-]?(nan|inf(inity)?|[0-9.,]+e[+-]?[0-9]+)");
  }

  private static String normal(String name) {
    return name.replaceFirst("^#\\s*", "").strip().toLowerCase(Locale.ROOT);
  }

  private static double number(
      String[] row, int column, int line, String name, boolean decimalComma) {
    String field = column < row.length ? row[column] : "";
    try {
      return Double.parseDouble(decimalComma ? field.replace(',', '.') : field);
    } catch (NumberFormatException e) {
      throw (field.isEmpty()
              ? OutlineProblem.of(NOT_A_NUMBER, "refusal.circuit.column_empty", Value.own(name))
              : OutlineProblem.of(
                  NOT_A_NUMBER,
                  "refusal.circuit.column_no_number",
                  Value.own(shortened(field)),
                  Value.own(name)))
          .at(Where.cell(line, column + 1));
    }
  }

  private static String shortened(String field) {
    return field.length() > 30 ? field.substring(0, 30) + "…" : field;
  }
}
