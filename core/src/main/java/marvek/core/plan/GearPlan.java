package marvek.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.lap.VehicleFigures;
import marvek.core.plan.CornerAnswer.Downshift;
import marvek.core.plan.CornerAnswer.GearChoice;
import marvek.core.plan.CornerAnswer.Shifts;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/** Gears through a corner that is driven as planned. */
final class GearPlan {
  private static final double LOWEST_REVS_SHARE = 0.22;

  private final Stretch stretch;
  private final PlannedCorner plan;
  private final CornerEntry entry;
  private final Vehicle vehicle;
  private final double lowest;
  private final double best;
  private final double[] seconds;
  private final boolean[] usable;
  private final int shortShift;

  GearPlan(Stretch stretch, PlannedCorner plan, CornerEntry entry) {
    this.stretch = stretch;
    this.plan = plan;
    this.entry = entry;
    vehicle = stretch.computed.vehicle();
    lowest = plan.speed[plan.slowest];
    seconds = new double[vehicle.gears() + 1];
    usable = new boolean[vehicle.gears() + 1];
    shortShift = entry.station(PointKind.SHORT_SHIFT).map(stretch::step).orElse(-1);
    double least = Double.MAX_VALUE;
    for (int g = 1; g <= vehicle.gears(); g++) {
      double revs = vehicle.revs(lowest, g);
      usable[g] =
          (revs <= safeRevs() || g >= stretch.computed.limits().bestGear(lowest))
              && revs >= vehicle.engine().limitRevs() * LOWEST_REVS_SHARE;
      seconds[g] = plan.exitTime(g, vehicle.gears(), -1);
      if (usable[g]) {
        least = Math.min(least, seconds[g]);
      }
    }
    best = least;
  }

  private double safeRevs() {
    return vehicle.engine().limitRevs() * VehicleFigures.SAFE_DOWNSHIFT;
  }

  List<GearChoice> choices() {
    int full = entry.station(PointKind.FULL_THROTTLE).map(stretch::step).orElse(stretch.count);
    double atFull = plan.speed[Math.min(stretch.count, Math.max(full, plan.slowest))];
    double tyres = plan.drives();
    List<GearChoice> out = new ArrayList<>();
    for (int g = 1; g <= vehicle.gears(); g++) {
      double pull = vehicle.wheelForce(lowest, g) / stretch.computed.limits().mass();
      out.add(
          new GearChoice(
              g,
              vehicle.revs(lowest, g),
              vehicle.revs(atFull, g),
              vehicle.speed(safeRevs(), g),
              usable[g],
              usable[g] ? seconds[g] - best : 0,
              lifts(g, atFull),
              pull,
              pull <= tyres ? 1 : tyres / pull));
    }
    return out;
  }

  /** Cossalter, Motorcycle Dynamics: the front wheel lifts at (p − b)/h of gravity. */
  private boolean lifts(int gear, double speed) {
    double most = Units.G * (vehicle.wheelbase() - vehicle.cogToFront()) / vehicle.cogHeight();
    return vehicle.kind() == VehicleKind.MOTORCYCLE
        && vehicle.wheelForce(speed, gear) / stretch.computed.limits().mass() > most;
  }

  /** Seconds that the gear and shifts chosen cost against the best gear with plain shifts. */
  double cost() {
    int gear = entry.gear();
    if (gear < 1 || gear > vehicle.gears() || !usable[gear]) {
      return 0;
    }
    boolean holds =
        School.chosen(entry.schools(), Question.SHIFT).orElse(School.SHIFT_UP) == School.LIMITER;
    if (holds) {
      return plan.exitTime(gear, gear, -1) - best;
    }
    return (shortShift >= 0 ? plan.exitTime(gear, vehicle.gears(), shortShift) : seconds[gear])
        - best;
  }

  /** Gear at each step of the stretch. */
  int[] along() {
    int[] gear = new int[stretch.count + 1];
    Loop loop = stretch.computed.road().loop();
    int held = stretch.computed.lap().gear()[loop.at(stretch.from)];
    int forced = entry.station(PointKind.DOWNSHIFT).map(stretch::step).orElse(-1);
    for (int k = 0; k <= stretch.count; k++) {
      double v = plan.speed[k];
      int pulls = stretch.computed.limits().bestGear(v);
      if (k < plan.slowest) {
        // On the way down a gear is taken as soon as it is safe, and none below the corner's; the
        // first waits for the driver's own point, and comes there whether it is safe or not.
        boolean braking = plan.brakeShare[k] > 0;
        int safe = held;
        while (safe > 1
            && braking
            && k >= forced
            && safe - 1 >= entry.gear()
            && (vehicle.revs(v, safe - 1) < safeRevs() || (k == forced && safe == held))) {
          safe--;
        }
        held = braking ? safe : Math.max(pulls, Math.min(held, pulls + 1));
      } else if (shortShift >= 0 && k >= shortShift) {
        held = Math.max(pulls, Math.min(vehicle.gears(), entry.gear() + 1));
      } else {
        held = Math.max(pulls, entry.gear());
      }
      ScoreDrive driven = plan.driven;
      if (driven != null && driven.gears[k] > 0) {
        held = driven.gears[k];
      }
      gear[k] = held;
    }
    return gear;
  }

  Shifts shifts(int[] gear) {
    List<Downshift> down = new ArrayList<>();
    for (int k = 1; k <= plan.slowest; k++) {
      for (int g = gear[k - 1] - 1; g >= gear[k]; g--) {
        double revs = vehicle.revs(plan.speed[k], g);
        boolean braking = plan.brakeShare[k] > 0 || plan.brakeShare[k - 1] > 0;
        if (braking || k == plan.slowest) {
          down.add(
              new Downshift(
                  g,
                  stretch.station(k),
                  plan.speed[k],
                  revs,
                  revs <= vehicle.engine().limitRevs() * 0.98));
        }
      }
    }
    int gearNow = Math.max(1, Math.min(vehicle.gears(), entry.gear()));
    int first = plan.firstShift(gearNow);
    return new Shifts(
        down,
        first < 0 ? null : stretch.station(first),
        first < 0 ? null : plan.exitTime(gearNow, gearNow, -1) - seconds[gearNow],
        shortShiftCost(gearNow).orElse(null));
  }

  private Optional<Double> shortShiftCost(int gear) {
    return shortShift < 0
        ? Optional.empty()
        : Optional.of(plan.exitTime(gear, vehicle.gears(), shortShift) - seconds[gear]);
  }

  /**
   * The two neighbouring usable gears that cost least together, lower first; null with only one.
   */
  int @Nullable [] rivals() {
    int at = -1;
    for (int g = 1; g < vehicle.gears(); g++) {
      if (usable[g] && usable[g + 1]) {
        double cost = seconds[g] + seconds[g + 1];
        if (at < 0 || cost < seconds[at] + seconds[at + 1]) {
          at = g;
        }
      }
    }
    return at < 0 ? null : new int[] {at, at + 1};
  }
}
