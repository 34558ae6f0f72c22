package marvek.core.entry;

import marvek.core.lap.Surface;
import marvek.core.said.Said;

/** Sorts of day, each with a usual start (common practice, no source). */
public enum DayKind {
  COLD_TYRES(Day.of(0.92, 0)),
  DAMP(Day.of(0.85, 0, Surface.damp())),
  WET(Day.of(0.7, 0, Surface.wet())),
  DRYING(Day.of(0.88, 0, Surface.drying(0.5))),
  WORN(Day.of(0.96, 0)),
  FULL_TANK(Day.of(1, 35)),
  TOW(new Day(1, 0, 0, 0, 0.75, 0.85, null, "", Surface.DRY, null)),
  WIND(new Day(1, 0, 8, 270, 1, 1, null, "", Surface.DRY, null)),
  QUALIFYING(Day.of(1.02, -30)),
  TYRE_SAVING(Day.of(0.95, 0)),
  OTHER_HOUR(new Day(1, 0, 0, 0, 1, 1, null, "18:30", Surface.DRY, null));

  private final Day usual;

  DayKind(Day usual) {
    this.usual = usual;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("day.kind." + name());
  }

  /** A usual day of the kind, to start from. */
  public Day usual() {
    return usual;
  }
}
