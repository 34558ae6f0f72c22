package marvek.core.units;

/**
 * Factors between the units that drivers read and SI. Source: NIST SP 811 (2008), Appendix B; the
 * metric horsepower as 75 kgf·m/s.
 */
public final class Units {
  /** Standard gravity, m/s². */
  public static final double G = 9.80665;

  public static final double METRES_PER_MILE = 1609.344;
  public static final double METRES_PER_FOOT = 0.3048;
  public static final double METRES_PER_YARD = 0.9144;
  public static final double PASCALS_PER_PSI = 6894.757;
  public static final double PASCALS_PER_BAR = 1e5;
  public static final double WATTS_PER_PS = 735.49875;

  private Units() {}

  /** m/s to km/h. */
  public static double kmh(double metresPerSecond) {
    return metresPerSecond * 3.6;
  }

  /** km/h to m/s. */
  public static double fromKmh(double kmh) {
    return kmh / 3.6;
  }

  /** m/s to miles an hour. */
  public static double mph(double metresPerSecond) {
    return metresPerSecond * 3600 / METRES_PER_MILE;
  }
}
