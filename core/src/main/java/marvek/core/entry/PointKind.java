package marvek.core.entry;

import marvek.core.said.Said;

/** Points of a corner, in the order in which they usually come. */
public enum PointKind {
  BUILD_UP(false),
  BRAKE(true),
  TARGET(false),
  BACK_UP(false),
  DOWNSHIFT(false),
  TURN_IN(true),
  RELEASE(true),
  FIRST_APEX(false),
  APEX(true),
  FIRST_THROTTLE(true),
  SHORT_SHIFT(false),
  FULL_THROTTLE(true),
  EXIT(true);

  private final boolean drafted;

  PointKind(boolean drafted) {
    this.drafted = drafted;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("point." + name());
  }

  /**
   * Whether the draft of a braked corner proposes it. The first of two apexes is drafted too where
   * there are two; the others are the driver's to add.
   */
  public boolean drafted() {
    return drafted;
  }

  /** Whether it is another marker for braking, beside the primary one. */
  public boolean marksBraking() {
    return this == BUILD_UP || this == TARGET || this == BACK_UP;
  }
}
