package marvek.core.entry;

import marvek.core.lap.Surface;
import marvek.core.said.Said;

/** Sorts of day, each with a usual start (common practice, no source). */
public enum DayKind {
  COLD_TYRES(Variant.Day.of(0.92, 0)),
  DAMP(Variant.Day.of(0.85, 0, Surface.damp())),
  WET(Variant.Day.of(0.7, 0, Surface.wet())),
  DRYING(Variant.Day.of(0.88, 0, Surface.drying(0.5))),
  WORN(Variant.Day.of(0.96, 0)),
  FULL_TANK(Variant.Day.of(1, 35)),
  TOW(new Variant.Day(1, 0, 0, 0, 0.75, 0.85, null, "", Surface.DRY)),
  WIND(new Variant.Day(1, 0, 8, 270, 1, 1, null, "", Surface.DRY)),
  QUALIFYING(Variant.Day.of(1.02, -30)),
  TYRE_SAVING(Variant.Day.of(0.95, 0)),
  OTHER_HOUR(new Variant.Day(1, 0, 0, 0, 1, 1, null, "18:30", Surface.DRY));

  private final Variant.Day usual;

  DayKind(Variant.Day usual) {
    this.usual = usual;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("day.kind." + name());
  }

  /** A usual day of the kind, to start from. */
  public Variant.Day usual() {
    return usual;
  }
}
