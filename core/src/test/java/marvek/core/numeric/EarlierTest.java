package marvek.core.numeric;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class EarlierTest {
  @Test
  void isWhatALotOfTriesGive() {
    Random random = new Random(11);
    for (int k = 0; k < 12; k++) {
      double one = 6 * random.nextGaussian();
      double other = 6 * random.nextGaussian();
      double its = 0.5 + 4 * random.nextDouble();
      double others = 0.5 + 4 * random.nextDouble();
      int tries = 400_000;
      double sum = 0;
      double squares = 0;
      for (int t = 0; t < tries; t++) {
        double first =
            Math.min(one + its * random.nextGaussian(), other + others * random.nextGaussian());
        sum += first;
        squares += first * first;
      }
      double mean = sum / tries;
      Earlier earlier = Earlier.of(one, its, other, others);
      assertThat(earlier.mean()).isCloseTo(mean, within(0.03));
      assertThat(earlier.sigma()).isCloseTo(Math.sqrt(squares / tries - mean * mean), within(0.03));
    }
  }

  @Test
  void ofTwoAlikeIsKnown() {
    // Mean −1/√π and variance 1 − 1/π of the lesser of two standard normal values (handbooks).
    Earlier earlier = Earlier.of(0, 1, 0, 1);
    assertThat(earlier.mean()).isCloseTo(-1 / Math.sqrt(Math.PI), within(1e-12));
    assertThat(earlier.sigma()).isCloseTo(Math.sqrt(1 - 1 / Math.PI), within(1e-12));
  }

  @Test
  void withoutDoubtIsTheEarlierOne() {
    assertThat(Earlier.of(3, 0, 1, 0)).isEqualTo(new Earlier(1, 0));
    Earlier far = Earlier.of(0, 1, 100, 1);
    assertThat(far.mean()).isCloseTo(0, within(1e-9));
    assertThat(far.sigma()).isCloseTo(1, within(1e-9));
  }
}
