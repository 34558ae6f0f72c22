package marvek.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import java.util.Random;
import marvek.core.fixtures.Tracks;
import marvek.core.words.Speaker;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.sf.geographiclib.Geodesic;
import org.junit.jupiter.api.Test;

class CircuitReaderTest {

  @Test
  void aCircleHasItsRadiusAndLengthEverywhere() {
    CircuitReading s = Tracks.every(5).arc(120, 360).survey();
    assertThat(s.centreline().length()).isCloseTo(2 * Math.PI * 120, within(0.5));
    assertThat(Arrays.stream(s.centreline().curvature()).min().orElse(0))
        .isCloseTo(1 / 120.0, within(1e-4));
    assertThat(s.centreline().step()).isCloseTo(1, within(0.01));
  }

  @Test
  void aClothoidEndsWhereFresnelSaysAndItsCurvatureRisesEvenly() {
    // Abramowitz & Stegun, table 7.7: C(1) = 0.7798934, S(1) = 0.4382591. A clothoid of length L
    // with unit scale √π·A = L ends at (C(1)·L, S(1)·L); its curvature there is π/L.
    double length = 200;
    int n = 40;
    double[] x = new double[n + 1];
    double[] y = new double[n + 1];
    double heading = 0;
    double px = 0;
    double py = 0;
    int fine = 1000;
    for (int i = 0; i < n * fine; i++) {
      double ds = length / (n * fine);
      double k = Math.PI / length * (i + 0.5) / (n * fine);
      px += ds * Math.cos(heading + k * ds / 2);
      py += ds * Math.sin(heading + k * ds / 2);
      heading += k * ds;
      if ((i + 1) % fine == 0) {
        x[(i + 1) / fine] = px;
        y[(i + 1) / fine] = py;
      }
    }
    assertThat(px).isCloseTo(0.7798934 * length, within(1e-4));
    assertThat(py).isCloseTo(0.4382591 * length, within(1e-4));
    // The same clothoid as the way into a bend: the fitted spline's curvature rises in proportion.
    CircuitReading s = Tracks.square(150, 80, 4).survey();
    Centreline road = s.centreline();
    int entry = road.index(150);
    for (int k = 8; k < 26; k++) {
      assertThat(road.curvature()[entry + k]).isCloseTo(k / (32.0 * 80), within(6e-4));
    }
  }

  @Test
  void distancesOnThePlaneAgreeWithTheEllipsoidToAMillimetreInTenKilometres() {
    // GeographicLib as the reference.
    LocalPlane plane = new LocalPlane(-8.5, 41);
    for (double azimuth = 0; azimuth < 360; azimuth += 15) {
      var there = Geodesic.WGS84.Direct(41, -8.5, azimuth, 10_000);
      double[] p = plane.toMetres(there.lon2, there.lat2);
      assertThat(Math.hypot(p[0], p[1])).isCloseTo(10_000, within(0.001));
      double[] back = plane.toDegrees(p[0], p[1]);
      assertThat(Geodesic.WGS84.Inverse(there.lat2, there.lon2, back[1], back[0]).s12)
          .isLessThan(0.001);
    }
  }

  @Test
  void geographicAndMetricFilesOfOneRoadAgree() {
    Tracks track = Tracks.square(200, 60, 5);
    CircuitReading metric = track.survey();
    CircuitReading geographic =
        CircuitReader.read(OutlineFile.read(track.geoJson()), CircuitReader.Choices.asItComes());
    assertThat(geographic.centreline().length())
        .isCloseTo(metric.centreline().length(), within(0.05));
    assertThat(geographic.corners()).hasSameSizeAs(metric.corners());
  }

  @Test
  void reversingMirrorsTheCornersAndTwiceChangesNothing() {
    CircuitReading there = Tracks.square(200, 60, 5).survey();
    Centreline road = there.centreline();
    assertThat(there.corners()).hasSize(4).allMatch(Corner::left);
    assertThat(CornerFinder.find(road.reversed())).hasSize(4).noneMatch(Corner::left);
    assertThat(road.reversed().reversed().curvature()).containsExactly(road.curvature());
    assertThat(road.reversed().x()[0]).isEqualTo(road.x()[0]);
  }

  @Test
  void movingTheStartRenumbersAndKeepsTheShape() {
    CircuitReading s = Tracks.square(200, 60, 5).survey();
    Corner second = s.corners().get(1);
    Centreline moved = s.centreline().startingAt(s.corners().get(0).exit() + 20);
    Corner first = CornerFinder.find(moved).get(0);
    assertThat(first.number()).isEqualTo("1");
    assertThat(first.radius()).isCloseTo(second.radius(), within(0.1));
    assertThat(first.entry())
        .isCloseTo(second.entry() - s.corners().get(0).exit() - 20, within(1.5));
  }

  @Test
  void findsKindsOfCorner() {
    CircuitReading s =
        Tracks.every(4)
            .straight(400)
            .bend(25, 170, 12)
            .straight(120)
            .bend(40, -60, 16)
            .straight(6)
            .bend(40, 60, 16)
            .straight(500)
            .bend(200, 16, 20)
            .straight(300)
            .bend(70, 80, 14)
            .straight(5)
            .bend(60, 80, 14)
            .noisy(0.01, 3)
            .survey(400);
    assertThat(s.corners().stream().map(Corner::kind))
        .containsSubsequence(
            CornerKind.HAIRPIN,
            CornerKind.CHICANE,
            CornerKind.CHICANE,
            CornerKind.KINK,
            CornerKind.DOUBLE_APEX);
    Corner twice =
        s.corners().stream()
            .filter(c -> c.kind() == CornerKind.DOUBLE_APEX)
            .findFirst()
            .orElseThrow();
    assertThat(twice.apexes()).hasSize(2);
  }

  /**
   * Left, right, left with short pieces, and the other way round; and what is like it but is not.
   */
  @Test
  void threeThatBringTheRoadBackAreAChicane() {
    Random random = new Random(9);
    for (int k = 0; k < 40; k++) {
      double way = random.nextBoolean() ? 1 : -1;
      double first = 25 + 25 * random.nextDouble();
      double last = 25 + 25 * random.nextDouble();
      double tight = 22 + 30 * random.nextDouble();
      boolean far = k % 4 == 1;
      boolean turns = k % 4 == 2;
      double between = far ? 90 : 2 + 14 * random.nextDouble();
      double back = turns ? last + 60 : last;
      CircuitReading s =
          Tracks.every(3)
              .straight(500)
              .bend(40 + 20 * random.nextDouble(), way * first, 12)
              .straight(between)
              .bend(tight, -way * (first + last), 12)
              .straight(between)
              .bend(40 + 20 * random.nextDouble(), way * back, 12)
              .straight(500)
              .survey(500);
      long parts = s.corners().stream().filter(c -> c.kind() == CornerKind.CHICANE).count();
      if (far) {
        assertThat(parts).as("%d far apart", k).isZero();
      } else if (turns) {
        assertThat(parts).as("%d turns away", k).isZero();
      } else {
        assertThat(parts).as("%d %.0f %.0f", k, first, last).isEqualTo(3);
      }
    }
  }

  @Test
  void takesASmallKartTrack() {
    CircuitReading s = Tracks.square(140, 12, 2).survey();
    assertThat(s.centreline().length()).isBetween(600.0, 800.0);
    assertThat(s.corners()).hasSize(4).allMatch(c -> c.radius() < 16);
  }

  @Test
  void takesTwentyKilometresOfRoad() {
    Tracks t = Tracks.every(10);
    for (int i = 0; i < 4; i++) {
      t.straight(900);
      for (int k = 0; k < 6; k++) {
        t.bend(90, 60, 30).straight(250).bend(90, -60, 30).straight(250);
      }
      t.bend(120, 90, 40);
    }
    CircuitReading s = t.survey();
    assertThat(s.centreline().length()).isBetween(17_000.0, 23_000.0);
    assertThat(s.corners()).hasSize(52);
  }

  @Test
  void findsTheSameCornersInNoisyPositionsOfOneSecond() {
    // A lap recorded once a second at 10 to 30 m/s with 1.5 m of scatter: sensible, not exact.
    CircuitReading clean = Tracks.square(400, 60, 4).survey();
    for (long seed = 1; seed <= 5; seed++) {
      CircuitReading noisy = Tracks.square(400, 60, 20).noisy(1.5, seed).survey();
      assertThat(noisy.corners()).as("seed " + seed).hasSize(4).allMatch(Corner::left);
      for (int c = 0; c < 4; c++) {
        assertThat(noisy.corners().get(c).apex())
            .isCloseTo(clean.corners().get(c).apex(), within(40.0));
        assertThat(Math.toDegrees(noisy.corners().get(c).angle())).isBetween(70.0, 115.0);
      }
      assertThat(noisy.noise()).isBetween(0.5, 4.0);
    }
  }

  @Test
  void takesTheMiddleOfMoreThanOneLapAndDropsAStrayPoint() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    Random random = new Random(5);
    for (int i = 0; i < 260; i++) {
      double a = 2 * Math.PI * i / 100;
      double stray = i == 30 ? 400 : 0;
      text.append(
          String.format(
              Locale.ROOT,
              "%.3f,%.3f%n",
              150 * Math.cos(a) + stray,
              150 * Math.sin(a) + 0.05 * random.nextGaussian()));
    }
    CircuitReading s =
        CircuitReader.read(
            OutlineFile.read(text.toString().getBytes(StandardCharsets.UTF_8)),
            CircuitReader.Choices.asItComes());
    assertThat(s.centreline().length()).isCloseTo(2 * Math.PI * 150, within(5.0));
    assertThat(s.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.contains("2 laps go round"));
    assertThat(s.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.contains("stray point") && r.contains("row 32"));
  }

  @Test
  void heightsGiveGradientAndVerticalCurvature() {
    StringBuilder text = new StringBuilder("x_m,y_m,z_m\n");
    double radius = 300;
    for (int i = 0; i < 300; i++) {
      double a = 2 * Math.PI * i / 300;
      text.append(radius * Math.cos(a)).append(',').append(radius * Math.sin(a)).append(',');
      text.append(20 * Math.sin(a)).append('\n');
    }
    Centreline road =
        CircuitReader.read(
                OutlineFile.read(text.toString().getBytes(StandardCharsets.UTF_8)),
                CircuitReader.Choices.asItComes())
            .centreline();
    assertThat(Math.tan(road.gradient()[0])).isCloseTo(20 / radius, within(1e-3));
    int crest = road.index(Math.PI / 2 * radius);
    assertThat(road.verticalCurvature()[crest]).isCloseTo(-20 / (radius * radius), within(1e-5));
    assertThat(road.hasHeight()).isTrue();
  }

  @Property(tries = 200)
  void aPlaceGoesToStationAndOffsetAndBack(
      @ForAll @DoubleRange(min = 0, max = 1190) double station,
      @ForAll @DoubleRange(min = -5, max = 5) double offset) {
    Centreline road = SQUARE;
    double[] p = RoadPosition.toPlane(road, station, offset);
    RoadPosition found = RoadPosition.near(road, p[0], p[1], station + 8, 30);
    assertThat(Math.abs(road.apart(station, found.station()))).isLessThan(0.15);
    assertThat(found.offset()).isCloseTo(offset, within(0.05));
    RoadPosition anywhere = RoadPosition.nearest(road, p[0], p[1]);
    assertThat(anywhere.station()).isCloseTo(found.station(), within(0.2));
  }

  private static final Centreline SQUARE = Tracks.square(220, 50, 5).survey().centreline();

  @Test
  void staysOnItsOwnRoadWhereTwoPassClose() {
    // Two straights of a stadium 20 m apart, with a place nearer to the wrong one.
    Centreline road = Tracks.stadium(300, 10, 2).survey().centreline();
    double[] p = RoadPosition.toPlane(road, 150, 11);
    assertThat(RoadPosition.near(road, p[0], p[1], 145, 40).station()).isCloseTo(150, within(1.0));
    assertThat(RoadPosition.nearest(road, p[0], p[1]).station()).isGreaterThan(300);
  }
}
