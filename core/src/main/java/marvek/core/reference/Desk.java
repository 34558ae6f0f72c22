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
 */
public record Desk(
    Centreline road,
    List<Corner> corners,
    Ground ground,
    Conditions conditions,
    Path path,
    Limits limits,
    LapTrace lap,
    List<CornerLine> lines) {
  /** Share of the brakes from which on the lap is said to brake. */
  static final double BRAKE_COUNTS = 0.06;

  // So much quicker between two apexes, m/s, that they are slowed for one by one.
  private static final double DIP = 0.3;

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
        CornerLine.all(road, path, corners));
  }

  /** The same vehicle and day on another line. */
  public Desk along(Path other) {
    return new Desk(
        road,
        corners,
        ground,
        conditions,
        other,
        limits,
        LapSimulator.lap(other, limits, lap.boostBelow()),
        CornerLine.all(road, other, corners));
  }

  /** The same with another reading of one corner's line. */
  Desk reading(int c, CornerLine line) {
    List<CornerLine> read = new java.util.ArrayList<>(lines);
    read.set(c, line);
    return new Desk(road, corners, ground, conditions, path, limits, lap, List.copyOf(read));
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

  /** Index of the slowest station of the lap in a corner. */
  public int slowest(int c) {
    Corner corner = corners.get(c);
    CornerLine line = lines.get(c);
    double exit = Math.max(5, road.ahead(line.turnIn(), corner.exit()));
    return slowest(line.turnIn(), Math.min(exit, road.length() / 2));
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

  /**
   * Index of the slowest station that a corner is braked for. Of two apexes that is the first where
   * the lap brakes for it and goes quicker between them, also where the second is slower.
   */
  public int braked(int c) {
    CornerLine line = lines.get(c);
    int slowest = slowest(c);
    if (line.apexes().size() < 2) {
      return slowest;
    }
    int first = slowest(line.turnIn(), toMiddle(line));
    int n = road.size();
    double quickest = lap.speed()[first];
    for (int k = 0; k < Math.floorMod(slowest - first, n); k++) {
      quickest = Math.max(quickest, lap.speed()[(first + k) % n]);
    }
    boolean dips = first == slowest || quickest > lap.speed()[first] + DIP;
    double lost = lap.speed()[brakesFrom(first)] - lap.speed()[first];
    return dips && lost >= Drafter.WORTH_BRAKING ? first : slowest;
  }

  /** Index of the slowest station at the last apex of a corner. */
  int slowestAtLast(int c) {
    CornerLine line = lines.get(c);
    if (line.apexes().size() < 2) {
      return slowest(c);
    }
    double middle = line.turnIn() + toMiddle(line);
    double exit = road.ahead(middle, corners.get(c).exit());
    return slowest(road.wrap(middle), exit < road.length() / 2 ? Math.max(5, exit) : 5);
  }

  private double toMiddle(CornerLine line) {
    double first = line.apexes().get(0);
    return road.ahead(line.turnIn(), first) + road.ahead(first, line.apex()) / 2;
  }

  /** Index from which the lap brakes for a slow place, or a little before it where it does not. */
  int brakesFrom(int slowest) {
    int n = road.size();
    int k = 0;
    while (k < n / 2 && lap.brake()[Math.floorMod(slowest - k - 1, n)] <= BRAKE_COUNTS && k < 40) {
      k++;
    }
    while (k < n / 2 && lap.brake()[Math.floorMod(slowest - k - 1, n)] > 0.01) {
      k++;
    }
    return Math.floorMod(slowest - k, n);
  }
}
