package marvek.core.reference;

import java.util.Objects;
import marvek.core.circuit.Corner;
import marvek.core.units.Display;

/**
 * How a driver is spoken to.
 *
 * @param units to speak in
 * @param call what a corner is called by
 */
public record Speech(Display units, Call call) {
  /** Metres, km/h and numbers. */
  public static final Speech PLAIN = new Speech(Display.METRIC, Call.NUMBERS);

  public Speech {
    Objects.requireNonNull(units, "units");
    Objects.requireNonNull(call, "call");
  }

  /** What a corner is called by. */
  public enum Call {
    NUMBERS,
    NAMES,
    BOTH
  }

  /** What a corner is called; the number where it has no name. */
  public String corner(Corner corner) {
    String name = corner.name().strip();
    if (name.isEmpty() || call == Call.NUMBERS) {
      return corner.number();
    }
    return call == Call.NAMES ? name : corner.number() + " " + name;
  }
}
