package marvek.core.logger;

import java.util.Arrays;
import java.util.Locale;
import java.util.Random;
import java.util.function.Consumer;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.RoadPosition;
import org.jspecify.annotations.Nullable;

/** Writes what a device would record of a drive. */
public final class Recorder {
  // Pressures at the hardest braking of a motorcycle: most of it is done in front.
  private static final double FRONT_BAR = 14;
  private static final double REAR_BAR = 5;

  /**
   * How exact the device is, as standard deviations of independent errors, and in what it is
   * steadily wrong.
   *
   * @param position m
   * @param speed m/s
   * @param pedals share
   * @param steering radians
   * @param brakeOffset share that the brake shows falsely at 60 m/s, growing with the square of
   *     speed
   * @param drift m by which positions wander off within a minute, together
   * @param lag seconds by which positions and their speed come later than all else
   */
  public record Noise(
      double position,
      double speed,
      double pedals,
      double steering,
      double brakeOffset,
      double drift,
      double lag) {
    /** A usual device: 0.5 m, 0.3 km/h, 0.5 % and 0.3°. */
    public static Noise usual() {
      return new Noise(0.5, 0.3 / 3.6, 0.005, Math.toRadians(0.3), 0, 0, 0);
    }

    /**
     * One whose positions wander by a metre and come 0.12 s late, with a brake that shows speed.
     */
    public static Noise worn() {
      return new Noise(0.3, 0.3 / 3.6, 0.01, Math.toRadians(0.6), 0.08, 1, 0.12);
    }

    /** A perfect device. */
    public static Noise none() {
      return new Noise(0, 0, 0, 0, 0, 0, 0);
    }
  }

  /**
   * How a device shows the pedals.
   *
   * @param deadBand share of its way over which a pedal shows nothing
   * @param curve power of the throttle's share that is shown; 1 where the throttle is told straight
   */
  public record Shown(double deadBand, double curve) {
    /** As they are. */
    public static Shown straight() {
      return new Shown(0, 1);
    }

    private double of(double share) {
      return Math.max(0, share - deadBand) / (1 - deadBand);
    }
  }

  private final Drive driven;
  private final Centreline road;
  private final @Nullable LocalPlane plane;
  private final Noise noise;
  private final Random chance;
  // Bumps and slip of their own, so that these channels leave the others as they are.
  private final Random bumps;
  private final Shown shown;
  private double wandered;
  private double eastOff;
  private double northOff;

  /**
   * A recorder of one drive. Of a motorcycle it writes the lean in place of the steering, and two
   * brakes.
   *
   * @param plane of the road's metres on the earth; null to write metres
   */
  public Recorder(
      Drive driven, Centreline road, @Nullable LocalPlane plane, Noise noise, Random chance) {
    this(driven, road, plane, noise, Shown.straight(), chance);
  }

  /** A recorder that shows pedals in its own way. */
  public Recorder(
      Drive driven,
      Centreline road,
      @Nullable LocalPlane plane,
      Noise noise,
      Shown shown,
      Random chance) {
    this.shown = shown;
    this.driven = driven;
    this.road = road;
    this.plane = plane;
    this.noise = noise;
    this.chance = chance;
    this.bumps = new Random(driven.time().length);
  }

  private record Sample(
      double time,
      double x,
      double y,
      double speed,
      double brake,
      double throttle,
      double steering,
      int gear,
      double revs,
      double along,
      double across,
      double lean,
      double front,
      double rear,
      double vertical) {}

  private Sample at(double t) {
    double[] time = driven.time();
    int k = Arrays.binarySearch(time, t);
    int j = Math.max(1, Math.min(time.length - 1, k < 0 ? -k - 1 : k));
    double u = Math.max(0, Math.min(1, (t - time[j - 1]) / (time[j] - time[j - 1])));
    double late = noise.lag();
    double s = at(driven.station(), t - late);
    double[] xy = RoadPosition.toPlane(road, s, at(driven.offset(), t - late));
    double v = mix(driven.speed(), j, u);
    wander(t);
    double off = noise.brakeOffset() * (v / 60) * (v / 60);
    return new Sample(
        t,
        xy[0] + eastOff + noise.position() * chance.nextGaussian(),
        xy[1] + northOff + noise.position() * chance.nextGaussian(),
        Math.max(0, at(driven.speed(), t - late) + noise.speed() * chance.nextGaussian()),
        Math.max(
            0, shown.of(mix(driven.brake(), j, u)) + off + noise.pedals() * chance.nextGaussian()),
        Math.max(
            0,
            Math.min(
                1,
                Math.pow(shown.of(mix(driven.throttle(), j, u)), shown.curve())
                    + noise.pedals() * chance.nextGaussian())),
        mix(driven.steering(), j, u) + noise.steering() * chance.nextGaussian(),
        (int) driven.gear()[j - 1],
        mix(driven.revs(), j, u) + 400 * noise.speed() * chance.nextGaussian(),
        driven.along()[j - 1] + 3 * noise.speed() * chance.nextGaussian(),
        driven.across()[j - 1] + 3 * noise.speed() * chance.nextGaussian(),
        mix(driven.lean(), j, u) + 2 * noise.steering() * bumps.nextGaussian(),
        Math.max(0, mix(driven.front(), j, u) + 2 * noise.speed() * bumps.nextGaussian()),
        Math.max(0, mix(driven.rear(), j, u) + 2 * noise.speed() * bumps.nextGaussian()),
        mix(driven.vertical(), j, u) + 10 * noise.speed() * bumps.nextGaussian());
  }

  private double at(double[] column, double t) {
    double[] time = driven.time();
    int k = Arrays.binarySearch(time, t);
    int j = Math.max(1, Math.min(time.length - 1, k < 0 ? -k - 1 : k));
    return mix(column, j, Math.max(0, Math.min(1, (t - time[j - 1]) / (time[j] - time[j - 1]))));
  }

  /** Positions wander off and come back, as satellites and the air do with them. */
  private void wander(double t) {
    if (noise.drift() > 0) {
      double keep = Math.exp(-Math.max(0, t - wandered) / 40);
      double push = noise.drift() * Math.sqrt(1 - keep * keep);
      eastOff = keep * eastOff + push * bumps.nextGaussian();
      northOff = keep * northOff + push * bumps.nextGaussian();
      wandered = t;
    }
  }

  private static double mix(double[] column, int j, double u) {
    return column[j - 1] + u * (column[j] - column[j - 1]);
  }

  /**
   * A table with a row a sample.
   *
   * @param rate samples a second
   * @param lines takes each line without its end
   */
  public void table(double rate, Consumer<String> lines) {
    String place = plane == null ? "x (m),y (m)" : "latitude (deg),longitude (deg)";
    boolean leans = driven.leans();
    lines.accept(
        "time (s),"
            + place
            + ",speed (km/h),"
            + (leans ? "front brake (bar),rear brake (bar)" : "brake (%)")
            + ",throttle (%),"
            + (leans ? "lean (deg)" : "steering (deg)")
            + ",gear,revs (rpm),ax (m/s2),ay (m/s2)"
            + ",wheel front (km/h),wheel rear (km/h),az (m/s2)");
    long count = (long) (driven.duration() * rate);
    for (long i = 0; i <= count; i++) {
      Sample s = at(i / rate);
      double[] p = plane == null ? new double[] {s.x(), s.y()} : latLon(plane, s);
      lines.accept(
          fixed(s.time(), 3)
              + ','
              + fixed(p[0], plane == null ? 3 : 8)
              + ','
              + fixed(p[1], plane == null ? 3 : 8)
              + ','
              + fixed(s.speed() * 3.6, 2)
              + ','
              + (leans
                  ? fixed(s.brake() * FRONT_BAR, 2) + ',' + fixed(s.brake() * REAR_BAR, 2)
                  : fixed(s.brake() * 100, 1))
              + ','
              + fixed(s.throttle() * 100, 1)
              + ','
              + fixed(Math.toDegrees(leans ? s.lean() : s.steering()), 2)
              + ','
              + s.gear()
              + ','
              + fixed(s.revs(), 0)
              + ','
              + fixed(s.along(), 2)
              + ','
              + fixed(s.across(), 2)
              + ','
              + fixed(s.front() * 3.6, 2)
              + ','
              + fixed(s.rear() * 3.6, 2)
              + ','
              + fixed(s.vertical(), 2));
    }
  }

  private static double[] latLon(LocalPlane plane, Sample s) {
    double[] lonLat = plane.toDegrees(s.x(), s.y());
    return new double[] {lonLat[1], lonLat[0]};
  }

  /**
   * NMEA 0183 sentences: RMC at the position's rate and, when asked for, a line of the pedals at
   * the other.
   *
   * @param rate fixes a second
   * @param pedalRate lines of pedals a second, 0 for none
   * @param lines takes each line with the seconds since the start at which it is due
   */
  public void nmea(
      double rate, double pedalRate, java.util.function.BiConsumer<Double, String> lines) {
    LocalPlane on = plane;
    if (on == null) {
      throw new IllegalArgumentException("a place on the earth is needed for NMEA 0183");
    }
    double step = 1 / Math.max(rate, pedalRate);
    long every = Math.max(1, Math.round(Math.max(rate, pedalRate) / rate));
    long count = (long) (driven.duration() / step);
    double start = 36_000;
    for (long i = 0; i <= count; i++) {
      double t = i * step;
      Sample s = at(t);
      double day = start + t;
      if (i % every == 0) {
        double[] p = latLon(on, s);
        lines.accept(
            t,
            sentence(
                String.format(
                    Locale.ROOT,
                    "GPRMC,%02d%02d%06.3f,A,%s,%s,%s,%s,%.3f,,160526,,,A",
                    (int) (day / 3600),
                    (int) (day / 60) % 60,
                    day % 60,
                    angle(p[0], 2),
                    p[0] < 0 ? "S" : "N",
                    angle(p[1], 3),
                    p[1] < 0 ? "W" : "E",
                    s.speed() * 3600 / 1852)));
      }
      if (pedalRate > 0) {
        lines.accept(
            t,
            sentence(
                "PMKV,"
                    + fixed(day, 3)
                    + ','
                    + fixed(s.brake(), 3)
                    + ','
                    + fixed(s.throttle(), 3)
                    + ','
                    + (driven.leans() ? "" : fixed(Math.toDegrees(s.steering()), 2))
                    + ','
                    + s.gear()
                    + ','
                    + fixed(s.revs(), 0)
                    + ','
                    + (driven.leans() ? fixed(Math.toDegrees(s.lean()), 2) : "")
                    + ','
                    + fixed(s.front() * 3.6, 2)
                    + ','
                    + fixed(s.rear() * 3.6, 2)
                    + ','
                    + fixed(s.vertical(), 2)));
      }
    }
  }

  private static String angle(double degrees, int digits) {
    double a = Math.abs(degrees);
    int whole = (int) a;
    double minutes = (a - whole) * 60;
    return String.format(Locale.ROOT, "%0" + digits + "d%09.6f", whole, minutes);
  }

  private static String sentence(String body) {
    int sum = 0;
    for (int i = 0; i < body.length(); i++) {
      sum ^= body.charAt(i);
    }
    return '$' + body + '*' + String.format(Locale.ROOT, "%02X", sum);
  }

  /** A decimal with so many digits, much quicker than a formatter. */
  static String fixed(double value, int digits) {
    long scale = 1;
    for (int i = 0; i < digits; i++) {
      scale *= 10;
    }
    long v = Math.round(Math.abs(value) * scale);
    StringBuilder b = new StringBuilder(16);
    if (value < 0 && v > 0) {
      b.append('-');
    }
    b.append(v / scale);
    if (digits > 0) {
      String part = Long.toString(v % scale);
      b.append('.').append("0".repeat(digits - part.length())).append(part);
    }
    return b.toString();
  }
}
