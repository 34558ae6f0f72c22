package marvek.core.reference;

import java.util.Objects;
import marvek.core.marker.Tie;
import org.jspecify.annotations.Nullable;

/**
 * A point of a corner.
 *
 * @param kind which
 * @param station metres from the start/finish line
 * @param tie the landmark that it is found by, or null
 */
public record CornerPoint(PointKind kind, double station, @Nullable Tie tie) {
  public CornerPoint {
    Objects.requireNonNull(kind, "kind");
  }
}
