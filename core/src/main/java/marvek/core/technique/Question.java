package marvek.core.technique;

import marvek.core.said.Said;

/** What practitioners answer in different ways, corner by corner. */
public enum Question {
  BRAKE_SHAPE,
  MARKERS,
  RELEASE,
  TRAIL,
  HANDS,
  ROLL,
  LIFT,
  SLOW_WITH,
  LINE,
  WIDTH,
  CROSSING,
  APEX,
  THROTTLE,
  GEAR,
  SHIFT,
  CREST,
  FRONT_WHEEL,
  LINKED,
  KERBS,
  BEYOND,
  LIGHT;

  /** What it is called. */
  public Said said() {
    return Said.of("question." + name());
  }
}
