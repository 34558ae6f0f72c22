package marvek.core.plan;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import marvek.core.axle.AxleGrip;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.BrakedAgain;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.QuickestLine;
import marvek.core.line.Room;
import marvek.core.line.Watch;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * All that the computation knows about one road, vehicle and day: the line, the lap on it, and what
 * the line does in each corner. Made once, asked often.
 *
 * @param road the road
 * @param corners its corners
 * @param ground what the road leaves of the grip
 * @param conditions the day
 * @param path the line driven
 * @param limits what the vehicle can do
 * @param lap the simulated lap on the line
 * @param lines the line in each corner, in the order of the corners
 * @param brakings of the lap
 * @param laid lines of schools at hand
 * @param drafts of its corners, once made
 */
public record ComputedLap(
    Centreline road,
    List<Corner> corners,
    Ground ground,
    Conditions conditions,
    Path path,
    Limits limits,
    LapTrace lap,
    List<CornerLine> lines,
    Brakings brakings,
    LaidLines laid,
    Drafts drafts) {
  /**
   * The driver's own full press, m/s²: the hardest that the vehicle can brake on the level at the
   * top speed of the lap. Efforts are shares of it.
   */
  public double fullPress() {
    double top = 0;
    for (double v : lap.speed()) {
      top = Math.max(top, v);
    }
    return limits.brakingMost(limits.levelLoad(top), 1, 1);
  }

  // Another threshold of the boost by so much, m/s, is looked at again.
  private static final double BOOST_MOVED = 1;

  // Metres past the onset of the next braking at which a corner's slowest place is that onset.
  private static final double GOES_OVER = 10;

  // Stations before its slowest that a corner without brakes is eased for, at most.
  private static final int ROLLED = 40;
  // Stations to each side over which the throttle is averaged, and its share from which on it is
  // not eased.
  private static final int AROUND = 6;
  private static final double OPEN = 0.8;

  /** Searches the quickest line on good tarmac and drives it. */
  public static ComputedLap compute(
      Centreline road, List<Corner> corners, Vehicle vehicle, Conditions conditions) {
    return compute(road, corners, Ground.good(road.size()), vehicle, conditions);
  }

  /** Searches the quickest line and drives it. */
  public static ComputedLap compute(
      Centreline road,
      List<Corner> corners,
      Ground ground,
      Vehicle vehicle,
      Conditions conditions) {
    return compute(road, corners, ground, vehicle, conditions, Watch.NOBODY);
  }

  /**
   * Searches the quickest line and drives it.
   *
   * @param watch follows the search and may stop it
   */
  public static ComputedLap compute(
      Centreline road,
      List<Corner> corners,
      Ground ground,
      Vehicle vehicle,
      Conditions conditions,
      Watch watch) {
    Room room = Room.on(road, vehicle, ground);
    double[] start = MinimumCurvature.offsets(road, room);
    Limits open = new Limits(vehicle, conditions);
    Held first = Held.on(road, ground, start, open, Double.MAX_VALUE);
    double boost = first.lap().boostBelow();
    double[] offset =
        QuickestLine.fresh(road, room, first.ground(), first.limits(), watch).offset();
    ComputedLap computed = onLine(road, corners, ground, open, boost, offset, null);
    // The boost is spent elsewhere on a quicker line, which may ask for another one.
    return Math.abs(computed.lap().boostBelow() - boost) > BOOST_MOVED
        ? computed.near(watch)
        : computed;
  }

  /**
   * The quickest line found from this one, for another vehicle or day; this line where none is
   * quicker by more than 0.05 %.
   */
  public ComputedLap near(Watch watch) {
    Room room = Room.on(road, vehicle(), ground);
    double[] offset = QuickestLine.near(road, room, ground, limits, path.offset(), watch).offset();
    return onLine(road, corners, ground, open(conditions), lap.boostBelow(), offset, lines);
  }

  /**
   * Takes a line computed before.
   *
   * @param offset metres to the left of the centreline at each station
   */
  public static ComputedLap onLine(
      Centreline road,
      List<Corner> corners,
      Ground ground,
      Vehicle vehicle,
      Conditions conditions,
      double[] offset) {
    Limits open = new Limits(vehicle, conditions);
    return onLine(road, corners, ground, open, Double.MAX_VALUE, offset, null);
  }

  private static ComputedLap onLine(
      Centreline road,
      List<Corner> corners,
      Ground ground,
      Limits open,
      double boost,
      double[] offset,
      @Nullable List<CornerLine> earlier) {
    Conditions conditions = open.conditions();
    Held held = Held.on(road, ground, offset, open, boost);
    Path path = held.path();
    LapTrace lap = held.lap();
    return new ComputedLap(
        road,
        List.copyOf(corners),
        held.ground(),
        conditions,
        path,
        held.limits(),
        lap,
        CornerLine.all(road, path, corners, earlier),
        Brakings.of(road, path, lap, corners),
        new LaidLines(),
        new Drafts(corners.size()));
  }

  /**
   * A lap with what depends on its own speeds held: the push of a side wind and what two axles
   * leave of the grip, both of which change so little with the speed that one round settles. The
   * boost is sought from where a lap near this one spent it.
   */
  private record Held(Ground ground, Path path, LapTrace lap, Limits limits) {
    static Held on(Centreline road, Ground ground, double[] offset, Limits open, double boost) {
      Ground under = ground.pushed(null).under(null);
      Path path = Path.over(road, offset, under);
      LapTrace lap = LapSimulator.spending(path, open, boost);
      Limits limits = after(lap, open);
      Ground.SideWind wind =
          open.conditions().windSpeed() > 0 ? limits.sideWind(path, lap.speed()) : null;
      under = under.pushed(wind).under(AxleGrip.of(path, limits, lap));
      path = Path.over(road, offset, under);
      lap = LapSimulator.spending(path, open, lap.boostBelow());
      return new Held(under, path, lap, after(lap, open));
    }

    /** Without a boost to be spent where it is worth most, the limits are known before the lap. */
    private static Limits after(LapTrace lap, Limits open) {
      return open.vehicle().boost() == null ? open : open.on(open.conditions(), lap.boostBelow());
    }
  }

  /** The lap of another vehicle on this line, with the boost spent as on this lap. */
  public LapTrace driven(Vehicle other) {
    double boost = lap.boostBelow();
    Limits with = new Limits(other, conditions, boost);
    Ground under = ground.under(AxleGrip.of(path, with, LapSimulator.lap(path, with, boost)));
    return LapSimulator.lap(Path.over(road, path.offset(), under), with, boost);
  }

  /** The same vehicle and day on another line. */
  public ComputedLap along(Path other) {
    LapTrace driven = LapSimulator.lap(other, limits, lap.boostBelow());
    return new ComputedLap(
        road,
        corners,
        ground,
        conditions,
        other,
        limits,
        driven,
        CornerLine.all(road, other, corners),
        Brakings.of(road, other, driven, corners),
        new LaidLines(),
        new Drafts(corners.size()));
  }

  /** The same with another reading of one corner's line. */
  public ComputedLap reading(int c, CornerLine line) {
    List<CornerLine> read = new java.util.ArrayList<>(lines);
    read.set(c, line);
    return new ComputedLap(
        road,
        corners,
        ground,
        conditions,
        path,
        limits,
        lap,
        List.copyOf(read),
        brakings,
        laid,
        new Drafts(corners.size()));
  }

  /** The same line and vehicle on another day. */
  public ComputedLap on(Conditions day) {
    return with(ground, day, path.offset());
  }

  /**
   * The same vehicle on another line, on other ground and another day.
   *
   * @param offset metres to the left of the centreline at each station
   */
  public ComputedLap with(Ground other, Conditions day, double[] offset) {
    return onLine(road, corners, other, open(day), lap.boostBelow(), offset, null);
  }

  /** The limits of a day with the boost at every speed. */
  private Limits open(Conditions day) {
    return limits.on(day, Double.MAX_VALUE);
  }

  /**
   * The line that schools ask for in a corner.
   *
   * @param given how much of a linked corner is given away, 0 to 1
   */
  public SchoolLine laid(Things things, int c, List<School> schools, double given) {
    SchoolLine.Setting on = setting(things);
    ComputedLap keeps = laid.keeps();
    return laid.of(
        c,
        schools,
        given,
        things,
        () ->
            keeps == null
                ? SchoolLine.of(on, corners, path, lines, c, schools, given)
                : SchoolLine.kept(on, corners, schools, keeps.laid(things, c, schools, given)));
  }

  /** What the lines of schools are laid over. */
  public SchoolLine.Setting setting(Things things) {
    return new SchoolLine.Setting(road, ground, limits, lap.speed(), lap.boostBelow(), things);
  }

  /** Metres from the road to the driver's eyes. */
  public double eye() {
    return vehicle().seatOrUsual().eye();
  }

  /**
   * The same with the lines that schools ask for as they are on another lap on this line: a day
   * that keeps the line of the lap keeps those too.
   */
  public ComputedLap keeping(ComputedLap line) {
    return new ComputedLap(
        road,
        corners,
        ground,
        conditions,
        path,
        limits,
        lap,
        lines,
        brakings,
        new LaidLines(line),
        drafts);
  }

  /** The vehicle that drives it. */
  public Vehicle vehicle() {
    return limits.vehicle();
  }

  /** Place of the corner in the list; throws IllegalArgumentException for an unknown id. */
  public int indexOf(String corner) {
    for (int c = 0; c < corners.size(); c++) {
      if (corners.get(c).id().equals(corner)) {
        return c;
      }
    }
    throw new IllegalArgumentException("no corner " + corner + " in this layout version");
  }

  /**
   * Index of the slowest station of the lap in a corner, from its turn-in or the slowest place that
   * its braking serves to its exit or the braking for the next corner.
   */
  public int slowest(int c) {
    Corner corner = corners.get(c);
    CornerLine line = lines.get(c);
    double exit = Math.max(5, road.ahead(line.turnIn(), corner.exit()));
    exit = Math.min(exit, road.length() / 2);
    List<Brakings.Braking> mine = brakings.of(c);
    double from = line.turnIn();
    if (!mine.isEmpty()) {
      double met = mine.get(0).slowest() * road.step();
      double onset = mine.get(0).onset() * road.step();
      double until = road.wrap(from + exit);
      // What was slow before the brake is pressed belongs to the corner before.
      from = road.apart(from, met) < 0 ? met : road.apart(from, onset) > 0 ? onset : from;
      exit = Math.max(road.ahead(from, met), Math.max(5, road.apart(from, until)));
    }
    double metres = Math.max(1, Math.min(exit, untilNext(c, from)));
    // Under the brakes of the corner before the throttle says nothing of where it is slowest.
    int eased = mine.isEmpty() && !brakedThrough(c) ? eased(from, metres) : -1;
    return eased >= 0 ? eased : slowest(from, metres);
  }

  /**
   * Index where the throttle of a corner without brakes is eased the most; -1 where it stays open.
   * Speed may rise all through such a corner. Where it is braked, for the next corner, the throttle
   * says nothing of this one.
   */
  private int eased(double from, double metres) {
    Loop loop = road.loop();
    int first = road.index(from);
    int count = (int) (metres / road.step());
    int best = -1;
    double least = OPEN;
    for (int k = 0; k <= count; k++) {
      double sum = 0;
      int rolled = 0;
      for (int j = -AROUND; j <= AROUND; j++) {
        int i = loop.at(first + k + j);
        sum += lap.brake()[i] > 0 ? 0 : lap.throttle()[i];
        rolled += lap.brake()[i] > 0 ? 0 : 1;
      }
      if (rolled > AROUND && sum / rolled < least - 1e-9) {
        least = sum / rolled;
        best = loop.at(first + k);
      }
    }
    return best;
  }

  /**
   * Steps from the slowest place at the end of a corner to the braking for the next one, or to that
   * one's apex where it is not braked for; at most half a lap.
   */
  int onward(int c) {
    int n = road.size();
    Loop loop = road.loop();
    int count = corners.size();
    int slowest = slowestAtLast(c);
    if (count == 1) {
      int braking = brakings.of(c).isEmpty() ? n : loop.ahead(slowest, brakesFrom(c));
      return Math.max(8, Math.min(n / 2 - 2, braking));
    }
    // A corner that is rolled through while braking for the one after it may lie behind already.
    int most = n / 2;
    for (int k = 1; k < count && most == n / 2; k++) {
      double next = lines.get((c + k) % count).apexes().get(0);
      most = Math.min(n / 2, loop.ahead(slowest, road.index(next)));
    }
    double braking = untilNext(c, slowest * road.step()) / road.step();
    return Math.max(8, (int) Math.min(most, braking));
  }

  /** Metres from a station of a corner to where the lap brakes for the next that it brakes for. */
  private double untilNext(int c, double from) {
    int count = corners.size();
    for (int k = 1; k < count; k++) {
      List<Brakings.Braking> next = brakings.of((c + k) % count);
      if (!next.isEmpty()) {
        double ahead = road.ahead(from, next.get(0).onset() * road.step());
        // Where one braking goes over into the next, the slowest place may lie at its very onset.
        return ahead > road.length() - GOES_OVER ? 0 : ahead;
      }
    }
    return Double.MAX_VALUE;
  }

  private int slowest(double from, double metres) {
    Loop loop = road.loop();
    int first = road.index(from);
    int count = (int) (metres / road.step());
    int best = first;
    for (int k = 0; k <= count; k++) {
      int i = loop.at(first + k);
      if (lap.speed()[i] < lap.speed()[loop.at(best)]) {
        best = first + k;
      }
    }
    return loop.at(best);
  }

  /** Index of the slowest station that a corner is first braked for, or of its slowest. */
  public int braked(int c) {
    List<Brakings.Braking> mine = brakings.of(c);
    return mine.isEmpty() ? slowest(c) : mine.get(0).slowest();
  }

  /** Index of the slowest station at the end of a corner: of its last braking or last apex. */
  int slowestAtLast(int c) {
    List<Brakings.Braking> mine = brakings.of(c);
    CornerLine line = lines.get(c);
    if (line.apexes().size() < 2) {
      return mine.size() < 2 ? slowest(c) : mine.get(mine.size() - 1).slowest();
    }
    double first = line.apexes().get(0);
    double middle = road.wrap(first + road.ahead(first, line.apex()) / 2);
    double exit = road.ahead(middle, corners.get(c).exit());
    exit = exit < road.length() / 2 ? Math.max(5, exit) : 5;
    int slowest = slowest(middle, Math.max(1, Math.min(exit, untilNext(c, middle))));
    // The last braking may be for what comes after the last apex.
    int n = road.size();
    Loop loop = road.loop();
    int last = mine.isEmpty() ? slowest : mine.get(mine.size() - 1).slowest();
    return loop.ahead(slowest, last) < n / 2 ? last : slowest;
  }

  /**
   * Index of the slowest station of the corner before. Where one braking runs on through both, the
   * two are driven over one stretch, from the slowest station before the first of them.
   */
  int slowestBefore(int c) {
    int count = corners.size();
    int under = under(c);
    return slowestAtLast(((under < 0 ? c : under) + count - 1) % count);
  }

  /** Whether a corner without its own braking is turned into while that for another still runs. */
  boolean brakedThrough(int c) {
    return under(c) >= 0;
  }

  /**
   * The corner before whose braking still runs where a corner without its own turns in; -1 for
   * none.
   */
  int under(int c) {
    Through through = through(c);
    return through == null ? -1 : through.corner();
  }

  /**
   * Corners without a braking of their own that are turned into while that for another still runs.
   *
   * @return by the id of each, the corner that is braked for
   */
  public Map<String, Corner> braked() {
    Map<String, Corner> out = new LinkedHashMap<>();
    for (int c = 0; c < corners.size(); c++) {
      int under = under(c);
      if (under >= 0) {
        out.put(corners.get(c).id(), corners.get(under));
      }
    }
    return out;
  }

  /** A braking that still runs where another corner turns in, and the corner it is for. */
  record Through(int corner, Brakings.Braking braking) {}

  /** The braking of a corner before that still runs where one without its own turns in. */
  @Nullable Through through(int c) {
    Loop loop = road.loop();
    int turnIn = road.index(lines.get(c).turnIn());
    int apex = road.index(corners.get(c).apex());
    for (int k = 1; k < corners.size() && brakings.of(c).isEmpty(); k++) {
      int before = (c + corners.size() - k) % corners.size();
      int begun = road.index(corners.get(before).apex());
      for (Brakings.Braking b : brakings.of(before)) {
        boolean runs = loop.ahead(b.onset(), turnIn) <= loop.ahead(b.onset(), b.slowest());
        int own = loop.ahead(b.onset(), apex);
        if (runs && own < loop.size() / 2 && loop.ahead(b.onset(), begun) < own) {
          return new Through(before, b);
        }
      }
    }
    return null;
  }

  /** The brakings of a corner after the first, as an entry holds them. */
  List<BrakedAgain> again(int c) {
    return brakings.of(c).stream()
        .skip(1)
        .map(b -> new BrakedAgain(b.onset() * road.step(), b.from(), b.to()))
        .toList();
  }

  /** Index from which the lap brakes for a corner, or a little before its slowest place. */
  int brakesFrom(int c) {
    List<Brakings.Braking> mine = brakings.of(c);
    return mine.isEmpty() ? road.loop().at(slowest(c) - ROLLED) : mine.get(0).onset();
  }
}
