package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;
import marvek.core.circuit.Centreline;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/** What gearbox, engine and wheels did in one corner. */
final class Drivetrain {
  private static final double TOUCH = 0.05;
  // Speed of a wheel's rim as a share of the vehicle's.
  private static final double LOCKED = 0.75;
  private static final double SPINNING = 1.15;

  private final Trace t;
  private final Centreline road;
  private final double[] s;
  private final double[] v;
  private final double[] throttle;
  private final int first;
  private final int last;
  private final double limitRevs;
  private final int gears;

  Drivetrain(CornerStretch on, Vehicle vehicle) {
    this.t = on.t;
    this.road = on.road;
    this.s = on.s;
    this.v = on.v;
    this.throttle = on.throttle;
    this.first = on.first;
    this.last = on.last;
    this.limitRevs = vehicle.engine().limitRevs();
    this.gears = vehicle.gears();
  }

  @Nullable Integer gear(int i) {
    return t.has(Channel.GEAR) && i >= 0 ? (int) Math.round(t.of(Channel.GEAR)[i]) : null;
  }

  List<Double> downshifts(int a, int b) {
    List<Double> out = new ArrayList<>();
    if (!t.has(Channel.GEAR)) {
      return out;
    }
    double[] g = t.of(Channel.GEAR);
    for (int i = Math.max(1, a); i <= b; i++) {
      if (g[i] >= 0.5 && g[i] < g[i - 1] - 0.5) {
        out.add(road.wrap(s[i]));
      }
    }
    return out;
  }

  double limiter(int slow) {
    if (!t.recorded(Channel.REVS)) {
      return 0;
    }
    double[] revs = t.of(Channel.REVS);
    double limit = 0.99 * limitRevs;
    int n = 0;
    for (int i = slow; i < last; i++) {
      Integer gear = gear(i);
      // Out of the highest gear there is nothing to shift to.
      boolean highest = gear != null && gear >= gears;
      n += revs[i] >= limit && throttle[i] > 0.8 && !highest ? 1 : 0;
    }
    return n / t.rate();
  }

  int locks(int a, int b) {
    int count = 0;
    for (Channel c : List.of(Channel.WHEEL_FRONT, Channel.WHEEL_REAR)) {
      if (!t.recorded(c)) {
        continue;
      }
      double[] w = t.of(c);
      count += runs(a, b, i -> w[i] < LOCKED * v[i]);
    }
    return count;
  }

  int spins(int a, int b) {
    if (!t.recorded(Channel.WHEEL_REAR)) {
      return 0;
    }
    double[] w = t.of(Channel.WHEEL_REAR);
    return runs(a, b, i -> throttle[i] > TOUCH && w[i] > SPINNING * v[i]);
  }

  /** How often something held for long enough not to be noise, while the vehicle moves. */
  private int runs(int a, int b, IntPredicate holds) {
    int enough = (int) Math.ceil(0.08 * t.rate());
    int count = 0;
    int run = 0;
    for (int i = a; i <= b; i++) {
      run = v[i] > 8 && holds.test(i) ? run + 1 : 0;
      count += run == enough ? 1 : 0;
    }
    return count;
  }

  @Nullable Double strike(double entry, double exit) {
    if (!t.recorded(Channel.VERTICAL)) {
      return null;
    }
    double[] z = t.of(Channel.VERTICAL);
    int a = Math.max(first, t.at(entry - 20));
    int b = Math.min(last, t.at(exit + 40));
    double mean = 0;
    for (int i = a; i < b; i++) {
      mean += z[i] / Math.max(1, b - a);
    }
    double most = 0;
    for (int i = a; i < b; i++) {
      most = Math.max(most, Math.abs(z[i] - mean));
    }
    return most;
  }
}
