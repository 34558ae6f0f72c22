package marvek.core.entry;

import marvek.core.lap.Surface;

/** Sorts of day, each with a usual start (common practice, no source). */
public enum DayKind {
  COLD_TYRES("cold tyres", Variant.Day.of(0.92, 0)),
  DAMP("damp", Variant.Day.of(0.85, 0, Surface.damp())),
  WET("wet", Variant.Day.of(0.7, 0, Surface.wet())),
  DRYING("drying", Variant.Day.of(0.88, 0, Surface.drying(0.5))),
  WORN("worn tyres", Variant.Day.of(0.96, 0)),
  FULL_TANK("full tank", Variant.Day.of(1, 35)),
  TOW("in a tow", new Variant.Day(1, 0, 0, 0, 0.75, 0.85, null, "", Surface.DRY)),
  WIND("wind", new Variant.Day(1, 0, 8, 270, 1, 1, null, "", Surface.DRY)),
  QUALIFYING("qualifying", Variant.Day.of(1.02, -30)),
  TYRE_SAVING("saving tyres", Variant.Day.of(0.95, 0)),
  OTHER_HOUR("other hour", new Variant.Day(1, 0, 0, 0, 1, 1, null, "18:30", Surface.DRY));

  private final String words;
  private final Variant.Day usual;

  DayKind(String words, Variant.Day usual) {
    this.words = words;
    this.usual = usual;
  }

  public String words() {
    return words;
  }

  /** A usual day of the kind, to start from. */
  public Variant.Day usual() {
    return usual;
  }
}
