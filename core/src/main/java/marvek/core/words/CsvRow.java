package marvek.core.words;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Value;
import marvek.core.units.CsvText;
import org.jspecify.annotations.Nullable;

/** A row of a table that a driver brings; what is wrong in it is told with its row and column. */
record CsvRow(NamedCsvRecord row) {
  private static final String MARK = "\uFEFF";

  /** The columns that a table begins with. */
  static List<String> columns(String text) {
    String header = plain(text).lines().findFirst().orElse("");
    return Arrays.stream(header.split(String.valueOf(separator(header))))
        .map(c -> c.strip().toLowerCase(Locale.ROOT))
        .toList();
  }

  /**
   * Reads every row.
   *
   * @param row what one row of the table is
   */
  static void each(String text, String row, Consumer<CsvRow> taker) {
    String table = plain(text);
    char separator = separator(table.lines().findFirst().orElse(""));
    int rows = 0;
    try (CsvReader<NamedCsvRecord> csv =
        CsvReader.builder().fieldSeparator(separator).ofNamedCsvRecord(table)) {
      for (NamedCsvRecord record : csv) {
        taker.accept(new CsvRow(record));
        rows++;
      }
    } catch (CsvParseException | IOException e) {
      throw Refusal.of("refusal.words.csv_cannot_read", Value.own(String.valueOf(e.getMessage())));
    }
    if (rows == 0) {
      throw Refusal.of("refusal.words.no_rows_file", Value.own(row));
    }
  }

  /** Without the mark that some spreadsheets put before everything else. */
  private static String plain(String text) {
    return text.startsWith(MARK) ? text.substring(1) : text;
  }

  private static char separator(String header) {
    return header.contains(",") ? ',' : header.contains(";") ? ';' : '\t';
  }

  /** Numbers of the corners by their ids. */
  static Map<String, String> numbers(List<Corner> corners) {
    return corners.stream()
        .collect(Collectors.toMap(Corner::id, Corner::number, (a, b) -> a, LinkedHashMap::new));
  }

  /** The corner that a row is of. */
  Corner corner(List<Corner> corners) {
    Map<String, Corner> byNumber =
        corners.stream()
            .collect(
                Collectors.toMap(
                    Corner::number, Function.identity(), (a, b) -> a, LinkedHashMap::new));
    Corner corner = byNumber.get(text("corner"));
    if (corner == null) {
      throw problem(
          "corner",
          "refusal.entry.no_corner_numbered",
          Value.own(text("corner")),
          Value.own(String.join(", ", byNumber.keySet().stream().sorted().toList())));
    }
    return corner;
  }

  boolean has(String column) {
    return row.findField(column).isPresent();
  }

  String text(String column) {
    return row.findField(column).map(String::strip).map(CsvText::plain).orElse("");
  }

  /** A number that must be there. */
  double number(String column, double least, double most) {
    Double value = perhaps(column, least, most);
    if (value == null) {
      throw problem(column, "refusal.entry.number_missing");
    }
    return value;
  }

  /** A number, or null where the field is empty. */
  @Nullable Double perhaps(String column, double least, double most) {
    String field = text(column);
    if (field.isEmpty()) {
      return null;
    }
    double value;
    try {
      value = Double.parseDouble(field);
    } catch (NumberFormatException e) {
      throw problem(column, "refusal.entry.not_number", Value.own(field));
    }
    if (!(value >= least && value <= most)) {
      throw problem(
          column,
          "refusal.survey.out_range",
          Value.own(field),
          Value.figure(least, 0),
          Value.figure(most, 0));
    }
    return value;
  }

  <E extends Enum<E>> E word(String column, Class<E> type) {
    return word(column, text(column), type);
  }

  <E extends Enum<E>> E word(String column, String field, Class<E> type) {
    return Arrays.stream(type.getEnumConstants())
        .filter(v -> v.name().equalsIgnoreCase(field))
        .findFirst()
        .orElseThrow(
            () ->
                problem(
                    column,
                    "refusal.entry.not_known_here",
                    Value.own(field),
                    Value.own(
                        Arrays.stream(type.getEnumConstants())
                            .map(CsvRow::word)
                            .collect(Collectors.joining(", ")))));
  }

  /** How a value is written in a table. */
  static String word(Enum<?> value) {
    return value.name().toLowerCase(Locale.ROOT);
  }

  Refusal problem(String column, String key, Value... values) {
    return Refusal.of(key, values).at(Where.cell(row.getStartingLineNumber(), column));
  }
}
