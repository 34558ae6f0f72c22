package marvek.core.survey;

import marvek.core.said.Said;

/**
 * Sorts of zone, what each acts on and what is usual for it, slight, plain and severe (common
 * practice, no source). Places where water gathers count only while there is some ({@link
 * Zone.Water}).
 */
public enum ZoneKind {
  SHADE(Zone.Water.LAST, Zone.Effect.GRIP, 0.98, 0.95, 0.9),
  DAMP(Zone.Water.LAST, Zone.Effect.GRIP, 0.93, 0.85, 0.75),
  STANDING_WATER(Zone.Water.STANDS, Zone.Effect.GRIP, 0.85, 0.7, 0.5),
  BUMP(Zone.Effect.LOAD, 0.98, 0.95, 0.9),
  CREST(Zone.Effect.CREST, 3000, 1500, 700),
  COMPRESSION(Zone.Effect.DIP, 3000, 1500, 700),
  ADVERSE_CAMBER(Zone.Effect.CAMBER_OUT, 0.015, 0.03, 0.05),
  HELPFUL_CAMBER(Zone.Effect.CAMBER_IN, 0.015, 0.03, 0.05),
  LEVEL(Zone.Effect.LEVEL, 0.01, 0.02, 0.04),
  SURFACE_CHANGE(Zone.Effect.GRIP, 1, 0.97, 0.92),
  POLISHED(Zone.Effect.GRIP, 0.97, 0.94, 0.9),
  DIRTY_EDGE(Zone.Effect.GRIP, 0.95, 0.88, 0.8),
  NARROW(Zone.Effect.ROOM, 0.5, 1, 2),
  WALL(Zone.Effect.ROOM, 0.2, 0.4, 0.8),
  NO_RUN_OFF(Zone.Effect.ROOM, 0, 0, 0),
  WIND(Zone.Effect.WIND, 1.2, 1.5, 2),
  SHELTER(Zone.Effect.WIND, 0.6, 0.3, 0.1),
  BEYOND(Zone.Effect.BEYOND, 2, 2, 2),
  LOOSE(Zone.Effect.ROOM, 0.5, 1, 1.5),
  /** Others leave the road here. */
  GO_OFF(Zone.Effect.ROOM, 0.2, 0.4, 0.6),
  DRAIN(Zone.Water.STANDS, Zone.Effect.GRIP, 1, 0.98, 0.95);

  private final Zone.Water water;
  private final Zone.Effect effect;
  private final double[] usual;

  ZoneKind(Zone.Effect effect, double... usual) {
    this(Zone.Water.NONE, effect, usual);
  }

  ZoneKind(Zone.Water water, Zone.Effect effect, double... usual) {
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

  /** What it is called. */
  public Said said() {
    return Said.of("zone." + name());
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
