package marvek.core.debrief;

import java.util.List;
import marvek.core.reference.Desk;

/**
 * What a driver may be expected to do in each corner: the computed time, and on top of it so much
 * for each second that the computed lap is not at full throttle. On a straight there is nothing to
 * be slower with, so a corner before a long one is not given more than another.
 */
final class Pace {
  private static final double FULL = 0.97;
  // Corners that ask less than this, in seconds, tell nothing of the driver.
  private static final double ASKS = 0.3;

  private final double[] computed;
  private final double[] asks;
  private final double rate;

  private Pace(double[] computed, double[] asks, double rate) {
    this.computed = computed;
    this.asks = asks;
    this.rate = rate;
  }

  /**
   * The pace of the driver's best sections, median of the corners.
   *
   * @param laps at least one
   */
  static Pace of(Desk desk, Sections sections, List<LapData> laps) {
    LapData plan = Debriefer.computed(desk, 5);
    int n = desk.corners().size();
    double[] computed = new double[n];
    double[] asks = new double[n];
    double[] rates = new double[n];
    int told = 0;
    for (int c = 0; c < n; c++) {
      computed[c] = sections.time(plan, c);
      asks[c] = asks(desk, sections.begin(c), sections.begin((c + 1) % n));
      if (asks[c] > ASKS) {
        int corner = c;
        double best = laps.stream().mapToDouble(l -> sections.time(l, corner)).min().orElseThrow();
        rates[told++] = (best - computed[c]) / asks[c];
      }
    }
    double rate = told == 0 ? 0 : Robust.median(java.util.Arrays.copyOf(rates, told));
    return new Pace(computed, asks, rate);
  }

  /** Seconds from one station to another in which the computed lap is not at full throttle. */
  private static double asks(Desk desk, double from, double to) {
    int n = desk.road().size();
    int first = desk.road().index(from);
    int count = Math.floorMod(desk.road().index(to) - first, n);
    double sum = 0;
    for (int k = 0; k < (count == 0 ? n : count); k++) {
      int i = (first + k) % n;
      sum += desk.lap().throttle()[i] < FULL ? desk.path().step()[i] / desk.lap().speed()[i] : 0;
    }
    return sum;
  }

  /** Seconds that a corner's section may be expected to take. */
  double expected(int c) {
    return computed[c] + rate * asks[c];
  }

  /** The lap so expected against the computed one; 1.02 is 2 % slower. */
  double share() {
    double sum = 0;
    double all = 0;
    for (int c = 0; c < computed.length; c++) {
      sum += expected(c);
      all += computed[c];
    }
    return sum / all;
  }
}
