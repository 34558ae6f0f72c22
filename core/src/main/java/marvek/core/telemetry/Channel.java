package marvek.core.telemetry;

import static marvek.core.telemetry.Unit.*;

import java.util.List;

/** What a column of a recording may hold, with the units it may come in; the first is kept. */
public enum Channel {
  TIME("time", SECOND, MILLISECOND, MICROSECOND, NANOSECOND, CLOCK),
  DISTANCE("distance", METRE, KILOMETRE, FOOT, MILE),
  SPEED("speed", METRE_PER_SECOND, KM_PER_HOUR, MILE_PER_HOUR, KNOT),
  LATITUDE("latitude", DEGREE),
  LONGITUDE("longitude", DEGREE),
  EAST("metres east", METRE),
  NORTH("metres north", METRE),
  HEIGHT("height", METRE, FOOT),
  BRAKE("brake", SHARE, PERCENT, BAR, PSI, KILOPASCAL),
  FRONT_BRAKE("front brake", SHARE, PERCENT, BAR, PSI, KILOPASCAL),
  REAR_BRAKE("rear brake", SHARE, PERCENT, BAR, PSI, KILOPASCAL),
  THROTTLE("throttle", SHARE, PERCENT),
  STEERING("steering", RADIAN, DEGREE),
  GEAR("gear", NONE),
  REVS("revs", PER_MINUTE),
  ALONG("acceleration along", METRE_PER_SECOND_2, STANDARD_GRAVITY),
  ACROSS("acceleration across", METRE_PER_SECOND_2, STANDARD_GRAVITY),
  VERTICAL("acceleration up", METRE_PER_SECOND_2, STANDARD_GRAVITY),
  LEAN("lean", RADIAN, DEGREE),
  WHEEL_FRONT("front wheel speed", METRE_PER_SECOND, KM_PER_HOUR, MILE_PER_HOUR),
  WHEEL_REAR("rear wheel speed", METRE_PER_SECOND, KM_PER_HOUR, MILE_PER_HOUR),
  LAP("lap number", NONE);

  private final String words;
  private final List<Unit> units;

  Channel(String words, Unit... units) {
    this.words = words;
    this.units = List.of(units);
  }

  public String words() {
    return words;
  }

  /** Units in which it may come. */
  public List<Unit> units() {
    return units;
  }

  boolean takes(Unit unit) {
    return units.contains(unit);
  }
}
