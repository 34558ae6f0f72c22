package marvek.core.line;

/** The widest single arc that fits through a bend between two edges. */
public final class WidestArc {
  private WidestArc() {}

  /**
   * Radius of the arc that touches the outer edge before and after a bend and the inner edge in its
   * middle: R = (Ro − Ri cos ½θ) / (1 − cos ½θ). Source: plane geometry of three tangent circles.
   *
   * @param inner radius of the inner edge, m
   * @param outer radius of the outer edge, m
   * @param angle change of heading, radians, above 0 and below π
   */
  public static double radius(double inner, double outer, double angle) {
    double half = Math.cos(angle / 2);
    return (outer - inner * half) / (1 - half);
  }
}
