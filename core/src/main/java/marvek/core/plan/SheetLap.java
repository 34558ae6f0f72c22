package marvek.core.plan;

import java.util.function.DoubleUnaryOperator;
import marvek.core.lap.LapTrace;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * What a set-up makes of a lap on the line at hand, and how its gears meet the longest straight.
 *
 * @param lapTime with it, seconds
 * @param without as the vehicle stands in the garage, seconds
 * @param straight metres at full throttle before the hardest braking of the longest such stretch
 * @param from station where that stretch begins, m
 * @param topSpeed at its end, m/s
 * @param topRevs there, per minute
 * @param onLimiter seconds on it in the last gear, at the limit
 * @param belowPeak seconds on it in the last gear below the revs of most power, so that a shorter
 *     one would pull harder
 * @param finalDrive that gives the quickest lap, else like this
 * @param finalLap with that, seconds
 */
public record SheetLap(
    double lapTime,
    double without,
    double straight,
    double from,
    double topSpeed,
    double topRevs,
    double onLimiter,
    double belowPeak,
    double finalDrive,
    double finalLap) {
  private static final double FULL = 0.98;
  // Of the limit; a lap steps over the last revs.
  private static final double AT_LIMIT = 0.99;
  // Final drives looked at, against the one that is set.
  private static final double SHORTEST = 1.25;
  private static final double LONGEST = 0.8;
  private static final int COARSE = 9;
  private static final int FINE = 8;
  private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;

  /**
   * The lap of a vehicle set up in some way.
   *
   * @param base computed lap of a reference, for its line and day
   * @param garage the vehicle as it stands
   * @param with the vehicle set up; null for as it stands
   */
  public static SheetLap of(ComputedLap base, Vehicle garage, @Nullable Vehicle with) {
    Vehicle set = with == null ? garage : with;
    LapTrace lap = base.driven(set);
    int n = lap.size();
    int begin = 0;
    int count = 0;
    int run = 0;
    for (int k = 0; k < 2 * n && run < n; k++) {
      run = lap.throttle()[k % n] >= FULL ? run + 1 : 0;
      if (run > count) {
        count = run;
        begin = k - run + 1;
      }
    }
    int last = set.gears();
    double peak = peak(set);
    double metres = 0;
    double limited = 0;
    double below = 0;
    int end = begin;
    for (int k = begin; k < begin + count; k++) {
      int i = k % n;
      int q = (k + 1) % n;
      double ds = base.path().step()[i];
      double v = lap.speed()[i];
      double seconds = 2 * ds / (v + lap.speed()[q]);
      double revs = set.revs(v, last);
      boolean inLast = lap.gear()[i] == last;
      metres += ds;
      limited += inLast && revs >= AT_LIMIT * set.engine().limitRevs() ? seconds : 0;
      below += inLast && revs < peak ? seconds : 0;
      end = v >= lap.speed()[end % n] ? k : end;
    }
    double top = lap.speed()[end % n];
    double best = bestFinal(base, set);
    return new SheetLap(
        lap.lapTime(),
        base.driven(garage).lapTime(),
        metres,
        base.road().wrap(begin * base.road().step()),
        top,
        set.revs(top, lap.gear()[end % n]),
        limited,
        below,
        best,
        base.driven(set.withFinalDrive(best)).lapTime());
  }

  /** Revs of most power. */
  private static double peak(Vehicle v) {
    return v.engine().curve().stream()
        .mapToDouble(Vehicle.TorquePoint::revs)
        .boxed()
        .max(java.util.Comparator.comparingDouble(r -> r * v.engine().torque(r)))
        .orElse(0.0);
  }

  /** By even steps, and then by golden section about the best of them. */
  private static double bestFinal(ComputedLap base, Vehicle set) {
    double now = set.gearbox().finalDrive();
    DoubleUnaryOperator time = f -> base.driven(set.withFinalDrive(f)).lapTime();
    double step = (SHORTEST - LONGEST) / (COARSE - 1);
    double best = now;
    double least = time.applyAsDouble(now);
    for (int k = 0; k < COARSE; k++) {
      double f = now * (LONGEST + k * step);
      double t = time.applyAsDouble(f);
      if (t < least) {
        least = t;
        best = f;
      }
    }
    double low = best - now * step;
    double high = best + now * step;
    for (int round = 0; round < FINE; round++) {
      double a = high - GOLDEN * (high - low);
      double b = low + GOLDEN * (high - low);
      if (time.applyAsDouble(a) <= time.applyAsDouble(b)) {
        high = b;
      } else {
        low = a;
      }
    }
    double found = Math.round((low + high) / 2 * 100) / 100.0;
    return time.applyAsDouble(found) < least ? found : Math.round(best * 100) / 100.0;
  }
}
