package marvek.core.axle;

import java.util.Arrays;
import java.util.List;
import marvek.core.lap.Conditions;
import marvek.core.lap.Limits;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;

/**
 * A vehicle on two axles and four wheels, quasi-steady. Loads by balance of moments, load moved
 * across by the share of roll stiffness, forces across by steady yaw, grip of a wheel falling with
 * its load. Sources: Milliken &amp; Milliken, "Race Car Vehicle Dynamics" (1995), chapters 5 and
 * 18; Guiggiani, "The Science of Vehicle Dynamics" (2014), chapter 3.
 *
 * <p>All forces per mass of the vehicle, m/s². The grip of the wheels is scaled so that the whole
 * vehicle on the level at walking speed gives the grip that was entered for it, in each direction.
 */
public final class Axles {
  private static final double ENOUGH = 1e-5;
  private static final int ROUNDS = 40;
  // After so many the ends are halved: where the use has a kink the last two may point nowhere.
  private static final int SECANTS = 8;
  // What a rider asks of a rear wheel that grows light, share of its grip.
  private static final double KEPT = 0.9;

  // Uses that differ by less are alike.
  private static final double ALIKE = 1e-3;
  // Share of its load at rest below which a wheel counts as lifted.
  private static final double LIFTED = 0.15;

  private final Limits limits;
  private final boolean motorcycle;
  // Shares of the weight, and what moves along and across for each m/s².
  private final double front;
  private final double rear;
  private final double along;
  private final double acrossFront;
  private final double acrossRear;
  private final double trackRatio;
  private final double liftFront;
  private final double liftRear;
  private final double brakeFront;
  private final Vehicle.Drive drive;
  private final double engineHolds;
  private final double roll;
  private final double gripRear;
  // Whether a differential holds the rear wheels together: usual where they drive (common
  // practice).
  private final boolean rearHeld;
  // Grip of a wheel at its own static load, across, braking, driving.
  private final double muAcross;
  private final double muBraking;
  private final double muDriving;

  /** The axles of a vehicle on a day. */
  public Axles(Vehicle vehicle, Conditions conditions) {
    this(new Limits(vehicle, conditions));
  }

  /** The axles of the vehicle that limits were made for. */
  public Axles(Limits limits) {
    this.limits = limits;
    Vehicle v = limits.vehicle();
    Vehicle.Chassis chassis = v.chassisOrUsual();
    motorcycle = v.kind() == VehicleKind.MOTORCYCLE;
    rear = v.cogToFront() / v.wheelbase();
    front = 1 - rear;
    along = v.cogHeight() / v.wheelbase();
    acrossFront = motorcycle ? 0 : v.cogHeight() / chassis.trackFront();
    acrossRear = motorcycle ? 0 : v.cogHeight() / chassis.trackRear();
    trackRatio = motorcycle ? 1 : chassis.trackFront() / chassis.trackRear();
    liftFront = limits.downforce() * chassis.liftFront();
    liftRear = limits.downforce() - liftFront;
    brakeFront = v.brakes().frontShare();
    drive = v.gearbox().drive();
    engineHolds = v.brakes().engineBraking();
    roll = chassis.rollFront();
    gripRear = motorcycle ? 1 : chassis.gripRear();
    rearHeld = !motorcycle && drive != Vehicle.Drive.FRONT;
    // What was entered is what the vehicle gave with the balance that it had then.
    Double rearThen = v.balanceEntered().rear();
    double entered = motorcycle || rearThen == null ? gripRear : rearThen;
    double turned = limits.sidewaysMost(Units.G, 1);
    Loads level = loads(Units.G, 0, turned, 0, v.balanceEntered().roll());
    muAcross =
        turned
            * Math.max(
                front / grip(level.front, level.acrossFront, front),
                rear / (entered * grip(level.rear, level.acrossRear, rear)));
    double braked = limits.gripAlong();
    Loads diving = loads(Units.G, 0, 0, -braked);
    muBraking = braked / (grip(diving.front, 0, front) + entered * grip(diving.rear, 0, rear));
    double driven = limits.wheelDrive();
    Loads squat = loads(Units.G, 0, 0, driven);
    double bears =
        switch (drive) {
          case FRONT -> grip(squat.front, 0, front);
          case REAR -> entered * grip(squat.rear, 0, rear);
          case ALL -> grip(squat.front, 0, front) + entered * grip(squat.rear, 0, rear);
        };
    muDriving = driven / Math.max(1e-9, bears);
  }

  /** The axles with the balance with which the vehicle's grip was entered. */
  static Axles asEntered(Limits limits) {
    Vehicle v = limits.vehicle().asEntered();
    return v == limits.vehicle() ? new Axles(limits) : new Axles(v, limits.conditions());
  }

  Limits limits() {
    return limits;
  }

  /**
   * What the wheels bear, m/s² per mass of the vehicle.
   *
   * @param front both front wheels
   * @param rear both rear wheels
   * @param acrossFront moved from the inner front wheel to the outer one
   * @param acrossRear moved from the inner rear wheel to the outer one
   */
  public record Loads(double front, double rear, double acrossFront, double acrossRear) {}

  /**
   * Loads of the wheels.
   *
   * @param weight load by gravity and by the road's own bend up and down, m/s²
   * @param square of the speed, m²/s²
   * @param turn across by the tyres, m/s²
   * @param force along by the tyres, m/s²; driving positive
   */
  public Loads loads(double weight, double square, double turn, double force) {
    return loads(weight, square, turn, force, roll);
  }

  private Loads loads(double weight, double square, double turn, double force, double rolls) {
    double sum = Math.max(0, weight + square * (liftFront + liftRear));
    double f = weight * front + square * liftFront - force * along;
    f = Math.max(0, Math.min(sum, f));
    double r = sum - f;
    double bend = Math.abs(turn);
    double overFront = rolls * bend * acrossFront;
    double overRear = (1 - rolls) * bend * acrossRear;
    // A wheel that has left the ground bears nothing; the other axle holds the rest of the roll.
    if (overFront > f / 2) {
      overRear += (overFront - f / 2) * trackRatio;
      overFront = f / 2;
    }
    if (overRear > r / 2) {
      overFront = Math.min(f / 2, overFront + (overRear - r / 2) / trackRatio);
      overRear = r / 2;
    }
    return new Loads(f, r, overFront, overRear);
  }

  /** What two wheels of an axle grip with at a wheel's grip of 1, m/s². */
  private double grip(double load, double across, double share) {
    return wheel(load / 2 + across, share) + wheel(load / 2 - across, share);
  }

  private double wheel(double load, double share) {
    return Math.max(0, load) * limits.sensitivity(Math.max(0, load) * 2 / share);
  }

  /**
   * How much of their grip the axles use.
   *
   * @param front share of the front axle's grip, 1 at its limit
   * @param rear share of the rear axle's
   */
  public record Use(double front, double rear) {
    /** The one that is nearer to its limit. */
    public double most() {
      return Math.max(front, rear);
    }

    /** Above zero it pushes, below it turns. */
    public double balance() {
      return front - rear;
    }

    /**
     * How much more the front slips than the rear, as a share of the slip at full sliding: brush
     * model, U = 3s − 3s² + s³ (Pacejka, "Tire and Vehicle Dynamics", chapter 3).
     */
    public double slip() {
      return slip(front) - slip(rear);
    }

    private static double slip(double use) {
      return 1 - Math.cbrt(1 - Math.min(1, use));
    }
  }

  /**
   * Use of the axles.
   *
   * @param weight load by gravity and by the road's own bend up and down, m/s²
   * @param square of the speed
   * @param turn across by the tyres, m/s²
   * @param force along by the tyres, m/s²: driving positive, braking by brakes and engine negative
   * @param engine of a braking what the engine does, m/s², not more than all of it
   * @param yaw more that the front must give and the rear less for turning ever faster, m/s²
   * @param ground what it leaves of the grip
   */
  public Use use(
      double weight,
      double square,
      double turn,
      double force,
      double engine,
      double yaw,
      double ground) {
    Loads n = loads(weight, square, turn, force);
    double bearsFront = ground * grip(n.front, n.acrossFront, front);
    double bearsRear = ground * gripRear * grip(n.rear, n.acrossRear, rear);
    double mu = force < 0 ? muBraking : muDriving;
    double f;
    double r;
    if (force < 0) {
      double held = Math.min(engine, -force);
      double brakes = -force - held;
      double heldFront =
          switch (drive) {
            case FRONT -> held;
            case REAR -> 0;
            case ALL -> held / 2;
          };
      f = brakeFront * brakes + heldFront;
      r = -force - f;
      if (motorcycle) {
        // The rear brake is let go as the rear wheel grows light; the front one takes the rest.
        double left = KEPT * bearsRear * muBraking;
        double side = turn * rear / muAcross * muBraking;
        r = Math.min(r, Math.sqrt(Math.max(0, left * left - side * side)));
        f = -force - r;
      }
    } else {
      double all = bearsFront + bearsRear;
      f =
          switch (drive) {
            case FRONT -> force;
            case REAR -> 0;
            // The split that uses both alike.
            case ALL -> all > 0 ? force * bearsFront / all : force / 2;
          };
      r = force - f;
    }
    return new Use(
        share(f / mu, (turn * front + yaw) / muAcross, bearsFront),
        share(r / mu, (turn * rear - yaw) / muAcross, bearsRear));
  }

  // Slip at which a tyre slides all over along or across (common practice, no source).
  private static final double SLIDES = 0.12;

  /** Slip of a tyre that uses a share of its grip, by the brush model. */
  public static double slip(double use) {
    return SLIDES * Use.slip(use);
  }

  /**
   * What each wheel rubs off: its force times its slip, m/s² per mass of the vehicle, in the order
   * of {@link Wheel}. Both wheels of an axle slip alike, and each pulls by what it bears.
   *
   * @param use of the axles there
   * @param weight load by gravity and by the road's own bend up and down, m/s²
   * @param square of the speed
   * @param turn across by the tyres, m/s²
   * @param force along by the tyres, m/s²
   * @param ground what it leaves of the grip
   */
  public double[] sliding(
      Use use, double weight, double square, double turn, double force, double ground) {
    Loads n = loads(weight, square, turn, force);
    double mu = ground * muAcross;
    double ofFront = mu * Math.min(1, use.front) * slip(use.front);
    double ofRear = mu * gripRear * Math.min(1, use.rear) * slip(use.rear);
    return new double[] {
      ofFront * wheel(n.front / 2 - n.acrossFront, front),
      ofFront * wheel(n.front / 2 + n.acrossFront, front),
      ofRear * wheel(n.rear / 2 - n.acrossRear, rear),
      ofRear * wheel(n.rear / 2 + n.acrossRear, rear)
    };
  }

  /** A wheel in a turn. */
  public enum Wheel {
    INNER_FRONT,
    OUTER_FRONT,
    INNER_REAR,
    OUTER_REAR
  }

  /**
   * Which wheel the brakes lock first.
   *
   * @param first of the wheels; of two that are alike the inner one
   * @param alike whether its neighbour on the axle locks with it
   * @param brakes m/s² by the brakes at which it does
   * @param use share of what the turn leaves it that each wheel uses for braking, in the order of
   *     {@link Wheel}
   */
  public record Locking(Wheel first, boolean alike, double brakes, List<Double> use) {
    public Locking {
      use = List.copyOf(use);
    }
  }

  /**
   * Which wheel locks first where the vehicle is braked. Both brakes of an axle press alike, so
   * that the wheel with less load locks before the other; both sides of an axle slip alike across,
   * so that each gives across by what it bears. A wheel that has all but left the ground locks at a
   * touch and nothing hangs on it: it is left out. Rear wheels that are driven hold each other, and
   * lock together. A rider's rear brake is let go in time: there it is the front wheel.
   *
   * @param force along by the tyres, m/s², below zero
   * @param engine of that what the engine does, m/s²
   */
  public Locking locking(
      double weight, double square, double turn, double force, double engine, double ground) {
    double held = Math.min(engine, Math.max(0, -force));
    double now = Math.max(0, -force - held);
    double[] use = wheels(weight, square, turn, now, held, ground);
    double low = 0;
    double high = Math.max(2 * now, 3 * Units.G);
    for (int i = 0; i < ROUNDS; i++) {
      double middle = (low + high) / 2;
      if (most(wheels(weight, square, turn, middle, held, ground)) > 1) {
        high = middle;
      } else {
        low = middle;
      }
    }
    double[] then = wheels(weight, square, turn, high, held, ground);
    int first = 0;
    for (int w = 1; w < then.length; w++) {
      first = then[w] > then[first] + ALIKE ? w : first;
    }
    boolean alike = Math.abs(then[first ^ 1] - then[first]) <= ALIKE;
    return new Locking(Wheel.values()[first], alike, high, Arrays.stream(use).boxed().toList());
  }

  private static double most(double[] use) {
    return Arrays.stream(use).max().orElse(0);
  }

  /** Share of what the turn leaves each wheel for braking that is used. */
  private double[] wheels(
      double weight, double square, double turn, double brakes, double held, double ground) {
    Loads n = loads(weight, square, turn, -brakes - held);
    double leftFront = left(turn * front, ground * grip(n.front, n.acrossFront, front));
    double leftRear = left(turn * rear, ground * gripRear * grip(n.rear, n.acrossRear, rear));
    double heldFront =
        switch (drive) {
          case FRONT -> held / 2;
          case REAR -> 0;
          case ALL -> held / 4;
        };
    double pressFront = (motorcycle ? 1 : brakeFront) * brakes / 2 + heldFront;
    double pressRear = motorcycle ? 0 : (1 - brakeFront) * brakes / 2 + held / 2 - heldFront;
    double[] use = {
      used(pressFront, n.front / 2 - n.acrossFront, front, leftFront * ground),
      used(pressFront, n.front / 2 + n.acrossFront, front, leftFront * ground),
      used(pressRear, n.rear / 2 - n.acrossRear, rear, leftRear * ground * gripRear),
      used(pressRear, n.rear / 2 + n.acrossRear, rear, leftRear * ground * gripRear)
    };
    if (rearHeld) {
      double most = muBraking * leftRear * ground * gripRear * grip(n.rear, n.acrossRear, rear);
      double both = most > 1e-9 ? Math.min(9, 2 * pressRear / most) : pressRear > 1e-9 ? 9 : 0;
      use[Wheel.INNER_REAR.ordinal()] = both;
      use[Wheel.OUTER_REAR.ordinal()] = both;
    }
    return use;
  }

  /** Share of an axle's grip that a turn leaves for braking. */
  private double left(double across, double bears) {
    double share = bears > 1e-9 ? Math.abs(across) / (muAcross * bears) : 1;
    return share >= 1 ? 0 : Math.sqrt(1 - share * share);
  }

  /** A wheel that has all but left the ground locks at a touch, and nothing hangs on it: none. */
  private double used(double force, double load, double share, double left) {
    if (load < LIFTED * share * Units.G / 2) {
      return 0;
    }
    double most = muBraking * wheel(load, share) * left;
    return force < 1e-9 ? 0 : most > 1e-9 ? Math.min(9, force / most) : 9;
  }

  private static double share(double along, double across, double grip) {
    double asked = Math.sqrt(along * along + across * across);
    return asked < 1e-9 ? 0 : grip > 1e-9 ? asked / grip : 9;
  }

  /** Use of both axles, at the limit 1. */
  private double most(
      double weight, double square, double turn, double force, double engine, double ground) {
    return use(weight, square, turn, force, engine, 0, ground).most();
  }

  /** Most across without braking or driving in steady yaw, m/s². */
  public double sidewaysMost(double weight, double square, double ground) {
    return sidewaysMost(weight, square, ground, 1);
  }

  /**
   * The same, sought from a share of what one point gives.
   *
   * @param near share of it that is likely
   */
  double sidewaysMost(double weight, double square, double ground, double near) {
    double most = limits.sidewaysMost(weight + square * limits.downforce(), ground);
    return limit(weight, square, 0, ground, 0, near * most, 1.6 * most);
  }

  /** Most braking by the tyres in a bend, m/s². */
  public double brakingMost(double weight, double square, double turn, double ground) {
    double load = weight + square * limits.downforce();
    double straight = limits.brakingGrip(load, ground);
    return brakingMost(
        weight, square, turn, ground, straight, left(weight, square, turn, ground) * straight);
  }

  /**
   * The same, where what one point gives straight on is known.
   *
   * @param near what is likely, m/s²
   */
  double brakingMost(
      double weight, double square, double turn, double ground, double straight, double near) {
    return limit(weight, square, turn, ground, -1, near, 1.6 * straight);
  }

  /** Most drive by the tyres in a bend, m/s². */
  public double drivingMost(double weight, double square, double turn, double ground) {
    double load = weight + square * limits.downforce();
    double straight = limits.drivingGrip(load, 1, ground);
    return drivingMost(
        weight, square, turn, ground, straight, left(weight, square, turn, ground) * straight);
  }

  /** The same, where what one point gives straight on is known. */
  double drivingMost(
      double weight, double square, double turn, double ground, double straight, double near) {
    return limit(weight, square, turn, ground, 1, near, 1.6 * straight);
  }

  /** What about is left along by a turn. */
  private double left(double weight, double square, double turn, double ground) {
    double share = turn / limits.sidewaysMost(weight + square * limits.downforce(), ground);
    return Math.sqrt(Math.max(0.05, 1 - share * share));
  }

  /** Most use of an axle by what is sought: across, or along the way that is given. */
  private double sought(
      double weight, double square, double turn, double ground, int way, double x) {
    return way == 0
        ? most(weight, square, x, 0, 0, ground)
        : most(weight, square, turn, way * x, engineHolds, ground);
  }

  /**
   * What is sought at which the use, that rises with it, reaches 1; 0 where it is over at once. A
   * lap asks for thousands: what is called is known here, and no function is handed round.
   *
   * @param way 0 for most across, 1 for most drive, −1 for most braking
   */
  private double limit(
      double weight,
      double square,
      double turn,
      double ground,
      int way,
      double guess,
      double highest) {
    double low = 0;
    double high = highest;
    double before = 0;
    double atBefore = 0;
    double x = Math.max(0, Math.min(highest, guess));
    for (int i = 0; i < ROUNDS && high - low > ENOUGH * highest; i++) {
      double at = sought(weight, square, turn, ground, way, x) - 1;
      if (Math.abs(at) < ENOUGH) {
        return x;
      }
      if (at > 0) {
        high = x;
      } else {
        low = x;
      }
      // The use grows about as what is sought does; after that by the last two, within the bounds.
      double next = i == 0 ? x / (1 + at) : x - at * (x - before) / (at - atBefore);
      before = x;
      atBefore = at;
      x = i < SECANTS && next > low && next < high ? next : (low + high) / 2;
    }
    return (low + high) / 2;
  }
}
