package marvek.server.session;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.circuit.LocalPlane;
import marvek.core.debrief.Debrief;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.lap.Limits;
import marvek.core.lap.Surface;
import marvek.core.line.Watch;
import marvek.core.numeric.Spread;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Sureness;
import marvek.core.session.BrakeWarming;
import marvek.core.session.Confidence;
import marvek.core.session.Focus;
import marvek.core.session.FuelNeed;
import marvek.core.session.Gathering;
import marvek.core.session.LimitCost;
import marvek.core.session.PitEntry;
import marvek.core.session.Pressures;
import marvek.core.session.RaceCraft;
import marvek.core.session.RaceNumbers;
import marvek.core.session.Rungs;
import marvek.core.session.SessionFuel;
import marvek.core.session.SessionKind;
import marvek.core.session.SessionRules;
import marvek.core.session.Settling;
import marvek.core.session.StintSplit;
import marvek.core.session.StraightUse;
import marvek.core.session.Targets;
import marvek.core.session.Today;
import marvek.core.session.Told;
import marvek.core.session.TrackSession;
import marvek.core.session.Tread;
import marvek.core.session.TyreWork;
import marvek.core.session.Wheels;
import marvek.core.sun.SunPosition;
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;
import marvek.core.telemetry.LapKind;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;
import marvek.server.access.Driver;
import marvek.server.debrief.Evidences;
import marvek.server.problem.Problem;
import marvek.server.reference.Light;
import marvek.server.reference.References;
import marvek.server.reference.Speaking;
import marvek.server.run.LapLine;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Puts together what a session's plan says, from the rules in core. What it stands on is read in
 * short transactions of their own: nobody holds a connection while a plan is worked out.
 */
@Component
public class Planner {
  /** Litres of a kilogram where the vehicle does not say, for petrol. */
  private static final double DENSITY = 0.745;

  private static final int LATEST_RUNS = 4;

  private final Sessions sessions;
  private final References references;
  private final Runs runs;
  private final Evidences evidences;
  private final Speaking speaking;
  private final Clock clock;
  private final Spread spread;

  /** Plan, brief, rehearsal and trials of a session stand on the same; it is worked out once. */
  private final Cache<Of, OnTheDay> days = Caffeine.newBuilder().maximumSize(30).build();

  /** A brief is read again and again, and by many at once. */
  private final Cache<Asked, SessionPlan> plans = Caffeine.newBuilder().maximumSize(200).build();

  /** A lap that is laid anew with less road. */
  private record Narrowed(ComputedLap then, List<CornerEntry> entries, SessionRules rules) {}

  private final Cache<Narrowed, LimitCost> limits = Caffeine.newBuilder().maximumSize(30).build();

  Planner(
      Sessions sessions,
      References references,
      Runs runs,
      Evidences evidences,
      Speaking speaking,
      Clock clock,
      Spread spread) {
    this.sessions = sessions;
    this.references = references;
    this.runs = runs;
    this.evidences = evidences;
    this.speaking = speaking;
    this.clock = clock;
    this.spread = spread;
  }

  /**
   * A corner of the plan.
   *
   * @param called as the driver calls it
   * @param words of the corner as it is to be driven
   * @param today what differs from the reference
   * @param unsure points that are not sure or not proved
   */
  record PlannedLine(
      String corner,
      String called,
      double apex,
      Sentence.Words words,
      Today.CornerToday today,
      Said escape,
      boolean blind,
      boolean shortRunOff,
      List<PointKind> unsure) {}

  /** What to work on, in words. */
  record FocusLine(Focus focus, String called, Said words, Said cure, boolean chosen) {}

  /**
   * A marker to be approached.
   *
   * @param words what is done and when the next rung may be taken
   */
  record RungLine(Rungs rungs, String called, int firstLap, Said words) {}

  /**
   * Fuel.
   *
   * @param laps that it is for, formation and what the rule asks besides
   * @param litres to the end with the rest, in 95 of 100
   * @param reaches chance that what is in the tank does; null where nothing is said
   * @param otherReaches the same of the other load
   * @param otherCosts seconds a lap that the other load costs at the start
   * @param weighed whether what is in the tank is told apart from the vehicle's mass
   */
  record FuelLine(
      FuelNeed need,
      int laps,
      double litres,
      @Nullable Double reaches,
      @Nullable Double otherReaches,
      @Nullable Double otherCosts,
      boolean weighed) {}

  /**
   * A session planned.
   *
   * @param revision of the reference
   * @param changed whether the reference has been changed since that revision
   * @param straights what boost and device are worth; null where the vehicle has neither
   * @param device whether the vehicle has a device whose zones can be said
   * @param split of a race between two sets of tyres; null where one does
   * @param warming how brakes are warmed; null where there is nothing to warm them for
   * @param light markers that the hour's light changes
   * @param notToday what is not to be tried, and why
   * @param evidence laps that focus and targets rest on
   * @param daylight null where nobody has said where the circuit lies, and where it does not rise
   * @param alike whether they were driven on a day like that of the session
   * @param settling when the driver settles in; null where no sessions tell
   */
  record SessionPlan(
      Instant asOf,
      UUID reference,
      String circuit,
      String vehicle,
      int revision,
      boolean changed,
      Today today,
      List<PlannedLine> corners,
      List<FocusLine> focus,
      List<Said> notToday,
      List<RungLine> rungs,
      Targets targets,
      FuelLine fuel,
      List<Wheels> wheels,
      List<Tread> tread,
      boolean motorcycle,
      @Nullable PitEntry pits,
      @Nullable RaceNumbers race,
      @Nullable StraightUse straights,
      boolean device,
      @Nullable StintSplit split,
      @Nullable BrakeWarming warming,
      List<Said> light,
      List<Said> cautions,
      int evidence,
      boolean alike,
      @Nullable SettlingLine settling,
      @Nullable Daylight daylight) {
    Optional<BrakeWarming> brakes() {
      return Optional.ofNullable(warming);
    }

    /** The same, looked at later. */
    SessionPlan asOf(Instant now) {
      return new SessionPlan(
          now,
          reference,
          circuit,
          vehicle,
          revision,
          changed,
          today,
          corners,
          focus,
          notToday,
          rungs,
          targets,
          fuel,
          wheels,
          tread,
          motorcycle,
          pits,
          race,
          straights,
          device,
          split,
          warming,
          light,
          cautions,
          evidence,
          alike,
          settling,
          daylight);
    }
  }

  /** When the driver settles in, by sessions before. */
  record SettlingLine(Settling by, Said words) {}

  /**
   * What the session does to its tyres.
   *
   * @param wheels share of a lap's sliding work by wheel
   * @param most the wheel that works most
   * @param rate at which a lap wears them against a lap of the reference
   * @param costs seconds a lap that sparing where it is planned costs
   * @param words what the driver takes from it
   * @param corners in driving order
   */
  record TyresToday(
      List<Double> wheels,
      int most,
      double rate,
      double costs,
      List<Said> words,
      List<SparedLine> corners) {}

  /**
   * A corner in which the tyres may be spared.
   *
   * @param share of the most worn tyre's work
   * @param saved share of it that easing saves
   * @param seconds a lap that easing costs
   * @param rank place among the cheapest, from 1; 0 where nothing is spared
   */
  record SparedLine(
      String corner, String called, double share, double saved, double seconds, int rank) {}

  TyresToday tyres(Driver driver, UUID session) {
    Driven driven = driven(driver.id(), session);
    ComputedLap then = driven.then();
    List<String> spared = driven.session().tyres().spared();
    TyreWork work = TyreWork.of(then);
    TyreWork.Eased eased = TyreWork.eased(then, spared);
    List<TyreWork.InCorner> cheapest = work.cheapest();
    var speech = speaking.speech(driver);
    List<Corner> corners = driven.reference().layout().counted();
    List<SparedLine> lines = new ArrayList<>();
    for (int c = 0; c < corners.size(); c++) {
      TyreWork.InCorner in = work.corners().get(c);
      lines.add(
          new SparedLine(
              in.corner(),
              speech.corner(corners.get(c)),
              in.share(),
              in.saved(),
              in.seconds(),
              cheapest.indexOf(in) + 1));
    }
    List<Said> words = new ArrayList<>();
    words.add(work.worst());
    work.wears().ifPresent(words::add);
    return new TyresToday(
        work.wheels(),
        work.most(),
        TyreWork.rate(driven.reference().computed(), then, spared),
        eased.seconds(),
        words,
        lines);
  }

  /**
   * What racing others asks.
   *
   * @param called corners as the driver calls them, by id
   * @param pass places that the survey has for passing and defending
   * @param gathers where errors gather, most first
   */
  record RaceToday(
      RaceCraft craft, List<Place> pass, List<GatherLine> gathers, Map<String, String> called) {}

  /**
   * A corner in which errors gather.
   *
   * @param share of the weight of the one in which most do
   * @param own whether the driver's own laps or notes say so
   */
  record GatherLine(String corner, double share, boolean own, Said words) {}

  RaceToday race(Driver driver, UUID session) {
    Driven driven = driven(driver.id(), session);
    var speech = speaking.speech(driver);
    Map<String, String> called = new TreeMap<>();
    driven.reference().layout().counted().forEach(c -> called.put(c.id(), speech.corner(c)));
    return new RaceToday(
        RaceCraft.of(driven.then(), driven.reference().things()),
        driven.reference().things().places().stream()
            .filter(p -> p.kind() == PlaceKind.PASS || p.kind() == PlaceKind.DEFEND)
            .sorted(Comparator.comparingDouble(Place::from))
            .toList(),
        gathers(driver, sessions.own(driver.id(), session), driven),
        called);
  }

  private List<GatherLine> gathers(Driver driver, SessionRow row, Driven driven) {
    ComputedLap then = driven.then();
    Optional<Seen> seen = seen(driver, before(driver, row, driven.reference()));
    List<Gathering> all =
        Gathering.of(
            then,
            driven.entries().stream()
                .map(e -> Hazards.of(then, driven.reference().things(), e))
                .toList(),
            sessions.saidBefore(driver.id(), driven.reference().row().id(), row.startsAt()).stream()
                .flatMap(List::stream)
                .toList(),
            seen.map(Seen::debrief).orElse(null),
            seen.map(Seen::laps).orElse(0));
    double most = all.isEmpty() ? 1 : all.get(0).weight();
    return all.stream()
        .map(g -> new GatherLine(g.corner(), g.weight() / most, !g.own().isEmpty(), g.words()))
        .toList();
  }

  /** A corner from the inside, in the session's conditions; null where there is no way inside. */
  RaceCraft.@Nullable Inside inside(Driver driver, UUID session, String corner) {
    Driven driven = driven(driver.id(), session);
    if (driven.then().corners().stream().noneMatch(c -> c.id().equals(corner))) {
      throw Problem.none("refusal.none.no_corner");
    }
    return RaceCraft.inside(driven.then(), driven.then().indexOf(corner));
  }

  /** When the sun rises and sets at the circuit on the session's day, to twenty minutes. */
  record Daylight(Instant rises, Instant sets) {}

  /**
   * The reference on the day of a session.
   *
   * @param full as the reference is driven
   * @param then at the session's own pace; the same where it has none
   * @param need of fuel
   * @param straights what boost and device are worth; null where the vehicle has neither
   * @param race what a race asks besides; null in other sessions
   * @param pits null where nothing is said of the pit lane
   * @param heavier seconds a lap that the other load of fuel costs; null where there is none
   * @param light markers that the hour's light changes
   */
  private record OnTheDay(
      ComputedLap full,
      ComputedLap then,
      Today today,
      FuelNeed need,
      @Nullable StraightUse straights,
      @Nullable RaceNumbers race,
      @Nullable PitEntry pits,
      @Nullable Double heavier,
      List<Said> light) {}

  /** All that the reference on a session's day follows from. */
  private record Of(
      UUID session,
      int version,
      UUID reference,
      int referenceVersion,
      Map<String, Integer> things,
      @Nullable LocalPlane plane,
      List<Told> told) {}

  /** A run that a plan may rest on, as it is now. */
  private record RunNow(UUID id, int version) {}

  /** All that a plan follows from. */
  private record Asked(
      Of of,
      String circuit,
      List<Corner> corners,
      Speech speech,
      List<RunNow> runs,
      List<LapLine> laps,
      List<List<Told>> said) {}

  private Of of(SessionRow row, References.Opened opened, List<Told> told) {
    return new Of(
        row.id(),
        row.version(),
        opened.row().id(),
        opened.row().version(),
        opened.thingVersions(),
        // The hour's light follows from where the circuit lies.
        opened.layout().plane(),
        told);
  }

  private OnTheDay onTheDay(SessionRow row, References.Opened opened) {
    List<Told> told = sessions.told(row.id());
    return days.get(of(row, opened, told), o -> onTheDay(row, opened, told));
  }

  private OnTheDay onTheDay(SessionRow row, References.Opened opened, List<Told> told) {
    TrackSession session = row.body();
    ComputedLap base = opened.computed();
    Variant.Day warm = Today.warm(session, base.vehicle());
    ComputedLap full = references.on(opened, warm);
    ComputedLap then = Today.paced(full, session);
    FuelNeed need = need(then, session, told);
    Today today =
        Today.of(
            base,
            then,
            ((Today.Roads) (line, day) -> references.held(opened, warm, day)).as(then),
            spread,
            opened.things(),
            opened.working(),
            session,
            need.perLap() * density(then.vehicle()));
    Double tank = session.fuel().tank();
    Double other = session.fuel().other();
    return new OnTheDay(
        full,
        then,
        today,
        need,
        then.vehicle().boost() == null && then.vehicle().device() == null
            ? null
            : StraightUse.of(then, session.rules().device()),
        session.kind() == SessionKind.RACE
            ? RaceNumbers.of(
                then,
                session.tyres().warmUp(session.day()).share(1, then.lap().lapTime()),
                session.rules().standing())
            : null,
        PitEntry.of(then, session.rules(), opened.things()),
        tank == null || other == null
            ? null
            : (Double) heavier(then, (other - tank) * density(then.vehicle())),
        Light.words(
            Light.of(
                opened,
                session.timing().begins().atZone(session.timing().start().zone()).toLocalDateTime(),
                today.corners().stream().map(Today.CornerToday::entry).toList()),
            session.hour()));
  }

  /**
   * What is driven in a session.
   *
   * @param then lap computed for it
   * @param entries as they are to be driven
   * @param laps that fit
   * @param warmFrom first lap with warm tyres
   * @param changed corners in which something differs from the reference
   */
  public record Driven(
      TrackSession session,
      References.Opened reference,
      ComputedLap then,
      List<CornerEntry> entries,
      int laps,
      int warmFrom,
      Set<String> changed) {}

  /** What is driven in a session that is planned from a reference. */
  public Driven driven(UUID owner, UUID session) {
    SessionRow row = sessions.own(owner, session);
    UUID reference = sessions.referenceOf(owner, session);
    References.Opened opened = references.open(owner, reference);
    OnTheDay day = onTheDay(row, opened);
    return new Driven(
        row.body(),
        opened,
        day.then(),
        day.today().corners().stream().map(Today.CornerToday::entry).toList(),
        day.today().laps(),
        day.today().warmFrom(),
        day.today().corners().stream()
            .filter(c -> c.differences().stream().anyMatch(d -> d.when() == Today.When.ALL))
            .map(Today.CornerToday::corner)
            .collect(Collectors.toCollection(TreeSet::new)));
  }

  Optional<SessionPlan> plan(Driver driver, SessionRow row) {
    UUID reference = row.referenceId();
    return reference == null
        ? Optional.empty()
        : Optional.of(plan(driver, row, references.open(driver.id(), reference)));
  }

  private SessionPlan plan(Driver driver, SessionRow row, References.Opened opened) {
    List<RunRow> before = before(driver, row, opened);
    Asked asked =
        new Asked(
            of(row, opened, sessions.told(row.id())),
            opened.layout().circuit().name(),
            opened.layout().counted(),
            speaking.speech(driver),
            before.stream().map(r -> new RunNow(r.id(), r.version())).toList(),
            runs.lapLines(before),
            sessions.saidBefore(driver.id(), opened.row().id(), row.startsAt()));
    SessionPlan known = plans.getIfPresent(asked);
    if (known == null) {
      known = plan(driver, row, opened, before, asked.said());
      plans.put(asked, known);
    }
    return known.asOf(clock.instant());
  }

  private SessionPlan plan(
      Driver driver,
      SessionRow row,
      References.Opened opened,
      List<RunRow> before,
      List<List<Told>> said) {
    TrackSession session = row.body();
    ReferenceContent content = opened.working();
    ComputedLap base = opened.computed();
    OnTheDay day = onTheDay(row, opened);
    ComputedLap then = day.then();
    Today today = day.today();
    FuelNeed need = day.need();
    List<CornerEntry> entries = today.corners().stream().map(Today.CornerToday::entry).toList();
    List<Corner> corners = opened.layout().counted();
    List<Sentence.Words> words =
        speaking.words(opened.layout(), new ReferenceContent(entries), driver);
    List<PlannedLine> lines = new ArrayList<>();
    var speech = speaking.speech(driver);
    for (int i = 0; i < entries.size(); i++) {
      CornerEntry e = entries.get(i);
      Hazards hazards = Hazards.of(then, opened.things(), e);
      Corner corner = corners.get(base.indexOf(e.corner()));
      lines.add(
          new PlannedLine(
              e.corner(),
              speech.corner(corner),
              corner.apex(),
              words.get(i),
              today.corners().get(i),
              hazards.escape(),
              hazards.blind(),
              hazards.shortRunOff(),
              e.points().stream().filter(Planner::unsure).map(CornerPoint::kind).toList()));
    }
    Optional<Seen> seen = seen(driver, before);
    boolean alike = seen.map(s -> s.alike(then)).orElse(false);
    boolean motorcycle = then.vehicle().kind() == VehicleKind.MOTORCYCLE;
    List<FocusLine> focus =
        focus(session, lines, content, seen.orElse(null), alike, Confidence.trend(said));
    // Who is there from the first lap need not be told of it.
    Optional<Settling> settles = settles(before).filter(s -> s.lap() > 1);
    int ready = Math.max(today.warmFrom(), settles.map(Settling::lap).orElse(1));
    List<RungLine> rungs = rungs(session, opened, then, today.laps(), ready, lines, focus);
    FuelLine fuel = fuel(then, session, need, day.heavier());
    return new SessionPlan(
        clock.instant(),
        opened.row().id(),
        opened.layout().circuit().name(),
        opened.row().name(),
        opened.row().basedOnRevision(),
        opened.row().changed(),
        today,
        lines,
        focus,
        notToday(lines),
        rungs,
        Targets.of(
            day.full(),
            entries,
            alike ? seen.map(s -> s.debrief.theoretical()).orElse(null) : null,
            alike ? seen.map(s -> s.debrief.median()).orElse(null) : null),
        fuel,
        Wheels.of(
            session.tyres(),
            motorcycle ? 2 : 4,
            air(session),
            session.day().road(),
            atmosphere(session, opened.layout().altitude())),
        Tread.of(session.tyres(), motorcycle ? 2 : 4),
        motorcycle,
        day.pits(),
        day.race(),
        day.straights(),
        then.vehicle().device() != null,
        split(session, then, fuel.laps() - session.fuel().formation(), base),
        BrakeWarming.of(then).orElse(null),
        day.light(),
        cautions(session),
        seen.map(s -> s.laps).orElse(0),
        alike,
        settles.map(by -> new SettlingLine(by, by.words(today.warmFrom()))).orElse(null),
        daylight(session, opened));
  }

  private static @Nullable StintSplit split(
      TrackSession session, ComputedLap then, int laps, ComputedLap base) {
    return session.kind() == SessionKind.RACE
        ? StintSplit.of(then, session, laps, TyreWork.rate(base, then, session.tyres().spared()))
        : null;
  }

  /** What keeping off the edges costs, against what leaving the road costs in the session. */
  record LimitsToday(LimitCost cost, Said words, List<LimitLine> corners) {}

  record LimitLine(String corner, String called, double seconds) {}

  LimitsToday limits(Driver driver, UUID session) {
    Driven driven = driven(driver.id(), session);
    SessionRules rules = driven.session().rules();
    LimitCost cost =
        limits.get(
            new Narrowed(driven.then(), driven.entries(), rules),
            n -> LimitCost.of(driven.then(), driven.entries(), rules, Watch.NOBODY));
    var speech = speaking.speech(driver);
    List<Corner> corners = driven.reference().layout().counted();
    return new LimitsToday(
        cost,
        cost.words(rules, driven.laps()),
        cost.corners().stream()
            .map(
                c ->
                    new LimitLine(
                        c.corner(),
                        speech.corner(corners.get(driven.then().indexOf(c.corner()))),
                        c.seconds()))
            .toList());
  }

  private static @Nullable Daylight daylight(TrackSession session, References.Opened opened) {
    LocalPlane plane = opened.layout().plane();
    if (plane == null) {
      return null;
    }
    ZoneId zone = session.timing().start().zone();
    List<SunPosition.Moment> path =
        SunPosition.path(
            session.timing().begins().atZone(zone).toLocalDate(),
            zone,
            plane.latitude(),
            plane.longitude(),
            opened.layout().altitude());
    return path.isEmpty()
        ? null
        : new Daylight(path.get(0).time(), path.get(path.size() - 1).time());
  }

  private static boolean unsure(CornerPoint p) {
    Sureness sure = p.sure();
    return sure != null && sure.standsOut();
  }

  private static double density(Vehicle vehicle) {
    Vehicle.Fuel fuel = vehicle.fuel();
    return fuel == null ? DENSITY : fuel.density();
  }

  private static double air(TrackSession session) {
    Double air = session.day().day().airTemperature();
    return air == null ? 15 : air;
  }

  /** kPa at the place: as read, or that of the standard atmosphere at its height. */
  private static double atmosphere(TrackSession session, double height) {
    Double read = session.day().pressure();
    return read == null ? Pressures.atmosphere(height) : read / 10;
  }

  private static FuelNeed need(ComputedLap then, TrackSession session, List<Told> told) {
    List<Double> used = Sessions.used(session, told);
    if (used.size() >= FuelNeed.FEWEST) {
      return FuelNeed.measured(used);
    }
    Limits limits = new Limits(then.vehicle(), then.conditions(), then.lap().boostBelow());
    return FuelNeed.worked(FuelNeed.work(then.path(), limits, then.lap()), then.vehicle().fuel());
  }

  private static FuelLine fuel(
      ComputedLap then, TrackSession session, FuelNeed need, @Nullable Double heavier) {
    SessionFuel fuel = session.fuel();
    Double leader = fuel.leader();
    double lap = then.lap().lapTime();
    boolean race = session.kind() == SessionKind.RACE && session.timing().minutes() != null;
    int laps =
        race
            ? FuelNeed.laps(
                60.0 * session.timing().length(), leader == null ? lap : leader, fuel.oneMore())
            : session.timing().fits(lap) + 1;
    laps += fuel.formation();
    Double tank = fuel.tank();
    Double other = fuel.other();
    return new FuelLine(
        need,
        laps,
        need.litres(laps) + fuel.rest(),
        tank == null ? null : (Double) need.reaches(tank - fuel.rest(), laps),
        other == null ? null : (Double) need.reaches(other - fuel.rest(), laps),
        heavier,
        then.vehicle().fuel() != null);
  }

  /** Seconds that more mass costs in a lap. */
  private static double heavier(ComputedLap then, double mass) {
    return then.on(then.conditions().withExtraMass(then.conditions().extraMass() + mass))
            .lap()
            .lapTime()
        - then.lap().lapTime();
  }

  /** What the latest laps before a session say. */
  private record Seen(Debrief debrief, int laps, double grip) {
    /** Whether they were driven on a day like it. */
    boolean alike(ComputedLap then) {
      return Math.abs(grip / then.conditions().grip() - 1) < 0.05;
    }
  }

  /** The latest runs that a session's plan may rest on. */
  private List<RunRow> before(Driver driver, SessionRow row, References.Opened opened) {
    return runs.of(driver.id(), opened.row().id()).stream()
        .filter(r -> !row.id().equals(r.sessionId()))
        .filter(r -> r.drivenAt().isBefore(row.startsAt()))
        .filter(r -> r.layoutVersionId().equals(opened.row().layoutVersionId()))
        .limit(LATEST_RUNS)
        .toList();
  }

  private Optional<Seen> seen(Driver driver, List<RunRow> before) {
    for (RunRow r : before) {
      Evidences.Judged judged = evidences.judged(runs.read(driver.id(), r.id()), null);
      if (!judged.laps().isEmpty() && judged.part() != null && judged.part().day() != null) {
        return Optional.of(
            new Seen(
                evidences.debrief(judged),
                judged.laps().size(),
                judged.computed().conditions().grip()));
      }
    }
    return Optional.empty();
  }

  private static List<FocusLine> focus(
      TrackSession session,
      List<PlannedLine> lines,
      ReferenceContent content,
      @Nullable Seen seen,
      boolean alike,
      Map<String, Double> confidence) {
    List<FocusLine> out = new ArrayList<>();
    if (!session.focus().isEmpty()) {
      for (String id : session.focus()) {
        lines.stream()
            .filter(l -> l.corner().equals(id))
            .findFirst()
            .ifPresent(l -> out.add(chosen(l, seen)));
      }
      return out;
    }
    if (seen == null) {
      return out;
    }
    List<Focus.Candidate> candidates = new ArrayList<>();
    for (Debrief.CornerFinding c : seen.debrief.corners()) {
      PlannedLine line =
          lines.stream().filter(l -> l.corner().equals(c.corner())).findFirst().orElse(null);
      if (line == null || c.habits().isEmpty()) {
        continue;
      }
      Debrief.HabitFinding habit = c.habits().get(0);
      double error = c.spread() / Math.sqrt(Math.max(1, seen.laps));
      candidates.add(
          new Focus.Candidate(
              c.corner(),
              habit.cause(),
              c.offer(),
              c.offer() - 1.96 * error,
              (int) Math.round(habit.share() * seen.laps),
              seen.laps,
              sure(content, c.corner()),
              alike,
              !line.shortRunOff(),
              confidence.getOrDefault(c.corner(), 0.0)));
    }
    for (Focus f : Focus.of(candidates, (a, b) -> neighbours(lines, a, b))) {
      PlannedLine line =
          lines.stream().filter(l -> l.corner().equals(f.corner())).findFirst().orElseThrow();
      out.add(new FocusLine(f, line.called(), habit(seen, f), cure(seen, f), false));
    }
    return out;
  }

  private static FocusLine chosen(PlannedLine l, @Nullable Seen seen) {
    Debrief.CornerFinding found =
        seen == null
            ? null
            : seen.debrief.corners().stream()
                .filter(c -> c.corner().equals(l.corner()))
                .findFirst()
                .orElse(null);
    boolean habit = found != null && !found.habits().isEmpty();
    Focus f =
        new Focus(
            l.corner(),
            found != null && habit ? found.habits().get(0).cause() : "",
            0,
            found == null ? 0 : found.offer(),
            0);
    return new FocusLine(
        f,
        l.called(),
        found != null && habit ? found.habits().get(0).words() : Said.of("focus.chosen"),
        found != null && habit ? found.habits().get(0).cure() : Said.NOTHING,
        true);
  }

  /** Linked: what one does in the first is felt in the second. */
  private static boolean neighbours(List<PlannedLine> lines, String a, String b) {
    int i = index(lines, a);
    int j = index(lines, b);
    int apart = Math.abs(i - j);
    return apart == 1 || apart == lines.size() - 1;
  }

  private static int index(List<PlannedLine> lines, String corner) {
    for (int i = 0; i < lines.size(); i++) {
      if (lines.get(i).corner().equals(corner)) {
        return i;
      }
    }
    return -2;
  }

  private static @Nullable Sureness sure(ReferenceContent content, String corner) {
    return content.corners().stream()
        .filter(e -> e.corner().equals(corner))
        .flatMap(e -> e.points().stream())
        .map(CornerPoint::sure)
        .filter(s -> s != null)
        .max(Comparator.naturalOrder())
        .orElse(null);
  }

  private static Debrief.HabitFinding found(Seen seen, Focus f) {
    return seen.debrief.corners().stream()
        .filter(c -> c.corner().equals(f.corner()))
        .findFirst()
        .orElseThrow()
        .habits()
        .get(0);
  }

  private static Said habit(Seen seen, Focus f) {
    return found(seen, f).words();
  }

  private static Said cure(Seen seen, Focus f) {
    return found(seen, f).cure();
  }

  /**
   * Corners in which nothing later or faster is to be tried: there is no room when it goes wrong.
   */
  private static List<Said> notToday(List<PlannedLine> lines) {
    List<Said> out = new ArrayList<>();
    for (PlannedLine l : lines) {
      if (l.shortRunOff()) {
        out.add(Said.of("avoid.room", Value.own(l.called())));
      } else if (l.blind() && !l.unsure().isEmpty()) {
        out.add(Said.of("avoid.blind", Value.own(l.called())));
      }
    }
    return out;
  }

  /** By the laps of the first stint of each of the runs before. */
  private Optional<Settling> settles(List<RunRow> before) {
    if (before.isEmpty()) {
      return Optional.empty();
    }
    Map<UUID, List<LapLine>> laps =
        runs.lapLines(before).stream()
            .collect(Collectors.groupingBy(LapLine::run, LinkedHashMap::new, Collectors.toList()));
    return Settling.of(laps.values().stream().map(Planner::firstStint).toList());
  }

  /** Seconds of the flying laps up to where the driver came in; null for one that says nothing. */
  private static List<@Nullable Double> firstStint(List<LapLine> laps) {
    List<@Nullable Double> out = new ArrayList<>();
    for (LapLine l : laps) {
      if (l.kind() == LapKind.OUT && out.isEmpty()) {
        continue;
      }
      if (l.kind() == LapKind.IN || l.kind() == LapKind.OUT) {
        break;
      }
      boolean says =
          l.kind() == LapKind.PUSH || l.kind() == LapKind.COLD || l.kind() == LapKind.SLOW;
      out.add(says ? (Double) l.lapTime() : null);
    }
    return out;
  }

  /**
   * Where a marker is not where it was driven last, it is approached.
   *
   * @param laps of the session
   * @param ready first lap on which tyres and driver are
   */
  private static List<RungLine> rungs(
      TrackSession session,
      References.Opened opened,
      ComputedLap then,
      int laps,
      int ready,
      List<PlannedLine> lines,
      List<FocusLine> focus) {
    List<RungLine> out = new ArrayList<>();
    Map<Double, ComputedLap> careful = new LinkedHashMap<>();
    for (PlannedLine l : lines) {
      CornerEntry e = l.today().entry();
      boolean unsure = l.unsure().contains(PointKind.BRAKE);
      Focus worked =
          focus.stream()
              .map(FocusLine::focus)
              .filter(f -> f.corner().equals(l.corner()))
              .findFirst()
              .orElse(null);
      Double marker = e.station(PointKind.BRAKE).orElse(null);
      if (marker == null || !Rungs.wanted(unsure, worked)) {
        continue;
      }
      boolean dry = session.day().day().road().state() == Surface.State.DRY;
      boolean unknown = unsure || l.blind() || !dry;
      int c = then.indexOf(l.corner());
      double less = unknown ? Rungs.LESS_UNKNOWN : Rungs.LESS;
      Answers with = Answers.at(then, opened.things(), c);
      double margin = with.margin(e);
      double inHand =
          margin
              * Math.max(
                  1, then.lap().speed()[then.road().index(e.station(PointKind.BRAKE).get())]);
      ComputedLap lessGrip =
          careful.computeIfAbsent(
              less,
              share -> then.on(then.conditions().withGrip(then.conditions().grip() * (1 - share))));
      double early = Answers.at(lessGrip, opened.things(), c).markerAt(e, Math.max(0, margin));
      double before = -then.road().apart(marker, early);
      int there = Math.max(0, laps - ready + 1);
      Rungs rungs = Rungs.of(l.corner(), Math.max(0, before), Math.max(0, inHand), there);
      if (before >= 1 && !rungs.rungs().isEmpty()) {
        out.add(
            new RungLine(
                rungs,
                l.called(),
                ready,
                Said.of(
                    rungs.reached() ? "rungs.reached" : "rungs.short",
                    Value.length(before),
                    Value.count(rungs.rungs().size()))));
      }
    }
    return out;
  }

  private static List<Said> cautions(TrackSession session) {
    List<Said> out = new ArrayList<>();
    out.add(Said.of("caution.flags"));
    if (!session.tyres().hot().isEmpty()) {
      out.add(Said.of("caution.pressures"));
    }
    return out;
  }
}
