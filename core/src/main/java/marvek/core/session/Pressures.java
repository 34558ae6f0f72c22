package marvek.core.session;

import org.jspecify.annotations.Nullable;

/**
 * Tyre pressures by the gas law: of a closed volume the absolute pressure goes with the absolute
 * temperature. Pressures are gauge pressures in kPa, as a gauge at the place reads them, and
 * temperatures those of the gas in °C, which in the sun, in warmers or just after a run is not that
 * of the air.
 */
public final class Pressures {
  private static final double ZERO = 273.15;

  private Pressures() {}

  /** Hot gas with nothing known, °C: the middle and either way (common practice, no source). */
  public static final double USUAL_HOT = 75;

  public static final double USUAL_DOUBT = 15;

  /** Temperature of the road that goes with it, °C (common practice, no source). */
  public static final double USUAL_ROAD = 30;

  // A tyre stands so far above what lies about it, half of which is the road.
  private static final double OF_ROAD = 0.5;

  /** Hot gas with nothing known on a road of some temperature, °C; null where that is not known. */
  public static double usualHot(@Nullable Double road) {
    return road == null ? USUAL_HOT : onRoad(USUAL_HOT, USUAL_ROAD, road);
  }

  /**
   * Hot gas on another road: rolling heats it alike, so that it stands as far above the mean of air
   * and road as before.
   *
   * @param hotAt °C on the first road
   * @param was temperature of that road, °C
   * @param is temperature of the other, °C
   */
  public static double onRoad(double hotAt, double was, double is) {
    return hotAt + OF_ROAD * (is - was);
  }

  /**
   * The atmosphere's pressure at a height, kPa (ICAO standard atmosphere, Doc 7488).
   *
   * @param height above the sea, m
   */
  public static double atmosphere(double height) {
    return 101.325 * Math.pow(1 - 0.0065 * height / 288.15, 5.2559);
  }

  /**
   * The pressure to set cold.
   *
   * @param hot pressure wanted when hot, kPa gauge
   * @param hotAt temperature of the gas then, °C
   * @param coldAt temperature of the gas when it is set, °C
   * @param atmosphere kPa
   * @return kPa gauge
   */
  public static double cold(double hot, double hotAt, double coldAt, double atmosphere) {
    return (hot + atmosphere) * (coldAt + ZERO) / (hotAt + ZERO) - atmosphere;
  }

  /** The pressure that comes of a cold one, kPa gauge. */
  public static double hot(double cold, double coldAt, double hotAt, double atmosphere) {
    return (cold + atmosphere) * (hotAt + ZERO) / (coldAt + ZERO) - atmosphere;
  }

  /**
   * The temperature of the gas told from a reading cold and one hot, °C.
   *
   * @param cold kPa gauge
   * @param coldAt °C
   * @param hot kPa gauge, within two minutes of stopping and nothing let out in between
   * @param atmosphere kPa
   */
  public static double hotAt(double cold, double coldAt, double hot, double atmosphere) {
    return (coldAt + ZERO) * (hot + atmosphere) / (cold + atmosphere) - ZERO;
  }
}
