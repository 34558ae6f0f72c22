package marvek.core.plan;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Loop;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import marvek.core.technique.Pedals;
import org.jspecify.annotations.Nullable;

/**
 * A score driven: both pedals move as its actions say, straight in time, and hold until the next of
 * them; what is left open is solved so that each slowest place is just met. d(v²)/ds = 2a by Heun's
 * rule, a step cut where an action falls into it.
 *
 * <p>A share of the throttle u gives u·F(v) − (1 − u)·m·a with the drag of the closed engine a, as
 * far as the tyres bear it. An effort is a share of the driver's full press, which is the hardest
 * that the vehicle can brake at the top speed of the lap; more than the tyres bear is cut, and told
 * by {@link #asked}.
 */
final class ScoreDrive {
  /** Seconds that a pedal takes (common practice, no source). */
  static final double BRAKE_HARD = 0.15;

  static final double BRAKE_SQUEEZED = 0.6;
  static final double LIFT_AT_ONCE = 0.2;
  static final double LIFT_SLOWLY = 0.8;
  static final double OPEN = 0.2;
  static final double SHUT = 0.1;

  private static final int BISECTIONS = 18;
  private static final int RAMP_ROUNDS = 3;
  private static final double FINER = 0.25;
  // Share of the speed over which an open braking eases once its place is met.
  private static final double EASES = 0.01;
  // m/s² of braking, about the most there is where a corner is slow.
  private static final double HARDEST = 12;
  // Share of the grip from which a turn is one that a lift is for.
  private static final double TURNS = 0.7;
  private static final double OTHER = 0.1;
  // So much more than a place allows still counts as made: the model is no finer.
  // What is left open is solved this closely to what its place allows.
  private static final double MEETS = 1.003;
  private static final double MADE = 1.01;
  private static final double OVER = 1.012;

  /**
   * A pedal's action on the stretch.
   *
   * @param id of the action
   * @param at step, with its fraction
   * @param until step at which a lift comes back; NaN where the next action ends it
   * @param amount share; NaN where it is left open
   * @param shape of a braking's press; null for one that is held
   */
  record Pedal(
      String id,
      ActionKind kind,
      double at,
      double until,
      double amount,
      Manner manner,
      @Nullable Shape shape) {
    Pedal(String id, ActionKind kind, double at, double until, double amount, Manner manner) {
      this(id, kind, at, until, amount, manner, null);
    }

    Pedal from(double step) {
      Shape had = shape;
      return new Pedal(id, kind, step, until, amount, manner, had == null ? null : had.from(step));
    }

    Pedal amounting(double share) {
      return new Pedal(id, kind, at, until, share, manner, shape);
    }
  }

  /** What is looked at of a drive. */
  enum Wants {
    /** All that it does. */
    ALL,
    /** Whether it is made and, where it is, in what time. */
    TIME,
    /** Whether it is made. */
    MADE
  }

  /**
   * A press that rises and falls along the road as a planned shape does.
   *
   * @param marker step at which it begins
   * @param turnIn step
   * @param release step at which it is over
   */
  record Shape(Pedals pedals, double marker, double turnIn, double release) {
    Shape from(double step) {
      return new Shape(pedals, step, turnIn, Math.max(release, step + 1));
    }

    /** Share of its peak at a step. */
    double at(double step) {
      return pedals.brake(step - marker, turnIn - marker, release - marker);
    }
  }

  /**
   * What became of an action.
   *
   * @param id of the action
   * @param at step at which it begins
   * @param speed m/s there
   * @param time seconds from the start of the stretch
   * @param amount share that it was driven with; of a braking that was solved the hardest press, as
   *     a share of the full one
   * @param solved whether it was left open
   * @param serves step of the slowest place that a braking or lift is for, or −1
   * @param made whether that place is met
   */
  record Played(
      String id,
      double at,
      double speed,
      double time,
      double amount,
      boolean solved,
      int serves,
      boolean made) {
    Played pressing(double effort) {
      return new Played(id, at, speed, time, effort, solved, serves, made);
    }
  }

  /** A change of one pedal on the way. */
  private static final class Event {
    final double at;
    final int action;
    // What its action is: asked for at every step of a drive.
    final ActionKind kind;
    final boolean brake;
    final double seconds;
    // NaN holds what there is.
    double target;
    // Whether it goes on evenly to the target of the next event of its pedal.
    boolean ramps;
    int next = -1;
    // Whether a brake is a share of what the tyres bear, not of the full press.
    boolean ofGrip;
    @Nullable Shape shape;
    // Seconds at which it came in the round before.
    double when = Double.NaN;

    Event(double at, int action, ActionKind kind, boolean brake, double target, double seconds) {
      this.at = at;
      this.action = action;
      this.kind = kind;
      this.brake = brake;
      this.target = target;
      this.seconds = seconds;
    }
  }

  /** A foot on its way: from where, since when, and by which event; −1 for none yet. */
  private static final class Foot {
    int by = -1;
    double from;
    double since;
    double target;
    double until;
    double then;
    double ramp;

    Foot(double value) {
      from = value;
      target = value;
      then = value;
    }

    Foot(Foot other) {
      by = other.by;
      from = other.from;
      since = other.since;
      target = other.target;
      until = other.until;
      then = other.then;
      ramp = other.ramp;
    }

    /**
     * Takes a new way: to the target in some seconds and, with a ramp, on to another until then.
     */
    void go(Event e, int index, double now, double seconds, double on, double end) {
      from = at(now);
      by = index;
      since = now;
      target = Double.isNaN(e.target) ? from : e.target;
      until = now + seconds;
      then = Double.isNaN(on) ? target : on;
      ramp = end;
    }

    double at(double t) {
      if (t < until) {
        return from + (target - from) * Math.max(0, t - since) / (until - since);
      }
      return then == target || ramp <= until
          ? target
          : target + (then - target) * Math.min(1, (t - until) / (ramp - until));
    }
  }

  /** Where the vehicle is, how fast, and both feet. */
  private static final class State {
    double at;
    double v;
    double t;
    int event;
    int shift;
    // The gear that the driver took; 0 for the one that pulls best.
    int gear;
    double held;
    double without;
    boolean ofGrip;
    @Nullable Shape shape;
    Limits limits;
    int body;
    // Most that a shape asked of the tyres in the turn.
    double asks;
    // m/s below which an open braking has nothing more to slow for.
    double[] enough = {};
    final Foot throttle;
    final Foot brake;

    State(double at, double v, double t, Limits limits) {
      this.limits = limits;
      this.at = at;
      this.v = v;
      this.t = t;
      throttle = new Foot(1);
      brake = new Foot(0);
    }

    State(State other) {
      at = other.at;
      v = other.v;
      t = other.t;
      event = other.event;
      shift = other.shift;
      gear = other.gear;
      held = other.held;
      without = other.without;
      ofGrip = other.ofGrip;
      shape = other.shape;
      asks = other.asks;
      limits = other.limits;
      body = other.body;
      enough = other.enough;
      throttle = new Foot(other.throttle);
      brake = new Foot(other.brake);
    }
  }

  /**
   * A shift on the stretch.
   *
   * @param at step, with its fraction
   * @param gear taken
   * @param until step up to which it is held, whatever the revs; NaN to shift up as usual
   */
  record Shift(double at, int gear, double until) {}

  /**
   * What a rider does with the body, from here on.
   *
   * @param at step, with its fraction
   * @param forward metres that the rider moves forward
   * @param front share of the braking at the front wheel; null as the grip asks
   */
  record Body(double at, double forward, @Nullable Double front) {}

  private final Path path;
  private final Limits limits;
  private final Loop loop;
  private final int from;
  private final int count;
  private final double[] corner;
  private final double fullPress;
  private final double engine;
  private final List<Pedal> pedals;
  private final List<Shift> shifts;
  private final List<Body> bodies;
  private final Limits[] ridden;
  private final Event[] events;
  final int[] gears;

  final double[] speed;
  final double[] brake;
  final double[] throttle;
  final Played[] played;
  private final double[] asked;
  private final double[] used;
  private final boolean asksTime;
  // Whether what is driven counts, or is only looked ahead.
  private boolean counts;
  boolean makesIt = true;
  double time;

  /**
   * Drives.
   *
   * @param from index of the start of the stretch
   * @param count steps of it
   * @param arriving m/s at each step before the first action
   * @param corner m/s that each step allows
   * @param fullPress m/s² of the driver's own full press
   * @param pedals in driving order
   * @param shifts in driving order
   * @param bodies in driving order
   * @param wants what of it is looked at: where not all is, it ends where it is seen not to be made
   */
  ScoreDrive(
      Path path,
      Limits limits,
      int from,
      int count,
      double[] arriving,
      double[] corner,
      double fullPress,
      List<Pedal> pedals,
      List<Shift> shifts,
      List<Body> bodies,
      Wants wants) {
    this.path = path;
    this.asksTime = wants != Wants.MADE;
    this.limits = limits;
    this.loop = path.loop();
    this.from = from;
    this.count = count;
    this.corner = corner;
    this.fullPress = fullPress;
    this.engine = limits.vehicle().brakes().engineBraking();
    this.pedals = List.copyOf(pedals);
    this.shifts = List.copyOf(shifts);
    this.bodies = List.copyOf(bodies);
    ridden = bodies.stream().map(b -> limits.ridden(b.forward(), b.front())).toArray(Limits[]::new);
    gears = new int[count + 1];
    events = events(pedals);
    speed = Arrays.copyOf(arriving, count + 1);
    brake = new double[count + 1];
    throttle = new double[count + 1];
    played = new Played[pedals.size()];
    asked = new double[pedals.size()];
    used = new double[pedals.size()];
    double first = events.length == 0 ? count : events[0].at;
    first = shifts.isEmpty() ? first : Math.min(first, shifts.get(0).at());
    first = bodies.isEmpty() ? first : Math.min(first, bodies.get(0).at());
    int begin = Math.max(0, Math.min(count, (int) first));
    Arrays.fill(throttle, 0, begin, 1);
    double before = 0;
    for (int k = 0; k < begin; k++) {
      before += 2 * path.step()[at(k)] / (speed[k] + speed[k + 1]);
    }
    if (!drive(new State(begin, speed[begin], before, limits), wants != Wants.ALL)) {
      return;
    }
    throttle[count] = count > 0 ? throttle[count - 1] : 1;
    gears[count] = count > 0 ? gears[count - 1] : 0;
    for (int k = begin; k <= count; k++) {
      makesIt &= speed[k] <= corner[k] * OVER;
    }
  }

  private int at(int k) {
    return loop.at(from + k);
  }

  /** What the actions do to the pedals, in driving order. */
  private static Event[] events(List<Pedal> pedals) {
    List<Event> out = new ArrayList<>();
    for (int p = 0; p < pedals.size(); p++) {
      Pedal a = pedals.get(p);
      boolean slowly = a.manner() == Manner.SLOWLY;
      boolean evenly = a.manner() == Manner.EVENLY;
      switch (a.kind()) {
        case LIFT -> {
          double lasts = slowly ? LIFT_SLOWLY : LIFT_AT_ONCE;
          out.add(new Event(a.at(), p, a.kind(), false, a.amount(), lasts));
          if (!Double.isNaN(a.until()) && !ended(pedals, p)) {
            out.add(new Event(Math.max(a.at(), a.until()), p, a.kind(), false, 1, lasts));
          }
        }
        case BRAKE -> {
          out.add(new Event(a.at(), p, a.kind(), false, 0, SHUT));
          Event press =
              new Event(
                  a.at(), p, a.kind(), true, a.amount(), slowly ? BRAKE_SQUEEZED : BRAKE_HARD);
          press.shape = a.shape();
          press.ofGrip = Double.isNaN(a.amount()) && a.shape() == null;
          out.add(press);
        }
        case EASE -> {
          Event ease = new Event(a.at(), p, a.kind(), true, a.amount(), SHUT);
          ease.ramps = evenly;
          out.add(ease);
        }
        case THROTTLE, FULL -> {
          if (!eased(pedals, p)) {
            out.add(new Event(a.at(), p, a.kind(), true, 0, SHUT));
          }
          boolean all = a.kind() == ActionKind.FULL;
          Event open = new Event(a.at(), p, a.kind(), false, all ? 1 : a.amount(), OPEN);
          open.ramps = !all && evenly;
          out.add(open);
        }
        default -> throw new IllegalArgumentException(a.kind() + " moves no pedal");
      }
    }
    Event[] events = out.toArray(new Event[0]);
    Arrays.sort(events, Comparator.comparingDouble(e -> e.at));
    for (int e = 0; e < events.length; e++) {
      int f = e + 1;
      while (f < events.length && events[f].brake != events[e].brake) {
        f++;
      }
      // A throttle that a braking shuts is held until then, not eased towards it.
      boolean shut = f < events.length && !events[f].brake && events[f].target == 0;
      events[e].next = f < events.length && !shut ? f : -1;
    }
    return events;
  }

  /** Whether another action takes the throttle before a lift comes back. */
  private static boolean ended(List<Pedal> pedals, int p) {
    return pedals.subList(p + 1, pedals.size()).stream()
        .anyMatch(a -> a.kind() != ActionKind.EASE && a.at() <= pedals.get(p).until());
  }

  /** The most that an open braking presses, as a share of the full press. */
  private double hardest(int p) {
    int last = count;
    for (int q = p + 1; q < pedals.size(); q++) {
      if (pedals.get(q).kind() == ActionKind.BRAKE) {
        last = Math.min(count, (int) pedals.get(q).at());
        break;
      }
    }
    double most = 0;
    for (int k = (int) pedals.get(p).at(); k <= last; k++) {
      most = Math.max(most, brake[k]);
    }
    return most;
  }

  /** Whether the brake is still eased after an action, before it is pressed again. */
  private static boolean eased(List<Pedal> pedals, int p) {
    for (Pedal a : pedals.subList(p + 1, pedals.size())) {
      if (a.kind() == ActionKind.BRAKE || a.kind() == ActionKind.EASE) {
        return a.kind() == ActionKind.EASE;
      }
    }
    return false;
  }

  /**
   * Drives from the first action to the end.
   *
   * @param ends whether it ends where a place is seen not to be met
   * @return whether it came to the end
   */
  private boolean drive(State s, boolean ends) {
    int ramps = ramps();
    if (!press(s, 0, ramps, ends)) {
      return false;
    }
    double[] askedBefore = asked.clone();
    double[] usedBefore = used.clone();
    int rounds = ramps < pedals.size() ? RAMP_ROUNDS : 1;
    for (int round = 0; round < rounds; round++) {
      // A ramp knows only from the round before when it ends.
      State on = new State(s);
      System.arraycopy(askedBefore, 0, asked, 0, asked.length);
      System.arraycopy(usedBefore, 0, used, 0, used.length);
      if (!press(on, ramps, pedals.size(), ends && round == rounds - 1)) {
        return false;
      }
      counts = true;
      run(on, count);
      time = on.t;
    }
    makesIt = true;
    for (int p = 0; p < pedals.size(); p++) {
      if (pedals.get(p).kind() == ActionKind.BRAKE && played[p].solved()) {
        played[p] = played[p].pressing(hardest(p));
      }
      makesIt &= played[p].made();
    }
    return true;
  }

  /** Drives up to each of some actions and finds what it is to amount to. */
  private boolean press(State s, int first, int last, boolean ends) {
    for (int p = first; p < last; p++) {
      Pedal a = pedals.get(p);
      counts = true;
      run(s, a.at());
      counts = false;
      int serves = serves(p);
      double solved = Double.NaN;
      boolean made = true;
      if (serves >= 0) {
        int to = looked(p, serves);
        if (Double.isNaN(a.amount())) {
          solved = solve(s, p, to);
        }
        made = meets(new State(s), to, MADE);
      }
      double amount = Double.isNaN(a.amount()) ? solved : a.amount();
      if (Double.isNaN(amount)) {
        amount = s.brake.at(s.t);
      }
      played[p] = new Played(a.id(), s.at, s.v, s.t, amount, !Double.isNaN(solved), serves, made);
      if (ends && !made) {
        makesIt = false;
        return false;
      }
    }
    return true;
  }

  /**
   * The step up to which it is looked whether a place is met: a share that is kept goes on for as
   * long as it is; a braking is done where its place is met.
   */
  private int looked(int p, int serves) {
    return pedals.get(p).kind() == ActionKind.LIFT ? last(p) : serves;
  }

  /**
   * The first action that drives or looks into a ramp, or into an action that is still to be
   * solved: another round may change what it finds. How many there are where nothing ramps.
   */
  private int ramps() {
    int p = pedals.size();
    if (Arrays.stream(events).noneMatch(ScoreDrive::ramps)) {
      return p;
    }
    for (p = 0; p < pedals.size(); p++) {
      int serves = serves(p);
      double reach = serves < 0 ? pedals.get(p).at() : looked(p, serves);
      for (Event e : events) {
        boolean opens = e.action > p && Double.isNaN(e.target);
        // Less than a step of a ramp has not moved a foot.
        boolean moves = e.at < reach - 1 && ramps(e) || e.at < reach - 1e-9 && opens;
        if (e.action == p && ramps(e) || moves) {
          return p;
        }
      }
    }
    return p;
  }

  private static boolean ramps(Event e) {
    return e.ramps && e.next >= 0;
  }

  /** The slowest place that a braking or a lift is for: up to where it ends or another begins. */
  private int serves(int p) {
    ActionKind kind = pedals.get(p).kind();
    if (kind != ActionKind.BRAKE && kind != ActionKind.LIFT) {
      return -1;
    }
    int low = Math.max(0, Math.min(count, (int) pedals.get(p).at() + 1));
    int last = last(p);
    return LeastSpeed.first(corner, low, last);
  }

  /** The last step that a braking or a lift counts for. */
  private int last(int p) {
    boolean lifts = pedals.get(p).kind() == ActionKind.LIFT;
    double end = lifts ? back(pedals.get(p)) : count;
    for (int q = p + 1; q < pedals.size(); q++) {
      ActionKind next = pedals.get(q).kind();
      if (next == ActionKind.BRAKE
          || next == ActionKind.FULL
          || next == ActionKind.LIFT
          || (lifts && next == ActionKind.THROTTLE)) {
        end = Math.min(end, Math.ceil(pedals.get(q).at()));
        break;
      }
    }
    int low = Math.max(0, Math.min(count, (int) pedals.get(p).at() + 1));
    return (int) Math.max(low, Math.min(count, end));
  }

  /** m/s below which an open braking has nothing more to slow for, at each step from its own. */
  private double[] enough(int p) {
    int first = Math.max(0, (int) pedals.get(p).at());
    int last = last(p);
    double[] out = new double[count + 1];
    double least = Double.MAX_VALUE;
    for (int k = last; k >= first; k--) {
      least = Math.min(least, corner[k]);
      out[k] = least;
    }
    return out;
  }

  private double back(Pedal lift) {
    return Double.isNaN(lift.until()) ? count : lift.until();
  }

  /** The least slowing that meets its place, or all there is. */
  private double solve(State s, int p, int to) {
    boolean brakes = pedals.get(p).kind() == ActionKind.BRAKE;
    Event e = opened(p, brakes);
    if (!asksTime && p == pedals.size() - 1) {
      // What least slowing makes the last place, all there is makes too.
      e.target = brakes ? 1 : 0;
      return e.target;
    }
    double low = 0;
    double high = 1;
    for (int i = 0; i < BISECTIONS; i++) {
      double middle = (low + high) / 2;
      e.target = brakes ? middle : 1 - middle;
      if (meets(new State(s), to, MEETS)) {
        high = middle;
      } else {
        low = middle;
      }
    }
    e.target = brakes ? high : 1 - high;
    return e.target;
  }

  private Event opened(int p, boolean brakes) {
    for (Event e : events) {
      if (e.action == p && e.brake == brakes) {
        return e;
      }
    }
    throw new IllegalStateException("an action has its event");
  }

  private boolean meets(State s, int to, double within) {
    int first = (int) Math.ceil(s.at);
    // What the arrival is too fast for already is not this action's to mend.
    boolean arriving = true;
    for (int k = first; k <= to; k++) {
      run(s, k);
      boolean over = speed[k] > corner[k] * within;
      if (over && !arriving || s.asks > PlannedCorner.TOLERATED) {
        return false;
      }
      arriving &= over;
    }
    return !arriving || to <= first;
  }

  /** Drives on to a step, from event to event and station to station. */
  private void run(State s, double until) {
    double to = Math.min(until, count);
    while (s.at < to - 1e-9) {
      while (s.event < events.length && events[s.event].at <= s.at + 1e-9) {
        begin(s, s.event++);
      }
      while (s.shift < shifts.size() && shifts.get(s.shift).at() <= s.at + 1e-9) {
        Shift taken = shifts.get(s.shift++);
        s.gear = taken.gear();
        s.held = Double.isNaN(taken.until()) ? s.at : taken.until();
        s.without = s.t + limits.vehicle().gearbox().shiftTime();
      }
      while (s.body < bodies.size() && bodies.get(s.body).at() <= s.at + 1e-9) {
        s.limits = ridden[s.body++];
      }
      double next = Math.min(to, Math.floor(s.at + 1e-9) + 1);
      if (s.event < events.length) {
        next = Math.min(next, events[s.event].at);
      }
      if (s.shift < shifts.size()) {
        next = Math.min(next, shifts.get(s.shift).at());
      }
      if (s.body < bodies.size()) {
        next = Math.min(next, bodies.get(s.body).at());
      }
      next = arrived(s, s.throttle, arrived(s, s.brake, next));
      next = reached(s, s.without, next);
      if (s.t < s.throttle.until || s.t < s.brake.until || nearlyEnough(s)) {
        // Where a foot moves, what the tyres bear cuts in somewhere within a step; where a braking
        // is about to ease, a step at the full press would take off more than is wanted.
        next = Math.min(next, s.at + FINER);
      }
      step(s, next);
    }
  }

  /** Whether an open braking may have slowed enough within a step. */
  private boolean nearlyEnough(State s) {
    int k = (int) Math.floor(s.at + 1e-9);
    if (s.shape != null || !s.ofGrip || k >= s.enough.length || s.brake.at(s.t) == 0) {
      return false;
    }
    double enough = s.enough[k] * (1 + EASES);
    return s.v * s.v < enough * enough + 2 * HARDEST * path.step()[at(k)];
  }

  /** The step at which a foot on its way arrives, where that comes before another. */
  private double arrived(State s, Foot foot, double next) {
    return reached(s, s.t < foot.until ? foot.until : foot.ramp, next);
  }

  /** The step that is reached at a time, where that comes before another. */
  private double reached(State s, double when, double next) {
    double on = s.at + (when - s.t) * s.v / path.step()[at((int) s.at)];
    return when > s.t && on > s.at + 0.02 && on < next - 0.02 ? on : next;
  }

  private void begin(State s, int index) {
    Event e = events[index];
    Foot foot = e.brake ? s.brake : s.throttle;
    if (e.brake && foot.at(s.t) == 0 && e.target == 0) {
      return;
    }
    if (e.brake && pedals.get(e.action).kind() == ActionKind.BRAKE) {
      // On the way down gears are taken as it slows.
      s.gear = s.held > s.at ? s.gear : 0;
    }
    if (e.brake && (e.ofGrip || pedals.get(e.action).kind() == ActionKind.BRAKE)) {
      s.ofGrip = e.ofGrip;
      s.shape = e.shape;
      s.asks = 0;
      s.enough = e.ofGrip ? enough(e.action) : s.enough;
    } else if (e.brake && s.shape != null && e.target > 0) {
      foot.from = foot.target = foot.then = foot.at(s.t) * s.shape.at(s.at);
      s.shape = null;
    } else if (e.brake && s.ofGrip && e.target > 0) {
      // From here it is told as a share of the full press.
      foot.from = foot.target = foot.then = foot.at(s.t) * most(s) / fullPress;
      s.ofGrip = false;
    }
    double on = Double.NaN;
    double end = 0;
    if (e.ramps && e.next >= 0) {
      Event next = events[e.next];
      on = next.target;
      double metres = (next.at - s.at) * path.step()[at((int) s.at)];
      end = Double.isNaN(next.when) ? s.t + metres / s.v : next.when;
    }
    e.when = s.t;
    foot.go(e, index, s.t, Double.isNaN(e.target) ? 0 : e.seconds, on, end);
  }

  private double most(State s) {
    int i = at((int) s.at);
    double square = s.v * s.v;
    double load = s.limits.load(path, i, square);
    return s.limits.brakingMost(load, left(i, square, load), path.braking(i));
  }

  /** What a turn leaves for braking, where a little more than there is still counts as made. */
  private double left(int i, double square, double load) {
    double most = PlannedCorner.TOLERATED * limits.sidewaysMost(load, path.turning(i));
    double share = most > 0 ? limits.sideways(path, i, square) / most : 1;
    return share >= 1 ? 0 : Math.sqrt(1 - share * share);
  }

  /** The driver's gear is left where it turns too fast and need not be held, or at a braking. */
  private void shiftUp(State s) {
    if (s.gear == 0) {
      return;
    }
    boolean turns = limits.vehicle().revs(s.v, s.gear) > limits.vehicle().engine().shiftRevs();
    if (turns && s.at >= s.held && s.gear < limits.vehicle().gears()) {
      s.gear++;
      s.without = s.t + limits.vehicle().gearbox().shiftTime();
    }
  }

  /** m/s² of the engine at full throttle in the gear there is. */
  private double engine(State s, double v) {
    if (s.gear == 0) {
      return limits.engineDrive(v);
    }
    if (s.t < s.without - 1e-4) {
      return 0;
    }
    double force = limits.wheelForce().at(v, s.gear);
    // Past the limiter there is nothing; the revs are looked at again only then.
    if (force == 0 && limits.wheelForce().limited(v, s.gear)) {
      return -engine;
    }
    return force / limits.mass();
  }

  private void step(State s, double next) {
    shiftUp(s);
    int k = (int) Math.floor(s.at + 1e-9);
    double ds = (next - s.at) * path.step()[at(k)];
    double u = s.throttle.at(s.t);
    double b = wanted(s, k, s.at) * s.brake.at(s.t);
    double goesOn = wanted(s, k, next);
    double square = s.v * s.v;
    double first = along(s, s.at - k, k, s.v, u, b);
    double guess = Math.sqrt(Math.max(1, square + 2 * first * ds));
    double then = s.t + 2 * ds / (s.v + guess);
    double second = along(s, next - k, k, guess, s.throttle.at(then), goesOn * s.brake.at(then));
    double v = Math.sqrt(Math.max(1, square + (first + second) * ds));
    throttle[k] = u;
    gears[k] = s.gear;
    brake[k] = s.ofGrip ? b * most(s) / fullPress : b;
    s.t += 2 * ds / (s.v + v);
    s.v = v;
    s.at = next;
    if (next - k > 1 - 1e-9) {
      s.at = k + 1;
      speed[k + 1] = v;
    }
  }

  /** How much of a braking is wanted: an open one eases where its place is met. */
  private static double wanted(State s, int k, double at) {
    Shape shape = s.shape;
    if (shape != null) {
      return shape.at(at);
    }
    if (!s.ofGrip || k >= s.enough.length || s.enough[k] <= 0) {
      return 1;
    }
    return Math.max(0, Math.min(1, (s.v / s.enough[k] - 1) / EASES + 1));
  }

  private double along(State s, double part, int k, double v, double u, double b) {
    if (part < 1e-9) {
      return along(s, at(k), v, u, b);
    }
    if (part > 1 - 1e-9) {
      return along(s, at(k + 1), v, u, b);
    }
    return (1 - part) * along(s, at(k), v, u, b) + part * along(s, at(k + 1), v, u, b);
  }

  /** m/s² along the path at a station. */
  private double along(State s, int i, double v, double u, double b) {
    double square = v * v;
    double load = s.limits.load(path, i, square);
    double wheels = (u > 0 ? u * engine(s, v) : 0) - (1 - u) * engine;
    // What the tyres bear is asked for only the way it is pushed: this is most of a drive's work.
    double stops =
        b > 0 || wheels <= 0
            ? s.limits.brakingMost(load, left(i, square, load), path.braking(i))
            : 0;
    if (b > 0) {
      double press = s.ofGrip ? b * stops : b * fullPress;
      if (counts && asks(s.brake.by, false)) {
        note(s.brake.by, press, stops, s.limits.use(path, i, square, load, press));
      }
      if (s.shape != null && s.at >= s.shape.turnIn()) {
        s.asks = Math.max(s.asks, press / Math.max(stops, 0.05));
      }
      wheels -= press;
    }
    if (wheels > 0) {
      double ellipse = s.limits.ellipse(path, i, square, load);
      double pulls = s.limits.traction(load, ellipse, path.driving(i));
      if (counts && asks(s.throttle.by, s.t < s.throttle.until)) {
        note(s.throttle.by, wheels, pulls, s.limits.driveUse(path, i, square, load, wheels));
      }
      wheels = Math.min(wheels, pulls);
    } else {
      wheels = Math.max(wheels, -stops);
    }
    return wheels - s.limits.resistance(path, i, v, load);
  }

  /** Whether what an event does is its action's to ask for. */
  private boolean asks(int event, boolean moving) {
    if (event < 0) {
      return false;
    }
    Event e = events[event];
    boolean shuts = e.kind == ActionKind.BRAKE || e.kind == ActionKind.LIFT && moving;
    // The throttle that a braking or a lift shuts was not its to ask.
    return e.brake || !shuts;
  }

  private void note(int event, double force, double most, double use) {
    int p = events[event].action;
    asked[p] = Math.max(asked[p], force / Math.max(most, 0.05));
    used[p] = Math.max(used[p], use);
  }

  /** Most of the grip that an action and the turn asked for together; above 1 it was cut. */
  double used(int p) {
    return used[p];
  }

  /** Most that an action asked for, as a share of what the tyres bore; above 1 it was cut. */
  double asked(int p) {
    return asked[p];
  }

  /**
   * Most of the grip that throttle and turn ask for together in the turn before a lift: above 1 it
   * comes late, for nobody holds a turn on its limit with more throttle than it bears.
   *
   * @param bend step in the turn that it lifts for: what is held in one the other way is not its to
   *     let go
   */
  double before(int p, int bend) {
    double free =
        p == 0 || pedals.get(p - 1).kind() == ActionKind.EASE ? 0 : pedals.get(p - 1).at();
    int at = (int) Math.min(count, pedals.get(p).at());
    double way = way(bend);
    // One past the turn was held all through it.
    return Math.max(turning(at, free, way), turning(Math.min(at, bend), free, way));
  }

  /**
   * Most of the grip that the turn and all of the throttle ask for together before the throttle is
   * touched first; 0 where it is braked, or where nothing is said of where it is lifted.
   */
  double untouched(int bend) {
    int p = touched();
    return p < pedals.size() && told(p) ? before(p, bend) : 0;
  }

  /** Whether an action is a press that meets its place, or a lift that comes in time. */
  boolean makes(int p, int bend) {
    boolean late = p == touched() && told(p) && before(p, bend) > PlannedCorner.TOLERATED;
    return played[p].made() && !late;
  }

  /** The first action that is no end of a braking before. */
  private int touched() {
    int p = 0;
    while (p < pedals.size() && pedals.get(p).kind() == ActionKind.EASE) {
      p++;
    }
    return p;
  }

  private boolean told(int p) {
    return pedals.get(p).kind() != ActionKind.BRAKE && !Double.isNaN(pedals.get(p).amount());
  }

  private double way(int k) {
    return Math.signum(path.curvature()[at(k)]);
  }

  /** The same up to a step, of whatever throttle is held. */
  double turning(int last) {
    return turning(last, 0, way(last));
  }

  private double turning(int last, double free, double way) {
    double most = 0;
    double peak = 0;
    double valley = Double.MAX_VALUE;
    for (int k = last; k >= free; k--) {
      int i = at(k);
      double turn = limits.driveUse(path, i, speed[k], 0);
      peak = Math.max(peak, turn);
      valley = turn < peak - OTHER ? Math.min(valley, turn) : valley;
      // Up to where the turn begins, or the one before ends.
      if (turn < TURNS || turn > valley + OTHER || path.curvature()[i] * way < 0) {
        break;
      }
      double straight =
          limits.traction(limits.load(path, i, speed[k] * speed[k]), 1, path.driving(i));
      double wheels = Math.max(0, Math.min(straight, limits.drive(speed[k], throttle[k])));
      most = Math.max(most, limits.driveUse(path, i, speed[k], wheels));
    }
    return most;
  }

  @Nullable Shape shape(int p) {
    return pedals.get(p).shape();
  }

  /** Place of an action in the list, −1 for one that moves no pedal. */
  int index(String id) {
    for (int p = 0; p < pedals.size(); p++) {
      if (pedals.get(p).id().equals(id)) {
        return p;
      }
    }
    return -1;
  }
}
