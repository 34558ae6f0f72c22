package marvek.core.session;

/** Stops, starts and tows: what a race asks besides the corners. */
public final class Kinematics {
  private Kinematics() {}

  /** Metres to get from one speed to another, m/s, at an even deceleration, m/s². */
  public static double stop(double from, double to, double deceleration) {
    return (from * from - to * to) / (2 * deceleration);
  }

  /** Speed after so many metres from standing, m/s, at an even acceleration, m/s². */
  public static double after(double metres, double acceleration) {
    return Math.sqrt(2 * acceleration * metres);
  }

  /** By how much the top speed grows where the drag is a share of what it is alone, equal power. */
  public static double tow(double drag) {
    return Math.pow(drag, -1.0 / 3);
  }
}
