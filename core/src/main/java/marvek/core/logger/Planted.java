package marvek.core.logger;

import java.util.Objects;

/**
 * A mistake that the driver makes in a corner.
 *
 * @param mistake which
 * @param corner id
 * @param size 1 as usual, 2 twice as bad
 * @param share of the laps on which it happens, 0 to 1
 */
public record Planted(Mistake mistake, String corner, double size, double share) {
  public Planted {
    Objects.requireNonNull(mistake, "mistake");
    Objects.requireNonNull(corner, "corner");
  }
}
