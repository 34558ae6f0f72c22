package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import marvek.core.circuit.Corner;
import marvek.core.day.Paced;
import marvek.core.entry.PointKind;
import marvek.core.line.CornerLine;
import marvek.core.line.Gate;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.marker.Views;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.Relaid;
import marvek.core.review.Glances;
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/**
 * What racing others asks of a lap: where one is held up and what that costs, where there is time
 * to breathe, and where the flags are shown. No speed is ever told for a flag.
 *
 * @param held what it costs to follow somebody slower through a corner, in driving order
 * @param breathing where there is time to breathe and to look, in driving order
 * @param posts where flags and lamps are shown, in driving order
 * @param gauges what a second to somebody ahead looks like at each corner, in driving order
 */
public record RaceCraft(
    List<Held> held, List<Breathing> breathing, List<Post> posts, List<Gauge> gauges) {
  /** Grip that somebody slower leaves unused in a corner. */
  public static final double SLOWER = 0.1;

  // Metres over the road of a panel or a flag held out (common practice, no source).
  private static final double POST_HEIGHT = 2;
  private static final double POST_OUT = 3;
  private static final double FAR = 320;
  // Seconds that a breath takes (common practice, no source).
  private static final double BREATH = 2;
  // Metres past a corner in which nobody is alongside, and that it takes to come there.
  private static final double CLEAR = 10;
  private static final double ROOM = 25;
  // Metres before the marker from which on one is alongside.
  private static final double ALONGSIDE = 40;
  // m/s² across that crossing the road over to the inside asks for, with room and at the most.
  private static final double EASY = 1;
  private static final double FIRM = 6;

  public RaceCraft {
    held = List.copyOf(held);
    breathing = List.copyOf(breathing);
    posts = List.copyOf(posts);
    gauges = List.copyOf(gauges);
  }

  /**
   * A corner behind somebody slower.
   *
   * @param corner id
   * @param seconds lost by following through it, with what that costs on the way out
   */
  public record Held(String corner, double seconds) {}

  /**
   * A stretch that leaves time.
   *
   * @param from station, m
   * @param to station, m
   * @param seconds that it takes
   */
  public record Breathing(double from, double to, double seconds) {}

  /**
   * A post.
   *
   * @param label its number or name
   * @param station m
   * @param left whether it stands on the left
   * @param sight metres before it from which it is in view
   * @param seconds of those on a lap
   * @param corner that comes next after it, by its id
   */
  public record Post(
      String label, double station, boolean left, double sight, double seconds, String corner) {}

  /**
   * How far ahead somebody is who drives the same lap a second earlier. The gap stays a second: in
   * metres it opens on the straights and closes in the corners, and whoever measures it by eye must
   * look at the same place each lap.
   *
   * @param corner id
   * @param at station where one begins to brake for it, or turns in where nobody brakes, m
   * @param arriving metres ahead when one is there
   * @param slowest metres ahead when one is at its slowest place
   */
  public record Gauge(String corner, double at, double arriving, double slowest) {}

  /** Of a lap. */
  public static RaceCraft of(ComputedLap then, Things things) {
    List<Held> held = new ArrayList<>();
    for (Corner c : then.corners()) {
      held.add(new Held(c.id(), held(then, c.id())));
    }
    List<Breathing> breathing = new ArrayList<>();
    for (Place p : Glances.on(then)) {
      double seconds = then.lap().between(then.road().index(p.from()), then.road().index(p.to()));
      if (seconds >= BREATH) {
        breathing.add(new Breathing(p.from(), p.to(), seconds));
      }
    }
    List<Post> posts = new ArrayList<>();
    things.places().stream()
        .filter(p -> p.kind() == PlaceKind.MARSHAL_POST)
        .sorted(java.util.Comparator.comparingDouble(Place::from))
        .forEach(p -> posts.add(post(then, things, p)));
    List<Gauge> gauges = new ArrayList<>();
    for (int c = 0; c < then.corners().size(); c++) {
      int at =
          then.brakings().of(c).isEmpty()
              ? then.road().index(then.lines().get(c).turnIn())
              : then.brakings().of(c).get(0).onset();
      gauges.add(
          new Gauge(
              then.corners().get(c).id(),
              at * then.road().step(),
              ahead(then, at, 1),
              ahead(then, then.slowest(c), 1)));
    }
    return new RaceCraft(held, breathing, posts, gauges);
  }

  /** Metres along the road that a lap drives in some seconds from a place on. */
  private static double ahead(ComputedLap then, int from, double seconds) {
    double[] v = then.lap().speed();
    double metres = 0;
    double left = seconds;
    for (int k = 0; k < v.length; k++) {
      int i = then.road().loop().at(from + k);
      double takes = 2 * then.path().step()[i] / (v[i] + v[then.road().loop().at(i + 1)]);
      if (takes >= left) {
        return metres + then.road().step() * left / takes;
      }
      left -= takes;
      metres += then.road().step();
    }
    return metres;
  }

  private static double held(ComputedLap then, String corner) {
    return Math.max(0, Paced.eased(then, List.of(corner), SLOWER).lapTime() - then.lap().lapTime());
  }

  private static Post post(ComputedLap then, Things things, Place p) {
    Views views =
        new Views(
            then.road(),
            things.landmarks(),
            then.path().offset(),
            then.path().heading(),
            then.vehicle().seatOrUsual());
    Landmark at =
        new Landmark(
            p.id(),
            LandmarkKind.POST,
            p.label(),
            p.from(),
            p.left(),
            "",
            POST_OUT,
            POST_HEIGHT,
            Landmark.Permanence.FIXED,
            true,
            null,
            "",
            "",
            0);
    OptionalDouble from = views.comesIntoView(at);
    double sight =
        from.isPresent()
            ? then.road().ahead(from.getAsDouble(), p.from())
            : views.seesNothingOf(at) ? 0 : FAR;
    int seen = then.road().index(then.road().wrap(p.from() - sight));
    String next = then.corners().get(0).id();
    double least = Double.MAX_VALUE;
    for (Corner c : then.corners()) {
      double ahead = then.road().ahead(p.from(), c.entry());
      if (ahead < least) {
        least = ahead;
        next = c.id();
      }
    }
    return new Post(
        p.label(),
        p.from(),
        p.left(),
        sight,
        then.lap().between(seen, then.road().index(p.from())),
        next);
  }

  /**
   * A corner taken from the inside, to pass or to be passed by nobody: what it costs and where that
   * is paid.
   *
   * @param corner id
   * @param metres by which it is braked for sooner than on the quickest line; never later, for who
   *     crosses over without losing speed by it could not make it then
   * @param slowest m/s at its slowest place
   * @param usual m/s there on the quickest line
   * @param seconds that it costs in the lap
   * @param until station from which on nothing more is lost, m
   * @param offset of the line from the middle of the road at each station of the stretch, to the
   *     left, m
   * @param from station of its first value, m
   * @param step metres between two values
   */
  public record Inside(
      String corner,
      double metres,
      double slowest,
      double usual,
      double seconds,
      double until,
      double from,
      double step,
      double[] offset) {}

  /**
   * A corner from the inside; null where nothing is braked for, or the corner before leaves no way
   * to come alongside.
   */
  public static @Nullable Inside inside(ComputedLap then, int c) {
    Optional<Double> usual = Drafter.places(then, c).station(PointKind.BRAKE);
    if (usual.isEmpty()) {
      return null;
    }
    Corner corner = then.corners().get(c);
    CornerLine line = then.lines().get(c);
    double step = then.road().step();
    // Alongside before the marker, and nobody is before the corner before is done.
    double brake = then.road().wrap(usual.get() - ALONGSIDE);
    double turn = line.turnIn();
    int count = then.corners().size();
    double before = then.corners().get((c + count - 1) % count).exit();
    double way = ahead(then, brake, turn);
    double done = count == 1 ? -way : then.road().apart(brake, before) + CLEAR;
    double begin = Math.max(0, done + crossing(then, corner, brake + done, FIRM));
    if (way - begin < ROOM) {
      return null;
    }
    double cross = Math.min(crossing(then, corner, brake + begin, EASY), Math.max(0, begin - done));
    List<Gate> gates = new ArrayList<>();
    // Inside from there on until it is turned.
    gates.add(gate(corner, "pass-brake", then.road().wrap(brake + begin)));
    gates.add(gate(corner, "pass-middle", then.road().wrap(brake + begin + 0.6 * (way - begin))));
    gates.add(gate(corner, "pass-turn", turn));
    double start = then.road().wrap(brake + begin - cross);
    ComputedLap crossed =
        then.with(
            then.ground(),
            then.conditions(),
            crossed(then, gates.get(0), start, then.road().wrap(brake + begin), turn, line.apex()));
    Relaid laid =
        Relaid.of(
            crossed,
            Gate.through(then.road(), then.ground(), gates, then.vehicle()),
            start,
            line.exit());
    ComputedLap lap = laid.computed();
    // Where the line joins the old one and the speed is as before, nothing more is lost.
    int n = then.road().size();
    int from = laid.from();
    double lost = 0;
    double most = 0;
    int until = from;
    int apart = 2 * laid.count();
    for (int k = 0; k < Math.min(apart, n - 1); k++) {
      int i = (from + k) % n;
      lost +=
          lap.path().step()[i] / Math.max(1, lap.lap().speed()[i])
              - then.path().step()[i] / Math.max(1, then.lap().speed()[i]);
      if (lost > most + 1e-3) {
        most = lost;
        until = i;
      }
    }
    double[] offset = new double[laid.count()];
    for (int k = 0; k < offset.length; k++) {
      offset[k] = lap.path().offset()[(from + k) % n];
    }
    // Markers as a draft makes them, with the same margin, so that neither is told too late.
    Optional<Double> now = Drafter.places(lap, c).station(PointKind.BRAKE);
    return new Inside(
        corner.id(),
        now.isEmpty() ? 0 : Math.max(0, -then.road().apart(usual.get(), now.get())),
        lap.lap().speed()[lap.slowest(c)],
        then.lap().speed()[then.slowest(c)],
        lap.lap().lapTime() - then.lap().lapTime(),
        until * step,
        from * step,
        step,
        offset);
  }

  /** The line with the inside taken: over to it, along it, and back to the line by the apex. */
  private static double[] crossed(
      ComputedLap then, Gate gate, double start, double inside, double turn, double apex) {
    double[] offset = then.path().offset().clone();
    double step = then.road().step();
    int first = then.road().index(start);
    double over = Math.max(step, then.road().ahead(start, inside));
    double along = over + then.road().ahead(inside, turn);
    double back = Math.max(step, then.road().ahead(turn, apex));
    for (int k = 0; k * step < along + back; k++) {
      int i = then.road().loop().at(first + k);
      double s = k * step;
      double share = s < over ? smooth(s / over) : s < along ? 1 : 1 - smooth((s - along) / back);
      double at =
          new Gate(gate.id(), i * step, gate.left(), gate.metres(), gate.tolerance())
              .across(then.road(), then.vehicle());
      offset[i] += share * (at - offset[i]);
    }
    return offset;
  }

  /** Metres for crossing over to the inside at the speed there, no quicker than asked for. */
  private static double crossing(ComputedLap then, Corner corner, double station, double across) {
    int i = then.road().index(then.road().wrap(station));
    double inside = gate(corner, "", i * then.road().step()).across(then.road(), then.vehicle());
    // 5.77 is the steepest bend of the smooth way across.
    return then.lap().speed()[i]
        * Math.sqrt(5.77 * Math.abs(inside - then.path().offset()[i]) / across);
  }

  /** From 0 to 1 without a kink at either end. */
  private static double smooth(double x) {
    return x * x * x * (10 - 15 * x + 6 * x * x);
  }

  private static double ahead(ComputedLap then, double from, double to) {
    double ahead = then.road().ahead(from, to);
    return ahead > then.road().length() / 2 ? 0 : ahead;
  }

  private static Gate gate(Corner corner, String id, double station) {
    return new Gate(id, station, corner.left(), 0.6, 0.4);
  }
}
