package marvek.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import marvek.core.fixtures.Refused;
import marvek.core.fixtures.Tracks;
import marvek.core.refusal.Refusal;
import org.junit.jupiter.api.Test;

public class ReliefTest {
  /** A straight road to the east, 1200 m, with the heights given; not closed, but long enough. */
  public static Centreline hill(DoubleUnaryOperator height) {
    int n = 1200;
    double[] x = new double[n];
    double[] z = new double[n];
    double[] gradient = new double[n];
    double[] bend = new double[n];
    for (int i = 0; i < n; i++) {
      x[i] = i;
      z[i] = height.applyAsDouble(i);
      gradient[i] = Math.atan(height.applyAsDouble(i + 0.5) - height.applyAsDouble(i - 0.5));
      bend[i] =
          height.applyAsDouble(i + 1) - 2 * height.applyAsDouble(i) + height.applyAsDouble(i - 1);
    }
    double[] zero = new double[n];
    double[] five = new double[n];
    Arrays.fill(five, 5);
    return new Centreline(1, x, zero, zero, zero, z, gradient, bend, five, five, zero, true, true);
  }

  private static Centreline crest(double radius) {
    return hill(s -> -(s - 600) * (s - 600) / (2 * radius));
  }

  /**
   * AASHTO, Policy on Geometric Design, crest curves: S = √(100 K) (√2h₁ + √2h₂) with K metres of
   * curve per % of grade change, which is a radius of 100 K; eye 1.08 m, object 0.60 m (S² = 658
   * K). The design pairs S/K 85/11, 105/17, 130/26, 160/39, 185/52 are from memory.
   */
  @Test
  void sightOverACrestAgreesWithTheHighwayFormula() {
    double[][] pairs = {{85, 11}, {105, 17}, {130, 26}, {160, 39}, {185, 52}};
    for (double[] pair : pairs) {
      Centreline road = crest(100 * pair[1]);
      double formula = Math.sqrt(100 * pair[1]) * (Math.sqrt(2.16) + Math.sqrt(1.2));
      double sight = Sight.distance(road, 600 - formula / 3, 1.08, 0.60, 500);
      assertThat(sight).isCloseTo(formula, within(1.5));
      assertThat(sight).as("the tabled distance").isBetween(pair[0] - 2, pair[0] + 3);
    }
  }

  @Test
  void clearAndDistanceSayTheSame() {
    Centreline road = crest(900);
    for (double at : new double[] {480, 560, 610}) {
      double sight = Sight.distance(road, at, 1, 0.5, 400);
      assertThat(Sight.clear(road, at, 1, sight - 3, 0.5)).isTrue();
      assertThat(Sight.clear(road, at, 1, sight + 3, 0.5)).isFalse();
      assertThat(Sight.distance(road, at, 1, 2.5, 400)).as("a taller thing").isGreaterThan(sight);
    }
    assertThat(Sight.distance(hill(s -> 0), 300, 1, 0, 400)).isEqualTo(400);
  }

  @Test
  void crestsDipsAndClimbsAreFoundWithTheirMeasure() {
    Centreline road = hill(s -> s > 500 && s < 700 ? 8 - (s - 600) * (s - 600) / 1250 : 0);
    Relief relief = Relief.of(road, List.of(), 1);
    assertThat(relief.spans())
        .anySatisfy(
            s -> {
              assertThat(s.kind()).isEqualTo(Relief.Kind.CREST);
              assertThat(s.value()).isCloseTo(625, within(2.0));
              assertThat(s.from()).isCloseTo(502, within(3.0));
              assertThat(s.to()).isCloseTo(698, within(3.0));
            })
        .anySatisfy(
            s -> {
              assertThat(s.kind()).isEqualTo(Relief.Kind.CLIMB);
              // z' = −(s − 600)/625: 16 % at its foot.
              assertThat(s.value()).isCloseTo(0.16, within(0.005));
            })
        .anySatisfy(s -> assertThat(s.kind()).isEqualTo(Relief.Kind.DESCENT));
  }

  @Test
  void aCornerBehindACrestIsBlindAndOneOnTheFlatIsNot() {
    Corner behind =
        new Corner("a", "1", "", true, 660, List.of(680.0), 700, 50, 1, CornerKind.BEND, 0);
    Corner open =
        new Corner("b", "2", "", true, 400, List.of(420.0), 440, 50, 1, CornerKind.BEND, 0);
    Centreline road = hill(s -> s > 500 && s < 700 ? 8 - (s - 600) * (s - 600) / 1250 : 0);
    Relief relief = Relief.of(road, List.of(open, behind), 1);
    assertThat(relief.blind())
        .singleElement()
        .satisfies(
            b -> {
              assertThat(b.corner()).isEqualTo("a");
              assertThat(b.sight()).isLessThan(120);
            });
    Centreline flat = hill(s -> 0);
    assertThat(Relief.of(flat, List.of(open, behind), 1).blind()).isEmpty();
  }

  @Test
  void cornersAreSettledOnTheRoadOrRefusedByName() {
    CircuitReading reading =
        CircuitReader.read(
            OutlineFile.read(Tracks.square(300, 40, 4).csv()),
            new CircuitReader.Choices(false, 150, 12, false));
    Centreline road = reading.centreline();
    Corner first = reading.corners().get(0);
    double middle = first.apex();
    Corner a = part(first, "c1", "1A", first.entry(), middle - 1);
    Corner b = part(first, "c1b", "1B", middle, first.exit());
    List<Corner> settled =
        CornerBook.settled(road, List.of(a, b, reading.corners().get(1), reading.corners().get(2)));
    assertThat(settled).extracting(Corner::id).containsExactly("c1", "c1b", "c2", "c3");
    assertThat(settled.get(0).angle() + settled.get(1).angle())
        .as("the parts turn as far as the whole")
        .isCloseTo(first.angle(), within(0.08));
    assertThat(settled.get(0).apexes().get(0)).isBetween(a.entry(), a.exit());
    assertThat(settled.get(0).left()).isEqualTo(first.left());
    assertRefused(road, List.of(a, part(first, "c9", "1A", middle, first.exit())), "numbered 1A");
    assertRefused(road, List.of(a, part(first, "c1", "2", middle, first.exit())), "one id");
    assertRefused(road, List.of(part(first, "c1", "1", 50, 20)), "ends make no corner");
    assertRefused(road, List.of(), "No corner would be left");
  }

  private static Corner part(Corner c, String id, String number, double entry, double exit) {
    return new Corner(id, number, "", c.left(), entry, List.of(), exit, 1, 1, c.kind(), 0, false);
  }

  private static void assertRefused(Centreline road, List<Corner> corners, String words) {
    org.assertj.core.api.Assertions.assertThatThrownBy(() -> CornerBook.settled(road, corners))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains(words));
  }
}
