package marvek.core.vehicle;

/** Density of dry air. Source: ICAO standard atmosphere (Doc 7488), troposphere. */
public final class AirDensity {
  private static final double GAS = 287.05287;
  private static final double SEA_TEMPERATURE = 288.15;
  private static final double SEA_PRESSURE = 101_325;
  private static final double LAPSE = 0.0065;
  private static final double EXPONENT = 5.255_88;
  private static final double EARTH_RADIUS = 6_356_766;

  private AirDensity() {}

  /** kg/m³ at a geometric altitude in metres (below 11 000) in the standard atmosphere. */
  public static double atAltitude(double altitude) {
    double geopotential = EARTH_RADIUS * altitude / (EARTH_RADIUS + altitude);
    double ratio = 1 - LAPSE * geopotential / SEA_TEMPERATURE;
    return of(SEA_PRESSURE * Math.pow(ratio, EXPONENT), SEA_TEMPERATURE * ratio);
  }

  /** kg/m³ from pressure in Pa and temperature in K. */
  public static double of(double pressure, double temperature) {
    return pressure / (GAS * temperature);
  }
}
