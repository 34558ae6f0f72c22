package marvek.core.units;

/**
 * What a driver chose to read: speeds and lengths in words and rounded numbers.
 *
 * @param speed km/h or mph
 * @param length m, ft or yd
 */
public record Display(Speed speed, Length length) {
  public static final Display METRIC = new Display(Speed.KMH, Length.M);

  /** Units of speed. */
  public enum Speed {
    KMH("km/h"),
    MPH("mph");

    private final String symbol;

    Speed(String symbol) {
      this.symbol = symbol;
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

  /** "93 km/h" for a speed in m/s. */
  public String speed(double metresPerSecond) {
    double shown = speed == Speed.KMH ? Units.kmh(metresPerSecond) : Units.mph(metresPerSecond);
    return Math.round(shown) + " " + speed.symbol;
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
