package marvek.core.circuit;

import java.util.ArrayList;
import java.util.List;

/**
 * Finds the corners of a road from its curvature, by hysteresis.
 *
 * <p>A bend starts where |κ| passes 1/550 and counts when it passes 1/330 and turns the road by 7°
 * or more. Neighbours of one direction join when the road between them straightens for less than 25
 * m and less than 0.7 s at the speed of that bend; a change of direction always parts them. Two
 * maxima with a dip of a third between them are a double apex where the road turns by 50° or more.
 * Alternating corners closer than 30 m or 0.8 s are a complex.
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
  private static final double REAL_DIP = 0.67;
  // A bend that turns less than this has no room for two apexes.
  private static final double TWO_APEXES = Math.toRadians(50);
  // An ordinary grip and top speed, to turn lengths into times before a vehicle is known.
  private static final double USUAL_GRIP = 1.3 * 9.80665;
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
    List<int[]> spans = join(road, spans(road, straightest));
    List<Corner> corners = new ArrayList<>();
    for (int[] span : spans) {
      Corner corner = measure(road, span);
      if (corner.angle() >= smallest) {
        corners.add(corner);
      }
    }
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
  private static List<int[]> spans(Centreline road, int from) {
    List<int[]> spans = new ArrayList<>();
    int n = road.size();
    int start = -1;
    boolean counts = false;
    double sign = 0;
    for (int k = from; k <= from + n; k++) {
      double kappa = road.curvature()[k % n];
      boolean bends = Math.abs(kappa) >= BEND_STARTS && k < from + n;
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
      counts |= bends && Math.abs(kappa) >= BEND_COUNTS;
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

  private static Corner measure(Centreline road, int[] span) {
    int peak = span[0];
    double angle = 0;
    for (int k = span[0]; k <= span[1]; k++) {
      angle += curvature(road, k) * road.step();
      if (Math.abs(curvature(road, k)) > Math.abs(curvature(road, peak))) {
        peak = k;
      }
    }
    List<Double> apexes = apexes(road, span, Math.abs(angle));
    double radius = 1 / Math.abs(curvature(road, peak));
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
    int middle = plateau(road, span, first);
    if (second < 0 || turned < TWO_APEXES) {
      return List.of(station(road, middle));
    }
    int other = plateau(road, span, second);
    return List.of(station(road, Math.min(middle, other)), station(road, Math.max(middle, other)));
  }

  /** The middle of the run about a maximum that is as good as equal to it. */
  private static int plateau(Centreline road, int[] span, int peak) {
    double enough = 0.96 * Math.abs(curvature(road, peak));
    int from = peak;
    int to = peak;
    while (from > span[0] && Math.abs(curvature(road, from - 1)) >= enough) {
      from--;
    }
    while (to < span[1] && Math.abs(curvature(road, to + 1)) >= enough) {
      to++;
    }
    return (from + to) / 2;
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
      long members = java.util.Arrays.stream(complex).filter(g -> g == group).count();
      boolean chicane =
          group > 0 && members == 2 && c.angle() < Math.toRadians(100) && c.radius() < 70;
      out.add(
          new Corner(
              c.id(),
              c.number(),
              c.name(),
              c.left(),
              c.entry(),
              c.apexes(),
              c.exit(),
              c.radius(),
              c.angle(),
              chicane ? CornerKind.CHICANE : c.kind(),
              group));
    }
    return out;
  }

  private static List<Corner> numbered(List<Corner> corners) {
    List<Corner> out = new ArrayList<>();
    for (int i = 0; i < corners.size(); i++) {
      Corner c = corners.get(i);
      String number = Integer.toString(i + 1);
      out.add(
          new Corner(
              "c" + number,
              number,
              c.name(),
              c.left(),
              c.entry(),
              c.apexes(),
              c.exit(),
              c.radius(),
              c.angle(),
              c.kind(),
              c.complex()));
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
