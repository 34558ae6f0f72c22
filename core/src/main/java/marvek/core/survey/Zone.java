package marvek.core.survey;

import java.util.Objects;
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

  /** Where across the road. */
  public enum Side {
    LEFT,
    RIGHT,
    BOTH
  }

  /**
   * Sorts of zone. The shares of grip are starting points (common practice, no source) for
   * severities 1 to 3; where a kind leaves all of it, it is a hazard to look at, not to compute.
   */
  public enum Kind {
    SHADE("shade", 1, 1, 1),
    DAMP("stays damp", 0.93, 0.85, 0.75),
    STANDING_WATER("standing water", 0.85, 0.7, 0.5),
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
    DRAIN("drain", 1, 0.98, 0.95);

    private final String words;
    private final double[] grip;

    Kind(String words, double... grip) {
      this.words = words;
      this.grip = grip;
    }

    public String words() {
      return words;
    }

    /** Share of the grip that is usually left. */
    public double usualGrip(int severity) {
      return grip[Math.max(1, Math.min(3, severity)) - 1];
    }
  }

  /** Share of the grip that is left here. */
  public double gripLeft() {
    return grip == null ? kind.usualGrip(severity) : grip;
  }

  /** Whether the computation feels it. */
  public boolean counts() {
    return gripLeft() != 1;
  }
}
