package marvek.core.survey;

/**
 * Sorts of zone, what each acts on and what is usual for it, slight, plain and severe (common
 * practice, no source). Places where water gathers count only while there is some ({@link
 * Zone.Water}).
 */
public enum ZoneKind {
  SHADE("shade", Zone.Water.LAST, Zone.Effect.GRIP, 0.98, 0.95, 0.9),
  DAMP("stays damp", Zone.Water.LAST, Zone.Effect.GRIP, 0.93, 0.85, 0.75),
  STANDING_WATER("standing water", Zone.Water.STANDS, Zone.Effect.GRIP, 0.85, 0.7, 0.5),
  BUMP("bumps", Zone.Effect.LOAD, 0.98, 0.95, 0.9),
  CREST("crest", Zone.Effect.CREST, 3000, 1500, 700),
  COMPRESSION("compression", Zone.Effect.DIP, 3000, 1500, 700),
  ADVERSE_CAMBER("adverse camber", Zone.Effect.CAMBER_OUT, 0.015, 0.03, 0.05),
  HELPFUL_CAMBER("helpful camber", Zone.Effect.CAMBER_IN, 0.015, 0.03, 0.05),
  LEVEL("level reading", Zone.Effect.LEVEL, 0.01, 0.02, 0.04),
  SURFACE_CHANGE("change of surface", Zone.Effect.GRIP, 1, 0.97, 0.92),
  POLISHED("polished", Zone.Effect.GRIP, 0.97, 0.94, 0.9),
  DIRTY_EDGE("dirty edge", Zone.Effect.GRIP, 0.95, 0.88, 0.8),
  NARROW("narrow", Zone.Effect.ROOM, 0.5, 1, 2),
  WALL("wall", Zone.Effect.ROOM, 0.2, 0.4, 0.8),
  NO_RUN_OFF("no run-off", Zone.Effect.ROOM, 0, 0, 0),
  WIND("wind", Zone.Effect.WIND, 1.2, 1.5, 2),
  SHELTER("sheltered from wind", Zone.Effect.WIND, 0.6, 0.3, 0.1),
  BEYOND("ground beyond the edge", Zone.Effect.BEYOND, 2, 2, 2),
  LOOSE("loose cones or tyres", Zone.Effect.ROOM, 0.5, 1, 1.5),
  DRAIN("drain", Zone.Water.STANDS, Zone.Effect.GRIP, 1, 0.98, 0.95);

  private final String words;
  private final Zone.Water water;
  private final Zone.Effect effect;
  private final double[] usual;

  ZoneKind(String words, Zone.Effect effect, double... usual) {
    this(words, Zone.Water.NONE, effect, usual);
  }

  ZoneKind(String words, Zone.Water water, Zone.Effect effect, double... usual) {
    this.words = words;
    this.water = water;
    this.effect = effect;
    this.usual = usual;
  }

  /** What water has to do with it. */
  public Zone.Water water() {
    return water;
  }

  /** What it acts on. */
  public Zone.Effect effect() {
    return effect;
  }

  public String words() {
    return words;
  }

  /**
   * What is usual, in the unit of its effect.
   *
   * @param severity 1 slight, 2 plain, 3 severe
   */
  public double usual(int severity) {
    return usual[Math.max(1, Math.min(3, severity)) - 1];
  }
}
