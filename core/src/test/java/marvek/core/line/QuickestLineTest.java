package marvek.core.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.OutlineFile;
import marvek.core.fixtures.Bumps;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.lap.AxleShares;
import marvek.core.lap.Conditions;
import marvek.core.lap.Driving;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.numeric.PeriodicSpline;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.Vehicle.Aero;
import marvek.core.vehicle.Vehicle.Engine;
import marvek.core.vehicle.Vehicle.TorquePoint;
import marvek.core.vehicle.Vehicle.Tyres;
import marvek.core.vehicle.VehicleClasses;
import org.hipparchus.analysis.MultivariateFunction;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleBounds;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.BOBYQAOptimizer;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@Tag("slow")
class QuickestLineTest {
  private static final Conditions DAY = Conditions.dryWarm();

  private static Vehicle vehicle(String id) {
    return VehicleClasses.byId(id).vehicle();
  }

  private static Centreline square(double straight, double radius, double width) {
    return CircuitReader.read(
            OutlineFile.read(Tracks.square(straight, radius, 4).csv()),
            new CircuitReader.Choices(false, 0, width, false))
        .centreline();
  }

  private static double[] found(Centreline road, Vehicle v) {
    return QuickestLine.fresh(
            road, Room.on(road, v), Ground.good(road.size()), new Limits(v, DAY), Watch.NOBODY)
        .offset();
  }

  private static double lap(Centreline road, double[] offset, Vehicle v) {
    return LapSimulator.lap(Path.over(road, offset), v, DAY).lapTime();
  }

  /** Every offset as a sum of waves, within the room. */
  private static double[] wandering(Centreline road, Room room, Random random) {
    double[] offset = new double[road.size()];
    int waves = 3 + random.nextInt(9);
    double phase = 2 * Math.PI * random.nextDouble();
    for (int i = 0; i < offset.length; i++) {
      double t = 2 * Math.PI * waves * i / offset.length + phase;
      double share = 0.5 + 0.45 * Math.sin(t) * Math.cos(2.3 * phase);
      offset[i] = room.lower()[i] + share * (room.upper()[i] - room.lower()[i]);
    }
    return offset;
  }

  @ParameterizedTest
  @ValueSource(strings = {"cup-gt", "downforce-prototype", "motorcycle-600"})
  void slopesAreThoseOfCentralDifferences(String id) {
    Centreline road = RandomRoads.of(21, 260).centreline();
    Vehicle v = vehicle(id);
    Room room = Room.on(road, v);
    double[] left = new double[road.size()];
    double[] none = new double[road.size()];
    Arrays.fill(left, 0.9);
    Arrays.fill(none, 1);
    // Less grip left of the middle, so that the place across counts by the ground as well; a road
    // that falls to one side, bumps and a side wind beside it, and parts of its width that lie
    // otherwise again.
    double[] fall = new double[road.size()];
    double[] bend = new double[road.size()];
    Ground.Lie lie =
        Ground.Lie.of(road)
            .with(
                List.of(
                    new Ground.Part(true, 1, 4, fall, bend),
                    new Ground.Part(false, 0, Ground.Part.HALF, bend, fall.clone())));
    double[] push = new double[road.size()];
    AxleShares axles = new AxleShares(left.clone(), left.clone(), left.clone());
    for (int i = 0; i < road.size(); i++) {
      axles.turning()[i] = 1 + 0.05 * Math.sin(i / 30.0);
      axles.braking()[i] = 0.9 + 0.1 * Math.sin(i / 40.0);
      axles.driving()[i] = 0.95 + 0.1 * Math.cos(i / 50.0);
      lie.crossfall()[i] += 0.03 * Math.sin(i / 60.0);
      lie.verticalCurvature()[i] -= 0.0005 * (1 + Math.cos(i / 45.0));
      push[i] = 0.8 * Math.sin(i / 90.0);
      fall[i] = 0.05 * Math.sin(i / 35.0);
      bend[i] = 0.001 * Math.cos(i / 25.0);
    }
    Ground ground = new Ground(left, none, List.of(), lie, new Ground.SideWind(push), axles, 0);
    Limits limits = new Limits(v, DAY.withDriving(new Driving(0.85, 0.9, 0.7, 0.15)));
    double[] start = MinimumCurvature.offsets(road, room);
    int knots = (int) Math.round(road.length() / 20);
    double[] c = new double[knots];
    double[] slope = QuickestLine.judged(road, room, ground, limits, start, 20, c).slope();
    Random random = new Random(5);
    double[] apart = new double[50];
    double size = Arrays.stream(slope).map(Math::abs).max().orElse(0);
    for (int k = 0; k < apart.length; k++) {
      int j = random.nextInt(knots);
      double h = 1e-5;
      double[] more = c.clone();
      double[] less = c.clone();
      more[j] += h;
      less[j] -= h;
      double up = QuickestLine.judged(road, room, ground, limits, start, 20, more).total();
      double down = QuickestLine.judged(road, room, ground, limits, start, 20, less).total();
      apart[k] = Math.abs((up - down) / (2 * h) - slope[j]) / size;
    }
    Arrays.sort(apart);
    // A difference over a kink is the slope of neither side: a few may differ.
    assertThat(apart[40]).as("four of five").isLessThan(1e-3);
    assertThat(apart[25]).as("the middle").isLessThan(1e-4);
  }

  @ParameterizedTest
  @CsvSource({
    "31, 300, cup-gt",
    "32, 300, motorcycle-1000",
    "11, 120, small-hatch",
    "12, 120, cup-gt",
    "13, 90, cup-gt",
    "14, 150, small-hatch"
  })
  void randomBumpsFindNothingMore(long seed, double radius, String id) {
    Centreline road = RandomRoads.of(seed, radius).centreline();
    Vehicle v = vehicle(id);
    double[] line = found(road, v);
    Room room = Room.on(road, v);
    Ground good = Ground.good(road.size());
    assertThat(Bumps.left(road, room, good, v, DAY, line, 1000, 7)).isLessThan(0.002);
    // The same bumps find a lot on the line of least bending, which was the line before.
    double[] least = MinimumCurvature.offsets(road, room);
    assertThat(Bumps.left(road, room, good, v, DAY, least, 1000, 7)).isGreaterThan(0.002);
    assertThat(lap(road, line, v)).isLessThan(0.998 * lap(road, least, v));
  }

  @Test
  void whereverTheSearchBeginsItEndsAtTheSameTime() {
    Centreline road = RandomRoads.of(33, 220).centreline();
    Vehicle v = vehicle("cup-gt");
    Room room = Room.on(road, v);
    Random random = new Random(3);
    List<Double> times = new ArrayList<>();
    times.add(lap(road, found(road, v), v));
    for (int k = 0; k < 5; k++) {
      double[] line =
          QuickestLine.from(
                  road,
                  room,
                  Ground.good(road.size()),
                  new Limits(v, DAY),
                  wandering(road, room, random),
                  Watch.NOBODY)
              .offset();
      times.add(lap(road, line, v));
    }
    double least = times.stream().mapToDouble(t -> t).min().orElseThrow();
    assertThat(times).allSatisfy(t -> assertThat(t).isLessThan(least * 1.001));
  }

  @Test
  void anotherOptimiserFindsNothingMoreInOneCorner() {
    // BOBYQA (Powell 2009, by Hipparchus) on 28 unknowns through one corner, from five starts.
    Centreline road = square(160, 40, 11);
    Vehicle v = vehicle("cup-gt");
    Room room = Room.on(road, v);
    double[] line = found(road, v);
    double time = lap(road, line, v);
    int knots = 28;
    int first = 90;
    MultivariateFunction seconds =
        c -> {
          double[] offset = line.clone();
          for (int k = 0; k < knots; k++) {
            for (int j = -16; j <= 16; j++) {
              // The cardinal cubic B-spline on knots 8 m apart.
              double t = Math.abs(j / 8.0);
              double w = t < 1 ? (4 - 6 * t * t + 3 * t * t * t) / 6 : Math.pow(2 - t, 3) / 6;
              int i = first + 8 * k + j;
              offset[i] += c[k] * w;
            }
          }
          double outside = 0;
          for (int i = 0; i < offset.length; i++) {
            outside += Math.max(0, offset[i] - room.upper()[i] - 2e-3);
            outside += Math.max(0, room.lower()[i] - 2e-3 - offset[i]);
          }
          return lap(road, offset, v) + 10 * outside;
        };
    Random random = new Random(17);
    double[] low = new double[knots];
    double[] high = new double[knots];
    Arrays.fill(low, -3);
    Arrays.fill(high, 3);
    double best = time;
    for (int start = 0; start < 5; start++) {
      double spread = start == 0 ? 0 : 0.15;
      double[] guess = new double[knots];
      for (int k = 0; k < knots; k++) {
        guess[k] = spread * random.nextGaussian();
      }
      try {
        best =
            Math.min(
                best,
                new BOBYQAOptimizer(2 * knots + 1, 0.2, 1e-4)
                    .optimize(
                        new MaxEval(900),
                        new ObjectiveFunction(seconds),
                        GoalType.MINIMIZE,
                        new InitialGuess(guess),
                        new SimpleBounds(low, high))
                    .getValue());
      } catch (org.hipparchus.exception.MathIllegalStateException allUsed) {
        best = Math.min(best, time);
      }
    }
    assertThat(best).isGreaterThan(time * 0.998);
  }

  @Test
  void aMirroredRoadHasTheMirroredLine() {
    Centreline road = RandomRoads.of(34, 160).centreline();
    Vehicle v = vehicle("small-hatch");
    double[] line = found(road, v);
    double[] mirrored = found(mirror(road), v);
    assertThat(lap(mirror(road), mirrored, v)).isCloseTo(lap(road, line, v), within(0.02));
    for (int i = 0; i < line.length; i++) {
      assertThat(mirrored[i]).isCloseTo(-line[i], within(0.15));
    }
  }

  /** Where a direct search goes on, places agree less where the time hardly cares; laps do. */
  @Test
  void aMirroredShortRoadHasTheSameLap() {
    Centreline road = RandomRoads.of(11, 120).centreline();
    assertThat(road.length()).isLessThan(DirectSearch.SHORT);
    Vehicle v = vehicle("cup-gt");
    double[] line = found(road, v);
    double[] mirrored = found(mirror(road), v);
    double lap = lap(road, line, v);
    assertThat(lap(mirror(road), mirrored, v)).isCloseTo(lap, within(0.001 * lap));
    for (int i = 0; i < line.length; i++) {
      assertThat(mirrored[i]).isCloseTo(-line[i], within(0.6));
    }
  }

  private static Centreline mirror(Centreline r) {
    return new Centreline(
        r.step(),
        r.x(),
        minus(r.y()),
        minus(r.heading()),
        minus(r.curvature()),
        r.height(),
        r.gradient(),
        r.verticalCurvature(),
        r.left(),
        r.right(),
        minus(r.crossfall()),
        r.hasHeight(),
        r.hasWidth());
  }

  private static double[] minus(double[] a) {
    return Arrays.stream(a).map(x -> -x).toArray();
  }

  @Test
  void whereTheLapIsBegunChangesNothing() {
    Centreline road = RandomRoads.of(35, 200).centreline();
    Vehicle v = vehicle("cup-gt");
    double[] line = found(road, v);
    // Not a whole number of knots on: the spline lies elsewhere.
    double[] shifted = found(road.startingAt(333), v);
    assertThat(lap(road.startingAt(333), shifted, v))
        .isCloseTo(lap(road, line, v), within(0.001 * lap(road, line, v)));
    double sum = 0;
    for (int i = 0; i < line.length; i++) {
      sum += Math.abs(shifted[i] - line[(i + 333) % line.length]);
    }
    assertThat(sum / line.length).as("metres between the lines").isLessThan(0.4);
  }

  @Test
  void aWiderRoadIsNeverSlower() {
    for (String id : List.of("cup-gt", "motorcycle-600")) {
      double before = Double.MAX_VALUE;
      for (double width : new double[] {7, 9, 11, 14}) {
        Centreline road = square(180, 35, width);
        double time = lap(road, found(road, vehicle(id)), vehicle(id));
        assertThat(time).as(id + " " + width).isLessThan(before);
        before = time;
      }
    }
  }

  @Test
  void withoutPowerTheLineIsTheWidestArc() {
    // Nothing slows the car and next to nothing drives it: all that counts is the speed that the
    // tightest place allows, which is greatest on the widest arc.
    Vehicle weak = powerless();
    Centreline road = square(60, 30, 11);
    double[] line = found(road, weak);
    Path path = Path.over(road, line);
    double tightest = Arrays.stream(path.curvature()).max().orElseThrow();
    double usable = 11 - weak.width() - 2 * Ground.MARGIN;
    double arc = WidestArc.radius(30 - usable / 2, 30 + usable / 2, Math.PI / 2);
    double least =
        Arrays.stream(
                Path.over(road, MinimumCurvature.offsets(road, Room.on(road, weak))).curvature())
            .max()
            .orElseThrow();
    // The road's clothoids leave a little less, or more, than the plain arcs of the formula.
    assertThat(1 / tightest).isBetween(0.93 * arc, 1.1 * arc);
    assertThat(1 / tightest).isGreaterThan(1.1 / least);
  }

  private static Vehicle powerless() {
    Vehicle v = vehicle("small-hatch");
    Engine e = v.engine();
    List<TorquePoint> weak =
        e.curve().stream().map(t -> new TorquePoint(t.revs(), t.torque() * 0.004)).toList();
    return new Vehicle(
        v.kind(),
        v.mass(),
        v.width(),
        v.wheelbase(),
        v.cogHeight(),
        v.cogToFront(),
        new Engine(weak, e.shiftRevs(), e.limitRevs()),
        v.gearbox(),
        new Tyres(1.0, 1.0, 0, 1e-9),
        new Aero(1e-6, 0),
        v.brakes(),
        null,
        null);
  }

  @Test
  void anEarlierLineIsKeptWhileNoneIsMuchQuicker() {
    Centreline road = RandomRoads.of(36, 200).centreline();
    Vehicle v = vehicle("cup-gt");
    Room room = Room.on(road, v);
    Ground good = Ground.good(road.size());
    // Searched on from itself until there is nothing more to find.
    double[] line = found(road, v);
    double[] before = new double[0];
    for (int k = 0; k < 5 && line != before; k++) {
      before = line;
      line = QuickestLine.near(road, room, good, new Limits(v, DAY), line, Watch.NOBODY).offset();
    }
    assertThat(line).isSameAs(before);
    Limits onePercent = new Limits(v, DAY.withGrip(0.99));
    assertThat(QuickestLine.near(road, room, good, onePercent, line, Watch.NOBODY).offset())
        .isEqualTo(line);
    double[] least = MinimumCurvature.offsets(road, room);
    double[] from =
        QuickestLine.near(road, room, good, new Limits(v, DAY), least, Watch.NOBODY).offset();
    assertThat(lap(road, from, v)).isLessThan(0.999 * lap(road, least, v));
  }

  @Test
  void halfTheStepHardlyChangesTheLap() {
    Centreline road = RandomRoads.of(38, 220).centreline();
    for (String id : List.of("cup-gt", "downforce-prototype", "motorcycle-600")) {
      Vehicle v = vehicle(id);
      double[] line = found(road, v);
      double coarse = lap(road, line, v);
      double fine = lap(halved(road), halved(line), v);
      assertThat(fine).as(id).isCloseTo(coarse, within(0.0005 * coarse));
    }
  }

  private static Centreline halved(Centreline r) {
    return new Centreline(
        r.step() / 2,
        halved(r.x()),
        halved(r.y()),
        new double[2 * r.size()],
        halved(r.curvature()),
        halved(r.height()),
        halved(r.gradient()),
        halved(r.verticalCurvature()),
        halved(r.right()),
        halved(r.left()),
        halved(r.crossfall()),
        r.hasHeight(),
        r.hasWidth());
  }

  /** With a value between each two, on the closed spline through them all. */
  private static double[] halved(double[] a) {
    int n = a.length;
    double[] at = new double[n];
    for (int i = 0; i < n; i++) {
      at[i] = i;
    }
    PeriodicSpline through = PeriodicSpline.fit(at, n, a, 0);
    double[] out = new double[2 * n];
    for (int i = 0; i < 2 * n; i++) {
      out[i] = through.at(i / 2.0)[0];
    }
    return out;
  }

  @Test
  void theSameInputsGiveTheSameLineAndItStaysInItsRoom() {
    Centreline road = RandomRoads.of(38, 180).centreline();
    Vehicle v = vehicle("single-seater");
    Room room = Room.on(road, v);
    double[] line = found(road, v);
    assertThat(found(road, v)).isEqualTo(line);
    for (int i = 0; i < line.length; i++) {
      assertThat(line[i]).isBetween(room.lower()[i] - 0.01, room.upper()[i] + 0.01);
    }
  }

  @Test
  void handsCanFollowTheLine() {
    Centreline road = RandomRoads.of(39, 200).centreline();
    Vehicle v = vehicle("motorcycle-600");
    SteeringRate rate = SteeringRate.usual(v);
    Path path = Path.over(road, found(road, v));
    double[] asked = rate.asked(path, LapSimulator.lap(path, v, DAY).speed());
    Arrays.sort(asked);
    assertThat(asked[asked.length * 99 / 100]).isLessThan(1.3 * rate.most());
  }

  @Test
  void aSearchSaysHowFarItIsAndCanBeStopped() {
    Centreline road = RandomRoads.of(40, 120).centreline();
    Vehicle v = vehicle("cup-gt");
    List<Double> shares = new ArrayList<>();
    assertThatThrownBy(
            () ->
                QuickestLine.fresh(
                    road,
                    Room.on(road, v),
                    Ground.good(road.size()),
                    new Limits(v, DAY),
                    share -> {
                      shares.add(share);
                      return shares.size() < 60;
                    }))
        .isInstanceOf(SearchStopped.class);
    assertThat(shares).hasSize(60).isSorted();
    assertThat(shares.get(59)).isBetween(0.1, 0.9);
  }
}
