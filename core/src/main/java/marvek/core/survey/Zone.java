package marvek.core.survey;

import java.util.Objects;
import marvek.core.lap.Surface;
import org.jspecify.annotations.Nullable;

/**
 * A stretch where something is different.
 *
 * @param id stable name inside the layout version
 * @param kind what it is
 * @param side where across the road
 * @param from station, m
 * @param to station, m
 * @param severity 1 slight, 2 plain, 3 severe
 * @param grip share of the grip that it leaves; null for what is usual for kind and severity
 * @param note in the driver's words
 * @param photo id of a picture, or empty
 */
public record Zone(
    String id,
    ZoneKind kind,
    Side side,
    double from,
    double to,
    int severity,
    @Nullable Double grip,
    String note,
    String photo) {

  public Zone {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(side, "side");
    Objects.requireNonNull(note, "note");
    Objects.requireNonNull(photo, "photo");
  }

  /** What water has to do with a kind of zone. */
  public enum Water {
    /** Nothing: it is there on every day. */
    NONE,
    /** It counts while the road is not dry, and dries with it. */
    STANDS,
    /** It counts while the road is not dry, and is the last to dry. */
    LAST
  }

  /** Where across the road. */
  public enum Side {
    LEFT,
    RIGHT,
    BOTH
  }

  /** Share of the grip that is left here where it counts fully. */
  public double gripLeft() {
    return grip == null ? kind.usualGrip(severity) : grip;
  }

  /** Share of the grip that is left here on a day. */
  public double gripLeft(Surface surface) {
    double counts = kind.water() == Water.NONE ? 1 : surface.holds(kind.water() == Water.LAST);
    return 1 - counts * (1 - gripLeft());
  }

  /** Whether the computation feels it on some day. */
  public boolean counts() {
    return gripLeft() != 1;
  }

  /** Whether the computation feels it on a day. */
  public boolean counts(Surface surface) {
    return gripLeft(surface) != 1;
  }
}
