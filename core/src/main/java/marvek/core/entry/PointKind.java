package marvek.core.entry;

import marvek.core.said.Said;

/** Points of a corner, in the order in which they usually come. */
public enum PointKind {
  BUILD_UP("build-up marker", false),
  BRAKE("braking", true),
  TARGET("target marker", false),
  BACK_UP("back-up marker", false),
  DOWNSHIFT("first downshift", false),
  TURN_IN("turn-in", true),
  RELEASE("release", true),
  FIRST_APEX("first apex", false),
  APEX("apex", true),
  FIRST_THROTTLE("first throttle", true),
  SHORT_SHIFT("short shift", false),
  FULL_THROTTLE("full throttle", true),
  EXIT("exit", true);

  private final String word;
  private final boolean drafted;

  PointKind(String word, boolean drafted) {
    this.word = word;
    this.drafted = drafted;
  }

  public String word() {
    return word;
  }

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
