package marvek.core.circuit;

import java.util.Arrays;
import java.util.Objects;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * Points of a circuit as they stand in a file, in driving order.
 *
 * @param geographic true: x is longitude and y latitude in WGS84 degrees; false: metres, y to the
 *     left of x
 * @param x longitude or easting
 * @param y latitude or northing
 * @param z heights in metres, or null
 * @param right widths to the right of the points in metres, or null
 * @param left widths to the left in metres, or null
 * @param crossfall radians, positive when the left edge is lower, or null
 * @param place what a point is called in the file ("row", "point"), for messages
 * @param number the number of each point in the file, from 1
 */
public record Outline(
    boolean geographic,
    double[] x,
    double[] y,
    double @Nullable [] z,
    double @Nullable [] right,
    double @Nullable [] left,
    double @Nullable [] crossfall,
    String place,
    int[] number) {

  /** Number of points. */
  public int size() {
    return x.length;
  }

  /** The point as the driver finds it in the file: "row 12". */
  public Said where(int i) {
    return Said.of("where.of", new Value.Choice(place), Value.figure(number[i], 0));
  }

  /** The same outline with only the points listed, in that order. */
  public Outline only(int[] keep) {
    return new Outline(
        geographic,
        pick(x, keep),
        pick(y, keep),
        z == null ? null : pick(z, keep),
        right == null ? null : pick(right, keep),
        left == null ? null : pick(left, keep),
        crossfall == null ? null : pick(crossfall, keep),
        place,
        Arrays.stream(keep).map(i -> number[i]).toArray());
  }

  /** The plane that touches the ellipsoid at the middle of the points; null for metres. */
  public @Nullable LocalPlane plane() {
    return geographic ? LocalPlane.around(x, y) : null;
  }

  /** The same points in metres on the plane that touches the ellipsoid at their middle. */
  public Outline onPlane() {
    if (!geographic) {
      return this;
    }
    LocalPlane plane = Objects.requireNonNull(plane());
    double[] east = new double[size()];
    double[] north = new double[size()];
    for (int i = 0; i < size(); i++) {
      double[] p = plane.toMetres(x[i], y[i]);
      east[i] = p[0];
      north[i] = p[1];
    }
    return new Outline(false, east, north, z, right, left, crossfall, place, number);
  }

  private static double[] pick(double[] from, int[] keep) {
    return Arrays.stream(keep).mapToDouble(i -> from[i]).toArray();
  }
}
