package marvek.core.entry;

import java.util.Objects;
import marvek.core.marker.Tie;
import marvek.core.score.Action;
import marvek.core.score.Sureness;
import org.jspecify.annotations.Nullable;

/**
 * A point of a corner.
 *
 * @param kind which
 * @param station metres from the start/finish line
 * @param tie the landmark that it is found by, or null
 * @param sure how sure the driver is of it; null when not said
 * @param play what more is written of it as an action of the score: its cue, amount, manner; null
 *     where it is the point alone. {@link Score} reads both as one
 */
public record CornerPoint(
    PointKind kind,
    double station,
    @Nullable Tie tie,
    @Nullable Sureness sure,
    @Nullable Action play) {
  // Metres within which a place is the same.
  private static final double SAME = 0.01;

  /** A point of which nobody has said how sure it is. */
  public CornerPoint(PointKind kind, double station, @Nullable Tie tie) {
    this(kind, station, tie, null, null);
  }

  /** A point alone. */
  public CornerPoint(PointKind kind, double station, @Nullable Tie tie, @Nullable Sureness sure) {
    this(kind, station, tie, sure, null);
  }

  /** Elsewhere: a cue that is written of it does not lead there, and is left. */
  public CornerPoint at(double other) {
    Action was = play;
    boolean moves = was != null && Math.abs(other - station) > SAME;
    return new CornerPoint(kind, other, tie, sure, was != null && moves ? was.unfound() : was);
  }

  /** The same, this sure. */
  public CornerPoint sure(@Nullable Sureness other) {
    return new CornerPoint(kind, station, tie, other, play);
  }

  /** The same point written as an action, standing where the action does. */
  public CornerPoint played(Action as) {
    return new CornerPoint(kind, as.station(), tie, as.sure(), as);
  }

  public CornerPoint {
    Objects.requireNonNull(kind, "kind");
  }
}
