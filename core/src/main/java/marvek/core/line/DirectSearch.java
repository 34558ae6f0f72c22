package marvek.core.line;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapSlope;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;

/**
 * A direct search for what slopes leave on a short lap: smooth bumps of several widths at even
 * places, to one side and the other, each kept where the full lap, with its shifts, gets quicker,
 * and gone on with while it does. A place that won begins with what it won by the next time round;
 * one that did not with less. It knows no slopes, so neither kinks nor the pauses of shifts, which
 * {@link LapSlope} leaves out, stop it; but it takes some two thousand laps, which only a short
 * road makes cheap.
 *
 * <p>Source: Hooke &amp; Jeeves, "Direct search solution of numerical and statistical problems",
 * Journal of the ACM 8 (1961), from memory: exploring, then a step on in the same direction.
 */
final class DirectSearch {
  /** Metres up to which a lap is short enough. */
  static final double SHORT = 1000;

  private static final int ROUNDS = 2;
  // Half the width of a bump, metres, in the order in which they are tried.
  private static final double[] HALF = {48, 24, 12, 64, 32, 16, 8};
  private static final int NEAREST = 4;
  // Metres across that a bump begins with, and by how much it grows where it wins or shrinks.
  private static final double FIRST = 0.12;
  private static final double GROWS = 1.6;
  private static final int GROWS_TIMES = 4;
  private static final double SHRINKS = 0.4;
  private static final double LEAST = 0.015;
  private static final double WORTH = 1e-6;
  // Stations beside a bump where the hands feel it too.
  private static final int FELT_BESIDE = 6;

  private final Centreline road;
  private final Room room;
  private final Ground ground;
  private final Limits limits;
  private final SteeringRate hands;
  private final double flat;
  private final int n;
  private double[] offset;
  private double[] asked;
  private double best;
  private int laps;

  private record Place(int at, int half, double[] high) {}

  private DirectSearch(
      Centreline road, Room room, Ground ground, Limits limits, double flat, double[] start) {
    this.flat = flat;
    this.road = road;
    this.room = room;
    this.ground = ground;
    this.limits = limits;
    hands = SteeringRate.usual(limits.vehicle());
    n = road.size();
    offset = start;
    Path path = Path.over(road, start, ground);
    LapTrace lap = LapSimulator.lap(path, limits, 0);
    best = cost(path, lap);
    asked = hands.asked(path, lap.speed());
  }

  /** Seconds of a lap, and a little for its bending, so that it lies still where no time is. */
  private double cost(Path path, LapTrace lap) {
    double sum = lap.lapTime();
    for (int i = 0; i < n; i++) {
      sum += flat * path.curvature()[i] * path.curvature()[i] * path.step()[i];
    }
    return sum;
  }

  /**
   * Searches on from a line.
   *
   * @param flat what bending costs, s·m
   */
  static QuickestLine.Found on(
      Centreline road,
      Room room,
      Ground ground,
      Limits limits,
      double flat,
      QuickestLine.Found start,
      Watch watch) {
    DirectSearch search = new DirectSearch(road, room, ground, limits, flat, start.offset());
    List<Place> places = search.places();
    for (int k = 0; k < ROUNDS * places.size(); k++) {
      if (!watch.goesOn(k / (double) (ROUNDS * places.size()))) {
        throw new SearchStopped();
      }
      search.explore(places.get(k % places.size()));
    }
    LapSlope lap = new LapSlope(Path.over(road, search.offset, ground), limits);
    return new QuickestLine.Found(search.offset, lap.time(), start.laps() + search.laps);
  }

  private List<Place> places() {
    List<Place> out = new ArrayList<>();
    for (double metres : HALF) {
      int half = Math.min(n / 3, (int) (metres / road.step()));
      for (int at = 0; at < n; at += Math.max(NEAREST, half / 2)) {
        // Towards the inside first, so that a mirrored road has the mirrored line.
        double first = road.curvature()[at] < 0 ? -FIRST : FIRST;
        out.add(new Place(at, half, new double[] {first}));
      }
    }
    return out;
  }

  private void explore(Place place) {
    double begun = place.high()[0];
    if (Math.abs(begun) < LEAST) {
      return;
    }
    boolean won = false;
    for (int side = 0; side < 2 && !won; side++) {
      double high = side == 0 ? begun : -begun;
      for (int k = 0; k < GROWS_TIMES && takes(place, high); k++) {
        won = true;
        place.high()[0] = high;
        high *= GROWS;
      }
    }
    if (!won) {
      place.high()[0] = begun * SHRINKS;
    }
  }

  /** Bends the line at a place where that is quicker and can be steered; false where it is not. */
  private boolean takes(Place place, double high) {
    double[] tried = offset.clone();
    for (int j = -place.half(); j <= place.half(); j++) {
      int i = road.loop().at(place.at() + j);
      tried[i] += high * 0.5 * (1 + Math.cos(Math.PI * j / (place.half() + 1.0)));
      if (tried[i] > Math.max(room.upper()[i], offset[i])
          || tried[i] < Math.min(room.lower()[i], offset[i])) {
        return false;
      }
    }
    laps++;
    Path path = Path.over(road, tried, ground);
    LapTrace lap = LapSimulator.lap(path, limits, 0);
    double cost = cost(path, lap);
    if (cost >= best - WORTH) {
      return false;
    }
    double[] now = hands.asked(path, lap.speed());
    double was = hands.most();
    double most = 0;
    for (int j = -place.half() - FELT_BESIDE; j <= place.half() + FELT_BESIDE; j++) {
      int i = road.loop().at(place.at() + j);
      was = Math.max(was, asked[i]);
      most = Math.max(most, now[i]);
    }
    if (most > was + 1e-9) {
      return false;
    }
    offset = tried;
    asked = now;
    best = cost;
    return true;
  }
}
