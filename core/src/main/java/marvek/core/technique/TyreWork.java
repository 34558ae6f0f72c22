package marvek.core.technique;

import marvek.core.lap.Limits;
import marvek.core.lap.Path;

/**
 * Energy that the tyres turn into heat by sliding: force times slip times way.
 *
 * <p>Slip follows from the share of grip in use by the brush model, F/μN = 1 − (1 − ψ)³ with ψ the
 * slip over that at which the whole contact slides (H. B. Pacejka, Tyre and Vehicle Dynamics, ch.
 * 3). It serves to compare two ways of doing the same corner, not to foretell a temperature.
 */
public final class TyreWork {
  /** Slip at which the whole contact slides (common practice, no source). */
  public static final double FULL_SLIP = 0.12;

  private TyreWork() {}

  // The last few per cent of grip cost most of the slip; a driver at the limit stays below them.
  private static final double AT_THE_LIMIT = 0.95;

  /** Slip at a share of the grip; at and beyond the limit that of 95 %. */
  public static double slip(double use) {
    return FULL_SLIP * (1 - Math.cbrt(1 - Math.min(AT_THE_LIMIT, Math.max(0, use))));
  }

  /**
   * Joules over a step.
   *
   * @param v m/s
   * @param wheels acceleration by the wheels along the path, m/s², without drag or gradient
   */
  public static double step(Limits limits, Path path, int i, double v, double wheels) {
    double across = v * v * path.curvature()[i];
    double force = limits.mass() * Math.sqrt(wheels * wheels + across * across);
    return force * slip(limits.use(path, i, v, wheels)) * path.step()[i];
  }
}
