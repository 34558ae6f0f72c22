package marvek.core.telemetry;

/** Kinds of laps. */
public enum LapKind {
  PUSH("push", true),
  COLD("cold tyres", false),
  OUT("out", false),
  IN("in", false),
  TRAFFIC("traffic", false),
  YELLOW("yellow flag", false),
  SLOW("slow, not said why", false),
  INCOMPLETE("incomplete", false),
  OFF("off the road", false),
  /** Driven by somebody else: to be looked at, never evidence of one's own. */
  GUEST("somebody else's", false);

  private final String words;
  private final boolean counts;

  LapKind(String words, boolean counts) {
    this.words = words;
    this.counts = counts;
  }

  public String words() {
    return words;
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
