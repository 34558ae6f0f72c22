package marvek.core.lap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.vehicle.VehicleKind;
import org.hipparchus.ode.ODEIntegrator;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LapSimulatorTest {
  private static final Conditions STILL = Conditions.dryWarm();

  /** A point mass: grip, a constant drive and a constant braking, no drag. */
  private static Vehicle point(double mu, double drive, double braking, double mass, double clA) {
    // Constant force at the wheels: torque × ratio / radius with a flat curve and one gear.
    double force = drive * mass;
    return new Vehicle(
        VehicleKind.CAR,
        mass,
        1.8,
        2.5,
        1e-9,
        1.25,
        new Vehicle.Engine(
            List.of(
                new Vehicle.TorquePoint(0, force * 0.3 / 2),
                new Vehicle.TorquePoint(30_000, force * 0.3 / 2)),
            29_000,
            30_000),
        new Vehicle.Gearbox(List.of(2.0), 1, 0.3, 1, 0, Vehicle.Drive.ALL),
        new Vehicle.Tyres(mu, mu, 0, 0),
        new Vehicle.Aero(0, clA),
        new Vehicle.Brakes(braking * mass, 0.5, 0),
        null,
        null);
  }

  /** Straights and arcs whose curvature jumps, as the closed form wants them. */
  private static Path straightsAndCircles(double straight, double radius, double step) {
    int n = (int) Math.round(2 * (straight + Math.PI * radius) / step);
    double h = 2 * (straight + Math.PI * radius) / n;
    double[] zero = new double[n];
    double[] curvature = new double[n];
    double[] steps = new double[n];
    for (int i = 0; i < n; i++) {
      double s = (i * h) % (straight + Math.PI * radius);
      curvature[i] = s > straight ? 1 / radius : 0;
      steps[i] = h;
    }
    return new Path(zero, steps, curvature, zero, zero, zero, zero);
  }

  @Test
  void twoStraightsAndTwoHalfCirclesTakeTheTimeOfTheClosedForm() {
    // Closed form: μg = 1.2·9.80665, R 40 m, 400 m straights, 4 m/s² up, 10 m/s² down:
    // corner 21.6961 m/s, top 52.5017 m/s, braking from 285.714 m, lap 33.1480 s.
    Path path = straightsAndCircles(400, 40, 0.05);
    LapTrace lap = LapSimulator.lap(path, point(1.2, 4, 10, 1000, 0), STILL);
    double[] v = lap.speed();
    assertThat(Arrays.stream(v).min().orElse(0)).isCloseTo(21.6961, within(2e-4));
    assertThat(Arrays.stream(v).max().orElse(0)).isCloseTo(52.5017, within(0.01));
    int top = 0;
    for (int i = 0; i < v.length / 2; i++) {
      top = v[i] > v[top] ? i : top;
    }
    assertThat(top * path.step()[0]).isCloseTo(285.714, within(0.2));
    assertThat(lap.lapTime()).isCloseTo(33.1480, within(0.003));
  }

  /** Downhill, in a tailwind, on the limit: where gravity gains more than the bend allows. */
  @ParameterizedTest
  @CsvSource({"0.12, 0", "0, 25", "0.05, 20", "-0.1, 15"})
  void noStationIsLeftFasterThanBrakesAllow(double falls, double wind) {
    Random random = new Random(31);
    int n = 1500;
    double[] zero = new double[n];
    double[] curvature = new double[n];
    double[] gradient = new double[n];
    double[] steps = new double[n];
    Arrays.fill(steps, 1.0);
    double bend = 0.01;
    for (int i = 0; i < n; i++) {
      // Opens slowly, closes quickly.
      bend = random.nextInt(60) == 0 ? 0.004 + 0.03 * random.nextDouble() : bend * 0.9995;
      curvature[i] = bend;
      gradient[i] = -falls + 0.03 * Math.sin(i / 40.0);
    }
    Path path = new Path(zero, steps, curvature, gradient, zero, zero, zero);
    Conditions day = new Conditions(1, 1.2, wind, Math.PI, 0);
    int pushed = 0;
    for (String id : List.of("cup-gt", "downforce-prototype", "motorcycle-600")) {
      Limits limits = new Limits(VehicleClasses.byId(id).vehicle(), day);
      LapSimulator.Speeds lap = LapSimulator.speeds(path, limits, 0);
      for (int i = 0; i < n; i++) {
        int q = (i + 1) % n;
        double most = LapSimulator.behind(path, limits, i, q, lap.speed()[q]);
        assertThat(lap.speed()[i]).as("%s at %d", id, i).isLessThanOrEqualTo(most + 1e-9);
        pushed += lap.unbraked()[i] > most + 1e-6 && lap.speed()[q] > lap.unbraked()[i] ? 1 : 0;
      }
    }
    if (falls > 0) {
      assertThat(pushed).as("pushed on where the bend opens").isPositive();
    }
  }

  @Test
  void downforceRaisesCornerSpeedAsInTheClosedForm() {
    // v² = μmg/(m/r − ½ρC_lAμ): 700 kg, μ 1.5, C_lA 3.0, r 80 m, ρ 1.225 gives 41.4482 m/s.
    assertThat(cornerSpeed(point(1.5, 5, 20, 700, 3.0), 80, 0)).isCloseTo(41.4482, within(1e-4));
    assertThat(cornerSpeed(point(1.5, 5, 20, 700, 16), 80, 0))
        .as("more downforce than it takes: no limit")
        .isEqualTo(Limits.FASTEST);
  }

  private static double cornerSpeed(Vehicle v, double radius, double crossfall) {
    double[] zero = new double[1];
    Path path =
        new Path(
            zero,
            new double[] {1},
            new double[] {1 / radius},
            zero,
            zero,
            new double[] {crossfall},
            zero);
    return new Limits(v, STILL).cornerSpeed(path, 0);
  }

  @Test
  void flatAndBankedCurvesAreThoseOfThePhysicsBook() {
    // OpenStax College Physics, ch. 6: 500 m at 25.0 m/s needs μ = 0.13 (g = 9.80).
    double need = 25.0 * 25.0 / (500 * Units.G);
    assertThat(need).isCloseTo(0.13, within(0.005));
    assertThat(cornerSpeed(point(need, 5, 5, 1000, 0), 500, 0)).isCloseTo(25.0, within(1e-3));
    // 100 m banked 65.0°: ideal speed 45.8 m/s. With next to no grip the limit is the ideal.
    assertThat(cornerSpeed(point(1e-6, 5, 5, 1000, 0), 100, Math.toRadians(65)))
        .isCloseTo(45.8, within(0.1));
  }

  @ParameterizedTest
  @CsvSource({"20,6", "30,14", "40,24", "50,38", "60,55", "70,75"})
  void brakingDistancesFollowTheHighwayCode(double mph, double metres) {
    // UK Highway Code, typical stopping distances, braking part: one constant deceleration within
    // rounding; 6.56 m/s² is the one that meets all six within half a metre.
    double speed = mph * Units.METRES_PER_MILE / 3600;
    double distance = speed * speed / (2 * 6.56);
    assertThat(distance).isCloseTo(metres, within(0.5));
    Vehicle v = point(2, 4, 6.56, 1000, 0);
    assertThat(metresToStop(v, speed)).isCloseTo(distance, within(0.1));
  }

  private static double metresToStop(Vehicle v, double from) {
    Limits limits = new Limits(v, STILL);
    Path flat = VehicleFigures.flat();
    double speed = from;
    double metres = 0;
    while (speed > 0.01) {
      double a = limits.deceleration(flat, 0, speed);
      metres += speed * 0.001 - a * 0.5e-6;
      speed -= a * 0.001;
    }
    return metres;
  }

  @Test
  void aMotorcycleBrakesUntilItsRearWheelLifts() {
    // Cossalter, Motorcycle Dynamics: a/g = b/h, b from the front contact back to the mass centre.
    Vehicle v = VehicleClasses.byId("motorcycle-600").vehicle();
    Vehicle grippy =
        new Vehicle(
            v.kind(),
            v.mass(),
            v.width(),
            v.wheelbase(),
            v.cogHeight(),
            v.cogToFront(),
            v.engine(),
            v.gearbox(),
            new Vehicle.Tyres(3, 3, 0, 0),
            new Vehicle.Aero(0.05, 0),
            new Vehicle.Brakes(50_000, 0.9, 0),
            v.leanLimit(),
            null);
    double most = new Limits(grippy, STILL).deceleration(VehicleFigures.flat(), 0, 10);
    double b = v.cogToFront() / v.cogHeight();
    assertThat(most / Units.G).isCloseTo(b, within(0.005));
    double front = (v.wheelbase() - v.cogToFront()) / v.cogHeight();
    assertThat(new Limits(grippy, STILL).traction(Units.G, 1, 1) / Units.G)
        .isCloseTo(front, within(1e-9));
  }

  @Test
  void accelerationAndBrakingAgreeWithAHighOrderSolver() {
    // Hipparchus, Dormand–Prince 8(5,3), on the same equations: within 0.1 %.
    Vehicle v = smoothDrive();
    Limits limits = new Limits(v, STILL);
    int n = 900;
    double[] zero = new double[n];
    double[] ones = new double[n];
    Arrays.fill(ones, 1.0);
    Path path = new Path(zero, ones, zero, zero, zero, zero, zero);
    double forward = 20;
    double time = 0;
    for (int i = 0; i < 800; i++) {
      double next = LapSimulator.ahead(path, limits, i, i + 1, forward);
      time += 2 / (forward + next);
      forward = next;
    }
    double[] exact =
        solve(
            20,
            800,
            speed -> {
              double load = limits.load(path, 0, speed * speed);
              return limits.driveMost(path, 0, speed) - limits.resistance(path, 0, speed, load);
            });
    assertThat(forward).isCloseTo(exact[0], within(0.001 * exact[0]));
    assertThat(time).isCloseTo(exact[1], within(0.001 * exact[1]));
    double back = 20;
    for (int i = 150; i > 0; i--) {
      back = LapSimulator.behind(path, limits, i - 1, i, back);
    }
    double[] braked = solve(20, 150, speed -> limits.deceleration(path, 0, speed));
    assertThat(back).isCloseTo(braked[0], within(0.001 * braked[0]));
  }

  private static Vehicle smoothDrive() {
    Vehicle v = VehicleClasses.byId("single-seater").vehicle();
    return new Vehicle(
        v.kind(),
        v.mass(),
        v.width(),
        v.wheelbase(),
        v.cogHeight(),
        v.cogToFront(),
        v.engine(),
        new Vehicle.Gearbox(List.of(1.2), 3.1, 0.285, 0.92, 0, Vehicle.Drive.REAR),
        v.tyres(),
        v.aero(),
        v.brakes(),
        null,
        null);
  }

  private interface Acceleration {
    double at(double speed);
  }

  /** Speed and time after a distance, from v dv/ds = a(v). */
  private static double[] solve(double from, double metres, Acceleration a) {
    ODEIntegrator solver = new DormandPrince853Integrator(1e-6, 1, 1e-10, 1e-10);
    var end =
        solver.integrate(
            new OrdinaryDifferentialEquation() {
              @Override
              public int getDimension() {
                return 2;
              }

              @Override
              public double[] computeDerivatives(double s, double[] y) {
                return new double[] {a.at(y[0]) / y[0], 1 / y[0]};
              }
            },
            new ODEState(0, new double[] {from, 0}),
            metres);
    return end.getPrimaryState();
  }

  @Test
  void theErrorFallsWithTheSquareOfTheStep() {
    // A smooth closed road whose curvature is a formula, so that only the step changes.
    double fine = wavy(8192);
    double coarse = Math.abs(wavy(512) - fine);
    double half = Math.abs(wavy(1024) - fine);
    assertThat(coarse / half).isGreaterThan(3);
    assertThat(half / fine).isLessThan(1e-4);
  }

  private static double wavy(int n) {
    double length = 2048;
    double h = length / n;
    double[] zero = new double[n];
    double[] k = new double[n];
    double[] steps = new double[n];
    for (int i = 0; i < n; i++) {
      double phase = 2 * Math.PI * i / n;
      k[i] = 0.012 * Math.pow(Math.sin(2 * phase), 4) + 1e-4;
      steps[i] = h;
    }
    return LapSimulator.lap(
            new Path(zero, steps, k, zero, zero, zero, zero), point(1.4, 4, 9, 1000, 0), STILL)
        .lapTime();
  }

  @Test
  void moreOfWhatHelpsNeverMakesTheLapLonger() {
    Centreline road = Tracks.square(300, 50, 5).survey().centreline();
    Path path = Path.middle(road);
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    double base = LapSimulator.lap(path, v, STILL).lapTime();
    assertThat(LapSimulator.lap(path, v, STILL.withGrip(0.95)).lapTime()).isGreaterThan(base);
    assertThat(LapSimulator.lap(path, v, STILL.withExtraMass(60)).lapTime()).isGreaterThan(base);
    assertThat(LapSimulator.lap(path, v, new Conditions(1, 1.0066, 0, 0, 0)).lapTime())
        .as("thin air changes drag and downforce, and so the time")
        .isNotEqualTo(base);
    LapTrace lap = LapSimulator.lap(path, v, STILL);
    for (int i = 0; i < lap.size(); i++) {
      assertThat(lap.speed()[i]).isLessThanOrEqualTo(lap.cornerSpeed()[i] + 1e-9);
      assertThat(lap.throttle()[i] > 0.02 && lap.brake()[i] > 0.02).isFalse();
    }
  }

  @Test
  void theBoostSpendsWhatItHasAndNoMore() {
    Centreline road = Tracks.square(500, 60, 5).survey().centreline();
    Path path = Path.middle(road);
    Vehicle v = VehicleClasses.byId("downforce-prototype").vehicle();
    LapTrace lap = LapSimulator.lap(path, v, STILL);
    Vehicle.Boost boost = v.boost();
    assertThat(boost).isNotNull();
    double spent = LapSimulator.spends(path, lap, new Limits(v, STILL, lap.boostBelow()));
    assertThat(spent).isLessThanOrEqualTo(boost.energyPerLap() * 1.001);
    Vehicle without =
        new Vehicle(
            v.kind(),
            v.mass(),
            v.width(),
            v.wheelbase(),
            v.cogHeight(),
            v.cogToFront(),
            v.engine(),
            v.gearbox(),
            v.tyres(),
            v.aero(),
            v.brakes(),
            null,
            null);
    assertThat(lap.lapTime()).isLessThan(LapSimulator.lap(path, without, STILL).lapTime());
  }

  @Test
  void theBoostIsSpentAlikeFromWhereverItIsSought() {
    Vehicle v = VehicleClasses.byId("downforce-prototype").vehicle();
    Limits open = new Limits(v, STILL);
    for (long seed = 1; seed <= 4; seed++) {
      Path path = Path.middle(RandomRoads.of(seed, 300 + 60 * seed).centreline());
      LapTrace lap = LapSimulator.lap(path, open);
      assertThat(lap.boostBelow()).as("road %d", seed).isBetween(1.0, Limits.FASTEST);
      for (double near : new double[] {0, 5, lap.boostBelow(), 37, 90, 129, Double.MAX_VALUE}) {
        LapTrace same = LapSimulator.spending(path, open, near);
        assertThat(same.boostBelow()).isEqualTo(lap.boostBelow());
        assertThat(same.speed()).isEqualTo(lap.speed());
      }
    }
  }

  @Test
  void figuresOfTheClassesLieWhereSuchVehiclesDo() {
    // Common practice, no source: 100–0 km/h of a road-tyred hatch near 35 to 40 m, of slicks under
    // 32 m; top speeds by class.
    assertThat(figures("small-hatch").stopDistance()).isBetween(33.0, 42.0);
    assertThat(figures("cup-gt").stopDistance()).isBetween(24.0, 32.0);
    assertThat(Units.kmh(figures("small-hatch").topSpeed())).isBetween(180.0, 240.0);
    assertThat(Units.kmh(figures("cup-gt").topSpeed())).isBetween(250.0, 300.0);
    assertThat(Units.kmh(figures("motorcycle-1000").topSpeed())).isBetween(270.0, 320.0);
    VehicleFigures gt = figures("cup-gt");
    for (int g = 1; g < gt.gears().size(); g++) {
      assertThat(gt.gears().get(g).atShift()).isGreaterThan(gt.gears().get(g - 1).atShift());
      assertThat(gt.gears().get(g).safeDown()).isLessThan(gt.gears().get(g).atLimit());
    }
  }

  private static VehicleFigures figures(String id) {
    return VehicleFigures.of(VehicleClasses.byId(id).vehicle(), STILL);
  }
}
