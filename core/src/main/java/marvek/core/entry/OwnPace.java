package marvek.core.entry;

import java.util.List;
import java.util.Objects;
import marvek.core.lap.Driving;
import org.jspecify.annotations.Nullable;

/**
 * How much of what the vehicle can do the driver uses in a reference, and how early they brake. A
 * reference without one is made for all of the grip and {@link Driving#FULL}'s margin.
 *
 * @param driving on the whole
 * @param corners where it differs
 */
public record OwnPace(Driving driving, List<InCorner> corners) {
  public OwnPace {
    Objects.requireNonNull(driving, "driving");
    corners = corners == null ? List.of() : List.copyOf(corners);
  }

  /** Why a corner differs. */
  public enum Why {
    /** The driver says so. */
    BY_HAND,
    /** Something hard is near on the outside. */
    WALL,
    /** One cannot see through it. */
    BLIND,
    /** The driver's laps bear it. */
    LAPS
  }

  /**
   * A corner that is driven with more or less of the grip than the others.
   *
   * @param corner id
   * @param factor on the three shares
   * @param why it differs
   */
  public record InCorner(String corner, double factor, Why why) {
    public InCorner {
      Objects.requireNonNull(corner, "corner");
      Objects.requireNonNull(why, "why");
    }
  }

  /** The factor of a corner, 1 where it does not differ. */
  public double in(String corner) {
    return corners.stream()
        .filter(c -> c.corner().equals(corner))
        .mapToDouble(InCorner::factor)
        .findFirst()
        .orElse(1);
  }

  /** The pace of a reference that may have none of its own. */
  public static Driving of(@Nullable OwnPace pace) {
    return pace == null ? Driving.FULL : pace.driving();
  }
}
