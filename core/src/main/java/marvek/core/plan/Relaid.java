package marvek.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.lap.Ground;
import marvek.core.line.CornerLine;
import marvek.core.line.Gate;
import marvek.core.line.QuickestLine;
import marvek.core.line.Room;
import marvek.core.technique.SchoolLine;

/**
 * The line laid anew on a stretch of the lap after something there was changed, leaving and joining
 * the line at hand at the slowest places of the corners before and after.
 *
 * @param computed the lap on it
 * @param from index of the first station that was laid anew
 * @param count stations that were
 */
public record Relaid(ComputedLap computed, int from, int count) {
  private static final int CLOSING = 12;
  // A line needs so far to come to a change and to leave it, metres.
  private static final double APART = 60;
  // Points nearer than this to where the line has them are its own, metres.
  private static final double MOVED = 1;
  private static final double MOVED_ACROSS = 0.05;
  private static final double PASSED = 0.1;
  private static final List<PointKind> THROUGH =
      List.of(PointKind.TURN_IN, PointKind.FIRST_APEX, PointKind.APEX, PointKind.EXIT);

  /**
   * Lays it anew.
   *
   * @param at the lap at hand
   * @param ground as changed
   * @param start station at which the change begins, m
   * @param end station at which it ends, m
   */
  public static Relaid of(ComputedLap at, Ground ground, double start, double end) {
    Centreline road = at.road();
    Loop loop = road.loop();
    int n = road.size();
    int first = before(at, start);
    int last = after(at, end);
    int span = loop.ahead(loop.at(first), road.index(start));
    int count = span + loop.ahead(road.index(start), road.index(end));
    count += loop.ahead(road.index(end), loop.at(last)) + 1;
    if (count > n - CLOSING) {
      // The change takes up nearly all of the lap: it opens at the far side of it.
      first =
          loop.at(
              road.index(end)
                  + (n - CLOSING - loop.ahead(road.index(start), road.index(end))) / 2
                  + CLOSING);
      count = n - CLOSING;
    }
    Room room = Room.on(road, at.vehicle(), ground);
    double[] offset = at.path().offset();
    double[] laid =
        QuickestLine.between(
            road,
            room,
            ground.asIn(at.ground()),
            at.limits(),
            room.fitted(road, offset, first, count),
            first,
            count,
            at.lap().speed()[loop.at(first)],
            at.lap().speed()[loop.at(first + count - 1)]);
    ComputedLap found = on(at, ground, laid);
    ComputedLap still = on(at, ground, offset);
    // Where the line at hand still fits and is no slower, it stays.
    boolean stays = room.holds(offset) && still.lap().lapTime() <= found.lap().lapTime();
    return new Relaid(stays ? still : found, loop.at(first), count);
  }

  private static ComputedLap on(ComputedLap at, Ground ground, double[] offset) {
    return at.with(ground, at.conditions(), offset);
  }

  /**
   * What opening an edge is worth: the lap on this line with it and without, both laid anew.
   *
   * @param without the ground without the edge
   * @param with the same ground with it
   */
  public static Worth worth(ComputedLap at, Ground without, Ground with, double start, double end) {
    Relaid kept = of(at, without, start, end);
    // From the line without, so that more room is never slower.
    Relaid open = of(kept.computed(), with, start, end);
    return new Worth(kept, open);
  }

  /**
   * Lines with something and without.
   *
   * @param without it
   * @param with it
   */
  public record Worth(Relaid without, Relaid with) {
    /** Seconds of a lap that it gains. */
    public double seconds() {
      return without.computed().lap().lapTime() - with.computed().lap().lapTime();
    }
  }

  /**
   * Gates for the points of a corner that a driver has elsewhere than the line: where it is turned
   * in, touches the inside and runs out to. None where a choice of the corner bends the line: that
   * lays its own.
   */
  public static List<Gate> gates(ComputedLap at, CornerEntry entry) {
    if (SchoolLine.bends(entry.schools())) {
      return List.of();
    }
    List<Gate> out = new ArrayList<>();
    int c = at.indexOf(entry.corner());
    CornerLine line = at.lines().get(c);
    boolean left = at.corners().get(c).left();
    Centreline road = at.road();
    // The same distance from the edge that the line has at its own place.
    moved(road, line.turnIn(), entry.station(PointKind.TURN_IN))
        .ifPresent(s -> out.add(gate(at, entry, "turn-in", s, !left, line.turnIn(), 0)));
    if (line.apexes().size() > 1) {
      moved(road, line.apexes().get(0), entry.station(PointKind.FIRST_APEX))
          .ifPresent(s -> out.add(gate(at, entry, "first-apex", s, left, line.apexes().get(0), 0)));
    }
    Optional<Double> apex = moved(road, line.apex(), entry.station(PointKind.APEX));
    if (apex.isPresent() || Math.abs(entry.apexOff()) > MOVED_ACROSS) {
      double to = apex.orElse(line.apex());
      out.add(gate(at, entry, "apex", to, left, line.apex(), entry.apexOff()));
    }
    moved(road, line.exit(), entry.station(PointKind.EXIT))
        .ifPresent(s -> out.add(gate(at, entry, "exit", s, !left, line.exit(), 0)));
    return List.copyOf(out);
  }

  /**
   * A corner that was carried to the line laid anew, with the points that it was laid through. What
   * the apex is kept off the inside is in that line.
   */
  public static CornerEntry passed(CornerEntry carried, CornerEntry through) {
    if (SchoolLine.bends(through.schools())) {
      return carried;
    }
    CornerEntry.Copy copy = carried.copy().apexOff(0);
    for (PointKind kind : THROUGH) {
      through.station(kind).ifPresent(s -> copy.moved(kind, s));
    }
    return copy.done();
  }

  private static Optional<Double> moved(Centreline road, double was, Optional<Double> now) {
    return now.filter(s -> Math.abs(road.apart(was, s)) >= MOVED);
  }

  private static Gate gate(
      ComputedLap at,
      CornerEntry entry,
      String what,
      double to,
      boolean left,
      double was,
      double more) {
    Centreline road = at.road();
    int i = road.index(was);
    double offset = at.path().offset()[i];
    double gap = left ? road.left()[i] - offset : road.right()[i] + offset;
    return new Gate(
        entry.corner() + "-" + what, to, left, gap - at.vehicle().width() / 2 + more, PASSED);
  }

  /** The slowest place of the corner before a station, of those that do not hold it. */
  private static int before(ComputedLap at, double station) {
    int best = -1;
    int least = Integer.MAX_VALUE;
    Loop loop = at.road().loop();
    for (int c = 0; c < at.corners().size(); c++) {
      int i = at.slowest(c);
      int back = loop.ahead(i, at.road().index(station));
      if (!at.brakedThrough(c)
          && !holds(at, c, station)
          && back < least
          && back * at.road().step() > APART) {
        least = back;
        best = i;
      }
    }
    return best >= 0 ? best : loop.at(at.road().index(station) - at.road().size() / 2);
  }

  private static int after(ComputedLap at, double station) {
    int best = -1;
    int least = Integer.MAX_VALUE;
    Loop loop = at.road().loop();
    for (int c = 0; c < at.corners().size(); c++) {
      int i = at.slowest(c);
      int ahead = loop.ahead(at.road().index(station), i);
      if (!at.brakedThrough(c)
          && !holds(at, c, station)
          && ahead < least
          && ahead * at.road().step() > APART) {
        least = ahead;
        best = i;
      }
    }
    return best >= 0 ? best : loop.at(at.road().index(station) + at.road().size() / 2 - 2);
  }

  private static boolean holds(ComputedLap at, int c, double station) {
    Corner corner = at.corners().get(c);
    Centreline road = at.road();
    double turnIn = at.lines().get(c).turnIn();
    double from = road.apart(turnIn, corner.entry()) > 0 ? turnIn : corner.entry();
    double to =
        road.apart(corner.exit(), at.lines().get(c).exit()) > 0
            ? at.lines().get(c).exit()
            : corner.exit();
    return road.ahead(from, station) <= road.ahead(from, to);
  }
}
