package marvek.core.lap;

import marvek.core.vehicle.Vehicle;

/**
 * Quasi-steady lap simulation: the corner speed of every place, a pass forward with what drives the
 * vehicle and a pass backward with what stops it. Source of the method: Brayshaw &amp; Harrison, "A
 * quasi steady state approach to race car lap simulation", Proc. IMechE D 219 (2005).
 *
 * <p>Both passes integrate d(v²)/ds = 2a by Heun's rule, so that on a smooth road the error falls
 * with the square of the step, also where the grip left over by a turn starts from nothing.
 */
public final class LapSimulator {
  /** Stations at each end of an open piece of road that only lead in and out. */
  static final int OPEN = 2;

  // The speed below which the boost is spent is sought in steps of 2 m/s.
  // Share of all that the engine gives from which on it is driven with all of it.
  private static final double MOSTLY = 0.9;
  private static final int BOOST_STEPS = 64;
  private static final double FASTEST_BOOST = Limits.FASTEST;
  // The speed lost during a shift must not count as a reason to shift back.
  private static final double SHIFT_BACK = 0.96;

  private LapSimulator() {}

  /** One flying lap. */
  public static LapTrace lap(Path path, Vehicle vehicle, Conditions conditions) {
    return lap(path, new Limits(vehicle, conditions));
  }

  /**
   * One flying lap with the boost, if any, spent where it is worth most.
   *
   * @param open limits with the boost at every speed
   */
  public static LapTrace lap(Path path, Limits open) {
    return spent(path, open, BOOST_STEPS, BOOST_STEPS);
  }

  /**
   * The same, with the boost sought from where another lap near this one spent it: the same lap in
   * fewer rounds.
   *
   * @param open limits with the boost at every speed
   * @param near m/s below which it was spent
   */
  public static LapTrace spending(Path path, Limits open, double near) {
    return near < FASTEST_BOOST
        ? spent(path, open, (int) Math.round(near / FASTEST_BOOST * BOOST_STEPS), 1)
        : lap(path, open);
  }

  /** A joule is worth most where the car is slow: spent from the slow end until it is used up. */
  private static LapTrace spent(Path path, Limits open, int from, int reach) {
    if (open.vehicle().boost() == null) {
      return lap(path, open, Double.MAX_VALUE);
    }
    int low = 0;
    int high = BOOST_STEPS + 1;
    int at = from;
    LapTrace best = null;
    for (int far = reach; high - low > 1; far *= 2) {
      boolean all = at == BOOST_STEPS;
      double below = all ? Double.MAX_VALUE : FASTEST_BOOST * at / BOOST_STEPS;
      Limits limits = all ? open : open.on(open.conditions(), below);
      LapTrace trace = lap(path, limits, below);
      int middle;
      if (spends(path, trace, limits) > budget(path, trace, limits)) {
        high = at;
        middle = (low + high) / 2;
        at = Math.max(middle, at - far);
      } else {
        low = at;
        best = trace;
        middle = (low + high) / 2;
        at = Math.min(middle, at + far);
      }
    }
    return best == null ? lap(path, open.on(open.conditions(), 0), 0) : best;
  }

  /**
   * Joules that the boost may spend in the lap: what the rules or the store allow and, where
   * braking refills it, no more than braking gives back, so that every lap can be driven like this
   * one.
   *
   * @param limits of the lap
   */
  public static double budget(Path path, LapTrace trace, Limits limits) {
    Vehicle.Boost boost = limits.vehicle().boost();
    if (boost == null) {
      return 0;
    }
    if (boost.recovery() <= 0) {
      return boost.energyPerLap();
    }
    double braked = 0;
    for (int i = 0; i < path.size(); i++) {
      double v = trace.speed()[i];
      double load = limits.load(path, i, v * v);
      double wheels = trace.along()[i] + limits.resistance(path, i, v, load);
      braked += Math.max(0, -wheels) * limits.mass() * path.step()[i];
    }
    return Math.min(boost.energyPerLap(), boost.recovery() * braked);
  }

  /** Joules that the boost spends in the lap of these limits. */
  static double spends(Path path, LapTrace trace, Limits limits) {
    double sum = 0;
    for (int i = 0; i < path.size(); i++) {
      double v = trace.speed()[i];
      if (limits.drive(v, trace.throttle()[i]) > MOSTLY * limits.engineDrive(v)) {
        sum += limits.boostDrive(v) * limits.mass() * path.step()[i];
      }
    }
    return sum;
  }

  /** One flying lap on another line with the boost used as before. */
  public static LapTrace lap(Path path, Limits limits, double boostBelow) {
    Speeds speeds = speeds(path, limits, limits.vehicle().gearbox().shiftTime());
    return trace(path, limits, speeds.corner(), speeds.unbraked(), speeds.speed(), boostBelow);
  }

  /**
   * The speeds of a lap alone.
   *
   * @param corner that takes all the grip
   * @param unbraked by full throttle from the corner before
   * @param speed of the lap
   * @param slowest index where the corner allows least, from which both passes run
   */
  record Speeds(double[] corner, double[] unbraked, double[] speed, int slowest) {}

  static Speeds speeds(Path path, Limits limits, double shiftTime) {
    int n = path.size();
    double[] corner = new double[n];
    int slowest = 0;
    for (int i = 0; i < n; i++) {
      corner[i] = limits.cornerSpeed(path, i);
      if (corner[i] < corner[slowest]) {
        slowest = i;
      }
    }
    double[] unbraked = new double[n];
    double begin = corner[slowest];
    for (int round = 0; round < 4; round++) {
      forward(path, limits, corner, unbraked, slowest, begin, shiftTime);
      int last = slowest == 0 ? n - 1 : slowest - 1;
      double back = Math.min(corner[slowest], ahead(path, limits, last, slowest, unbraked[last]));
      if (Math.abs(back - begin) < 1e-3) {
        break;
      }
      begin = back;
    }
    double[] speed = unbraked.clone();
    for (int k = n - 1; k >= 0; k--) {
      int i = slowest + k < n ? slowest + k : slowest + k - n;
      int q = i + 1 == n ? 0 : i + 1;
      speed[i] = braked(path, limits, i, q, speed[i], speed[q]);
    }
    // Downhill even the slowest station may be braked for: then the sweep goes on before it.
    if (speed[slowest] < unbraked[slowest]) {
      brakedBefore(path, limits, speed, slowest);
    }
    return new Speeds(corner, unbraked, speed, slowest);
  }

  private static void brakedBefore(Path path, Limits limits, double[] speed, int station) {
    int n = speed.length;
    for (int k = 1; k < n; k++) {
      int i = Math.floorMod(station - k, n);
      double v = braked(path, limits, i, (i + 1) % n, speed[i], speed[(i + 1) % n]);
      if (v >= speed[i]) {
        return;
      }
      speed[i] = v;
    }
  }

  /**
   * The speeds over a piece of road that does not close, without pauses for shifts. The first and
   * the last two stations only lead in and out.
   *
   * @param entry speed at the third station, m/s, where the corner allows it
   * @param exit speed that must not be passed at the last but two, m/s
   */
  static Speeds speeds(Path path, Limits limits, double entry, double exit) {
    int n = path.size();
    double[] corner = new double[n];
    double[] unbraked = new double[n];
    for (int i = 0; i < n; i++) {
      corner[i] = limits.cornerSpeed(path, i);
    }
    unbraked[OPEN] = Math.min(entry, corner[OPEN]);
    for (int i = OPEN; i + 1 < n - OPEN; i++) {
      unbraked[i + 1] = Math.min(corner[i + 1], ahead(path, limits, i, i + 1, unbraked[i]));
    }
    double[] speed = unbraked.clone();
    int last = n - 1 - OPEN;
    speed[last] = Math.min(speed[last], exit);
    for (int i = last - 1; i >= OPEN; i--) {
      speed[i] = braked(path, limits, i, i + 1, speed[i], speed[i + 1]);
    }
    return new Speeds(corner, unbraked, speed, OPEN);
  }

  private static void forward(
      Path path,
      Limits limits,
      double[] corner,
      double[] speed,
      int start,
      double begin,
      double shiftTime) {
    int n = path.size();
    speed[start] = begin;
    int gear = limits.bestGear(begin);
    double shifting = 0;
    for (int k = 0; k + 1 < n; k++) {
      int i = start + k < n ? start + k : start + k - n;
      int q = i + 1 == n ? 0 : i + 1;
      double v = speed[i];
      int best = limits.bestGear(v);
      if (best > gear) {
        shifting = shiftTime;
        gear = best;
      } else if (best < gear && v < SHIFT_BACK * shiftSpeed(limits, best)) {
        gear = best;
      }
      double next;
      if (shifting > 0) {
        double step = path.step()[i] / v;
        double without = Math.min(1, shifting / step);
        shifting -= step;
        // Between two gears the engine neither drives nor holds back.
        next = ahead(path, limits, i, q, v, 1 - without, 0);
      } else {
        next = ahead(path, limits, i, q, v);
      }
      speed[q] = Math.min(corner[q], next);
    }
  }

  private static double shiftSpeed(Limits limits, int gear) {
    return limits.vehicle().speed(limits.vehicle().engine().shiftRevs(), gear);
  }

  /** Speed at q after full throttle from i. */
  public static double ahead(Path path, Limits limits, int i, int q, double v) {
    return ahead(path, limits, i, q, v, 1);
  }

  /**
   * Speed at q after a share of the throttle from i, grip permitting: the rest of the pedal brakes
   * with the engine.
   */
  public static double ahead(Path path, Limits limits, int i, int q, double v, double share) {
    return ahead(path, limits, i, q, v, share, limits.vehicle().brakes().engineBraking());
  }

  /** With the deceleration that takes the place of what is not driven, m/s². */
  private static double ahead(
      Path path, Limits limits, int i, int q, double v, double share, double closed) {
    double ds = path.step()[i];
    double square = v * v;
    double load = limits.load(path, i, square);
    double pulled = pull(path, limits, i, v, load, share, closed);
    double first = pulled - limits.resistance(path, i, v, load);
    double guess = Math.sqrt(Math.max(1, square + 2 * first * ds));
    double bears = limits.load(path, q, guess * guess);
    double then = pull(path, limits, q, guess, bears, share, closed);
    double second = then - limits.resistance(path, q, guess, bears);
    return Math.sqrt(Math.max(1, square + (first + second + 2 * bulge(pulled, then)) * ds));
  }

  /**
   * What the mean of a force over a step lies above the mean of its ends. What a turn leaves of the
   * grip grows with the root of the way from where it leaves nothing, so the square of the force is
   * taken as straight between the ends: ⅔(f₀² + f₀f₁ + f₁²)/(f₀ + f₁) − ½(f₀ + f₁).
   */
  static double bulge(double from, double to) {
    double sum = from + to;
    return sum > 1e-9 ? (to - from) * (to - from) / (6 * sum) : 0;
  }

  private static double pull(
      Path path, Limits limits, int i, double v, double load, double share, double closed) {
    double left = limits.ellipse(path, i, v * v, load);
    double drive = share * limits.engineDrive(v) - (1 - share) * closed;
    return Math.min(drive, limits.traction(load, left, path.driving(i)));
  }

  /**
   * Speed at i where no more than v may be left at q.
   *
   * @param fast speed at i without braking for q, m/s
   */
  private static double braked(Path path, Limits limits, int i, int q, double fast, double v) {
    // Where the vehicle gains more than slope and wind could give it, nothing is braked for.
    double pushed = path.step()[i] * (limits.pushes(path, i) + limits.pushes(path, q));
    return v * v - pushed > fast * fast ? fast : Math.min(fast, behind(path, limits, i, q, v));
  }

  /** Speed at i from which full braking gives the speed v at q. */
  static double behind(Path path, Limits limits, int i, int q, double v) {
    double ds = path.step()[i];
    double square = v * v;
    double load = limits.load(path, q, square);
    double pressed = press(path, limits, q, square, load);
    double first = pressed + limits.resistance(path, q, v, load);
    double guess = Math.sqrt(Math.max(1, square + 2 * first * ds));
    double bears = limits.load(path, i, guess * guess);
    double then = press(path, limits, i, guess * guess, bears);
    double second = then + limits.resistance(path, i, guess, bears);
    return Math.sqrt(Math.max(1, square + (first + second + 2 * bulge(pressed, then)) * ds));
  }

  private static double press(Path path, Limits limits, int i, double square, double load) {
    return limits.brakingMost(load, limits.ellipse(path, i, square, load), path.braking(i));
  }

  private static LapTrace trace(
      Path path,
      Limits limits,
      double[] corner,
      double[] unbraked,
      double[] speed,
      double boostBelow) {
    int n = path.size();
    double[] time = new double[n];
    double[] along = new double[n];
    double[] across = new double[n];
    int[] gear = new int[n];
    double[] throttle = new double[n];
    double[] brake = new double[n];
    double t = 0;
    for (int i = 0; i < n; i++) {
      int q = i + 1 == n ? 0 : i + 1;
      double v = speed[i];
      time[i] = t;
      t += 2 * path.step()[i] / (v + speed[q]);
      along[i] = (speed[q] * speed[q] - v * v) / (2 * path.step()[i]);
      across[i] = v * v * path.curvature()[i];
      gear[i] = limits.bestGear(v);
      double load = limits.load(path, i, v * v);
      double wheels = along[i] + limits.resistance(path, i, v, load);
      if (wheels >= -limits.vehicle().brakes().engineBraking()) {
        double full = limits.engineDrive(v);
        boolean held = speed[q] >= unbraked[q] - 1e-6 && speed[q] < corner[q] - 1e-6;
        throttle[i] = held && wheels > MOSTLY * full ? 1 : limits.share(v, wheels);
      } else {
        brake[i] =
            Math.min(1, -wheels / Math.max(limits.brakingMost(load, 1, path.braking(i)), 0.1));
      }
    }
    return new LapTrace(
        speed, time, along, across, gear, throttle, brake, corner, unbraked, t, boostBelow);
  }
}
