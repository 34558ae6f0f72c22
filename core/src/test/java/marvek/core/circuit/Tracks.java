package marvek.core.circuit;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/** Roads made of straights, clothoids and arcs, for tests. Angles in degrees, positive left. */
public final class Tracks {
  private double x;
  private double y;
  private double heading;
  private final double step;
  private final List<double[]> points = new ArrayList<>();

  private Tracks(double step) {
    this.step = step;
  }

  public static Tracks every(double step) {
    return new Tracks(step);
  }

  public Tracks straight(double length) {
    return piece(length, 0, 0);
  }

  /** An arc without transitions. */
  public Tracks arc(double radius, double degrees) {
    double k = Math.signum(degrees) / radius;
    return piece(Math.abs(Math.toRadians(degrees)) * radius, k, k);
  }

  /** A bend with a clothoid into and out of it. */
  public Tracks bend(double radius, double degrees, double transition) {
    double k = Math.signum(degrees) / radius;
    double middle = Math.abs(Math.toRadians(degrees)) * radius - transition;
    return piece(transition, 0, k).piece(middle, k, k).piece(transition, k, 0);
  }

  private Tracks piece(double length, double from, double to) {
    int n = Math.max(1, (int) Math.round(length / step * 20));
    double ds = length / n;
    for (int i = 0; i < n; i++) {
      if (i % 20 == 0) {
        points.add(new double[] {x, y});
      }
      double k = from + (to - from) * (i + 0.5) / n;
      x += ds * Math.cos(heading + k * ds / 2);
      y += ds * Math.sin(heading + k * ds / 2);
      heading += k * ds;
    }
    return this;
  }

  /** How far the end is from the start. */
  public double gap() {
    return Math.hypot(x, y);
  }

  public List<double[]> points() {
    return points;
  }

  public Tracks noisy(double sigma, long seed) {
    Random random = new Random(seed);
    points.forEach(
        p -> {
          p[0] += sigma * random.nextGaussian();
          p[1] += sigma * random.nextGaussian();
        });
    return this;
  }

  public byte[] csv() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    points.forEach(p -> text.append(String.format(Locale.ROOT, "%.4f,%.4f%n", p[0], p[1])));
    return text.toString().getBytes(StandardCharsets.UTF_8);
  }

  /** Longitude and latitude on the ellipsoid about a place at sea. */
  public byte[] geoJson() {
    LocalPlane plane = new LocalPlane(-29.4, 38.2);
    StringBuilder text = new StringBuilder("{\"type\":\"LineString\",\"coordinates\":[");
    for (double[] p : points) {
      double[] degrees = plane.toDegrees(p[0], p[1]);
      text.append(String.format(Locale.ROOT, "[%.8f,%.8f],", degrees[0], degrees[1]));
    }
    text.setCharAt(text.length() - 1, ']');
    return text.append('}').toString().getBytes(StandardCharsets.UTF_8);
  }

  public CircuitReading survey() {
    return CircuitReader.read(OutlineFile.read(csv()), CircuitReader.Choices.asItComes());
  }

  /** Closes the lap far outside with two wide bends and two straights, then fits it. */
  public CircuitReading survey(double away) {
    double[] home = points.get(0);
    double[] end = {x, y};
    double dir = heading;
    // A wide way home: along the end's heading, round a far circle, back along the start's.
    double[] a = {end[0] + away * Math.cos(dir), end[1] + away * Math.sin(dir)};
    double[] b = {home[0] - away, home[1]};
    double[][] control = {
      {end[0], end[1]}, {2 * a[0] - end[0], 2 * a[1] - end[1]}, {2 * b[0] - home[0], b[1]}, home
    };
    for (int i = 0; i < 400; i++) {
      double t = i / 400.0;
      double u = 1 - t;
      double[] p = new double[2];
      for (int d = 0; d < 2; d++) {
        p[d] =
            u * u * u * control[0][d]
                + 3 * u * u * t * control[1][d]
                + 3 * u * t * t * control[2][d]
                + t * t * t * control[3][d];
      }
      points.add(p);
    }
    return CircuitReader.read(
        OutlineFile.read(csv()), new CircuitReader.Choices(false, 0, 10, true));
  }

  /** Two straights and two half circles. */
  public static Tracks stadium(double straight, double radius, double step) {
    return every(step).straight(straight).arc(radius, 180).straight(straight).arc(radius, 180);
  }

  /** A closed lap of four 90° bends, anticlockwise. */
  public static Tracks square(double straight, double radius, double step) {
    Tracks t = every(step);
    for (int i = 0; i < 4; i++) {
      t.straight(straight).bend(radius, 90, 0.4 * radius);
    }
    return t;
  }
}
