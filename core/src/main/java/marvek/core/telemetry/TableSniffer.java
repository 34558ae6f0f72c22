package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Value;

/**
 * Finds out how a table of text is to be read: delimiter, decimal mark, row of names, row of units;
 * {@link Columns} says what each column holds.
 */
final class TableSniffer {
  static final int MOST_COLUMNS = 400;
  private static final int ROWS = 80;
  private static final char[] DELIMITERS = {';', '\t', ',', '|', ' '};

  private TableSniffer() {}

  static Mapping sniff(String head) {
    List<String> all = head.lines().toList();
    List<String> lines = all.subList(0, Math.min(ROWS, all.size()));
    if (head.length() > 200_000 && lines.size() < 3) {
      throw Refusal.of(
              "refusal.telemetry.rows_file_longer_recordings", Value.figure(MOST_COLUMNS, 0))
          .at(Where.row(1));
    }
    // The last line may have been cut off where the look ended.
    List<String> whole = lines.size() > 3 ? lines.subList(0, lines.size() - 1) : lines;
    char delimiter = delimiter(whole);
    List<String[]> rows = whole.stream().map(l -> cells(l, delimiter)).toList();
    boolean comma = delimiter != ',' && decimalComma(rows);
    int first = firstNumeric(rows, comma);
    if (first < 0) {
      throw Refusal.of("refusal.telemetry.no_rows_numbers_were");
    }
    int columns = rows.get(first).length;
    if (columns > MOST_COLUMNS) {
      throw Refusal.of(
              "refusal.telemetry.table_columns",
              Value.figure(columns, 0),
              Value.figure(MOST_COLUMNS, 0))
          .at(Where.row((first + 1)));
    }
    int header = header(rows, first, comma);
    String[] names = header < 0 ? new String[0] : rows.get(header);
    String[] units = header >= 0 && first - header > 1 ? rows.get(header + 1) : new String[0];
    List<String[]> values =
        all.subList(first, Math.max(first + 1, all.size() - 1)).stream()
            .map(l -> cells(l, delimiter))
            .toList();
    return new Mapping(
        Mapping.Format.TABLE,
        delimiter,
        comma,
        header + 1,
        first + 1,
        Columns.of(columns, names, units, values, comma));
  }

  static char delimiter(List<String> lines) {
    char best = ',';
    int most = -1;
    for (char d : DELIMITERS) {
      int[] counts =
          lines.stream().mapToInt(l -> cells(l, d).length - 1).filter(c -> c > 0).toArray();
      int modal = 0;
      for (int c : counts) {
        int same = (int) Arrays.stream(counts).filter(k -> k == c).count();
        modal = Math.max(modal, same);
      }
      if (modal > most) {
        most = modal;
        best = d;
      }
    }
    return best;
  }

  /** Cells of a line; quotes keep delimiters inside. */
  static String[] cells(String line, char delimiter) {
    List<String> out = new ArrayList<>();
    StringBuilder cell = new StringBuilder();
    boolean quoted = false;
    for (int i = 0; i < line.length(); i++) {
      char ch = line.charAt(i);
      if (ch == '"') {
        quoted = !quoted;
      } else if (ch == delimiter && !quoted) {
        out.add(cell.toString());
        cell.setLength(0);
      } else {
        cell.append(ch);
      }
    }
    out.add(cell.toString());
    return out.toArray(String[]::new);
  }

  private static boolean decimalComma(List<String[]> rows) {
    int commas = 0;
    int points = 0;
    for (String[] row : rows) {
      for (String cell : row) {
        String c = cell.strip();
        if (c.matches("[-+]?\\d+,\\d+([eE][-+]?\\d+)?")) {
          commas++;
        } else if (c.matches("[-+]?\\d+\\.\\d+([eE][-+]?\\d+)?")) {
          points++;
        }
      }
    }
    return commas > points;
  }

  private static boolean numeric(String[] row, boolean comma) {
    int numbers = 0;
    int words = 0;
    int empty = 0;
    for (String cell : row) {
      String c = cell.strip();
      if (c.isEmpty() || Numbers.missing(c)) {
        empty++;
        continue;
      }
      if (!Double.isNaN(Numbers.time(c, comma))) {
        numbers++;
      } else {
        words++;
      }
    }
    return numbers + Math.min(1, empty) >= 2 && numbers >= 1 && numbers > 2 * words;
  }

  /** The first of at least two rows of numbers with as many columns. */
  private static int firstNumeric(List<String[]> rows, boolean comma) {
    for (int i = 0; i < rows.size(); i++) {
      boolean next =
          i + 1 >= rows.size()
              || (numeric(rows.get(i + 1), comma) && rows.get(i + 1).length == rows.get(i).length);
      if (numeric(rows.get(i), comma) && rows.get(i).length >= 2 && next) {
        return i;
      }
    }
    return -1;
  }

  /**
   * The row of names above the numbers: of the three rows there the one in which most columns are
   * known by name, else the one next to the numbers that is no row of units.
   */
  private static int header(List<String[]> rows, int first, boolean comma) {
    int columns = rows.get(first).length;
    int best = -1;
    int most = 0;
    int plain = -1;
    for (int i = first - 1; i >= 0 && i >= first - 3; i--) {
      if (rows.get(i).length < columns || numeric(rows.get(i), comma)) {
        continue;
      }
      // What stands beyond the columns names nothing.
      String[] row = Arrays.copyOf(rows.get(i), columns);
      int known = 0;
      int units = 0;
      int filled = 0;
      for (String cell : row) {
        known += Columns.known(cell) ? 1 : 0;
        units += Columns.unit(cell) != null ? 1 : 0;
        filled += cell.isBlank() ? 0 : 1;
      }
      if (known > most) {
        most = known;
        best = i;
      }
      boolean ofUnits = 2 * units >= filled;
      plain = plain < 0 || !ofUnits && i == plain - 1 && unitsIn(rows.get(plain)) ? i : plain;
    }
    return best >= 0 ? best : plain;
  }

  private static boolean unitsIn(String[] row) {
    long units = Arrays.stream(row).filter(c -> Columns.unit(c) != null).count();
    long filled = Arrays.stream(row).filter(c -> !c.isBlank()).count();
    return units > 0 && 2 * units >= filled;
  }
}
