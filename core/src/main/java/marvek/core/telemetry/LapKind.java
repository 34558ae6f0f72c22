package marvek.core.telemetry;

import marvek.core.said.Said;

/** Kinds of laps. */
public enum LapKind {
  PUSH(true),
  COLD(false),
  OUT(false),
  IN(false),
  TRAFFIC(false),
  YELLOW(false),
  SLOW(false),
  INCOMPLETE(false),
  OFF(false),
  /** Driven by somebody else: to be looked at, never evidence of one's own. */
  GUEST(false);
  private final boolean counts;

  LapKind(boolean counts) {
    this.counts = counts;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("kind.lap." + name());
  }

  /** Whether laps of this kind count in a debrief unless the driver says otherwise. */
  public boolean counts() {
    return counts;
  }

  /** Whether the driver may say that such a lap counts. */
  public boolean mayCount() {
    return whole() && this != GUEST;
  }

  /** Whether it was driven from line to line. */
  public boolean whole() {
    return this != OUT && this != IN && this != INCOMPLETE;
  }
}
