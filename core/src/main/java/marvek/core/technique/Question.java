package marvek.core.technique;

/** What practitioners answer in different ways, corner by corner. */
public enum Question {
  BRAKE_SHAPE("brake shape"),
  RELEASE("release"),
  TRAIL("brake in the turn"),
  ROLL("after the brake"),
  LIFT("lift"),
  SLOW_WITH("slow with"),
  LINE("long corner"),
  APEX("apex"),
  THROTTLE("throttle"),
  GEAR("gear"),
  SHIFT("before the next corner"),
  LINKED("linked corners"),
  KERBS("kerbs"),
  LIGHT("shadows as markers");

  private final String words;

  Question(String words) {
    this.words = words;
  }

  public String words() {
    return words;
  }
}
