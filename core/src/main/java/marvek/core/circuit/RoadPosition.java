package marvek.core.circuit;

/**
 * A place on or beside the road.
 *
 * @param station metres from the start/finish line
 * @param offset metres to the left of the centreline, negative to the right
 */
public record RoadPosition(double station, double offset) {

  /** The nearest place on the whole lap. */
  public static RoadPosition nearest(Centreline road, double x, double y) {
    return search(road, x, y, 0, road.size());
  }

  /**
   * The nearest place close to one known before, so that a road passing near itself does not jump.
   *
   * @param around station where the last place was
   * @param reach metres to look before and behind it
   */
  public static RoadPosition near(
      Centreline road, double x, double y, double around, double reach) {
    int span = (int) Math.ceil(reach / road.step());
    int count = Math.min(2 * span + 1, road.size());
    return search(road, x, y, road.index(around) - span, count);
  }

  /** Metres {x, y} of a place. */
  public static double[] toPlane(Centreline road, double station, double offset) {
    double at = road.wrap(station) / road.step();
    int i = (int) at % road.size();
    double along = (at - Math.floor(at)) * road.step();
    double h = road.heading()[i] + road.curvature()[i] * along;
    double middle = road.heading()[i] + road.curvature()[i] * along / 2;
    return new double[] {
      road.x()[i] + along * Math.cos(middle) - offset * Math.sin(h),
      road.y()[i] + along * Math.sin(middle) + offset * Math.cos(h)
    };
  }

  private static RoadPosition search(Centreline road, double x, double y, int from, int count) {
    Loop loop = road.loop();
    int best = from;
    double least = Double.MAX_VALUE;
    for (int k = from; k < from + count; k++) {
      int i = loop.at(k);
      double dx = x - road.x()[i];
      double dy = y - road.y()[i];
      double square = dx * dx + dy * dy;
      if (square < least) {
        least = square;
        best = i;
      }
    }
    double dx = x - road.x()[best];
    double dy = y - road.y()[best];
    double cos = Math.cos(road.heading()[best]);
    double sin = Math.sin(road.heading()[best]);
    double along = dx * cos + dy * sin;
    double offset = -dx * sin + dy * cos;
    // On a bend the way along the middle is shorter or longer than along the tangent.
    along /= 1 - Math.max(-0.9, Math.min(0.9, offset * road.curvature()[best]));
    return new RoadPosition(road.wrap(best * road.step() + along), offset);
  }
}
