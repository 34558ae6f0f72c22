package marvek.core.entry;

import java.util.Objects;
import marvek.core.marker.Tie;
import marvek.core.score.Cue;
import marvek.core.score.Sureness;
import org.jspecify.annotations.Nullable;

/**
 * A point of a corner.
 *
 * @param kind which
 * @param station metres from the start/finish line
 * @param tie the landmark that it is found by, or null
 * @param sure how sure the driver is of it; null when not said
 * @param cue how it is found otherwise than by metres past a landmark; the station follows from it;
 *     null where the tie tells it
 */
public record CornerPoint(
    PointKind kind, double station, @Nullable Tie tie, @Nullable Sureness sure, @Nullable Cue cue) {

  /** A point of which nobody has said how sure it is. */
  public CornerPoint(PointKind kind, double station, @Nullable Tie tie) {
    this(kind, station, tie, null, null);
  }

  /** A point that is found by its landmark. */
  public CornerPoint(PointKind kind, double station, @Nullable Tie tie, @Nullable Sureness sure) {
    this(kind, station, tie, sure, null);
  }

  public CornerPoint at(double other) {
    return new CornerPoint(kind, other, tie, sure, cue);
  }

  public CornerPoint found(@Nullable Cue other) {
    return new CornerPoint(kind, station, tie, sure, other);
  }

  public CornerPoint {
    Objects.requireNonNull(kind, "kind");
  }
}
