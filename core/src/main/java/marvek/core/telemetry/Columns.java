package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What each column of a table holds and in which unit, told from its name, the row of units, and
 * where both are silent from the values.
 */
final class Columns {
  private static final Map<Channel, List<String>> NAMES = names();

  private static final Map<String, Unit> UNITS = units();

  private static Map<Channel, List<String>> names() {
    Map<Channel, List<String>> out = new EnumMap<>(Channel.class);
    out.put(
        Channel.TIME,
        List.of("time", "t", "zeit", "tempo", "temps", "timestamp", "clock", "elapsed"));
    out.put(
        Channel.DISTANCE,
        List.of("distance", "dist", "weg", "strecke", "distancia", "odometer", "lapdistance"));
    out.put(
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
            "groundspeed"));
    out.put(Channel.LATITUDE, List.of("latitude", "lat", "gpslatitude", "gpslat", "breite"));
    out.put(
        Channel.LONGITUDE,
        List.of("longitude", "lon", "lng", "long", "gpslongitude", "gpslon", "laenge"));
    out.put(Channel.EAST, List.of("x", "east", "easting", "posx"));
    out.put(Channel.NORTH, List.of("y", "north", "northing", "posy"));
    out.put(Channel.HEIGHT, List.of("height", "altitude", "alt", "z", "elevation", "hoehe"));
    out.put(
        Channel.BRAKE,
        List.of("brake", "brakepressure", "bremse", "bremsdruck", "freio", "frein", "brakepedal"));
    out.put(
        Channel.FRONT_BRAKE,
        List.of("frontbrake", "brakefront", "brakepressurefront", "pbrakefront", "pbrakef"));
    out.put(
        Channel.REAR_BRAKE,
        List.of("rearbrake", "brakerear", "brakepressurerear", "pbrakerear", "pbraker"));
    out.put(
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
            "pedal"));
    out.put(
        Channel.STEERING,
        List.of(
            "steering",
            "steer",
            "steeringangle",
            "steerangle",
            "lenkwinkel",
            "lenkung",
            "volante",
            "direcao"));
    out.put(Channel.GEAR, List.of("gear", "gang", "marcha", "rapport", "gearposition"));
    out.put(
        Channel.REVS,
        List.of("revs", "rpm", "enginespeed", "drehzahl", "rotacao", "enginerpm", "regime"));
    out.put(
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
            "laengsbeschleunigung"));
    out.put(
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
            "querbeschleunigung"));
    out.put(
        Channel.VERTICAL, List.of("az", "accz", "vertical", "verticalacceleration", "gvert", "up"));
    out.put(Channel.LEAN, List.of("lean", "leanangle", "roll", "schraeglage", "inclinacao"));
    out.put(
        Channel.WHEEL_FRONT,
        List.of("wheelfront", "wheelspeedfront", "frontwheelspeed", "wheelfl", "wheelspeedfl"));
    out.put(
        Channel.WHEEL_REAR,
        List.of("wheelrear", "wheelspeedrear", "rearwheelspeed", "wheelrl", "wheelspeedrl"));
    out.put(Channel.LAP, List.of("lap", "lapnumber", "runde", "volta", "tour", "laps"));
    return out;
  }

  private static Map<String, Unit> units() {
    Map<String, Unit> out = new LinkedHashMap<>();
    out.put("s", Unit.SECOND);
    out.put("sec", Unit.SECOND);
    out.put("ms", Unit.MILLISECOND);
    out.put("m", Unit.METRE);
    out.put("km", Unit.KILOMETRE);
    out.put("ft", Unit.FOOT);
    out.put("mi", Unit.MILE);
    out.put("m/s", Unit.METRE_PER_SECOND);
    out.put("mps", Unit.METRE_PER_SECOND);
    out.put("km/h", Unit.KM_PER_HOUR);
    out.put("kmh", Unit.KM_PER_HOUR);
    out.put("kph", Unit.KM_PER_HOUR);
    out.put("mph", Unit.MILE_PER_HOUR);
    out.put("kn", Unit.KNOT);
    out.put("kt", Unit.KNOT);
    out.put("knots", Unit.KNOT);
    out.put("rad", Unit.RADIAN);
    out.put("deg", Unit.DEGREE);
    out.put("°", Unit.DEGREE);
    out.put("grad", Unit.DEGREE);
    out.put("%", Unit.PERCENT);
    out.put("pct", Unit.PERCENT);
    out.put("bar", Unit.BAR);
    out.put("psi", Unit.PSI);
    out.put("kpa", Unit.KILOPASCAL);
    out.put("rpm", Unit.PER_MINUTE);
    out.put("1/min", Unit.PER_MINUTE);
    out.put("u/min", Unit.PER_MINUTE);
    out.put("g", Unit.STANDARD_GRAVITY);
    out.put("m/s2", Unit.METRE_PER_SECOND_2);
    out.put("m/s²", Unit.METRE_PER_SECOND_2);
    out.put("m/s^2", Unit.METRE_PER_SECOND_2);
    out.put("ms2", Unit.METRE_PER_SECOND_2);
    out.put("µs", Unit.MICROSECOND);
    out.put("us", Unit.MICROSECOND);
    out.put("ns", Unit.NANOSECOND);
    out.put("sek", Unit.SECOND);
    out.put("seconds", Unit.SECOND);
    out.put("hh:mm:ss", Unit.CLOCK);
    out.put("hh:mm:ss.sss", Unit.CLOCK);
    out.put("hh:mm:ss.s", Unit.CLOCK);
    out.put("hh:mm:ss.ss", Unit.CLOCK);
    out.put("h:m:s", Unit.CLOCK);
    out.put("mm:ss", Unit.CLOCK);
    out.put("mm:ss.sss", Unit.CLOCK);
    return out;
  }

  private Columns() {}

  /** What so many columns hold. */
  static List<Mapping.Column> of(
      int count, String[] names, String[] units, List<String[]> values, boolean comma) {
    List<Mapping.Column> out = new ArrayList<>();
    Set<Channel> taken = EnumSet.noneOf(Channel.class);
    for (int i = 0; i < count; i++) {
      String name = i < names.length ? names[i].strip() : "";
      Unit unit = unitIn(name);
      if (unit == null && i < units.length) {
        unit = unit(units[i]);
      }
      boolean other = unit == null && (strange(name) || i < units.length && says(units[i]));
      Channel channel = name.isEmpty() ? null : channel(name, unit, other);
      if (channel != null && TEMPO.equals(bare(name, true)) && unit == null) {
        channel = grows(column(values, i), comma) ? Channel.TIME : Channel.SPEED;
      }
      if (channel != null && taken.contains(channel)) {
        channel = null;
      }
      if (channel != null) {
        taken.add(channel);
      }
      boolean said = channel != null && unit != null && channel.takes(unit);
      if (channel == Channel.TIME && column(values, i).stream().anyMatch(v -> v.contains(":"))) {
        // Whatever the name says, what has colons is a clock.
        unit = Unit.CLOCK;
        said = true;
      }
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

  // Time in one language and speed in another.
  private static final String TEMPO = "tempo";
  private static final Pattern BRACKETS = Pattern.compile("[\\[(]\\s*(.*?)\\s*[\\])]");

  // Units of other sensors, where a name gives them in brackets; what else stands there is a
  // remark.
  private static final List<String> OTHER_UNITS =
      List.of(
          "°c", "°f", "c", "f", "k", "degc", "degf", "nm", "n·m", "n", "kn·m", "v", "mv", "a", "ma",
          "ah", "l", "ml", "l/h", "kg", "kg/h", "w", "kw", "hp", "ps", "hz", "khz", "lambda", "λ",
          "ppm", "mm", "cm", "hpa", "mbar", "ohm");
  // Names with one of these are of something else about a pedal or a wheel.
  private static final List<String> ABOUT =
      List.of("temp", "bias", "balance", "volt", "wear", "target", "fluid");

  /** Whether a name has a unit in brackets that no channel comes in, as °C or Nm. */
  private static boolean strange(String name) {
    Matcher brackets = BRACKETS.matcher(name.toLowerCase(Locale.ROOT));
    boolean strange = false;
    while (brackets.find()) {
      strange |= OTHER_UNITS.contains(brackets.group(1).strip());
    }
    return strange;
  }

  private static boolean says(String unit) {
    String bare = unit.strip().replaceAll("[\\[\\]()]", "");
    return !bare.isEmpty() && !bare.matches("[-–—]+|none|#") && unit(bare) == null;
  }

  /** Whether values never fall and do rise. */
  private static boolean grows(List<String> values, boolean comma) {
    double last = Double.NaN;
    double first = Double.NaN;
    for (String text : values) {
      double v = Numbers.time(text, comma);
      if (Double.isNaN(v)) {
        continue;
      }
      if (v < last) {
        return false;
      }
      first = Double.isNaN(first) ? v : first;
      last = v;
    }
    return last > first;
  }

  /** Whether a name says what its column holds. */
  static boolean known(String name) {
    return channel(name.strip(), unitIn(name.strip()), false) != null;
  }

  /**
   * What a column is called.
   *
   * @param other whether it has a unit that is not known: then only a name that says no more than
   *     the channel's is one
   */
  private static @Nullable Channel channel(String header, @Nullable Unit unit, boolean other) {
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
            !other
                && ABOUT.stream().noneMatch(a -> name.contains(a) && !known.contains(a))
                && (known.length() >= 4 && name.contains(known)
                    || known.equals("rpm") && whole.endsWith(known));
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
    Matcher brackets = BRACKETS.matcher(name);
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
    // One sample a second is the slowest that is read, so integer steps above it count thousandths,
    // and above a thousand of those less.
    return !integers || step <= 1.5
        ? Unit.SECOND
        : step <= 1500 ? Unit.MILLISECOND : step <= 1.5e6 ? Unit.MICROSECOND : Unit.NANOSECOND;
  }

  /** The unit that a cell names, null for none that is known. */
  static @Nullable Unit unit(String cell) {
    return UNITS.get(cell.strip().replaceAll("[\\[\\]()]", "").toLowerCase(Locale.ROOT));
  }
}
