package marvek.core.score;

import marvek.core.said.Said;

/** How sure a driver is of a point. */
public enum Sureness {
  SURE,
  FAIRLY,
  UNSURE,
  /** Taken over from another vehicle, set-up or layout version, not driven yet. */
  CARRIED;

  /** What it is called. */
  public Said said() {
    return Said.of("sureness." + name());
  }

  /** Whether it is to be rehearsed and looked at first. */
  public boolean standsOut() {
    return this == UNSURE || this == CARRIED;
  }
}
