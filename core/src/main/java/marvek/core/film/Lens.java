package marvek.core.film;

import marvek.core.refusal.Refusal;
import marvek.core.said.Value;

/**
 * How a camera that is fixed to the vehicle sees.
 *
 * @param projection how it draws
 * @param halfAngle radians from the middle of the picture to its left or right edge
 * @param turned radians by which it looks to the right of the vehicle's way
 */
public record Lens(Projection projection, double halfAngle, double turned) {
  private static final double NARROWEST = Math.toRadians(8);
  private static final double WIDEST_STRAIGHT = Math.toRadians(75);
  private static final double WIDEST = Math.toRadians(100);
  private static final double MOST_TURNED = Math.toRadians(45);
  // Nearer together in the picture two things tell little of the lens.
  private static final double APART = 0.25;
  private static final double STEP = Math.toRadians(0.1);

  /** How a lens draws angles. */
  public enum Projection {
    /** Straight lines stay straight: across goes with the tangent of the angle. */
    STRAIGHT,
    /** A wide lens that bends lines: across goes with the angle (equidistant fish-eye). */
    WIDE
  }

  public Lens {
    double widest = projection == Projection.STRAIGHT ? WIDEST_STRAIGHT : WIDEST;
    if (!(halfAngle >= NARROWEST && halfAngle <= widest)) {
      throw Refusal.of(
              "refusal.film.lens_does_not_see",
              Value.figure(Math.toDegrees(2 * NARROWEST), 0),
              Value.figure(Math.toDegrees(2 * widest), 0))
          .at("angle of the picture");
    }
    if (!(Math.abs(turned) <= MOST_TURNED)) {
      throw Refusal.of("refusal.film.camera_looks_too_far").at("turned");
    }
  }

  /**
   * Radians to the right of the vehicle's way at which a thing is.
   *
   * @param across -1 at the left edge of the picture, 1 at the right one
   */
  public double bearing(double across) {
    return turned
        + (projection == Projection.STRAIGHT
            ? Math.atan(across * Math.tan(halfAngle))
            : across * halfAngle);
  }

  /** Where in the picture a bearing is drawn; the other way round of {@link #bearing}. */
  public double across(double bearing) {
    double from = bearing - turned;
    return projection == Projection.STRAIGHT
        ? Math.tan(from) / Math.tan(halfAngle)
        : from / halfAngle;
  }

  /**
   * The lens by two things whose bearings are known.
   *
   * @param across where the two are in their pictures
   * @param bearing radians to the right of the vehicle's way at which they are
   * @throws Refusal where they tell none
   */
  public static Lens told(Projection projection, double[] across, double[] bearing) {
    if (Math.abs(across[0] - across[1]) < APART) {
      throw Refusal.of("refusal.film.two_things_too_near");
    }
    if (projection == Projection.WIDE) {
      double half = (bearing[0] - bearing[1]) / (across[0] - across[1]);
      return sensible(projection, half, bearing[0] - half * across[0]);
    }
    double best = Double.NaN;
    double before = Double.NaN;
    for (double turned = -MOST_TURNED; turned <= MOST_TURNED + 1e-9; turned += STEP) {
      double now = off(across, bearing, turned);
      if (before * now <= 0 && within(bearing, turned)) {
        double at = bisected(across, bearing, turned - STEP, turned);
        best = Double.isNaN(best) || Math.abs(at) < Math.abs(best) ? at : best;
      }
      before = now;
    }
    if (Double.isNaN(best)) {
      throw none();
    }
    double focal =
        Math.abs(across[0]) > Math.abs(across[1])
            ? across[0] / Math.tan(bearing[0] - best)
            : across[1] / Math.tan(bearing[1] - best);
    return sensible(projection, Math.atan2(1, focal), best);
  }

  private static boolean within(double[] bearing, double turned) {
    double most = Math.toRadians(85);
    return Math.abs(bearing[0] - turned) < most && Math.abs(bearing[1] - turned) < most;
  }

  private static double off(double[] across, double[] bearing, double turned) {
    return across[0] * Math.tan(bearing[1] - turned) - across[1] * Math.tan(bearing[0] - turned);
  }

  private static double bisected(double[] across, double[] bearing, double from, double to) {
    double low = from;
    double high = to;
    double atLow = off(across, bearing, low);
    for (int i = 0; i < 60; i++) {
      double middle = (low + high) / 2;
      double at = off(across, bearing, middle);
      if (atLow * at <= 0) {
        high = middle;
      } else {
        low = middle;
        atLow = at;
      }
    }
    return (low + high) / 2;
  }

  private static Lens sensible(Projection projection, double half, double turned) {
    double widest = projection == Projection.STRAIGHT ? WIDEST_STRAIGHT : WIDEST;
    if (!(half >= NARROWEST && half <= widest && Math.abs(turned) <= MOST_TURNED)) {
      throw none();
    }
    return new Lens(projection, half, turned);
  }

  private static Refusal none() {
    return Refusal.of("refusal.film.no_lens_shows_these");
  }
}
