package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.circuit.RoadPosition;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.DrawnRoads;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What laps tell that are not driven on the line, and what places alone cannot tell. */
@Tag("slow")
class PlacesAloneTest {
  private static final int BACK = 100;

  private static final Set<String> OF_THE_FEET =
      Set.of(
          "RELEASED_LATE",
          "RELEASED_SOON",
          "COASTING",
          "HAND_OFF",
          "FULL_LATE",
          "TWO_PRESSES",
          "THROTTLE_THEN_LIFT",
          "GEAR");

  /** Laps at an even distance from the middle of the road, with steering that says so. */
  private static String parallel(Centreline road, double side, long seed) {
    Random random = new Random(seed);
    StringBuilder text = new StringBuilder("time (s),x (m),y (m),speed (km/h),steering (deg)\n");
    double v = 25;
    double station = 0;
    for (int i = 0; i * 0.05 * v < 3.3 * road.length(); i++) {
      double[] p = RoadPosition.toPlane(road, road.wrap(station), side);
      double kappa = road.curvature()[road.index(station)];
      double bend = kappa / (1 - side * kappa);
      text.append(
          String.format(
              Locale.ROOT,
              "%.3f,%.3f,%.3f,%.2f,%.3f%n",
              i * 0.05,
              p[0] + 0.3 * random.nextGaussian(),
              p[1] + 0.3 * random.nextGaussian(),
              v * 3.6,
              Math.toDegrees(39 * bend) + 0.1 * random.nextGaussian()));
      station += v * 0.05 / (1 - side * kappa);
    }
    return text.toString();
  }

  /** Where the road itself bends by 30 % of its most in a corner, not straightening for 22 m. */
  private static double bends(Centreline road, Corner c, @Nullable Double apex) {
    double until =
        c.apexes().size() == 2
            ? road.ahead(c.entry(), c.apexes().get(0)) + road.ahead(c.apexes().get(0), c.apex()) / 2
            : road.ahead(c.entry(), c.exit());
    double[] bend = bend(road, c);
    int held = held(bend, until);
    double own = road.ahead(c.entry(), c.apexes().get(0));
    double first = apex == null ? until : Math.max(own, road.apart(c.entry(), apex));
    if (first > 0 && held > first) {
      // It tightens after the apex that was driven, and is turned into before.
      until = first;
      held = held(bend, until);
    }
    double peak = 0;
    for (int k = 0; k <= until; k++) {
      peak = Math.max(peak, bend[BACK + k]);
    }
    double sum = 0;
    for (int share = 24; share <= 36; share++) {
      int at = held;
      for (int k = held; k > -80 && at - k < 22; k--) {
        at = bend[BACK + k] > share / 100.0 * peak ? k : at;
      }
      sum += at;
    }
    return road.wrap((road.index(c.entry()) + sum / 13) * road.step());
  }

  private static double[] bend(Centreline road, Corner c) {
    double[] out = new double[BACK + 1000];
    for (int k = 0; k < out.length; k++) {
      int i = Math.floorMod(road.index(c.entry()) + k - BACK, road.size());
      out[k] = (c.left() ? 1 : -1) * road.curvature()[i];
    }
    return out;
  }

  /** Where it bends by six tenths of its most up to a place. */
  private static int held(double[] bend, double until) {
    double peak = 0;
    for (int k = 0; k <= until; k++) {
      peak = Math.max(peak, bend[BACK + k]);
    }
    int at = 0;
    while (bend[BACK + at] < 0.6 * peak) {
      at++;
    }
    return at;
  }

  @Test
  void lapsParallelToTheRoadHaveTheirApexInTheBendAndTurnInWhereTheHandsDo() {
    int apexes = 0;
    int outside = 0;
    List<Double> turnIns = new ArrayList<>();
    Random random = new Random(3);
    for (int r = 0; r < 6; r++) {
      CircuitReading read =
          r % 2 == 0
              ? RandomRoads.of(160 + r, 300)
              : CircuitReader.read(
                  OutlineFile.read(DrawnRoads.of(160 + r, 30, 200, 9).csv(5, 0, 1)),
                  CircuitReader.Choices.asItComes());
      ComputedLap computed = Drives.computed(read, "cup-gt");
      Centreline road = computed.road();
      EventFinder finder =
          new EventFinder(road, computed.corners(), computed.limits(), computed.path());
      double side = -3 + 6 * random.nextDouble();
      for (DrivenLap lap : Device.read(parallel(road, side, r), computed, null).whole()) {
        for (CornerEvents e : finder.find(lap)) {
          Corner c = computed.corners().get(computed.indexOf(e.corner()));
          apexes++;
          boolean in =
              e.apex() != null
                  && road.ahead(c.entry(), e.apex()) <= road.ahead(c.entry(), c.exit());
          outside += in ? 0 : 1;
          assertThat(e.turnIn()).as("road %d %s", r, c.id()).isNotNull();
          turnIns.add(road.apart(bends(road, c, e.apex()), e.turnIn()));
        }
      }
    }
    assertThat(apexes).isGreaterThan(100);
    // Who drives between two bends that touch may be nearest to the inside just before one.
    assertThat(outside).isLessThanOrEqualTo(apexes / 20);
    Collections.sort(turnIns);
    assertThat(turnIns.get(turnIns.size() / 2)).isCloseTo(0, within(2.0));
    assertThat(turnIns.stream().filter(m -> m < -8)).isEmpty();
    assertThat(turnIns.get(turnIns.size() * 19 / 20)).isLessThan(8);
  }

  private static String places(Drive driven, ComputedLap computed, double rate, long seed) {
    List<String> rows = new ArrayList<>();
    new Recorder(driven, computed.road(), null, Recorder.Noise.usual(), new Random(seed))
        .table(rate, rows::add);
    return rows.stream()
        .map(row -> String.join(",", List.of(row.split(",")).subList(0, 3)))
        .collect(Collectors.joining("\n"));
  }

  private static Drive drive(ComputedLap computed, List<CornerEntry> draft, int laps, long seed) {
    return SimulatedDriver.drive(
        new Plan(computed, draft, List.of(), laps, 1.5, 0.98, 0, true), new Random(seed));
  }

  @ParameterizedTest
  @ValueSource(doubles = {1, 2})
  void onePlaceASecondTellsTimesAndNothingOfCorners(double rate) {
    ComputedLap computed = Drives.computed(RandomRoads.of(171, 380), "cup-gt");
    Drive driven = drive(computed, Drafter.draft(computed, List.of()).corners(), 3, 1);
    Device.Read sparse = Device.read(places(driven, computed, rate, 2), computed, null);
    Device.Read dense = Device.read(places(driven, computed, 20, 2), computed, null);
    assertThat(sparse.whole()).hasSameSizeAs(dense.whole()).isNotEmpty();
    EventFinder finder =
        new EventFinder(computed.road(), computed.corners(), computed.limits(), computed.path());
    for (int k = 0; k < dense.whole().size(); k++) {
      assertThat(sparse.whole().get(k).lapTime())
          .isCloseTo(dense.whole().get(k).lapTime(), within(0.25));
      assertThat(finder.find(sparse.whole().get(k))).isEmpty();
      assertThat(finder.find(dense.whole().get(k))).isNotEmpty();
    }
    assertThat(sparse.said()).contains("Hz, which tells lap and section times");
    assertThat(dense.said()).doesNotContain("Hz, which tells");
  }

  @Test
  void placesAloneNameNoHabitOfTheFeetOnCleanLaps() {
    int corners = 0;
    int named = 0;
    for (int r = 0; r < 4; r++) {
      ComputedLap computed =
          Drives.computed(
              RandomRoads.of(180 + r, 260 + 60 * r), r % 2 == 0 ? "cup-gt" : "motorcycle-600");
      List<CornerEntry> draft = Drafter.draft(computed, Drafter.boards(computed)).corners();
      Drive driven = drive(computed, draft, 5, 30 + r);
      List<LapData> laps =
          Device.read(places(driven, computed, 10, r), computed, null).whole().stream()
              .map(
                  lap -> {
                    LapData d = Drives.data(lap, computed);
                    return new LapData(
                        d.id(),
                        d.run(),
                        d.number(),
                        d.lapTime(),
                        d.step(),
                        d.times(),
                        d.events(),
                        false);
                  })
              .toList();
      for (var finding : Debriefer.read(computed, draft, laps).corners()) {
        corners++;
        named += finding.habits().stream().anyMatch(h -> OF_THE_FEET.contains(h.cause())) ? 1 : 0;
      }
    }
    assertThat(corners).isGreaterThan(25);
    assertThat(named).isZero();
  }
}
