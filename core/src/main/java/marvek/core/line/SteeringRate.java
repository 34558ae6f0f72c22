package marvek.core.line;

import marvek.core.lap.LapSlope;
import marvek.core.lap.Path;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;

/**
 * How quickly hands and machine can follow a line: the rate of the steering wheel for cars, of the
 * roll for motorcycles. Usual values: a steering ratio of 14 and 400° of wheel per second; 150° of
 * roll per second (common practice, no source).
 *
 * @param rolls whether the machine leans into its turns
 * @param perCurvature radians of steering wheel for 1/m of curvature; unused where it rolls
 * @param most rad/s
 */
public record SteeringRate(boolean rolls, double perCurvature, double most) {
  /** Steps over which a rate is taken: hands do not feel what is shorter. */
  public static final int OVER = 5;

  // Square up to here, straight beyond, as a share of the limit.
  private static final double BENT = 0.5;
  private static final double RATIO = 14;
  private static final double WHEEL = Math.toRadians(400);
  private static final double ROLL = Math.toRadians(150);

  /** What is usual for a vehicle. */
  public static SteeringRate usual(Vehicle vehicle) {
    boolean rolls = vehicle.kind() == VehicleKind.MOTORCYCLE;
    return new SteeringRate(rolls, RATIO * vehicle.wheelbase(), rolls ? ROLL : WHEEL);
  }

  /** The rate that a lap asks for from each station to the next, rad/s, unsigned. */
  public double[] asked(Path path, double[] speed) {
    double[] out = new double[speed.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.abs(rate(path, speed, i));
    }
    return out;
  }

  private double angle(double v, double kappa) {
    return rolls ? Math.atan(v * v * kappa / Units.G) : perCurvature * kappa;
  }

  private static int end(int i, int n) {
    return (i + OVER) % n;
  }

  private double rate(Path path, double[] speed, int i) {
    int q = end(i, speed.length);
    double turned = angle(speed[q], path.curvature()[q]) - angle(speed[i], path.curvature()[i]);
    return turned * (speed[i] + speed[q]) / (2 * OVER * path.step()[i]);
  }

  /**
   * What asking for more than there is costs: {@code weight} · Σ (excess over the limit as a share
   * of it)² · seconds, for each station, with its slopes added to those given.
   *
   * @param bySpeed slope by speed, added to
   * @param byCurvature slope by curvature, added to
   */
  double[] excess(Path path, LapSlope lap, double weight, double[] bySpeed, double[] byCurvature) {
    double[] v = lap.speed();
    int n = v.length;
    double[] cost = new double[n];
    for (int i = 0; i < n; i++) {
      int q = end(i, n);
      double rate = rate(path, v, i);
      double over = Math.abs(rate) / most - 1;
      if (over <= 0) {
        continue;
      }
      double ds = path.step()[i];
      double bent = Math.min(over, BENT);
      cost[i] = weight * bent * (2 * over - bent) * lap.seconds()[i];
      double byRate = 2 * weight * bent * lap.seconds()[i] / most * Math.signum(rate);
      double pace = (v[i] + v[q]) / (2 * OVER * ds);
      add(path, v, i, -byRate * pace, bySpeed, byCurvature);
      add(path, v, q, byRate * pace, bySpeed, byCurvature);
      bySpeed[i] += byRate * rate / (v[i] + v[q]);
      bySpeed[q] += byRate * rate / (v[i] + v[q]);
      int after = i + 1 == n ? 0 : i + 1;
      bySpeed[i] -= cost[i] / (v[i] + v[after]);
      bySpeed[after] -= cost[i] / (v[i] + v[after]);
    }
    return cost;
  }

  private void add(
      Path path, double[] v, int i, double by, double[] bySpeed, double[] byCurvature) {
    if (!rolls) {
      byCurvature[i] += by * perCurvature;
      return;
    }
    double lean = v[i] * v[i] * path.curvature()[i] / Units.G;
    double slope = by / (1 + lean * lean);
    byCurvature[i] += slope * v[i] * v[i] / Units.G;
    bySpeed[i] += slope * 2 * v[i] * path.curvature()[i] / Units.G;
  }
}
