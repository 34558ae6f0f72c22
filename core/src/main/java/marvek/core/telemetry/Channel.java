package marvek.core.telemetry;

import static marvek.core.telemetry.Unit.*;

import java.util.List;
import marvek.core.said.Said;

/** What a column of a recording may hold, with the units it may come in; the first is kept. */
public enum Channel {
  TIME(SECOND, MILLISECOND, MICROSECOND, NANOSECOND, CLOCK),
  DISTANCE(METRE, KILOMETRE, FOOT, MILE),
  SPEED(METRE_PER_SECOND, KM_PER_HOUR, MILE_PER_HOUR, KNOT),
  LATITUDE(DEGREE),
  LONGITUDE(DEGREE),
  EAST(METRE),
  NORTH(METRE),
  HEIGHT(METRE, FOOT),
  BRAKE(SHARE, PERCENT, BAR, PSI, KILOPASCAL),
  FRONT_BRAKE(SHARE, PERCENT, BAR, PSI, KILOPASCAL),
  REAR_BRAKE(SHARE, PERCENT, BAR, PSI, KILOPASCAL),
  THROTTLE(SHARE, PERCENT),
  STEERING(RADIAN, DEGREE),
  GEAR(NONE),
  REVS(PER_MINUTE),
  ALONG(METRE_PER_SECOND_2, STANDARD_GRAVITY),
  ACROSS(METRE_PER_SECOND_2, STANDARD_GRAVITY),
  VERTICAL(METRE_PER_SECOND_2, STANDARD_GRAVITY),
  LEAN(RADIAN, DEGREE),
  WHEEL_FRONT(METRE_PER_SECOND, KM_PER_HOUR, MILE_PER_HOUR),
  WHEEL_REAR(METRE_PER_SECOND, KM_PER_HOUR, MILE_PER_HOUR),
  LAP(NONE);

  private final List<Unit> units;

  Channel(Unit... units) {
    this.units = List.of(units);
  }

  /** What it is called. */
  public Said said() {
    return Said.of("channel." + name());
  }

  /** Units in which it may come. */
  public List<Unit> units() {
    return units;
  }

  boolean takes(Unit unit) {
    return units.contains(unit);
  }
}
