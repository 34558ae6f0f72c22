package marvek.core.units;

/**
 * What a driver chose to read: speeds and lengths in words and rounded numbers.
 *
 * @param speed km/h or mph, or both
 * @param length m, ft or yd
 */
public record Display(Speed speed, Length length) {
  public static final Display METRIC = new Display(Speed.KMH, Length.M);

  /** Units of speed: one, or one with the other beside it where a speed is said. */
  public enum Speed {
    KMH("km/h", false),
    MPH("mph", false),
    KMH_MPH("km/h", true),
    MPH_KMH("mph", true);

    private final String symbol;
    private final boolean both;

    Speed(String symbol, boolean both) {
      this.symbol = symbol;
      this.both = both;
    }

    private String told(double metresPerSecond) {
      double shown =
          symbol.equals(KMH.symbol) ? Units.kmh(metresPerSecond) : Units.mph(metresPerSecond);
      return Math.round(shown) + " " + symbol;
    }

    private Speed other() {
      return symbol.equals(KMH.symbol) ? MPH : KMH;
    }
  }

  /** Units of length along the road. */
  public enum Length {
    M("m", 1),
    FT("ft", Units.METRES_PER_FOOT),
    YD("yd", Units.METRES_PER_YARD);

    private final String symbol;
    private final double metres;

    Length(String symbol, double metres) {
      this.symbol = symbol;
      this.metres = metres;
    }
  }

  /** "93 km/h" for a speed in m/s, or "93 km/h (58 mph)", each rounded by itself. */
  public String speed(double metresPerSecond) {
    String told = speed.told(metresPerSecond);
    return speed.both ? told + " (" + speed.other().told(metresPerSecond) + ")" : told;
  }

  /** "8 m" for a length in metres, without a sign. */
  public String length(double metres) {
    return Math.round(Math.abs(metres) / length.metres) + " " + length.symbol;
  }

  /** "0.8 m" for a length in metres, without a sign. */
  public String length(double metres, int digits) {
    return String.format(
        java.util.Locale.ROOT,
        "%." + digits + "f %s",
        Math.abs(metres) / length.metres,
        length.symbol);
  }
}
