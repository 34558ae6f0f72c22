package marvek.core.debrief;

import java.util.List;
import marvek.core.circuit.Loop;
import marvek.core.plan.ComputedLap;

/**
 * What a driver may be expected to do in each corner: the planned time, and on top of it so much
 * for each second that the planned lap is not at full throttle. On a straight there is nothing to
 * be slower with, so a corner before a long one is not given more than another.
 */
public final class Pace {
  private static final double FULL = 0.97;
  // Corners that ask less than this, in seconds, tell nothing of the driver.
  private static final double ASKS = 0.3;

  private final double[] planned;
  private final double[] asks;
  private final double rate;

  private Pace(double[] planned, double[] asks, double rate) {
    this.planned = planned;
    this.asks = asks;
    this.rate = rate;
  }

  /**
   * The pace of the driver's best sections, median of the corners.
   *
   * @param laps at least one
   */
  static Pace of(ComputedLap computed, Sections sections, List<LapData> laps) {
    LapData plan = LapData.of(computed, 5);
    int n = computed.corners().size();
    double[] planned = new double[n];
    double[] asks = new double[n];
    double[] rates = new double[n];
    int told = 0;
    for (int c = 0; c < n; c++) {
      planned[c] = sections.time(plan, c);
      asks[c] = asks(computed, sections.begin(c), sections.begin((c + 1) % n));
      if (asks[c] > ASKS) {
        int corner = c;
        double best = laps.stream().mapToDouble(l -> sections.time(l, corner)).min().orElseThrow();
        rates[told++] = (best - planned[c]) / asks[c];
      }
    }
    double rate = told == 0 ? 0 : Robust.median(java.util.Arrays.copyOf(rates, told));
    return new Pace(planned, asks, rate);
  }

  /** Seconds from one station to another in which the planned lap is not at full throttle. */
  public static double asks(ComputedLap computed, double from, double to) {
    int n = computed.road().size();
    Loop loop = computed.road().loop();
    int first = computed.road().index(from);
    int count = loop.ahead(first, computed.road().index(to));
    double sum = 0;
    for (int k = 0; k < (count == 0 ? n : count); k++) {
      int i = (first + k) % n;
      sum +=
          computed.lap().throttle()[i] < FULL
              ? computed.path().step()[i] / computed.lap().speed()[i]
              : 0;
    }
    return sum;
  }

  /** Seconds that a corner's section may be expected to take. */
  double expected(int c) {
    return planned[c] + rate * asks[c];
  }

  /** The lap so expected against the planned one; 1.02 is 2 % slower. */
  double share() {
    double sum = 0;
    double all = 0;
    for (int c = 0; c < planned.length; c++) {
      sum += expected(c);
      all += planned[c];
    }
    return sum / all;
  }
}
