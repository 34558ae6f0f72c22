package marvek.core.reference;

/** Points of a corner, in the order in which they usually come. */
public enum PointKind {
  BRAKE("braking"),
  TURN_IN("turn-in"),
  RELEASE("release"),
  APEX("apex"),
  FIRST_THROTTLE("first throttle"),
  FULL_THROTTLE("full throttle"),
  EXIT("exit");

  private final String word;

  PointKind(String word) {
    this.word = word;
  }

  public String word() {
    return word;
  }
}
