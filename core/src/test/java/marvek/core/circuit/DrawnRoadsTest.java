package marvek.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import marvek.core.fixtures.DrawnRoads;
import marvek.core.fixtures.Refused;
import marvek.core.fixtures.Tracks;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Circuits read from points of roads whose lengths and radii are known exactly. */
@Tag("slow")
class DrawnRoadsTest {
  private static final int ROADS = 50;

  private static CircuitReading read(DrawnRoads road, double spacing, double noise, long seed) {
    return CircuitReader.read(
        OutlineFile.read(road.csv(spacing, noise, seed)), CircuitReader.Choices.asItComes());
  }

  private static Corner at(CircuitReading read, double station, boolean left) {
    Centreline road = read.centreline();
    return read.corners().stream()
        .filter(c -> c.left() == left)
        .filter(c -> road.ahead(c.entry(), station) <= road.ahead(c.entry(), c.exit()))
        .findFirst()
        .orElse(null);
  }

  private static double share(List<Double> values, double part) {
    List<Double> sorted = new ArrayList<>(values);
    Collections.sort(sorted);
    return sorted.get((int) Math.min(sorted.size() - 1, part * sorted.size()));
  }

  @Test
  void exactPointsGiveTheRadiusOfTheArcAndItsMiddleAsApex() {
    List<Double> radii = new ArrayList<>();
    List<Double> apexes = new ArrayList<>();
    for (int seed = 101; seed < 101 + ROADS; seed++) {
      DrawnRoads drawn = DrawnRoads.of(seed, 25, 250, 10);
      CircuitReading read = read(drawn, 5, 0, seed);
      assertThat(read.centreline().length()).isCloseTo(drawn.length(), within(0.3));
      for (DrawnRoads.Arc arc : drawn.arcs()) {
        Corner c = at(read, arc.middle(), arc.left());
        assertThat(c).as("road %d, arc at %.0f m", seed, arc.middle()).isNotNull();
        // Two arcs that run into each other are one corner, with the tighter one's radius.
        if (c.exit() - c.entry() < 1.9 * (arc.to() - arc.from()) + 40) {
          radii.add(Math.abs(c.radius() / arc.radius() - 1));
          apexes.add(
              c.apexes().stream()
                  .mapToDouble(a -> Math.abs(read.centreline().apart(a, arc.middle())))
                  .min()
                  .orElseThrow());
          assertThat(c.doubt()).isLessThan(0.1);
        }
      }
    }
    assertThat(radii).hasSizeGreaterThan(400);
    assertThat(share(radii, 0.95)).isLessThan(0.02);
    assertThat(share(radii, 1)).isLessThan(0.05);
    assertThat(share(apexes, 0.95)).isLessThan(2);
  }

  @ParameterizedTest
  @CsvSource({"38,2", "38,5", "38,8", "25,5", "90,5", "250,10"})
  void anArcReadsWithinTwoPerCentAndItsApexIsItsMiddle(double radius, double spacing) {
    // Arcs without transitions: the fit rings where each begins and ends.
    CircuitReading read = Tracks.stadium(12 * radius, radius, spacing).survey();
    assertThat(read.corners()).hasSize(2);
    double middle = 12 * radius + Math.PI * radius / 2;
    for (Corner c : read.corners()) {
      assertThat(c.radius()).isCloseTo(radius, within(0.02 * radius));
      assertThat(c.apex()).isCloseTo(middle, within(3.0));
      middle += 12 * radius + Math.PI * radius;
    }
  }

  @Test
  void pointsThatScatterByAMetreKeepTheLengthAndTheRadii() {
    List<Double> lengths = new ArrayList<>();
    List<Double> radii = new ArrayList<>();
    List<Double> sure = new ArrayList<>();
    List<Double> doubts = new ArrayList<>();
    for (int seed = 101; seed < 101 + ROADS; seed++) {
      DrawnRoads drawn = DrawnRoads.of(seed, 25, 250, 10);
      CircuitReading read = read(drawn, 5, 1, seed);
      double stretched = read.centreline().length() / drawn.length();
      lengths.add(Math.abs(stretched - 1));
      for (DrawnRoads.Arc arc : drawn.arcs()) {
        Corner c = at(read, arc.middle() * stretched, arc.left());
        if (c == null) {
          continue;
        }
        double out = Math.abs(c.radius() / arc.radius() - 1);
        radii.add(out);
        doubts.add(out / c.doubt());
        if (c.doubt() <= 0.1) {
          sure.add(out);
        }
      }
    }
    assertThat(radii).hasSizeGreaterThan(450);
    assertThat(share(lengths, 1)).isLessThan(0.002);
    assertThat(share(radii, 0.5)).isLessThan(0.10);
    // Where nothing is said of the radius it holds; an arc of 13 m with three points does not.
    assertThat(sure).hasSizeGreaterThan(200);
    assertThat(share(sure, 0.95)).isLessThan(0.25);
    // The doubt is one standard deviation: half of a normal error lies within 0.67 of it.
    assertThat(share(doubts, 0.5)).isBetween(0.4, 1.0);
  }

  @Test
  void pointsThatScatterByTwoMetresAreACoarseCircuitAndNoError() {
    for (int seed = 201; seed < 231; seed++) {
      DrawnRoads drawn = DrawnRoads.of(seed, 25, 250, 10);
      CircuitReading read = read(drawn, 5, 2, seed);
      assertThat(read.noise()).isBetween(1.5, 2.6);
      assertThat(read.centreline().length() / drawn.length()).isCloseTo(1, within(0.005));
      assertThat(read.remarks().stream().map(Speaker.PLAIN::say))
          .anyMatch(r -> r.startsWith("The points scatter by"));
      assertThat(read.corners()).anyMatch(c -> c.doubt() > 0.1);
    }
  }

  @Test
  void theDoubtsOfALapDrivenTheOtherWayFromElsewhereAreTheSame() {
    DrawnRoads drawn = DrawnRoads.of(7, 25, 250, 10);
    CircuitReading there = read(drawn, 5, 1, 7);
    CircuitReading back =
        CircuitReader.read(
            OutlineFile.read(drawn.csv(5, 1, 7)), new CircuitReader.Choices(true, 300, 10, false));
    double length = there.centreline().length();
    assertThat(back.corners()).hasSameSizeAs(there.corners());
    for (Corner c : there.corners()) {
      double mirrored = back.centreline().wrap(length - c.apex() - 300);
      Corner same = at(back, mirrored, !c.left());
      assertThat(same).isNotNull();
      assertThat(same.radius()).isCloseTo(c.radius(), within(0.02 * c.radius()));
      assertThat(same.doubt()).isCloseTo(c.doubt(), within(0.15 * c.doubt() + 0.002));
    }
  }

  @Test
  void aRoadReadFromScatteredPointsLacksNoCornerToday() {
    for (int seed = 201; seed < 221; seed++) {
      for (double noise : new double[] {0.3, 1, 2}) {
        CircuitReading read = read(DrawnRoads.of(seed, 25, 250, 10), 5, noise, seed);
        CornerBook.Anew anew = CornerBook.anew(read.centreline(), read.corners());
        assertThat(anew.added()).as("road %d, %.1f m", seed, noise).isEmpty();
        assertThat(anew.apexes()).as("road %d, %.1f m", seed, noise).isEmpty();
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"0", "0.05", "0.5", "1.5"})
  void aRoadThatCrossesItselfIsRefusedWithoutABridgeHoweverItsPointsScatter(double noise) {
    // A figure of eight: two loops that turn against each other.
    Tracks eight =
        Tracks.every(6).straight(200).arc(100, 270).straight(200).arc(100, -270).noisy(noise, 5);
    assertThatThrownBy(eight::survey)
        .isInstanceOf(OutlineProblem.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("crosses itself"));
    CircuitReading bridged =
        CircuitReader.read(
            OutlineFile.read(eight.csv()), new CircuitReader.Choices(false, 0, 10, true));
    assertThat(bridged.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.startsWith("A bridge is taken"));
  }

  @Test
  void pointsFarApartAreToldAndShortBendsDoubted() {
    DrawnRoads drawn = DrawnRoads.of(3, 25, 120, 10);
    CircuitReading near = read(drawn, 10, 0, 3);
    CircuitReading far = read(drawn, 30, 0, 3);
    assertThat(near.remarks().stream().map(Speaker.PLAIN::say))
        .noneMatch(r -> r.contains("m apart"));
    assertThat(far.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.startsWith("The points are 30 m apart"));
    assertThat(far.corners()).anyMatch(c -> c.doubt() > 0.1);
    for (Corner c : far.corners()) {
      if (c.angle() * c.radius() < 45) {
        assertThat(c.doubt()).isGreaterThan(0.15);
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"942, 90, 1", "400, 60, 1", "600, 40, 1", "600, 10, 0", "1400, 90, 0", "400, 15, 0"})
  void longBendsOfLargeRadiusAreCornersWhenTheyTurnTheRoad(
      double radius, double degrees, int corners) {
    Tracks t = Tracks.every(8);
    for (int half = 0; half < 2; half++) {
      t.straight(400).bend(radius, degrees, 30).straight(400).bend(120, 180 - degrees, 30);
    }
    CircuitReading read = t.survey();
    List<Corner> wide = read.corners().stream().filter(c -> c.radius() > 300).toList();
    assertThat(wide).hasSize(2 * corners);
    for (Corner c : wide) {
      assertThat(c.radius()).isCloseTo(radius, within(0.03 * radius));
      assertThat(Math.toDegrees(c.angle())).isCloseTo(degrees, within(4.0));
    }
    assertThat(read.corners().stream().map(Corner::id).distinct().count())
        .isEqualTo(read.corners().size());
    assertThat(Arrays.stream(read.centreline().curvature()).allMatch(Double::isFinite)).isTrue();
  }
}
