package marvek.core.axle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.AxleShares;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.vehicle.VehicleKind;
import org.junit.jupiter.api.Test;

class AxlesTest {
  private static final Conditions DAY = Conditions.dryWarm();

  static List<Vehicle> cars() {
    return VehicleClasses.all().stream()
        .map(VehicleClasses.VehicleClass::vehicle)
        .filter(v -> v.kind() == VehicleKind.CAR)
        .toList();
  }

  private static Vehicle changed(
      Vehicle v,
      double height,
      double sensitivity,
      double brakeFront,
      double engine,
      Vehicle.Chassis chassis) {
    return v.copy()
        .cogHeight(height)
        .tyres(
            new Vehicle.Tyres(v.tyres().muX(), v.tyres().muY(), sensitivity, v.tyres().rolling()))
        .brakes(new Vehicle.Brakes(v.brakes().mostForce(), brakeFront, engine))
        .chassis(chassis)
        .build();
  }

  private static Vehicle.Chassis chassis(Vehicle v, double roll, double lift) {
    Vehicle.Chassis c = v.chassisOrUsual();
    return new Vehicle.Chassis(
        c.trackFront(),
        c.trackRear(),
        roll,
        lift,
        1,
        c.closedTorque(),
        0.005,
        0.01,
        0.03,
        0.01,
        null);
  }

  /** Every second station takes its neighbours' mean: sought itself it is the same. */
  @Test
  void aStationTakenFromItsNeighboursIsAsIfSoughtItself() {
    Random random = new Random(23);
    for (Vehicle v : cars()) {
      Centreline road = RandomRoads.of(random.nextInt(900), 180).centreline();
      double[] grip = new double[road.size()];
      for (int i = 0, left = 0; i < grip.length; i++, left--) {
        if (left == 0) {
          left = 3 + random.nextInt(30);
          Arrays.fill(grip, i, Math.min(grip.length, i + left), 0.4 + 0.1 * random.nextInt(7));
        }
      }
      double[] offset = MinimumCurvature.offsets(road, Room.on(road, v));
      Path path = Path.over(road, offset, Ground.good(road.size())).withGrip(grip);
      Limits limits = new Limits(v, DAY);
      LapTrace lap = LapSimulator.lap(path, v, DAY);
      AxleShares here = Objects.requireNonNull(AxleGrip.of(path, limits, lap));
      AxleShares later =
          Objects.requireNonNull(AxleGrip.of(begunLater(path), limits, begunLater(lap)));
      same(grip, here.turning(), later.turning());
      same(grip, here.braking(), later.braking());
      same(grip, here.driving(), later.driving());
    }
  }

  /** The same where the ground changes; elsewhere but for a bend between two stations. */
  private static void same(double[] grip, double[] here, double[] later) {
    double changes = 0;
    double sum = 0;
    double most = 0;
    for (int i = 1; i + 1 < grip.length; i++) {
      double apart = Math.abs(here[i] - later[i - 1]);
      if (grip[i - 1] != grip[i] || grip[i] != grip[i + 1]) {
        changes = Math.max(changes, apart);
      } else {
        sum += apart;
        most = Math.max(most, apart);
      }
    }
    assertThat(changes).isLessThan(4e-4);
    assertThat(sum / grip.length).isLessThan(5e-4);
    assertThat(most).isLessThan(0.05);
  }

  private static double[] begunLater(double[] a) {
    double[] out = Arrays.copyOfRange(a, 1, a.length + 1);
    out[a.length - 1] = a[0];
    return out;
  }

  private static Path begunLater(Path p) {
    return new Path(
        begunLater(p.offset()),
        begunLater(p.step()),
        begunLater(p.curvature()),
        begunLater(p.gradient()),
        begunLater(p.verticalCurvature()),
        begunLater(p.crossfall()),
        begunLater(p.heading()),
        begunLater(p.grip()));
  }

  private static LapTrace begunLater(LapTrace t) {
    return new LapTrace(
        begunLater(t.speed()),
        t.time(),
        t.along(),
        t.across(),
        t.gear(),
        t.throttle(),
        t.brake(),
        t.cornerSpeed(),
        t.unbraked(),
        t.lapTime(),
        t.boostBelow());
  }

  /** What an axle bears is where one of the two uses all it has, from wherever it is sought. */
  @Test
  void theLimitIsWhereAnAxleUsesAllItHasWhereverItIsSought() {
    Random random = new Random(17);
    for (Vehicle v : cars()) {
      Limits limits = new Limits(v, DAY);
      Axles axles = new Axles(limits);
      for (int k = 0; k < 2000; k++) {
        double weight = 3 + 20 * random.nextDouble();
        double speed = 90 * random.nextDouble();
        double square = speed * speed;
        double ground = 0.3 + 0.8 * random.nextDouble();
        double load = weight + square * limits.downforce();
        double near = 0.4 + 1.1 * random.nextDouble();
        double most = axles.sidewaysMost(weight, square, ground, near);
        assertThat(axles.use(weight, square, most, 0, 0, 0, ground).most())
            .isCloseTo(1, within(1e-4));
        double turn = 0.97 * random.nextDouble() * most;
        double straight = limits.brakingGrip(load, ground);
        double brakes = axles.brakingMost(weight, square, turn, ground, straight, near * straight);
        assertThat(brakes)
            .isCloseTo(axles.brakingMost(weight, square, turn, ground), within(1e-4 * straight));
        double engine = v.brakes().engineBraking();
        if (brakes > 0.05 * straight && brakes < 1.5 * straight) {
          assertThat(axles.use(weight, square, turn, -brakes, engine, 0, ground).most())
              .isCloseTo(1, within(1e-3));
        }
        double pulls = limits.drivingGrip(load, 1, ground);
        double driven = axles.drivingMost(weight, square, turn, ground, pulls, near * pulls);
        assertThat(driven)
            .isCloseTo(axles.drivingMost(weight, square, turn, ground), within(1e-4 * pulls));
      }
    }
  }

  /** With nothing that tells the axles apart they are one point, whatever the state. */
  @Test
  void withoutHeightAndWithLiftAsWeightTwoAxlesAreOnePoint() {
    Random random = new Random(5);
    for (Vehicle base : cars()) {
      double front = 1 - base.cogToFront() / base.wheelbase();
      Vehicle v =
          changed(
              base,
              1e-9,
              base.tyres().loadSensitivity(),
              front,
              0,
              chassis(base, random.nextDouble(), front));
      Limits limits = new Limits(v, DAY);
      Axles axles = new Axles(limits);
      for (int k = 0; k < 300; k++) {
        double weight = 3 + 20 * random.nextDouble();
        double speed = 90 * random.nextDouble();
        double square = speed * speed;
        double ground = 0.3 + 0.8 * random.nextDouble();
        double load = weight + square * limits.downforce();
        double most = limits.sidewaysMost(load, ground);
        assertThat(axles.sidewaysMost(weight, square, ground)).isCloseTo(most, within(1e-4 * most));
        double share = 0.97 * random.nextDouble();
        double left = Math.sqrt(1 - share * share);
        double brakes = left * limits.brakingGrip(load, ground);
        assertThat(axles.brakingMost(weight, square, share * most, ground))
            .isCloseTo(brakes, within(2e-4 * brakes));
        double pulls = limits.drivingGrip(load, left, ground);
        assertThat(axles.drivingMost(weight, square, share * most, ground))
            .isCloseTo(pulls, within(2e-4 * pulls));
      }
    }
  }

  /** What was entered is what the whole vehicle gives on the level at walking speed. */
  @Test
  void theGripEnteredIsThatOfTheWholeVehicle() {
    for (Vehicle v : cars()) {
      Limits limits = new Limits(v, DAY);
      Axles axles = new Axles(limits);
      double across = v.tyres().muY() * Units.G;
      assertThat(axles.sidewaysMost(Units.G, 0, 1)).isCloseTo(across, within(1e-4 * across));
      assertThat(axles.drivingMost(Units.G, 0, 0, 1))
          .isCloseTo(limits.drivingGrip(Units.G, 1, 1), within(1e-3));
      // Brakes that lock together give all of it along: p = (b + μh)/L, closed form.
      double together =
          1 - v.cogToFront() / v.wheelbase() + v.tyres().muX() * v.cogHeight() / v.wheelbase();
      Vehicle even = changed(v, v.cogHeight(), 0, together, 0, chassis(v, 0.5, 0.5));
      Axles both = new Axles(even, DAY);
      double along = v.tyres().muX() * Units.G;
      Axles.Use use = both.use(Units.G, 0, 0, -along, 0, 0, 1);
      assertThat(use.front()).isCloseTo(1, within(1e-6));
      assertThat(use.rear()).isCloseTo(1, within(1e-6));
      assertThat(both.brakingMost(Units.G, 0, 0, 1)).isCloseTo(along, within(1e-4 * along));
    }
  }

  /**
   * What was entered is believed: telling the axles apart moves a lap by less than 0.3 %, and one
   * round settles it.
   */
  @Test
  void aVehicleAsEnteredKeepsItsLap() {
    for (Vehicle v : cars()) {
      for (long seed : new long[] {36, 7, 12, 91}) {
        Centreline road = RandomRoads.of(seed, 200).centreline();
        Path path = Path.over(road, MinimumCurvature.offsets(road, Room.on(road, v)));
        LapTrace one = LapSimulator.lap(path, v, DAY);
        LapTrace two = again(road, path, v, one);
        LapTrace settled = again(road, path, v, two);
        assertThat(two.lapTime()).isCloseTo(one.lapTime(), within(0.003 * one.lapTime()));
        assertThat(settled.lapTime()).isCloseTo(two.lapTime(), within(1e-4 * one.lapTime()));
      }
    }
  }

  private static LapTrace again(Centreline road, Path path, Vehicle v, LapTrace lap) {
    AxleShares shares = AxleGrip.of(path, new Limits(v, DAY, lap.boostBelow()), lap);
    return LapSimulator.lap(
        Path.over(road, path.offset(), Ground.good(road.size()).under(shares)), v, DAY);
  }

  /** Air that presses on the front alone, or on the rear alone, costs in quick corners only. */
  @Test
  void liftAwayFromTheWeightCostsWhereItIsQuick() {
    for (Vehicle base : cars()) {
      if (base.aero().clA() < 0.5) {
        continue;
      }
      double front = 1 - base.cogToFront() / base.wheelbase();
      Limits limits = new Limits(base, DAY);
      double slow = 15 * 15;
      double quick = 60 * 60;
      double even =
          most(base, chassis(base, front, front), quick)
              / limits.sidewaysMost(Units.G + quick * limits.downforce(), 1);
      for (double lift : new double[] {front - 0.2, front + 0.2}) {
        Vehicle.Chassis c = chassis(base, front, lift);
        double atSlow =
            most(base, c, slow) / limits.sidewaysMost(Units.G + slow * limits.downforce(), 1);
        double atQuick =
            most(base, c, quick) / limits.sidewaysMost(Units.G + quick * limits.downforce(), 1);
        assertThat(atQuick).isLessThan(even - 0.02);
        assertThat(atSlow).isGreaterThan(atQuick + 0.01);
      }
    }
  }

  private static double most(Vehicle v, Vehicle.Chassis c, double square) {
    return new Axles(v.with(c), DAY).sidewaysMost(Units.G, square, 1);
  }

  /**
   * Loads of the wheels in a steady turn at 0.8 g: a car of 1500 kg, wheelbase 2.5 m, centre of
   * gravity 1.2 m behind the front axle and 0.5 m high, tracks 1.5 m, 60 % of the roll stiffness at
   * the front. By hand from the balance of moments (Milliken &amp; Milliken 1995, chapter 18, with
   * roll about an axis at the ground): 1500·g·1.3/2.5 = 7649 N on the front axle, moved across
   * 0.6·1500·0.8·g·0.5/1.5 = 2354 N there and 1569 N at the rear; the same braking at 0.5 g moves
   * 1500·0.5·g·0.5/2.5 = 1471 N forward.
   */
  @Test
  void loadsAreThoseOfTheTextbook() {
    Vehicle gt = VehicleClasses.all().get(1).vehicle();
    Vehicle v =
        new Vehicle(
            VehicleKind.CAR,
            1500,
            1.8,
            2.5,
            0.5,
            1.2,
            gt.engine(),
            gt.gearbox(),
            gt.tyres(),
            new Vehicle.Aero(0.8, 0),
            gt.brakes(),
            null,
            null,
            null,
            null,
            new Vehicle.Chassis(1.5, 1.5, 0.6, 0.5, 1, 0, 0.005, 0.01, 0.03, 0.01, null),
            null,
            null,
            null,
            null,
            null);
    Axles.Loads n = new Axles(v, DAY).loads(Units.G, 900, 0.8 * Units.G, 0);
    assertThat(n.front() * 1500).isCloseTo(7649, within(1.0));
    assertThat(n.rear() * 1500).isCloseTo(7061, within(1.0));
    assertThat(n.acrossFront() * 1500).isCloseTo(2354, within(1.0));
    assertThat(n.acrossRear() * 1500).isCloseTo(1569, within(1.0));
    Axles.Loads dive = new Axles(v, DAY).loads(Units.G, 900, 0, -0.5 * Units.G);
    assertThat(dive.front() * 1500).isCloseTo(7649 + 1471, within(1.0));
  }

  /** What drivers know of the steps: a stiffer front bar and brakes forward push, and so on. */
  @Test
  void stepsDoWhatDriversKnow() {
    for (Vehicle v : cars()) {
      double square = 45 * 45;
      Limits limits = new Limits(v, DAY);
      double turn = 0.85 * new Axles(limits).sidewaysMost(Units.G, square, 1);
      double braking = 0.35 * limits.brakingGrip(Units.G, 1);
      double base = balance(v, square, turn, -braking);
      assertThat(balance(v.stepped(2, 0, 0), square, turn, -braking)).isGreaterThan(base);
      assertThat(balance(v.stepped(-2, 0, 0), square, turn, -braking)).isLessThan(base);
      assertThat(balance(v.stepped(0, 2, 0), square, turn, -braking)).isGreaterThan(base);
      assertThat(balance(v.stepped(0, 0, 2), square, turn, -braking)).isGreaterThan(base);
      // A step of the brakes is nothing in mid-corner, a step of the wing next to nothing when
      // slow.
      assertThat(balance(v.stepped(2, 0, 0), square, turn, 0))
          .isCloseTo(balance(v, square, turn, 0), within(1e-9));
      // Braking in the turn takes load off the rear: it turns more than without.
      double freely = balance(v.stepped(-6, 0, 0), square, turn, 0);
      assertThat(balance(v.stepped(-6, 0, 0), square, turn, -braking)).isLessThan(freely);
      // The engine of a rear-driven car brakes its rear wheels: it turns; a front-driven one
      // pushes.
      Axles axles = new Axles(v, DAY);
      double without = axles.use(Units.G, square, turn, -braking, 0, 0, 1).balance();
      double with = axles.use(Units.G, square, turn, -braking, braking / 2, 0, 1).balance();
      if (v.gearbox().drive() == Vehicle.Drive.REAR) {
        assertThat(with).isLessThan(without);
      } else if (v.gearbox().drive() == Vehicle.Drive.FRONT) {
        assertThat(with).isGreaterThan(without);
      }
    }
  }

  private static double balance(Vehicle v, double square, double turn, double force) {
    return new Axles(v, DAY).use(Units.G, square, turn, force, 0, 0, 1).balance();
  }

  /** What is stepped remembers what its grip was entered with, so that a step can change a lap. */
  @Test
  void aStepIsHeldAgainstWhatTheGripWasEnteredWith() {
    for (Vehicle v : cars()) {
      Vehicle stiffer = v.stepped(0, 10, 0);
      assertThat(stiffer.asEntered().balance()).isEqualTo(v.balance());
      assertThat(stiffer.stepped(0, -10, 0).balance().roll())
          .isCloseTo(v.balance().roll(), within(1e-9));
      assertThat(new Axles(stiffer, DAY).sidewaysMost(Units.G, 0, 1))
          .isLessThan(new Axles(v, DAY).sidewaysMost(Units.G, 0, 1) * 0.999);
      Centreline road = RandomRoads.of(7, 200).centreline();
      Path path = Path.over(road, MinimumCurvature.offsets(road, Room.on(road, v)));
      double entered = turning(path, v);
      double stepped = turning(path, stiffer);
      double back = turning(path, stiffer.stepped(0, -10, 0));
      assertThat(stepped).as("a step away").isLessThan(entered - 1e-3);
      assertThat(back).as("and back").isCloseTo(entered, within(1e-9));
      // Entered as it is with the stiff bar, the same grip is what the stiff bar gives: a step to
      // the softer one then finds more than was entered.
      Vehicle.Chassis c = stiffer.chassisOrUsual();
      Vehicle stiff =
          stiffer
              .copy()
              .chassis(
                  new Vehicle.Chassis(
                      c.trackFront(),
                      c.trackRear(),
                      c.rollFront(),
                      c.liftFront(),
                      c.gripRear(),
                      c.closedTorque(),
                      c.brakeStep(),
                      c.barStep(),
                      c.wingStep(),
                      c.wingDrag(),
                      null))
              .build();
      assertThat(turning(path, stiff)).isLessThanOrEqualTo(1).isGreaterThan(stepped);
      assertThat(turning(path, stiff.stepped(0, -10, 0)))
          .isGreaterThan(turning(path, stiff) + 1e-3);
    }
  }

  private static double turning(Path path, Vehicle v) {
    LapTrace lap = LapSimulator.lap(path, v, DAY);
    AxleShares shares = AxleGrip.of(path, new Limits(v, DAY, lap.boostBelow()), lap);
    return Arrays.stream(Objects.requireNonNull(shares).turning()).average().orElseThrow();
  }

  /**
   * In a tight late corner a little trail turns and much of it pushes one car, with its brakes far
   * forward, while another, with them further back, still turns with a third of the brake (common
   * practice, no source: 15 % and 30 %).
   */
  @Test
  void aLittleTrailTurnsAndMuchPushes() {
    Vehicle v = VehicleClasses.byId("single-seater").vehicle();
    double square = 18 * 18;
    Limits limits = new Limits(v, DAY);
    double turn = 0.8 * new Axles(limits).sidewaysMost(Units.G, square, 1);
    double full = limits.brakingGrip(Units.G, 1);
    Vehicle forward = v.stepped(60, 0, 0);
    double free = balance(forward, square, turn, 0);
    assertThat(balance(forward, square, turn, -0.15 * full)).isLessThan(free);
    assertThat(balance(forward, square, turn, -0.3 * full)).isGreaterThan(free);
    assertThat(balance(v, square, turn, -0.35 * full)).isLessThan(free);
  }

  /**
   * Straight ahead the front locks first where it brakes by more than (b + μh)/L, and where it does
   * the brakes are μ·g·b/L over (share − μh/L): both axles' closed form.
   */
  @Test
  void theAxleThatLocksFirstIsTheClosedForms() {
    for (Vehicle base : cars()) {
      double mu = base.tyres().muX();
      double h = base.cogHeight() / base.wheelbase();
      double b = 1 - base.cogToFront() / base.wheelbase();
      double alike = b + mu * h;
      for (double share : new double[] {alike - 0.1, alike - 0.02, alike + 0.02, alike + 0.1}) {
        if (share >= 1) {
          continue;
        }
        Vehicle v =
            changed(base, base.cogHeight(), 0, share, 0, chassis(base, 0.5, b))
                .copy()
                .aero(new Vehicle.Aero(0.5, 0))
                .build();
        Axles.Locking told = new Axles(v, DAY).locking(Units.G, 900, 0, -4, 0, 1);
        boolean front = share > alike;
        assertThat(told.alike()).isTrue();
        assertThat(told.first())
            .isEqualTo(front ? Axles.Wheel.INNER_FRONT : Axles.Wheel.INNER_REAR);
        double dry = DAY.grip() * mu;
        double at =
            front
                ? dry * Units.G * b / (share - dry * h)
                : dry * Units.G * (1 - b) / (1 - share + dry * h);
        assertThat(told.brakes()).isCloseTo(at, within(0.02 * at));
      }
    }
  }

  /** In a turn the wheel with less load locks first, and sooner the more it turns. */
  @Test
  void inATurnTheInnerWheelLocksFirst() {
    Random random = new Random(9);
    int fronts = 0;
    for (Vehicle v : cars()) {
      Axles axles = new Axles(v, DAY);
      for (int k = 0; k < 100; k++) {
        double speed = 15 + 50 * random.nextDouble();
        double square = speed * speed;
        double most = axles.sidewaysMost(Units.G, square, 1);
        double before = Double.MAX_VALUE;
        for (double share : new double[] {0, 0.3, 0.6, 0.9}) {
          Axles.Locking told = axles.locking(Units.G, square, share * most, -5, 0.5, 1);
          assertThat(told.brakes()).as("%s at %s", share, speed).isLessThan(before);
          before = told.brakes();
          if (share > 0) {
            boolean rear = told.first() == Axles.Wheel.INNER_REAR;
            boolean held = v.gearbox().drive() != Vehicle.Drive.FRONT;
            assertThat(told.alike()).isEqualTo(rear && held);
            assertThat(told.first()).isIn(Axles.Wheel.INNER_FRONT, Axles.Wheel.INNER_REAR);
            if (told.use().get(0) > 0) {
              assertThat(told.use().get(0)).isGreaterThanOrEqualTo(told.use().get(1));
            }
            if (told.use().get(2) > 0) {
              assertThat(told.use().get(2)).isGreaterThanOrEqualTo(told.use().get(3));
            }
          }
          fronts += told.first() == Axles.Wheel.INNER_FRONT ? 1 : 0;
          // Pressed as hard as said it is just there, and a little harder it has locked.
          double there = -told.brakes() - 0.5;
          assertThat(hardest(axles.locking(Units.G, square, share * most, there, 0.5, 1)))
              .isCloseTo(1, within(1e-3));
          assertThat(hardest(axles.locking(Units.G, square, share * most, there * 1.05, 0.5, 1)))
              .isGreaterThan(1.01);
        }
      }
    }
    assertThat(fronts).isBetween(100, 1599);
  }

  private static double hardest(Axles.Locking told) {
    return told.use().stream().mapToDouble(u -> u).max().orElseThrow();
  }
}
