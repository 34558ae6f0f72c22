package marvek.core.logger;

import java.util.Objects;

/**
 * One action of a written score that the driver does otherwise.
 *
 * @param corner id
 * @param action id of the action
 * @param late metres further along the road; negative for sooner
 * @param more share more of the pedal, or metres nearer to the inside at an apex
 * @param leftOut whether it is not done at all
 * @param share of the laps on which it happens, 0 to 1
 */
public record Deviation(
    String corner, String action, double late, double more, boolean leftOut, double share) {
  public Deviation {
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(action, "action");
  }

  /** Done elsewhere on every lap. */
  public static Deviation late(String corner, String action, double metres) {
    return new Deviation(corner, action, metres, 0, false, 1);
  }

  /** Done with another amount on every lap. */
  public static Deviation more(String corner, String action, double share) {
    return new Deviation(corner, action, 0, share, false, 1);
  }

  /** Not done on any lap. */
  public static Deviation none(String corner, String action) {
    return new Deviation(corner, action, 0, 0, true, 1);
  }
}
