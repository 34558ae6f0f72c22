package marvek.core.debrief;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.plan.ComputedLap;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.EventFinder;
import marvek.core.units.Display;
import org.jspecify.annotations.Nullable;

/**
 * Rules by which a habit is seen in one corner of one lap. Each threshold is a judgement of this
 * project, wide enough that a clean lap with the scatter of a good driver shows none.
 */
final class HabitRules {
  // Metres.
  private static final double UNTOLD = 6;
  private static final double LATE_BRAKE = 4.5;
  private static final double EARLY_BRAKE = 9;
  private static final double EARLY_TURN = 4.5;
  private static final double SOON_RELEASE = 13;
  private static final double LATE_RELEASE = 9;
  private static final double LATE_FULL = 14;
  private static final double LATE_FIRST = 9;
  private static final double OFF_APEX = 0.7;
  private static final double WRONG_PLACE = 1.1;
  private static final double WIDE = 0.45;
  private static final double BEYOND = 0.5;
  // Metres along the road within which two slowest places are one, and what lies about a place.
  private static final double SAME_PLACE = 25;
  private static final double NEAR = 15;
  // Seconds.
  private static final double WAIT = 0.28;
  private static final double ROLL = 0.3;
  private static final double AT_LIMIT = 0.3;
  // m/s², about one and a half times what holds the vehicle down.
  private static final double KNOCK = 15;
  // Share of the speed.
  private static final double SLOW = 0.055;
  private static final double SLOW_LIFT = 0.075;

  private final ComputedLap computed;
  private final Centreline road;
  private final Display units;

  HabitRules(ComputedLap computed, Display units) {
    this.computed = computed;
    this.road = computed.road();
    this.units = units;
  }

  private @Nullable Double late(CornerEntry plan, PointKind kind, @Nullable Double measured) {
    if (measured == null || plan.station(kind).isEmpty()) {
      return null;
    }
    return road.apart(plan.station(kind).orElseThrow(), measured);
  }

  private static boolean over(@Nullable Double value, double limit) {
    return value != null && value > limit;
  }

  private static boolean under(@Nullable Double value, double limit) {
    return value != null && value < limit;
  }

  /**
   * Habits seen, each with its measure.
   *
   * @param e what happened
   * @param plan what the reference says
   * @param pace the driver's usual minimum speeds as a share of the planned ones
   * @param told whether the pedals were recorded, and not only told from the speed
   */
  Map<Cause, Double> seen(CornerEvents e, CornerEntry plan, double pace, boolean told) {
    Map<Cause, Double> out = new EnumMap<>(Cause.class);
    int c = computed.indexOf(plan.corner());
    Corner corner = computed.corners().get(c);
    // From the speed alone the beginning of braking is known within some metres, what the feet did
    // later is not.
    double slack = told ? 0 : UNTOLD;
    Double brake = late(plan, PointKind.BRAKE, e.brake());
    Double release = told ? late(plan, PointKind.RELEASE, e.release()) : null;
    Double first = told ? late(plan, PointKind.FIRST_THROTTLE, e.firstThrottle()) : null;
    Double full = told ? late(plan, PointKind.FULL_THROTTLE, e.fullThrottle()) : null;
    Double off = e.apexGap() == null ? null : e.apexGap() - lineGap(corner, plan);
    Double place = place(e, corner);
    Double wide = e.exitRoom() == null ? null : planRoom(corner, plan) - e.exitRoom();
    double speed = share(e, plan) / pace;
    boolean deep =
        over(brake, LATE_BRAKE + slack) && (over(off, OFF_APEX) || over(full, LATE_FIRST));

    if (place != null
        && Math.abs(place) > WRONG_PLACE
        && (over(off, 0.4) || speed < 1 - SLOW / 2 || over(full, 8))) {
      out.put(Cause.FROM_THE_CORNER_BEFORE, place);
    }
    if (deep && brake != null) {
      out.put(Cause.BRAKED_LATE_RAN_DEEP, brake);
    }
    if (under(e.lineShift(), -EARLY_TURN) && over(wide, WIDE) && e.lineShift() != null) {
      out.put(Cause.TURNED_IN_EARLY_RAN_WIDE, e.lineShift());
    }
    if (e.lifts() > 0) {
      out.put(Cause.THROTTLE_THEN_LIFT, (double) e.lifts());
    }
    if (e.exitRoom() != null && over(wide, BEYOND) && e.exitRoom() < -BEYOND) {
      out.put(Cause.BEYOND_THE_EDGE, -e.exitRoom());
    }
    if (e.strike() != null && e.strike() > KNOCK) {
      out.put(Cause.KERB_STRUCK, e.strike());
    }
    if (e.spins() > 0) {
      out.put(Cause.WHEEL_SPUN, (double) e.spins());
    }
    if (e.locks() > 0) {
      out.put(Cause.WHEEL_LOCKED, (double) e.locks());
    }
    if (e.corrections() > 0) {
      out.put(Cause.EXTRA_STEERING, (double) e.corrections());
    }
    if (e.brakings() > 1 && plan.slowing() == Slowing.BRAKE && told) {
      out.put(Cause.TWO_PRESSES, (double) e.brakings());
    }
    if (over(release, LATE_RELEASE) && !over(brake, LATE_RELEASE) && release != null) {
      out.put(Cause.RELEASED_LATE, release);
    }
    if (under(release, -SOON_RELEASE) && !under(brake, -SOON_RELEASE) && release != null) {
      out.put(Cause.RELEASED_SOON, release);
    }
    double planRoll = roll(plan);
    if (e.roll() != null && e.roll() - planRoll > ROLL && !out.containsKey(Cause.RELEASED_SOON)) {
      out.put(Cause.COASTING, e.roll() - planRoll);
    }
    if (over(e.handOff(), WAIT) && e.handOff() != null) {
      out.put(Cause.HAND_OFF, e.handOff());
    }
    if (under(brake, -EARLY_BRAKE - slack) && brake != null) {
      out.put(Cause.BRAKED_EARLY, brake);
    }
    double slow = plan.slowing() == Slowing.LIFT ? SLOW_LIFT : SLOW;
    if (speed < 1 - slow && !deep && !under(brake, -EARLY_BRAKE)) {
      out.put(Cause.OVER_SLOWED, (1 - speed) * e.minimumSpeed());
    }
    if (over(off, OFF_APEX) && !deep && off != null) {
      out.put(Cause.KERB_MISSED, off);
    }
    if (over(full, LATE_FULL) && !over(first, LATE_FIRST) && e.lifts() == 0 && full != null) {
      out.put(Cause.FULL_LATE, full);
    }
    if (e.limiter() > AT_LIMIT) {
      out.put(Cause.LIMITER, e.limiter());
    }
    // Who need not ease passes a lifted corner in whatever gear the run out of the last one left.
    boolean slowed = plan.slowing() == Slowing.BRAKE || e.firstThrottle() != null;
    int other = plan.slowing() != Slowing.FLAT && slowed ? otherGear(c, e, plan) : 0;
    if (other != 0) {
      out.put(Cause.GEAR, (double) other);
    }
    return out;
  }

  /**
   * By how many gears the driver was off where the vehicle was slowest: against the reference's
   * gear where that is the place it was meant for, against the computed lap's elsewhere.
   */
  private int otherGear(int c, CornerEvents e, CornerEntry plan) {
    Integer gear = e.gear();
    if (gear == null || gear == plan.gear()) {
      return 0;
    }
    int[] gears = computed.lap().gear();
    int slow = computed.slowest(c);
    int at = road.index(e.minimumAt());
    boolean there = Math.abs(road.apart(slow * road.step(), e.minimumAt())) <= SAME_PLACE;
    if (there && gears[slow] != plan.gear()) {
      return gear - plan.gear();
    }
    int nearest = there ? gear - plan.gear() : Integer.MAX_VALUE;
    int reach = (int) Math.ceil(NEAR / road.step());
    for (int k = -reach; k <= reach; k++) {
      int off = gear - gears[Math.floorMod(at + k, gears.length)];
      nearest = Math.abs(off) < Math.abs(nearest) ? off : nearest;
    }
    return nearest;
  }

  /** The slowest speed as a share of the computed lap's about the same place. */
  double share(CornerEvents e, CornerEntry plan) {
    if (plan.slowing() == Slowing.FLAT) {
      return Double.NaN;
    }
    double[] speed = computed.lap().speed();
    int at = road.index(e.minimumAt());
    int reach = (int) Math.ceil(NEAR / road.step());
    double least = Double.MAX_VALUE;
    for (int k = -reach; k <= reach; k++) {
      least = Math.min(least, speed[Math.floorMod(at + k, speed.length)]);
    }
    return e.minimumSpeed() / least;
  }

  /** Seconds that the plan itself rolls between brake and throttle. */
  private double roll(CornerEntry plan) {
    if (plan.station(PointKind.RELEASE).isEmpty()
        || plan.station(PointKind.FIRST_THROTTLE).isEmpty()) {
      return 0;
    }
    double metres =
        road.apart(
            plan.station(PointKind.RELEASE).orElseThrow(),
            plan.station(PointKind.FIRST_THROTTLE).orElseThrow());
    return Math.max(0, metres / Math.max(5, plan.minimumSpeed()));
  }

  private double lineGap(Corner corner, CornerEntry plan) {
    double station = plan.station(PointKind.APEX).orElse(corner.apex());
    double least = Double.MAX_VALUE;
    for (int k = -15; k <= 15; k++) {
      int i = Math.floorMod(road.index(station) + k, road.size());
      double n = computed.path().offset()[i];
      least = Math.min(least, corner.left() ? road.left()[i] - n : road.right()[i] + n);
    }
    return least + plan.apexOff();
  }

  /** Metres to the inside of where the line is on arrival; negative to the outside. */
  private @Nullable Double place(CornerEvents e, Corner corner) {
    Double n = e.entryPlace();
    if (n == null) {
      return null;
    }
    double back = EventFinder.arrival(road, computed.corners(), computed.indexOf(corner.id()));
    double planned = computed.path().offset()[road.index(corner.entry() - back)];
    return corner.left() ? n - planned : planned - n;
  }

  /** Room that the line leaves at its widest after the apex, m. */
  private double planRoom(Corner corner, CornerEntry plan) {
    double half = computed.vehicle().width() / 2;
    double from = plan.station(PointKind.APEX).orElse(corner.apex());
    double reach = road.ahead(from, road.wrap(corner.exit() + 60));
    double least = Double.MAX_VALUE;
    for (double d = 0; d < Math.min(reach, 250); d += road.step()) {
      int i = road.index(from + d);
      double n = computed.path().offset()[i];
      least = Math.min(least, (corner.left() ? road.right()[i] + n : road.left()[i] - n) - half);
    }
    return least;
  }

  /** How much, in words and in the driver's units. */
  String measure(Cause cause, double middle) {
    return switch (cause) {
      case FROM_THE_CORNER_BEFORE ->
          units.length(middle, 1)
              + " too far "
              + (middle > 0 ? "inside" : "outside")
              + " on arrival";
      case BRAKED_LATE_RAN_DEEP -> units.length(middle, 0) + " later than the flag";
      case BRAKED_EARLY -> units.length(-middle, 0) + " before the flag";
      case TURNED_IN_EARLY_RAN_WIDE -> "the line lies " + units.length(-middle, 0) + " early";
      case THROTTLE_THEN_LIFT -> times(middle) + " eased again";
      case BEYOND_THE_EDGE -> units.length(middle, 1) + " beyond the edge";
      case EXTRA_STEERING -> times(middle) + " taken back";
      case KERB_STRUCK -> String.format(Locale.ROOT, "%.1f g upwards", middle / 9.80665);
      case WHEEL_SPUN, WHEEL_LOCKED -> times(middle);
      case TWO_PRESSES -> String.format(Locale.ROOT, "%.0f presses", middle);
      case RELEASED_LATE -> "brake off " + units.length(middle, 0) + " late";
      case RELEASED_SOON -> "brake off " + units.length(-middle, 0) + " early";
      case COASTING -> String.format(Locale.ROOT, "%.1f s longer than planned", middle);
      case HAND_OFF -> String.format(Locale.ROOT, "%.1f s before the brake", middle);
      case OVER_SLOWED -> units.speed(middle) + " slower than the rest of the lap says";
      case KERB_MISSED -> units.length(middle, 1) + " off the line at the apex";
      case FULL_LATE -> "full throttle " + units.length(middle, 0) + " late";
      case LIMITER -> String.format(Locale.ROOT, "%.1f s at the limiter", middle);
      case GEAR ->
          String.format(Locale.ROOT, "%+.0f", middle)
              + (Math.abs(middle) > 1.5 ? " gears" : " gear");
      case UNEVEN_BRAKING -> "spread " + units.length(middle, 0);
    };
  }

  private static String times(double n) {
    return n < 1.5 ? "once" : String.format(Locale.ROOT, "%.0f times", n);
  }
}
