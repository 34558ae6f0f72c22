package marvek.core.reference;

import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;

/**
 * A corner driven as planned: full throttle to the marker, brakes to the release, rolling to first
 * throttle, and the throttle opened evenly to full. Integrated over the stretch from the slowest
 * point of the corner before to the braking for the next.
 *
 * <p>Braking is scaled evenly so that it just meets the corner's speed: a marker set early gives
 * lighter, longer braking. Where even all there is does not suffice, the corner cannot be made.
 */
final class PlannedCorner {
  private static final int BISECTIONS = 24;
  private static final double MOST_EFFORT = 3;
  private static final double BRAKE_COUNTS = 0.06;
  private static final double EVEN = 1.012;

  private final Path path;
  private final Limits limits;
  private final int n;
  private final int from;
  private final int count;
  private final int brake;
  private final int release;
  private final int first;
  private final int full;
  private final double firstShare;
  private final double[] corner;
  private final double[] unbraked;

  final double[] speed;
  final double[] brakeShare;
  final double[] throttle;
  final int slowest;
  double effort;
  boolean makesIt = true;
  double time;

  /**
   * Steps of the plan, counted from the start of the stretch; -1 for what is not used.
   *
   * @param brake braking marker
   * @param turnIn turn-in
   * @param release end of braking
   * @param first first throttle
   * @param full full throttle
   * @param firstShare share of throttle at first throttle
   * @param exit where the corner is over
   */
  record Steps(
      int brake, int turnIn, int release, int first, int full, double firstShare, int exit) {}

  PlannedCorner(Path path, Limits limits, LapTrace lap, int from, int count, Steps steps) {
    this.path = path;
    this.limits = limits;
    this.n = path.size();
    this.from = from;
    this.count = count;
    this.brake = steps.brake();
    this.firstShare = steps.firstShare();
    corner = new double[count + 1];
    for (int k = 0; k <= count; k++) {
      corner[k] = limits.cornerSpeed(path, at(k));
    }
    slowest = slowest(steps);
    unbraked = unbraked(lap);
    this.release = brake < 0 ? -1 : Math.min(Math.max(steps.release(), brake + 1), slowest);
    this.first = Math.max(steps.first(), brake < 0 ? 0 : brake + 1);
    this.full = Math.max(steps.full(), first);
    speed = new double[count + 1];
    brakeShare = new double[count + 1];
    throttle = new double[count + 1];
    drive();
  }

  private int at(int k) {
    return Math.floorMod(from + k, n);
  }

  /**
   * Speed on arrival: the lap's own until it brakes for this corner, and full throttle from there,
   * as if the corner were not coming.
   */
  private double[] unbraked(LapTrace lap) {
    int start = slowest;
    while (start > 0 && lap.brake()[at(start - 1)] <= BRAKE_COUNTS && slowest - start < 45) {
      start--;
    }
    while (start > 0 && lap.brake()[at(start - 1)] > 0.01) {
      start--;
    }
    double[] v = new double[count + 1];
    for (int k = 0; k <= start; k++) {
      v[k] = lap.speed()[at(k)];
    }
    for (int k = start; k < count; k++) {
      v[k + 1] = LapSimulator.ahead(path, limits, at(k), at(k + 1), v[k]);
    }
    return v;
  }

  /**
   * The step at which the corner first allows no more than its least, between turn-in (or the
   * braking, where that comes later) and where the throttle is full. On a long even bend that is
   * its beginning.
   */
  private int slowest(Steps steps) {
    int low = Math.max(0, Math.min(Math.max(steps.turnIn(), steps.brake() + 1), count - 1));
    int high =
        Math.min(
            count,
            Math.max(low + 1, Math.max(Math.min(steps.full(), steps.exit()), steps.first())));
    int best = low;
    for (int k = low; k <= high; k++) {
      if (corner[k] < corner[best]) {
        best = k;
      }
    }
    for (int k = low; k < best; k++) {
      if (corner[k] <= corner[best] * EVEN) {
        return k;
      }
    }
    return best;
  }

  /** Speed at each step from which the corner can just be made with a share of the braking. */
  private double[] envelope(double share, int back, double target) {
    double[] v = new double[count + 1];
    v[slowest] = target;
    for (int k = slowest - 1; k >= back; k--) {
      double a = slowing(k + 1, v[k + 1], share);
      double guess = Math.sqrt(v[k + 1] * v[k + 1] + 2 * a * path.step()[at(k)]);
      double b = slowing(k, guess, share);
      v[k] =
          Math.min(
              corner[k], Math.sqrt(v[k + 1] * v[k + 1] + Math.max(0, a + b) * path.step()[at(k)]));
    }
    return v;
  }

  private double slowing(int k, double v, double share) {
    double square = v * v;
    double load = limits.load(path, at(k), square);
    double drag = limits.resistance(path, at(k), v, load);
    if (k > release) {
      return drag + limits.vehicle().brakes().engineBraking();
    }
    return drag
        + share
            * limits.brakingMost(
                load, limits.ellipse(path, at(k), square, load), path.grip()[at(k)]);
  }

  private void drive() {
    double target = Math.min(corner[slowest], unbraked[slowest]);
    if (brake >= 0 && brake < slowest) {
      double arrival = unbraked[brake];
      if (envelope(1, brake, target)[brake] < arrival - 1e-6) {
        makesIt = false;
        effort = effort(1, MOST_EFFORT, arrival, target);
      } else {
        effort = effort(0, 1, arrival, target);
      }
    }
    double[] planned = envelope(Math.min(Math.max(effort, 0), MOST_EFFORT), 0, target);
    speed[0] = unbraked[0];
    double opened = 0;
    for (int k = 0; k < count; k++) {
      boolean braking = brake >= 0 && k >= brake && k < slowest;
      double next;
      if (braking) {
        next = Math.min(planned[k + 1], unbraked[k + 1]);
        brakeShare[k] = k <= release ? Math.min(1, brakeUse(k, speed[k])) : 0;
      } else if (k < first && (brake >= 0 || k >= slowest)) {
        boolean approach = brake >= 0 && k < brake;
        next = approach ? LapSimulator.ahead(path, limits, at(k), at(k + 1), speed[k]) : speed[k];
        throttle[k] = approach ? 1 : 0.1;
      } else {
        boolean exit = k >= first && (brake >= 0 || k >= slowest);
        opened = exit ? opening(k) : 1;
        next = LapSimulator.ahead(path, limits, at(k), at(k + 1), speed[k], opened);
        throttle[k] = opened;
      }
      speed[k + 1] = Math.min(next, corner[k + 1]);
    }
    throttle[count] = throttle[count - 1];
    if (brake < 0) {
      ease();
    }
    for (int k = 0; k < count; k++) {
      time += 2 * path.step()[at(k)] / (speed[k] + speed[k + 1]);
    }
  }

  /** Without brakes the throttle is eased in time: backwards from every place that asks for it. */
  private void ease() {
    for (int k = count - 1; k >= 0; k--) {
      double load = limits.load(path, at(k), speed[k + 1] * speed[k + 1]);
      double a =
          limits.vehicle().brakes().engineBraking()
              + limits.resistance(path, at(k), speed[k + 1], load);
      double v = Math.sqrt(speed[k + 1] * speed[k + 1] + 2 * Math.max(0, a) * path.step()[at(k)]);
      if (v < speed[k] - 1e-9) {
        speed[k] = v;
        throttle[k] = 0;
      }
    }
  }

  private double brakeUse(int k, double v) {
    double load = limits.load(path, at(k), v * v);
    double most = limits.brakingMost(load, 1, path.grip()[at(k)]);
    double use =
        effort
            * limits.brakingMost(
                load, limits.ellipse(path, at(k), v * v, load), path.grip()[at(k)]);
    return most > 0 ? use / most : 0;
  }

  private double opening(int k) {
    if (k >= full || full <= first) {
      return 1;
    }
    return firstShare + (1 - firstShare) * (k - first) / (full - first);
  }

  private double effort(double low, double high, double arrival, double target) {
    double a = low;
    double b = high;
    for (int i = 0; i < BISECTIONS; i++) {
      double middle = (a + b) / 2;
      if (envelope(middle, brake, target)[brake] < arrival) {
        a = middle;
      } else {
        b = middle;
      }
    }
    return b;
  }

  /** The last step, as a fraction, from which all the braking there is still makes the corner. */
  double limitStep(double moreSpeed) {
    double target = Math.min(corner[slowest], unbraked[slowest]);
    double[] most = envelope(1, 0, target);
    for (int k = slowest - 1; k >= 0; k--) {
      double spare = most[k] - unbraked[k] - moreSpeed;
      if (spare >= 0) {
        double after = most[k + 1] - unbraked[k + 1] - moreSpeed;
        return k + (spare > after ? spare / (spare - after) : 0);
      }
    }
    return 0;
  }

  /**
   * Mean and peak deceleration needed, and the mean of what there is, from marker to {@code to}.
   */
  double[] need(int to) {
    int end = Math.max(brake + 1, Math.min(to, slowest));
    double target = Math.min(corner[slowest], unbraked[slowest]);
    double[] planned = envelope(effort, brake, target);
    double metres = 0;
    double peak = 0;
    double can = 0;
    for (int k = brake; k < end; k++) {
      double ds = path.step()[at(k)];
      metres += ds;
      peak = Math.max(peak, slowing(k, planned[k], effort));
      can += slowing(k, planned[k], 1) * ds;
    }
    double mean = (unbraked[brake] * unbraked[brake] - planned[end] * planned[end]) / (2 * metres);
    return new double[] {mean, peak, can / metres};
  }

  double unbrakedAt(int k) {
    return unbraked[Math.max(0, Math.min(count, k))];
  }

  /** Metres along the path from one step to another. */
  double metres(double fromStep, double toStep) {
    double sign = toStep < fromStep ? -1 : 1;
    double low = Math.min(fromStep, toStep);
    double high = Math.max(fromStep, toStep);
    double sum = 0;
    for (int k = (int) low; k < high; k++) {
      double part = Math.min(high, k + 1) - Math.max(low, k);
      sum += part * path.step()[at(k)];
    }
    return sign * sum;
  }

  /** Seconds from the slowest point to the end in a gear held until its shift, against the best. */
  double exitTime(int gear) {
    double v = speed[slowest];
    double seconds = 0;
    int held = gear;
    int shiftable = limits.vehicle().gears();
    double shiftRevs = limits.vehicle().engine().shiftRevs();
    for (int k = slowest; k < count; k++) {
      while (held < shiftable && limits.vehicle().revs(v, held) > shiftRevs) {
        held++;
      }
      double square = v * v;
      double load = limits.load(path, at(k), square);
      double most =
          limits.traction(load, limits.ellipse(path, at(k), square, load), path.grip()[at(k)]);
      double drive = limits.vehicle().wheelForce(v, held) / limits.mass();
      double share = k < first ? 0 : opening(k);
      double a =
          k < first ? 0 : Math.min(share * drive, most) - limits.resistance(path, at(k), v, load);
      double ds = path.step()[at(k)];
      double next = Math.min(corner[k + 1], Math.sqrt(Math.max(1, square + 2 * a * ds)));
      seconds += 2 * ds / (v + next);
      v = next;
    }
    return seconds;
  }
}
