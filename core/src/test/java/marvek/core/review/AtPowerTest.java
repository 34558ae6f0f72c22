package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Things;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

/** Where the throttle throws a rider or turns a car round. */
class AtPowerTest {
  private static List<Said> told(ComputedLap lap, String key) {
    return Drafter.draft(lap, List.of()).corners().stream()
        .flatMap(e -> Hazards.of(lap, Things.none(), e).warnings().stream())
        .filter(w -> w.key().equals(key))
        .toList();
  }

  /**
   * Of a car or machine with more power more corners are told, and none that is driven in front.
   */
  @Test
  void powerAndDriveDecide() {
    for (long seed : new long[] {81, 82}) {
      CircuitReading read = RandomRoads.of(seed, 240);
      ComputedLap small = Drives.computed(read, "motorcycle-600");
      ComputedLap big = Drives.computed(read, "motorcycle-1000");
      assertThat(told(big, "hazard.spin")).isEmpty();
      assertThat(told(big, "hazard.high_side").size())
          .isGreaterThan(0)
          .isGreaterThanOrEqualTo(told(small, "hazard.high_side").size());
      ComputedLap hatch = Drives.computed(read, "small-hatch");
      assertThat(hatch.vehicle().gearbox().drive()).isEqualTo(Vehicle.Drive.FRONT);
      assertThat(told(hatch, "hazard.spin")).isEmpty();
      assertThat(told(hatch, "hazard.high_side")).isEmpty();
    }
  }

  /**
   * Wet takes more of the throttle away than dry: every corner told in the dry is told then too.
   */
  @Test
  void theWetTellsMore() {
    Vehicle gt = VehicleClasses.byId("cup-gt").vehicle();
    Conditions dry = Conditions.dryWarm();
    Conditions wet = new Conditions(0.65, dry.airDensity(), 0, 0, 0);
    int told = 0;
    int more = 0;
    for (long seed : new long[] {83, 85, 86}) {
      CircuitReading read = RandomRoads.of(seed, 240);
      ComputedLap day = ComputedLap.compute(read.centreline(), read.corners(), gt, dry);
      ComputedLap rain = ComputedLap.compute(read.centreline(), read.corners(), gt, wet);
      int inTheDry = told(day, "hazard.spin").size();
      int inTheWet = told(rain, "hazard.spin").size();
      assertThat(inTheWet).isBetween(inTheDry, read.corners().size());
      told += inTheDry;
      more += inTheWet - inTheDry;
    }
    assertThat(told).isPositive();
    assertThat(more).isPositive();
  }

  /** With a traction control it is the control that has to catch it: said, and no less often. */
  @Test
  void anAidIsSaidWhereItHasToCatch() {
    CircuitReading read = RandomRoads.of(81, 240);
    ComputedLap bare = Drives.computed(read, "motorcycle-1000");
    ComputedLap aided =
        ComputedLap.onLine(
            read.centreline(),
            read.corners(),
            bare.ground(),
            bare.vehicle().copy().aids(new Vehicle.Aids(false, true)).build(),
            bare.conditions(),
            bare.path().offset());
    List<Said> without = told(bare, "hazard.high_side");
    List<Said> with = told(aided, "hazard.high_side");
    assertThat(with).hasSameSizeAs(without).isNotEmpty();
    assertThat(without).noneMatch(w -> Plain.words(w).contains("traction control"));
    assertThat(with).allMatch(w -> Plain.words(w).contains("traction control has to catch"));
  }

  /**
   * A machine without wings bears along √(1 − share²) of what its rear wheel gives, up to where its
   * front wheel lifts: the share of full throttle that is told is that, by the road's bends alone.
   */
  @Test
  void whatIsToldIsWhatTheTyresBear() {
    CircuitReading read = RandomRoads.of(84, 200);
    ComputedLap lap = Drives.computed(read, "motorcycle-1000");
    Centreline road = lap.road();
    int held = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      Corner c = lap.corners().get(lap.indexOf(e.corner()));
      for (Said w : Hazards.of(lap, Things.none(), e).warnings()) {
        if (!w.key().equals("hazard.high_side")) {
          continue;
        }
        double station = ((Value.Length) w.values().get(0)).metres();
        double share = ((Value.Figure) w.values().get(1)).value();
        assertThat(road.ahead(c.entry(), station))
            .isLessThanOrEqualTo(road.ahead(c.entry(), c.exit()));
        int i = road.index(station);
        double v = lap.lap().speed()[i];
        Vehicle bike = lap.vehicle();
        double load = Units.G + v * v * lap.path().verticalCurvature()[i];
        double mu = Math.min(bike.tyres().muY(), Math.tan(bike.leanLimit()));
        double across = v * v * Math.abs(lap.path().curvature()[i]) / (mu * load);
        if (across > 0.9) {
          // Nearer to all of it the root is too steep for a reckoning of this kind.
          continue;
        }
        double along = Math.sqrt(Math.max(0, 1 - Math.min(1, across * across)));
        double wheelie = (bike.wheelbase() - bike.cogToFront()) / bike.cogHeight();
        double most = load * Math.min(wheelie, bike.tyres().muX() * along);
        double bears = most / lap.limits().engineDrive(v);
        assertThat(share / 100).as("at %.0f m", station).isBetween(bears - 0.2, bears + 0.2);
        held++;
      }
    }
    assertThat(held).isGreaterThan(2);
  }
}
