package marvek.core.numeric;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class AimTest {
  /** The newsvendor's ratio (Arrow, Harris and Marschak 1951, from memory). */
  @Test
  void betweenStraightFlanksItIsTheNewsvendorsRatio() {
    assertThat(Aim.straight(0.003, 0.03, 4)).isCloseTo(-5.3, within(0.06));
    assertThat(Aim.straight(0.01, 0.01, 4)).isCloseTo(0, within(1e-9));
  }

  @Test
  void quadratureFindsTheSame() {
    Random random = new Random(2);
    for (int k = 0; k < 60; k++) {
      double early = 0.001 + 0.03 * random.nextDouble();
      double late = 0.001 + 0.03 * random.nextDouble();
      double sigma = 1 + 5 * random.nextDouble();
      Aim.Cost cost = m -> m < 0 ? -early * m : late * m;
      double wanted = Aim.straight(early, late, sigma);
      assertThat(Aim.best(cost, sigma, -20, 20)).isCloseTo(wanted, within(0.3));
      // Nobody who aims elsewhere, and misses as often, loses less.
      double here = simulated(cost, wanted, sigma);
      assertThat(Aim.mean(cost, wanted, sigma)).isCloseTo(here, within(0.02 * here + 1e-4));
      assertThat(simulated(cost, wanted + sigma, sigma)).isGreaterThan(here);
      assertThat(simulated(cost, wanted - sigma, sigma)).isGreaterThan(here);
    }
  }

  private static double simulated(Aim.Cost cost, double aim, double sigma) {
    Random random = new Random(9);
    double sum = 0;
    for (int k = 0; k < 40_000; k++) {
      sum += cost.at(aim + sigma * random.nextGaussian());
    }
    return sum / 40_000;
  }

  @Test
  void oneInTwoHundredPassesTheRoomKept() {
    Random random = new Random(4);
    double room = Aim.before(3, 1 / 200.0);
    int passed = 0;
    for (int k = 0; k < 200_000; k++) {
      passed += 3 * random.nextGaussian() > room ? 1 : 0;
    }
    assertThat(passed / 200_000.0).isCloseTo(0.005, within(0.0007));
  }
}
