package marvek.core.lap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.withinPercentage;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.fixtures.RandomRoads;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** How a lap changes with the grip of every station, held against laps with a little more of it. */
class LapSlopeTest {
  @ParameterizedTest
  @ValueSource(strings = {"cup-gt", "downforce-prototype", "motorcycle-600"})
  void theSlopeByGripIsThatOfALapWithALittleMore(String id) {
    List<Double> cornered = new ArrayList<>();
    List<Double> driven = new ArrayList<>();
    for (long seed = 21; seed < 26; seed++) {
      compare(RandomRoads.of(seed, 220).centreline(), id, cornered, driven);
    }
    // A difference over a kink is the slope of neither side: a few may differ.
    holds("where the corner decides", cornered);
    holds("along", driven);
  }

  private static void compare(
      Centreline road, String id, List<Double> cornered, List<Double> driven) {
    Vehicle v = VehicleClasses.byId(id).vehicle();
    int n = road.size();
    double[] even = new double[n];
    Arrays.fill(even, 0.95);
    AxleShares axles = new AxleShares(new double[n], new double[n], new double[n]);
    for (int i = 0; i < n; i++) {
      axles.turning()[i] = 0.85 + 0.15 * Math.sin(i / 30.0);
      axles.braking()[i] = 0.9 + 0.1 * Math.sin(i / 40.0);
      axles.driving()[i] = 0.95 + 0.1 * Math.cos(i / 50.0);
    }
    Ground ground = new Ground(even, even, List.of(), null, null, axles, 0);
    Limits limits = new Limits(v, Conditions.dryWarm());
    Path path = Path.over(road, MinimumCurvature.offsets(road, Room.on(road, v)), ground);
    LapSlope lap = new LapSlope(path, limits);
    double[] slope = lap.slopes(new double[n]).grip();
    double size = Arrays.stream(slope).map(Math::abs).max().orElse(0);
    Random random = new Random(4);
    for (int i = 0; i < n; i++) {
      // Where it matters: half of the stations of a lap run flat out.
      boolean corner = lap.corner()[i] - lap.speed()[i] < 1e-9;
      if (Math.abs(slope[i]) > 0.01 * size && (corner || random.nextInt(6) == 0)) {
        double h = 1e-6;
        double by = (time(path, limits, i, h) - time(path, limits, i, -h)) / (2 * h);
        (corner ? cornered : driven).add(Math.abs(by / slope[i] - 1));
      }
    }
  }

  private static void holds(String what, List<Double> apart) {
    Collections.sort(apart);
    assertThat(apart.size()).as(what).isGreaterThan(20);
    assertThat(apart.get(apart.size() / 2)).as(what).isLessThan(1e-3);
    assertThat(apart.get(3 * apart.size() / 4)).as(what).isLessThan(0.02);
  }

  /** Steep downhill even the slowest station is braked for, and stations before it for its sake. */
  @Test
  void theSlopeReachesBackPastTheSlowestStation() {
    int n = 900;
    double[] zero = new double[n];
    double[] curvature = new double[n];
    double[] gradient = new double[n];
    double[] steps = new double[n];
    Arrays.fill(steps, 1.0);
    Arrays.fill(gradient, -0.15);
    for (int i = 0; i < n; i++) {
      curvature[i] = 0.02 + 0.01 * Math.cos(2 * Math.PI * (i - 300) / n);
    }
    Path path = new Path(zero, steps, curvature, gradient, zero, zero, zero);
    Limits limits = new Limits(VehicleClasses.byId("cup-gt").vehicle(), Conditions.dryWarm());
    LapSlope lap = new LapSlope(path, limits);
    double[] slope = lap.slopes(new double[n]).grip();
    // From the slowest station to near where no brake is needed any more, which is a kink.
    for (int i = 301; i < 390; i++) {
      double by = (time(path, limits, i, 1e-5) - time(path, limits, i, -1e-5)) / 2e-5;
      assertThat(lap.speed()[i]).as("braked at %d", i).isLessThan(lap.corner()[i] - 0.01);
      assertThat(slope[i]).as("at %d", i).isCloseTo(by, withinPercentage(0.01));
    }
  }

  private static double time(Path path, Limits limits, int i, double more) {
    double[] grip = path.grip().clone();
    grip[i] += more;
    return new LapSlope(path.withGrip(grip), limits).time();
  }
}
