package marvek.core.session;

/**
 * How grip comes with warmth: what is missing goes away as a first-order lag does. It is a share of
 * the grip, and no temperature.
 *
 * @param missing share of the grip that is missing when one leaves the pits
 * @param seconds after which a third and a bit of it (1/e) is still missing
 */
public record WarmUp(double missing, double seconds) {
  /** Missing share at which tyres count as warm. */
  public static final double WARM = 0.01;

  /** Temperature that the usual tyre starts from, °C. */
  public static final double USUAL_FROM = 15;

  /** Of a tyre from the cold: warm within three to five laps (common practice, no source). */
  public static final WarmUp USUAL = new WarmUp(0.08, 150);

  /** Out of warmers (common practice, no source). */
  public static final WarmUp WARMERS = new WarmUp(0.03, 90);

  /**
   * Where something that settles is after a while: x_∞ + (x − x_∞)·e^(−t/τ).
   *
   * @param from where it is
   * @param to where it settles
   */
  public static double settled(double from, double to, double time, double lag) {
    return to + (from - to) * Math.exp(-time / lag);
  }

  /**
   * Share of the warm grip in the middle of a lap.
   *
   * @param lap 1 is the one on which one leaves the pits
   * @param lapTime seconds
   */
  public double share(int lap, double lapTime) {
    return 1 - settled(missing, 0, (lap - 0.5) * lapTime, seconds);
  }

  /** The first lap that counts as warm. */
  public int warmFrom(double lapTime) {
    int lap = 1;
    while (1 - share(lap, lapTime) > WARM) {
      lap++;
    }
    return lap;
  }

  /**
   * Share of an axle's load on its outer wheel: ½ + a·h/(g·t) (Milliken 1995).
   *
   * @param across acceleration, g
   * @param height of the centre of gravity, m
   * @param track m
   */
  public static double outside(double across, double height, double track) {
    return Math.min(1, 0.5 + across * height / track);
  }
}
