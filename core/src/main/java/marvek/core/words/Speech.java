package marvek.core.words;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import marvek.core.circuit.Corner;
import marvek.core.units.Display;

/**
 * How a driver is spoken to.
 *
 * @param units to speak in
 * @param call what a corner is called by
 * @param lap metres once round, so that a corner on the line is told right; endless where not known
 * @param words in which it is said
 * @param braked corners that are turned into on the brakes for another, by id with that one
 */
public record Speech(
    Display units, Call call, double lap, Catalogue words, Map<String, Corner> braked) {
  /** Metres, km/h and numbers. */
  public static final Speech PLAIN = new Speech(Display.METRIC, Call.NUMBERS);

  public Speech(Display units, Call call) {
    this(units, call, Double.POSITIVE_INFINITY, Catalogue.ENGLISH, Map.of());
  }

  public Speech {
    Objects.requireNonNull(units, "units");
    Objects.requireNonNull(call, "call");
    Objects.requireNonNull(words, "words");
    braked = Collections.unmodifiableMap(new LinkedHashMap<>(braked));
  }

  /** The same on a road. */
  public Speech on(double length) {
    return new Speech(units, call, length, words, braked);
  }

  /** The same of a lap that turns into corners on the brakes for others. */
  public Speech braked(Map<String, Corner> into) {
    return new Speech(units, call, lap, words, into);
  }

  /** The same in words of another catalogue. */
  public Speech in(Catalogue other) {
    return new Speech(units, call, lap, other, braked);
  }

  /** Metres from one station to another, the short way round. */
  double apart(double from, double to) {
    double by = to - from;
    return Math.abs(by) > lap / 2 ? by - Math.signum(by) * lap : by;
  }

  /** What a corner is called by. */
  public enum Call {
    NUMBERS,
    NAMES,
    BOTH
  }

  /** What a corner is called; the number where it has no name. */
  public String corner(Corner corner) {
    return corner(corner.number(), corner.name());
  }

  String corner(String number, String called) {
    String name = called.strip();
    if (name.isEmpty() || call == Call.NUMBERS) {
      return number;
    }
    return call == Call.NAMES ? name : number + " " + name;
  }
}
