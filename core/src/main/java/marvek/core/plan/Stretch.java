package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import marvek.core.circuit.Loop;
import marvek.core.entry.BrakedAgain;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.line.Warp;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import marvek.core.score.Stance;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import marvek.core.technique.SchoolLine;
import org.jspecify.annotations.Nullable;

/**
 * The stretch of road that a corner is planned on: from the slowest point of the corner before to
 * the braking for the next one.
 */
final class Stretch {
  static final double LINE_REACH = 90;
  // Steps before the braking from which a stretch begins at the latest.
  private static final int LEAD = 40;
  // How far before it one begins then: on another line it may be braked for sooner.
  private static final int BACK = 60;
  // Steps without the brake between two presses.
  private static final int ROLLED = 6;
  // Share of the throttle below which it is eased, seconds of that which count, and by how many it
  // is let go before.
  private static final double FULL = 0.9;
  private static final double EASED = 0.25;
  private static final double SOONER = 0.3;
  private static final Set<ActionKind> THROTTLES =
      EnumSet.of(ActionKind.LIFT, ActionKind.THROTTLE, ActionKind.FULL);

  final ComputedLap computed;
  final Things things;
  final int c;
  final int from;
  final int count;
  // Steps until the lap brakes for the corner.
  private final int free;
  // Steps from which last pressed to which the braking for a corner before runs through this one;
  // none where both are 0.
  private final int pressed;
  private final int carried;
  private volatile PlannedCorner.@Nullable Room room;

  /**
   * The stretch of a corner.
   *
   * @param things of the survey, for kerbs and limits
   * @param c place of the corner in the list
   */
  Stretch(ComputedLap computed, Things things, int c) {
    this.computed = computed;
    this.things = things;
    this.c = c;
    int n = computed.road().size();
    Loop loop = computed.road().loop();
    int corners = computed.corners().size();
    int begin = corners == 1 ? loop.at(computed.slowest(c) - n / 2) : computed.slowestBefore(c);
    if (!computed.brakings().of(c).isEmpty()) {
      // A marker may stand where the corner before is still being braked for.
      int onset = computed.brakesFrom(c);
      int ahead = loop.ahead(begin, onset);
      boolean near = ahead < LEAD || ahead > n - 5 * LEAD;
      begin = near ? loop.at(onset - BACK) : begin;
    }
    this.from = begin;
    int last = computed.slowestAtLast(c);
    this.count = loop.ahead(begin, last) + computed.onward(c);
    int free = loop.ahead(begin, computed.brakesFrom(c));
    ComputedLap.Through through = computed.through(c);
    int end = through == null ? 0 : loop.ahead(begin, through.braking().end() + 1);
    this.carried = end > count ? 0 : end;
    this.pressed =
        through == null || carried == 0 ? 0 : lastPress(stepOf(through.braking().onset()));
    this.free = Math.max(carried, free > count ? 0 : free);
  }

  /** Step of the last press of a braking that began at a step and is carried through. */
  private int lastPress(int onset) {
    // It may end in touches that take off next to nothing, which are no press.
    Loop loop = computed.road().loop();
    double[] speed = computed.lap().speed();
    boolean slowed = false;
    int rolled = 0;
    for (int k = carried - 1; k > onset; k--) {
      int i = loop.at(from + k);
      slowed |= speed[i] - speed[loop.at(from + carried)] > Brakings.LIGHT;
      rolled = slowed && computed.lap().brake()[i] <= Brakings.ONSET ? rolled + 1 : 0;
      if (rolled == ROLLED) {
        return k + ROLLED;
      }
    }
    return onset;
  }

  double station(double step) {
    return computed.road().wrap((from + step) * computed.road().step());
  }

  int step(double station) {
    int n = computed.road().size();
    Loop loop = computed.road().loop();
    int k = loop.ahead(from, computed.road().index(station));
    // A little before the stretch is the start of it, not its end a lap later.
    return k > count ? (k > count + (n - count) / 2 ? 0 : count) : k;
  }

  /** The line of the lap, or the one that the schools chosen ask for. */
  SchoolLine line(CornerEntry entry) {
    return SchoolLine.bends(entry.schools())
        ? computed.laid(things, c, entry.schools(), entry.givenAway())
        : new SchoolLine(computed.path(), computed.lines().get(c));
  }

  /** The line bent so that it turns in, touches and leaves where the entry says. */
  Path path(CornerEntry entry, SchoolLine along, List<Said> remarks) {
    CornerLine line = along.line();
    double[] offset = along.path().offset();
    double[] was = offset;
    offset =
        warped(offset, line.turnIn(), entry.station(PointKind.TURN_IN), remarks, PointKind.TURN_IN);
    if (line.apexes().size() > 1) {
      offset =
          warped(
              offset,
              line.apexes().get(0),
              entry.station(PointKind.FIRST_APEX),
              remarks,
              PointKind.FIRST_APEX);
    }
    offset = warped(offset, line.apex(), entry.station(PointKind.APEX), remarks, PointKind.APEX);
    offset = warped(offset, line.exit(), entry.station(PointKind.EXIT), remarks, PointKind.EXIT);
    if (Math.abs(entry.apexOff()) > 0.01) {
      double outwards = computed.corners().get(c).left() ? -entry.apexOff() : entry.apexOff();
      double at = entry.station(PointKind.APEX).orElse(line.apex());
      offset = Warp.bumped(computed.road(), offset, at, outwards, LINE_REACH);
    }
    if (offset == was) {
      return along.path();
    }
    Path bent = Path.over(computed.road(), offset, computed.ground());
    return along.path() == computed.path() ? bent : bent.withGrip(along.path().grip());
  }

  private double[] warped(
      double[] offset, double was, Optional<Double> now, List<Said> remarks, PointKind what) {
    double shift = now.map(s -> computed.road().apart(was, s)).orElse(0.0);
    if (Math.abs(shift) < 1) {
      return offset;
    }
    double most = 0.2 * LINE_REACH;
    if (Math.abs(shift) > most) {
      remarks.add(
          Said.of("plan.line_follows", what.said().in(), Value.length(most), Value.length(shift)));
    }
    return Warp.shifted(computed.road(), offset, was, shift, LINE_REACH, LINE_REACH);
  }

  PlannedCorner.Steps steps(CornerEntry entry, CornerLine line) {
    int turnIn = step(entry.station(PointKind.TURN_IN).orElse(line.turnIn()));
    boolean brakes = entry.slowing() == Slowing.BRAKE;
    // Beyond the stretch nothing is left to brake for: such a marker cannot be made.
    int brake =
        brakes
            ? entry.station(PointKind.BRAKE).map(s -> Math.min(step(s), count - 1)).orElse(-1)
            : -1;
    int apex = step(entry.station(PointKind.APEX).orElse(line.apex()));
    int release = entry.station(PointKind.RELEASE).map(this::step).orElse(apex);
    int exit = step(entry.station(PointKind.EXIT).orElse(line.exit()));
    if (entry.slowing() == Slowing.FLAT) {
      return new PlannedCorner.Steps(
          -1,
          turnIn,
          -1,
          0,
          0,
          1,
          exit,
          null,
          false,
          turnIn,
          count + 1,
          carried,
          written(entry, turnIn, -1, -1));
    }
    // What the lap does on its own line; another line is slowed for as it bends.
    List<Brakings.Braking> brakings =
        brake >= 0 && !SchoolLine.bends(entry.schools()) ? computed.brakings().of(c) : List.of();
    int first = entry.station(PointKind.FIRST_THROTTLE).map(this::step).orElse(apex);
    int full = entry.station(PointKind.FULL_THROTTLE).map(this::step).orElse(count);
    return new PlannedCorner.Steps(
        brake,
        turnIn,
        release,
        first,
        full,
        entry.firstThrottle(),
        exit,
        entry.pedals(),
        line.apexes().size() > 1 || brakings.size() > 1,
        brakings.isEmpty() ? turnIn : stepOf(brakings.get(0).slowest()),
        brakings.size() > 1 ? stepOf(brakings.get(1).onset()) : count + 1,
        brakes ? 0 : Math.min(carried, first),
        written(entry, turnIn, brake, release));
  }

  /** Step of a station with its fraction. */
  double place(double station) {
    int whole = step(station);
    double part = computed.road().apart(station(whole), station) / computed.road().step();
    return Math.abs(part) <= 1 ? Math.max(0, Math.min(count, whole + part)) : whole;
  }

  /** What the pedals do where more is written than the points; null for the points alone. */
  private PlannedCorner.@Nullable Written written(
      CornerEntry entry, int turnIn, int brake, int release) {
    if (!Score.plays(entry)) {
      return null;
    }
    List<Action> score = Score.of(computed.road(), entry);
    List<ScoreDrive.Pedal> pedals = new ArrayList<>();
    boolean slows =
        score.stream().anyMatch(a -> a.kind() == ActionKind.BRAKE || a.kind() == ActionKind.LIFT);
    boolean own = entry.actions().stream().anyMatch(a -> a.kind() == ActionKind.BRAKE);
    if (carried > 0 && entry.slowing() != Slowing.BRAKE && !own) {
      // It is still braked for the corner before, which says so itself.
      pedals.add(
          new ScoreDrive.Pedal(
              "before", ActionKind.BRAKE, pressed, Double.NaN, Double.NaN, Manner.AT_ONCE));
    } else if (entry.slowing() == Slowing.LIFT && !slows) {
      // Lifted for, with nothing said of where: as the hands go in, and as much as is needed.
      pedals.add(
          new ScoreDrive.Pedal(
              "lift", ActionKind.LIFT, turnIn, Double.NaN, Double.NaN, Manner.AT_ONCE));
    }
    if (entry.slowing() == Slowing.BRAKE && !own && !SchoolLine.bends(entry.schools())) {
      // Where the lap brakes again and the driver has written nothing of it, it is braked for.
      for (BrakedAgain again : computed.again(c)) {
        pedals.add(
            new ScoreDrive.Pedal(
                "again",
                ActionKind.BRAKE,
                place(again.station()),
                Double.NaN,
                Double.NaN,
                Manner.AT_ONCE));
      }
    }
    for (Action a : score) {
      if (a.kind().pedal()) {
        Double until = a.until();
        Double amount = a.amount();
        Pedals planned = a.id().equals(PlannedCorner.MARKER) ? entry.pedals() : null;
        ScoreDrive.Shape shape =
            planned == null || amount != null || brake < 0
                ? null
                : new ScoreDrive.Shape(planned, brake, turnIn, Math.max(release, brake + 1));
        pedals.add(
            new ScoreDrive.Pedal(
                a.id(),
                a.kind(),
                shape != null ? brake : place(a.station()),
                until == null ? Double.NaN : place(until),
                amount == null ? Double.NaN : amount,
                a.manner(),
                shape));
      }
    }
    pedals.sort(Comparator.comparingDouble(ScoreDrive.Pedal::at));
    if (opensOn(entry, score)) {
      pedals.add(
          new ScoreDrive.Pedal(
              "opened", ActionKind.FULL, count, Double.NaN, Double.NaN, Manner.AT_ONCE));
    }
    ScoreDrive.Pedal last = pedals.isEmpty() ? null : pedals.get(pedals.size() - 1);
    if (last != null && last.kind() == ActionKind.FULL) {
      int eased = easedAgain((int) Math.ceil(last.at()));
      if (eased > 0) {
        // The next corner's own lift is not this one's to write, and as much as is needed.
        pedals.add(
            new ScoreDrive.Pedal(
                "next", ActionKind.LIFT, eased, Double.NaN, Double.NaN, Manner.AT_ONCE));
      }
    }
    List<ScoreDrive.Shift> shifts = new ArrayList<>();
    for (Action a : score) {
      Integer gear = a.gear();
      // The first downshift only says from where on gears are taken on the way down.
      boolean waits = a.id().equals(Score.id(PointKind.DOWNSHIFT));
      if (a.kind() == ActionKind.SHIFT && gear != null && !waits) {
        Double until = a.until();
        int taken = Math.max(1, Math.min(computed.vehicle().gears(), gear));
        shifts.add(
            new ScoreDrive.Shift(
                place(a.station()), taken, until == null ? Double.NaN : place(until)));
      }
    }
    shifts.sort(Comparator.comparingDouble(ScoreDrive.Shift::at));
    return new PlannedCorner.Written(
        computed.fullPress(), List.copyOf(pedals), List.copyOf(shifts), bodies(score));
  }

  /** What a rider does with the body, each with what it leaves as it was. */
  List<ScoreDrive.Body> bodies(List<Action> score) {
    List<ScoreDrive.Body> out = new ArrayList<>();
    double forward = 0;
    Double front = null;
    for (Action a : score) {
      if (a.rides()) {
        Stance stance = a.stance();
        forward = stance == null ? forward : stance.moves();
        front = a.amount() == null ? front : a.amount();
        out.add(new ScoreDrive.Body(place(a.station()), forward, front));
      }
    }
    out.sort(Comparator.comparingDouble(ScoreDrive.Body::at));
    return List.copyOf(out);
  }

  /**
   * Where the lap eases the throttle once more past a step, a moment sooner; 0 where it does not.
   */
  private int easedAgain(int from) {
    LapTrace lap = computed.lap();
    Loop loop = computed.road().loop();
    double step = computed.road().step();
    double seconds = 0;
    for (int k = Math.max(0, from); k < count; k++) {
      int i = loop.at(this.from + k);
      boolean full = lap.throttle()[i] >= FULL && lap.brake()[i] < Brakings.ONSET;
      seconds = full ? 0 : seconds + step / lap.speed()[i];
      if (seconds > EASED) {
        int sooner = (int) Math.round((seconds + SOONER) * lap.speed()[i] / step);
        return Math.max(from + 1, k - sooner);
      }
    }
    return 0;
  }

  /**
   * Whether a first throttle that comes to full nowhere is opened evenly on and on, as the points
   * alone are: where nothing is written for the throttle itself.
   */
  private static boolean opensOn(CornerEntry entry, List<Action> score) {
    boolean first =
        score.stream()
            .anyMatch(
                a ->
                    a.id().equals(Score.id(PointKind.FIRST_THROTTLE))
                        && a.manner() == Manner.EVENLY);
    return first
        && entry.station(PointKind.FULL_THROTTLE).isEmpty()
        && entry.actions().stream().noneMatch(a -> THROTTLES.contains(a.kind()));
  }

  private int stepOf(int index) {
    return step(index * computed.road().step());
  }

  PlannedCorner plan(Path path, PlannedCorner.Steps steps) {
    return plan(path, computed.limits(), steps);
  }

  PlannedCorner plan(Path path, Limits limits, PlannedCorner.Steps steps) {
    return new PlannedCorner(room(path, limits), from, count, free, steps, ScoreDrive.Wants.ALL);
  }

  /** The same, of which only is asked whether it is made and, where it is, in what time. */
  PlannedCorner tried(Path path, PlannedCorner.Steps steps) {
    return tried(path, steps, ScoreDrive.Wants.TIME);
  }

  /** Whether a plan is made. */
  boolean made(Path path, PlannedCorner.Steps steps) {
    return tried(path, steps, ScoreDrive.Wants.MADE).makesIt;
  }

  private PlannedCorner tried(Path path, PlannedCorner.Steps steps, ScoreDrive.Wants wants) {
    return new PlannedCorner(room(path, computed.limits()), from, count, free, steps, wants);
  }

  /** A corner is asked again and again on one path: what that allows is worked out once. */
  private PlannedCorner.Room room(Path path, Limits limits) {
    PlannedCorner.Room had = room;
    if (had == null || had.path() != path || had.limits() != limits) {
      had = PlannedCorner.Room.of(path, limits, computed.lap(), from, count, free);
      room = had;
    }
    return had;
  }

  /** An entry on its line, planned. */
  record Laid(Path path, PlannedCorner.Steps steps, PlannedCorner plan) {}

  Laid laid(CornerEntry entry) {
    SchoolLine line = line(entry);
    Path path = path(entry, line, new ArrayList<>());
    PlannedCorner.Steps steps = steps(entry, line.line());
    return new Laid(path, steps, plan(path, steps));
  }
}
