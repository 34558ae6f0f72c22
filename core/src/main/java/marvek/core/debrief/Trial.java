package marvek.core.debrief;

import java.util.Random;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.hipparchus.distribution.continuous.TDistribution;
import org.hipparchus.stat.StatUtils;

/**
 * Two ways of doing one corner, compared by the time they took.
 *
 * @param lapsA laps of the first way
 * @param lapsB laps of the second way
 * @param difference mean of B less mean of A, s; negative when B is quicker
 * @param low lower end of its 90 % interval
 * @param high upper end
 * @param chance share of all ways of dealing the laps out that differ at least as much
 * @param verdict what that means
 */
public record Trial(
    int lapsA, int lapsB, double difference, double low, double high, double chance, Said verdict) {
  private static final int ALL = 20_000;
  private static final int DEALS = 10_000;

  /**
   * Compares two sets of times. Interval: B. L. Welch, "The generalization of Student's problem
   * when several different population variances are involved", Biometrika 34 (1947). Chance: the
   * permutation test, of all deals where there are few and of 10,000 where there are many.
   *
   * @param a seconds of the first way, at least two
   * @param b seconds of the second way, at least two
   * @param chance for deals at random
   */
  public static Trial of(double[] a, double[] b, Random chance) {
    if (a.length < 2 || b.length < 2) {
      return new Trial(
          a.length,
          b.length,
          0,
          Double.NEGATIVE_INFINITY,
          Double.POSITIVE_INFINITY,
          1,
          Said.of("trial.few"));
    }
    double difference = StatUtils.mean(b) - StatUtils.mean(a);
    double va = StatUtils.variance(a) / a.length;
    double vb = StatUtils.variance(b) / b.length;
    double half = 0;
    if (va + vb > 0) {
      double df = (va + vb) * (va + vb) / (va * va / (a.length - 1) + vb * vb / (b.length - 1));
      half = new TDistribution(df).inverseCumulativeProbability(0.95) * Math.sqrt(va + vb);
    }
    double p = permutation(a, b, Math.abs(difference), chance);
    return new Trial(
        a.length,
        b.length,
        difference,
        difference - half,
        difference + half,
        p,
        verdict(difference, half, p));
  }

  private static Said verdict(double difference, double half, double p) {
    double size = Math.abs(difference);
    Value quicker = Value.choice(difference < 0);
    Value[] by = {
      quicker, Value.figure(size, 2), Value.figure(size - half, 2), Value.figure(size + half, 2)
    };
    if (p < 0.05 && half < size) {
      return Said.of("trial.quicker", by);
    }
    if (half < 0.05) {
      return Said.of("trial.same", Value.figure(size + half, 2));
    }
    return p < 0.15 ? Said.of("trial.probably", by) : Said.of("trial.open");
  }

  private static double permutation(double[] a, double[] b, double seen, Random chance) {
    int n = a.length + b.length;
    double[] all = new double[n];
    System.arraycopy(a, 0, all, 0, a.length);
    System.arraycopy(b, 0, all, a.length, b.length);
    double sum = StatUtils.sum(all);
    double deals = binomial(n, a.length);
    long extreme = 0;
    if (deals <= ALL) {
      int[] chosen = new int[a.length];
      for (int i = 0; i < chosen.length; i++) {
        chosen[i] = i;
      }
      long count = 0;
      do {
        count++;
        extreme += atLeast(all, chosen, sum, a.length, b.length, seen) ? 1 : 0;
      } while (next(chosen, n));
      return (double) extreme / count;
    }
    for (int d = 0; d < DEALS; d++) {
      for (int i = 0; i < a.length; i++) {
        int j = i + chance.nextInt(n - i);
        double t = all[i];
        all[i] = all[j];
        all[j] = t;
      }
      double first = 0;
      for (int i = 0; i < a.length; i++) {
        first += all[i];
      }
      double d2 = Math.abs((sum - first) / b.length - first / a.length);
      extreme += d2 >= seen - 1e-12 ? 1 : 0;
    }
    return (extreme + 1.0) / (DEALS + 1);
  }

  private static boolean atLeast(
      double[] all, int[] chosen, double sum, int na, int nb, double seen) {
    double first = 0;
    for (int i : chosen) {
      first += all[i];
    }
    return Math.abs((sum - first) / nb - first / na) >= seen - 1e-12;
  }

  private static boolean next(int[] chosen, int n) {
    int k = chosen.length;
    int i = k - 1;
    while (i >= 0 && chosen[i] == n - k + i) {
      i--;
    }
    if (i < 0) {
      return false;
    }
    chosen[i]++;
    for (int j = i + 1; j < k; j++) {
      chosen[j] = chosen[j - 1] + 1;
    }
    return true;
  }

  private static double binomial(int n, int k) {
    double out = 1;
    for (int i = 1; i <= k; i++) {
      out = out * (n - k + i) / i;
    }
    return out;
  }
}
