package marvek.core.technique;

import org.jspecify.annotations.Nullable;

/**
 * A planned shape of the pedals. Efforts are shares of the greatest straight-line braking at the
 * marker; lengths are shares of the way from the marker to the release, so that the shape stretches
 * with its points.
 *
 * @param rise share of the way at which the peak is reached, 0 to 1
 * @param hold share of the way to which the peak is held, not below {@code rise}
 * @param trail share of the peak that is left at turn-in, 0 to 1
 * @param peak effort at the peak, 0 to 1.2; null for what just meets the corner's speed
 * @param maintain share of the way from first to full throttle over which the first throttle is
 *     held before it is opened further, 0 to 1
 */
public record Pedals(
    double rise, double hold, double trail, @Nullable Double peak, double maintain) {

  // Share of the way to turn-in to which a peak is held at most where some of it is left there.
  private static final double EASED = 0.85;

  /** Hard at once, then bled off: 30 to 35 % in mid-entry (common practice, no source). */
  public static final Pedals FRONT_LOADED = new Pedals(0.06, 0.5, 0.75, null, 0);

  /** Lighter and longer, with most of it late (common practice, no source). */
  public static final Pedals PROGRESSIVE = new Pedals(0.4, 0.7, 0.9, null, 0);

  /** A short press that is over when the hands move (common practice, no source). */
  public static final Pedals DAB = new Pedals(0.25, 0.6, 0, null, 0);

  /**
   * The preset of a school of braking.
   *
   * @param fade what the tyres can brake with at the corner's speed, as a share of what they can at
   *     the marker: less than 1 with downforce, and the foot must ease by as much
   */
  public static Pedals of(School school, double fade) {
    if (school == School.DAB) {
      return DAB;
    }
    Pedals usual = school == School.PROGRESSIVE ? PROGRESSIVE : FRONT_LOADED;
    double left = Math.max(0.1, Math.min(1, fade));
    return new Pedals(
        usual.rise,
        Math.max(usual.rise, usual.hold * (school == School.PROGRESSIVE ? 1 : left)),
        usual.trail * left,
        null,
        usual.maintain);
  }

  /**
   * The same with another share of the peak left at turn-in, for which it is eased before that.
   *
   * @param left share of the peak
   * @param turnIn share of the way to the release at which the hands move
   */
  public Pedals withTrail(double left, double turnIn) {
    double eased = Math.max(0, Math.min(hold, EASED * turnIn));
    return new Pedals(Math.min(rise, eased), eased, left, peak, maintain);
  }

  /** The same shape with another peak, as a share of the full press; null to work it out. */
  public Pedals withPeak(@Nullable Double effort) {
    return new Pedals(rise, hold, trail, effort, maintain);
  }

  /**
   * Share of the peak.
   *
   * @param at metres past the marker
   * @param turnIn metres from the marker to turn-in
   * @param release metres from the marker to where the brake is let go
   */
  public double brake(double at, double turnIn, double release) {
    if (at < 0 || at >= release) {
      return 0;
    }
    double up = rise * release;
    double held = Math.max(up, hold * release);
    if (at < up) {
      // The foot needs an instant, and the first press counts as braking.
      return Math.max(0.15, at / up);
    }
    if (at <= held) {
      return 1;
    }
    if (turnIn > held && turnIn < release) {
      return at < turnIn
          ? 1 - (1 - trail) * (at - held) / (turnIn - held)
          : trail * (release - at) / (release - turnIn);
    }
    return (release - at) / (release - held);
  }

  /**
   * Share of full throttle between first and full throttle.
   *
   * @param first share at first throttle
   * @param way share of the way from first to full throttle, 0 to 1
   */
  public double throttle(double first, double way) {
    return way <= maintain || maintain >= 1
        ? first
        : first + (1 - first) * (way - maintain) / (1 - maintain);
  }
}
