package marvek.core.lap;

import marvek.core.units.Units;

/**
 * What the slopes of a path do at each station.
 *
 * @param sine of the crossfall, positive when the left is lower
 * @param cosine of the crossfall
 * @param load on the tyres per mass of a vehicle that stands, m/s²
 * @param climb what the gradient takes of the drive, m/s², negative downhill
 */
public record Slant(double[] sine, double[] cosine, double[] load, double[] climb) {
  /** Below it the cosine of a root is that of its square to fourth order, exact to 1e-5. */
  private static final double SMALL = 0.1;

  /**
   * Of the slopes at each station.
   *
   * @param gradient radians, positive uphill
   * @param crossfall radians, positive when the left is lower
   */
  public static Slant of(double[] gradient, double[] crossfall) {
    int n = gradient.length;
    Slant out = new Slant(new double[n], new double[n], new double[n], new double[n]);
    for (int i = 0; i < n; i++) {
      double c = crossfall[i];
      double g = gradient[i];
      double square = g * g;
      out.sine[i] = sine(c);
      out.cosine[i] = cosine(c * c);
      out.load[i] = Units.G * (1 - square / 2 + square * square / 24) * out.cosine[i];
      out.climb[i] = Units.G * (g - g * g * g / 6);
    }
    return out;
  }

  private static double sine(double c) {
    return Math.abs(c) < 0.3 ? c - c * c * c / 6 + c * c * c * c * c / 120 : Math.sin(c);
  }

  private static double cosine(double square) {
    return square < SMALL ? 1 - square / 2 + square * square / 24 : Math.cos(Math.sqrt(square));
  }
}
