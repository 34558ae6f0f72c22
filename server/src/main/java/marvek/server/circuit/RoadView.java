package marvek.server.circuit;

import marvek.core.circuit.Centreline;

/**
 * A road for drawing, thinned to {@code step} metres.
 *
 * @param step metres between values
 * @param x metres east
 * @param y metres north
 * @param heading radians from east
 * @param curvature 1/m, positive left
 * @param height metres
 * @param right metres to the right edge
 * @param left metres to the left edge
 */
public record RoadView(
    double step,
    double length,
    double[] x,
    double[] y,
    double[] heading,
    double[] curvature,
    double[] height,
    double[] right,
    double[] left,
    boolean hasHeight,
    boolean hasWidth) {

  /** Stations between values so many metres apart, for any number that may be asked for. */
  public static int stride(Centreline road, double about) {
    return (int) Math.max(1, Math.min(road.size() / 2.0, Math.round(about / road.step())));
  }

  public static RoadView of(Centreline road, double about) {
    int stride = stride(road, about);
    return new RoadView(
        stride * road.step(),
        road.length(),
        thin(road.x(), stride, 100),
        thin(road.y(), stride, 100),
        thin(road.heading(), stride, 1e4),
        thin(road.curvature(), stride, 1e6),
        thin(road.height(), stride, 100),
        thin(road.right(), stride, 100),
        thin(road.left(), stride, 100),
        road.hasHeight(),
        road.hasWidth());
  }

  private static double[] thin(double[] values, int stride, double digits) {
    double[] out = new double[(values.length + stride - 1) / stride];
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.round(values[i * stride] * digits) / digits;
    }
    return out;
  }
}
