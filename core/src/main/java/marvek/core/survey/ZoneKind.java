package marvek.core.survey;

/**
 * Sorts of zone. The shares of grip are starting points (common practice, no source) for severities
 * 1 to 3; where a kind leaves all of it, it is a hazard to look at, not to compute. Places where
 * water gathers count only while there is some ({@link Zone.Water}).
 */
public enum ZoneKind {
  SHADE("shade", Zone.Water.LAST, 1, 1, 1),
  DAMP("stays damp", Zone.Water.LAST, 0.93, 0.85, 0.75),
  STANDING_WATER("standing water", Zone.Water.STANDS, 0.85, 0.7, 0.5),
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
  DRAIN("drain", Zone.Water.STANDS, 1, 0.98, 0.95);

  private final String words;
  private final Zone.Water water;
  private final double[] grip;

  ZoneKind(String words, double... grip) {
    this(words, Zone.Water.NONE, grip);
  }

  ZoneKind(String words, Zone.Water water, double... grip) {
    this.words = words;
    this.water = water;
    this.grip = grip;
  }

  /** What water has to do with it. */
  public Zone.Water water() {
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
