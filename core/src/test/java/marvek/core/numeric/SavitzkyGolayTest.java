package marvek.core.numeric;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class SavitzkyGolayTest {
  /** Savitzky and Golay (1964), tables I and III: five points, second degree. */
  @Test
  void weightsAreThoseOfTheTables() {
    SavitzkyGolay five = new SavitzkyGolay(2);
    double[] smooth = {-3, 12, 17, 12, -3};
    double[] slope = {-2, -1, 0, 1, 2};
    for (int i = 0; i < 5; i++) {
      assertThat(five.weights()[i]).isCloseTo(smooth[i] / 35, within(1e-12));
      assertThat(five.slopeWeights()[i]).isCloseTo(slope[i] / 10, within(1e-12));
    }
  }

  @Test
  void aParabolaPassesUnchangedToItsEnds() {
    double[] y = IntStream.range(0, 40).mapToDouble(i -> 3 + 0.5 * i - 0.02 * i * i).toArray();
    double[] smooth = new SavitzkyGolay(6).smooth(y);
    double[] slope = new SavitzkyGolay(6).slope(y);
    for (int i = 0; i < y.length; i++) {
      assertThat(smooth[i]).isCloseTo(y[i], within(1e-9));
      assertThat(slope[i]).isCloseTo(0.5 - 0.04 * i, within(1e-9));
    }
  }

  @Test
  void fewSamplesAreFittedAsFarAsTheyGo() {
    assertThat(new SavitzkyGolay(9).smooth(new double[] {1, 2, 3, 4})[3])
        .isCloseTo(4, within(1e-9));
    assertThat(new SavitzkyGolay(9).slope(new double[] {1, 2, 3, 4})[3]).isCloseTo(1, within(1e-9));
    assertThat(new SavitzkyGolay(9).slope(new double[] {7})).containsExactly(0);
  }
}
