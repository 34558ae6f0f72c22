package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.stream.IntStream;
import org.hipparchus.stat.StatUtils;
import org.hipparchus.stat.regression.SimpleRegression;
import org.junit.jupiter.api.Test;

class StatisticsTest {
  /** NIST StRD, NumAcc1: mean 10000002 and standard deviation 1, exact (from memory). */
  @Test
  void meanAndSpreadOfNearlyEqualNumbers() {
    double[] y = {10000001, 10000003, 10000002};
    assertThat(StatUtils.mean(y)).isEqualTo(10000002);
    assertThat(Math.sqrt(StatUtils.variance(y))).isEqualTo(1);
    assertThat(Robust.median(y)).isEqualTo(10000002);
  }

  /**
   * NIST StRD, Norris: certified slope 1.00211681802045 and intercept −0.262323073774029 of 36
   * points (data and values from memory). The robust slope is another estimate of the same line.
   */
  @Test
  void slopeOfTheNorrisData() {
    double[] y = {
      0.1, 338.8, 118.1, 888.0, 9.2, 228.1, 668.5, 998.5, 449.1, 778.9, 559.2, 0.3, 0.1, 778.1,
      668.8, 339.3, 448.9, 10.8, 557.7, 228.3, 998.0, 888.8, 119.6, 0.3, 0.6, 557.6, 339.3, 888.0,
      998.5, 778.9, 10.2, 117.6, 228.9, 668.4, 449.2, 0.2
    };
    double[] x = {
      0.2, 337.4, 118.2, 884.6, 10.1, 226.5, 666.3, 996.3, 448.6, 777.0, 558.2, 0.4, 0.6, 775.5,
      666.9, 338.0, 447.5, 11.6, 556.0, 228.1, 995.8, 887.6, 120.2, 0.3, 0.3, 556.8, 339.1, 887.2,
      999.0, 779.0, 11.1, 118.3, 229.2, 669.1, 448.9, 0.5
    };
    SimpleRegression least = new SimpleRegression();
    for (int i = 0; i < x.length; i++) {
      least.addData(x[i], y[i]);
    }
    assertThat(least.getSlope()).isCloseTo(1.00211681802045, within(1e-12));
    assertThat(least.getIntercept()).isCloseTo(-0.262323073774029, within(1e-11));
    Robust.Slope robust = Robust.slope(x, y, 0.95);
    assertThat(robust.low()).isLessThan(1.00211681802045);
    assertThat(robust.high()).isGreaterThan(1.00211681802045);
    assertThat(robust.value()).isCloseTo(1.00211681802045, within(0.003));
  }

  /** One wild lap pulls least squares away, not the slope by ranks. */
  @Test
  void oneWildLapDoesNotTurnTheSlope() {
    double[] x = IntStream.range(0, 12).mapToDouble(i -> i).toArray();
    double[] y = IntStream.range(0, 12).mapToDouble(i -> 90 - 0.02 * i).toArray();
    y[11] = 97;
    Robust.Slope slope = Robust.slope(x, y, 0.9);
    assertThat(slope.value()).isCloseTo(-0.02, within(0.003));
    assertThat(slope.tells()).isTrue();
  }

  @Test
  void whatDiffersBetweenRunsHasNoSay() {
    // Within each run later is quicker; the second run is later and slower as a whole.
    double[] x = {0, 1, 2, 3, 4, 10, 11, 12, 13, 14};
    double[] y = {5, 4.9, 4.8, 4.7, 4.6, 8, 7.9, 7.8, 7.7, 7.6};
    int[] run = {0, 0, 0, 0, 0, 1, 1, 1, 1, 1};
    assertThat(Robust.slope(x, y, 0.9).value()).isGreaterThan(0);
    assertThat(Robust.slope(x, y, run, 0.9).value()).isCloseTo(-0.1, within(1e-9));
  }

  @Test
  void noSlopeIsToldFromNoise() {
    Random chance = new Random(3);
    int told = 0;
    for (int k = 0; k < 400; k++) {
      double[] x = chance.doubles(10).toArray();
      double[] y = chance.doubles(10).toArray();
      told += Robust.slope(x, y, 0.9).tells() ? 1 : 0;
    }
    // One in ten by the confidence asked for.
    assertThat(told / 400.0).isBetween(0.05, 0.15);
  }

  /** Of ten coins nine or more fall alike 11 times in 1024, all of them once. */
  @Test
  void beyondChanceIsWhatChanceDoesOnceInAHundred() {
    assertThat(Robust.beyondChance(0.5, 10)).isEqualTo(10);
    // Seven in 128 for six and more of seven, one in 128 for all; six coins cannot tell it.
    assertThat(Robust.beyondChance(0.5, 7)).isEqualTo(7);
    assertThat(Robust.beyondChance(0.5, 6)).isEqualTo(7);
    assertThat(Robust.beyondChance(0.15, 6)).isEqualTo(4);
    assertThat(Robust.beyondChance(0.15, 20)).isEqualTo(8);
    assertThat(Robust.beyondChance(0.03, 4)).isEqualTo(2);
  }
}
