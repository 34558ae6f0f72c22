package marvek.core.circuit;

/**
 * One lap of the road on even steps of arc length. Index i is station i·step; the arrays are closed
 * (the neighbour of the last is the first) and are not to be changed by whoever reads them.
 *
 * @param step distance between stations, close to 1 m
 * @param x metres east
 * @param y metres north
 * @param heading radians, anticlockwise from east
 * @param curvature 1/m, positive in a left turn
 * @param height metres; zero where unknown
 * @param gradient angle in radians, positive uphill
 * @param verticalCurvature 1/m, positive in a dip
 * @param right metres from the line to the right edge
 * @param left metres from the line to the left edge
 * @param crossfall radians, positive when the left edge is lower
 * @param hasHeight whether the heights come from the survey
 * @param hasWidth whether the widths come from the survey
 */
public record Centreline(
    double step,
    double[] x,
    double[] y,
    double[] heading,
    double[] curvature,
    double[] height,
    double[] gradient,
    double[] verticalCurvature,
    double[] right,
    double[] left,
    double[] crossfall,
    boolean hasHeight,
    boolean hasWidth) {

  /**
   * All of it as columns, from which {@link #of} makes it again: the step and whether heights and
   * widths come from the survey, then what there is at each station. Roads are kept in this order.
   */
  public double[][] columns() {
    return new double[][] {
      {step, hasHeight ? 1 : 0, hasWidth ? 1 : 0},
      x,
      y,
      heading,
      curvature,
      height,
      gradient,
      verticalCurvature,
      right,
      left,
      crossfall
    };
  }

  /** A road of its {@link #columns}. */
  public static Centreline of(double[][] c) {
    return new Centreline(
        c[0][0],
        c[1],
        c[2],
        c[3],
        c[4],
        c[5],
        c[6],
        c[7],
        c[8],
        c[9],
        c[10],
        c[0][1] > 0,
        c[0][2] > 0);
  }

  /** Number of stations. */
  public int size() {
    return x.length;
  }

  /** Its stations as a closed loop. */
  public Loop loop() {
    return new Loop(size());
  }

  /** Length of the lap in metres. */
  public double length() {
    return step * size();
  }

  /** The index whose station is nearest, for any station, wrapped into the lap. */
  public int index(double station) {
    return loop().at(Math.round(station / step));
  }

  /** The station wrapped into [0, length). */
  public double wrap(double station) {
    double wrapped = station % length();
    return wrapped < 0 ? wrapped + length() : wrapped;
  }

  /** Metres from one station forward to the other, in [0, length). */
  public double ahead(double from, double to) {
    return wrap(to - from);
  }

  /** Metres from one station to the other the short way, negative when it lies behind. */
  public double apart(double from, double to) {
    double ahead = ahead(from, to);
    return ahead > length() / 2 ? ahead - length() : ahead;
  }

  /** The same road driven the other way; station 0 stays where it is. */
  public Centreline reversed() {
    return new Centreline(
        step,
        backwards(x, 1, 0),
        backwards(y, 1, 0),
        backwards(heading, 1, Math.PI),
        backwards(curvature, -1, 0),
        backwards(height, 1, 0),
        backwards(gradient, -1, 0),
        backwards(verticalCurvature, 1, 0),
        backwards(left, 1, 0),
        backwards(right, 1, 0),
        backwards(crossfall, -1, 0),
        hasHeight,
        hasWidth);
  }

  /** The same road with the start/finish line moved to the given station. */
  public Centreline startingAt(double station) {
    int shift = index(station);
    return new Centreline(
        step,
        rolled(x, shift),
        rolled(y, shift),
        rolled(heading, shift),
        rolled(curvature, shift),
        rolled(height, shift),
        rolled(gradient, shift),
        rolled(verticalCurvature, shift),
        rolled(right, shift),
        rolled(left, shift),
        rolled(crossfall, shift),
        hasHeight,
        hasWidth);
  }

  /**
   * A piece of the road, which does not close.
   *
   * @param from index of its first station; may lie outside the lap
   * @param count stations
   */
  public Centreline piece(int from, int count) {
    return new Centreline(
        step,
        piece(x, from, count),
        piece(y, from, count),
        piece(heading, from, count),
        piece(curvature, from, count),
        piece(height, from, count),
        piece(gradient, from, count),
        piece(verticalCurvature, from, count),
        piece(right, from, count),
        piece(left, from, count),
        piece(crossfall, from, count),
        hasHeight,
        hasWidth);
  }

  /** The values of a piece of the lap. */
  public static double[] piece(double[] values, int from, int count) {
    return new Loop(values.length).from(from, count).of(values);
  }

  private static double[] backwards(double[] a, double factor, double plus) {
    int n = a.length;
    double[] b = new double[n];
    for (int i = 0; i < n; i++) {
      b[i] = factor * a[(n - i) % n] + plus;
    }
    return b;
  }

  private static double[] rolled(double[] a, int shift) {
    int n = a.length;
    double[] b = new double[n];
    System.arraycopy(a, shift, b, 0, n - shift);
    System.arraycopy(a, 0, b, n - shift, shift);
    return b;
  }
}
