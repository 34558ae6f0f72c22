package marvek.core.score;

/** How sure a driver is of a point. */
public enum Sureness {
  SURE("sure"),
  FAIRLY("fairly sure"),
  UNSURE("unsure"),
  /** Taken over from another vehicle, set-up or layout version, not driven yet. */
  CARRIED("carried over, not proved");

  private final String words;

  Sureness(String words) {
    this.words = words;
  }

  public String words() {
    return words;
  }

  /** Whether it is to be rehearsed and looked at first. */
  public boolean standsOut() {
    return this == UNSURE || this == CARRIED;
  }
}
