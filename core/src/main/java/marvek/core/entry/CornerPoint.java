package marvek.core.entry;

import java.util.Objects;
import marvek.core.marker.Tie;
import org.jspecify.annotations.Nullable;

/**
 * A point of a corner.
 *
 * @param kind which
 * @param station metres from the start/finish line
 * @param tie the landmark that it is found by, or null
 * @param sure how sure the driver is of it; null when not said
 */
public record CornerPoint(
    PointKind kind, double station, @Nullable Tie tie, @Nullable Sureness sure) {

  /** A point of which nobody has said how sure it is. */
  public CornerPoint(PointKind kind, double station, @Nullable Tie tie) {
    this(kind, station, tie, null);
  }

  public CornerPoint at(double other) {
    return new CornerPoint(kind, other, tie, sure);
  }

  public CornerPoint {
    Objects.requireNonNull(kind, "kind");
  }
}
