package marvek.core.debrief.habits;

import java.util.List;
import java.util.function.ToDoubleFunction;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.debrief.DoneActions;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.plan.ComputedLap;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.telemetry.Act;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.EventFinder;
import org.jspecify.annotations.Nullable;

/** One corner of one lap held against what the reference says of it. */
public final class Look {
  // Metres.
  static final double OFF_APEX = 0.7;
  // Steps to each side of a place where the line is looked at.
  private static final int BESIDE = 15;
  static final double LATE_FIRST = 9;
  private static final double UNTOLD = 6;
  // Share of the own pace below which a corner is slow.
  private static final double OWN_PACE = 0.99;
  private static final double LATE_BRAKE = 4.5;
  private static final double EARLY_BRAKE = 9;
  // Share by which a throttle that goes back is eased.
  private static final double EASED = 0.1;
  // Metres along the road within which two slowest places are one, and what lies about a place.
  private static final double SAME_PLACE = 25;
  private static final double NEAR = 15;

  // Share of the pedal up to which a press is a light one.
  private static final double LIGHT = 0.25;

  private final ComputedLap computed;
  private final Centreline road;
  private final Corner corner;
  private final CornerEvents events;
  private final CornerEntry plan;
  private final double pace;
  private final boolean told;
  private final @Nullable DoneActions done;
  private final AsPlanned planned;

  /**
   * A corner of a lap.
   *
   * @param events what happened
   * @param plan what the reference says
   * @param pace the driver's usual minimum speeds as a share of the computed ones
   * @param told whether the pedals were recorded, and not only told from the speed
   * @param done the written actions as they were done; null where that is not known
   * @param planned the corner as it is written
   */
  public Look(
      ComputedLap computed,
      CornerEvents events,
      CornerEntry plan,
      double pace,
      boolean told,
      @Nullable DoneActions done,
      AsPlanned planned) {
    this.done = done;
    this.planned = planned;
    this.computed = computed;
    this.road = computed.road();
    this.corner = computed.corners().get(computed.indexOf(plan.corner()));
    this.events = events;
    this.plan = plan;
    this.pace = pace;
    this.told = told;
  }

  CornerEvents events() {
    return events;
  }

  /** The driver's usual slowest speeds as a share of the computed ones. */
  double pace() {
    return pace;
  }

  CornerEntry plan() {
    return plan;
  }

  boolean told() {
    return told;
  }

  /** An action that is written beyond the points, and what was made of it. */
  record Held(Action action, DoneActions.Done done) {
    /** Share more than written; NaN where that is not known. */
    double more() {
      Double written = action.amount();
      Double driven = done.amount();
      return written == null || driven == null ? Double.NaN : driven - written;
    }

    /** Part of the share that is written; NaN where none is. */
    double written(double part) {
      Double written = action.amount();
      return written == null ? Double.NaN : part * written;
    }

    /** Metres later than written; NaN where that is not known. */
    double late() {
      Double late = done.late();
      return late == null ? Double.NaN : late;
    }

    /** Metres later than written that it comes back; NaN where that is not known. */
    double back() {
      Double until = done.until();
      return until == null ? Double.NaN : until;
    }
  }

  /** What was made of the actions of a kind that are written beyond the points. */
  List<Held> held(ActionKind kind) {
    DoneActions known = done;
    if (known == null) {
      return List.of();
    }
    return plan.actions().stream()
        .filter(a -> a.kind() == kind)
        .flatMap(a -> known.of(plan.corner(), a.id()).map(d -> new Held(a, d)).stream())
        .toList();
  }

  /** The greatest of what actions of a kind show beyond a limit; null where none does. */
  @Nullable Double most(ActionKind kind, ToDoubleFunction<Held> measure, double limit) {
    double most =
        held(kind).stream().mapToDouble(measure).filter(x -> x > limit).max().orElse(Double.NaN);
    return Double.isNaN(most) ? null : most;
  }

  /** Lifts that nothing is written for, before the throttle of the corner is opened. */
  List<Act> liftsBesides() {
    DoneActions known = done;
    if (known == null) {
      return List.of();
    }
    double opened = plan.station(PointKind.FIRST_THROTTLE).orElse(corner.apex());
    return known.besides(plan.corner()).stream()
        .filter(a -> a.kind() == ActionKind.LIFT && road.apart(opened, a.station()) < 0)
        .toList();
  }

  /** Whether it is said how a corner is lifted for. */
  boolean saysLift() {
    return plan.actions().stream().anyMatch(a -> a.kind() == ActionKind.LIFT);
  }

  /**
   * Whether the brake of the corner is pressed while the throttle of an act is eased, or is written
   * for there: a press of the lightest is not shown.
   */
  boolean brakedIn(Act act) {
    return within(act, events.brake()) || within(act, plan.station(PointKind.BRAKE).orElse(null));
  }

  private boolean within(Act act, @Nullable Double brake) {
    Double until = act.until();
    return brake != null
        && road.apart(act.station(), brake) > 0
        && (until == null || road.apart(brake, until) > 0);
  }

  /** Whether the corner is driven slower than the driver's own pace elsewhere. */
  boolean slower() {
    return share(computed, events, plan) / pace < OWN_PACE;
  }

  static boolean over(@Nullable Double value, double limit) {
    return value != null && value > limit;
  }

  static boolean under(@Nullable Double value, double limit) {
    return value != null && value < limit;
  }

  /** Times that the brake is to be pressed: once, and for every further braking that is written. */
  int brakings() {
    return 1 + (int) plan.actions().stream().filter(a -> a.kind() == ActionKind.BRAKE).count();
  }

  /** Times that the throttle is to be eased again after it is first opened. */
  int easings() {
    double before = 0;
    int eased = 0;
    double from = plan.station(PointKind.FIRST_THROTTLE).orElse(corner.apex());
    for (Action a : Score.of(road, plan)) {
      boolean after = road.apart(from, a.station()) >= 0;
      Double amount = a.amount();
      double share =
          switch (a.kind()) {
            case FULL -> 1;
            case THROTTLE, LIFT -> amount == null ? 0.5 : amount;
            case BRAKE -> 0;
            default -> Double.NaN;
          };
      if (!after || Double.isNaN(share)) {
        continue;
      }
      // What a braking shuts is told as a press.
      eased += a.kind() != ActionKind.BRAKE && share < before - EASED ? 1 : 0;
      before = share;
    }
    return eased;
  }

  /** A count beyond what is as it should be, or null. */
  static @Nullable Double counted(int times, int usual) {
    return times > usual ? (double) times : null;
  }

  private @Nullable Double late(PointKind kind, @Nullable Double measured) {
    return measured == null || plan.station(kind).isEmpty()
        ? null
        : road.apart(plan.station(kind).orElseThrow(), measured);
  }

  /** Metres by which braking began late; null where not known. */
  @Nullable Double brake() {
    return further() ? null : late(PointKind.BRAKE, events.brake());
  }

  private boolean further() {
    return DoneActions.furtherPress(road, plan, events.brake());
  }

  /** Metres by which the brake came off late; null where pedals were not recorded. */
  @Nullable Double release() {
    return told && !further() ? late(PointKind.RELEASE, events.release()) : null;
  }

  /**
   * Metres by which the brake came off sooner than a recording of the plan itself shows, negative:
   * a brake that is only touched towards its end is read as let go before.
   */
  @Nullable Double releasedSooner() {
    Double late = release();
    if (late == null || late >= 0) {
      return late;
    }
    return Math.min(0, late + unseen(plan.station(PointKind.RELEASE).orElseThrow()));
  }

  /**
   * Metres of the end of a braking that a recording does not show; no end of them where all of it
   * is hardly more than what is shown.
   */
  private double unseen(double release) {
    if (events.brakePeak() < EventFinder.FAINT) {
      return Double.POSITIVE_INFINITY;
    }
    Double seen = planned.pressedUntil(release);
    return Math.max(tapered(), seen == null ? 0 : -seen);
  }

  /** Metres by which a light press, eased off evenly from its peak, goes on unseen. */
  private double tapered() {
    Double brake = events.brake();
    Double release = events.release();
    double peak = events.brakePeak();
    if (brake == null || release == null || peak > LIGHT || peak <= EventFinder.PRESSED) {
      return 0;
    }
    double pressed = Math.max(0, road.apart(brake, release));
    return Math.min(pressed, pressed * EventFinder.PRESSED / (peak - EventFinder.PRESSED));
  }

  /** Metres by which the first throttle came late; null where pedals were not recorded. */
  @Nullable Double first() {
    return told ? late(PointKind.FIRST_THROTTLE, events.firstThrottle()) : null;
  }

  /** Metres by which full throttle came late; null where pedals were not recorded. */
  @Nullable Double full() {
    DoneActions known = done;
    if (DoneActions.fullAgain(road, plan)) {
      return known == null
          ? null
          : known
              .of(plan.corner(), Score.id(PointKind.FULL_THROTTLE))
              .map(DoneActions.Done::late)
              .orElse(null);
    }
    return told ? late(PointKind.FULL_THROTTLE, events.fullThrottle()) : null;
  }

  /**
   * Metres by which the apex was missed against the line. Where a long bend was apexed elsewhere,
   * the line may be no nearer there either.
   */
  @Nullable Double off() {
    Double gap = events.apexGap();
    if (gap == null) {
      return null;
    }
    double station = plan.station(PointKind.APEX).orElse(corner.apex());
    Double own = events.apex();
    double line = lineGap(station);
    if (own != null && Math.abs(road.apart(station, own)) > 2 * BESIDE) {
      line = Math.max(line, lineGap(own));
    }
    return gap - plan.apexOff() - line;
  }

  /** Metres by which the exit ran wider than the line does. */
  @Nullable Double wide() {
    Double room = events.exitRoom();
    return room == null ? null : planRoom() - room;
  }

  /** The slowest speed against what is written at the driver's own pace; 1 is as expected. */
  double speed() {
    double share = share(computed, events, plan);
    // What is written may be slower than the lap is driven; only who is slow is asked for it.
    double allowed = share < OWN_PACE * pace ? events.minimumSpeed() / share : 0;
    double written = allowed > 0 ? planned.slowest(events.minimumAt(), NEAR) : allowed;
    return (written < allowed ? share * allowed / written : share) / pace;
  }

  /** How much the line bends about the slowest place, 1/m. */
  double bend() {
    double most = 0;
    int at = road.index(events.minimumAt());
    for (int k = -BESIDE; k <= BESIDE; k++) {
      most = Math.max(most, Math.abs(computed.path().curvature()[road.loop().at(at + k)]));
    }
    return most;
  }

  // From the speed alone the beginning of braking is known within some metres, what the feet did
  // later is not.
  private double slack() {
    return told ? 0 : UNTOLD;
  }

  /** Whether braking began late, and it shows. */
  boolean deep() {
    return over(brake(), LATE_BRAKE + slack())
        && (over(off(), OFF_APEX) || over(full(), LATE_FIRST));
  }

  /** Whether braking began early, beyond what the source may be wrong by. */
  boolean early() {
    return under(brake(), -EARLY_BRAKE - slack());
  }

  /** Whether braking began early. */
  boolean before() {
    return under(brake(), -EARLY_BRAKE);
  }

  /**
   * By how many gears the driver was off where the vehicle was slowest: against the reference's
   * gear where that is the place it was meant for, against the computed lap's elsewhere.
   */
  int otherGear() {
    Integer gear = events.gear();
    if (gear == null || gear == plan.gear()) {
      return 0;
    }
    int[] gears = computed.lap().gear();
    int slow = computed.slowest(computed.indexOf(plan.corner()));
    int at = road.index(events.minimumAt());
    boolean there = Math.abs(road.apart(slow * road.step(), events.minimumAt())) <= SAME_PLACE;
    if (there && gears[slow] != plan.gear()) {
      return gear - plan.gear();
    }
    int nearest = there ? gear - plan.gear() : Integer.MAX_VALUE;
    int reach = (int) Math.ceil(NEAR / road.step());
    for (int k = -reach; k <= reach; k++) {
      int off = gear - gears[new Loop(gears.length).at(at + k)];
      nearest = Math.abs(off) < Math.abs(nearest) ? off : nearest;
    }
    return nearest;
  }

  /** The slowest speed as a share of the computed lap's about the same place; NaN where flat. */
  public static double share(ComputedLap computed, CornerEvents e, CornerEntry plan) {
    Centreline road = computed.road();
    if (plan.slowing() == Slowing.FLAT) {
      return Double.NaN;
    }
    double[] speed = computed.lap().speed();
    int at = road.index(e.minimumAt());
    int reach = (int) Math.ceil(NEAR / road.step());
    double least = Double.MAX_VALUE;
    for (int k = -reach; k <= reach; k++) {
      least = Math.min(least, speed[new Loop(speed.length).at(at + k)]);
    }
    return e.minimumSpeed() / least;
  }

  /**
   * Seconds that a recording of the plan itself shows between brake and throttle; null where the
   * plan opens no throttle, as where it is braked on for the next corner.
   */
  @Nullable Double planRoll() {
    Double first = plan.station(PointKind.FIRST_THROTTLE).orElse(null);
    if (first == null) {
      return null;
    }
    Double release = plan.station(PointKind.RELEASE).orElse(null);
    if (release == null) {
      return 0.0;
    }
    Double late = release();
    // Only what is seen to end before it is written can go on unseen.
    double soon = late == null ? 0 : Math.max(0, -late);
    double metres = road.apart(release, first) + (soon == 0 ? 0 : Math.min(soon, unseen(release)));
    return Math.max(0, metres / Math.max(5, plan.minimumSpeed()));
  }

  /** Metres from the inside edge to the line, the least beside a station. */
  private double lineGap(double station) {
    double least = Double.MAX_VALUE;
    for (int k = -BESIDE; k <= BESIDE; k++) {
      int i = road.loop().at(road.index(station) + k);
      double n = computed.path().offset()[i];
      least = Math.min(least, corner.left() ? road.left()[i] - n : road.right()[i] + n);
    }
    return least;
  }

  /** Metres to the inside of where the line is on arrival; negative to the outside. */
  @Nullable Double place() {
    Double n = events.entryPlace();
    if (n == null) {
      return null;
    }
    double back = EventFinder.arrival(road, computed.corners(), computed.indexOf(corner.id()));
    double planned = computed.path().offset()[road.index(corner.entry() - back)];
    return corner.left() ? n - planned : planned - n;
  }

  /** Room that the line leaves at its widest after the apex, m. */
  private double planRoom() {
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
}
