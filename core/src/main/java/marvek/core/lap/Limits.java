package marvek.core.lap;

import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import marvek.core.vehicle.WheelForce;
import org.jspecify.annotations.Nullable;

/**
 * What a vehicle can do at a speed on a piece of road: tyre limits, drive, drag, braking. Tables
 * are made once for a vehicle and its conditions; every question after that is a few
 * multiplications.
 *
 * <p>Accelerations are per unit mass, m/s². Grip uses up an ellipse: (aₓ/aₓ,max)² + (a_y/a_y,max)²
 * ≤ 1.
 */
public final class Limits {
  /** No vehicle here is faster, m/s. */
  public static final double FASTEST = 130;

  // Area of the side times the slope of its force by the angle of the air, m² (common practice, no
  // source).
  private static final double SIDE_CAR = 4;
  private static final double SIDE_MOTORCYCLE = 1.5;
  // kg, and how near to a wheel the centre of gravity comes, as a share of the wheelbase.
  private static final double RIDER = 75;
  private static final double NEAREST = 0.2;
  private static final double SPEED_STEP = 0.1;
  private static final double LOAD_STEP = 0.01;
  private static final int LOADS = 900;

  private final Vehicle vehicle;
  private final Conditions conditions;
  private final double mass;
  // The tyres feel the load itself, not the load per mass.
  final double heavier;
  final double downforce;
  final double drag;
  private final double[] drive;
  private final double[] plainDrive;
  // Of the vehicle alone, whatever the day: the most force at each speed, N, its gear, and what a
  // load does to the grip.
  private final double[] force;
  private final int[] gear;
  final double[] sensitivity;
  private final WheelForce wheelForce;
  final double muX;
  final double muY;
  final double driveShare;
  final double driveTransfer;
  final double wheelie;
  final double stoppie;
  final double transfer;
  final double frontShare;
  final double staticFront;
  final boolean motorcycle;
  // Whether the brakes are shared out as the vehicle says; a rider shares them as the grip asks.
  final boolean shared;
  final double brakeCap;
  // What the driver uses of braking and of traction; of turning it is in muY.
  final double braking;
  final double pulling;
  private final double boostBelow;

  /** Limits with the boost, if any, used at every speed. */
  public Limits(Vehicle vehicle, Conditions conditions) {
    this(vehicle, conditions, Double.MAX_VALUE);
  }

  /**
   * Limits with the boost used below a speed only.
   *
   * @param boostBelow m/s
   */
  public Limits(Vehicle vehicle, Conditions conditions, double boostBelow) {
    this(vehicle, conditions, boostBelow, null, vehicle.kind() != VehicleKind.MOTORCYCLE);
  }

  /**
   * The same vehicle on another day.
   *
   * @param boostSpeed m/s below which the boost is used
   */
  public Limits on(Conditions day, double boostSpeed) {
    return new Limits(vehicle, day, boostSpeed, this, shared);
  }

  /**
   * The same machine with its rider's weight elsewhere and its brakes shared out otherwise; a car
   * has none of it. A rider has 75 kg with what is worn (common practice, no source).
   *
   * @param forward metres that the rider moves forward
   * @param front share of the braking at the front wheel, 0 to 1; null as the grip asks
   */
  public Limits ridden(double forward, @Nullable Double front) {
    if (!motorcycle || forward == 0 && front == null) {
      return this;
    }
    double moved = vehicle.cogToFront() - forward * RIDER / mass;
    double kept = Math.max(NEAREST, Math.min(1 - NEAREST, moved / vehicle.wheelbase()));
    Vehicle.Brakes had = vehicle.brakes();
    Vehicle.Brakes brakes =
        front == null ? had : new Vehicle.Brakes(had.mostForce(), front, had.engineBraking());
    Vehicle so = vehicle.copy().cogToFront(kept * vehicle.wheelbase()).brakes(brakes).build();
    return new Limits(so, conditions, boostBelow, this, front != null);
  }

  private Limits(
      Vehicle vehicle,
      Conditions conditions,
      double boostBelow,
      @Nullable Limits other,
      boolean shared) {
    this.shared = shared;
    this.vehicle = vehicle;
    this.conditions = conditions;
    this.boostBelow = boostBelow;
    mass = vehicle.mass() + conditions.extraMass();
    heavier = mass / vehicle.mass();
    double air = 0.5 * conditions.airDensity() / mass;
    downforce = air * vehicle.aero().clA() * conditions.downforce();
    drag = air * vehicle.aero().cdA() * conditions.drag();
    motorcycle = vehicle.kind() == VehicleKind.MOTORCYCLE;
    muX = vehicle.tyres().muX() * conditions.grip();
    Double lean = vehicle.leanLimit();
    double across = vehicle.tyres().muY() * conditions.grip();
    braking = conditions.driving().braking();
    pulling = conditions.driving().traction();
    muY =
        conditions.driving().turning() * (lean == null ? across : Math.min(across, Math.tan(lean)));
    double length = vehicle.wheelbase();
    transfer = vehicle.cogHeight() / length;
    staticFront = 1 - vehicle.cogToFront() / length;
    frontShare = vehicle.brakes().frontShare();
    driveShare =
        switch (vehicle.gearbox().drive()) {
          case FRONT -> staticFront;
          case REAR -> 1 - staticFront;
          case ALL -> 1;
        };
    driveTransfer =
        switch (vehicle.gearbox().drive()) {
          case FRONT -> transfer;
          case REAR -> -transfer;
          case ALL -> 0;
        };
    wheelie = (length - vehicle.cogToFront()) / vehicle.cogHeight();
    stoppie = vehicle.cogToFront() / vehicle.cogHeight();
    brakeCap = braking * vehicle.brakes().mostForce() / mass;
    int speeds = (int) (FASTEST / SPEED_STEP) + 2;
    // Where only the rider sits otherwise the engine pushes as it did.
    Limits alike =
        other != null && other.conditions.equals(conditions) && other.boostBelow == boostBelow
            ? other
            : null;
    drive = alike == null ? new double[speeds] : alike.drive;
    plainDrive = alike == null ? new double[speeds] : alike.plainDrive;
    if (other == null) {
      force = new double[speeds];
      gear = new int[speeds];
      sensitivity = new double[LOADS];
      wheelForce = new WheelForce(vehicle);
      fillVehicle();
    } else {
      force = other.force;
      gear = other.gear;
      sensitivity = other.sensitivity;
      wheelForce = other.wheelForce;
    }
    if (alike == null) {
      fillDrive();
    }
  }

  private void fillVehicle() {
    for (int i = 0; i < LOADS; i++) {
      sensitivity[i] = Math.pow(Math.max(i * LOAD_STEP, 0.05), -vehicle.tyres().loadSensitivity());
    }
    for (int i = 0; i < force.length; i++) {
      double v = i * SPEED_STEP;
      int best = 1;
      double most = 0;
      for (int g = 1; g <= vehicle.gears(); g++) {
        double revs = vehicle.revs(v, g);
        boolean last = g == vehicle.gears();
        if (revs > (last ? vehicle.engine().limitRevs() : vehicle.engine().shiftRevs())) {
          best = Math.max(best, Math.min(g + 1, vehicle.gears()));
          continue;
        }
        double pull = wheelForce.at(v, g);
        if (pull > most) {
          most = pull;
          best = g;
        }
      }
      gear[i] = best;
      force[i] = most;
    }
  }

  private void fillDrive() {
    Vehicle.Boost boost = vehicle.boost();
    for (int i = 0; i < drive.length; i++) {
      double v = i * SPEED_STEP;
      double most = force[i];
      plainDrive[i] = most / mass;
      drive[i] = plainDrive[i];
      if (boost != null && v <= boostBelow && most > 0) {
        drive[i] += Math.min(boost.power() / Math.max(v, 10), most) / mass;
      }
    }
  }

  /** The vehicle. */
  public Vehicle vehicle() {
    return vehicle;
  }

  /** The day. */
  public Conditions conditions() {
    return conditions;
  }

  /** What the engine pushes with at the wheels. */
  public WheelForce wheelForce() {
    return wheelForce;
  }

  /** kg with fuel and ballast. */
  public double mass() {
    return mass;
  }

  /** The gear that pulls best at a speed. */
  public int bestGear(double v) {
    return gear[(int) (Math.min(v, FASTEST) / SPEED_STEP)];
  }

  /** The drive of the boost alone at a speed, m/s². */
  public double boostDrive(double v) {
    int i = (int) (Math.min(v, FASTEST) / SPEED_STEP);
    return drive[i] - plainDrive[i];
  }

  /** Load on the tyres per mass at a place and speed, m/s²; not below zero. */
  public double load(Path path, int i, double square) {
    Slant slant = path.slant();
    double bend = path.verticalCurvature()[i] + path.curvature()[i] * slant.sine()[i];
    return Math.max(0, slant.load()[i] + square * (bend + downforce));
  }

  /** Load on the tyres per mass on a level, straight road, m/s². */
  public double levelLoad(double v) {
    return Units.G + v * v * downforce;
  }

  private double mu(double mu, double load) {
    return mu * sensitivity(load);
  }

  /** What a load per mass does to the grip, 1 at the static load. */
  public double sensitivity(double load) {
    double at = load * heavier / (Units.G * LOAD_STEP);
    int k = (int) at;
    if (k >= LOADS - 1) {
      return sensitivity[LOADS - 1];
    }
    return sensitivity[k] + (sensitivity[k + 1] - sensitivity[k]) * (at - k);
  }

  /** Sideways acceleration that the tyres must give along the road surface, m/s², unsigned. */
  public double sideways(Path path, int i, double square) {
    Slant slant = path.slant();
    return Math.abs(
        square * path.curvature()[i] * slant.cosine()[i]
            - Units.G * slant.sine()[i]
            - path.push()[i]);
  }

  /**
   * Sideways acceleration that the tyres can give, m/s².
   *
   * @param ground what the ground leaves of the grip
   */
  public double sidewaysMost(double load, double ground) {
    return ground * mu(muY, load) * load;
  }

  /**
   * The speed at which the corner takes all the grip, m/s; {@link #FASTEST} where it never does.
   *
   * <p>From μN = |v²κ cos φ − g sin φ sign κ| with N linear in v² and μ falling with N.
   */
  public double cornerSpeed(Path path, int i) {
    double kappa = Math.abs(path.curvature()[i]);
    double fastest = FASTEST * FASTEST;
    if (kappa < 1e-5) {
      return FASTEST;
    }
    double sin = path.slant().sine()[i];
    double towards = path.curvature()[i] > 0 ? sin : -sin;
    double helps = Units.G * towards + (path.curvature()[i] > 0 ? path.push()[i] : -path.push()[i]);
    double cos = path.slant().cosine()[i];
    double flat = path.slant().load()[i];
    double rise = path.verticalCurvature()[i] + kappa * towards + downforce;
    if (spare(path, i, fastest, kappa, flat, rise, helps, cos) >= 0) {
      return FASTEST;
    }
    // What is spare is concave in the square of the speed: Newton's steps close in from above.
    double bound = path.turning(i) * mu(muY, flat);
    double free = kappa * cos - bound * rise;
    double square = free <= 0 ? fastest : (bound * flat + helps) / free;
    square = Math.max(1, Math.min(fastest, square));
    for (int round = 0; round < 12; round++) {
      double load = Math.max(0, flat + square * rise);
      double slope =
          path.turning(i) * muY * (sensitivity(load) + sensitivitySlope(load) * load) * rise
              - kappa * cos;
      double next =
          slope >= 0
              ? fastest
              : square - spare(path, i, square, kappa, flat, rise, helps, cos) / slope;
      next = Math.max(1, Math.min(fastest, next));
      boolean settled = Math.abs(next - square) < 1e-6 * next;
      square = next;
      if (settled) {
        break;
      }
    }
    return Math.sqrt(square);
  }

  private double spare(
      Path path,
      int i,
      double square,
      double kappa,
      double flat,
      double rise,
      double helps,
      double cos) {
    double load = Math.max(0, flat + square * rise);
    return path.turning(i) * mu(muY, load) * load - square * kappa * cos + helps;
  }

  /** What is left of the grip along when the corner takes its share, 0 to 1. */
  public double ellipse(Path path, int i, double square, double load) {
    double most = sidewaysMost(load, path.turning(i));
    double share = most > 0 ? sideways(path, i, square) / most : 1;
    return share >= 1 ? 0 : Math.sqrt(1 - share * share);
  }

  /**
   * Share of the grip that braking by the wheels and the turn ask for together; above 1 is more
   * than there is.
   *
   * @param braking m/s² by the wheels, without drag or gradient
   */
  public double use(Path path, int i, double v, double braking) {
    return use(path, i, v * v, load(path, i, v * v), braking);
  }

  /** The same under a load that is known. */
  public double use(Path path, int i, double square, double load, double braking) {
    return together(path, i, square, load, braking, brakingMost(load, 1, path.braking(i)));
  }

  /**
   * The same of the driven wheels.
   *
   * @param driving m/s² by the wheels, without drag or gradient
   */
  public double driveUse(Path path, int i, double v, double driving) {
    return driveUse(path, i, v * v, load(path, i, v * v), driving);
  }

  /** The same under a load that is known. */
  public double driveUse(Path path, int i, double square, double load, double driving) {
    return together(path, i, square, load, driving, traction(load, 1, path.driving(i)));
  }

  private double together(Path path, int i, double square, double load, double asked, double most) {
    double across = sidewaysMost(load, path.turning(i));
    double aside = across > 0 ? sideways(path, i, square) / across : 2;
    double along = most > 0 ? asked / most : 2;
    // Shares of the grip are near 1: nothing here over- or underflows, and this is asked for most.
    return Math.sqrt(aside * aside + along * along);
  }

  /** Drag, rolling resistance and gradient, m/s² against the motion. */
  public double resistance(Path path, int i, double v, double load) {
    double head = headwind(path, i, v);
    return drag * head * Math.abs(head)
        + vehicle.tyres().rolling() * load
        + path.slant().climb()[i];
  }

  /** What slope and wind push the vehicle on with at any speed, at most, m/s². */
  double pushes(Path path, int i) {
    double gradient = path.gradient()[i];
    double wind = conditions.windSpeed() * path.wind()[i];
    return Units.G * Math.max(0, -gradient) + drag * wind * wind;
  }

  /** Speed of the air against the vehicle, m/s. */
  double headwind(Path path, int i, double v) {
    double wind = conditions.windSpeed();
    return wind == 0
        ? v
        : v + wind * path.wind()[i] * Math.cos(conditions.windFrom() - path.heading()[i]);
  }

  /**
   * What the side wind does at each station, m/s² to the left.
   *
   * @param speed m/s at each station
   */
  public Ground.SideWind sideWind(Path path, double[] speed) {
    double wind = conditions.windSpeed();
    double side = motorcycle ? SIDE_MOTORCYCLE : SIDE_CAR;
    double[] push = new double[path.size()];
    for (int i = 0; i < push.length; i++) {
      double across = -wind * path.wind()[i] * Math.sin(conditions.windFrom() - path.heading()[i]);
      double air = Math.hypot(headwind(path, i, speed[i]), across);
      push[i] = 0.5 * conditions.airDensity() / mass * side * air * across;
    }
    return new Ground.SideWind(push);
  }

  /** Full throttle drive before the tyres have their say, m/s². */
  public double engineDrive(double v) {
    double at = v / SPEED_STEP;
    int i = (int) at;
    if (i >= drive.length - 1) {
      return 0;
    }
    // Across a shift the table jumps; the lower speed's gear still holds there.
    return gear[i] == gear[i + 1] ? drive[i] + (drive[i + 1] - drive[i]) * (at - i) : drive[i];
  }

  /**
   * Drive of a share of the throttle before the tyres have their say, m/s²: the rest of the pedal
   * brakes with the engine.
   */
  public double drive(double v, double share) {
    return share * engineDrive(v) - (1 - share) * vehicle.brakes().engineBraking();
  }

  /** The share of the throttle that drives with so much, m/s². */
  public double share(double v, double drive) {
    double closed = vehicle.brakes().engineBraking();
    return Math.max(0, Math.min(1, (drive + closed) / Math.max(0.1, engineDrive(v) + closed)));
  }

  /** How full throttle drive changes with the speed, 1/s. */
  double engineDriveSlope(double v) {
    int i = (int) (v / SPEED_STEP);
    return i >= drive.length - 1 || gear[i] != gear[i + 1]
        ? 0
        : (drive[i + 1] - drive[i]) / SPEED_STEP;
  }

  /** How the loss of grip by load changes with the load per mass, s²/m. */
  double sensitivitySlope(double load) {
    int k = (int) (load * heavier / (Units.G * LOAD_STEP));
    return k >= LOADS - 1
        ? 0
        : (sensitivity[k + 1] - sensitivity[k]) * heavier / (Units.G * LOAD_STEP);
  }

  /** Downforce for each m²/s² of the squared speed, m/s² per mass. */
  public double downforce() {
    return downforce;
  }

  /** Most that the tyres give along on the level at walking speed, all axles at once, m/s². */
  public double gripAlong() {
    return mu(muX, Units.G) * Units.G;
  }

  /** Most drive that the driven tyres bear on the level at walking speed, at full pace, m/s². */
  public double wheelDrive() {
    return drivingGrip(Units.G, 1, 1);
  }

  /** Drive that the driven tyres and the front wheel's wish to stay down allow, m/s². */
  public double traction(double load, double ellipse, double ground) {
    return pulling * drivingGrip(load, ellipse, ground);
  }

  /** Drive at which a motorcycle's front wheel leaves the road, m/s²; no end of it for a car. */
  public double frontUp(double load) {
    return motorcycle ? wheelie * load : Double.POSITIVE_INFINITY;
  }

  /** The same whatever the driver uses of it. */
  public double drivingGrip(double load, double ellipse, double ground) {
    double mu = ground * mu(muX, load) * ellipse;
    // With enough grip all the load moves to the driven rear axle; it cannot carry more than that.
    double spread = 1 + mu * driveTransfer;
    double most = mu * load * (spread > driveShare ? driveShare / spread : 1);
    return motorcycle ? Math.min(most, wheelie * load) : most;
  }

  /** Most drive at a place and speed, m/s². */
  public double driveMost(Path path, int i, double v) {
    double square = v * v;
    double load = load(path, i, square);
    return Math.min(
        engineDrive(v), traction(load, ellipse(path, i, square, load), path.driving(i)));
  }

  /** Most braking by the wheels with the grip left over, m/s², without drag or gradient. */
  public double brakingMost(double load, double ellipse, double ground) {
    return Math.min(brakeCap, braking * brakingGrip(load, ground) * ellipse);
  }

  /** Braking that the tyres bear straight on, whatever the brakes and the driver do, m/s². */
  public double brakingGrip(double load, double ground) {
    double mu = ground * mu(muX, load);
    // The axle that locks first sets the most; load moves forward with the braking itself.
    double most = mu * load;
    if (motorcycle) {
      most = Math.min(most, stoppie * load);
    }
    if (!shared) {
      return most;
    }
    double front = frontShare - mu * transfer;
    if (front > 0) {
      most = Math.min(most, mu * staticFront / front * load);
    }
    double rear = 1 - frontShare + mu * transfer;
    return Math.min(most, mu * (1 - staticFront) / rear * load);
  }

  /** Most deceleration at a place and speed, brakes, drag and gradient together, m/s². */
  public double deceleration(Path path, int i, double v) {
    double square = v * v;
    double load = load(path, i, square);
    return brakingMost(load, ellipse(path, i, square, load), path.braking(i))
        + resistance(path, i, v, load);
  }
}
