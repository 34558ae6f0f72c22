package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds out how a table of text is to be read: delimiter, decimal mark, row of names, row of units,
 * and what each column holds.
 */
final class TableSniffer {
  static final int MOST_COLUMNS = 400;
  private static final int ROWS = 80;
  private static final char[] DELIMITERS = {';', '\t', ',', '|', ' '};

  private static final Map<Channel, List<String>> NAMES =
      Map.ofEntries(
          Map.entry(
              Channel.TIME,
              List.of("time", "t", "zeit", "tempo", "temps", "timestamp", "clock", "elapsed")),
          Map.entry(
              Channel.DISTANCE,
              List.of(
                  "distance", "dist", "weg", "strecke", "distancia", "odometer", "lapdistance")),
          Map.entry(
              Channel.SPEED,
              List.of(
                  "speed",
                  "velocity",
                  "v",
                  "geschwindigkeit",
                  "velocidade",
                  "vitesse",
                  "tempo",
                  "gpsspeed",
                  "groundspeed")),
          Map.entry(
              Channel.LATITUDE, List.of("latitude", "lat", "gpslatitude", "gpslat", "breite")),
          Map.entry(
              Channel.LONGITUDE,
              List.of("longitude", "lon", "lng", "long", "gpslongitude", "gpslon", "laenge")),
          Map.entry(Channel.EAST, List.of("x", "east", "easting", "posx")),
          Map.entry(Channel.NORTH, List.of("y", "north", "northing", "posy")),
          Map.entry(
              Channel.HEIGHT, List.of("height", "altitude", "alt", "z", "elevation", "hoehe")),
          Map.entry(
              Channel.BRAKE,
              List.of(
                  "brake",
                  "brakepressure",
                  "bremse",
                  "bremsdruck",
                  "freio",
                  "frein",
                  "brakepedal")),
          Map.entry(
              Channel.FRONT_BRAKE,
              List.of("frontbrake", "brakefront", "brakepressurefront", "pbrakefront", "pbrakef")),
          Map.entry(
              Channel.REAR_BRAKE,
              List.of("rearbrake", "brakerear", "brakepressurerear", "pbrakerear", "pbraker")),
          Map.entry(
              Channel.THROTTLE,
              List.of(
                  "throttle",
                  "gas",
                  "accelerator",
                  "throttlepos",
                  "throttleposition",
                  "gaspedal",
                  "acelerador",
                  "tps",
                  "pedal")),
          Map.entry(
              Channel.STEERING,
              List.of(
                  "steering",
                  "steer",
                  "steeringangle",
                  "steerangle",
                  "lenkwinkel",
                  "lenkung",
                  "volante",
                  "direcao")),
          Map.entry(Channel.GEAR, List.of("gear", "gang", "marcha", "rapport", "gearposition")),
          Map.entry(
              Channel.REVS,
              List.of("revs", "rpm", "enginespeed", "drehzahl", "rotacao", "enginerpm", "regime")),
          Map.entry(
              Channel.ALONG,
              List.of(
                  "along",
                  "ax",
                  "accx",
                  "along g",
                  "longacc",
                  "acclong",
                  "longitudinal",
                  "longitudinalacceleration",
                  "glong",
                  "laengsbeschleunigung")),
          Map.entry(
              Channel.ACROSS,
              List.of(
                  "across",
                  "ay",
                  "accy",
                  "latacc",
                  "acclat",
                  "lateral",
                  "lateralacceleration",
                  "glat",
                  "querbeschleunigung")),
          Map.entry(
              Channel.VERTICAL,
              List.of("az", "accz", "vertical", "verticalacceleration", "gvert", "up")),
          Map.entry(
              Channel.LEAN, List.of("lean", "leanangle", "roll", "schraeglage", "inclinacao")),
          Map.entry(
              Channel.WHEEL_FRONT,
              List.of(
                  "wheelfront", "wheelspeedfront", "frontwheelspeed", "wheelfl", "wheelspeedfl")),
          Map.entry(
              Channel.WHEEL_REAR,
              List.of("wheelrear", "wheelspeedrear", "rearwheelspeed", "wheelrl", "wheelspeedrl")),
          Map.entry(Channel.LAP, List.of("lap", "lapnumber", "runde", "volta", "tour", "laps")));

  private static final Map<String, Unit> UNITS =
      Map.ofEntries(
          Map.entry("s", Unit.SECOND),
          Map.entry("sec", Unit.SECOND),
          Map.entry("ms", Unit.MILLISECOND),
          Map.entry("m", Unit.METRE),
          Map.entry("km", Unit.KILOMETRE),
          Map.entry("ft", Unit.FOOT),
          Map.entry("mi", Unit.MILE),
          Map.entry("m/s", Unit.METRE_PER_SECOND),
          Map.entry("mps", Unit.METRE_PER_SECOND),
          Map.entry("km/h", Unit.KM_PER_HOUR),
          Map.entry("kmh", Unit.KM_PER_HOUR),
          Map.entry("kph", Unit.KM_PER_HOUR),
          Map.entry("mph", Unit.MILE_PER_HOUR),
          Map.entry("kn", Unit.KNOT),
          Map.entry("kt", Unit.KNOT),
          Map.entry("knots", Unit.KNOT),
          Map.entry("rad", Unit.RADIAN),
          Map.entry("deg", Unit.DEGREE),
          Map.entry("°", Unit.DEGREE),
          Map.entry("grad", Unit.DEGREE),
          Map.entry("%", Unit.PERCENT),
          Map.entry("pct", Unit.PERCENT),
          Map.entry("bar", Unit.BAR),
          Map.entry("psi", Unit.PSI),
          Map.entry("kpa", Unit.KILOPASCAL),
          Map.entry("rpm", Unit.PER_MINUTE),
          Map.entry("1/min", Unit.PER_MINUTE),
          Map.entry("u/min", Unit.PER_MINUTE),
          Map.entry("g", Unit.STANDARD_GRAVITY),
          Map.entry("m/s2", Unit.METRE_PER_SECOND_2),
          Map.entry("m/s²", Unit.METRE_PER_SECOND_2),
          Map.entry("m/s^2", Unit.METRE_PER_SECOND_2),
          Map.entry("ms2", Unit.METRE_PER_SECOND_2));

  private TableSniffer() {}

  static Mapping sniff(String head) {
    List<String> all = head.lines().toList();
    List<String> lines = all.subList(0, Math.min(ROWS, all.size()));
    if (head.length() > 200_000 && lines.size() < 3) {
      throw new TelemetryProblem(
          "The rows of this file are longer than a recording's.",
          "row 1",
          "Give a table of at most " + MOST_COLUMNS + " columns.");
    }
    // The last line may have been cut off where the look ended.
    List<String> whole = lines.size() > 3 ? lines.subList(0, lines.size() - 1) : lines;
    char delimiter = delimiter(whole);
    List<String[]> rows = whole.stream().map(l -> cells(l, delimiter)).toList();
    boolean comma = delimiter != ',' && decimalComma(rows);
    int first = firstNumeric(rows, comma);
    if (first < 0) {
      throw new TelemetryProblem(
          "No rows of numbers were found.",
          null,
          "Give a table with one row a sample, GPX or NMEA 0183; save a spreadsheet as CSV.");
    }
    int columns = rows.get(first).length;
    if (columns > MOST_COLUMNS) {
      throw new TelemetryProblem(
          "The table has " + columns + " columns.",
          "row " + (first + 1),
          "Give at most " + MOST_COLUMNS + "; leave out what is not needed.");
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
        columns(columns, names, units, values, comma));
  }

  private static List<Mapping.Column> columns(
      int count, String[] names, String[] units, List<String[]> values, boolean comma) {
    List<Mapping.Column> out = new ArrayList<>();
    Set<Channel> taken = EnumSet.noneOf(Channel.class);
    for (int i = 0; i < count; i++) {
      String name = i < names.length ? names[i].strip() : "";
      Unit unit = unitIn(name);
      if (unit == null && i < units.length) {
        unit = UNITS.get(units[i].strip().replaceAll("[\\[\\]()]", "").toLowerCase(Locale.ROOT));
      }
      Channel channel = name.isEmpty() ? null : channel(name, unit);
      if (channel != null && taken.contains(channel)) {
        channel = null;
      }
      if (channel != null) {
        taken.add(channel);
      }
      boolean said = channel != null && unit != null && channel.takes(unit);
      Unit told = channel == null ? null : said ? unit : guess(channel, column(values, i), comma);
      out.add(
          new Mapping.Column(
              i,
              name.isEmpty() ? "column " + (i + 1) : name,
              channel,
              told,
              channel != null && !said));
    }
    return out;
  }

  private static List<String> column(List<String[]> rows, int i) {
    return rows.stream().filter(r -> i < r.length).map(r -> r[i].strip()).toList();
  }

  /** What a column is called, told from its name without its unit. */
  static @Nullable Channel channel(String header, @Nullable Unit unit) {
    String name = bare(header, true);
    // A unit may also be all that the name says, as in engine rpm.
    String whole = bare(header, false);
    Channel best = null;
    int length = 0;
    for (Map.Entry<Channel, List<String>> e : NAMES.entrySet()) {
      for (String word : e.getValue()) {
        String known = word.replace(" ", "");
        boolean same = name.equals(known) || whole.equals(known);
        boolean within =
            known.length() >= 4 && name.contains(known)
                || known.equals("rpm") && whole.endsWith(known);
        int rank = same ? 1000 + known.length() : within ? known.length() : 0;
        boolean fits = unit == null || e.getKey().takes(unit);
        if (rank > length && fits) {
          best = e.getKey();
          length = rank;
        }
      }
    }
    return best;
  }

  private static String bare(String header, boolean withoutUnit) {
    String name = header.toLowerCase(Locale.ROOT).strip();
    name = name.replaceAll("[\\[(].*?[\\])]", "");
    name =
        name.replace("ä", "ae")
            .replace("ö", "oe")
            .replace("ü", "ue")
            .replace("ç", "c")
            .replace("ã", "a");
    String[] words = name.split("[\\s_./:-]+");
    // A unit at the end of a name, as in speed_kmh or speed km/h.
    int last = words.length;
    while (withoutUnit && last > 1 && UNITS.containsKey(words[last - 1])) {
      last--;
    }
    if (withoutUnit && last > 2 && words[last - 1].equals("h") && words[last - 2].equals("km")) {
      last -= 2;
    }
    return String.join("", Arrays.copyOf(words, last)).replaceAll("[^a-z0-9]", "");
  }

  private static @Nullable Unit unitIn(String header) {
    String name = header.toLowerCase(Locale.ROOT);
    java.util.regex.Matcher brackets =
        java.util.regex.Pattern.compile("[\\[(]\\s*(.*?)\\s*[\\])]").matcher(name);
    while (brackets.find()) {
      Unit unit = UNITS.get(brackets.group(1));
      if (unit != null) {
        return unit;
      }
    }
    String[] words = name.strip().split("[\\s_,]+");
    return words.length > 1 ? UNITS.get(words[words.length - 1]) : null;
  }

  /** A unit told from the size of the values, null where they could be two things. */
  private static @Nullable Unit guess(Channel channel, List<String> values, boolean comma) {
    double[] numbers =
        values.stream()
            .mapToDouble(v -> Numbers.parse(v, comma))
            .filter(v -> !Double.isNaN(v))
            .toArray();
    double most = Arrays.stream(numbers).map(Math::abs).max().orElse(0);
    return switch (channel) {
      case TIME -> time(values, numbers);
      case GEAR, LAP -> Unit.NONE;
      case REVS -> Unit.PER_MINUTE;
      case LATITUDE, LONGITUDE -> Unit.DEGREE;
      case EAST, NORTH, HEIGHT, DISTANCE -> Unit.METRE;
      // What they are is settled when the whole file has been seen; see Cleaner.
      case SPEED, WHEEL_FRONT, WHEEL_REAR -> Unit.KM_PER_HOUR;
      case BRAKE, FRONT_BRAKE, REAR_BRAKE ->
          most <= 1.5 ? Unit.SHARE : most <= 105 ? Unit.PERCENT : Unit.BAR;
      case THROTTLE -> most <= 1.5 ? Unit.SHARE : Unit.PERCENT;
      case STEERING -> most > 12 ? Unit.DEGREE : Unit.RADIAN;
      case LEAN -> most > 1.6 ? Unit.DEGREE : Unit.RADIAN;
      case ALONG, ACROSS, VERTICAL -> most > 4.5 ? Unit.METRE_PER_SECOND_2 : Unit.STANDARD_GRAVITY;
    };
  }

  private static Unit time(List<String> values, double[] numbers) {
    if (values.stream().anyMatch(v -> v.contains(":"))) {
      return Unit.CLOCK;
    }
    if (numbers.length < 3) {
      return Unit.SECOND;
    }
    double step = (numbers[numbers.length - 1] - numbers[0]) / (numbers.length - 1);
    boolean integers = Arrays.stream(numbers).allMatch(v -> v == Math.rint(v));
    // One sample a second is the slowest that is read, so integer steps above it count thousandths.
    return integers && step > 1.5 ? Unit.MILLISECOND : Unit.SECOND;
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
    for (String cell : row) {
      String c = cell.strip();
      if (c.isEmpty()) {
        continue;
      }
      if (!Double.isNaN(Numbers.time(c, comma))) {
        numbers++;
      } else {
        words++;
      }
    }
    return numbers >= 2 && numbers > 2 * words;
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

  private static int header(List<String[]> rows, int first, boolean comma) {
    int columns = rows.get(first).length;
    int best = -1;
    for (int i = first - 1; i >= 0 && i >= first - 3; i--) {
      String[] row = rows.get(i);
      if (row.length < columns || numeric(row, comma)) {
        continue;
      }
      boolean units =
          Arrays.stream(row)
              .map(c -> c.strip().replaceAll("[\\[\\]()]", "").toLowerCase(Locale.ROOT))
              .filter(c -> !c.isEmpty())
              .allMatch(c -> UNITS.containsKey(c) || c.equals("-"));
      best = i;
      if (!units) {
        return i;
      }
    }
    return best;
  }
}
