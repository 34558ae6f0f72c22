package marvek.core.telemetry;

import marvek.core.units.Units;

/** Units of recorded columns. Factors: NIST SP 811, appendix B. */
public enum Unit {
  NONE("", 1),
  SECOND("s", 1),
  MILLISECOND("ms", 1e-3),
  MICROSECOND("µs", 1e-6),
  NANOSECOND("ns", 1e-9),
  /** Hours, minutes and seconds, or a date with them. */
  CLOCK("clock", 1),
  METRE("m", 1),
  KILOMETRE("km", 1000),
  FOOT("ft", 0.3048),
  MILE("mi", 1609.344),
  METRE_PER_SECOND("m/s", 1),
  KM_PER_HOUR("km/h", 1 / 3.6),
  MILE_PER_HOUR("mph", 1609.344 / 3600),
  KNOT("kn", 1852.0 / 3600),
  RADIAN("rad", 1),
  DEGREE("°", Math.PI / 180),
  SHARE("0–1", 1),
  PERCENT("%", 0.01),
  BAR("bar", 1e5),
  PSI("psi", 6894.757),
  KILOPASCAL("kPa", 1000),
  PER_MINUTE("1/min", 1),
  METRE_PER_SECOND_2("m/s²", 1),
  STANDARD_GRAVITY("g", Units.G);

  private final String symbol;
  private final double factor;

  Unit(String symbol, double factor) {
    this.symbol = symbol;
    this.factor = factor;
  }

  /** How it is written, as in a column's head. */
  public String symbol() {
    return symbol;
  }

  /** What a value in this unit is multiplied with to be SI. */
  public double factor() {
    return factor;
  }
}
