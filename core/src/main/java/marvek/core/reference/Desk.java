package marvek.core.reference;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.line.LineTuner;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.core.vehicle.Vehicle;

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
 */
public record Desk(
    Centreline road,
    List<Corner> corners,
    Ground ground,
    Conditions conditions,
    Path path,
    Limits limits,
    LapTrace lap,
    List<CornerLine> lines,
    Brakings brakings) {
  // Stations before its slowest that a corner without brakes is eased for, at most.
  private static final int ROLLED = 40;

  /** Computes the line on good tarmac, tunes it and drives it. */
  public static Desk compute(
      Centreline road, List<Corner> corners, Vehicle vehicle, Conditions conditions) {
    return compute(road, corners, Ground.good(road.size()), vehicle, conditions);
  }

  /** Computes the line, tunes it and drives it. */
  public static Desk compute(
      Centreline road,
      List<Corner> corners,
      Ground ground,
      Vehicle vehicle,
      Conditions conditions) {
    Room room = Room.on(road, vehicle);
    double[] offset = MinimumCurvature.offsets(road, room);
    LapTrace first = LapSimulator.lap(Path.over(road, offset, ground), vehicle, conditions);
    Limits limits = new Limits(vehicle, conditions, first.boostBelow());
    if (!corners.isEmpty()) {
      offset = LineTuner.tuned(road, room, ground, limits, corners, offset, first);
    }
    return onLine(road, corners, ground, vehicle, conditions, offset);
  }

  /**
   * Takes a line computed before.
   *
   * @param offset metres to the left of the centreline at each station
   */
  public static Desk onLine(
      Centreline road,
      List<Corner> corners,
      Ground ground,
      Vehicle vehicle,
      Conditions conditions,
      double[] offset) {
    Path path = Path.over(road, offset, ground);
    LapTrace lap = LapSimulator.lap(path, vehicle, conditions);
    return new Desk(
        road,
        List.copyOf(corners),
        ground,
        conditions,
        path,
        new Limits(vehicle, conditions, lap.boostBelow()),
        lap,
        CornerLine.all(road, path, corners),
        Brakings.of(road, path, lap, corners));
  }

  /** The same vehicle and day on another line. */
  public Desk along(Path other) {
    LapTrace driven = LapSimulator.lap(other, limits, lap.boostBelow());
    return new Desk(
        road,
        corners,
        ground,
        conditions,
        other,
        limits,
        driven,
        CornerLine.all(road, other, corners),
        Brakings.of(road, other, driven, corners));
  }

  /** The same with another reading of one corner's line. */
  Desk reading(int c, CornerLine line) {
    List<CornerLine> read = new java.util.ArrayList<>(lines);
    read.set(c, line);
    return new Desk(
        road, corners, ground, conditions, path, limits, lap, List.copyOf(read), brakings);
  }

  /** The same line and vehicle on another day. */
  public Desk on(Conditions day) {
    return onLine(road, corners, ground, vehicle(), day, path.offset());
  }

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
    return slowest(from, Math.max(1, Math.min(exit, untilNext(c, from))));
  }

  /**
   * Steps from the slowest place at the end of a corner to the braking for the next one, or to that
   * one's apex where it is not braked for; at most half a lap.
   */
  int onward(int c) {
    int n = road.size();
    int count = corners.size();
    int slowest = slowestAtLast(c);
    if (count == 1) {
      int braking = brakings.of(c).isEmpty() ? n : Math.floorMod(brakesFrom(c) - slowest, n);
      return Math.max(8, Math.min(n / 2 - 2, braking));
    }
    double next = lines.get((c + 1) % count).apexes().get(0);
    int most = Math.min(n / 2, Math.floorMod(road.index(next) - slowest, n));
    double braking = untilNext(c, slowest * road.step()) / road.step();
    return Math.max(8, (int) Math.min(most, braking));
  }

  /** Metres from a station of a corner to where the lap brakes for the next one. */
  private double untilNext(int c, double from) {
    int count = corners.size();
    List<Brakings.Braking> next = count == 1 ? List.of() : brakings.of((c + 1) % count);
    return next.isEmpty() ? Double.MAX_VALUE : road.ahead(from, next.get(0).onset() * road.step());
  }

  private int slowest(double from, double metres) {
    int n = road.size();
    int first = road.index(from);
    int count = (int) (metres / road.step());
    int best = first;
    for (int k = 0; k <= count; k++) {
      int i = Math.floorMod(first + k, n);
      if (lap.speed()[i] < lap.speed()[Math.floorMod(best, n)]) {
        best = first + k;
      }
    }
    return Math.floorMod(best, n);
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
    int last = mine.isEmpty() ? slowest : mine.get(mine.size() - 1).slowest();
    return Math.floorMod(last - slowest, n) < n / 2 ? last : slowest;
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
    return mine.isEmpty() ? Math.floorMod(slowest(c) - ROLLED, road.size()) : mine.get(0).onset();
  }
}
