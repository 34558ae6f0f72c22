package marvek.core.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.OwnPace;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.Driving;
import marvek.core.lap.Ground;
import marvek.core.lap.LapTrace;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PacedTest {
  private static ComputedLap on(long seed, String vehicle) {
    return Drives.computed(RandomRoads.of(seed, 420), vehicle);
  }

  private static Ground plain(ComputedLap computed) {
    return Ground.good(computed.road().size());
  }

  private static OwnPace pace(double braking, double turning, double traction) {
    return new OwnPace(new Driving(braking, turning, traction, 0.15), List.of());
  }

  @ParameterizedTest
  @CsvSource({"41, cup-gt", "42, motorcycle-600", "43, small-hatch", "44, downforce-prototype"})
  void aTierIsSoMuchOffTheBest(long seed, String vehicle) {
    ComputedLap computed = on(seed, vehicle);
    for (double off : Paced.TIERS) {
      OwnPace pace = Paced.off(computed, plain(computed), off, 0.3, List.of());
      double lap = Paced.lap(computed, plain(computed), pace).lapTime();
      assertThat(lap / computed.lap().lapTime() - 1).as("%s", off).isCloseTo(off, within(1e-4));
      assertThat(pace.driving().margin()).isEqualTo(0.3);
      if (off > 0) {
        assertThat(Paced.nextTier(off)).isLessThan(off);
      }
    }
    assertThat(Paced.lap(computed, plain(computed), null).lapTime())
        .as("none is all of the grip")
        .isEqualTo(computed.lap().lapTime());
  }

  /** Each share costs time and changes what it says: speed in corners, braking, traction. */
  @ParameterizedTest
  @CsvSource({"51, cup-gt", "52, motorcycle-1000", "53, single-seater"})
  void eachShareChangesItsOwn(long seed, String vehicle) {
    ComputedLap computed = on(seed, vehicle);
    LapTrace full = computed.lap();
    LapTrace braking = Paced.lap(computed, plain(computed), pace(0.8, 1, 1));
    LapTrace turning = Paced.lap(computed, plain(computed), pace(1, 0.8, 1));
    LapTrace traction = Paced.lap(computed, plain(computed), pace(1, 1, 0.6));
    assertThat(braking.lapTime()).isGreaterThan(full.lapTime());
    assertThat(turning.lapTime()).isGreaterThan(braking.lapTime());
    assertThat(traction.lapTime()).isGreaterThanOrEqualTo(full.lapTime());
    for (int i = 0; i < full.size(); i += 7) {
      assertThat(braking.cornerSpeed()[i]).isEqualTo(full.cornerSpeed()[i]);
      assertThat(traction.cornerSpeed()[i]).isEqualTo(full.cornerSpeed()[i]);
      assertThat(turning.cornerSpeed()[i]).isLessThanOrEqualTo(full.cornerSpeed()[i]);
      // On a road without downforce the speed of a corner goes with the root of the share.
      if (vehicle.startsWith("motorcycle") && full.cornerSpeed()[i] < 40) {
        assertThat(turning.cornerSpeed()[i] / full.cornerSpeed()[i])
            .isCloseTo(Math.sqrt(0.8), within(0.06));
      }
    }
    double hardest = hardest(full);
    assertThat(hardest(braking) / hardest).isBetween(0.75, 0.93);
  }

  private static double hardest(LapTrace lap) {
    double most = 0;
    for (double a : lap.along()) {
      most = Math.max(most, -a);
    }
    return most;
  }

  @Test
  void aCornerMayHaveAPaceOfItsOwn() {
    ComputedLap computed = on(61, "cup-gt");
    int c = 2;
    String id = computed.corners().get(c).id();
    OwnPace slower =
        new OwnPace(Driving.FULL, List.of(new OwnPace.InCorner(id, 0.85, OwnPace.Why.BLIND)));
    LapTrace lap = Paced.lap(computed, plain(computed), slower);
    for (int k = 0; k < computed.corners().size(); k++) {
      // A slower exit may be carried into the next corner; what that one allows stays.
      int apex = computed.road().index(computed.corners().get(k).apex());
      double now = lap.cornerSpeed()[apex];
      double before = computed.lap().cornerSpeed()[apex];
      if (k == c) {
        assertThat(now / before).isBetween(0.85, 0.95);
        assertThat(lap.lapTime()).isGreaterThan(computed.lap().lapTime());
      } else {
        assertThat(now).as("corner %d", k).isCloseTo(before, within(1e-9));
      }
    }
  }

  /** The draft at an own pace brakes with its margin, earlier the slower the driver is. */
  @Test
  void theDraftTakesTheMargin() {
    CircuitReading road = RandomRoads.of(71, 420);
    List<Double> marks = new ArrayList<>();
    for (double[] asked : new double[][] {{1, 0.15}, {1, 0.4}, {0.85, 0.15}}) {
      ComputedLap full = Drives.computed(road, "cup-gt");
      Driving driving = new Driving(asked[0], asked[0], asked[0], asked[1]);
      ComputedLap computed =
          ComputedLap.onLine(
              full.road(),
              full.corners(),
              plain(full),
              full.vehicle(),
              Conditions.dryWarm().withDriving(driving),
              full.path().offset());
      double before = 0;
      for (CornerEntry e : Drafter.draft(computed, List.of()).corners()) {
        if (e.slowing() == Slowing.BRAKE) {
          double margin =
              Answers.at(computed, Things.none(), computed.indexOf(e.corner())).margin(e);
          // No later than asked, but for a step of the road; no more than 5 m sooner, and the whole
          // metre that it is set back to, where the lap rides the limit of the corner before.
          assertThat(margin)
              .as(e.corner())
              .isBetween(asked[1] - 0.03, asked[1] + 6 / e.approachSpeed());
          before +=
              computed
                  .road()
                  .ahead(
                      e.station(PointKind.BRAKE).orElseThrow(),
                      computed.corners().get(computed.indexOf(e.corner())).apex());
        }
      }
      marks.add(before);
    }
    assertThat(marks.get(1)).isGreaterThan(marks.get(0) + 5);
    assertThat(marks.get(2)).isGreaterThan(marks.get(0));
  }
}
