package marvek.core.plan;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import marvek.core.axle.Axles;
import marvek.core.circuit.Centreline;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.SteeringRate;
import marvek.core.plan.CornerBalance.Around;
import marvek.core.plan.CornerBalance.Hands;
import marvek.core.plan.CornerBalance.How;
import marvek.core.plan.CornerBalance.Locks;
import marvek.core.plan.CornerBalance.Move;
import marvek.core.plan.CornerBalance.Part;
import marvek.core.plan.CornerBalance.What;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;

/** Tells how a planned corner uses the two axles. */
final class Balancing {
  // Slip at which a tyre slides all over, radians (common practice, no source).
  private static final double SLIDES = 0.14;
  // Stations to each side over which the change of the turning is told.
  private static final int AROUND = 4;
  // Every so many stations are enough to draw it.
  private static final int THIN = 3;
  // Used alike within this share it neither pushes nor turns.
  private static final double EVEN = 0.03;
  // Below this use of both neither says how the vehicle feels.
  private static final double FREE = 0.7;
  private static final double MORE_BRAKE = 0.1;
  private static final double MORE_THROTTLE = 0.1;
  // What a foot can do otherwise, points of pedal.
  private static final double LEAST_POINTS = 0.005;
  private static final double MOST = 0.4;
  // 1 km/h, m/s.
  private static final double SLOWER = 1 / 3.6;
  // A click of a damper, its damping, and how a body rolls where that is not known (common
  // practice,
  // no source).
  private static final double DAMPER_CLICK = 0.02;
  private static final double DAMPED = 0.7;
  private static final double USUAL_FREQUENCY = 1.8;
  // Across that is no roll yet, m/s².
  private static final double LEAST_ROLL = 1;
  // m/s² by which the tyres drive at least where the throttle is on.
  private static final double DRIVEN = 0.5;
  // Steps past the marker where a press has come.
  private static final int PRESS = 6;
  // Share of the grip across up to which it is as good as straight.
  private static final double STRAIGHT = 0.25;
  // Share of the usual rate from which on a change of direction takes strength.
  private static final double PHYSICAL = 0.6;
  // Far enough from an edge that no wheel is on its kerb, metres.
  private static final double INSIDE = 0.3;

  private final ComputedLap computed;
  private final Path path;
  private final PlannedCorner plan;
  private final int from;
  private final int[] gear;
  private final Things things;
  private final boolean fixed;

  /**
   * For a corner as planned.
   *
   * @param things along the road, whose kerbs take grip from one axle before the other
   * @param fixed whether the set-up is not the driver's to change
   * @param from index of the start of its stretch
   * @param gear at each step
   */
  Balancing(
      ComputedLap computed,
      Path path,
      PlannedCorner plan,
      int from,
      int[] gear,
      Things things,
      boolean fixed) {
    this.things = things;
    this.fixed = fixed;
    this.computed = computed;
    this.path = path;
    this.plan = plan;
    this.from = from;
    this.gear = gear;
  }

  CornerBalance of(PlannedCorner.Steps steps) {
    int count = plan.speed.length - 1;
    int slowest = Math.max(1, Math.min(count - 1, plan.slowest));
    int turnIn = Math.max(1, Math.min(slowest, steps.turnIn()));
    // Half-way from turn-in to where the brake is let go, or to the slowest place.
    int off = steps.brake() < 0 ? slowest : Math.max(turnIn, Math.min(slowest, plan.release()));
    int entry = (turnIn + off) / 2;
    int over = Math.max(slowest + 1, Math.min(count - 1, steps.exit()));
    int exit = exit(slowest, over);
    Limits limits = computed.limits();
    Axles axles = new Axles(limits);
    int begin = Math.max(0, (steps.brake() < 0 ? turnIn : Math.min(turnIn, steps.brake())) - 20);
    int end = Math.min(count - 1, over + 20);
    int n = (end - begin) / THIN + 1;
    double[] front = new double[n];
    double[] rear = new double[n];
    double[] bears = new double[n];
    for (int k = 0; k < n; k++) {
      int s = begin + k * THIN;
      Axles.Use use = use(axles, s, 0, 0);
      front[k] = rounded(use.front());
      rear[k] = rounded(use.rear());
      bears[k] = rounded(bears(limits, s));
    }
    double metre = computed.road().step();
    List<Move> moves = moves(axles, entry, slowest, exit);
    return new CornerBalance(
        computed.road().wrap((from + begin) * metre),
        THIN * metre,
        front,
        rear,
        bears,
        phase(axles, entry),
        phase(axles, slowest),
        phase(axles, exit),
        fixed ? moves.stream().filter(m -> !m.what().isSet()).toList() : moves,
        locks(axles, steps, entry),
        hands(begin, end),
        fixed ? around(axles, moves, entry, slowest, exit) : List.of(),
        computed.vehicle().hasAntiLock(),
        computed.vehicle().chassis() == null);
  }

  /** The middle of where the tyres drive between the slowest place and the exit. */
  private int exit(int slowest, int over) {
    int first = slowest;
    while (first < over && plan.wheels[first] < DRIVEN) {
      first++;
    }
    return Math.max(slowest + 1, (Math.min(first, over - 1) + over) / 2);
  }

  private static double rounded(double value) {
    return Math.round(Math.min(2, value) * 1000) / 1000.0;
  }

  private int at(int k) {
    return path.loop().at(from + k);
  }

  /** Deceleration by the engine where the throttle is shut, m/s². */
  private double engine(int k, int lower) {
    Vehicle v = computed.vehicle();
    return v.engineHolds(Math.max(1, gear[k] - lower));
  }

  private Axles.Use use(Axles axles, int k, double more, int lower) {
    Limits limits = computed.limits();
    double square = plan.speed[k] * plan.speed[k];
    double load = limits.load(path, at(k), square);
    double weight = Math.max(0.1, load - square * limits.downforce());
    double force = plan.wheels[k] - more;
    double engine = force < 0 ? engine(k, lower) : 0;
    // Where only the engine holds, a lower gear holds more.
    if (lower > 0 && force < 0 && -force < 1.2 * engine(k, 0)) {
      force -= engine - engine(k, 0);
    }
    Axles.Use use =
        axles.use(
            weight,
            square,
            limits.sideways(path, at(k), square),
            force,
            engine,
            yaw(k),
            path.grip()[at(k)]);
    return onKerb(at(k), use);
  }

  /**
   * On a kerb that takes grip from one axle alone, the other uses no more of its own than on the
   * road.
   */
  private Axles.Use onKerb(int i, Axles.Use use) {
    Centreline road = computed.road();
    double offset = path.offset()[i];
    Optional<Kerb> kerb = Edges.under(road, things, computed.vehicle(), i, offset);
    if (kerb.isEmpty()) {
      return use;
    }
    boolean turns = kerb.get().does().contains(Kerb.Does.TURNS);
    boolean pushes = kerb.get().does().contains(Kerb.Does.PUSHES);
    if (turns == pushes) {
      return use;
    }
    double half = computed.vehicle().width() / 2;
    double edge = kerb.get().left() ? road.left()[i] - half : half - road.right()[i];
    double inside = edge - (kerb.get().left() ? INSIDE : -INSIDE);
    double left = computed.ground().at(road, i, offset) / computed.ground().at(road, i, inside);
    return turns
        ? new Axles.Use(use.front() * left, use.rear())
        : new Axles.Use(use.front(), use.rear() * left);
  }

  /**
   * What the front gives more and the rear less so that the vehicle turns ever faster, m/s² per
   * mass: k²·d(vκ)/dt/L with k² = a·b, as if the mass stood over the axles.
   */
  private double yaw(int k) {
    Vehicle v = computed.vehicle();
    if (v.kind() == VehicleKind.MOTORCYCLE) {
      return 0;
    }
    int a = Math.max(0, k - AROUND);
    int b = Math.min(plan.speed.length - 1, k + AROUND);
    double metres = 0;
    for (int j = a; j < b; j++) {
      metres += path.step()[at(j)];
    }
    double rate =
        (plan.speed[b] * path.curvature()[at(b)] - plan.speed[a] * path.curvature()[at(a)])
            / Math.max(0.1, metres);
    double arm = v.cogToFront() * (v.wheelbase() - v.cogToFront()) / v.wheelbase();
    return arm * plan.speed[k] * rate * Math.signum(path.curvature()[at(k)]);
  }

  private double bears(Limits limits, int k) {
    double v = plan.speed[k];
    double load = limits.load(path, at(k), v * v);
    double most =
        limits.traction(load, limits.ellipse(path, at(k), v * v, load), path.driving(at(k)));
    return Math.min(1, most / Math.max(0.1, limits.engineDrive(v)));
  }

  /** Which wheel locks first as the brakes are pressed, and half-way in. */
  private List<Locks> locks(Axles axles, PlannedCorner.Steps steps, int entry) {
    if (steps.brake() < 0) {
      return List.of();
    }
    // Where the press has come: a little past the marker.
    int pressed = steps.brake() + PRESS;
    List<Locks> out = new ArrayList<>();
    if (pressed < steps.turnIn() && across(pressed) < STRAIGHT) {
      out.add(locks(axles, pressed, steps.brake(), false));
    }
    if (entry > pressed) {
      out.add(locks(axles, entry, steps.brake(), true));
    }
    return out;
  }

  /** Share of the grip across that is used. */
  private double across(int k) {
    Limits limits = computed.limits();
    double square = plan.speed[k] * plan.speed[k];
    return limits.sideways(path, at(k), square)
        / limits.sidewaysMost(limits.load(path, at(k), square), path.turning(at(k)));
  }

  private Locks locks(Axles axles, int k, int brake, boolean turning) {
    Limits limits = computed.limits();
    double square = plan.speed[k] * plan.speed[k];
    double load = limits.load(path, at(k), square);
    double engine = engine(k, 0);
    double force = Math.min(0, plan.wheels[k]);
    Axles.Locking told =
        axles.locking(
            Math.max(0.1, load - square * limits.downforce()),
            square,
            limits.sideways(path, at(k), square),
            force,
            engine,
            path.grip()[at(k)]);
    double full = Math.max(0.1, plan.straightMost(brake, plan.unbrakedAt(brake)));
    double at = told.brakes() / full;
    double planned = Math.max(0, -force - engine) / full;
    Said wheel = wheel(told);
    Value aid = Value.choice(computed.vehicle().hasAntiLock());
    return new Locks(
        computed.road().wrap((from + k) * computed.road().step()),
        turning,
        told.first(),
        told.alike(),
        at,
        planned,
        told.use().stream().map(Balancing::rounded).toList(),
        turning
            ? Said.of("locks.turning", wheel.in(), Value.percent(at), Value.percent(planned), aid)
            : Said.of("locks.straight", wheel.in(), Value.percent(at), aid));
  }

  private Said wheel(Axles.Locking told) {
    boolean front =
        told.first() == Axles.Wheel.INNER_FRONT || told.first() == Axles.Wheel.OUTER_FRONT;
    if (computed.vehicle().kind() == VehicleKind.MOTORCYCLE) {
      return Said.of("wheel.front");
    }
    if (told.alike()) {
      return front ? Said.of("wheel.fronts") : Said.of("wheel.rears");
    }
    return switch (told.first()) {
      case INNER_FRONT -> Said.of("wheel.inner_front");
      case OUTER_FRONT -> Said.of("wheel.outer_front");
      case INNER_REAR -> Said.of("wheel.inner_rear");
      case OUTER_REAR -> Said.of("wheel.outer_rear");
    };
  }

  /** Where hands or roll have most to do on the stretch that is drawn. */
  private Hands hands(int begin, int end) {
    SteeringRate rate = SteeringRate.usual(computed.vehicle());
    double[] asked = rate.asked(path, whole());
    int most = begin;
    // The last steps look on beyond the stretch, where the lap is as it is.
    for (int k = begin; k <= Math.min(end, plan.speed.length - 1 - SteeringRate.OVER); k++) {
      most = asked[at(k)] > asked[at(most)] ? k : most;
    }
    double value = asked[at(most)];
    double share = value / rate.most();
    Value degrees = Value.figure(Math.round(Math.toDegrees(value)), 0);
    boolean physical = share > PHYSICAL;
    String key =
        rate.rolls()
            ? physical ? "hands.rolls.physical" : "hands.rolls.calm"
            : physical ? "hands.steers.physical" : "hands.steers.calm";
    return new Hands(
        computed.road().wrap((from + most) * computed.road().step()),
        rate.rolls(),
        value,
        share,
        Said.of(key, degrees, Value.percent(share)));
  }

  /** Speeds of the lap with those of the stretch as planned. */
  private double[] whole() {
    double[] v = computed.lap().speed().clone();
    for (int k = 0; k < plan.speed.length; k++) {
      v[at(k)] = plan.speed[k];
    }
    return v;
  }

  private Part phase(Axles axles, int k) {
    Axles.Use use = use(axles, k, 0, 0);
    double by = use.balance();
    How how =
        use.most() < FREE
            ? How.FREE
            : Math.abs(by) < EVEN ? How.EVEN : by > 0 ? How.PUSHES : How.TURNS;
    return new Part(
        computed.road().wrap((from + k) * computed.road().step()),
        use.front(),
        use.rear(),
        how,
        SLIDES * use.slip(),
        switch (how) {
          case FREE -> Said.of("balance.free");
          case EVEN -> Said.of("balance.even");
          case PUSHES -> Said.of("balance.pushes", Value.percent(by));
          case TURNS -> Said.of("balance.turns", Value.percent(-by));
        });
  }

  private List<Move> moves(Axles axles, int entry, int middle, int exit) {
    List<Move> out = new ArrayList<>();
    boolean car = computed.vehicle().kind() == VehicleKind.CAR;
    if (plan.wheels[entry] < 0) {
      double now = use(axles, entry, 0, 0).balance();
      double straight = plan.straightMost(entry, plan.speed[entry]);
      out.add(
          new Move(
              What.TRAIL,
              use(axles, entry, MORE_BRAKE * straight, 0).balance() - now,
              0,
              0,
              null,
              null));
      Vehicle v = computed.vehicle();
      boolean turns =
          gear[entry] > 1 && v.revs(plan.speed[entry], gear[entry] - 1) <= v.engine().limitRevs();
      if (turns && car) {
        out.add(new Move(What.GEAR, use(axles, entry, 0, 1).balance() - now, 0, 0, null, null));
      }
    }
    if (plan.wheels[exit] > 0) {
      double most = computed.limits().engineDrive(plan.speed[exit]);
      double now = use(axles, exit, 0, 0).balance();
      out.add(
          new Move(
              What.THROTTLE,
              0,
              0,
              use(axles, exit, -MORE_THROTTLE * most, 0).balance() - now,
              null,
              null));
    }
    if (car) {
      out.add(step(What.BRAKES, entry, middle, exit));
      out.add(step(What.BAR, entry, middle, exit));
      out.add(step(What.SPRINGS, entry, middle, exit));
      out.add(step(What.CAMBER, entry, middle, exit));
      out.add(new Move(What.DAMPERS, rolling(axles, entry), 0, rolling(axles, exit), null, null));
      if (computed.vehicle().aero().clA() > 0.05) {
        out.add(step(What.WING, entry, middle, exit));
      }
    }
    return out;
  }

  /**
   * What a click of firmer front dampers moves while the vehicle rolls: a share of what the damping
   * holds, which is to what the springs hold as 2ζ/ω times how quickly it rolls to how far it has
   * (linear oscillator).
   */
  private double rolling(Axles axles, int k) {
    Vehicle v = computed.vehicle();
    Vehicle.Ride ride = v.ride();
    double omega = 2 * Math.PI * (ride == null ? USUAL_FREQUENCY : ride.frequency());
    int a = Math.max(0, k - AROUND);
    int b = Math.min(plan.speed.length - 1, k + AROUND);
    double seconds = 0;
    for (int j = a; j < b; j++) {
      seconds += 2 * path.step()[at(j)] / (plan.speed[j] + plan.speed[j + 1]);
    }
    double rolled = turn(k);
    double rate = (turn(b) - turn(a)) / Math.max(0.01, seconds);
    if (Math.abs(rolled) < LEAST_ROLL) {
      return 0;
    }
    double share = DAMPER_CLICK * 2 * DAMPED / omega * rate / rolled;
    double steps = share / Math.max(1e-6, v.chassisOrUsual().barStep());
    Axles with = new Axles(v.stepped(0, steps, 0), computed.conditions());
    return use(with, k, 0, 0).balance() - use(axles, k, 0, 0).balance();
  }

  /** Across by the tyres at a place of the plan, m/s². */
  private double turn(int k) {
    return computed.limits().sideways(path, at(k), plan.speed[k] * plan.speed[k]);
  }

  /** What is done instead of a step of the set-up, part by part. */
  private List<Around> around(Axles axles, List<Move> moves, int entry, int middle, int exit) {
    List<Around> out = new ArrayList<>();
    for (Move m : moves) {
      boolean in = m.what() == What.TRAIL || m.what() == What.GEAR;
      if (m.what().isSet()) {
        continue;
      }
      int at = in ? entry : exit;
      Axles.Use use = use(axles, at, 0, 0);
      double by = use.balance();
      if (use.most() < FREE || Math.abs(by) < EVEN) {
        continue;
      }
      double moved = in ? m.entry() : m.exit();
      if (m.what() == What.GEAR) {
        if (Math.abs(by + moved) < Math.abs(by)) {
          out.add(new Around(What.GEAR, 0, Said.of("around.gear")));
        }
        continue;
      }
      double points = -by / moved * (in ? MORE_BRAKE : MORE_THROTTLE);
      if (Double.isFinite(points) && Math.abs(points) >= LEAST_POINTS && Math.abs(points) <= MOST) {
        out.add(
            new Around(
                m.what(),
                points,
                Said.of(
                    in ? "around.brake" : "around.throttle",
                    Value.percent(Math.abs(points)),
                    Value.choice(points > 0))));
      }
    }
    Axles.Use use = use(axles, middle, 0, 0);
    if (use.most() >= FREE && Math.abs(use.balance()) >= EVEN) {
      double square = plan.speed[middle] * plan.speed[middle];
      double slower = plan.speed[middle] - SLOWER;
      double less = 1 - slower * slower / square;
      out.add(
          new Around(
              What.TRAIL,
              0,
              Said.of("around.slower", Value.speed(SLOWER), Value.percent(less * use.most()))));
    }
    return out;
  }

  private static Vehicle stepped(Vehicle v, What what, double steps) {
    if (what == What.SPRINGS) {
      return v.sprung(steps, 0);
    }
    if (what == What.CAMBER) {
      return v.cambered(steps, 0);
    }
    return v.stepped(
        what == What.BRAKES ? steps : 0,
        what == What.BAR ? steps : 0,
        what == What.WING ? steps : 0);
  }

  /** Half the difference between one step more and one step less. */
  private Move step(What what, int entry, int middle, int exit) {
    Vehicle more = stepped(computed.vehicle(), what, 1);
    Vehicle less = stepped(computed.vehicle(), what, -1);
    Axles up = new Axles(more, computed.conditions());
    Axles down = new Axles(less, computed.conditions());
    LapTrace slow = computed.driven(more);
    LapTrace quick = computed.driven(less);
    double[] by =
        Arrays.stream(new int[] {entry, middle, exit})
            .mapToDouble(k -> (use(up, k, 0, 0).balance() - use(down, k, 0, 0).balance()) / 2)
            .toArray();
    return new Move(
        what,
        by[0],
        by[1],
        by[2],
        (seconds(slow) - seconds(quick)) / 2,
        (slow.lapTime() - quick.lapTime()) / 2);
  }

  /** Seconds of a lap over the stretch of the corner. */
  private double seconds(LapTrace lap) {
    int a = at(0);
    int b = at(plan.speed.length - 1);
    double t = lap.time()[b] - lap.time()[a];
    return t < 0 ? t + lap.lapTime() : t;
  }
}
