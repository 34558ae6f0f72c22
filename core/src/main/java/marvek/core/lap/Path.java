package marvek.core.lap;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import org.jspecify.annotations.Nullable;

/**
 * A line over the road, sampled at the road's stations. Arrays are closed and not to be changed by
 * whoever reads them.
 *
 * @param offset metres to the left of the centreline
 * @param step metres along the path from each station to the next
 * @param curvature 1/m of the path, positive in a left turn
 * @param gradient radians, positive uphill
 * @param verticalCurvature 1/m, positive in a dip
 * @param crossfall radians, positive when the left is lower
 * @param heading radians, anticlockwise from east
 * @param grip what the ground leaves of the tyres' grip under the path, 1 for good tarmac
 * @param wind factor on the day's wind
 * @param push of a side wind, m/s² to the left
 * @param axles what two axles leave of the grip of one point; null to take them as one
 * @param slant what gradient and crossfall do, worked out once: it is asked for at every step of
 *     every lap
 */
public record Path(
    double[] offset,
    double[] step,
    double[] curvature,
    double[] gradient,
    double[] verticalCurvature,
    double[] crossfall,
    double[] heading,
    double[] grip,
    double[] wind,
    double[] push,
    @Nullable AxleShares axles,
    Slant slant) {

  /** With what its gradient and crossfall do. */
  public Path(
      double[] offset,
      double[] step,
      double[] curvature,
      double[] gradient,
      double[] verticalCurvature,
      double[] crossfall,
      double[] heading,
      double[] grip,
      double[] wind,
      double[] push,
      @Nullable AxleShares axles) {
    this(
        offset,
        step,
        curvature,
        gradient,
        verticalCurvature,
        crossfall,
        heading,
        grip,
        wind,
        push,
        axles,
        Slant.of(gradient, crossfall));
  }

  /** A path over good tarmac. */
  public Path(
      double[] offset,
      double[] step,
      double[] curvature,
      double[] gradient,
      double[] verticalCurvature,
      double[] crossfall,
      double[] heading) {
    this(
        offset,
        step,
        curvature,
        gradient,
        verticalCurvature,
        crossfall,
        heading,
        Ground.good(offset.length).left());
  }

  /** A path in calm air. */
  public Path(
      double[] offset,
      double[] step,
      double[] curvature,
      double[] gradient,
      double[] verticalCurvature,
      double[] crossfall,
      double[] heading,
      double[] grip) {
    this(
        offset,
        step,
        curvature,
        gradient,
        verticalCurvature,
        crossfall,
        heading,
        grip,
        Ground.good(offset.length).left(),
        new double[offset.length],
        null);
  }

  /** What the tyres have to turn with at a station: the grip of the ground by two axles. */
  public double turning(int i) {
    return axles == null ? grip[i] : grip[i] * axles.turning()[i];
  }

  /** What they have to brake with. */
  public double braking(int i) {
    return axles == null ? grip[i] : grip[i] * axles.braking()[i];
  }

  /** What they have to drive with. */
  public double driving(int i) {
    return axles == null ? grip[i] : grip[i] * axles.driving()[i];
  }

  /** Number of stations. */
  public int size() {
    return offset.length;
  }

  /** Its stations as a closed loop. */
  public Loop loop() {
    return new Loop(size());
  }

  /** The same line with another share of grip under it. */
  public Path withGrip(double[] share) {
    return new Path(
        offset,
        step,
        curvature,
        gradient,
        verticalCurvature,
        crossfall,
        heading,
        share,
        wind,
        push,
        axles,
        slant);
  }

  /** The same line up and down other slopes, in radians. */
  public Path withGradient(double[] slopes) {
    return new Path(
        offset,
        step,
        curvature,
        slopes,
        verticalCurvature,
        crossfall,
        heading,
        grip,
        wind,
        push,
        axles);
  }

  /** Length of the path in metres. */
  public double length() {
    double sum = 0;
    for (double d : step) {
      sum += d;
    }
    return sum;
  }

  /** The middle of the road. */
  public static Path middle(Centreline road) {
    return over(road, new double[road.size()]);
  }

  /** The path with the given offsets on good tarmac. */
  public static Path over(Centreline road, double[] offset) {
    return over(road, offset, Ground.good(road.size()));
  }

  /**
   * The path with the given offsets.
   *
   * <p>Curvature from the moving frame of the centreline: with a = 1 − nκ, b = n′, κ_path = (a(b′ +
   * aκ) − b(a′ − bκ)) / (a² + b²)^{3/2}; derivatives by central differences over the step.
   *
   * @param offset metres to the left at each station
   * @param ground what the road leaves of the grip
   */
  public static Path over(Centreline road, double[] offset, Ground ground) {
    int n = road.size();
    double h = road.step();
    double[] step = new double[n];
    double[] curvature = new double[n];
    double[] pace = new double[n];
    for (int i = 0; i < n; i++) {
      int p = i == 0 ? n - 1 : i - 1;
      int q = i + 1 == n ? 0 : i + 1;
      double k = road.curvature()[i];
      double dk = (road.curvature()[q] - road.curvature()[p]) / (2 * h);
      double d1 = (offset[q] - offset[p]) / (2 * h);
      double d2 = (offset[q] - 2 * offset[i] + offset[p]) / (h * h);
      double a = 1 - offset[i] * k;
      double da = -d1 * k - offset[i] * dk;
      double square = a * a + d1 * d1;
      pace[i] = Math.sqrt(square);
      curvature[i] = (a * (d2 + a * k) - d1 * (da - d1 * k)) / (square * pace[i]);
    }
    for (int i = 0; i < n; i++) {
      step[i] = h * (pace[i] + pace[i + 1 == n ? 0 : i + 1]) / 2;
    }
    Ground.Lie lie = ground.lie();
    Ground.SideWind side = ground.push();
    return new Path(
        offset.clone(),
        step,
        curvature,
        road.gradient(),
        lie == null ? road.verticalCurvature() : lie.verticalCurvature(road, offset),
        lie == null ? road.crossfall() : lie.crossfall(road, offset),
        road.heading(),
        ground.under(road, offset),
        lie == null ? Ground.good(n).left() : lie.wind(),
        side == null ? new double[n] : side.push(),
        ground.axles());
  }
}
