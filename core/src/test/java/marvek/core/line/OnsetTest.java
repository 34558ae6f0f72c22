package marvek.core.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Where a turn begins. */
class OnsetTest {
  private static double of(IntToDoubleFunction bend) {
    return Onset.of(bend, k -> k, 20, 110, 120, 0, CornerLine.REST);
  }

  /** An even way into the bend over 60 m passes three tenths after 18. */
  @Test
  void isAtThreeTenthsOfAnEvenWayIn() {
    assertThat(of(k -> Math.max(0, Math.min(1, (k - 30) / 60.0)))).isCloseTo(48, within(1e-9));
  }

  /** Hands that rest for some metres have not left the turn; what comes long before is another. */
  @Test
  void handsThatRestForAMomentHaveNotLeftTheTurn() {
    IntToDoubleFunction rests = k -> k < 40 ? 0 : k < 50 ? 0.5 : k < 65 ? 0.1 : 1;
    assertThat(of(rests)).isBetween(39.0, 40.0);
    IntToDoubleFunction before = k -> k < 20 ? 0 : k < 30 ? 0.5 : k < 65 ? 0.1 : 1;
    assertThat(of(before)).isBetween(64.0, 65.0);
  }

  /** A bend that rests for 16 m at a share of its most: a hundredth more moves it a little only. */
  @ParameterizedTest
  @ValueSource(doubles = {0.2, 0.25, 0.28, 0.3, 0.32, 0.35, 0.4})
  void restingAtAnyShareMovesItNoMoreThanTheBend(double share) {
    Random ripple = new Random(8);
    double[] by = ripple.doubles(121, -0.004, 0.004).toArray();
    IntToDoubleFunction less = k -> stepped(k, share - 0.005) + by[k];
    IntToDoubleFunction more = k -> stepped(k, share + 0.005) + by[120 - k];
    assertThat(Math.abs(of(less) - of(more))).isLessThan(4.5);
  }

  private static double stepped(int k, double share) {
    return k < 40
        ? share * Math.max(0, k - 25) / 15
        : k < 56 ? share : Math.min(1, share + (k - 56) / 30.0);
  }

  /** What tightens after its apex is turned into before it, by what it bends up to there. */
  @Test
  void aTurnThatTightensAfterItsApexBeginsBefore() {
    IntToDoubleFunction tightens = k -> k < 40 ? 0 : k < 90 ? 0.4 : 1;
    assertThat(Onset.of(tightens, k -> k, 20, 70, 120, 0, CornerLine.REST)).isBetween(39.0, 40.0);
    assertThat(Onset.of(k -> k < 90 ? 0.1 : 1, k -> k, 20, 110, 120, 0, CornerLine.REST))
        .isBetween(89.0, 90.0);
  }
}
