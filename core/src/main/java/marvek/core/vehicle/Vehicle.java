package marvek.core.vehicle;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Objects;
import marvek.core.circuit.Sight;
import marvek.core.units.Units;
import org.jspecify.annotations.Nullable;

/**
 * What a vehicle can do, in SI units.
 *
 * @param kind car or motorcycle
 * @param mass with driver and fuel, kg
 * @param width overall, m
 * @param wheelbase m
 * @param cogHeight height of the centre of gravity, m
 * @param cogToFront from the front axle back to the centre of gravity, m
 * @param engine torque curve and rev limits
 * @param gearbox ratios and shifting
 * @param tyres grip
 * @param aero drag and downforce
 * @param brakes braking
 * @param leanLimit largest lean of a motorcycle, radians; null for a car
 * @param boost electric boost; null without
 * @param floor what meets a kerb; null to take what is usual for the kind and width
 * @param fuel tank; null when fuel is not told apart from the mass
 * @param chassis what tells the axles apart; null to take what is usual
 * @param device that takes drag away where the rules let it; null without one
 * @param ride what the springs give way; null where that is not known
 * @param aids that step in at the limit; null where nothing is said of them
 * @param fixedSetup whether its set-up is not the driver's to change; null for no
 * @param seat from where the driver looks; null to take what is usual
 */
@RecordBuilder
public record Vehicle(
    VehicleKind kind,
    double mass,
    double width,
    double wheelbase,
    double cogHeight,
    double cogToFront,
    Engine engine,
    Gearbox gearbox,
    Tyres tyres,
    Aero aero,
    Brakes brakes,
    @Nullable Double leanLimit,
    @Nullable Boost boost,
    @Nullable Floor floor,
    @Nullable Fuel fuel,
    @Nullable Chassis chassis,
    @Nullable Device device,
    @Nullable Ride ride,
    @Nullable Aids aids,
    @Nullable Boolean fixedSetup,
    @Nullable Seat seat) {

  /** A vehicle with the usual chassis. */
  public Vehicle(
      VehicleKind kind,
      double mass,
      double width,
      double wheelbase,
      double cogHeight,
      double cogToFront,
      Engine engine,
      Gearbox gearbox,
      Tyres tyres,
      Aero aero,
      Brakes brakes,
      @Nullable Double leanLimit,
      @Nullable Boost boost,
      @Nullable Floor floor,
      @Nullable Fuel fuel) {
    this(
        kind,
        mass,
        width,
        wheelbase,
        cogHeight,
        cogToFront,
        engine,
        gearbox,
        tyres,
        aero,
        brakes,
        leanLimit,
        boost,
        floor,
        fuel,
        null,
        null,
        null,
        null,
        null,
        null);
  }

  /** A vehicle with the usual floor and no fuel told apart. */
  public Vehicle(
      VehicleKind kind,
      double mass,
      double width,
      double wheelbase,
      double cogHeight,
      double cogToFront,
      Engine engine,
      Gearbox gearbox,
      Tyres tyres,
      Aero aero,
      Brakes brakes,
      @Nullable Double leanLimit,
      @Nullable Boost boost) {
    this(
        kind,
        mass,
        width,
        wheelbase,
        cogHeight,
        cogToFront,
        engine,
        gearbox,
        tyres,
        aero,
        brakes,
        leanLimit,
        boost,
        null,
        null);
  }

  public Vehicle {
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(engine, "engine");
    Objects.requireNonNull(gearbox, "gearbox");
    Objects.requireNonNull(tyres, "tyres");
    Objects.requireNonNull(aero, "aero");
    Objects.requireNonNull(brakes, "brakes");
  }

  /** Which axle drives. */
  public enum Drive {
    FRONT,
    REAR,
    ALL
  }

  /**
   * Engine.
   *
   * @param curve torque against revs, ascending revs, at least two points
   * @param shiftRevs revs per minute at which the driver shifts up
   * @param limitRevs revs per minute that must not be passed
   * @param cylinders for its tone; null where not said, four then (common practice, no source)
   * @param strokes two or four; null where not said, four then
   */
  public record Engine(
      List<TorquePoint> curve,
      double shiftRevs,
      double limitRevs,
      @Nullable Integer cylinders,
      @Nullable Integer strokes) {
    private static final int USUAL = 4;

    /** An engine of which the cylinders are not said. */
    public Engine(List<TorquePoint> curve, double shiftRevs, double limitRevs) {
      this(curve, shiftRevs, limitRevs, null, null);
    }

    /** Cylinders, or the usual number. */
    public int firing() {
      return cylinders == null ? USUAL : cylinders;
    }

    /** Strokes, or the usual number. */
    public int strokesOrUsual() {
      return strokes == null ? USUAL : strokes;
    }

    public Engine {
      curve = List.copyOf(curve);
    }

    /** Torque in Nm at revs per minute, between the points by straight lines. */
    public double torque(double revs) {
      TorquePoint first = curve.get(0);
      if (revs <= first.revs()) {
        return first.torque();
      }
      for (int i = 1; i < curve.size(); i++) {
        TorquePoint a = curve.get(i - 1);
        TorquePoint b = curve.get(i);
        if (revs <= b.revs()) {
          return a.torque() + (b.torque() - a.torque()) * (revs - a.revs()) / (b.revs() - a.revs());
        }
      }
      return curve.get(curve.size() - 1).torque();
    }
  }

  /**
   * A point of the torque curve.
   *
   * @param revs per minute
   * @param torque Nm at the crankshaft
   */
  public record TorquePoint(double revs, double torque) {}

  /**
   * Gearbox.
   *
   * @param ratios engine turns per turn of the final drive's input, first gear first
   * @param finalDrive engine side turns per wheel turn after the gear
   * @param rollingRadius m
   * @param efficiency share of the torque that reaches the wheels
   * @param shiftTime without drive at a shift up, s
   * @param drive driven axle
   */
  public record Gearbox(
      List<Double> ratios,
      double finalDrive,
      double rollingRadius,
      double efficiency,
      double shiftTime,
      Drive drive) {
    public Gearbox {
      ratios = List.copyOf(ratios);
      Objects.requireNonNull(drive, "drive");
    }
  }

  /**
   * Tyres.
   *
   * @param muX grip along, as a share of load, at the load of standing still
   * @param muY grip across
   * @param loadSensitivity p in μ = μ₀ (N/N₀)^−p, 0 to 0.3
   * @param rolling rolling resistance as a share of load
   */
  public record Tyres(double muX, double muY, double loadSensitivity, double rolling) {}

  /**
   * Aerodynamics.
   *
   * @param cdA drag area, m²
   * @param clA downforce area, m², positive downwards
   */
  public record Aero(double cdA, double clA) {}

  /**
   * Brakes.
   *
   * @param mostForce largest braking force of the whole system, N
   * @param frontShare share of it at the front wheels, 0 to 1
   * @param engineBraking deceleration with the throttle closed, m/s²
   */
  public record Brakes(double mostForce, double frontShare, double engineBraking) {}

  /**
   * Electric boost.
   *
   * @param power W at the wheels
   * @param energyPerLap J that may be spent in a lap
   * @param recovery share of braking energy that is stored
   */
  public record Boost(double power, double energyPerLap, double recovery) {}

  /**
   * What a kerb meets, seen from the front; all in metres.
   *
   * @param rideHeight of the lowest part between the wheels over level ground
   * @param width of the floor, symmetrical about the middle
   * @param track between the middles of the tyres of an axle; 0 for a motorcycle
   * @param tyreWidth of one tyre
   */
  public record Floor(double rideHeight, double width, double track, double tyreWidth) {}

  /**
   * Fuel, which {@link Vehicle#mass} includes.
   *
   * @param load in the tank when the vehicle has its mass, litres
   * @param capacity of the tank, litres
   * @param density kg per litre
   * @param heating MJ that a kilogram holds; null where not said
   * @param efficiency share of that which the engine gives at the crankshaft; null where not said
   */
  public record Fuel(
      double load,
      double capacity,
      double density,
      @Nullable Double heating,
      @Nullable Double efficiency) {
    /** MJ that a kilogram of petrol holds (Heywood 1988, from memory). */
    public static final double PETROL = 43.4;

    /** Share of it that a racing engine gives at the crankshaft (common practice, no source). */
    public static final double USUAL_EFFICIENCY = 0.30;

    /** Fuel of which nothing more is said. */
    public Fuel(double load, double capacity, double density) {
      this(load, capacity, density, null, null);
    }

    /** J that a litre gives at the crankshaft. */
    public double gives() {
      return (heating == null ? PETROL : heating)
          * 1e6
          * (efficiency == null ? USUAL_EFFICIENCY : efficiency)
          * density;
    }
  }

  /**
   * A device that takes drag away on stretches where the rules let it be used.
   *
   * @param drag share of the drag that is left with it open
   * @param downforce share of the downforce that is left
   */
  public record Device(double drag, double downforce) {}

  /**
   * From where the driver looks.
   *
   * @param eye height of the eyes over the road, m
   * @param halfAngle half of the angle in which something is seen without turning the head,
   *     radians: pillars, wheels and a helmet make it less
   */
  public record Seat(double eye, double halfAngle) {
    private static final double HALF_ANGLE = Math.toRadians(40);
  }

  /** The seat, or what is usual (common practice, no source): 40 degrees to either side. */
  public Seat seatOrUsual() {
    return seat != null
        ? seat
        : new Seat(
            kind == VehicleKind.MOTORCYCLE ? Sight.EYE_MOTORCYCLE : Sight.EYE_CAR, Seat.HALF_ANGLE);
  }

  /**
   * How far the springs give way.
   *
   * @param frequency of the body on its springs, Hz
   * @param bump m from where it stands at rest until it is on its stops
   * @param droop m from there until a wheel hangs
   */
  public record Ride(double frequency, double bump, double droop) {
    /**
     * Metres that the body sinks under a load, from where it stands at rest: (n − 1)·g/ω² (linear
     * spring).
     *
     * @param load as a share of that at rest
     */
    public double sinks(double load) {
      double omega = 2 * Math.PI * frequency;
      return (load - 1) * Units.G / (omega * omega);
    }
  }

  /**
   * What tells the front axle from the rear one.
   *
   * @param trackFront m between the middles of the front tyres; 0 for a motorcycle
   * @param trackRear m between those of the rear tyres
   * @param rollFront share of the roll stiffness at the front, 0 to 1
   * @param liftFront share of the downforce at the front
   * @param gripRear grip of a rear tyre against a front one, each at its own static load
   * @param closedTorque Nm with which the engine holds back when the throttle is shut
   * @param brakeStep share of braking that one step of the balance moves to the front
   * @param barStep share of the roll stiffness that one step of a stiffer front bar moves there
   * @param wingStep m² of downforce that one step of the rear wing adds
   * @param wingDrag m² of drag that comes with it
   * @param entered balance with which the grip was entered; null for the one that the vehicle has.
   *     What moves the balance afterwards keeps it.
   */
  public record Chassis(
      double trackFront,
      double trackRear,
      double rollFront,
      double liftFront,
      double gripRear,
      double closedTorque,
      double brakeStep,
      double barStep,
      double wingStep,
      double wingDrag,
      @Nullable Balance entered) {
    Chassis set(Balance to, Balance before) {
      Double rear = to.rear();
      return new Chassis(
          trackFront,
          trackRear,
          to.roll(),
          to.lift(),
          rear == null ? gripRear : rear,
          closedTorque,
          brakeStep,
          barStep,
          wingStep,
          wingDrag,
          before);
    }
  }

  /**
   * What of the balance can be set.
   *
   * @param brakes share of braking at the front
   * @param roll share of the roll stiffness at the front
   * @param lift share of the downforce at the front
   * @param rear grip of a rear tyre against a front one; null for as it is, in what was stored
   *     before it could be set
   */
  public record Balance(double brakes, double roll, double lift, @Nullable Double rear) {}

  /** The balance as it is. */
  public Balance balance() {
    Chassis c = chassisOrUsual();
    return new Balance(brakes.frontShare(), c.rollFront(), c.liftFront(), c.gripRear());
  }

  /** The balance with which the grip was entered. */
  public Balance balanceEntered() {
    Balance entered = chassis == null ? null : chassis.entered();
    return entered == null
        ? balance()
        : entered.rear() == null
            ? new Balance(entered.brakes(), entered.roll(), entered.lift(), balance().rear())
            : entered;
  }

  /** The same vehicle with the balance with which its grip was entered. */
  public Vehicle asEntered() {
    Balance entered = balanceEntered();
    return entered.equals(balance()) ? this : balanced(entered);
  }

  /** The same vehicle with another balance, which remembers the one its grip was entered with. */
  public Vehicle balanced(Balance to) {
    return copy()
        .brakes(new Brakes(brakes.mostForce(), to.brakes(), brakes.engineBraking()))
        .chassis(chassisOrUsual().set(to, balanceEntered()))
        .build();
  }

  /**
   * The chassis, or what is usual for a vehicle like this (common practice, no source): it rolls a
   * little more on its front axle than its weight asks for, and the air presses a little behind the
   * centre of gravity, so that it pushes rather than turns at the limit.
   */
  public Chassis chassisOrUsual() {
    if (chassis != null) {
      return chassis;
    }
    double front = 1 - cogToFront / wheelbase;
    double track = floorOrUsual().track();
    int gear = (gears() + 1) / 2;
    return new Chassis(
        track,
        track,
        Math.min(0.95, rounded(front + 0.04, 1000)),
        Math.max(0, rounded(front - 0.01, 1000)),
        1.04,
        rounded(mass * brakes.engineBraking() * gearbox.rollingRadius() / overall(gear), 10),
        0.005,
        0.01,
        rounded(0.03 * Math.max(0.2, Math.abs(aero.clA())), 1000),
        rounded(0.008 * Math.max(0.2, Math.abs(aero.clA())), 10_000),
        null);
  }

  private static double rounded(double value, double parts) {
    return Math.round(value * parts) / parts;
  }

  /** Deceleration by the engine with the throttle shut in a gear, m/s². */
  public double engineHolds(int gear) {
    return chassisOrUsual().closedTorque() * overall(gear) / gearbox.rollingRadius() / mass;
  }

  /**
   * The vehicle with steps taken on its set-up.
   *
   * @param brake steps of the brake balance to the front
   * @param bar steps stiffer at the front
   * @param wing steps more of the rear wing
   */
  public Vehicle stepped(double brake, double bar, double wing) {
    Chassis c = chassisOrUsual();
    double clA = aero.clA() + wing * c.wingStep();
    double lift = Math.abs(clA) < 1e-6 ? c.liftFront() : c.liftFront() * aero.clA() / clA;
    Vehicle balanced =
        balanced(
            new Balance(
                Math.max(0.2, Math.min(1, brakes.frontShare() + brake * c.brakeStep())),
                Math.max(0.05, Math.min(0.95, c.rollFront() + bar * c.barStep())),
                wing == 0 ? c.liftFront() : Math.max(0, Math.min(1, lift)),
                c.gripRear()));
    return wing == 0
        ? balanced
        : balanced.copy().aero(new Aero(aero.cdA() + wing * c.wingDrag(), clA)).build();
  }

  /**
   * With other springs: a step is 5 % stiffer, and springs are six tenths of what holds an axle
   * against rolling, bars the rest (common practice, no source).
   *
   * @param front steps stiffer
   * @param rear steps stiffer
   */
  public Vehicle sprung(double front, double rear) {
    Balance is = balance();
    double holdsFront = is.roll() * (1 + SPRINGS * SPRING_STEP * front);
    double holdsRear = (1 - is.roll()) * (1 + SPRINGS * SPRING_STEP * rear);
    double roll = Math.max(0.05, Math.min(0.95, holdsFront / (holdsFront + holdsRear)));
    return front == 0 && rear == 0
        ? this
        : balanced(new Balance(is.brakes(), roll, is.lift(), is.rear()));
  }

  /**
   * With other camber: half a degree more is worth half a percent of what an axle grips across, as
   * long as its tyres bear it evenly (common practice, no source).
   *
   * @param front half degrees more
   * @param rear half degrees more
   */
  public Vehicle cambered(double front, double rear) {
    if (kind == VehicleKind.MOTORCYCLE || front == 0 && rear == 0) {
      return this;
    }
    Balance is = balance();
    double more = 1 + CAMBER_STEP * front;
    double grip = chassisOrUsual().gripRear() * (1 + CAMBER_STEP * rear) / more;
    Vehicle balanced =
        balanced(
            new Balance(is.brakes(), is.roll(), is.lift(), Math.max(0.7, Math.min(1.4, grip))));
    return balanced
        .copy()
        .tyres(new Tyres(tyres.muX(), tyres.muY() * more, tyres.loadSensitivity(), tyres.rolling()))
        .build();
  }

  private static final double SPRINGS = 0.6;
  private static final double SPRING_STEP = 0.05;
  private static final double CAMBER_STEP = 0.005;

  /**
   * What steps in at the limit.
   *
   * @param antiLock whether a wheel that is braked is kept from locking
   * @param traction whether a driven wheel is kept from spinning
   */
  public record Aids(boolean antiLock, boolean traction) {}

  /** Whether an anti-lock steps in. */
  public boolean hasAntiLock() {
    return aids != null && aids.antiLock();
  }

  /** Whether a traction control steps in. */
  public boolean hasTractionControl() {
    return aids != null && aids.traction();
  }

  /** Whether its set-up is not the driver's to change. */
  public boolean hasFixedSetup() {
    return Boolean.TRUE.equals(fixedSetup);
  }

  /** The same with another final drive. */
  public Vehicle withFinalDrive(double ratio) {
    return copy()
        .gearbox(
            new Gearbox(
                gearbox.ratios(),
                ratio,
                gearbox.rollingRadius(),
                gearbox.efficiency(),
                gearbox.shiftTime(),
                gearbox.drive()))
        .build();
  }

  /** The same with another chassis. */
  public Vehicle with(@Nullable Chassis other) {
    return copy().chassis(other).build();
  }

  /** A copy to be changed. */
  public VehicleBuilder copy() {
    return VehicleBuilder.builder(this);
  }

  /** The floor, or what is usual for the kind and width: common practice, no source. */
  public Floor floorOrUsual() {
    if (floor != null) {
      return floor;
    }
    return kind == VehicleKind.MOTORCYCLE
        ? new Floor(0.12, 0.3, 0, 0.19)
        : new Floor(0.09, width - 0.5, width - 0.27, 0.25);
  }

  /** Gears there are. */
  public int gears() {
    return gearbox.ratios().size();
  }

  /** Engine revs per minute at a speed in m/s in a gear (1 is the lowest). */
  public double revs(double speed, int gear) {
    return speed / gearbox.rollingRadius() * overall(gear) * 30 / Math.PI;
  }

  /** Speed in m/s at revs per minute in a gear (1 is the lowest). */
  public double speed(double revs, int gear) {
    return revs * Math.PI / 30 * gearbox.rollingRadius() / overall(gear);
  }

  /** Force at the wheels in N at full throttle in a gear, zero past the rev limit. */
  public double wheelForce(double speed, int gear) {
    double revs = revs(speed, gear);
    if (revs > engine.limitRevs()) {
      return 0;
    }
    return engine.torque(revs) * overall(gear) * gearbox.efficiency() / gearbox.rollingRadius();
  }

  private double overall(int gear) {
    return gearbox.ratios().get(gear - 1) * gearbox.finalDrive();
  }
}
