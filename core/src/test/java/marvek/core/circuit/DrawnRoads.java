package marvek.core.circuit;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;

/**
 * Closed roads of straights, arcs and clothoids whose radii are known exactly, from 300 m to 21 km.
 * A part that turns the heading by a whole fraction of a round is driven as often as closes the lap
 * (each turn of it is the last one turned), and the parts that cross themselves are drawn again.
 * The same seed gives the same road.
 *
 * @param x metres east, every half metre
 * @param y metres north
 * @param arcs of the whole lap, in order
 */
public record DrawnRoads(double[] x, double[] y, List<Arc> arcs) {
  private static final double FINE = 0.5;

  /**
   * An even arc.
   *
   * @param from metres along the lap
   * @param to metres along the lap
   * @param radius metres
   * @param left whether it turns left
   * @param degrees turned by the whole bend, with the ways in and out
   */
  public record Arc(double from, double to, double radius, boolean left, double degrees) {
    /** Its middle. */
    public double middle() {
      return (from + to) / 2;
    }
  }

  /** Length of the lap, metres. */
  public double length() {
    return x.length * FINE;
  }

  /**
   * Draws a road.
   *
   * @param seed of its own
   * @param tightest radius, metres
   * @param widest radius, metres
   * @param bends in all, about
   */
  public static DrawnRoads of(long seed, double tightest, double widest, int bends) {
    for (int again = 0; again < 400; again++) {
      Random random = new Random(seed * 1000 + again);
      int parts = new int[] {2, 3, 2, 5}[random.nextInt(4)];
      DrawnRoads road = part(random, parts, tightest, widest, Math.max(2, bends / parts));
      if (road != null) {
        return road;
      }
    }
    throw new IllegalStateException("no road of seed " + seed);
  }

  private static DrawnRoads part(
      Random random, int parts, double tightest, double widest, int bends) {
    List<double[]> pieces = new ArrayList<>();
    double turned = 0;
    for (int b = 0; b < bends; b++) {
      double radius = tightest * Math.pow(widest / tightest, random.nextDouble());
      double degrees = 25 + 110 * random.nextDouble();
      double left = 360.0 / parts - turned;
      boolean last = b == bends - 1;
      double angle = last ? left : random.nextInt(3) == 0 ? -degrees : degrees;
      if (last && (Math.abs(angle) < 20 || Math.abs(angle) > 170)) {
        return null;
      }
      turned += angle;
      double way = Math.toRadians(Math.abs(angle)) * radius;
      double clothoid = Math.min(0.35 * way, (0.2 + 0.3 * random.nextDouble()) * radius);
      pieces.add(new double[] {radius, angle, clothoid});
      pieces.add(new double[] {(1 + 6 * random.nextDouble()) * Math.sqrt(radius * tightest)});
    }
    List<Arc> arcs = new ArrayList<>();
    List<Double> kappa = new ArrayList<>();
    for (int turn = 0; turn < parts; turn++) {
      for (double[] p : pieces) {
        if (p.length == 1) {
          run(kappa, p[0], 0, 0);
        } else {
          double k = Math.signum(p[1]) / p[0];
          run(kappa, p[2], 0, k);
          double from = kappa.size() * FINE;
          double as = run(kappa, Math.abs(Math.toRadians(p[1])) * p[0] - p[2], k, k);
          arcs.add(new Arc(from, kappa.size() * FINE, p[0] / as, k > 0, Math.abs(p[1])));
          run(kappa, p[2], k, 0);
        }
      }
    }
    return closed(kappa, arcs);
  }

  private static double run(List<Double> kappa, double length, double from, double to) {
    int n = Math.max(1, (int) Math.round(length / FINE));
    // So many steps turn by what the exact length would.
    double as = length / (n * FINE);
    for (int i = 0; i < n; i++) {
      kappa.add(as * (from + (to - from) * (i + 0.5) / n));
    }
    return as;
  }

  private static DrawnRoads closed(List<Double> kappa, List<Arc> arcs) {
    int n = kappa.size();
    double[] x = new double[n];
    double[] y = new double[n];
    double heading = 0;
    double px = 0;
    double py = 0;
    for (int i = 0; i < n; i++) {
      x[i] = px;
      y[i] = py;
      double k = kappa.get(i);
      px += FINE * Math.cos(heading + k * FINE / 2);
      py += FINE * Math.sin(heading + k * FINE / 2);
      heading += k * FINE;
    }
    if (Math.hypot(px, py) > 0.5) {
      throw new IllegalStateException("open by " + Math.hypot(px, py));
    }
    Coordinate[] ring = new Coordinate[n / 8 + 1];
    for (int i = 0; i < n / 8; i++) {
      ring[i] = new Coordinate(x[8 * i], y[8 * i]);
    }
    ring[n / 8] = ring[0].copy();
    // A road keeps clear of itself by its own width and more.
    var line = new GeometryFactory().createLineString(ring);
    return line.isSimple() ? new DrawnRoads(x, y, List.copyOf(arcs)) : null;
  }

  /** Points of the lap as a file: every so many metres, with white noise. */
  public byte[] csv(double spacing, double noise, long seed) {
    Random random = new Random(seed);
    int every = (int) Math.round(spacing / FINE);
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i + every / 2 < x.length; i += every) {
      text.append(
          String.format(
              Locale.ROOT,
              "%.4f,%.4f%n",
              x[i] + noise * random.nextGaussian(),
              y[i] + noise * random.nextGaussian()));
    }
    return text.toString().getBytes(StandardCharsets.UTF_8);
  }
}
