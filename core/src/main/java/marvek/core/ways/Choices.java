package marvek.core.ways;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import marvek.core.circuit.Corner;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.line.CornerLine;
import marvek.core.marker.Landmark;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Cues;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import org.jspecify.annotations.Nullable;

/**
 * What each school's answer to a question costs in a corner.
 *
 * <p>Ways of braking and lines are compared at equal margin: each is begun as far before its own
 * last possible marker, in seconds, as the present one is before its own. The last possible marker
 * of a shape of the pedals is the one from which it asks for all the grip and no more.
 */
public final class Choices {
  private static final double LONG = 1.75;
  private static final double LONG_ROAD = 130;
  private static final double SAME = 0.004;
  // A dab is for a light stop.
  private static final double LIGHT_STOP = 0.55;
  private static final double LIGHT_REACH = 120;
  // Metres by which a lift comes sooner, or the throttle is opened later, than carried over; at
  // most.
  private static final int MOVED = 20;
  // Share of the present margin that a way must leave.
  private static final double ENOUGH = 0.8;
  // Seconds by which a margin may fall short, and how often a marker comes sooner for one.
  private static final double MISSING = 0.02;
  private static final int SOONER = 4;
  // Metres before turn-in from which on there is room to brake straight.
  private static final double PRESSED = 10;
  // Metres past turn-in from which on it is braked in the turn.
  private static final double TURNING = 4;
  // Shares of the peak left at turn-in where the grip is that of the marker (common practice, no
  // source).
  private static final double LITTLE = 0.3;
  private static final double MUCH = 0.9;
  // Seconds rolled, and throttle held in place of it (10 to 20 %: common practice, no source).
  private static final double ROLLS = 0.5;
  private static final double HELD = 0.15;
  private static final String HELD_UNTIL = "throttle-after";
  private static final Set<Question> PEDALS =
      EnumSet.of(
          Question.TRAIL,
          Question.ROLL,
          Question.LIFT,
          Question.SLOW_WITH,
          Question.THROTTLE,
          Question.HANDS,
          Question.CREST,
          Question.MARKERS);
  private static final double[] NOTHING = {0};
  private static final double[] SOME = {0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9};

  private final ComputedLap computed;
  private final Things things;
  private final int c;
  private final Answers answers;
  private final PedalWays pedals;
  private final LineWays lines;
  private final MarkerWays markers;
  private final CrestWays crests;
  private final HandsWays hands;

  private Choices(ComputedLap computed, Things things, int c) {
    this.computed = computed;
    this.things = things;
    this.c = c;
    this.answers = Answers.at(computed, things, c);
    this.pedals = new PedalWays(computed, c, answers);
    this.lines = new LineWays(computed, things, c, answers);
    this.markers = new MarkerWays(computed, things);
    this.crests = new CrestWays(computed, answers);
    this.hands = new HandsWays(computed, c, answers, (e, now) -> atMargin(inOrder(e), now));
  }

  /**
   * What a choice leads to.
   *
   * @param school the choice; null for the corner as it is planned now
   * @param chosen whether it is the present one
   * @param cornerTime seconds from 150 m before the computed line's turn-in to its exit; null as
   *     {@code toNext}
   * @param toNext seconds to the braking for the next corner, for linked corners to that after the
   *     last of them; null when it cannot be made, or not with the margin of the present plan
   * @param marginSeconds by which braking could begin later
   * @param brakingMoved metres by which it begins later than now; 0 without braking
   * @param peak effort at the peak, or 0
   * @param asks share of the grip that braking and turning ask for
   * @param minimumSpeed m/s
   * @param tyreWork joules of sliding
   * @param gear at the slowest point
   * @param precision metres by which the marker may be missed by eye; null where it is not asked
   * @param givenAway how much of the corner that gives way is given, 0 to 1
   */
  @RecordBuilder
  public record Outcome(
      @Nullable School school,
      boolean chosen,
      @Nullable Double cornerTime,
      @Nullable Double toNext,
      double marginSeconds,
      double brakingMoved,
      double peak,
      double asks,
      double minimumSpeed,
      double tyreWork,
      int gear,
      @Nullable Double precision,
      double givenAway) {
    Outcome over(double seconds) {
      return ChoicesOutcomeBuilder.builder(this).toNext(seconds).build();
    }
  }

  /**
   * A question put to a corner.
   *
   * @param now as it is planned
   * @param outcomes one for each school that can be followed here
   * @param best the one that is quickest to the next corner, or spares the tyres where the time is
   *     the same, or whose marker is the more precise; null where it makes no difference
   */
  public record Compared(
      Question question, Outcome now, List<Outcome> outcomes, @Nullable School best) {
    public Compared {
      outcomes = List.copyOf(outcomes);
    }
  }

  /** The questions that arise in a corner. */
  public static List<Question> arising(ComputedLap computed, Things things, CornerEntry entry) {
    int c = computed.indexOf(entry.corner());
    Choices choices = new Choices(computed, things, c);
    return Arrays.stream(Question.values())
        .filter(q -> choices.arises(q, entry) && choices.open(q, entry))
        .toList();
  }

  /** Whether there is more than one answer. */
  private boolean open(Question question, CornerEntry entry) {
    return switch (question) {
      case SLOW_WITH -> follow(entry, School.NO_BRAKE).isPresent();
      case HANDS ->
          follow(entry, School.HANDS_FIRST).isPresent()
              && follow(entry, School.BRAKE_FIRST).isPresent();
      default -> true;
    };
  }

  private boolean arises(Question question, CornerEntry entry) {
    Corner corner = computed.corners().get(c);
    return switch (question) {
      case BRAKE_SHAPE, RELEASE -> entry.slowing() == Slowing.BRAKE;
      case MARKERS -> markers.arises(entry);
      case HANDS -> hands.arises(entry);
      case CREST -> crests.arises(entry);
      case TRAIL -> trailed(entry) > TURNING && straight(entry) > 0;
      case ROLL ->
          entry.slowing() == Slowing.BRAKE
              && entry.point(PointKind.RELEASE).isPresent()
              && entry.point(PointKind.FIRST_THROTTLE).isPresent();
      case LIFT -> lift(entry).isPresent() && Drafter.lift(Drafter.entry(computed, c)).isPresent();
      case SLOW_WITH -> pedals.maySpareBrake(entry);
      case THROTTLE -> pedals.opens(entry);
      case LINE ->
          corner.apexes().size() > 1
              || corner.angle() > LONG
              || computed.road().ahead(corner.entry(), corner.exit()) > LONG_ROAD;
      case WIDTH -> entry.slowing() != Slowing.FLAT && lines.keepsOff();
      case CROSSING -> lines.crosses();
      case APEX -> entry.slowing() != Slowing.FLAT;
      case GEAR -> entry.slowing() != Slowing.FLAT && computed.vehicle().gears() > 1;
      case SHIFT -> answers.shiftsUp(entry);
      case FRONT_WHEEL -> pedals.frontRises(entry);
      case LINKED -> {
        int[] ends = SchoolLine.complex(computed.corners(), c);
        yield ends[1] > ends[0];
      }
      case KERBS -> things.kerbs().stream().anyMatch(k -> k.corner().equals(corner.id()));
      case BEYOND -> lines.beyond();
      case LIGHT -> shadow(entry).isPresent();
    };
  }

  /** Compares the schools of a question in a corner. */
  public static Compared compare(
      ComputedLap computed,
      Things things,
      CornerEntry entry,
      Question question,
      MarkerJudge.View view) {
    Choices choices = new Choices(computed, things, computed.indexOf(entry.corner()));
    if (question == Question.LIGHT) {
      return choices.light(entry, view);
    }
    if (question == Question.MARKERS) {
      return choices.markers(entry);
    }
    @Nullable School chosen = School.chosen(entry.schools(), question).orElse(null);
    boolean played = question == Question.FRONT_WHEEL;
    CornerEntry is = played ? choices.answers.played(entry) : entry;
    Outcome now = choices.outcome(is, null, true, entry);
    if (question == Question.LINKED) {
      now = now.over(Compromise.seconds(computed, things, choices.c, chosen, entry.givenAway()));
    }
    List<Outcome> outcomes = new ArrayList<>();
    Outcome present = now;
    for (School school : School.answering(question)) {
      choices
          .follow(entry, school)
          .ifPresent(
              e -> {
                CornerEntry as = played ? choices.answers.played(e) : e;
                Outcome then = choices.outcome(as, school, school == chosen, entry);
                outcomes.add(
                    switch (question) {
                      case WIDTH, CROSSING, KERBS, BEYOND ->
                          choices.lines.along(then, e, present, entry);
                      case CREST ->
                          ChoicesOutcomeBuilder.builder(then).asks(choices.crests.asks(e)).build();
                      default -> then;
                    });
              });
    }
    return new Compared(question, now, outcomes, best(outcomes));
  }

  private static @Nullable School best(List<Outcome> outcomes) {
    Outcome best = null;
    for (Outcome o : outcomes) {
      Double time = o.toNext();
      if (time == null) {
        continue;
      }
      Double least = best == null ? null : best.toNext();
      boolean better =
          best == null
              || least == null
              || time < least - SAME
              || (time < least + SAME && o.tyreWork() < best.tyreWork());
      best = better ? o : best;
    }
    if (best == null) {
      return null;
    }
    Outcome first = best;
    boolean same =
        outcomes.stream().allMatch(o -> o == first || o.toNext() == null || alike(o, first));
    return same && outcomes.size() > 1 ? null : first.school();
  }

  private static boolean alike(Outcome a, Outcome b) {
    Double s = a.toNext();
    Double t = b.toNext();
    return s != null
        && t != null
        && Math.abs(s - t) < SAME
        && Math.abs(a.tyreWork() - b.tyreWork()) < 0.01 * b.tyreWork();
  }

  /**
   * The entries as a school would have them: the corner's own, and for linked corners those of the
   * whole complex.
   *
   * @param entries of the whole reference
   */
  public static List<CornerEntry> choose(
      ComputedLap computed,
      Things things,
      List<CornerEntry> entries,
      String corner,
      School school) {
    int c = computed.indexOf(corner);
    int[] ends = SchoolLine.complex(computed.corners(), c);
    boolean whole = school.question() == Question.LINKED;
    List<CornerEntry> out = new ArrayList<>();
    for (int k = whole ? ends[0] : c; k <= (whole ? ends[1] : c); k++) {
      String id = computed.corners().get(k).id();
      Choices choices = new Choices(computed, things, k);
      entries.stream()
          .filter(e -> e.corner().equals(id))
          .findFirst()
          .flatMap(e -> choices.follow(e, school))
          .ifPresent(out::add);
    }
    return List.copyOf(out);
  }

  /**
   * The entries of a stretch of the road driven in one style: those of the corners from one to
   * another, in driving order, in which the question arises and the answer can be followed.
   *
   * @param entries of the whole reference
   * @param to id of the last corner; the stretch may lead over the start line
   */
  public static List<CornerEntry> chooseTo(
      ComputedLap computed,
      Things things,
      List<CornerEntry> entries,
      String corner,
      String to,
      School school) {
    int n = computed.corners().size();
    int last = computed.indexOf(to);
    List<CornerEntry> out = new ArrayList<>();
    int c = computed.indexOf(corner);
    while (true) {
      String id = computed.corners().get(c).id();
      CornerEntry own =
          entries.stream().filter(e -> e.corner().equals(id)).findFirst().orElse(null);
      if (own != null && asks(new Choices(computed, things, c), school, own)) {
        out.addAll(choose(computed, things, entries, id, school));
      }
      if (c == last) {
        return List.copyOf(out);
      }
      c = (c + 1) % n;
    }
  }

  private static boolean asks(Choices choices, School school, CornerEntry own) {
    return choices.arises(school.question(), own) && choices.open(school.question(), own);
  }

  /** The corner as a school would have it, at the present margin; nothing where it cannot be. */
  private Optional<CornerEntry> follow(CornerEntry entry, School school) {
    Question asked = school.question();
    // A way that was chosen may meet a day or a change on which there is nothing left to choose.
    if (PEDALS.contains(asked) && !arises(asked, entry)) {
      return Optional.empty();
    }
    List<School> schools = school.in(entry.schools());
    CornerEntry.Copy copy = entry.copy().schools(schools);
    switch (asked) {
      case BRAKE_SHAPE -> {
        copy.pedals(Pedals.of(school, answers.fade(entry)));
        if (school == School.DAB) {
          Optional<Double> at = release(entry, School.EARLY_ROLL);
          if (entry.firstEffort() > LIGHT_STOP || at.isEmpty()) {
            return Optional.empty();
          }
          copy.moved(PointKind.RELEASE, at.get());
        }
      }
      case RELEASE -> {
        Pedals shape = entry.pedals();
        copy.pedals(
            shape == null
                ? Pedals.of(School.FRONT_LOADED, answers.fade(entry))
                : shape.withPeak(null));
        Optional<Double> at = release(entry, school);
        if (at.isEmpty()) {
          return Optional.empty();
        }
        copy.moved(PointKind.RELEASE, at.get());
      }
      case TRAIL -> {
        Pedals shape = entry.pedals();
        Pedals usual = shape == null ? Pedals.of(School.FRONT_LOADED, answers.fade(entry)) : shape;
        double left = (school == School.LIGHT_TRAIL ? LITTLE : MUCH) * answers.fade(entry);
        copy.pedals(usual.withTrail(Math.min(1, left), straight(entry)).withPeak(null));
      }
      case MARKERS -> {
        return markers.found(copy.done(), school);
      }
      case HANDS -> {
        return hands.moved(entry, copy.done(), school);
      }
      case CREST -> {
        return crests.over(copy.done(), school);
      }
      case ROLL -> {
        CornerEntry rolled = rolling(unheld(entry), unheld(copy.done()), school);
        return Optional.of(atMargin(inOrder(rolled), entry));
      }
      case LIFT -> {
        return lifting(entry, copy.done(), school);
      }
      case SLOW_WITH -> {
        Optional<CornerEntry> slowed = pedals.slowed(entry, copy.done(), school);
        return slowed.map(
            e -> e.slowing() == Slowing.BRAKE ? atMargin(inOrder(e), entry) : inOrder(e));
      }
      case THROTTLE -> {
        return pedals.opened(entry, copy.done(), school);
      }
      case LINE, WIDTH, CROSSING, APEX, KERBS, BEYOND -> {
        copy = relined(entry, copy.done()).copy();
      }
      case LINKED -> {
        if (SchoolLine.givenAway(computed.corners(), c, school).isEmpty()) {
          return Optional.empty();
        }
        double given = Compromise.of(computed, things, c, school, Compromise.MOST).best().given();
        copy = relined(entry, copy.givenAway(given).done()).copy();
      }
      case GEAR -> {
        int[] rivals = answers.rivals(entry);
        if (rivals == null) {
          return Optional.empty();
        }
        return Optional.of(copy.gear(rivals[school == School.LOWER_GEAR ? 0 : 1]).done());
      }
      case FRONT_WHEEL -> {
        return pedals.held(copy.done(), school);
      }
      case SHIFT, LIGHT -> {
        return Optional.of(copy.done());
      }
    }
    return Optional.of(borne(atMargin(inOrder(copy.done()), entry), entry));
  }

  /** Without the stages of throttle that another line has, where it is only made without them. */
  private CornerEntry borne(CornerEntry entry, CornerEntry now) {
    if (answers.makes(entry) || entry.actions().stream().noneMatch(Choices::opens)) {
      return entry;
    }
    CornerEntry even =
        entry.copy().actions(entry.actions().stream().filter(a -> !opens(a)).toList()).done();
    CornerEntry made = atMargin(even, now);
    return answers.makes(made) ? made : entry;
  }

  /** Metres that are braked past turn-in. */
  private double trailed(CornerEntry entry) {
    Optional<Double> turnIn = entry.station(PointKind.TURN_IN);
    Optional<Double> release = entry.station(PointKind.RELEASE);
    return entry.slowing() == Slowing.BRAKE && turnIn.isPresent() && release.isPresent()
        ? computed.road().apart(turnIn.get(), release.get())
        : 0;
  }

  /** The share of the way from the marker to the release that lies before turn-in; 0 for none. */
  private double straight(CornerEntry entry) {
    Optional<Double> brake = entry.station(PointKind.BRAKE);
    Optional<Double> turnIn = entry.station(PointKind.TURN_IN);
    if (brake.isEmpty() || turnIn.isEmpty() || trailed(entry) <= 0) {
      return 0;
    }
    double before = computed.road().apart(brake.get(), turnIn.get());
    return Math.max(0, before / Math.max(1, before + trailed(entry)));
  }

  /**
   * Between brake and throttle: rolled through for a moment, or a little throttle held at once and
   * the rest as planned.
   */
  private CornerEntry rolling(CornerEntry now, CornerEntry wanted, School school) {
    double release = now.station(PointKind.RELEASE).orElseThrow();
    double first = now.station(PointKind.FIRST_THROTTLE).orElseThrow();
    double gap = computed.road().apart(release, first);
    if (school == School.COAST) {
      double least = ROLLS * now.minimumSpeed();
      return gap >= least ? wanted : openedLater(wanted, Math.ceil(least - gap));
    }
    if (gap < TURNING) {
      // It is opened at once already, only with more.
      return wanted.copy().firstThrottle(Math.min(HELD, now.firstThrottle())).done();
    }
    CornerEntry held =
        wanted
            .copy()
            .moved(PointKind.FIRST_THROTTLE, computed.road().wrap(release + 1))
            .firstThrottle(HELD)
            .done();
    Action then =
        Action.of(HELD_UNTIL, ActionKind.THROTTLE, first, Math.max(HELD, now.firstThrottle()));
    return Score.with(held, then.in(Manner.EVENLY));
  }

  /** Without the throttle that is held from where the brake is let go. */
  private static CornerEntry unheld(CornerEntry entry) {
    Optional<Action> until =
        entry.actions().stream().filter(a -> a.id().equals(HELD_UNTIL)).findFirst();
    Double share = until.map(Action::amount).orElse(null);
    if (until.isEmpty() || share == null) {
      return entry;
    }
    return entry
        .copy()
        .moved(PointKind.FIRST_THROTTLE, until.get().station())
        .firstThrottle(share)
        .actions(entry.actions().stream().filter(a -> a != until.get()).toList())
        .done();
  }

  private static CornerEntry unlifted(CornerEntry entry) {
    return entry
        .copy()
        .slowing(Slowing.BRAKE)
        .actions(Score.without(entry, ActionKind.LIFT))
        .done();
  }

  private static Optional<Action> lift(CornerEntry entry) {
    return entry.slowing() == Slowing.LIFT
        ? entry.actions().stream().filter(a -> a.kind() == ActionKind.LIFT).findFirst()
        : Optional.empty();
  }

  /** All of the throttle let go, or the share of it kept that is quickest. */
  private Optional<CornerEntry> lifting(CornerEntry now, CornerEntry wanted, School school) {
    Action own = lift(now).orElseThrow();
    CornerEntry draft = Drafter.entry(computed, c);
    CornerEntry best = null;
    double quickest = Double.MAX_VALUE;
    for (double share : school == School.LIFT_ALL ? NOTHING : SOME) {
      CornerEntry as = Drafter.lifting(computed, c, share).orElse(null);
      if (as != null) {
        double moved =
            computed
                .road()
                .apart(
                    Drafter.lift(draft).orElseThrow().station(),
                    Drafter.lift(as).orElseThrow().station());
        Action lift = own.at(computed.road().wrap(own.station() + moved)).amounting(share);
        CornerEntry tried = lifted(Score.with(opening(wanted, draft, as), lift), now);
        Double time = answers.answer(tried).time();
        if (time != null && time < quickest) {
          quickest = time;
          best = tried;
        }
      }
    }
    return Optional.ofNullable(best);
  }

  /** With a throttle that opens from what another lift keeps, where the draft's would. */
  private CornerEntry opening(CornerEntry wanted, CornerEntry draft, CornerEntry as) {
    Optional<Double> own = wanted.station(PointKind.FIRST_THROTTLE);
    Optional<Double> was = draft.station(PointKind.FIRST_THROTTLE);
    Optional<Double> is = as.station(PointKind.FIRST_THROTTLE);
    if (own.isEmpty() || was.isEmpty() || is.isEmpty()) {
      return wanted;
    }
    double first = computed.road().wrap(own.get() + computed.road().apart(was.get(), is.get()));
    double more = as.firstThrottle() - draft.firstThrottle();
    double share = Math.max(0, Math.min(1, wanted.firstThrottle() + more));
    return wanted
        .copy()
        .moved(PointKind.FIRST_THROTTLE, first)
        .firstThrottle(share)
        // Stages on the way there, and what would be less than what is kept.
        .actions(
            wanted.actions().stream()
                .filter(
                    a ->
                        a.kind() != ActionKind.THROTTLE
                            || computed.road().apart(first, a.station()) > 0
                                && (a.amount() == null || a.amount() >= share))
                .toList())
        .done();
  }

  /** No throttle before the brake is let go, and none of it all at once before some of it. */
  private CornerEntry inOrder(CornerEntry entry) {
    Optional<Double> release = entry.station(PointKind.RELEASE);
    Optional<Double> first = entry.station(PointKind.FIRST_THROTTLE);
    Optional<Double> full = entry.station(PointKind.FULL_THROTTLE);
    if (release.isEmpty() || first.isEmpty() || entry.slowing() != Slowing.BRAKE) {
      return entry;
    }
    double wait = Math.max(0, computed.road().apart(first.get(), release.get()));
    double open = computed.road().wrap(first.get() + wait);
    CornerEntry.Copy copy = entry.copy().moved(PointKind.FIRST_THROTTLE, open);
    if (wait > 0) {
      // Stages that the throttle had come to before it is opened now.
      copy.actions(
          entry.actions().stream()
              .filter(a -> !opens(a) || !between(first.get(), a.station(), open))
              .toList());
    }
    if (full.isPresent()) {
      double more = Math.max(0, 4 - computed.road().apart(open, full.get()));
      copy.moved(PointKind.FULL_THROTTLE, computed.road().wrap(full.get() + more));
    }
    return copy.done();
  }

  private static boolean opens(Action a) {
    return a.kind() == ActionKind.THROTTLE || a.kind() == ActionKind.FULL;
  }

  private boolean between(double from, double station, double to) {
    return computed.road().apart(from, station) >= 0 && computed.road().apart(station, to) >= 0;
  }

  private Optional<Double> release(CornerEntry entry, School school) {
    CornerLine line = answers.line(entry).line();
    double turnIn = entry.station(PointKind.TURN_IN).orElse(line.turnIn());
    double last = entry.station(PointKind.APEX).orElse(line.apex());
    double first = entry.station(PointKind.FIRST_APEX).orElse(line.apexes().get(0));
    double brake = entry.station(PointKind.BRAKE).orElse(turnIn);
    // Of two apexes the brake is for the first, unless it is pressed only after that.
    boolean twice = line.apexes().size() > 1 && computed.road().apart(brake, first) > 0;
    double way = computed.road().apart(turnIn, twice ? first : last);
    if (way < 4 || entry.point(PointKind.RELEASE).isEmpty()) {
      return Optional.empty();
    }
    if (school == School.STRAIGHT && computed.road().apart(brake, turnIn) < PRESSED) {
      return Optional.empty();
    }
    double share = school == School.TO_APEX ? 0.94 : school == School.STRAIGHT ? 0 : 0.22;
    double at = turnIn + share * way;
    return Optional.of(computed.road().wrap(Math.round(at * 2) / 2.0));
  }

  /** Moves the driver's points by what the model says the other line changes. */
  private CornerEntry relined(CornerEntry now, CornerEntry wanted) {
    SchoolLine present = answers.line(now);
    SchoolLine line = answers.line(wanted);
    if (line.path() == present.path()) {
      return wanted;
    }
    ComputedLap before =
        SchoolLine.bends(now.schools())
            ? computed.along(present.path()).reading(c, present.line())
            : computed;
    ComputedLap after = computed.along(line.path()).reading(c, line.line());
    CornerEntry was = Drafter.entry(before, c);
    CornerEntry drafted = Drafter.entry(after, c);
    // Whoever brakes here does not give the brake up for another line.
    CornerEntry is =
        now.slowing() == Slowing.BRAKE && drafted.slowing() != Slowing.BRAKE
            ? unlifted(drafted).copy().firstEffort(was.firstEffort()).done()
            : drafted;
    CornerEntry moved =
        Carried.entry(computed.road(), wanted, was, is, 0.5, computed.vehicle().gears(), null);
    List<CornerPoint> points = new ArrayList<>(moved.points());
    points.removeIf(p -> p.kind() == PointKind.FIRST_APEX);
    if (line.line().apexes().size() > 1) {
      points.add(new CornerPoint(PointKind.FIRST_APEX, line.line().apexes().get(0), null));
    }
    return moved.copy().points(points).apex(is.apexType(), is.apexGap()).done();
  }

  /**
   * Moves the braking marker to where it leaves the margin that the present plan has; a lift no
   * further than to where the corner is made.
   */
  private CornerEntry atMargin(CornerEntry entry, CornerEntry now) {
    if (entry.slowing() == Slowing.LIFT) {
      return lifted(entry, now);
    }
    if (entry.slowing() != Slowing.BRAKE || entry.station(PointKind.BRAKE).isEmpty()) {
      return entry;
    }
    double margin =
        now.slowing() == Slowing.BRAKE
            ? answers.margin(now)
            : computed.conditions().driving().margin();
    double marker = answers.markerAt(entry, margin);
    return opened(withMargin(entry, marker, margin), now);
  }

  /**
   * With a marker that leaves a margin. A shape stretches with its marker, and from another one its
   * last place may be another: then it comes as much sooner as is missing, but not before the road
   * that the corner is planned on.
   */
  private CornerEntry withMargin(CornerEntry entry, double marker, double margin) {
    CornerEntry out = entry.copy().moved(PointKind.BRAKE, marker).done();
    for (int tries = 0; tries < SOONER; tries++) {
      double missing = margin - answers.margin(out);
      if (missing < MISSING) {
        break;
      }
      double metres = Math.ceil(2 * missing * Math.max(1, entry.approachSpeed())) / 2;
      double sooner = answers.sooner(out.station(PointKind.BRAKE).orElse(marker), metres);
      out = out.copy().moved(PointKind.BRAKE, sooner).done();
    }
    return out;
  }

  /** The throttle is opened as much later as the corner needs, where now it is made. */
  private CornerEntry opened(CornerEntry entry, CornerEntry now) {
    if (answers.makes(entry) || !answers.makes(now)) {
      return entry;
    }
    for (int metres = 1; metres <= MOVED; metres++) {
      CornerEntry later = openedLater(entry, metres);
      if (answers.makes(later)) {
        return later;
      }
    }
    return entry;
  }

  private CornerEntry openedLater(CornerEntry entry, double metres) {
    CornerEntry.Copy copy = entry.copy();
    for (PointKind kind : List.of(PointKind.FIRST_THROTTLE, PointKind.FULL_THROTTLE)) {
      entry.station(kind).ifPresent(at -> copy.moved(kind, computed.road().wrap(at + metres)));
    }
    return copy.actions(
            entry.actions().stream()
                .map(a -> opens(a) ? a.at(computed.road().wrap(a.station() + metres)) : a)
                .toList())
        .done();
  }

  /** What lifts to make a corner comes so much sooner as it needs, where now it is made. */
  private CornerEntry lifted(CornerEntry entry, CornerEntry now) {
    if (answers.makes(entry) || !answers.makes(now)) {
      return entry;
    }
    for (int metres = 1; metres <= MOVED; metres++) {
      CornerEntry sooner = entry;
      for (Action a : entry.actions()) {
        if (a.kind() == ActionKind.LIFT) {
          sooner = Score.with(sooner, a.at(computed.road().wrap(a.station() - metres)));
        }
      }
      if (answers.makes(sooner)) {
        return sooner;
      }
    }
    return entry;
  }

  /** Whether a margin is less than a share of the present one, by more than may be missing. */
  private static boolean falls(double present, double margin) {
    return margin < Math.min(ENOUGH * present, present - MISSING);
  }

  private Outcome outcome(
      CornerEntry entry, @Nullable School school, boolean chosen, CornerEntry now) {
    CornerAnswer answer = answers.answer(entry);
    CornerAnswer.Pressing pressing = answer.pressing();
    Double toNext = answer.time();
    if (school != null && school.question() == Question.LINKED && toNext != null) {
      toNext = Compromise.seconds(computed, things, c, school, entry.givenAway());
    }
    boolean braking = entry.slowing() == Slowing.BRAKE;
    double margin = braking ? answers.margin(entry) : 0;
    // What cannot be done with what is in hand now is not compared with it.
    boolean scarce =
        school != null
            && braking
            && now.slowing() == Slowing.BRAKE
            && falls(answers.margin(now), margin);
    return new Outcome(
        school,
        chosen,
        scarce ? null : answer.cornerTime(),
        scarce ? null : toNext,
        margin,
        braking && now.slowing() == Slowing.BRAKE
            ? computed
                .road()
                .apart(
                    now.station(PointKind.BRAKE).orElse(0.0),
                    entry.station(PointKind.BRAKE).orElse(0.0))
            : 0,
        pressing == null ? entry.firstEffort() : pressing.peak(),
        pressing == null ? 0 : pressing.asks(),
        answer.minimumSpeed(),
        answer.tyreWork(),
        entry.gear(),
        null,
        entry.givenAway());
  }

  /** A shadow near the braking marker. */
  private Optional<Landmark> shadow(CornerEntry entry) {
    Optional<Double> brake = entry.station(PointKind.BRAKE);
    return things.landmarks().stream()
        .filter(l -> l.permanence() == Landmark.Permanence.LIGHT)
        .filter(
            l ->
                brake.isPresent()
                    && Math.abs(computed.road().apart(l.station(), brake.get())) < LIGHT_REACH)
        .min(
            Comparator.comparingDouble(
                l -> Math.abs(computed.road().apart(l.station(), brake.orElse(0.0)))));
  }

  /**
   * Of two cues the earlier counts: the brake comes earlier on average, and scatters less where
   * both are told about as closely.
   */
  private Compared markers(CornerEntry entry) {
    Outcome now = outcome(entry, null, true, entry);
    @Nullable School chosen = School.chosen(entry.schools(), Question.MARKERS).orElse(null);
    List<Outcome> outcomes = new ArrayList<>();
    for (School school : School.answering(Question.MARKERS)) {
      Optional<CornerEntry> found = follow(entry, school);
      Optional<Cues.Met> met = found.flatMap(markers::met);
      if (found.isPresent() && met.isPresent()) {
        CornerEntry pressed = markers.onAverage(found.get(), met.get());
        outcomes.add(
            ChoicesOutcomeBuilder.builder(outcome(pressed, school, school == chosen, entry))
                .precision(met.get().precision())
                .build());
      }
    }
    return new Compared(Question.MARKERS, now, outcomes, best(outcomes));
  }

  /** With and without shadows: how precisely the marker can be told by the best that is left. */
  private Compared light(CornerEntry entry, MarkerJudge.View view) {
    Outcome now = outcome(entry, null, true, entry);
    @Nullable School chosen = School.chosen(entry.schools(), Question.LIGHT).orElse(null);
    double brake = entry.station(PointKind.BRAKE).orElse(0.0);
    List<Outcome> outcomes = new ArrayList<>();
    for (School school : School.answering(Question.LIGHT)) {
      double least = Double.MAX_VALUE;
      for (Landmark l : things.landmarks()) {
        boolean light = l.permanence() == Landmark.Permanence.LIGHT;
        double past = computed.road().apart(l.station(), brake);
        if (Math.abs(past) > LIGHT_REACH || (light && school == School.NO_LIGHT)) {
          continue;
        }
        double missed = l.precisionAt(past);
        least = Math.min(least, light ? missed + moved(l, view) : missed);
      }
      Double precision = least == Double.MAX_VALUE ? null : least;
      outcomes.add(
          ChoicesOutcomeBuilder.builder(now)
              .school(school)
              .chosen(school == chosen)
              .brakingMoved(0)
              .precision(precision)
              .build());
    }
    // With the same precision nothing is left to the weather.
    School best =
        outcomes.stream()
            .filter(o -> o.precision() != null)
            .min(
                Comparator.comparingDouble(
                    o -> {
                      Double p = o.precision();
                      return (p == null ? 0 : p) + (o.school() == School.SAME_HOUR ? 0.01 : 0);
                    }))
            .map(Outcome::school)
            .orElse(null);
    return new Compared(Question.LIGHT, now, outcomes, best);
  }

  private double moved(Landmark l, MarkerJudge.View view) {
    MarkerJudge judge = new MarkerJudge(computed.road(), things.landmarks(), view);
    Double moved = judge.judge(l, 0, 30, 0).moved();
    return moved == null ? 0 : Math.abs(moved);
  }
}
