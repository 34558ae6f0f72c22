package marvek.core.circuit;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import marvek.core.units.Units;

/**
 * Finds the corners of a road from its curvature, by hysteresis.
 *
 * <p>A bend starts where |κ| passes 1/550 and counts when it passes 1/330 and turns the road by 7°
 * or more; and so does one that is nowhere as tight but turns the road by 20° or more over 2 s with
 * a mean of 1/1100. Neighbours of one direction join when the road between them straightens for
 * less than 25 m and less than 0.7 s at the speed of that bend; a change of direction always parts
 * them. Two maxima with a dip of a third between them are a double apex where the road turns by 50°
 * or more. Alternating corners closer than 30 m or 0.8 s are a complex; two short ones are a
 * chicane, and so are three with short pieces that bring the road back to its way.
 */
public final class CornerFinder {
  private static final double BEND_STARTS = 1 / 550.0;
  private static final double BEND_COUNTS = 1 / 330.0;
  private static final double SMALLEST_ANGLE = Math.toRadians(7);
  private static final double FAKED_OVER = 60;
  private static final double JOIN_LENGTH = 25;
  private static final double JOIN_TIME = 0.7;
  private static final double COMPLEX_LENGTH = 30;
  private static final double COMPLEX_TIME = 0.8;
  // Parts of a chicane are short, and three of them bring the road back to its way.
  private static final double PART_ANGLE = Math.toRadians(100);
  private static final double PART_RADIUS = 70;
  private static final double BACK = Math.toRadians(45);
  private static final double REAL_DIP = 0.67;
  // A bend that turns less than this has no room for two apexes.
  private static final double TWO_APEXES = Math.toRadians(50);
  // Shares of the greatest curvature that make the middle of a bend, and the even part of its arc.
  private static final double APEX = 0.9;
  private static final int ROUNDS = 4;
  private static final double SIXTEENTH = Math.PI / 8;
  private static final double ARC = 0.75;
  // A bend that is never tight is a corner where it loads the tyres for long and turns the road.
  private static final double LONG_STARTS = 1 / 1500.0;
  private static final double LONG_COUNTS = 1 / 1100.0;
  private static final double LONG_ANGLE = Math.toRadians(20);
  private static final double LONG_TIME = 2;
  // An ordinary grip and top speed, to turn lengths into times before a vehicle is known.
  private static final double USUAL_GRIP = 1.3 * Units.G;
  private static final double USUAL_TOP = 60;

  private CornerFinder() {}

  /** The corners of an exactly known road. */
  public static List<Corner> find(Centreline road) {
    return find(road, 0);
  }

  /**
   * The corners in driving order, numbered from the start/finish line.
   *
   * @param scatter of the points that the road was fitted to, metres; a bend must turn the road by
   *     more than such points could fake over 60 m
   */
  public static List<Corner> find(Centreline road, double scatter) {
    double smallest = SMALLEST_ANGLE + 4 * scatter / FAKED_OVER;
    int straightest = straightest(road);
    List<int[]> spans = join(road, spans(road, straightest, BEND_STARTS, BEND_COUNTS));
    List<Corner> corners = new ArrayList<>();
    for (int[] span : spans) {
      Corner corner = measure(road, span);
      if (corner.angle() >= smallest) {
        corners.add(corner);
      }
    }
    corners.addAll(longBends(road, straightest, corners));
    corners.sort((a, b) -> Double.compare(a.apexes().get(0), b.apexes().get(0)));
    return numbered(grouped(road, corners));
  }

  private static int straightest(Centreline road) {
    int best = 0;
    for (int i = 1; i < road.size(); i++) {
      if (Math.abs(road.curvature()[i]) < Math.abs(road.curvature()[best])) {
        best = i;
      }
    }
    return best;
  }

  /** Runs {from, to} of one direction, as indices that go on past the end of the lap. */
  private static List<int[]> spans(Centreline road, int from, double starts, double enough) {
    List<int[]> spans = new ArrayList<>();
    int n = road.size();
    int start = -1;
    boolean counts = false;
    double sign = 0;
    for (int k = from; k <= from + n; k++) {
      double kappa = road.curvature()[k % n];
      boolean bends = Math.abs(kappa) >= starts && k < from + n;
      if (start >= 0 && (!bends || Math.signum(kappa) != sign)) {
        if (counts) {
          spans.add(new int[] {start, k - 1});
        }
        start = -1;
        counts = false;
      }
      if (bends && start < 0) {
        start = k;
        sign = Math.signum(kappa);
      }
      counts |= bends && Math.abs(kappa) >= enough;
    }
    return spans;
  }

  private static List<int[]> join(Centreline road, List<int[]> spans) {
    List<int[]> joined = new ArrayList<>();
    for (int[] span : spans) {
      if (!joined.isEmpty()) {
        int[] last = joined.get(joined.size() - 1);
        double gap = (span[0] - last[1]) * road.step();
        boolean sameWay = curvature(road, last[1]) * curvature(road, span[0]) > 0;
        double tightest = Math.max(peak(road, last), peak(road, span));
        if (sameWay && gap < JOIN_LENGTH && gap / usualSpeed(tightest) < JOIN_TIME) {
          last[1] = span[1];
          continue;
        }
      }
      joined.add(span.clone());
    }
    return joined;
  }

  /** Bends of large radius that are driven as one, on the road that the corners leave. */
  private static List<Corner> longBends(Centreline road, int from, List<Corner> corners) {
    boolean[] taken = new boolean[road.size()];
    for (Corner c : corners) {
      int count = (int) Math.round(road.ahead(c.entry(), c.exit()) / road.step());
      for (int k = 0; k <= count; k++) {
        taken[(road.index(c.entry()) + k) % road.size()] = true;
      }
    }
    List<Corner> found = new ArrayList<>();
    for (int[] span : spans(road, from, LONG_STARTS, LONG_STARTS)) {
      int start = span[0];
      for (int k = span[0]; k <= span[1] + 1; k++) {
        if (k <= span[1] && !taken[k % road.size()]) {
          continue;
        }
        if (k - 1 > start) {
          Corner bend = measure(road, new int[] {start, k - 1});
          double length = (k - 1 - start) * road.step();
          boolean loads = bend.angle() / length >= LONG_COUNTS;
          double time = length / usualSpeed(bend.angle() / length);
          if (loads && bend.angle() >= LONG_ANGLE && time >= LONG_TIME) {
            found.add(bend);
          }
        }
        start = k + 1;
      }
    }
    return found;
  }

  private static Corner measure(Centreline road, int[] span) {
    double angle = 0;
    for (int k = span[0]; k <= span[1]; k++) {
      angle += curvature(road, k) * road.step();
    }
    List<Double> apexes = apexes(road, span, Math.abs(angle));
    double radius = 1 / evenPart(road, span).bend();
    double turn = Math.abs(angle);
    return new Corner(
        "",
        "",
        "",
        angle > 0,
        station(road, span[0]),
        apexes,
        station(road, span[1]),
        radius,
        turn,
        kind(radius, turn, apexes.size()),
        0);
  }

  static CornerKind kind(double radius, double turn, int apexes) {
    if (apexes > 1) {
      return CornerKind.DOUBLE_APEX;
    }
    if (turn >= Math.toRadians(130) && radius < 35) {
      return CornerKind.HAIRPIN;
    }
    if (turn < Math.toRadians(25) && radius > 60) {
      return CornerKind.KINK;
    }
    return radius > 90 ? CornerKind.SWEEPER : CornerKind.BEND;
  }

  /** The one or two greatest maxima that have a real dip between them. */
  private static List<Double> apexes(Centreline road, int[] span, double turned) {
    int first = span[0];
    for (int k = span[0]; k <= span[1]; k++) {
      if (Math.abs(curvature(road, k)) > Math.abs(curvature(road, first))) {
        first = k;
      }
    }
    int second = -1;
    double best = 0;
    for (int direction : new int[] {-1, 1}) {
      double dip = Math.abs(curvature(road, first));
      for (int k = first; k >= span[0] && k <= span[1]; k += direction) {
        double kappa = Math.abs(curvature(road, k));
        dip = Math.min(dip, kappa);
        boolean real =
            dip < REAL_DIP * kappa && kappa > BEND_COUNTS && Math.abs(k - first) * road.step() > 15;
        if (real && kappa > best) {
          best = kappa;
          second = k;
        }
      }
    }
    if (second < 0 || turned < TWO_APEXES) {
      return List.of(station(road, plateau(road, span, first, span[1] - span[0])));
    }
    int apart = Math.abs(second - first) / 2;
    int middle = plateau(road, span, first, apart);
    int other = plateau(road, span, second, apart);
    return List.of(station(road, Math.min(middle, other)), station(road, Math.max(middle, other)));
  }

  /**
   * The middle of the run about a maximum that is as good as equal to it, in the mean over a
   * sixteenth of a round, which does not ring where an arc begins.
   *
   * @param most indices to either side that are looked at
   */
  private static int plateau(Centreline road, int[] span, int peak, int most) {
    double over = SIXTEENTH / Math.abs(curvature(road, peak));
    int reach = Math.min(most, (int) (over / road.step()));
    double[] mean = mean(road, span, 2 * Math.min(over / 2, most * road.step()));
    int top = peak - span[0];
    for (int k = top - reach; k <= top + reach; k++) {
      if (k >= 0 && k < mean.length && mean[k] > mean[top]) {
        top = k;
      }
    }
    int[] run = run(mean, top, APEX);
    int middle = span[0] + (run[0] + run[1]) / 2;
    return Math.max(peak - most, Math.min(peak + most, middle));
  }

  /** The run about a place that has a share of what stands there. */
  private static int[] run(double[] values, int at, double share) {
    double enough = share * values[at];
    int from = at;
    int to = at;
    while (from > 0 && values[from - 1] >= enough) {
      from--;
    }
    while (to < values.length - 1 && values[to + 1] >= enough) {
      to++;
    }
    return new int[] {from, to};
  }

  /**
   * An even part of a road.
   *
   * @param from first index
   * @param to last index, which may go on past the end of the lap
   * @param bend mean of |κ| over it, 1/m
   */
  record Even(int from, int to, double bend) {}

  /**
   * The even part of a corner's arc: the run about its tightest place that bends nearly as much as
   * that. Looked for in the mean over a sixteenth of a round, as the tightest sample alone is the
   * ripple of a fit, which is largest where an arc begins and ends, and larger where points
   * scatter.
   *
   * @param span first and last index of the corner, which may go on past the end of the lap
   */
  static Even evenPart(Centreline road, int[] span) {
    double turned = 0;
    for (int k = span[0]; k <= span[1]; k++) {
      turned += Math.abs(curvature(road, k)) * road.step();
    }
    double bend = turned / ((span[1] - span[0] + 1) * road.step());
    Even even = new Even(span[0], span[1], bend);
    for (int round = 0; round < ROUNDS; round++) {
      double[] mean = mean(road, span, SIXTEENTH / even.bend());
      int peak = 0;
      for (int k = 0; k < mean.length; k++) {
        peak = mean[k] > mean[peak] ? k : peak;
      }
      int[] run = run(mean, peak, ARC);
      // Without its ends, which reach into the ways in and out.
      int end = (run[1] - run[0]) / 6;
      even = even(road, span[0] + run[0] + end, span[0] + run[1] - end);
    }
    return even;
  }

  private static Even even(Centreline road, int from, int to) {
    double sum = 0;
    for (int k = from; k <= to; k++) {
      sum += Math.abs(curvature(road, k));
    }
    return new Even(from, to, sum / (to - from + 1));
  }

  /** Mean bend over a length about every index of a span, inside the span. */
  private static double[] mean(Centreline road, int[] span, double over) {
    int n = span[1] - span[0] + 1;
    double[] sum = new double[n + 1];
    for (int k = 0; k < n; k++) {
      sum[k + 1] = sum[k] + Math.abs(curvature(road, span[0] + k));
    }
    int reach = (int) Math.min(n / 4.0, over / 2 / road.step());
    double[] mean = new double[n];
    for (int k = 0; k < n; k++) {
      int a = Math.max(0, k - reach);
      int b = Math.min(n, k + reach + 1);
      mean[k] = (sum[b] - sum[a]) / (b - a);
    }
    return mean;
  }

  private static List<Corner> grouped(Centreline road, List<Corner> corners) {
    int n = corners.size();
    int[] complex = new int[n];
    int groups = 0;
    for (int i = 0; i + 1 < n; i++) {
      Corner a = corners.get(i);
      Corner b = corners.get(i + 1);
      double gap = Math.max(0, road.apart(a.exit(), b.entry()));
      double pace = usualSpeed(1 / Math.max(a.radius(), b.radius()));
      boolean near = gap < COMPLEX_LENGTH || gap / pace < COMPLEX_TIME;
      boolean counted = a.kind() != CornerKind.KINK && b.kind() != CornerKind.KINK;
      if (a.left() != b.left() && near && counted) {
        if (complex[i] == 0) {
          complex[i] = ++groups;
        }
        complex[i + 1] = complex[i];
      }
    }
    List<Corner> out = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      Corner c = corners.get(i);
      int group = complex[i];
      List<Corner> all =
          IntStream.range(0, n)
              .filter(k -> group > 0 && complex[k] == group)
              .mapToObj(corners::get)
              .toList();
      boolean chicane = all.size() == 2 && part(c) || all.size() == 3 && thereAndBack(road, all);
      out.add(c.grouped(chicane ? CornerKind.CHICANE : c.kind(), group));
    }
    return out;
  }

  private static boolean part(Corner c) {
    return c.angle() < PART_ANGLE && c.radius() < PART_RADIUS;
  }

  /** Whether three linked corners with short pieces between them bring the road back to its way. */
  private static boolean thereAndBack(Centreline road, List<Corner> three) {
    double turn = 0;
    for (int k = 0; k < three.size(); k++) {
      Corner c = three.get(k);
      turn += c.left() ? c.angle() : -c.angle();
      double gap = k == 0 ? 0 : road.apart(three.get(k - 1).exit(), c.entry());
      if (!part(c) || gap > COMPLEX_LENGTH) {
        return false;
      }
    }
    return Math.abs(turn) < BACK;
  }

  private static List<Corner> numbered(List<Corner> corners) {
    List<Corner> out = new ArrayList<>();
    for (int i = 0; i < corners.size(); i++) {
      String number = Integer.toString(i + 1);
      out.add(corners.get(i).numbered("c" + number, number));
    }
    return out;
  }

  private static double usualSpeed(double curvature) {
    return Math.min(USUAL_TOP, Math.sqrt(USUAL_GRIP / Math.max(curvature, 1e-6)));
  }

  private static double peak(Centreline road, int[] span) {
    double peak = 0;
    for (int k = span[0]; k <= span[1]; k++) {
      peak = Math.max(peak, Math.abs(curvature(road, k)));
    }
    return peak;
  }

  private static double curvature(Centreline road, int k) {
    return road.curvature()[k % road.size()];
  }

  private static double station(Centreline road, int k) {
    return (k % road.size()) * road.step();
  }
}
