package marvek.server.session;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.circuit.LocalPlane;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.ReferenceContent;
import marvek.core.line.Watch;
import marvek.core.numeric.Spread;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import marvek.core.session.BrakeWarming;
import marvek.core.session.Daylight;
import marvek.core.session.FocusLine;
import marvek.core.session.FuelLine;
import marvek.core.session.Gathering;
import marvek.core.session.Lately;
import marvek.core.session.LimitCost;
import marvek.core.session.OnTheDay;
import marvek.core.session.PitEntry;
import marvek.core.session.PlanOfDay;
import marvek.core.session.PlannedLine;
import marvek.core.session.RaceCraft;
import marvek.core.session.RaceNumbers;
import marvek.core.session.RungLine;
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
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;
import marvek.core.words.Speech;
import marvek.server.access.Driver;
import marvek.server.debrief.Evidences;
import marvek.server.problem.Problem;
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
      PlanOfDay.@Nullable SettlingLine settling,
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
    Outing driven = driven(driver.id(), session);
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
    Outing driven = driven(driver.id(), session);
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

  private List<GatherLine> gathers(Driver driver, SessionRow row, Outing driven) {
    ComputedLap then = driven.then();
    Optional<Lately> seen = lately(driver, before(driver, row, driven.reference()));
    List<Gathering> all =
        Gathering.of(
            then,
            driven.entries().stream()
                .map(e -> Hazards.of(then, driven.reference().things(), e))
                .toList(),
            sessions.saidBefore(driver.id(), driven.reference().row().id(), row.startsAt()).stream()
                .flatMap(List::stream)
                .toList(),
            seen.map(Lately::debrief).orElse(null),
            seen.map(Lately::laps).orElse(0));
    double most = all.isEmpty() ? 1 : all.get(0).weight();
    return all.stream()
        .map(g -> new GatherLine(g.corner(), g.weight() / most, !g.own().isEmpty(), g.words()))
        .toList();
  }

  /** A corner from the inside, in the session's conditions; null where there is no way inside. */
  RaceCraft.@Nullable Inside inside(Driver driver, UUID session, String corner) {
    Outing driven = driven(driver.id(), session);
    if (driven.then().corners().stream().noneMatch(c -> c.id().equals(corner))) {
      throw Problem.none("refusal.none.no_corner");
    }
    return RaceCraft.inside(driven.then(), driven.then().indexOf(corner));
  }

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
    Day warm = Today.warm(session, opened.computed().vehicle());
    return OnTheDay.of(
        opened.computed(),
        references.on(opened, warm),
        (line, day) -> references.held(opened, warm, day),
        spread,
        opened.things(),
        opened.working(),
        session,
        told,
        opened.view(
            session.timing().begins().atZone(session.timing().start().zone()).toLocalDateTime(),
            false));
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
  public record Outing(
      TrackSession session,
      References.Opened reference,
      ComputedLap then,
      List<CornerEntry> entries,
      int laps,
      int warmFrom,
      Set<String> changed) {}

  /** What is driven in a session that is planned from a reference. */
  public Outing driven(UUID owner, UUID session) {
    SessionRow row = sessions.own(owner, session);
    UUID reference = sessions.referenceOf(owner, session);
    References.Opened opened = references.open(owner, reference);
    OnTheDay day = onTheDay(row, opened);
    return new Outing(
        row.body(),
        opened,
        day.then(),
        day.entries(),
        day.today().laps(),
        day.today().warmFrom(),
        day.changed());
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
    OnTheDay day = onTheDay(row, opened);
    PlanOfDay plan =
        PlanOfDay.of(
            day,
            new PlanOfDay.Ground(
                opened.computed(),
                opened.things(),
                opened.working(),
                row.body(),
                lately(driver, before).orElse(null),
                stints(before),
                said,
                opened.layout().plane(),
                opened.layout().altitude()),
            PlannedLine.of(
                day,
                opened.things(),
                speaking.words(day.then(), new ReferenceContent(day.entries()), driver),
                speaking.speech(driver)));
    return new SessionPlan(
        clock.instant(),
        opened.row().id(),
        opened.layout().circuit().name(),
        opened.row().name(),
        opened.row().basedOnRevision(),
        opened.row().changed(),
        day.today(),
        plan.lines(),
        plan.focus(),
        plan.notToday(),
        plan.rungs(),
        plan.targets(),
        plan.fuel(),
        plan.wheels(),
        plan.tread(),
        plan.motorcycle(),
        day.pits(),
        day.race(),
        day.straights(),
        plan.device(),
        plan.split(),
        plan.warming(),
        day.light(),
        plan.cautions(),
        plan.evidence(),
        plan.alike(),
        plan.settling(),
        plan.daylight());
  }

  /** What keeping off the edges costs, against what leaving the road costs in the session. */
  record LimitsToday(LimitCost cost, Said words, List<LimitLine> corners) {}

  record LimitLine(String corner, String called, double seconds) {}

  LimitsToday limits(Driver driver, UUID session) {
    Outing driven = driven(driver.id(), session);
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

  /** The latest runs that a session's plan may rest on. */
  private List<RunRow> before(Driver driver, SessionRow row, References.Opened opened) {
    return runs.of(driver.id(), opened.row().id()).stream()
        .filter(r -> !row.id().equals(r.sessionId()))
        .filter(r -> r.drivenAt().isBefore(row.startsAt()))
        .filter(r -> r.layoutVersionId().equals(opened.row().layoutVersionId()))
        .limit(LATEST_RUNS)
        .toList();
  }

  private Optional<Lately> lately(Driver driver, List<RunRow> before) {
    for (RunRow r : before) {
      Evidences.Judged judged = evidences.judged(runs.read(driver.id(), r.id()), null);
      if (!judged.laps().isEmpty() && judged.part() != null && judged.part().day() != null) {
        return Optional.of(
            new Lately(
                evidences.debrief(judged),
                judged.laps().size(),
                judged.computed().conditions().grip()));
      }
    }
    return Optional.empty();
  }

  /** Seconds of the first stint of each of the runs before. */
  private List<List<@Nullable Double>> stints(List<RunRow> before) {
    if (before.isEmpty()) {
      return List.of();
    }
    return runs.lapLines(before).stream()
        .collect(
            Collectors.groupingBy(
                LapLine::run,
                LinkedHashMap::new,
                Collectors.mapping(
                    l -> new Settling.Timed(l.kind(), l.lapTime()), Collectors.toList())))
        .values()
        .stream()
        .map(Settling::firstStint)
        .toList();
  }
}
