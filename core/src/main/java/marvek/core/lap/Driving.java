package marvek.core.lap;

/**
 * How much of what the vehicle can do a driver uses, and how early.
 *
 * @param braking share of the most braking, 0 to 1
 * @param turning share of the most sideways, 0 to 1
 * @param traction share of the most drive that the tyres can bear, 0 to 1
 * @param margin seconds by which a drafted braking begins before the last place for it
 */
public record Driving(double braking, double turning, double traction, double margin) {
  /** All that the vehicle can do, with the margin of a draft. */
  public static final Driving FULL = new Driving(1, 1, 1, 0.15);

  public Driving {
    if (!(braking > 0 && turning > 0 && traction > 0 && margin >= 0)
        || Math.max(braking, Math.max(turning, traction)) > 1) {
      throw new IllegalArgumentException("shares lie above 0 and up to 1, the margin from 0");
    }
  }
}
