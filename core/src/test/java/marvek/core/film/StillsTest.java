package marvek.core.film;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.RoadPosition;
import marvek.core.film.Lens.Projection;
import marvek.core.film.Stills.Sighting;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Refused;
import marvek.core.fixtures.Tracks;
import marvek.core.refusal.Refusal;
import org.junit.jupiter.api.Test;

/** Things placed from stills, against scenes of which every place is known. */
class StillsTest {
  private static final Centreline STRAIGHT = Tracks.stadium(600, 60, 2).survey().centreline();
  private static final List<Centreline> ROADS =
      IntStream.range(0, 12)
          .mapToObj(seed -> RandomRoads.of(seed, seed % 2 == 0 ? 60 : 30).centreline())
          .toList();
  // A picture as wide as it is deep to one side: across is the tangent itself.
  private static final Lens EVEN = new Lens(Projection.STRAIGHT, Math.PI / 4, 0);

  /** Triangulation: tangents 0.1 and 0.2 from 30 m apart meet 60 m on and 6 m aside. */
  @Test
  void twoBearingsMeetAsGeometrySays() {
    double from = straight();
    Stills stills = new Stills(STRAIGHT, s -> 0, true);
    Stills.Placed right =
        stills.place(EVEN, new Sighting(from, 0.1), new Sighting(from + 30, 0.2), 0);
    assertThat(STRAIGHT.ahead(from, right.station())).isCloseTo(60, within(0.05));
    assertThat(right.left()).isFalse();
    assertThat(right.out() + STRAIGHT.right()[STRAIGHT.index(right.station())])
        .isCloseTo(6, within(0.02));
    Stills.Placed left =
        stills.place(EVEN, new Sighting(from, -0.1), new Sighting(from + 30, -0.2), 0);
    assertThat(left.left()).isTrue();
    // Both a degree off: 65.1 m. That is what its doubt says, with a press beside it.
    double off = Math.toRadians(1);
    Lens wrong = new Lens(Projection.STRAIGHT, Math.PI / 4, off);
    double seen =
        STRAIGHT.ahead(
            from,
            stills
                .place(wrong, new Sighting(from, 0.1), new Sighting(from + 30, 0.2), 0)
                .station());
    assertThat(seen).isCloseTo(65.1, within(0.2));
    assertThat(right.along()).isBetween(4.0, 7.0);
  }

  private static double straight() {
    for (int i = 0; i < STRAIGHT.size(); i++) {
      double s = i * STRAIGHT.step();
      boolean straight = true;
      for (double d = -20; d < 200; d += 5) {
        straight &= Math.abs(STRAIGHT.curvature()[STRAIGHT.index(s + d)]) < 1e-5;
      }
      if (straight) {
        return s;
      }
    }
    throw new IllegalStateException("the road has a straight");
  }

  /** On roads drawn by chance, by both kinds of lens, on a line that wanders across the road. */
  @Test
  void whatALensDrawsIsFoundAgain() {
    Random chance = new Random(3);
    int found = 0;
    int doubted = 0;
    for (int round = 0; round < 3000; round++) {
      Scene scene = new Scene(chance, round);
      if (!scene.shown()) {
        continue;
      }
      Stills.Placed at;
      try {
        at = scene.stills.place(scene.lens, scene.sighting(0, 0, 0), scene.sighting(1, 0, 0), 1.2);
      } catch (Refusal r) {
        doubted++;
        continue;
      }
      // In a bend the two rays may be all but one; that is said and not believed.
      if (at.along() > 10) {
        doubted++;
        continue;
      }
      found++;
      assertThat(Math.abs(scene.road.apart(scene.station, at.station()))).isLessThan(0.6);
      assertThat(at.left()).isEqualTo(scene.offset > 0);
      assertThat(Math.abs(at.out() - scene.out())).isLessThan(0.4);
    }
    assertThat(found).isGreaterThan(150);
    assertThat(doubted).isLessThan(found / 2);
  }

  /** What it says of its own doubt holds: two of it hold 95 of 100, one of it not all. */
  @Test
  void doubtIsAsLargeAsErrorsAre() {
    Random chance = new Random(4);
    int within = 0;
    int close = 0;
    int all = 0;
    for (int round = 0; round < 6000; round++) {
      Scene scene = new Scene(chance, round % 12);
      if (!scene.shown()) {
        continue;
      }
      double alike = Math.toRadians(chance.nextGaussian());
      Sighting one = scene.sighting(0, alike, Math.toRadians(0.2 * chance.nextGaussian()));
      Sighting two = scene.sighting(1, alike, Math.toRadians(0.2 * chance.nextGaussian()));
      try {
        Stills.Placed at = scene.stills.place(scene.lens, one, two, 0);
        double off = Math.abs(scene.road.apart(scene.station, at.station()));
        all++;
        within += off < 2 * at.along() ? 1 : 0;
        close += off < at.along() ? 1 : 0;
      } catch (Refusal r) {
        // Told apart by too little; it says so.
        assertThat(Refused.remedy(r)).contains("further across");
      }
    }
    assertThat(all).isGreaterThan(500);
    assertThat(within / (double) all).isGreaterThan(0.92);
    assertThat(close / (double) all).isBetween(0.55, 0.85);
  }

  @Test
  void aLensIsToldByTwoThingsThatAreKnown() {
    Random chance = new Random(5);
    for (int round = 0; round < 300; round++) {
      Projection kind = round % 2 == 0 ? Projection.STRAIGHT : Projection.WIDE;
      double half = Math.toRadians(20 + 45 * chance.nextDouble());
      double turned = Math.toRadians(6 * chance.nextGaussian());
      Lens lens = new Lens(kind, half, Math.max(-0.3, Math.min(0.3, turned)));
      double[] across = {-0.9 + 0.7 * chance.nextDouble(), 0.2 + 0.7 * chance.nextDouble()};
      double[] bearing = {lens.bearing(across[0]), lens.bearing(across[1])};
      Lens told = Lens.told(kind, across, bearing);
      assertThat(told.halfAngle()).isCloseTo(lens.halfAngle(), within(1e-6));
      assertThat(told.turned()).isCloseTo(lens.turned(), within(1e-6));
      assertThat(told.across(bearing[0])).isCloseTo(across[0], within(1e-6));
    }
  }

  @Test
  void whatTellsNothingIsRefused() {
    double from = straight();
    Stills stills = new Stills(STRAIGHT, s -> 0, true);
    // The same bearing twice, and rays that part.
    assertThatThrownBy(
            () -> stills.place(EVEN, new Sighting(from, 0.2), new Sighting(from + 30, 0.2), 0))
        .isInstanceOf(Refusal.class);
    assertThatThrownBy(
            () -> stills.place(EVEN, new Sighting(from, 0.3), new Sighting(from + 30, 0.1), 0))
        .isInstanceOf(Refusal.class);
    assertThatThrownBy(
            () -> Lens.told(Projection.WIDE, new double[] {0.1, 0.2}, new double[] {0.1, 0.2}))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("too near together"));
    assertThatThrownBy(
            () ->
                Lens.told(Projection.STRAIGHT, new double[] {-0.5, 0.5}, new double[] {0.4, -0.4}))
        .isInstanceOf(Refusal.class);
    assertThatThrownBy(() -> new Lens(Projection.STRAIGHT, Math.toRadians(89), 0))
        .isInstanceOf(Refusal.class);
  }

  /** A path that nobody recorded is doubted across the road. */
  @Test
  void aPathNotRecordedIsDoubtedMore() {
    double from = straight();
    Sighting one = new Sighting(from, 0.1);
    Sighting two = new Sighting(from + 30, 0.2);
    double sure = new Stills(STRAIGHT, s -> 0, true).place(EVEN, one, two, 0).beside();
    assertThat(new Stills(STRAIGHT, s -> 0, false).place(EVEN, one, two, 0).beside())
        .isGreaterThan(sure + 0.5);
  }

  /** A road, a line, a lens, and a thing beside the road ahead, all by chance. */
  private static final class Scene {
    final Centreline road;
    final Lens lens;
    final Stills stills;
    final double station;
    final double offset;
    final double[] from;

    Scene(Random chance, int seed) {
      road = ROADS.get(seed % ROADS.size());
      lens =
          new Lens(
              seed % 3 == 0 ? Projection.WIDE : Projection.STRAIGHT,
              Math.toRadians(35 + 20 * chance.nextDouble()),
              Math.toRadians(2 * chance.nextGaussian()));
      double phase = chance.nextDouble() * 6;
      stills =
          new Stills(road, s -> 2 * Math.sin(2 * Math.PI * 5 * s / road.length() + phase), true);
      double start = chance.nextDouble() * road.length();
      from = new double[] {start, road.wrap(start + 25 + 15 * chance.nextDouble())};
      station = road.wrap(from[1] + 12 + 30 * chance.nextDouble());
      double edge = road.left()[road.index(station)];
      offset = (chance.nextBoolean() ? 1 : -1) * (edge + 1 + 6 * chance.nextDouble());
    }

    double out() {
      int i = road.index(station);
      return offset > 0 ? offset - road.left()[i] : -offset - road.right()[i];
    }

    double bearing(int still) {
      return stills.bearing(from[still], station, offset);
    }

    /** Whether both stills show it, further aside in the second. */
    boolean shown() {
      double one = bearing(0);
      double two = bearing(1);
      int i = road.index(station);
      // Where another piece of road is nearer to the thing it is said to stand there.
      double[] at = RoadPosition.toPlane(road, station, offset);
      RoadPosition near = RoadPosition.near(road, at[0], at[1], road.wrap(from[1] + 197), 200);
      boolean apart =
          Math.abs(offset * road.curvature()[i]) < 0.2
              && Math.abs(road.apart(station, near.station())) < 0.5;
      return apart
          && Math.abs(lens.across(one)) < 1
          && Math.abs(lens.across(two)) < 1
          && Math.abs(lens.across(two) - lens.across(one)) > 0.12;
    }

    Sighting sighting(int still, double alike, double own) {
      return new Sighting(from[still], lens.across(bearing(still) + alike + own));
    }
  }
}
