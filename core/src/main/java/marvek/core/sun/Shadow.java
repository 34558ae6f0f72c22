package marvek.core.sun;

import java.util.Optional;

/**
 * Where the top of a thing throws its shadow on level ground, seen from its foot.
 *
 * @param east metres
 * @param north metres
 */
public record Shadow(double east, double north) {
  // Lower than this the shadow runs over the horizon and the light is no use as a marker.
  private static final double LOWEST = Math.toRadians(2);

  /**
   * Length h / tan(elevation), direction azimuth + 180°; empty when the sun is below 2°.
   *
   * @param height metres
   */
  public static Optional<Shadow> of(double height, SunPosition sun) {
    if (sun.elevation() < LOWEST) {
      return Optional.empty();
    }
    double length = height / Math.tan(sun.elevation());
    return Optional.of(
        new Shadow(-length * Math.sin(sun.azimuth()), -length * Math.cos(sun.azimuth())));
  }

  /** Metres. */
  public double length() {
    return Math.hypot(east, north);
  }

  /**
   * Metres that the tip has moved along a road since another shadow of the same thing.
   *
   * @param heading of the road, radians anticlockwise from east
   */
  public double movedAlong(Shadow before, double heading) {
    return (east - before.east) * Math.cos(heading) + (north - before.north) * Math.sin(heading);
  }
}
