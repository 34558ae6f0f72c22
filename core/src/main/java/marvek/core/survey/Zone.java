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
    Kind kind,
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

  /**
   * Sorts of zone. The shares of grip are starting points (common practice, no source) for
   * severities 1 to 3; where a kind leaves all of it, it is a hazard to look at, not to compute.
   * Places where water gathers count only while there is some ({@link Water}).
   */
  public enum Kind {
    SHADE("shade", Water.LAST, 1, 1, 1),
    DAMP("stays damp", Water.LAST, 0.93, 0.85, 0.75),
    STANDING_WATER("standing water", Water.STANDS, 0.85, 0.7, 0.5),
    BUMP("bumps", 0.98, 0.95, 0.9),
    CREST("crest", 1, 1, 1),
    COMPRESSION("compression", 1, 1, 1),
    ADVERSE_CAMBER("adverse camber", 1, 1, 1),
    HELPFUL_CAMBER("helpful camber", 1, 1, 1),
    SURFACE_CHANGE("change of surface", 1, 0.97, 0.92),
    POLISHED("polished", 0.97, 0.94, 0.9),
    DIRTY_EDGE("dirty edge", 0.95, 0.88, 0.8),
    NARROW("narrow", 1, 1, 1),
    WALL("wall", 1, 1, 1),
    NO_RUN_OFF("no run-off", 1, 1, 1),
    WIND("wind", 1, 1, 1),
    LOOSE("loose cones or tyres", 1, 1, 1),
    DRAIN("drain", Water.STANDS, 1, 0.98, 0.95);

    private final String words;
    private final Water water;
    private final double[] grip;

    Kind(String words, double... grip) {
      this(words, Water.NONE, grip);
    }

    Kind(String words, Water water, double... grip) {
      this.words = words;
      this.water = water;
      this.grip = grip;
    }

    /** What water has to do with it. */
    public Water water() {
      return water;
    }

    public String words() {
      return words;
    }

    /** Share of the grip that is usually left. */
    public double usualGrip(int severity) {
      return grip[Math.max(1, Math.min(3, severity)) - 1];
    }
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
