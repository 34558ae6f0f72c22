package marvek.core.technique;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.QuickestLine;
import marvek.core.line.Room;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Things;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * The line that the schools chosen for a corner ask for: the quickest that passes where they want
 * it, leaving and joining the lap's own line on the straights before and after.
 *
 * @param path the whole lap, changed near the corner
 * @param line what it does in the corner
 */
public record SchoolLine(Path path, CornerLine line) {
  private static final double PIN = 0.03;
  // Metres before and after a place held to, over which the room narrows and widens.
  private static final double SLOPE = 15;
  // How near a line follows what a share given away asks for, metres.
  private static final double FOLLOWED = 0.15;
  private static final double LATE = 0.66;
  private static final double EARLY = 0.34;
  private static final double ONE_LATE = 0.74;
  private static final double WIDE_BETWEEN = 0.35;
  private static final double TIGHT_BAND = 0.5;
  private static final double KEEP_AWAY = 0.6;
  private static final double RUN_UP = 110;
  private static final double DEEPEST = 2.5;
  private static final double NEAR_CORNER = 15;
  // Seconds that an edge must win to be used, and by which two lines are as good as each other.
  private static final double PAYS = 0.003;
  private static final double ALIKE = 0.012;
  // Metres off the outer edge from which on it is not the edge that a line is led by.
  private static final double FAR_OFF = 2.5;
  // Metres that a line needs to be led to the outer edge.
  private static final double LED = 40;
  // How near a line keeps to the way in which it is to cross a straight, metres.
  private static final double ACROSS_BAND = 0.75;
  // m/s² across with which a straight is crossed at once, and the most of it that this may take.
  private static final double ACROSS_AT = 4;
  private static final double MOST_OF_STRAIGHT = 0.6;

  /**
   * What a line is laid over.
   *
   * @param limits of the vehicle on the day
   * @param speed of the lap at each station, m/s, with which the stretch is entered and left
   * @param boostBelow m/s up to which the lap boosts
   */
  public record Setting(
      Centreline road,
      Ground ground,
      Limits limits,
      double[] speed,
      double boostBelow,
      Things things) {
    Vehicle vehicle() {
      return limits.vehicle();
    }

    /**
     * The same with every kerb, and all ground beyond the edge, opened that may and is asked for.
     */
    Setting opened(List<Corner> corners, List<School> schools) {
      List<Edge> edges =
          Edges.all(road, corners, things, vehicle()).stream()
              .filter(e -> schools.contains(e.kerb() ? School.ALL_KERBS : School.ALL_BEYOND))
              .toList();
      return new Setting(
          road, Edges.open(road, ground, edges, vehicle()), limits, speed, boostBelow, things);
    }

    /** Seconds that a lap on a line takes. */
    double seconds(SchoolLine line) {
      return LapSimulator.lap(line.path(), limits, boostBelow).lapTime();
    }
  }

  /** Whether any of the choices changes the line. */
  public static boolean bends(List<School> schools) {
    return schools.stream()
        .anyMatch(
            s ->
                switch (s.question()) {
                  case LINE, WIDTH, CROSSING, APEX, LINKED, KERBS, BEYOND -> true;
                  default -> false;
                });
  }

  /**
   * Lays the line.
   *
   * @param base the lap's own line
   * @param lines what it does in each corner
   * @param c place of the corner in the list
   * @param givenAway how much of a linked corner is given away, 0 to 1: the bending that the line
   *     takes on there counts for less and less against that in the others
   */
  public static SchoolLine of(
      Setting on,
      List<Corner> corners,
      Path base,
      List<CornerLine> lines,
      int c,
      List<School> schools,
      double givenAway) {
    Builder plain = asked(on, corners, base, lines, c, schools, givenAway);
    if (!opens(schools)) {
      return plain.own();
    }
    Setting with = on.opened(corners, schools);
    Builder open = asked(with, corners, base, lines, c, schools, givenAway);
    if (!open.free()) {
      return open.lay(null);
    }
    SchoolLine off = plain.own();
    // Whoever may use an edge may leave it: that line is where the search begins as well.
    SchoolLine anew = open.lay(null);
    SchoolLine from = open.lay(off.path().offset());
    double own = with.seconds(off);
    double seconds = with.seconds(anew);
    double other = with.seconds(from);
    if (Math.min(seconds, other) > own - PAYS) {
      return off;
    }
    // Of two that are nearly as good the one that was begun with the least bending.
    return seconds < own - PAYS && seconds < other + ALIKE ? anew : from;
  }

  private static boolean opens(List<School> schools) {
    return schools.contains(School.ALL_KERBS) || schools.contains(School.ALL_BEYOND);
  }

  private static Builder asked(
      Setting on,
      List<Corner> corners,
      Path base,
      List<CornerLine> lines,
      int c,
      List<School> schools,
      double givenAway) {
    Builder builder = new Builder(on, corners, base, lines, c);
    for (School school : schools) {
      builder.take(school, givenAway);
    }
    return builder;
  }

  /**
   * A line that was laid for another day, on the ground of this one: it passes where it did.
   *
   * @param laid on the same line of the lap
   */
  public static SchoolLine kept(
      Setting on, List<Corner> corners, List<School> schools, SchoolLine laid) {
    Setting with = opens(schools) ? on.opened(corners, schools) : on;
    return new SchoolLine(Path.over(on.road(), laid.path().offset(), with.ground()), laid.line());
  }

  /** First and last place in the list of the complex that a corner belongs to. */
  public static int[] complex(List<Corner> corners, int c) {
    int group = corners.get(c).complex();
    int first = c;
    int last = c;
    while (group != 0 && first > 0 && corners.get(first - 1).complex() == group) {
      first--;
    }
    while (group != 0 && last + 1 < corners.size() && corners.get(last + 1).complex() == group) {
      last++;
    }
    return new int[] {first, last};
  }

  /**
   * Places in the list of the corners that a way of linking gives away; empty outside complexes.
   */
  public static List<Integer> givenAway(List<Corner> corners, int c, School school) {
    int[] ends = complex(corners, c);
    int count = ends[1] - ends[0] + 1;
    if (count < 2) {
      return List.of();
    }
    return switch (school) {
      case GIVE_FIRST -> List.of(ends[0]);
      case GIVE_SECOND -> List.of(ends[1]);
      // Of two, each gives a little.
      case GIVE_MIDDLE -> count == 2 ? List.of(ends[0], ends[1]) : List.of(ends[0] + count / 2);
      default -> List.of();
    };
  }

  /** Station at which a corner has turned through a share of its angle. */
  public static double turned(Centreline road, Corner corner, double share) {
    int first = road.index(corner.entry());
    int count = (int) Math.max(1, road.ahead(corner.entry(), corner.exit()) / road.step());
    double whole = 0;
    for (int k = 0; k <= count; k++) {
      whole += Math.abs(road.curvature()[road.loop().at(first + k)]);
    }
    double sum = 0;
    for (int k = 0; k <= count; k++) {
      sum += Math.abs(road.curvature()[road.loop().at(first + k)]);
      if (sum >= share * whole) {
        return road.wrap((first + k) * road.step());
      }
    }
    return corner.exit();
  }

  /**
   * A straight that is crossed from one side of the road to the other.
   *
   * @param from station where the corner before is run out of
   * @param metres to where the line comes nearest to the outer edge of the next
   * @param across metres to the left
   * @param atOnce metres along that crossing takes where it is done at once
   * @param turns radians that the road turns on the way, to either side
   */
  public record Crossing(double from, double metres, double across, double atOnce, double turns) {
    /** Share of the way across that is done so many metres along. */
    double done(double along, boolean wholeWay) {
      double share = Math.max(0, Math.min(1, along / (wholeWay ? metres : atOnce)));
      return (1 - Math.cos(Math.PI * share)) / 2;
    }
  }

  /**
   * The straight before a corner.
   *
   * @param speed of the lap, m/s
   * @param offset of the lap's line
   */
  public static Crossing crossing(
      Centreline road,
      List<Corner> corners,
      List<CornerLine> lines,
      int c,
      double[] speed,
      double[] offset) {
    double from = lines.get((c + lines.size() - 1) % lines.size()).exit();
    double most = road.ahead(from, lines.get(c).apexes().get(0));
    double outwards = corners.get(c).left() ? -1 : 1;
    double metres = 0;
    double to = from;
    for (double along = 0; along <= most; along += road.step()) {
      double station = road.wrap(from + along);
      double further = offset[road.index(station)] - offset[road.index(to)];
      if (outwards * further > 0) {
        to = station;
        metres = along;
      }
    }
    double across = offset[road.index(to)] - offset[road.index(from)];
    double seconds = Math.PI * Math.sqrt(Math.abs(across) / (2 * ACROSS_AT));
    double atOnce = Math.min(MOST_OF_STRAIGHT * metres, seconds * speed[road.index(from)]);
    double turns =
        road.loop()
            .between(road.index(from), road.index(to))
            .indices()
            .mapToDouble(i -> Math.abs(road.curvature()[i]) * road.step())
            .sum();
    return new Crossing(from, Math.max(1, metres), across, Math.max(1, atOnce), turns);
  }

  /**
   * Where a lap's own line comes nearest to the outer edge before a corner's apex and after it.
   *
   * @param station where it does
   * @param off metres that it keeps off the edge there
   */
  public record Outermost(double station, double off) {}

  /**
   * The places at which a corner's line is outermost: where it comes near the edge, and there is
   * room to lead it there.
   */
  public static List<Outermost> outermost(
      Setting on, List<Corner> corners, Path base, List<CornerLine> lines, int c) {
    return new Builder(on, corners, base, lines, c).outermost();
  }

  private static final class Builder {
    private final Setting on;
    private final Centreline road;
    private final List<Corner> corners;
    private final Path base;
    private final List<CornerLine> lines;
    private final int c;
    private final Room whole;
    private final double[] lower;
    private final double[] upper;
    private final double[] weight;
    private int first;
    private int last;
    private boolean given;
    private boolean crosses;

    Builder(Setting on, List<Corner> corners, Path base, List<CornerLine> lines, int c) {
      this.on = on;
      this.road = on.road();
      this.corners = corners;
      this.base = base;
      this.lines = lines;
      this.c = c;
      Room room = Room.on(road, on.vehicle(), on.ground());
      whole = room;
      lower = room.lower().clone();
      upper = room.upper().clone();
      weight = new double[road.size()];
      Arrays.fill(weight, 1);
      first = c;
      last = c;
    }

    void take(School school, double givenAway) {
      Corner corner = corners.get(c);
      switch (school) {
        case TWO_APEXES -> {
          double one = corner.apexes().size() == 2 ? corner.apexes().get(0) : share(0.24);
          double two = corner.apexes().size() == 2 ? corner.apexes().get(1) : share(0.78);
          pin(corner, one, 0);
          pin(corner, two, 0);
          double middle = one + road.ahead(one, two) / 2;
          away(corner, middle - 4, middle + 4, WIDE_BETWEEN * width(middle));
        }
        case ONE_LATE_APEX -> {
          pin(corner, share(ONE_LATE), 0);
          away(corner, corner.entry(), share(0.45), 0.45 * width(share(0.3)));
        }
        case TIGHT -> band(corner, share(0.12), share(0.88));
        case VERY_EDGE -> outermost().forEach(o -> outside(corner, o.station()));
        case CROSS_AT_ONCE -> across(false);
        case DRIFT_OVER -> across(true);
        case LATE_APEX -> {
          pin(corner, share(LATE), 0);
          away(corner, corner.entry(), share(0.5), KEEP_AWAY);
        }
        case EARLY_APEX -> {
          pin(corner, share(EARLY), 0);
          away(corner, share(0.5), corner.exit(), KEEP_AWAY);
        }
        case GIVE_FIRST, GIVE_SECOND, GIVE_MIDDLE -> {
          given = givenAway > 0;
          List<Integer> away = SchoolLine.givenAway(corners, c, school);
          int[] ends = complex(corners, c);
          first = ends[0];
          last = ends[1];
          for (int k = first; k <= last; k++) {
            if (away.contains(k)) {
              Corner linked = corners.get(k);
              double less = Math.pow(10, -DEEPEST * Math.max(0, Math.min(1, givenAway)));
              each(
                  linked.entry() - NEAR_CORNER, linked.exit() + NEAR_CORNER, i -> weight[i] = less);
            }
          }
        }
        default -> {
          // The others leave the line alone.
        }
      }
    }

    private double share(double turned) {
      return turned(road, corners.get(c), turned);
    }

    private double width(double station) {
      int i = road.index(station);
      return Math.max(0.5, upper[i] - lower[i]);
    }

    /** Holds the line a stated distance off the inside of a corner at a station. */
    private void pin(Corner corner, double station, double gap) {
      int at = road.index(station);
      for (int k = -1; k <= 1; k++) {
        int i = road.loop().at(at + k);
        double room = Math.max(0, Math.min(gap, upper[i] - lower[i] - 2 * PIN));
        if (corner.left()) {
          double target = upper[i] - room;
          lower[i] = Math.max(lower[i], target - PIN);
          upper[i] = target;
        } else {
          double target = lower[i] + room;
          upper[i] = Math.min(upper[i], target + PIN);
          lower[i] = target;
        }
      }
    }

    List<Outermost> outermost() {
      Stretch over = stretch();
      int lead = (int) (LED / road.step());
      double begin = road.wrap((over.begin + lead) * road.step());
      double end = road.wrap((over.begin + over.steps - lead) * road.step());
      CornerLine own = lines.get(c);
      double most = over.steps * road.step();
      return Stream.of(nearest(begin, own.apexes().get(0), most), nearest(own.apex(), end, most))
          .flatMap(Optional::stream)
          .filter(o -> o.off() < FAR_OFF)
          .toList();
    }

    /**
     * Where the lap's line is nearest to the outer edge; nowhere where no room is left to lead it.
     */
    private Optional<Outermost> nearest(double from, double to, double most) {
      double metres = road.ahead(from, to);
      Outermost out = null;
      for (double along = 0; metres <= most && along <= metres; along += road.step()) {
        double station = road.wrap(from + along);
        int i = road.index(station);
        double at = base.offset()[i];
        double off = corners.get(c).left() ? at - whole.lower()[i] : whole.upper()[i] - at;
        out = out == null || off < out.off() ? new Outermost(station, off) : out;
      }
      return Optional.ofNullable(out);
    }

    /** Holds the line to the outer edge of a corner at a station. */
    private void outside(Corner corner, double station) {
      int at = road.index(station);
      for (int k = -1; k <= 1; k++) {
        int i = road.loop().at(at + k);
        if (corner.left()) {
          upper[i] = Math.min(upper[i], lower[i] + PIN);
        } else {
          lower[i] = Math.max(lower[i], upper[i] - PIN);
        }
      }
    }

    /** Leads the line over the straight before the corner. */
    private void across(boolean wholeWay) {
      crosses = true;
      Crossing way = crossing(road, corners, lines, c, on.speed(), base.offset());
      double begin = base.offset()[road.index(way.from())];
      for (double along = 0; along <= way.metres(); along += road.step()) {
        int i = road.index(road.wrap(way.from() + along));
        double wanted = begin + way.across() * way.done(along, wholeWay);
        double low = Math.max(lower[i], Math.min(upper[i] - PIN, wanted - ACROSS_BAND));
        upper[i] = Math.min(upper[i], Math.max(low + PIN, wanted + ACROSS_BAND));
        lower[i] = low;
      }
    }

    /** Keeps the line at least a distance off the inside. */
    private void away(Corner corner, double from, double to, double least) {
      each(
          from,
          to,
          i -> {
            double room = Math.max(0, Math.min(least, upper[i] - lower[i] - 2 * PIN));
            if (corner.left()) {
              upper[i] -= room;
            } else {
              lower[i] += room;
            }
          });
    }

    /** Keeps the line within a narrow band along the inside. */
    private void band(Corner corner, double from, double to) {
      each(
          from,
          to,
          i -> {
            if (corner.left()) {
              lower[i] = Math.max(lower[i], upper[i] - TIGHT_BAND);
            } else {
              upper[i] = Math.min(upper[i], lower[i] + TIGHT_BAND);
            }
          });
    }

    private void each(double from, double to, java.util.function.IntConsumer what) {
      int start = road.index(from);
      int count = (int) (road.ahead(from, to) / road.step());
      for (int k = 0; k <= count; k++) {
        what.accept(road.loop().at(start + k));
      }
    }

    /**
     * Room whose narrow places are led up to and away from by a slope, as no line can jump into a
     * gate or past the end of a band.
     */
    private Room sloped() {
      double[] low = lower.clone();
      double[] high = upper.clone();
      int reach = (int) (SLOPE / road.step());
      for (int i = 0; i < road.size(); i++) {
        double fromLeft = whole.upper()[i] - upper[i];
        double fromRight = lower[i] - whole.lower()[i];
        if (fromLeft <= 0 && fromRight <= 0) {
          continue;
        }
        for (int k = -reach; k <= reach; k++) {
          int j = road.loop().at(i + k);
          double share = 1 - Math.abs(k) / (reach + 1.0);
          // What is narrow itself is left as it is asked for.
          if (upper[j] >= whole.upper()[j] && lower[j] <= whole.lower()[j]) {
            high[j] = Math.min(high[j], whole.upper()[j] - share * Math.max(0, fromLeft));
            low[j] = Math.max(low[j], whole.lower()[j] + share * Math.max(0, fromRight));
          }
        }
      }
      for (int i = 0; i < road.size(); i++) {
        if (high[i] < low[i] + 2 * PIN) {
          high[i] = upper[i];
          low[i] = lower[i];
        }
      }
      return new Room(low, high);
    }

    /** Whether nothing but the room itself bounds the line. */
    boolean free() {
      return !given && Arrays.equals(lower, whole.lower()) && Arrays.equals(upper, whole.upper());
    }

    /** The lap's own where nothing bounds it, for that is the quickest already. */
    SchoolLine own() {
      return free() ? new SchoolLine(base, lines.get(c)) : lay(null);
    }

    /**
     * Lays the line.
     *
     * @param start line of the whole lap to begin with; null for the one that bends least
     */
    SchoolLine lay(double @Nullable [] start) {
      Stretch over = stretch();
      double[] offset = given ? giving(over) : quickest(over, start);
      Path path = Path.over(road, offset, on.ground());
      return new SchoolLine(path, turningIn(path, CornerLine.at(road, path, corners, c)));
    }

    /**
     * Where a line leaves the lap's own and joins it again.
     *
     * @param begin index of the first station; may lie outside the lap
     * @param steps stations
     * @param entry speed at the beginning, m/s
     * @param exit speed at the end, m/s
     */
    private record Stretch(int begin, int steps, double entry, double exit) {}

    private Stretch stretch() {
      int count = corners.size();
      Corner head = corners.get(first);
      Corner tail = corners.get(last);
      double back = RUN_UP;
      double onward = RUN_UP;
      if (count > last - first + 1) {
        Corner before = corners.get((first + count - 1) % count);
        Corner after = corners.get((last + 1) % count);
        back = Math.min(RUN_UP, 0.7 * road.ahead(before.apex(), head.entry()));
        if (crosses) {
          double left = lines.get((first + count - 1) % count).exit();
          back = Math.max(back, road.ahead(left, head.entry()));
        }
        onward = Math.min(RUN_UP, 0.7 * road.ahead(tail.exit(), after.apexes().get(0)));
      }
      double from = head.entry() - back;
      double metres =
          Math.min(back + road.ahead(head.entry(), tail.exit()) + onward, road.length() - 30);
      int begin = (int) Math.round(from / road.step());
      int steps = (int) (metres / road.step());
      return new Stretch(
          begin,
          steps,
          on.speed()[road.loop().at(begin)],
          on.speed()[road.loop().at(begin + steps - 1)]);
    }

    /** The quickest line through the room that the choices leave. */
    private double[] quickest(Stretch over, double @Nullable [] start) {
      Room room = sloped();
      double[] from =
          start == null
              ? MinimumCurvature.between(road, room, base.offset(), over.begin, over.steps, even())
              : start;
      return QuickestLine.between(
          road,
          room,
          on.ground(),
          on.limits(),
          from,
          over.begin,
          over.steps,
          over.entry,
          over.exit);
    }

    private double[] even() {
      double[] even = new double[road.size()];
      Arrays.fill(even, 1);
      return even;
    }

    /**
     * The lap's own line moved by what least bending would move if bending counted less where
     * something is given away: nothing where nothing is.
     */
    private double[] giving(Stretch over) {
      Room room = sloped();
      double[] all =
          MinimumCurvature.between(road, room, base.offset(), over.begin, over.steps, even());
      double[] less =
          MinimumCurvature.between(road, room, base.offset(), over.begin, over.steps, weight);
      double[] offset = base.offset().clone();
      double[] low = lower.clone();
      double[] high = upper.clone();
      for (int k = 0; k < over.steps; k++) {
        int i = road.loop().at(over.begin + k);
        double to =
            Math.max(room.lower()[i], Math.min(room.upper()[i], offset[i] + less[i] - all[i]));
        low[i] = Math.max(room.lower()[i], to - FOLLOWED);
        high[i] = Math.min(room.upper()[i], to + FOLLOWED);
        offset[i] = to;
      }
      return QuickestLine.between(
          road,
          new Room(low, high),
          on.ground(),
          on.limits(),
          offset,
          over.begin,
          over.steps,
          over.entry,
          over.exit);
    }

    /**
     * A line that is forced wide bends more than once: its turn-in is where it first bends, not the
     * last place before the apex.
     */
    private CornerLine turningIn(Path path, CornerLine line) {
      Corner corner = corners.get(c);
      double start = corner.entry() - 30;
      int span = (int) (road.ahead(start, line.apex()) / road.step());
      double sign = corner.left() ? 1 : -1;
      int head = road.index(start);
      double peak = 0;
      for (int k = 0; k <= span; k++) {
        peak = Math.max(peak, sign * path.curvature()[road.loop().at(head + k)]);
      }
      for (int k = 0; k < span; k++) {
        int i = road.loop().at(head + k);
        if (sign * path.curvature()[i] > 0.3 * peak) {
          double at = i * road.step();
          return road.apart(line.turnIn(), at) < -5 ? line.turningInAt(at) : line;
        }
      }
      return line;
    }
  }
}
