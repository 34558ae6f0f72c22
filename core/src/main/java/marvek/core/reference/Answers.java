package marvek.core.reference;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.lap.VehicleFigures;
import marvek.core.line.CornerLine;
import marvek.core.line.Warp;
import marvek.core.reference.CornerAnswer.BrakingNumbers;
import marvek.core.reference.CornerAnswer.GearChoice;
import marvek.core.reference.CornerAnswer.Profile;
import marvek.core.reference.CornerAnswer.Sensitivity;
import marvek.core.vehicle.Vehicle;

/** Answers what the points of a corner lead to, by driving the corner as planned. */
public final class Answers {
  private static final double LINE_REACH = 90;
  private static final double LOWEST_REVS_SHARE = 0.22;
  // Enough for a drawing a screen wide.
  private static final int PROFILE_VALUES = 600;

  private final Desk desk;
  private final int c;
  private final int from;
  private final int count;

  private Answers(Desk desk, int c) {
    this.desk = desk;
    this.c = c;
    int n = desk.road().size();
    int corners = desk.corners().size();
    int slowest = desk.slowest(c);
    int begin =
        corners == 1
            ? Math.floorMod(slowest - n / 2, n)
            : desk.slowest((c + corners - 1) % corners);
    int length = Math.floorMod(slowest - begin, n);
    this.from = begin;
    this.count = length + onward(slowest);
  }

  /** Steps from the slowest point to the braking for the next corner. */
  private int onward(int slowest) {
    int n = desk.road().size();
    int corners = desk.corners().size();
    double next = desk.lines().get((c + 1) % corners).apexes().get(0);
    int most =
        corners == 1 ? n / 2 - 2 : Math.max(8, Math.floorMod(desk.road().index(next) - slowest, n));
    int k = Math.min(8, most);
    while (k < most && desk.lap().brake()[(slowest + k) % n] < 0.06) {
      k++;
    }
    return k;
  }

  /**
   * The answer for one corner.
   *
   * @param entry the corner as planned
   * @throws IllegalArgumentException if the corner is not one of the desk's
   */
  public static CornerAnswer answer(Desk desk, CornerEntry entry) {
    return new Answers(desk, desk.indexOf(entry.corner())).answer(entry);
  }

  private CornerAnswer answer(CornerEntry entry) {
    List<String> remarks = new ArrayList<>();
    Path path = path(entry, remarks);
    PlannedCorner.Steps steps = steps(entry);
    PlannedCorner plan = new PlannedCorner(path, desk.limits(), desk.lap(), from, count, steps);
    PlannedCorner best = best();
    Vehicle vehicle = desk.vehicle();
    int arrivalStep = steps.brake() >= 0 ? steps.brake() : steps.turnIn();
    double arrival = steps.brake() >= 0 ? plan.unbrakedAt(arrivalStep) : plan.speed[arrivalStep];
    int arrivalGear = desk.limits().bestGear(arrival);
    BrakingNumbers braking = steps.brake() < 0 ? null : braking(plan, steps, entry);
    order(entry, remarks);
    if (entry.slowing() == Slowing.FLAT && plan.time > best.time + 0.03) {
      remarks.add("Flat is not possible here: the corner takes more grip than there is.");
    }
    List<GearChoice> gears = gears(plan, entry);
    gears.stream()
        .filter(g -> g.gear() == entry.gear() && !g.usable())
        .forEach(
            g ->
                remarks.add(
                    String.format(
                        Locale.ROOT,
                        "Gear %d would turn %.0f revs at the slowest point; limit %.0f.",
                        g.gear(),
                        g.revsAtMinimum(),
                        vehicle.engine().limitRevs())));
    boolean makes = plan.makesIt;
    double time = plan.time + gearCost(gears, entry.gear());
    return new CornerAnswer(
        braking,
        arrival,
        arrivalGear,
        vehicle.revs(arrival, arrivalGear),
        plan.speed[plan.slowest],
        desk.road().wrap((from + plan.slowest) * desk.road().step()),
        plan.speed[count],
        makes ? time : null,
        makes ? time - best.time : null,
        gears,
        profile(path, plan, entry),
        remarks);
  }

  private static double gearCost(List<GearChoice> gears, int gear) {
    return gears.stream()
        .filter(g -> g.gear() == gear && g.usable())
        .mapToDouble(GearChoice::cost)
        .findFirst()
        .orElse(0);
  }

  /** The corner as the simulation itself drives it, cut to the same plan. */
  private PlannedCorner best() {
    CornerEntry draft = Drafter.entry(desk, c);
    PlannedCorner.Steps steps = steps(draft);
    PlannedCorner first =
        new PlannedCorner(desk.path(), desk.limits(), desk.lap(), from, count, steps);
    if (steps.brake() < 0) {
      return first;
    }
    PlannedCorner.Steps latest =
        new PlannedCorner.Steps(
            (int) Math.floor(first.limitStep(0)),
            steps.turnIn(),
            steps.release(),
            steps.first(),
            steps.full(),
            steps.firstShare(),
            steps.exit());
    PlannedCorner late =
        new PlannedCorner(desk.path(), desk.limits(), desk.lap(), from, count, latest);
    return late.makesIt ? late : first;
  }

  private Path path(CornerEntry entry, List<String> remarks) {
    CornerLine line = desk.lines().get(c);
    double[] offset = desk.path().offset();
    offset = warped(offset, line.turnIn(), entry.station(PointKind.TURN_IN), remarks, "turn-in");
    offset = warped(offset, line.apex(), entry.station(PointKind.APEX), remarks, "apex");
    offset = warped(offset, line.exit(), entry.station(PointKind.EXIT), remarks, "exit");
    return Path.over(desk.road(), offset, desk.ground());
  }

  private double[] warped(
      double[] offset, double was, Optional<Double> now, List<String> remarks, String what) {
    double shift = now.map(s -> desk.road().apart(was, s)).orElse(0.0);
    if (Math.abs(shift) < 1) {
      return offset;
    }
    double most = 0.2 * LINE_REACH;
    if (Math.abs(shift) > most) {
      remarks.add(
          String.format(
              Locale.ROOT,
              "The line follows the %s by %.0f m; %.0f m is more than one corner can give.",
              what,
              most,
              Math.abs(shift)));
    }
    return Warp.shifted(desk.road(), offset, was, shift, LINE_REACH, LINE_REACH);
  }

  private int step(double station) {
    int n = desk.road().size();
    int k = Math.floorMod(desk.road().index(station) - from, n);
    // A little before the stretch is the start of it, not its end a lap later.
    return k > count ? (k > count + (n - count) / 2 ? 0 : count) : k;
  }

  private PlannedCorner.Steps steps(CornerEntry entry) {
    CornerLine line = desk.lines().get(c);
    int turnIn = step(entry.station(PointKind.TURN_IN).orElse(line.turnIn()));
    boolean brakes = entry.slowing() == Slowing.BRAKE;
    int brake = brakes ? entry.station(PointKind.BRAKE).map(this::step).orElse(-1) : -1;
    int apex = step(entry.station(PointKind.APEX).orElse(line.apex()));
    int release = entry.station(PointKind.RELEASE).map(this::step).orElse(apex);
    int exit = step(entry.station(PointKind.EXIT).orElse(line.exit()));
    if (entry.slowing() == Slowing.FLAT) {
      return new PlannedCorner.Steps(-1, turnIn, -1, 0, 0, 1, exit);
    }
    int first = entry.station(PointKind.FIRST_THROTTLE).map(this::step).orElse(apex);
    int full = entry.station(PointKind.FULL_THROTTLE).map(this::step).orElse(count);
    return new PlannedCorner.Steps(
        brake, turnIn, release, first, full, entry.firstThrottle(), exit);
  }

  private BrakingNumbers braking(PlannedCorner plan, PlannedCorner.Steps steps, CornerEntry entry) {
    double limit = plan.limitStep(0);
    double margin = plan.metres(steps.brake(), limit);
    double[] need = plan.need(steps.turnIn() > steps.brake() + 10 ? steps.turnIn() : plan.slowest);
    double speed = plan.unbrakedAt(steps.brake());
    return new BrakingNumbers(
        plan.makesIt,
        need[0],
        need[1],
        need[2],
        margin,
        margin / speed,
        desk.road().wrap((from + limit) * desk.road().step()),
        sensitivity(plan, limit, entry, speed));
  }

  private Sensitivity sensitivity(
      PlannedCorner plan, double limit, CornerEntry entry, double speed) {
    Vehicle vehicle = desk.vehicle();
    double boost = desk.lap().boostBelow();
    Path path = path(entry, new ArrayList<>());
    Limits less =
        new Limits(vehicle, desk.conditions().withGrip(desk.conditions().grip() * 0.99), boost);
    Limits heavy =
        new Limits(
            vehicle, desk.conditions().withExtraMass(desk.conditions().extraMass() + 10), boost);
    double[] steeper = path.gradient().clone();
    for (int i = 0; i < steeper.length; i++) {
      steeper[i] -= 0.01;
    }
    Path downhill =
        new Path(
            path.offset(),
            path.step(),
            path.curvature(),
            steeper,
            path.verticalCurvature(),
            path.crossfall(),
            path.heading(),
            path.grip());
    return new Sensitivity(
        plan.metres(plan.limitStep(1 / 3.6), limit),
        sooner(plan, limit, path, less, entry),
        sooner(plan, limit, path, heavy, entry),
        sooner(plan, limit, downhill, desk.limits(), entry),
        speed * 0.1);
  }

  private double sooner(
      PlannedCorner plan, double limit, Path path, Limits limits, CornerEntry entry) {
    PlannedCorner other = new PlannedCorner(path, limits, desk.lap(), from, count, steps(entry));
    return plan.metres(other.limitStep(0), limit);
  }

  private List<GearChoice> gears(PlannedCorner plan, CornerEntry entry) {
    Vehicle vehicle = desk.vehicle();
    double lowest = plan.speed[plan.slowest];
    int fullStep = entry.station(PointKind.FULL_THROTTLE).map(this::step).orElse(count);
    double atFull = plan.speed[Math.min(count, Math.max(fullStep, plan.slowest))];
    double[] seconds = new double[vehicle.gears()];
    boolean[] usable = new boolean[vehicle.gears()];
    double best = Double.MAX_VALUE;
    for (int g = 1; g <= vehicle.gears(); g++) {
      double revs = vehicle.revs(lowest, g);
      usable[g - 1] =
          (revs <= vehicle.engine().limitRevs() * VehicleFigures.SAFE_DOWNSHIFT
                  || g >= desk.limits().bestGear(lowest))
              && revs >= vehicle.engine().limitRevs() * LOWEST_REVS_SHARE;
      seconds[g - 1] = plan.exitTime(g);
      if (usable[g - 1]) {
        best = Math.min(best, seconds[g - 1]);
      }
    }
    List<GearChoice> out = new ArrayList<>();
    for (int g = 1; g <= vehicle.gears(); g++) {
      out.add(
          new GearChoice(
              g,
              vehicle.revs(lowest, g),
              vehicle.revs(atFull, g),
              vehicle.speed(vehicle.engine().limitRevs() * VehicleFigures.SAFE_DOWNSHIFT, g),
              usable[g - 1],
              usable[g - 1] ? seconds[g - 1] - best : 0));
    }
    return out;
  }

  private void order(CornerEntry entry, List<String> remarks) {
    after(entry, PointKind.BRAKE, PointKind.RELEASE, remarks);
    after(entry, PointKind.TURN_IN, PointKind.APEX, remarks);
    after(entry, PointKind.FIRST_THROTTLE, PointKind.FULL_THROTTLE, remarks);
    after(entry, PointKind.RELEASE, PointKind.FULL_THROTTLE, remarks);
    after(entry, PointKind.APEX, PointKind.EXIT, remarks);
  }

  private void after(CornerEntry entry, PointKind a, PointKind b, List<String> remarks) {
    Optional<Double> first = entry.station(a);
    Optional<Double> second = entry.station(b);
    if (first.isPresent()
        && second.isPresent()
        && desk.road().apart(first.get(), second.get()) < 0) {
      String word = b.word().substring(0, 1).toUpperCase(Locale.ROOT) + b.word().substring(1);
      remarks.add(word + " comes before " + a.word() + ".");
    }
  }

  /** Every so-manieth value, rounded to what a drawing can show. */
  private static double[] thinned(double[] values, int stride) {
    return IntStream.rangeClosed(0, (values.length - 1) / stride)
        .mapToDouble(k -> Math.round(values[k * stride] * 1000) / 1000.0)
        .toArray();
  }

  private Profile profile(Path path, PlannedCorner plan, CornerEntry entry) {
    int n = desk.road().size();
    int[] gear = new int[count + 1];
    double[] offset = new double[count + 1];
    LapTrace lap = desk.lap();
    Vehicle vehicle = desk.vehicle();
    int held = lap.gear()[Math.floorMod(from, n)];
    for (int k = 0; k <= count; k++) {
      offset[k] = path.offset()[Math.floorMod(from + k, n)];
      double v = plan.speed[k];
      int best = desk.limits().bestGear(v);
      if (k < plan.slowest) {
        // On the way down a gear is taken as soon as it is safe, and none below the corner's.
        int safe = held;
        while (safe > 1
            && vehicle.revs(v, safe - 1)
                < vehicle.engine().limitRevs() * VehicleFigures.SAFE_DOWNSHIFT
            && safe - 1 >= entry.gear()
            && plan.brakeShare[k] > 0) {
          safe--;
        }
        held = plan.brakeShare[k] > 0 ? safe : Math.max(best, Math.min(held, best + 1));
      } else {
        held = Math.max(best, entry.gear());
      }
      gear[k] = held;
    }
    int stride = Math.max(1, (count + 1) / PROFILE_VALUES + 1);
    return new Profile(
        from * desk.road().step(),
        stride * desk.road().step(),
        thinned(plan.speed, stride),
        thinned(plan.brakeShare, stride),
        thinned(plan.throttle, stride),
        IntStream.rangeClosed(0, count / stride).map(k -> gear[k * stride]).toArray(),
        thinned(offset, stride));
  }
}
