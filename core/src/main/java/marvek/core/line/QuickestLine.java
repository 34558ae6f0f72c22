package marvek.core.line;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSlope;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;

/**
 * The line of least time for a vehicle, day and ground, within the room of the road and what hands
 * and machine can follow.
 *
 * <p>The line is changed by a closed spline, first with knots far apart, then nearer and nearer;
 * the time and its slopes come from {@link LapSlope}. A proximal bundle method searches ({@link
 * Bundle}); on a short lap a {@link DirectSearch} goes on from there. No chance and no clock: the
 * same inputs give the same line.
 *
 * <p>Sources: Braghin et al. 2008; Kapania, Subosits &amp; Gerdes 2016 (the line by slopes of the
 * lap); Heilmeier et al. 2019; Perantoni &amp; Limebeer 2014.
 */
public final class QuickestLine {
  /**
   * A pass of the search.
   *
   * @param spacing metres between knots
   * @param apart most rounds in which stretches between straights are judged one by one
   * @param together most rounds in which the lap is judged as a whole
   * @param hands weight of asking for more than the hands can, s/s
   */
  private record Pass(double spacing, int apart, int together, double hands) {
    int rounds() {
      return apart + together;
    }
  }

  private static final List<Pass> FRESH =
      List.of(
          new Pass(40, 25, 0, 0),
          new Pass(20, 30, 0, 0),
          new Pass(10, 35, 0, 0.1),
          new Pass(5, 25, 0, 0.3),
          new Pass(10, 25, 0, 0.3),
          new Pass(5, 25, 10, 0.3));
  private static final List<Pass> NEAR =
      List.of(new Pass(20, 20, 0, 0.3), new Pass(10, 25, 0, 0.3), new Pass(5, 25, 5, 0.3));
  private static final List<Pass> PIECE =
      List.of(new Pass(16, 25, 0, 0.3), new Pass(6, 25, 0, 0.3));
  // A search that was still gaining by so much of a lap at its end goes on once.
  private static final double STILL_GAINING = 1e-3;
  private static final List<Pass> ONCE_MORE =
      List.of(new Pass(10, 12, 0, 0.3), new Pass(5, 12, 0, 0.3));
  private static final double NARROW = 5;
  // A short lap costs little, and its bends are close together: more rounds.
  private static final double USUAL_LENGTH = 4000;
  private static final double MOST_PATIENCE = 4;
  // Less than this share of a lap is no reason to leave a line.
  private static final double WORTH_LEAVING = 5e-4;
  // From here on nothing is given away for staying near.
  private static final double WORTH_ALL = 5e-3;
  private static final int BLENDINGS = 7;
  // What bending may cost where the time does not care, as a share of the lap.
  private static final double FLATNESS = 5e-4;
  // Share of a short search that goes by slopes.
  private static final double BY_SLOPES = 0.6;
  // So much full throttle before the brakes and neighbours can be judged apart, metres.
  private static final double STRAIGHT = 70;
  private static final double BEFORE_BRAKES = 20;
  private static final double BETWEEN_CUTS = 60;
  private static final int TIGHTENED = 6;
  private static final double OUTSIDE = 2e-3;

  private final Centreline road;
  private final Room room;
  private final Ground ground;
  private final Limits limits;
  private final SteeringRate hands;
  private final double entry;
  private final double exit;
  private final boolean closed;
  private final Watch watch;
  private final double flat;
  private final double whole;
  private double share;

  private QuickestLine(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      double[] start,
      double entry,
      double exit,
      Watch watch,
      double whole) {
    this.road = road;
    this.room = room;
    this.ground = ground;
    this.limits = limits;
    this.entry = entry;
    this.exit = exit;
    this.closed = entry < 0;
    this.watch = watch;
    this.whole = whole;
    hands = SteeringRate.usual(limits.vehicle());
    Path path = Path.over(road, start, ground);
    flat = flatness(path, drive(path).time());
  }

  /**
   * A line found.
   *
   * @param offset metres to the left of the centreline at each station
   * @param seconds of the lap on it, without pauses for shifts
   * @param laps simulated; as many were followed back for their slopes
   */
  public record Found(double[] offset, double seconds, int laps) {}

  /** Searches on a lap of which nothing is known, from the line of least bending. */
  public static Found fresh(Centreline road, Room room, Ground ground, Limits limits, Watch watch) {
    double[] start = MinimumCurvature.offsets(road, room);
    if (road.length() > DirectSearch.SHORT) {
      return from(road, room, ground, limits, start, FRESH, watch);
    }
    Found found = from(road, room, ground, limits, start, FRESH, part(watch, 0, BY_SLOPES));
    Path path = Path.over(road, found.offset(), ground);
    double flat = flatness(path, found.seconds());
    return DirectSearch.on(
        road, room, ground, limits, flat, found, part(watch, BY_SLOPES, 1 - BY_SLOPES));
  }

  private static Watch part(Watch watch, double begun, double share) {
    return done -> watch.goesOn(begun + share * done);
  }

  /** What bending costs, s·m: a little of the lap in all. */
  private static double flatness(Path path, double seconds) {
    double bending = 1e-9;
    for (int i = 0; i < path.size(); i++) {
      bending += path.curvature()[i] * path.curvature()[i] * path.step()[i];
    }
    return FLATNESS * seconds / bending;
  }

  /** Searches from any line. */
  static Found from(
      Centreline road, Room room, Ground ground, Limits limits, double[] start, Watch watch) {
    return from(road, room, ground, limits, start, FRESH, watch);
  }

  /**
   * Searches from an earlier line and stays as near to it as 0.05 % of a lap allows: all of it
   * where nothing is quicker by more, a blend of both beyond, and what was found alone where that
   * is quicker by 0.5 %. A small change of vehicle or day so moves the line little and never by a
   * step.
   *
   * @param earlier offsets of the line to begin with, within the room or nearly
   */
  public static Found near(
      Centreline road, Room room, Ground ground, Limits limits, double[] earlier, Watch watch) {
    double[] start = room.fitted(road, earlier, 0, earlier.length);
    Found found = from(road, room, ground, limits, start, NEAR, watch);
    if (!room.holds(earlier)) {
      return found;
    }
    DoubleUnaryOperator seconds =
        share ->
            new LapSlope(Path.over(road, blend(earlier, found.offset(), share), ground), limits)
                .time();
    double was = seconds.applyAsDouble(0);
    double gain = was / found.seconds() - 1;
    double most = found.seconds() * (1 + WORTH_LEAVING * Math.min(1, 1 - gain / WORTH_ALL));
    if (was <= most) {
      return new Found(earlier, was, found.laps() + 1);
    }
    if (gain >= WORTH_ALL) {
      return found;
    }
    double low = 0;
    double high = 1;
    for (int k = 0; k < BLENDINGS; k++) {
      double half = (low + high) / 2;
      if (seconds.applyAsDouble(half) > most) {
        low = half;
      } else {
        high = half;
      }
    }
    return new Found(
        blend(earlier, found.offset(), high),
        seconds.applyAsDouble(high),
        found.laps() + BLENDINGS + 2);
  }

  private static double[] blend(double[] a, double[] b, double share) {
    double[] out = new double[a.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = a[i] + share * (b[i] - a[i]);
    }
    return out;
  }

  /**
   * Searches on a stretch, leaving and joining another line at its ends.
   *
   * @param start line to begin with and to join, of the whole lap
   * @param room of the whole lap
   * @param from index of the first station; may lie outside the lap
   * @param count stations, fewer than the lap has
   * @param entry speed at the beginning, m/s
   * @param exit speed at the end, m/s
   * @return offsets of the whole lap
   */
  public static double[] between(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      double[] start,
      int from,
      int count,
      double entry,
      double exit) {
    Centreline piece = road.piece(from, count);
    double[] offset = Centreline.piece(start, from, count);
    QuickestLine search =
        new QuickestLine(
            piece,
            room.piece(from, count),
            ground.piece(from, count),
            limits,
            offset,
            entry,
            exit,
            Watch.NOBODY,
            1);
    for (Pass pass : PIECE) {
      offset = search.pass(pass, 1, offset);
    }
    double[] out = start.clone();
    for (int k = 0; k < count; k++) {
      out[new Loop(out.length).at(from + k)] = offset[k];
    }
    return out;
  }

  private static Found from(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      double[] start,
      List<Pass> passes,
      Watch watch) {
    double patience = Math.max(1, Math.min(MOST_PATIENCE, USUAL_LENGTH / road.length()));
    int rounds = passes.stream().mapToInt(Pass::rounds).sum();
    QuickestLine search =
        new QuickestLine(road, room, ground, limits, start, -1, -1, watch, patience * rounds);
    double[] offset = start;
    double gained = 0;
    double before = search.drive(Path.over(road, offset, ground)).time();
    for (Pass pass : passes) {
      offset = search.pass(pass, patience, offset);
      double after = search.drive(Path.over(road, offset, ground)).time();
      gained = pass.spacing() > NARROW ? before - after : gained + before - after;
      before = after;
    }
    if (gained > STILL_GAINING * before) {
      for (Pass pass : ONCE_MORE) {
        offset = search.pass(pass, patience, offset);
      }
    }
    LapSlope lap = search.drive(Path.over(road, offset, ground));
    return new Found(offset, lap.time(), search.laps);
  }

  private int laps;

  private LapSlope drive(Path path) {
    laps++;
    return closed ? new LapSlope(path, limits) : new LapSlope(path, limits, entry, exit);
  }

  private double[] pass(Pass pass, double patience, double[] start) {
    LineSpline spline = new LineSpline(road, start, pass.spacing());
    Room box = spline.box(room);
    if (!closed) {
      spline.holdEnds(box);
    }
    Bundle.Problem problem = new Judged(spline, pass.hands());
    double[] c = box.clamped(new double[spline.knots]);
    Blocks one = Blocks.one(spline.knots, road.size());
    List<Integer> cuts = closed ? cuts(drive(Path.over(road, start, ground))) : List.of();
    Bundle bundle = new Bundle(problem, box, one, c);
    int apart = (int) (patience * pass.apart());
    int together = (int) (patience * pass.together());
    double begun = share;
    if (cuts.size() > 1) {
      Bundle parts = bundle.cut(Blocks.between(cuts, spline, road.size()));
      parts.search(apart, k -> go(begun + k), offsets -> tighten(spline, box, offsets));
      bundle = parts.joined(one);
    } else {
      together += apart;
    }
    double left = begun + patience * pass.rounds() - together;
    bundle.search(together, k -> go(left + k), offsets -> tighten(spline, box, offsets));
    share = begun + patience * pass.rounds();
    // A knot set back by hand would leave a kink: the search itself goes back into the room.
    for (int k = 0; k < TIGHTENED && tighten(spline, box, bundle.best()); k++) {
      bundle.search(2, round -> go(share), offsets -> tighten(spline, box, offsets));
    }
    return spline.offsets(bundle.best());
  }

  private void go(double rounds) {
    if (!watch.goesOn(Math.min(1, rounds / whole))) {
      throw new SearchStopped();
    }
  }

  private boolean tighten(LineSpline spline, Room box, double[] c) {
    return spline.tighten(box, room, spline.offsets(c)) > OUTSIDE;
  }

  /** Straights at whose end the search may be cut, as stations in order. */
  private List<Integer> cuts(LapSlope lap) {
    int n = road.size();
    Loop loop = road.loop();
    List<Integer> out = new ArrayList<>();
    int run = 0;
    int since = 0;
    for (int k = 0; k < 2 * n; k++) {
      int i = k % n;
      boolean free =
          lap.speed()[i] >= lap.unbraked()[i] - 1e-9 && lap.corner()[i] > 1.15 * lap.speed()[i];
      if (free) {
        run++;
        continue;
      }
      if (run * road.step() > STRAIGHT && k >= n && run < n) {
        if (out.isEmpty() || (k - since) * road.step() > BETWEEN_CUTS) {
          out.add(loop.at(k - (int) (BEFORE_BRAKES / road.step())));
          since = k;
        }
      }
      run = 0;
    }
    out.sort(Integer::compare);
    return out;
  }

  /** The time of a lap as a function of the knots. */
  private final class Judged implements Bundle.Problem {
    private final LineSpline spline;
    private final double weight;

    Judged(LineSpline spline, double weight) {
      this.spline = spline;
      this.weight = weight;
    }

    @Override
    public Bundle.Point at(double[] c, Blocks blocks) {
      double[] offset = spline.offsets(c);
      Path path = Path.over(road, offset, ground);
      LapSlope lap = drive(path);
      int n = road.size();
      double[] bySpeed = new double[n];
      double[] byCurvature = new double[n];
      double[] over =
          weight > 0 ? hands.excess(path, lap, weight, bySpeed, byCurvature) : new double[n];
      LapSlope.Slopes slopes = lap.slopes(bySpeed);
      double[] cost = new double[blocks.count()];
      double[] gripSlope = new double[n];
      double[] byLie = byLie(path, lap, bySpeed);
      for (int i = 0; i < n; i++) {
        double k = path.curvature()[i];
        double ds = lap.seconds()[i] > 0 ? path.step()[i] : 0;
        cost[blocks.ofStation(i)] += lap.seconds()[i] + over[i] + flat * k * k * ds;
        slopes.curvature()[i] += byCurvature[i] + 2 * flat * k * ds;
        gripSlope[i] = ground.slope(road, i, offset[i]);
      }
      double[] byOffset = LineSpline.byOffset(road, offset, path, slopes, gripSlope);
      for (int i = 0; i < n; i++) {
        byOffset[i] += byLie[i];
      }
      return new Bundle.Point(c, cost, spline.byKnots(byOffset));
    }
  }

  /** What another place across costs by how the road lies there, s/m at each station. */
  private double[] byLie(Path path, LapSlope lap, double[] bySpeed) {
    int n = path.size();
    Ground.Lie lie = ground.lie();
    if (lie == null || lie.parts().isEmpty()) {
      return new double[n];
    }
    LapSlope.Tilt tilt = new LapSlope.Tilt(new double[n], new double[n]);
    for (int i = 0; i < n; i++) {
      tilt.crossfall()[i] = lie.crossfallSlope(road, i, path.offset()[i]);
      tilt.verticalCurvature()[i] = lie.verticalCurvatureSlope(road, i, path.offset()[i]);
    }
    return lap.slopesByLie(tilt, bySpeed);
  }

  /** The cost as the search sees it along a line, for holding its slopes against differences. */
  static Bundle.Point judged(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      double[] start,
      double spacing,
      double[] c) {
    QuickestLine search =
        new QuickestLine(road, room, ground, limits, start, -1, -1, Watch.NOBODY, 1);
    LineSpline spline = new LineSpline(road, start, spacing);
    return search.new Judged(spline, 1).at(c, Blocks.one(spline.knots, road.size()));
  }
}
