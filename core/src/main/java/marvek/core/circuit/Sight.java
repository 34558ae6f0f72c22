package marvek.core.circuit;

/**
 * What crests let a driver see. Heights along the road's middle only: barriers, hedges and the
 * inside of a bend are not known to it.
 */
public final class Sight {
  /** Height of the eyes over the road in a car, metres (common practice, no source). */
  public static final double EYE_CAR = 1.0;

  /** Height of the eyes over the road on a motorcycle, tucked in (common practice, no source). */
  public static final double EYE_MOTORCYCLE = 1.1;

  private static final double LINE_OF_SIGHT_STEP = 1;

  private Sight() {}

  /**
   * Whether a thing can be seen over the road between.
   *
   * @param from station of the eyes
   * @param eye height of the eyes over the road, metres
   * @param ahead metres along the road to the thing
   * @param height of the thing over the road, metres
   */
  public static boolean clear(
      Centreline road, double from, double eye, double ahead, double height) {
    double z0 = heightAt(road, from) + eye;
    double z1 = heightAt(road, from + ahead) + height;
    for (double d = LINE_OF_SIGHT_STEP; d < ahead; d += LINE_OF_SIGHT_STEP) {
      if (heightAt(road, from + d) > z0 + (z1 - z0) * d / ahead) {
        return false;
      }
    }
    return true;
  }

  /**
   * Metres of road ahead over which a thing of the given height stays in view.
   *
   * @param most metres to look ahead at most
   */
  public static double distance(
      Centreline road, double from, double eye, double height, double most) {
    // The thing at d is seen when no rise before it passes the slope of the sight line to its top:
    // one pass with the steepest slope so far.
    double z0 = heightAt(road, from) + eye;
    double steepest = Double.NEGATIVE_INFINITY;
    for (double d = LINE_OF_SIGHT_STEP; d <= most; d += LINE_OF_SIGHT_STEP) {
      double z = heightAt(road, from + d);
      if ((z + height - z0) / d < steepest) {
        return d - LINE_OF_SIGHT_STEP;
      }
      steepest = Math.max(steepest, (z - z0) / d);
    }
    return most;
  }

  private static double heightAt(Centreline road, double station) {
    double at = road.wrap(station) / road.step();
    int i = (int) at % road.size();
    int q = i + 1 == road.size() ? 0 : i + 1;
    double part = at - Math.floor(at);
    return road.height()[i] + (road.height()[q] - road.height()[i]) * part;
  }
}
