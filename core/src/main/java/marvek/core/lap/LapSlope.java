package marvek.core.lap;

import marvek.core.lap.LapSimulator.Speeds;
import marvek.core.units.Units;
import org.jspecify.annotations.Nullable;

/**
 * The time of a lap and how it changes with the line: the slope of the lap time by curvature, step
 * and grip of every station, from one sweep back through both passes of the simulation (the method
 * of adjoints). Costs about as much as one or two laps, whatever the number of stations.
 *
 * <p>The lap is that of {@link LapSimulator} without pauses for shifts. For each station the branch
 * that decided its speed is kept: the corner, the throttle or the brakes. Where the corner decides,
 * the ellipse leaves exactly nothing along, with an infinite slope by speed and by curvature of
 * which only the sum is finite: the two are taken as one there, v = corner(κ), with nothing left
 * along, so that the sweep stops at such a station.
 */
public final class LapSlope {
  // The ellipse is vertical at its end; nearer to it than this its slope is taken as here.
  private static final double STEEPEST = 0.03;
  // Seconds for each (m/s)² by which an open stretch is entered slower: braking for it at 10 m/s²
  // from 40 m/s takes Δv/10 s and falls short by Δv/2 on the way, Δv²/(2·10·40).
  private static final double BEFORE = 1.0 / (2 * 10 * 40);

  private final Path path;
  private final Limits limits;
  private final Speeds speeds;
  private final int n;
  private final int steps;
  private final double entry;
  private final double[] seconds;
  private final double time;

  // What the last question was answered with: value and slopes by speed, curvature and grip.
  private double load;
  private double loadByV;
  private double loadByK;
  private double mu;
  private double muByV;
  private double muByK;
  private double muByG;
  private double left;
  private double leftByV;
  private double leftByK;
  private double leftByG;
  private double resistance;
  private double resistanceByV;
  private double resistanceByK;
  private double value;
  // Of the resistance in the value: with the drive it counts against it.
  private double sign;
  private double tyres;
  private double byV;
  private double byK;
  private double byG;
  // Asked for by the place across as the road lies there, in place of by curvature; null if not.
  private @Nullable Tilt tilt;

  /**
   * How the road's lie changes with the place across, at each station.
   *
   * @param crossfall rad/m
   * @param verticalCurvature 1/m²
   */
  public record Tilt(double[] crossfall, double[] verticalCurvature) {}

  /** Drives the lap. */
  public LapSlope(Path path, Limits limits) {
    this(path, limits, LapSimulator.speeds(path, limits, 0), path.size(), 0);
  }

  /**
   * Drives a piece of road that does not close; its two first and two last stations only lead in
   * and out and cost nothing.
   *
   * @param entry speed at its beginning, m/s; where the line does not allow it, what braking before
   *     it costs is added
   * @param exit speed at its end that must not be passed, m/s
   */
  public LapSlope(Path path, Limits limits, double entry, double exit) {
    this(
        path,
        limits,
        LapSimulator.speeds(path, limits, entry, exit),
        path.size() - 1 - 2 * LapSimulator.OPEN,
        entry);
  }

  private LapSlope(Path path, Limits limits, Speeds speeds, int steps, double entry) {
    this.path = path;
    this.limits = limits;
    this.speeds = speeds;
    this.steps = steps;
    this.entry = entry;
    n = path.size();
    seconds = new double[n];
    double sum = 0;
    for (int k = 0; k < steps; k++) {
      int i = station(k);
      seconds[i] = 2 * path.step()[i] / (speeds.speed()[i] + speeds.speed()[next(i)]);
      if (k == 0) {
        double slower = Math.max(0, entry - speeds.speed()[i]);
        seconds[i] += slower * slower * BEFORE;
      }
      sum += seconds[i];
    }
    time = sum;
  }

  private boolean closed() {
    return steps == n;
  }

  private int station(int k) {
    int i = speeds.slowest() + k;
    return i < n ? i : i - n;
  }

  /** Seconds of the lap. */
  public double time() {
    return time;
  }

  /** Seconds from each station to the next. */
  public double[] seconds() {
    return seconds;
  }

  /** m/s at each station. */
  public double[] speed() {
    return speeds.speed();
  }

  /** Speed before any braking at each station, m/s. */
  public double[] unbraked() {
    return speeds.unbraked();
  }

  /** Speed that the corner allows at each station, m/s. */
  public double[] corner() {
    return speeds.corner();
  }

  /**
   * Slopes of the lap time.
   *
   * @param curvature s·m, by the curvature of each station
   * @param step s/m, by the length of the step that follows each station
   * @param grip s, by the share of grip under each station
   */
  public record Slopes(double[] curvature, double[] step, double[] grip) {}

  /**
   * How the time changes with the place across by the way the road lies there alone, s/m at each
   * station.
   *
   * @param more as for {@link #slopes}
   */
  public double[] slopesByLie(Tilt lie, double[] more) {
    tilt = lie;
    try {
      return slopes(more).curvature();
    } finally {
      tilt = null;
    }
  }

  /**
   * How the time changes.
   *
   * @param more slope by the speed of each station of whatever is added to the time, s²/m
   */
  public Slopes slopes(double[] more) {
    double[] v = speeds.speed();
    double[] unbraked = speeds.unbraked();
    Slopes out = new Slopes(new double[n], new double[n], new double[n]);
    double[] bySpeed = more.clone();
    for (int k = 0; k < steps; k++) {
      int i = station(k);
      double both = v[i] + v[next(i)];
      double each = -2 * path.step()[i] / (both * both);
      bySpeed[i] += each;
      bySpeed[next(i)] += each;
      out.step()[i] += 2 / both;
      if (k == 0 && !closed()) {
        bySpeed[i] -= 2 * BEFORE * Math.max(0, entry - v[i]);
      }
    }
    double[] byUnbraked = new double[n];
    // Where it was braked for as well the sweep goes on from it, as the simulation's did.
    int most = steps;
    while (closed() && most < 2 * n && v[station(most % n)] < unbraked[station(most % n)]) {
      most++;
    }
    // The station where both passes begin is met again at the end of a closed round.
    for (int k = 0; k <= most; k++) {
      int i = station(k % n);
      double slope = bySpeed[i];
      bySpeed[i] = 0;
      if (v[i] < unbraked[i] && k < most) {
        behind(i, next(i), slope, bySpeed, out);
      } else if (v[i] >= unbraked[i] || closed()) {
        byUnbraked[i] += slope;
      }
    }
    for (int k = closed() ? steps - 1 : steps; k >= 0; k--) {
      int i = station(k);
      if (unbraked[i] >= speeds.corner()[i]) {
        corner(i, byUnbraked[i], out);
      } else if (k > 0) {
        ahead(i == 0 ? n - 1 : i - 1, i, byUnbraked[i], byUnbraked, out);
      }
    }
    return out;
  }

  private int next(int i) {
    return i + 1 == n ? 0 : i + 1;
  }

  /** One Heun step under the brakes, from the speed at q back to the one at i. */
  private void behind(int i, int q, double slope, double[] bySpeed, Slopes out) {
    double ds = path.step()[i];
    double v = speeds.speed()[q];
    boolean held = v >= speeds.corner()[q];
    deceleration(q, v, held);
    Force from = force();
    double guess = Math.sqrt(Math.max(1, v * v + 2 * value * ds));
    deceleration(i, guess, false);
    Force then = force();
    double sum = from.total() + then.total() + 2 * LapSimulator.bulge(from.tyres(), then.tyres());
    double each = slope / (2 * Math.sqrt(Math.max(1, v * v + sum * ds)));
    double first = 2 * bulgeByFirst(from.tyres(), then.tyres());
    double second = 2 * bulgeByFirst(then.tyres(), from.tyres());
    double through = (then.byV() + second * then.tyresByV()) / guess;
    bySpeed[q] +=
        each
            * (2 * v
                + ds * (from.byV() + first * from.tyresByV() + through * (v + ds * from.byV())));
    out.curvature()[q] +=
        each * ds * (from.byK() + first * from.tyresByK() + through * ds * from.byK());
    out.grip()[q] += each * ds * (from.byG() + first * from.byG() + through * ds * from.byG());
    out.curvature()[i] += each * ds * (then.byK() + second * then.tyresByK());
    out.grip()[i] += each * ds * (then.byG() + second * then.byG());
    out.step()[i] += each * (sum + ds * through * from.total());
  }

  /** One Heun step of full throttle, from the speed at i on to the one at q. */
  private void ahead(int i, int q, double slope, double[] bySpeed, Slopes out) {
    double ds = path.step()[i];
    double v = speeds.unbraked()[i];
    boolean held = v >= speeds.corner()[i];
    drive(i, v, held);
    Force from = force();
    double guess = Math.sqrt(Math.max(1, v * v + 2 * value * ds));
    drive(q, guess, false);
    Force then = force();
    double sum = from.total() + then.total() + 2 * LapSimulator.bulge(from.tyres(), then.tyres());
    double each = slope / (2 * Math.sqrt(Math.max(1, v * v + sum * ds)));
    double first = 2 * bulgeByFirst(from.tyres(), then.tyres());
    double second = 2 * bulgeByFirst(then.tyres(), from.tyres());
    double through = (then.byV() + second * then.tyresByV()) / guess;
    bySpeed[i] +=
        each
            * (2 * v
                + ds * (from.byV() + first * from.tyresByV() + through * (v + ds * from.byV())));
    out.curvature()[i] +=
        each * ds * (from.byK() + first * from.tyresByK() + through * ds * from.byK());
    out.grip()[i] += each * ds * (from.byG() + first * from.byG() + through * ds * from.byG());
    out.curvature()[q] += each * ds * (then.byK() + second * then.tyresByK());
    out.grip()[q] += each * ds * (then.byG() + second * then.byG());
    out.step()[i] += each * (sum + ds * through * from.total());
  }

  /** How {@link LapSimulator#bulge} changes with its first argument. */
  private static double bulgeByFirst(double from, double to) {
    double sum = from + to;
    return sum > 1e-9 ? -(to - from) * (2 * sum + to - from) / (6 * sum * sum) : 0;
  }

  /** The last answer: the whole acceleration, and what the tyres give of it, with their slopes. */
  private record Force(
      double total,
      double byV,
      double byK,
      double byG,
      double tyres,
      double tyresByV,
      double tyresByK) {}

  private Force force() {
    return new Force(
        value, byV, byK, byG, tyres, byV - sign * resistanceByV, byK - sign * resistanceByK);
  }

  /** The speed that takes all the grip, by the curvature and the grip of its station. */
  private void corner(int i, double slope, Slopes out) {
    double v = speeds.corner()[i];
    double kappa = path.curvature()[i];
    if (v >= Limits.FASTEST - 1e-6 || v <= 1) {
      return;
    }
    double square = v * v;
    double sin = path.slant().sine()[i];
    double cos = path.slant().cosine()[i];
    double towards = kappa > 0 ? sin : -sin;
    double rise = path.verticalCurvature()[i] + Math.abs(kappa) * towards + limits.downforce;
    double n = Math.max(0, path.slant().load()[i] + square * rise);
    double most = limits.sidewaysMost(n, path.turning(i));
    double mostByLoad =
        path.turning(i) * limits.muY * (limits.sensitivity(n) + limits.sensitivitySlope(n) * n);
    double bySquare = mostByLoad * rise - Math.abs(kappa) * cos;
    if (bySquare > -1e-9) {
      return;
    }
    double to = -slope / (2 * v * bySquare);
    out.curvature()[i] +=
        to
            * (mostByLoad * loadByBend(i, square, sin, cos)
                - turnByBend(i, square, sin, cos) * (kappa > 0 ? 1 : -1));
    out.grip()[i] += to * most / path.grip()[i];
  }

  /** How the load changes by the curvature, or by the place as the road lies. */
  private double loadByBend(int i, double square, double sin, double cos) {
    Tilt lie = tilt;
    return lie == null
        ? square * sin
        : square * (lie.verticalCurvature()[i] + path.curvature()[i] * cos * lie.crossfall()[i])
            - Units.G * sin * lie.crossfall()[i];
  }

  /** How the turn along the surface changes by the same. */
  private double turnByBend(int i, double square, double sin, double cos) {
    Tilt lie = tilt;
    return lie == null
        ? square * cos
        : -(square * path.curvature()[i] * sin + Units.G * cos) * lie.crossfall()[i];
  }

  /**
   * Load, grip and what the turn leaves of it, with their slopes.
   *
   * @param along what the tyres have of the grip in this direction
   */
  private void tyres(int i, double v, boolean held, double along) {
    double square = v * v;
    double sin = path.slant().sine()[i];
    double cos = path.slant().cosine()[i];
    double kappa = path.curvature()[i];
    double ground = path.grip()[i];
    double turning = path.turning(i);
    double rise = path.verticalCurvature()[i] + kappa * sin + limits.downforce;
    load = path.slant().load()[i] + square * rise;
    loadByV = 2 * v * rise;
    loadByK = loadByBend(i, square, sin, cos);
    if (load <= 0) {
      load = 0;
      loadByV = 0;
      loadByK = 0;
    }
    double less = limits.sensitivity(load);
    double lessByLoad = limits.sensitivitySlope(load);
    mu = along * limits.muX * less;
    muByV = along * limits.muX * lessByLoad * loadByV;
    muByK = along * limits.muX * lessByLoad * loadByK;
    muByG = mu / ground;
    double head = limits.headwind(path, i, v);
    resistance = limits.resistance(path, i, v, load);
    double rolling = limits.vehicle().tyres().rolling();
    resistanceByV = 2 * limits.drag * Math.abs(head) + rolling * loadByV;
    resistanceByK = rolling * loadByK;
    left = 0;
    leftByV = 0;
    leftByK = 0;
    leftByG = 0;
    double most = turning * limits.muY * less * load;
    double turn = square * kappa * cos - Units.G * sin - path.push()[i];
    double share = most > 0 ? Math.abs(turn) / most : 1;
    if (held || share >= 1) {
      return;
    }
    double mostByLoad = turning * limits.muY * (less + lessByLoad * load);
    double sign = turn < 0 ? -1 : 1;
    left = Math.sqrt(1 - share * share);
    double bend = -share / Math.max(left, STEEPEST) / most;
    leftByV = bend * (sign * 2 * v * kappa * cos - share * mostByLoad * loadByV);
    leftByK = bend * (sign * turnByBend(i, square, sin, cos) - share * mostByLoad * loadByK);
    leftByG = -bend * share * most / ground;
  }

  private void drive(int i, double v, boolean held) {
    tyres(i, v, held, path.driving(i));
    sign = -1;
    double grip = mu * left;
    double spread = 1 + grip * limits.driveTransfer;
    double most = grip * load;
    double byGrip = load;
    double byLoad = grip;
    if (spread > limits.driveShare) {
      double share = limits.driveShare / spread;
      most *= share;
      byGrip = load * share / spread;
      byLoad = grip * share;
    }
    if (limits.motorcycle && limits.wheelie * load < most) {
      most = limits.wheelie * load;
      byGrip = 0;
      byLoad = limits.wheelie;
    }
    most *= limits.pulling;
    byGrip *= limits.pulling;
    byLoad *= limits.pulling;
    double engine = limits.engineDrive(v);
    if (engine <= most) {
      tyres = engine;
      value = engine - resistance;
      byV = limits.engineDriveSlope(v) - resistanceByV;
      byK = -resistanceByK;
      byG = 0;
      return;
    }
    tyres = most;
    value = most - resistance;
    byV = byGrip * (muByV * left + mu * leftByV) + byLoad * loadByV - resistanceByV;
    byK = byGrip * (muByK * left + mu * leftByK) + byLoad * loadByK - resistanceByK;
    byG = byGrip * (muByG * left + mu * leftByG);
  }

  private void deceleration(int i, double v, boolean held) {
    tyres(i, v, held, path.braking(i));
    sign = 1;
    double most = mu * load;
    double byMu = load;
    double byLoad = mu;
    if (limits.motorcycle) {
      if (limits.stoppie < mu) {
        most = limits.stoppie * load;
        byMu = 0;
        byLoad = limits.stoppie;
      }
    } else {
      double front = limits.frontShare - mu * limits.transfer;
      if (front > 0 && mu * limits.staticFront / front * load < most) {
        byLoad = mu * limits.staticFront / front;
        most = byLoad * load;
        byMu = limits.staticFront * limits.frontShare / (front * front) * load;
      }
      double rear = 1 - limits.frontShare + mu * limits.transfer;
      if (mu * (1 - limits.staticFront) / rear * load < most) {
        byLoad = mu * (1 - limits.staticFront) / rear;
        most = byLoad * load;
        byMu = (1 - limits.staticFront) * (1 - limits.frontShare) / (rear * rear) * load;
      }
    }
    most *= limits.braking;
    byMu *= limits.braking;
    byLoad *= limits.braking;
    double brakes = most * left;
    if (brakes >= limits.brakeCap) {
      tyres = limits.brakeCap;
      value = limits.brakeCap + resistance;
      byV = resistanceByV;
      byK = resistanceByK;
      byG = 0;
      return;
    }
    tyres = brakes;
    value = brakes + resistance;
    byV = (byMu * muByV + byLoad * loadByV) * left + most * leftByV + resistanceByV;
    byK = (byMu * muByK + byLoad * loadByK) * left + most * leftByK + resistanceByK;
    byG = byMu * muByG * left + most * leftByG;
  }
}
