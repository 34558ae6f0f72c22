package marvek.core.plan;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Loop;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.technique.Pedals;
import marvek.core.technique.TyreWork;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.solvers.AllowedSolution;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;
import org.jspecify.annotations.Nullable;

/**
 * A corner driven as planned: full throttle to the marker, brakes to the release, rolling to first
 * throttle, and the throttle opened evenly to full. Integrated over the stretch from the slowest
 * point of the corner before to the braking for the next.
 *
 * <p>Braking is scaled evenly so that it just meets the corner's speed: a marker set early gives
 * lighter, longer braking. Where even all there is does not suffice, the corner cannot be made.
 *
 * <p>With a shape of the pedals the brake follows that shape instead, as a share of the greatest
 * straight-line braking at the marker. Its peak is the least that lets the tyres hold the corner
 * from turn-in to the release, or what the driver set. What it asks of the tyres together with the
 * turn is {@link #use}; above 1 it asks more than there is.
 */
final class PlannedCorner {
  // Share of the brake to which an effort is found, and tries for it.
  private static final double EFFORT = 6e-8;
  private static final int MOST_TRIES = 60;
  private static final double MOST_EFFORT = 3;
  private static final double MOST_PEAK = 1.6;
  private static final int PEAK_BISECTIONS = 14;
  // So much faster than a corner allows, its slowest place was not made.
  private static final double TOO_FAST = 1.01;
  private static final double OWN = 0.006;

  /** Asking this much of the grip still counts as made: the model is no finer. */
  static final double TOLERATED = 1.03;

  /**
   * A score to be driven.
   *
   * @param fullPress m/s² of the driver's own full press
   */
  record Written(
      double fullPress,
      List<ScoreDrive.Pedal> pedals,
      List<ScoreDrive.Shift> shifts,
      List<ScoreDrive.Body> bodies) {
    /** The same with the marker elsewhere, its press open again. */
    Written withBrake(int step, boolean open) {
      List<ScoreDrive.Pedal> moved =
          pedals.stream()
              .map(
                  p ->
                      p.id().equals(MARKER)
                          ? open ? p.from(step).amounting(Double.NaN) : p.from(step)
                          : p)
              .sorted(Comparator.comparingDouble(ScoreDrive.Pedal::at))
              .toList();
      return new Written(fullPress, moved, shifts, bodies);
    }
  }

  /** The id of the braking that the marker is for. */
  static final String MARKER = Score.id(PointKind.BRAKE);

  private final Path path;
  private final Limits limits;
  private final int n;
  private final Loop loop;
  private final int from;
  private final int count;
  private final int free;
  private final int brake;
  private final int release;
  private final int first;
  private final int full;
  private final double firstShare;
  private final int turnIn;
  private final @Nullable Pedals pedals;
  private final int end;
  private final boolean twice;
  private final int carried;
  private final @Nullable Written score;
  private final List<ScoreDrive.Body> bodies;
  private final Limits[] riding;
  private final ScoreDrive.Wants wants;
  @Nullable ScoreDrive driven;
  private final double[] corner;
  private final double[] unbraked;

  final double[] speed;
  final double[] brakeShare;
  final double[] throttle;
  final double[] use;
  final double[] wheels;
  int slowest;
  // The slowest place that the marker is for; {@link #slowest} is the slowest driven.
  private final int serves;
  double effort;
  // Step of the slowest place where the braking begins past it, or −1.
  private final int passed;
  boolean makesIt = true;
  private boolean markerLate;
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
   * @param pedals shape, or null for braking scaled evenly
   * @param twice whether the line touches the inside twice, or the lap brakes twice
   * @param met where the lap has slowed for the corner first
   * @param until where the lap brakes again in the corner; past the stretch where it does not
   * @param carried up to which it is braked for a corner before, as the lap does; 0 for not at all
   * @param score what both pedals do where more is written than the points; null for the points
   */
  @RecordBuilder
  record Steps(
      int brake,
      int turnIn,
      int release,
      int first,
      int full,
      double firstShare,
      int exit,
      @Nullable Pedals pedals,
      boolean twice,
      int met,
      int until,
      int carried,
      @Nullable Written score) {
    Steps withBrake(int other) {
      Written written = score;
      return PlannedCornerStepsBuilder.builder(this)
          .brake(other)
          .score(written == null ? null : written.withBrake(other, false))
          .build();
    }

    /** The same with as much at the marker as it takes, whatever is written. */
    Steps withOpenMarker() {
      Written written = score;
      return PlannedCornerStepsBuilder.builder(this)
          .score(written == null ? null : written.withBrake(brake, true))
          .build();
    }

    Steps withPedals(@Nullable Pedals other) {
      return PlannedCornerStepsBuilder.builder(this).pedals(other).build();
    }
  }

  /**
   * What a stretch allows on a path, whatever is done on it; nobody writes into it.
   *
   * @param corner m/s that the turn allows at each step
   * @param unbraked m/s on arrival at each step: the lap's own until it brakes for this corner, and
   *     full throttle from there, as if the corner were not coming
   */
  record Room(Path path, Limits limits, double[] corner, double[] unbraked) {
    /**
     * Works it out.
     *
     * @param from index of the start of the stretch
     * @param count steps of the stretch
     * @param free step at which the lap begins to brake for the corner
     */
    static Room of(Path path, Limits limits, LapTrace lap, int from, int count, int free) {
      Loop loop = path.loop();
      double[] corner = new double[count + 1];
      double[] v = new double[count + 1];
      for (int k = 0; k <= count; k++) {
        int i = loop.at(from + k);
        corner[k] = limits.cornerSpeed(path, i);
        v[k] =
            k <= free
                ? lap.speed()[i]
                : LapSimulator.ahead(path, limits, loop.at(from + k - 1), i, v[k - 1]);
      }
      return new Room(path, limits, corner, v);
    }
  }

  /**
   * Drives a corner.
   *
   * @param from index of the start of the stretch
   * @param count steps of the stretch
   * @param free step at which the lap begins to brake for the corner
   * @param wants what of it is looked at
   */
  PlannedCorner(Room room, int from, int count, int free, Steps steps, ScoreDrive.Wants wants) {
    this.wants = wants;
    this.path = room.path();
    this.limits = room.limits();
    this.n = path.size();
    this.loop = path.loop();
    this.from = from;
    this.count = count;
    this.free = free;
    this.brake = steps.brake();
    this.firstShare = steps.firstShare();
    this.turnIn = steps.turnIn();
    this.score = steps.score();
    bodies = score == null ? List.of() : score.bodies();
    riding = bodies.stream().map(b -> limits.ridden(b.forward(), b.front())).toArray(Limits[]::new);
    this.pedals = steps.brake() < 0 || score != null ? null : steps.pedals();
    corner = room.corner();
    unbraked = room.unbraked();
    serves = slowest(steps);
    slowest = serves;
    passed = passed(steps);
    int letGo = Math.min(count - 1, Math.max(steps.release(), brake + 1));
    this.release = brake < 0 ? -1 : pedals == null ? Math.min(letGo, slowest) : letGo;
    this.first = Math.max(steps.first(), brake < 0 ? 0 : brake + 1);
    this.twice = steps.twice();
    this.carried = steps.carried();
    boolean between = twice && brake >= 0 && first < slowest;
    int rolled = pedals == null ? slowest : Math.max(slowest, release);
    this.end = between ? Math.max(first, release) : rolled;
    this.full = Math.max(steps.full(), first);
    speed = new double[count + 1];
    brakeShare = new double[count + 1];
    throttle = new double[count + 1];
    use = new double[count + 1];
    wheels = new double[count + 1];
    if (score == null) {
      drive();
    } else {
      play(score);
    }
    if (wants != ScoreDrive.Wants.ALL && !makesIt) {
      return;
    }
    ask();
    if (score != null) {
      slowest = slowestDriven();
    } else if (pedals != null) {
      slowest = lowest();
    }
  }

  private int at(int k) {
    return loop.at(from + k);
  }

  /**
   * The step at which the corner first allows no more than its least, between turn-in (or the
   * braking, where that comes later) and where the throttle is full. On a long even bend that is
   * its beginning.
   */
  private int slowest(Steps steps) {
    return slowest(steps, steps.brake());
  }

  private int slowest(Steps steps, int from) {
    int bends = Math.min(steps.turnIn(), steps.met());
    int low = Math.max(0, Math.min(Math.max(bends, from + 1), count - 1));
    int high =
        Math.min(
            Math.min(count, Math.max(low + 1, steps.until())),
            Math.max(low + 1, Math.max(Math.min(steps.full(), steps.exit()), steps.first())));
    return LeastSpeed.first(corner, low, high);
  }

  /**
   * The slowest place where the braking only begins past it and it was arrived at too fast; −1
   * where the braking is in time to count.
   */
  private int passed(Steps steps) {
    if (steps.brake() < 0) {
      return -1;
    }
    int meant = slowest(steps, -1);
    return steps.brake() >= meant && unbraked[meant] > corner[meant] * TOO_FAST ? meant : -1;
  }

  private double[] envelope(double share, int back, double target) {
    return envelope(slowest, share, back, target);
  }

  /** Speed at each step from which the corner can just be made with a share of the braking. */
  private double[] envelope(int to, double share, int back, double target) {
    double[] v = new double[count + 1];
    v[to] = target;
    for (int k = to - 1; k >= back; k--) {
      v[k] = before(k, v[k + 1], share);
    }
    return v;
  }

  /** Speed at a step from which the next can just be met with a share of the braking. */
  private double before(int k, double next, double share) {
    double a = slowing(k + 1, next, share);
    double guess = Math.sqrt(next * next + 2 * a * path.step()[at(k)]);
    double b = slowing(k, guess, share);
    return Math.min(corner[k], Math.sqrt(next * next + Math.max(0, a + b) * path.step()[at(k)]));
  }

  /**
   * m/s by which a speed on arrival may pass what braking allows. The lap's own speed is made by
   * the lap, also where it is at the limit of two corners at once; what comes after is held to the
   * last.
   */
  private double finer(int k) {
    return k <= free ? OWN * unbraked[k] : 1e-6;
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
            * ridden(k)
                .brakingMost(load, limits.ellipse(path, at(k), square, load), path.braking(at(k)));
  }

  /** The limits with what a rider does with the body at a step. */
  private Limits ridden(int k) {
    Limits so = limits;
    for (int b = 0; b < bodies.size() && bodies.get(b).at() <= k; b++) {
      so = riding[b];
    }
    return so;
  }

  private void play(Written written) {
    List<ScoreDrive.Pedal> pressed =
        written.pedals().stream().map(p -> told(p, written.fullPress())).toList();
    ScoreDrive drive =
        new ScoreDrive(
            path,
            limits,
            from,
            count,
            unbraked,
            corner,
            written.fullPress(),
            pressed,
            written.shifts(),
            written.bodies(),
            wants);
    driven = drive;
    if (wants != ScoreDrive.Wants.ALL && !drive.makesIt) {
      makesIt = false;
      return;
    }
    System.arraycopy(drive.speed, 0, speed, 0, count + 1);
    System.arraycopy(drive.brake, 0, brakeShare, 0, count + 1);
    System.arraycopy(drive.throttle, 0, throttle, 0, count + 1);
    time = drive.time;
    int p = drive.index(MARKER);
    markerLate = p >= 0 && brake >= 0 && late();
    makesIt = drive.makesIt && !markerLate && drive.untouched(slowest) <= TOLERATED;
    if (p >= 0 && pressed.get(p).shape() != null) {
      effort =
          drive.played[p].amount() * written.fullPress() / straightMost(brake, unbraked[brake]);
      makesIt &= drive.asked(p) <= TOLERATED;
    }
  }

  /**
   * Whether even all the braking there is would not do from a marker. What is done before it may
   * have slowed already; then it is driven, and not told from the speed on arrival.
   */
  private boolean late() {
    if (brake >= serves || slowedBefore()) {
      return passed >= 0;
    }
    return brake > limitStep(unbraked, 0, true) + 1e-9;
  }

  /** Whether what is written before the marker has taken speed off already. */
  private boolean slowedBefore() {
    return score != null
        && brake >= 0
        && speed[brake] < unbraked[brake] - 4 * OWN * unbraked[brake];
  }

  /** The peak of a shape is told as a share of what there is at the marker. */
  private ScoreDrive.Pedal told(ScoreDrive.Pedal p, double fullPress) {
    ScoreDrive.Shape shape = p.shape();
    Double peak = shape == null ? null : shape.pedals().peak();
    return peak == null || brake < 0
        ? p
        : p.amounting(peak * straightMost(brake, unbraked[brake]) / fullPress);
  }

  private int slowestDriven() {
    int low = Math.max(0, Math.min(turnIn, count));
    int last = Math.max(low, Math.min(count, Math.max(full, slowest)));
    for (int k = low; k <= last; k++) {
      if (speed[k] < speed[low] - 1e-9) {
        low = k;
      }
    }
    return low;
  }

  private void drive() {
    makesIt = passed < 0;
    double target = Math.min(corner[slowest], unbraked[slowest]);
    double[] shaped = null;
    if (pedals != null && brake < slowest) {
      shaped = shaped(pedals, target);
    } else if (brake >= 0 && brake < slowest) {
      double arrival = unbraked[brake];
      if (brake > limitStep(unbraked, 0, true) + 1e-9) {
        makesIt = false;
        effort = effort(1, MOST_EFFORT, arrival, target);
      } else {
        effort = effort(0, 1, arrival, target);
      }
    }
    double[] planned = envelope(Math.min(Math.max(effort, 0), MOST_EFFORT), 0, target);
    double[] rolling = twice ? rolling() : planned;
    speed[0] = unbraked[0];
    double opened = 0;
    for (int k = 0; k < carried; k++) {
      speed[k + 1] = Math.min(unbraked[k + 1], corner[k + 1]);
    }
    for (int k = carried; k < count; k++) {
      boolean braking = brake >= 0 && k >= brake && k < end;
      double next;
      if (braking && shaped != null) {
        next = shaped[k + 1];
        brakeShare[k] = effort * pressure(k);
      } else if (braking) {
        next = Math.min(planned[k + 1], unbraked[k + 1]);
        brakeShare[k] = k <= release ? Math.min(1, brakeUse(k, speed[k])) : 0;
      } else if (k < first && (brake >= 0 || k >= slowest)) {
        boolean approach = brake >= 0 && k < brake;
        next =
            approach
                ? Math.min(
                    unbraked[k + 1], LapSimulator.ahead(path, limits, at(k), at(k + 1), speed[k]))
                : LapSimulator.ahead(path, limits, at(k), at(k + 1), speed[k], 0);
        throttle[k] = approach ? 1 : 0;
      } else {
        boolean exit = k >= first && (brake >= 0 || k >= slowest);
        opened = exit ? opening(k) : 1;
        next = LapSimulator.ahead(path, limits, at(k), at(k + 1), speed[k], opened);
        if (exit && twice && next > rolling[k + 1]) {
          next = rolling[k + 1];
          opened = Math.min(opened, opened(k, speed[k], next));
        }
        throttle[k] = opened;
      }
      speed[k + 1] = braking && shaped != null ? next : Math.min(next, corner[k + 1]);
    }
    throttle[count] = throttle[count - 1];
    if (brake < 0) {
      ease();
      carry();
    }
    for (int k = 0; k < count; k++) {
      time += 2 * path.step()[at(k)] / (speed[k] + speed[k + 1]);
    }
  }

  /** Speeds from the marker to the slowest point under the shape of the pedals. */
  private double[] shaped(Pedals shape, double target) {
    double arrival = unbraked[brake];
    Double set = shape.peak();
    if (set != null) {
      effort = set;
    } else {
      double low = 0;
      double high = MOST_PEAK;
      for (int i = 0; i < PEAK_BISECTIONS; i++) {
        double middle = (low + high) / 2;
        if (holds(middle, under(middle, arrival))) {
          high = middle;
        } else {
          low = middle;
        }
      }
      effort = high;
    }
    double[] v = under(effort, arrival);
    double most = end < slowest ? rolling()[end] : target;
    int met = Math.min(end, slowest);
    if (v[met] > most * 1.01 + 0.05) {
      makesIt = false;
    }
    return v;
  }

  /** Whether the tyres hold turn and trailing brake together, from turn-in to the release. */
  private boolean holds(double peak, double[] v) {
    double most = straightMost(brake, unbraked[brake]);
    for (int k = Math.max(brake, Math.min(turnIn, slowest)); k <= end; k++) {
      if (limits.use(path, at(k), v[k], peak * pressure(k) * most) > 1 + 1e-4) {
        return false;
      }
    }
    return true;
  }

  private int lowest() {
    int low = Math.max(brake, Math.min(turnIn, end));
    for (int k = low; k <= Math.max(end, Math.min(count, full)); k++) {
      if (speed[k] < speed[low] - 1e-9) {
        low = k;
      }
    }
    return low;
  }

  private double[] under(double peak, double arrival) {
    double[] v = new double[count + 1];
    v[brake] = arrival;
    double most = straightMost(brake, arrival);
    for (int k = brake; k < end; k++) {
      double ds = path.step()[at(k)];
      double square = v[k] * v[k];
      double first = slowed(k, v[k], peak * most);
      double guess = Math.sqrt(Math.max(1, square - 2 * first * ds));
      double second = slowed(k + 1, guess, peak * most);
      v[k + 1] = Math.sqrt(Math.max(1, square - (first + second) * ds));
    }
    return v;
  }

  /**
   * Deceleration under the shape, m/s²; the brakes give no more than locking in a straight line.
   */
  private double slowed(int k, double v, double peak) {
    double load = limits.load(path, at(k), v * v);
    double drag = limits.resistance(path, at(k), v, load);
    double pressed = pressure(k);
    return pressed > 0
        ? drag + Math.min(peak * pressed, ridden(k).brakingMost(load, 1, path.braking(at(k))))
        : drag + limits.vehicle().brakes().engineBraking();
  }

  double straightMost(int k, double v) {
    return ridden(k).brakingMost(limits.load(path, at(k), v * v), 1, path.braking(at(k)));
  }

  private double pressure(int k) {
    return pedals == null ? 0 : pedals.brake(k - brake, turnIn - brake, release - brake);
  }

  /** What the plan asks of the tyres, and at the wheels, along the whole stretch. */
  private void ask() {
    double most = pedals == null || brake < 0 ? 0 : straightMost(brake, unbraked[brake]);
    double asked = 0;
    for (int k = 0; k < count; k++) {
      double v = speed[k];
      double along = (speed[k + 1] * speed[k + 1] - v * v) / (2 * path.step()[at(k)]);
      double load = limits.load(path, at(k), v * v);
      wheels[k] = along + limits.resistance(path, at(k), v, load);
      boolean pressing = pedals != null && k >= brake && k < end;
      double braking = pressing ? effort * pressure(k) * most : Math.max(0, -wheels[k]);
      use[k] = limits.use(path, at(k), v, braking);
      if (pressing) {
        asked = Math.max(asked, use[k]);
      }
    }
    use[count] = use[count - 1];
    if (pedals != null && asked > TOLERATED) {
      makesIt = false;
    }
  }

  /** Joules that the tyres turn into heat from one step to another. */
  double tyreWork(int first, int last) {
    double sum = 0;
    for (int k = first; k < last; k++) {
      sum += TyreWork.step(limits, path, at(k), speed[k], wheels[k]);
    }
    return sum;
  }

  /** Seconds from one step to another. */
  double seconds(int first, int last) {
    double sum = 0;
    for (int k = first; k < last; k++) {
      sum += 2 * path.step()[at(k)] / (speed[k] + speed[k + 1]);
    }
    return sum;
  }

  /** Step at which braking asks most of the grip, between marker and slowest point. */
  int hardest() {
    int worst = brake;
    for (int k = brake; k < end; k++) {
      if (use[k] > use[worst]) {
        worst = k;
      }
    }
    return worst;
  }

  /** Without brakes the throttle is eased in time: backwards from every place that asks for it. */
  private void ease() {
    for (int k = count - 1; k >= carried; k--) {
      // Where it is opened before the slowest place, it is not shut up to there.
      double held = k >= first && first > 0 && k < slowest ? opening(k) : 0;
      double v = rolled(k, speed[k + 1], held);
      if (v < speed[k] - 1e-9) {
        speed[k] = v;
        throttle[k] = held;
      }
    }
  }

  /** The pedals that the speeds take while it is still braked for the corner before. */
  private void carry() {
    for (int k = carried - 1; k >= 0; k--) {
      double next = speed[k + 1];
      double square = next * next;
      double load = limits.load(path, at(k + 1), square);
      double most =
          limits.brakingMost(
              load, limits.ellipse(path, at(k + 1), square, load), path.braking(at(k + 1)));
      double bears = most + limits.resistance(path, at(k + 1), next, load);
      double ds = path.step()[at(k)];
      speed[k] = Math.min(speed[k], Math.sqrt(square + 2 * bears * ds));
      double a =
          (speed[k] * speed[k] - square) / (2 * ds)
              - limits.resistance(
                  path, at(k), speed[k], limits.load(path, at(k), speed[k] * speed[k]));
      boolean brakes = a > limits.vehicle().brakes().engineBraking();
      brakeShare[k] = brakes ? Math.min(1, a / straightMost(k, speed[k])) : 0;
      throttle[k] = brakes ? 0 : Math.max(0, Math.min(1, opened(k, speed[k], next)));
    }
  }

  private double brakeUse(int k, double v) {
    double load = limits.load(path, at(k), v * v);
    double most = ridden(k).brakingMost(load, 1, path.braking(at(k)));
    double use =
        effort
            * ridden(k)
                .brakingMost(load, limits.ellipse(path, at(k), v * v, load), path.braking(at(k)));
    return most > 0 ? use / most : 0;
  }

  /** Speed at each step from which rolling is enough for all that follows, as a second apex. */
  private double[] rolling() {
    double[] v = corner.clone();
    for (int k = count - 1; k >= 0; k--) {
      v[k] = Math.min(v[k], rolled(k, v[k + 1]));
    }
    return v;
  }

  /** Speed at a step from which rolling leads to a speed at the next. */
  private double rolled(int k, double next) {
    return rolled(k, next, 0);
  }

  /** The same with a share of the throttle, grip permitting. */
  private double rolled(int k, double next, double share) {
    double square = next * next;
    double load = limits.load(path, at(k), square);
    double drives = limits.drive(next, share);
    double borne =
        drives > 0
            ? limits.traction(load, limits.ellipse(path, at(k), square, load), path.driving(at(k)))
            : drives;
    double a = limits.resistance(path, at(k), next, load) - Math.min(drives, borne);
    return Math.sqrt(square + 2 * Math.max(0, a) * path.step()[at(k)]);
  }

  /** The share of the throttle that takes the speed on to the next. */
  private double opened(int k, double v, double next) {
    double load = limits.load(path, at(k), v * v);
    double a = (next * next - v * v) / (2 * path.step()[at(k)]);
    return limits.share(v, a + limits.resistance(path, at(k), v, load));
  }

  private double opening(int k) {
    if (k >= full || full <= first) {
      return 1;
    }
    double way = (k - first) / (double) (full - first);
    return pedals == null ? firstShare + (1 - firstShare) * way : pedals.throttle(firstShare, way);
  }

  /** The least effort with which the braking is met, or the highest there may be. */
  private double effort(double low, double high, double arrival, double target) {
    UnivariateFunction over = e -> envelope(e, brake, target)[brake] - arrival;
    if (over.value(high) < 0) {
      return high;
    }
    if (over.value(low) >= 0) {
      return low;
    }
    return new BracketingNthOrderBrentSolver(EFFORT, EFFORT, 1e-12, 5)
        .solve(MOST_TRIES, over, low, high, AllowedSolution.ABOVE_SIDE);
  }

  /**
   * The last step, as a fraction, from which all the braking there is still makes the corner. A
   * marker that makes it lies no later: both go by the same speed on arrival.
   */
  double limitStep() {
    double[] arriving = slowedBefore() ? arriving() : unbraked;
    double limit = limitStep(arriving, 0, true);
    if (score == null || brake < 0) {
      return limit;
    }
    // A score is driven, with the time that a press takes: what came of it is the better witness.
    return makesItsMarker() ? Math.max(limit, brake) : played() ? Math.min(limit, brake) : limit;
  }

  /**
   * The last step without the doubt that the lap's own speed is given: how it moves with speed,
   * grip and mass would be lost in that.
   */
  double exactLimitStep(double moreSpeed) {
    double limit = limitStep(unbraked, moreSpeed, false);
    return limit > 0 ? limit : limitStep(unbraked, moreSpeed, true);
  }

  /** Whether the marker's own braking was driven for the place that it is for, and not made. */
  private boolean played() {
    ScoreDrive drive = driven;
    int p = drive == null ? -1 : drive.index(MARKER);
    return drive != null && p >= 0 && drive.played[p].serves() == serves;
  }

  /**
   * The last step from which the place that the marker is for is met. Where full throttle past the
   * lap's own braking is too fast for a bend on the way there, it lies before that bend.
   */
  private double limitStep(double[] arriving, double moreSpeed, boolean finer) {
    int to = meant();
    int own = arriving == unbraked ? free : Math.min(free, brake);
    double most = Math.min(corner[to], arriving[to]);
    double last = 0;
    boolean met = false;
    for (int k = to - 1; k >= 0 && !(met && k <= own); k--) {
      double next = most;
      most = before(k, next, 1);
      double spare = most - arriving[k] - moreSpeed;
      boolean makes = spare >= (finer ? -finer(k) : 0);
      if (makes && !met) {
        double after = next - arriving[k + 1] - moreSpeed;
        last = k + (spare > after ? Math.max(0, spare / (spare - after)) : 0);
      }
      met = makes;
    }
    return met ? last : 0;
  }

  /** The slowest place that the marker is for, or that it is set past. */
  private int meant() {
    int slow = score == null ? slowest : serves;
    return passed < 0 ? slow : passed;
  }

  /** Speed as it is driven up to the marker, and full throttle from there. */
  private double[] arriving() {
    double[] v = Arrays.copyOf(speed, count + 1);
    for (int k = brake; k < count; k++) {
      v[k + 1] = LapSimulator.ahead(path, limits, at(k), at(k + 1), v[k]);
    }
    return v;
  }

  /**
   * Mean and peak deceleration needed, and the mean of what there is, from marker to {@code to}.
   */
  double[] need(int to) {
    int end = Math.max(brake + 1, Math.min(to, Math.min(slowest, this.end)));
    double target = Math.min(corner[slowest], unbraked[slowest]);
    boolean even = pedals == null && score == null;
    double[] planned = even ? envelope(effort, brake, target) : speed;
    double metres = 0;
    double peak = 0;
    double can = 0;
    for (int k = brake; k < end; k++) {
      double ds = path.step()[at(k)];
      metres += ds;
      peak =
          Math.max(
              peak,
              even
                  ? slowing(k, planned[k], effort)
                  : (planned[k] * planned[k] - planned[k + 1] * planned[k + 1]) / (2 * ds));
      can += slowing(k, planned[k], 1) * ds;
    }
    double mean = (unbraked[brake] * unbraked[brake] - planned[end] * planned[end]) / (2 * metres);
    return new double[] {mean, peak, can / metres};
  }

  /**
   * By how much, in m/s, the speed passes what the corner allows from turn-in to the release; where
   * it nowhere does, how far it stays below at the slowest point, negative.
   */
  double excess() {
    double most = speed[slowest] - corner[slowest];
    for (int k = Math.max(brake, Math.min(turnIn, end)); k <= end; k++) {
      most = Math.max(most, speed[k] - corner[k] > 0.3 ? speed[k] - corner[k] : most);
    }
    return most;
  }

  /** Whether what the marker is for is met, whatever comes after. */
  boolean makesItsMarker() {
    ScoreDrive drive = driven;
    int p = drive == null ? -1 : drive.index(MARKER);
    return drive == null || p < 0
        ? makesIt
        : !markerLate
            && drive.played[p].made()
            && (drive.shape(p) == null || drive.asked(p) <= TOLERATED);
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

  /**
   * Seconds from the slowest point to the end of the stretch.
   *
   * @param gear at the slowest point
   * @param last the highest gear that is shifted up to; a gear that may not be left runs into the
   *     limiter
   * @param shortShift step at which one shift is made early, or -1
   */
  double exitTime(int gear, int last, int shortShift) {
    double v = speed[slowest];
    double seconds = 0;
    double without = 0;
    int held = gear;
    double shiftRevs = limits.vehicle().engine().shiftRevs();
    double top = limits.vehicle().speed(limits.vehicle().engine().limitRevs(), last);
    for (int k = slowest; k < count; k++) {
      while (held < last && (limits.vehicle().revs(v, held) > shiftRevs || k == shortShift)) {
        held++;
        without = limits.vehicle().gearbox().shiftTime();
        if (k == shortShift) {
          break;
        }
      }
      double square = v * v;
      double load = limits.load(path, at(k), square);
      double most =
          limits.traction(load, limits.ellipse(path, at(k), square, load), path.driving(at(k)));
      double ds = path.step()[at(k)];
      double drive = limits.wheelForce().at(v, held) / limits.mass();
      double pulling = Math.max(0, 1 - without * v / ds);
      without = Math.max(0, without - ds / v);
      double opened = score != null ? throttle[k] : k < first ? 0 : opening(k);
      double closed = (1 - opened) * limits.vehicle().brakes().engineBraking();
      double a =
          Math.min(opened * pulling * drive - closed, most)
              - limits.resistance(path, at(k), v, load);
      double next = Math.min(corner[k + 1], Math.sqrt(Math.max(1, square + 2 * a * ds)));
      if (held == last) {
        next = Math.min(next, Math.max(top, 1));
      }
      seconds += 2 * ds / (v + next);
      v = next;
    }
    return seconds;
  }

  /** The step at which the revs first reach the shift after the slowest point, or -1. */
  int firstShift(int gear) {
    double revs = limits.vehicle().engine().shiftRevs();
    for (int k = slowest; k < count; k++) {
      if (limits.vehicle().revs(speed[k], gear) > revs) {
        return k;
      }
    }
    return -1;
  }

  /** The first step from one on at which the throttle asks for a front wheel in the air, or -1. */
  int frontRises(int from) {
    for (int k = Math.max(0, from); k < count; k++) {
      double opened = score == null ? opening(k) : throttle[k];
      double load = limits.load(path, at(k), speed[k] * speed[k]);
      if (limits.drive(speed[k], opened) > limits.frontUp(load)) {
        return k;
      }
    }
    return -1;
  }

  int release() {
    return release;
  }

  /** m/s² that the driven tyres bear at the slowest place, beside the turn. */
  double drives() {
    double square = speed[slowest] * speed[slowest];
    double load = limits.load(path, at(slowest), square);
    double left = limits.ellipse(path, at(slowest), square, load);
    return limits.traction(load, left, path.driving(at(slowest)));
  }

  /** Most of the grip that throttle and turn ask for together from a step on. */
  double pushes(int first) {
    double most = 0;
    for (int k = Math.max(0, first); k < count; k++) {
      double opened = score == null ? opening(k) : throttle[k];
      double wheels = Math.max(0, limits.drive(speed[k], opened));
      most = Math.max(most, limits.driveUse(path, at(k), speed[k], wheels));
    }
    return most;
  }

  /**
   * Whether it can be made, with no more throttle held in the turn up to the slowest place than
   * there is grip for, or than another asks for. What the tyres do not bear is cut, so that a lift
   * that comes later takes no longer; nobody drives it so.
   */
  boolean holds(PlannedCorner than) {
    return makesIt && asked(than.slowest) <= Math.max(TOLERATED, than.asked(than.slowest));
  }

  /** The same against what the tyres bear alone. */
  boolean holds() {
    return makesIt && asked(slowest) <= TOLERATED;
  }

  private double asked(int last) {
    return driven == null ? 0 : driven.turning(last);
  }
}
