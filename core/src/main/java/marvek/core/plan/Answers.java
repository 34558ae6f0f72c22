package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.BrakedAgain;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.plan.CornerAnswer.BrakingNumbers;
import marvek.core.plan.CornerAnswer.ExitWorth;
import marvek.core.plan.CornerAnswer.GearChoice;
import marvek.core.plan.CornerAnswer.Pressing;
import marvek.core.plan.CornerAnswer.Profile;
import marvek.core.plan.CornerAnswer.Sensitivity;
import marvek.core.plan.CornerAnswer.Shifts;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import marvek.core.technique.SchoolLine;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * Answers what the points of a corner lead to, by driving the corner as planned: the door to all
 * that plans a corner.
 */
public final class Answers {

  /** The key of the remark that a point comes before one that it follows. */
  public static final String ORDER = "plan.order";

  // Enough for a drawing a screen wide.
  private static final int PROFILE_VALUES = 600;
  // Seconds up to which a mistake costs nothing worth a word.
  private static final double NOTHING = 0.003;
  // Seconds more than the lap from which what is called flat is not.
  private static final double EASES = 0.03;
  // Turning: so many m/s² across. Throttle that is all of it. Share of the load that is light.
  private static final double TURNS = 2;
  private static final double OPEN = 0.95;
  private static final double LIGHT = 0.85;
  // Steps before turn-in from which a corner is timed.
  private static final int CUT = 150;

  private final ComputedLap computed;
  private final Stretch stretch;
  private final int c;
  private final int from;
  private final int count;

  private Answers(ComputedLap computed, Things things, int c) {
    this.computed = computed;
    this.stretch = new Stretch(computed, things, c);
    this.c = c;
    this.from = stretch.from;
    this.count = stretch.count;
  }

  /** The answer for one corner, with no kerbs or limits known. */
  public static CornerAnswer answer(ComputedLap computed, CornerEntry entry) {
    return answer(computed, Things.none(), entry);
  }

  /**
   * The answer for one corner.
   *
   * @param things of the survey, for kerbs and limits
   * @param entry the corner as planned
   * @throws IllegalArgumentException if the corner is not one of the lap's
   */
  public static CornerAnswer answer(ComputedLap computed, Things things, CornerEntry entry) {
    return new Answers(computed, things, computed.indexOf(entry.corner())).answer(entry);
  }

  /**
   * A corner to be asked about.
   *
   * @param things of the survey, for kerbs and limits
   * @param c place of the corner in the list
   */
  public static Answers at(ComputedLap computed, Things things, int c) {
    return new Answers(computed, things, c);
  }

  /** The line of the lap, or the one that the schools chosen ask for. */
  public SchoolLine line(CornerEntry entry) {
    return stretch.line(entry);
  }

  /** Where the lap's own line is outermost, before the corner's apex and after it. */
  public List<SchoolLine.Outermost> outermost() {
    return SchoolLine.outermost(
        computed.setting(stretch.things), computed.corners(), computed.path(), computed.lines(), c);
  }

  private PlannedCorner plan(CornerEntry entry) {
    return stretch.laid(entry).plan();
  }

  /** Whether there is a shift up before the next corner, and a gear for it. */
  public boolean shiftsUp(CornerEntry entry) {
    int gears = computed.vehicle().gears();
    return plan(entry).firstShift(Math.min(gears, Math.max(1, entry.gear()))) >= 0
        && entry.gear() < gears;
  }

  /** The two gears between which one may choose, the lower first; null where one is the only. */
  public int @Nullable [] rivals(CornerEntry entry) {
    return new GearPlan(stretch, plan(entry), entry).rivals();
  }

  /**
   * Where the throttle would take a motorcycle's front wheel off the road.
   *
   * @param station m
   * @param gear that pulls best there
   */
  public record FrontRises(double station, int gear) {}

  /**
   * The same corner driven action by action even where its points say all: what differs by
   * hundredths is held against what is driven alike. The shift that does it is where the stretch
   * ends. The corner as it is where that cannot be made.
   */
  public CornerEntry played(CornerEntry entry) {
    if (Score.plays(entry)) {
      return entry;
    }
    double end = computed.road().wrap(stretch.station(count));
    int gear = computed.limits().bestGear(plan(entry).speed[count]);
    CornerEntry played =
        Score.with(
            entry,
            ActionBuilder.builder(Action.of("played", ActionKind.SHIFT, end, null))
                .gear(gear)
                .build());
    return makes(played) ? played : entry;
  }

  /** Where the front wheel would rise in the gears that pull best, on the way out of the corner. */
  public Optional<FrontRises> frontRises(CornerEntry entry) {
    Optional<Integer> first = entry.station(PointKind.FIRST_THROTTLE).map(stretch::step);
    PlannedCorner plan = plan(entry);
    int k = first.map(plan::frontRises).orElse(-1);
    return k < 0
        ? Optional.empty()
        : Optional.of(
            new FrontRises(
                computed.road().wrap(stretch.station(k)),
                computed.limits().bestGear(plan.speed[k])));
  }

  /**
   * Where the tyres bear least while it is turned at all of the throttle.
   *
   * @param station m
   * @param load share of that on level ground at that speed
   * @param speed m/s
   */
  public record Light(double station, double load, double speed) {}

  /**
   * The lightest place of a corner up to its exit; empty where none is light.
   *
   * @param since seconds for which all of the throttle is held before it at least
   */
  public Optional<Light> lightest(CornerEntry entry, double since) {
    Stretch.Laid laid = stretch.laid(entry);
    PlannedCorner plan = laid.plan();
    Limits limits = computed.limits();
    int over = Math.min(count, stretch.step(computed.lines().get(c).exit()));
    int turnIn = stretch.step(computed.lines().get(c).turnIn());
    int opened = 0;
    Light light = null;
    for (int k = 0; k <= over; k++) {
      if (plan.throttle[k] < OPEN) {
        opened = k + 1;
      }
      int i = laid.path().loop().at(from + k);
      double v = plan.speed[k];
      double load = limits.load(laid.path(), i, v * v) / limits.levelLoad(v);
      boolean turns = k >= turnIn && Math.abs(laid.path().curvature()[i]) * v * v > TURNS;
      if (turns
          && load < (light == null ? LIGHT : light.load())
          && opened < k
          && plan.seconds(opened, k) > since) {
        light = new Light(computed.road().wrap(stretch.station(k)), load, v);
      }
    }
    return Optional.ofNullable(light);
  }

  /** Share of the grip that is used at a place of the corner as planned. */
  public double used(CornerEntry entry, double station) {
    return plan(entry).use[Math.min(count, stretch.step(station))];
  }

  /** How much of the braking at the marker is left at the corner's speed, 0 to 1. */
  public double fade(CornerEntry entry) {
    int brake = entry.station(PointKind.BRAKE).map(stretch::step).orElse(0);
    PlannedCorner plan = plan(entry.copy().pedals(null).done());
    return plan.straightMost(plan.slowest, plan.speed[plan.slowest])
        / plan.straightMost(brake, plan.unbrakedAt(brake));
  }

  /** Whether the corner can be made as planned. */
  public boolean makes(CornerEntry entry) {
    return plan(entry).makesIt;
  }

  /**
   * The most of the grip that throttle and turn ask for together from where it is opened first;
   * above 1 it is cut.
   */
  public double pushes(CornerEntry entry) {
    int first = entry.station(PointKind.FIRST_THROTTLE).map(stretch::step).orElse(stretch.count);
    return plan(entry).pushes(first);
  }

  /** Whether it is made by what is lifted, and not only because the tyres would bear no more. */
  boolean holds(CornerEntry entry) {
    return plan(entry).holds();
  }

  /** Seconds by which a plan begins to brake before the last place that its own shape allows. */
  public double margin(CornerEntry entry) {
    return Margin.seconds(stretch, entry);
  }

  /**
   * Station to half a metre at which braking begins with a margin.
   *
   * @param margin seconds before the last place that the entry's own shape allows
   */
  public double markerAt(CornerEntry entry, double margin) {
    Stretch.Laid laid = stretch.laid(entry);
    int latest = Margin.last(stretch, laid);
    double metres = margin * laid.plan().unbrakedAt(latest);
    double at = sooner(stretch.station(latest), metres);
    return computed.road().wrap(Math.round(at * 2) / 2.0);
  }

  /**
   * Station so many metres sooner, but not before the road that the corner is planned on: what is
   * pressed there is pressed for the corner before.
   */
  public double sooner(double station, double metres) {
    double room = Math.max(0, stretch.place(station)) * computed.road().step();
    return computed.road().wrap(station - Math.min(metres, room));
  }

  /** How the corner as planned uses the two axles, and what moves that. */
  public CornerBalance balance(CornerEntry entry) {
    return balance(entry, computed.vehicle().hasFixedSetup());
  }

  /**
   * The same.
   *
   * @param fixed whether the set-up is not the driver's to change now
   */
  public CornerBalance balance(CornerEntry entry, boolean fixed) {
    Stretch.Laid laid = stretch.laid(entry);
    int[] gear = new GearPlan(stretch, laid.plan(), entry).along();
    return new Balancing(computed, laid.path(), laid.plan(), from, gear, stretch.things, fixed)
        .of(laid.steps());
  }

  /**
   * The answer for the corner.
   *
   * @param entry the corner as planned
   */
  public CornerAnswer answer(CornerEntry entry) {
    List<Said> remarks = new ArrayList<>();
    SchoolLine line = stretch.line(entry);
    Path path = stretch.path(entry, line, remarks);
    PlannedCorner.Steps steps = stretch.steps(entry, line.line());
    PlannedCorner plan = stretch.plan(path, steps);
    double best = best();
    Vehicle vehicle = computed.vehicle();
    double arrival = arrival(plan, steps);
    int arrivalGear = computed.limits().bestGear(arrival);
    BrakingNumbers braking = steps.brake() < 0 ? null : braking(path, plan, steps);
    order(entry, remarks);
    boolean eased = entry.slowing() == Slowing.FLAT && plan.time > best + EASES;
    if (eased) {
      remarks.add(Said.of("plan.not_flat"));
    }
    int under = entry.slowing() == Slowing.BRAKE ? -1 : computed.under(c);
    if (under >= 0) {
      Corner before = computed.corners().get(under);
      remarks.add(
          Said.of("plan.braked_through", new Value.CornerName(before.number(), before.name())));
    }
    lateLift(entry, plan, remarks);
    Pressing pressing = pressing(plan, steps, remarks);
    GearPlan gears = new GearPlan(stretch, plan, entry);
    List<GearChoice> choices = gears.choices();
    choices.stream()
        .filter(g -> g.gear() == entry.gear() && !g.usable())
        .forEach(
            g ->
                remarks.add(
                    Said.of(
                        "plan.over_revs",
                        Value.count(g.gear()),
                        Value.figure(g.revsAtMinimum(), 0),
                        Value.figure(vehicle.engine().limitRevs(), 0))));
    int[] gear = gears.along();
    Shifts shifts = gears.shifts(gear);
    shifts.down().stream()
        .filter(d -> !d.safe())
        .forEach(
            d ->
                remarks.add(
                    Said.of("plan.shift_early", Value.count(d.gear()), Value.figure(d.revs(), 0))));
    overRevved(entry, plan, remarks);
    boolean makes = plan.makesIt && !eased;
    double time = plan.time + gears.cost();
    // The same road for every way of driving it, so that times can be compared.
    int begin = Math.max(0, stretch.step(computed.lines().get(c).turnIn()) - CUT);
    int over = stretch.step(computed.lines().get(c).exit());
    return new CornerAnswer(
        braking,
        arrival,
        arrivalGear,
        vehicle.revs(arrival, arrivalGear),
        plan.speed[plan.slowest],
        stretch.station(plan.slowest),
        plan.speed[count],
        makes ? time : null,
        makes ? time - best : null,
        choices,
        profile(path, plan, gear),
        remarks,
        makes ? plan.seconds(begin, Math.max(begin, over)) : null,
        plan.tyreWork(0, count),
        pressing,
        shifts,
        exitWorth(path, plan, steps),
        unwritten(entry),
        score(entry, plan));
  }

  /** What of the answer is written into the entry, without all the rest: far less work. */
  public Reached reached(CornerEntry entry) {
    List<Said> remarks = new ArrayList<>();
    SchoolLine line = stretch.line(entry);
    Path path = stretch.path(entry, line, remarks);
    PlannedCorner.Steps steps = stretch.steps(entry, line.line());
    PlannedCorner plan = stretch.plan(path, steps);
    Pressing pressing = pressing(plan, steps, remarks);
    double arrival = arrival(plan, steps);
    return new Reached(
        arrival,
        computed.limits().bestGear(arrival),
        plan.speed[plan.slowest],
        pressing == null ? null : Double.valueOf(pressing.peak()),
        unwritten(entry));
  }

  /** Speed at the marker, or at turn-in where there is none. */
  private static double arrival(PlannedCorner plan, PlannedCorner.Steps steps) {
    return steps.brake() >= 0 ? plan.unbrakedAt(steps.brake()) : plan.speed[steps.turnIn()];
  }

  /** Further brakings of the lap that the driver has written nothing of. */
  private List<BrakedAgain> unwritten(CornerEntry entry) {
    boolean own = entry.actions().stream().anyMatch(a -> a.kind() == ActionKind.BRAKE);
    return entry.slowing() == Slowing.BRAKE && !own && !SchoolLine.bends(entry.schools())
        ? computed.again(c)
        : List.of();
  }

  /**
   * A lift after more is asked than there is, and one past where the lap itself has eased the
   * throttle. What the tyres do not bear is cut, so that it takes no longer here; nobody drives it
   * so.
   */
  private void lateLift(CornerEntry entry, PlannedCorner plan, List<Said> remarks) {
    if (entry.slowing() != Slowing.LIFT) {
      return;
    }
    ScoreDrive driven = plan.driven;
    double asks = driven == null ? 0 : driven.untouched(plan.slowest);
    if (asks > PlannedCorner.TOLERATED) {
      remarks.add(Said.of("plan.lift_asks", Value.percent(asks)));
      return;
    }
    if (SchoolLine.bends(entry.schools())) {
      return;
    }
    Optional<Action> own =
        Score.of(computed.road(), entry).stream()
            .filter(a -> a.kind() == ActionKind.LIFT)
            .findFirst();
    Optional<Action> drafted = Drafter.lift(Drafter.entry(computed, c));
    if (own.isEmpty() || drafted.isEmpty()) {
      return;
    }
    double late = computed.road().apart(drafted.get().station(), own.get().station());
    double ahead = computed.conditions().driving().margin() + ScoreDrive.LIFT_AT_ONCE;
    double speed = plan.speed[Math.min(count, stretch.step(drafted.get().station()))];
    if (late > ahead * speed) {
      remarks.add(Said.of("plan.lift_late", Value.length(late - ahead * speed)));
    }
  }

  /** Gears that the driver takes where they would turn too fast. */
  private void overRevved(CornerEntry entry, PlannedCorner plan, List<Said> remarks) {
    Vehicle vehicle = computed.vehicle();
    for (Action a : entry.actions()) {
      Integer gear = a.gear();
      if (a.kind() == ActionKind.SHIFT && gear != null && gear <= vehicle.gears()) {
        double revs = vehicle.revs(plan.speed[Math.min(count, stretch.step(a.station()))], gear);
        if (revs > vehicle.engine().limitRevs()) {
          remarks.add(Said.of("plan.shift_early", Value.count(gear), Value.figure(revs, 0)));
        }
      }
    }
  }

  /** Every action in driving order, with what became of it. */
  private List<ScoredAction> score(CornerEntry entry, PlannedCorner plan) {
    List<Action> all = Score.of(computed.road(), entry);
    Cues cues = new Cues(computed, stretch.things);
    List<ScoredAction> out = new ArrayList<>();
    Iterator<ScoreDrive.Body> bodies = stretch.bodies(all).iterator();
    for (Action a : all) {
      int step = Math.min(count, stretch.step(a.station()));
      List<HeldCue> held = cues.held(a, all);
      Optional<Gaze> gaze = cues.gaze(a, all);
      Optional<HeldCue> counts = held.stream().filter(HeldCue::counts).findFirst();
      ScoreDrive driven = plan.driven;
      int p = driven == null ? -1 : driven.index(a.id());
      ScoreDrive.Played played = driven == null || p < 0 ? null : driven.played[p];
      boolean braking = a.kind() == ActionKind.BRAKE;
      boolean even = played == null && braking;
      out.add(
          new ScoredAction(
              a,
              a.line(all),
              braking && played == null ? plan.unbrakedAt(step) : plan.speed[step],
              plan.seconds(0, step),
              played != null
                  ? Double.valueOf(played.amount())
                  : even ? Double.valueOf(hardest(plan, entry)) : a.amount(),
              played != null ? played.solved() : even && entry.pedals() == null,
              played == null || driven == null ? null : driven.used(p),
              played == null || driven == null || a.kind() != ActionKind.LIFT
                  ? null
                  : driven.before(p, plan.slowest),
              played == null
                  ? even ? Double.valueOf(stretch.station(plan.slowest)) : null
                  : played.serves() < 0 ? null : stretch.station(played.serves()),
              played == null || driven == null
                  ? !even || plan.makesIt
                  : driven.makes(p, plan.slowest),
              held,
              cues.met(held).map(Cues.Met::precision).orElse(null),
              gaze.orElse(null),
              a.rides() ? rides(plan, step, bodies.next()) : null,
              counts.isPresent() || held.isEmpty()
                  ? gaze.map(Gaze::why).orElseGet(() -> cues.lost(a))
                  : held.get(0).why()));
    }
    return out;
  }

  /** What a rider's weight and brakes make of the limits at a step. */
  private Rides rides(PlannedCorner plan, int step, ScoreDrive.Body body) {
    Limits middle = computed.limits();
    Limits so = middle.ridden(body.forward(), body.front());
    Path path = computed.path();
    int i = computed.road().loop().at(stretch.from + step);
    double load = middle.load(path, i, plan.speed[step] * plan.speed[step]);
    double brakes = path.braking(i);
    double drives = path.driving(i);
    return Rides.of(
        so.brakingMost(load, 1, brakes) / middle.brakingMost(load, 1, brakes),
        so.traction(load, 1, drives) / middle.traction(load, 1, drives));
  }

  /** The hardest press of a braking by its points, as a share of the driver's full press. */
  private double hardest(PlannedCorner plan, CornerEntry entry) {
    boolean shaped = entry.pedals() != null;
    int marker = Math.min(count, entry.station(PointKind.BRAKE).map(stretch::step).orElse(0));
    double most = 0;
    for (int k = 0; k < count; k++) {
      if (plan.brakeShare[k] > 0) {
        int of = shaped ? marker : k;
        double v = shaped ? plan.unbrakedAt(marker) : plan.speed[k];
        most = Math.max(most, plan.brakeShare[k] * plan.straightMost(of, v));
      }
    }
    return most / computed.fullPress();
  }

  /**
   * The entry with every action where its cue is now.
   *
   * @param things of the survey, that cues hang on
   */
  public static CornerEntry placed(ComputedLap computed, Things things, CornerEntry entry) {
    boolean hangs =
        entry.actions().stream().anyMatch(a -> a.cue() != null)
            || entry.points().stream().anyMatch(p -> p.play() != null);
    if (!hangs) {
      return entry;
    }
    List<Action> all = Score.of(computed.road(), entry);
    CornerEntry out = entry;
    for (Action a : new Cues(computed, things).placed(all)) {
      boolean written =
          Score.point(a.id()).flatMap(entry::point).map(p -> p.play() != null).orElse(true);
      if (written) {
        out = Score.with(out, a);
      }
    }
    return out;
  }

  /**
   * The entry with an action that was moved by hand: its cues take the number that puts it there. A
   * first one that has none gives way to the best in reach, others that have none are left out.
   *
   * @param id of the action; one that is not there changes nothing
   */
  public static CornerEntry moved(
      ComputedLap computed, Things things, CornerEntry entry, String id) {
    List<Action> all = Score.of(computed.road(), entry);
    Optional<Action> found = all.stream().filter(a -> a.id().equals(id)).findFirst();
    Cue cue = found.map(Action::cue).orElse(null);
    if (found.isEmpty() || cue == null) {
      return entry;
    }
    Action action = found.get();
    Cues cues = new Cues(computed, things);
    Cue now = there(cues, cue, action, all);
    if (now == null) {
      now =
          cues.reach(action, all).stream()
              .filter(o -> o.cue().kind().number())
              .map(Cues.Offer::cue)
              .findFirst()
              .orElse(null);
    }
    Cue with = action.together();
    Cue behind = action.backUp();
    return Score.with(
        entry,
        action.found(
            now,
            now == null || with == null ? null : beside(cues, with, action, all),
            now == null || behind == null ? null : beside(cues, behind, action, all)));
  }

  /** A cue that leads to where an action was moved: with another number, or as it is; or null. */
  private static @Nullable Cue there(Cues cues, Cue cue, Action action, List<Action> all) {
    Cue now = cues.moved(cue, action.station(), action, all);
    if (now != null) {
      return now;
    }
    Cues.Found still = cues.find(cue, action, all);
    Double at = still.station();
    return at != null && cues.apart(at, action.station()) <= still.precision() ? cue : null;
  }

  /** The same of a cue beside the first: one that does not happen there anyway stays as it is. */
  private static @Nullable Cue beside(Cues cues, Cue cue, Action action, List<Action> all) {
    return cues.find(cue, action, all).station() == null ? cue : there(cues, cue, action, all);
  }

  /**
   * An entry that was moved by a rule, with the cues that its actions had before: each with the
   * number that fits where they are now.
   *
   * @param had the entry before, its cues in place
   */
  public static CornerEntry followed(
      ComputedLap computed, Things things, CornerEntry had, CornerEntry now) {
    CornerEntry out = now;
    List<Action> before = Score.of(computed.road(), had);
    for (Action a : Score.of(computed.road(), now)) {
      Optional<Action> was =
          before.stream().filter(b -> b.id().equals(a.id()) && b.cue() != null).findFirst();
      boolean left =
          a.cue() == null
              && Score.point(a.id()).flatMap(now::point).map(p -> p.play() != null).orElse(true);
      if (left && was.isPresent()) {
        Action cues = was.get();
        CornerEntry again = Score.with(out, a.found(cues.cue(), cues.together(), cues.backUp()));
        out = moved(computed, things, again, a.id());
      }
    }
    return out;
  }

  /** Where in the corner as planned shifts, brake or all of the throttle are unwise. */
  public List<Unwise> unwise(CornerEntry entry) {
    SchoolLine line = stretch.line(entry);
    Path path = stretch.path(entry, line, new ArrayList<>());
    PlannedCorner plan = stretch.plan(path, stretch.steps(entry, line.line()));
    return Unwise.along(computed, path, stretch.things, from, plan.speed);
  }

  /** What each action costs, and what it would cost otherwise. */
  public List<WhatIf> whatIfs(CornerEntry entry) {
    PlannedCorner plan = plan(entry);
    List<WhatIf> out = new ArrayList<>();
    for (Action a : Score.of(computed.road(), entry)) {
      int step = Math.min(count, stretch.step(a.station()));
      double late = WhatIf.LATE * plan.speed[step];
      for (WhatIf.Change change : WhatIf.Change.values()) {
        Optional<CornerEntry> other = change.of(entry, a, computed.road(), late);
        if (other.isPresent()) {
          PlannedCorner then = plan(other.get());
          boolean makes = a.kind() == ActionKind.LIFT ? then.holds(plan) : then.makesIt;
          out.add(
              new WhatIf(
                  a.id(), change, plan.makesIt && makes ? then.time - plan.time : null, makes));
        }
      }
    }
    return out;
  }

  /**
   * What it costs to do one action early or late, and where to aim.
   *
   * @param id of the action
   * @param driven stations where laps did it
   * @return empty where the corner cannot be made, or nothing of it is computed
   */
  public Optional<MistakeCurve> curve(CornerEntry entry, String id, List<Double> driven) {
    List<Action> all = Score.of(computed.road(), entry);
    Optional<Action> found = all.stream().filter(a -> a.id().equals(id)).findFirst();
    if (found.isEmpty()) {
      return Optional.empty();
    }
    Action action = found.get();
    Double precision =
        new Cues(computed, stretch.things).met(action, all).map(Cues.Met::precision).orElse(null);
    boolean tight = Mistakes.tight(computed.road(), computed.corners().get(c), stretch.things);
    return new Mistakes(computed.road(), entry, this::plan).of(action, driven, precision, tight);
  }

  /**
   * What more and less of one action cost.
   *
   * @param id of the action
   * @return empty where the corner cannot be made, or the action has no amount of its own
   */
  public Optional<AmountCurve> amounts(CornerEntry entry, String id) {
    return Score.of(computed.road(), entry).stream()
        .filter(a -> a.id().equals(id))
        .findFirst()
        .flatMap(a -> new Mistakes(computed.road(), entry, this::plan).amounts(a));
  }

  /**
   * The dearest mistakes of a corner, those that leave the road first; none where it cannot be made
   * as written.
   */
  public List<WhatIf> dearest(CornerEntry entry, List<WhatIf> all, int most) {
    if (!plan(entry).makesIt) {
      return List.of();
    }
    return all.stream()
        .filter(w -> w.change() != WhatIf.Change.WITHOUT)
        .filter(w -> !w.makes() || (w.seconds() != null && w.seconds() > NOTHING))
        .sorted(
            Comparator.comparing(WhatIf::makes)
                .thenComparing(w -> w.seconds() == null ? 0 : -w.seconds()))
        .limit(most)
        .toList();
  }

  private @Nullable Pressing pressing(
      PlannedCorner plan, PlannedCorner.Steps steps, List<Said> remarks) {
    Pedals pedals = steps.pedals();
    if (pedals == null || steps.brake() < 0) {
      return null;
    }
    int hardest = plan.hardest();
    ScoreDrive driven = plan.driven;
    int marker = driven == null ? -1 : driven.index(PlannedCorner.MARKER);
    double asks = driven == null || marker < 0 ? plan.use[hardest] : driven.asked(marker);
    double ofMarker =
        marker >= 0
            ? computed.fullPress()
                / plan.straightMost(steps.brake(), plan.unbrakedAt(steps.brake()))
            : 1;
    double excess = plan.excess();
    if (asks > PlannedCorner.TOLERATED) {
      boolean turning = hardest > steps.turnIn();
      int since = turning ? steps.turnIn() : steps.brake();
      remarks.add(
          Said.of(
              turning ? "plan.asks.turning" : "plan.asks.braking",
              Value.percent(asks),
              Value.length(plan.metres(since, hardest))));
    }
    if (pedals.peak() != null && excess > 0.3) {
      remarks.add(Said.of("plan.too_fast", Value.speed(excess)));
    } else if (pedals.peak() != null && excess < -0.6) {
      remarks.add(Said.of("plan.slowed_more", Value.speed(-excess)));
    }
    int release = plan.release();
    int mid = (Math.min(steps.turnIn(), release) + release) / 2;
    return new Pressing(
        plan.effort,
        ofMarker * plan.brakeShare[Math.min(count, steps.turnIn())],
        ofMarker * plan.brakeShare[Math.min(count, mid)],
        asks,
        stretch.station(hardest),
        excess);
  }

  /** Drives on from full throttle with and without 1 km/h more. */
  private ExitWorth exitWorth(Path path, PlannedCorner plan, PlannedCorner.Steps steps) {
    int start = Math.min(count - 1, Math.max(plan.slowest, steps.full()));
    if (steps.full() >= count) {
      start = plan.slowest;
    }
    double v = plan.speed[start];
    double w = v + 1 / 3.6;
    double won = 0;
    double straight = 0;
    Loop loop = path.loop();
    for (int k = start; k < count; k++) {
      int i = loop.at(from + k);
      int q = loop.at(from + k + 1);
      double ds = path.step()[i];
      double nextV = LapSimulator.ahead(path, computed.limits(), i, q, v);
      double nextW = LapSimulator.ahead(path, computed.limits(), i, q, w);
      won += 2 * ds / (v + nextV) - 2 * ds / (w + nextW);
      v = nextV;
      w = nextW;
      straight += ds;
    }
    return new ExitWorth(won, w - v, won * plan.speed[plan.slowest], straight);
  }

  /** Seconds of the corner as the lap drives it, by its points or by the score drafted for it. */
  private double best() {
    return computed.drafts().best(c, k -> Math.min(byPoints(), byScore()));
  }

  private double byScore() {
    PlannedCorner plan = plan(Drafter.entry(computed, c));
    return plan.makesIt ? plan.time : Double.MAX_VALUE;
  }

  private double byPoints() {
    CornerEntry draft = Drafter.asDriven(computed, c);
    PlannedCorner.Steps steps = stretch.steps(draft, computed.lines().get(c));
    PlannedCorner first = stretch.plan(computed.path(), steps);
    if (steps.brake() < 0) {
      return first.time;
    }
    PlannedCorner late =
        stretch.plan(computed.path(), steps.withBrake((int) Math.floor(first.limitStep())));
    return late.makesIt ? late.time : first.time;
  }

  private BrakingNumbers braking(Path path, PlannedCorner plan, PlannedCorner.Steps steps) {
    double limit = plan.limitStep();
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
        stretch.station(limit),
        sensitivity(path, plan, steps, speed));
  }

  private Sensitivity sensitivity(
      Path path, PlannedCorner plan, PlannedCorner.Steps shaped, double speed) {
    double limit = plan.exactLimitStep(0);
    double boost = computed.lap().boostBelow();
    // The last place to brake does not hang on the shape.
    PlannedCorner.Steps steps = shaped.withPedals(null);
    Limits now = computed.limits();
    Limits less =
        now.on(computed.conditions().withGrip(computed.conditions().grip() * 0.99), boost);
    Limits heavy =
        now.on(computed.conditions().withExtraMass(computed.conditions().extraMass() + 10), boost);
    double[] steeper = path.gradient().clone();
    for (int i = 0; i < steeper.length; i++) {
      steeper[i] -= 0.01;
    }
    Path downhill = path.withGradient(steeper);
    return new Sensitivity(
        plan.metres(plan.exactLimitStep(1 / 3.6), limit),
        sooner(plan, limit, path, less, steps),
        sooner(plan, limit, path, heavy, steps),
        sooner(plan, limit, downhill, computed.limits(), steps),
        speed * 0.1);
  }

  private double sooner(
      PlannedCorner plan, double limit, Path path, Limits limits, PlannedCorner.Steps steps) {
    return plan.metres(stretch.plan(path, limits, steps).exactLimitStep(0), limit);
  }

  private void order(CornerEntry entry, List<Said> remarks) {
    after(entry, PointKind.BRAKE, PointKind.RELEASE, remarks);
    after(entry, PointKind.FIRST_APEX, PointKind.APEX, remarks);
    after(entry, PointKind.TURN_IN, PointKind.APEX, remarks);
    after(entry, PointKind.FIRST_THROTTLE, PointKind.FULL_THROTTLE, remarks);
    after(entry, PointKind.RELEASE, PointKind.FULL_THROTTLE, remarks);
    after(entry, PointKind.APEX, PointKind.EXIT, remarks);
  }

  private void after(CornerEntry entry, PointKind a, PointKind b, List<Said> remarks) {
    Optional<Double> first = entry.station(a);
    Optional<Double> second = entry.station(b);
    if (first.isPresent()
        && second.isPresent()
        && computed.road().apart(first.get(), second.get()) < 0) {
      remarks.add(Said.of(ORDER, b.said().beginning(), a.said().in()));
    }
  }

  /** Every so-manieth value, rounded to what a drawing can show. */
  private static double[] thinned(double[] values, int stride) {
    return IntStream.rangeClosed(0, (values.length - 1) / stride)
        .mapToDouble(k -> Math.round(values[k * stride] * 1000) / 1000.0)
        .toArray();
  }

  private Profile profile(Path path, PlannedCorner plan, int[] gear) {
    Loop loop = computed.road().loop();
    double[] offset = new double[count + 1];
    for (int k = 0; k <= count; k++) {
      offset[k] = path.offset()[loop.at(from + k)];
    }
    int stride = Math.max(1, (count + 1) / PROFILE_VALUES + 1);
    return new Profile(
        from * computed.road().step(),
        stride * computed.road().step(),
        thinned(plan.speed, stride),
        thinned(plan.brakeShare, stride),
        thinned(plan.throttle, stride),
        IntStream.rangeClosed(0, count / stride).map(k -> gear[k * stride]).toArray(),
        thinned(offset, stride),
        thinned(plan.use, stride));
  }
}
