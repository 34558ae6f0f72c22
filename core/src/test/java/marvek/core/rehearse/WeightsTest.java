package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** A driver's own weights, against planted drivers who forget otherwise than others. */
class WeightsTest {
  /** Forgets twice to five times as fast as the usual weights say. */
  private static final Weights FORGETS = changed(new int[] {0, 1, 2, 3}, 0.25, 8, 0.8);

  /** Forgets nearly everything in a day. */
  private static final Weights FORGETFUL = changed(new int[] {0, 1, 2, 3}, 0.03, 8, 0.2);

  /** Forgets half as fast. */
  private static final Weights KEEPS = changed(new int[] {0, 1, 2, 3}, 4, 8, 2.6);

  private static Weights changed(int[] first, double by, int growth, double grows) {
    List<Double> out = new ArrayList<>(Weights.USUAL.values());
    for (int i : first) {
      out.set(i, out.get(i) * by);
    }
    out.set(growth, grows);
    return new Weights(out);
  }

  /** Answers of a driver whose memory is of these weights, at sessions some days apart. */
  private static List<List<OwnWeights.Answer>> answers(
      Weights truth, int facts, int each, long seed) {
    SplittableRandom chance = new SplittableRandom(seed);
    List<List<OwnWeights.Answer>> rows = new ArrayList<>();
    for (int f = 0; f < facts; f++) {
      List<OwnWeights.Answer> row = new ArrayList<>();
      double at = chance.nextDouble() * 5;
      Memory memory = null;
      for (int k = 0; k < each; k++) {
        double days = 1 + chance.nextInt(12);
        boolean knows =
            memory == null ? chance.nextDouble() < 0.5 : chance.nextDouble() < memory.recall(days);
        double how = chance.nextDouble();
        Grade grade =
            knows ? how < 0.2 ? Grade.HARD : how < 0.8 ? Grade.GOOD : Grade.EASY : Grade.AGAIN;
        at += memory == null ? 0 : days;
        memory = memory == null ? Memory.first(grade, truth) : memory.next(grade, days);
        row.add(new OwnWeights.Answer(grade, at));
      }
      rows.add(row);
    }
    return rows;
  }

  private static double loss(List<List<OwnWeights.Answer>> rows, Weights by) {
    return OwnWeights.losses(rows, by, 0).stream().mapToDouble(l -> l).average().orElseThrow();
  }

  @Test
  void whoForgetsOtherwiseIsForeseenBetterByOwnWeightsThanByTheUsual() {
    for (Weights truth : List.of(FORGETS, KEEPS)) {
      double won = 0;
      for (long seed = 1; seed <= 3; seed++) {
        Weights own = OwnWeights.of(answers(truth, 100, 8, seed));
        List<List<OwnWeights.Answer>> later = answers(truth, 200, 8, 1000 + seed);
        double usual = loss(later, Weights.USUAL);
        won += (usual - loss(later, own)) / (usual - loss(later, truth)) / 3;
      }
      // Of what there is to win on answers that were never seen.
      assertThat(won).isGreaterThan(0.6);
    }
  }

  @Test
  void whoForgetsAsOthersDoIsForeseenNoWorse() {
    for (long seed = 1; seed <= 4; seed++) {
      Weights own = OwnWeights.of(answers(Weights.USUAL, 60, 8, 30 + seed));
      List<List<OwnWeights.Answer>> later = answers(Weights.USUAL, 200, 8, 2000 + seed);
      assertThat(loss(later, own)).isLessThan(loss(later, Weights.USUAL) + 0.01);
    }
  }

  @Test
  void fewerThanThreeHundredAnswersTellNoWeights() {
    List<List<OwnWeights.Answer>> rows = answers(FORGETFUL, 50, 6, 5);
    rows.get(0).remove(5);
    assertThat(rows.stream().mapToInt(List::size).sum()).isEqualTo(299);
    assertThat(OwnWeights.of(rows)).isSameAs(Weights.USUAL);
    rows.get(0).add(new OwnWeights.Answer(Grade.GOOD, 90));
    assertThat(OwnWeights.of(rows)).isNotEqualTo(Weights.USUAL);
  }

  /** Answers of one sitting tell nothing of how long something is kept. */
  @Test
  void answersOfOneDayTellNoWeights() {
    List<List<OwnWeights.Answer>> rows = new ArrayList<>();
    for (int f = 0; f < 60; f++) {
      List<OwnWeights.Answer> row = new ArrayList<>();
      for (int k = 0; k < 6; k++) {
        row.add(new OwnWeights.Answer(f % 2 == 0 ? Grade.GOOD : Grade.AGAIN, 0.01 * k));
      }
      rows.add(row);
    }
    assertThat(OwnWeights.of(rows)).isSameAs(Weights.USUAL);
  }

  @Test
  void theSameAnswersTellTheSameWeights() {
    assertThat(OwnWeights.of(answers(FORGETS, 60, 6, 8)))
        .isEqualTo(OwnWeights.of(answers(FORGETS, 60, 6, 8)));
    assertThatThrownBy(() -> new Weights(List.of(1.0)))
        .isInstanceOf(IllegalArgumentException.class);
  }

  private static Known.Given given(@Nullable Double told, double right, int hours) {
    return new Known.Given(
        Instant.EPOCH.plus(Duration.ofHours(hours)),
        new Rehearsed(
            "c1/brake/PLACE", told, right, 6, 0, 0, false, null, null, List.of(), List.of(), null));
  }

  /** A fact that was moved begins anew; what was told across the line is left out. */
  @Test
  void answersAreARowAFactUntilItIsAnother() {
    List<List<OwnWeights.Answer>> rows =
        Known.rows(
            List.of(
                given(501.0, 500, 0),
                given(null, 502, 24),
                given(4990.0, 502, 30),
                given(530.0, 520, 48)));
    assertThat(rows)
        .containsExactly(
            List.of(new OwnWeights.Answer(Grade.EASY, 0), new OwnWeights.Answer(Grade.AGAIN, 1)),
            List.of(new OwnWeights.Answer(Grade.HARD, 2)));
  }
}
