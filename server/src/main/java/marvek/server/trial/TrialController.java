package marvek.server.trial;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Sections;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.session.Alternative;
import marvek.core.session.PlannedTrial;
import marvek.core.session.TrialPlan;
import marvek.core.session.TrialResult;
import marvek.core.words.Sentence;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.reference.Speaking;
import marvek.server.session.Planner;
import marvek.server.session.Sessions;
import marvek.server.sharing.Role;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Trials: two real ways, planned in a session, driven in turn, decided by the laps. */
@RestController
@RequestMapping("/api")
class TrialController {
  private final Trials trials;
  private final TrialLaps trialLaps;
  private final References references;
  private final Sessions sessions;
  private final Planner planner;
  private final Speaking speaking;

  TrialController(
      Trials trials,
      TrialLaps trialLaps,
      References references,
      Sessions sessions,
      Planner planner,
      Speaking speaking) {
    this.trials = trials;
    this.trialLaps = trialLaps;
    this.references = references;
    this.sessions = sessions;
    this.planner = planner;
    this.speaking = speaking;
  }

  /**
   * One of the two ways.
   *
   * @param words of the corner driven so; null for a sheet and for trials of before
   * @param entry of the corner; null likewise
   */
  record WayView(
      Alternative.Source source,
      String key,
      String label,
      Sentence.@Nullable Words words,
      @Nullable CornerEntry entry) {}

  /**
   * What can be tried.
   *
   * @param way against the plan
   * @param predicted seconds against it; null where the computation does not understand it
   * @param laps, or stints, of each way that it takes
   * @param told whether the session has room for them
   */
  record TryableView(WayView way, @Nullable Double predicted, int laps, boolean told) {}

  /**
   * Ways that can be tried in a session.
   *
   * @param spread of the driver's own, s; null where there is nothing to try
   * @param spreadLaps that it rests on; 0 where it is the usual one
   * @param laps that fit into the session
   */
  record TryablesView(
      List<TryableView> ways, @Nullable Double spread, int spreadLaps, int laps, int warmFrom) {}

  @GetMapping("/sessions/{id}/tryable")
  TryablesView tryable(
      @PathVariable UUID id,
      @RequestParam(defaultValue = "") @Size(max = 60) String corner,
      @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    List<PlannedTrial> all =
        corner.isEmpty() ? trials.sheets(driver.id(), id) : trials.driving(driver.id(), id, corner);
    PlannedTrial first = all.isEmpty() ? null : all.get(0);
    var spread = first == null ? null : first.spread();
    return new TryablesView(
        // What nobody can tell apart by driving is not what to try first.
        all.stream()
            .sorted(Comparator.comparing(PlannedTrial::hopeless))
            .map(
                t ->
                    new TryableView(
                        way(t.b(), corner, day.reference(), driver),
                        t.predicted(),
                        t.planned(),
                        t.plan() != null && t.plan().told()))
            .toList(),
        spread == null ? null : spread.seconds(),
        spread == null ? 0 : spread.laps(),
        day.laps(),
        day.warmFrom());
  }

  private WayView way(Alternative a, String corner, References.Opened opened, Driver driver) {
    CornerEntry entry =
        a.entries().stream().filter(e -> e.corner().equals(corner)).findFirst().orElse(null);
    Sentence.Words words =
        entry == null
            ? null
            : speaking
                .words(opened.computed(), new ReferenceContent(List.of(entry)), driver)
                .get(0);
    return new WayView(a.source(), a.key(), a.label(), words, entry);
  }

  /**
   * What is to be tried.
   *
   * @param corner id; empty for a sheet or a setting
   * @param source of the other way
   * @param key of it there
   * @param number for a setting
   */
  record TrialRequest(
      @NotNull @Size(max = 60) String corner,
      Alternative.@NotNull Source source,
      @NotNull @Size(max = 100) String key,
      @Nullable Double number) {}

  record TrialCreated(UUID id) {}

  @PostMapping("/sessions/{id}/trials")
  @ResponseStatus(HttpStatus.CREATED)
  TrialCreated plan(
      @PathVariable UUID id,
      @Valid @RequestBody TrialRequest body,
      @AuthenticationPrincipal Driver driver) {
    return new TrialCreated(trials.plan(driver.id(), id, wanted(driver.id(), id, body)));
  }

  private PlannedTrial wanted(UUID owner, UUID session, TrialRequest body) {
    if (body.source() == Alternative.Source.SETTING) {
      Double number = body.number();
      if (number == null || !Double.isFinite(number)) {
        throw Problem.bad("refusal.trial.no_number_try").at("number");
      }
      return trials.setting(owner, session, body.key(), number);
    }
    return found(owner, session, body)
        .orElseThrow(() -> Problem.bad("refusal.trial.no_other_way_here").at("key"));
  }

  private Optional<PlannedTrial> found(UUID owner, UUID session, TrialRequest body) {
    if (body.source() == Alternative.Source.SCHOOL) {
      return trials.school(owner, session, body.corner(), body.key());
    }
    List<PlannedTrial> all =
        body.corner().isEmpty()
            ? trials.sheets(owner, session)
            : trials.driving(owner, session, body.corner());
    return all.stream()
        .filter(t -> t.b().source() == body.source() && t.b().key().equals(body.key()))
        .findFirst();
  }

  /** Which laps were which way; a dash for neither, whatever was planned. */
  record MarksRequest(@NotNull Map<String, String> marks) {}

  /**
   * A trial.
   *
   * @param session that it was planned for; null for some of before
   * @param corner id; empty for the whole lap
   * @param called corner as the driver calls it
   * @param b what is tried against a
   * @param planned laps, or stints, of each way; 0 where none were planned
   * @param order lap by lap, or stint by stint; empty where there is no room
   * @param from lap with which it begins
   * @param marks A or B by id of the lap
   * @param low lower end of the 95 % interval; null until there are two of each
   * @param taken which way was taken; null while none
   */
  record TrialView(
      UUID id,
      @Nullable UUID session,
      String sessionName,
      String corner,
      String called,
      WayView a,
      WayView b,
      boolean stints,
      @Nullable Double predicted,
      @Nullable Double spread,
      int spreadLaps,
      int planned,
      boolean told,
      List<TrialPlan.Way> order,
      int from,
      PlannedTrial.@Nullable Traces traces,
      Map<String, String> marks,
      int lapsA,
      int lapsB,
      double difference,
      @Nullable Double low,
      @Nullable Double high,
      boolean decided,
      Said verdict,
      List<Double> secondsA,
      List<Double> secondsB,
      @Nullable String taken) {}

  @GetMapping("/references/{id}/trials")
  List<TrialView> ofReference(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.read(driver.id(), id);
    return views(trials.ofReference(id), opened, driver);
  }

  @GetMapping("/sessions/{id}/trials")
  List<TrialView> ofSession(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    sessions.known(driver.id(), id);
    List<CornerTrial> all = trials.ofSessions(sessions.group(id));
    return all.isEmpty()
        ? List.of()
        : views(all, references.open(driver.id(), all.get(0).referenceId()), driver);
  }

  private List<TrialView> views(List<CornerTrial> all, References.Opened opened, Driver driver) {
    if (all.isEmpty()) {
      return List.of();
    }
    TrialLaps.Driven laps = trialLaps.driven(driver.id(), opened.row().id());
    Map<UUID, String> names = sessions.names(opened.row().ownerId());
    return all.stream().map(t -> view(t, opened, laps, names, driver)).toList();
  }

  private TrialView view(
      CornerTrial t,
      References.Opened opened,
      TrialLaps.Driven laps,
      Map<UUID, String> names,
      Driver driver) {
    PlannedTrial p = t.body();
    UUID session = t.sessionId();
    // Sessions are their driver's alone; whoever may read the reference sees the trial.
    boolean mine = opened.role() == Role.OWNER;
    Map<String, String> marks = TrialLaps.marks(t, laps);
    double[] a = seconds(p, "A", marks, laps, opened);
    double[] b = seconds(p, "B", marks, laps, opened);
    TrialResult result = TrialResult.of(a, b, p.planned(), p.worth());
    boolean known = Double.isFinite(result.low());
    TrialPlan plan = p.plan();
    var spread = p.spread();
    return new TrialView(
        t.id(),
        mine ? session : null,
        session == null || !mine ? "" : names.getOrDefault(session, ""),
        p.corner(),
        called(p.corner(), opened, driver),
        way(p.a(), p.corner(), opened, driver),
        way(p.b(), p.corner(), opened, driver),
        p.ofStints(),
        p.predicted(),
        spread == null ? null : spread.seconds(),
        spread == null ? 0 : spread.laps(),
        p.planned(),
        plan != null && plan.told(),
        plan == null ? List.of() : plan.order(),
        p.from(),
        p.traces(),
        marks,
        result.lapsA(),
        result.lapsB(),
        result.difference(),
        known ? result.low() : null,
        known ? result.high() : null,
        result.decided(),
        result.verdict(),
        Arrays.stream(a).boxed().toList(),
        Arrays.stream(b).boxed().toList(),
        t.taken());
  }

  private String called(String corner, References.Opened opened, Driver driver) {
    return opened.layout().counted().stream()
        .filter(c -> c.id().equals(corner))
        .findFirst()
        .map(c -> speaking.speech(driver).corner(c))
        .orElse(corner);
  }

  /** Seconds of a way: of its corner by lap, or of a lap by the mean of each stint. */
  private static double[] seconds(
      PlannedTrial p,
      String way,
      Map<String, String> marks,
      TrialLaps.Driven laps,
      References.Opened opened) {
    ComputedLap computed = opened.computed();
    List<LapData> of =
        laps.all().stream()
            .filter(l -> way.equals(marks.get(l.id().toString())))
            .map(l -> laps.times().get(l.id().toString()))
            .filter(Objects::nonNull)
            .toList();
    if (p.ofStints()) {
      return of.stream()
          .collect(
              Collectors.groupingBy(
                  LapData::run, TreeMap::new, Collectors.averagingDouble(LapData::lapTime)))
          .values()
          .stream()
          .mapToDouble(Double::doubleValue)
          .toArray();
    }
    int c = computed.indexOf(p.corner());
    Sections sections =
        new Sections(computed, Trials.soonest(computed, opened.working().corners(), p));
    return of.stream().mapToDouble(l -> sections.time(l, c)).toArray();
  }

  @PutMapping("/trials/{id}/marks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void mark(
      @PathVariable UUID id,
      @Valid @RequestBody MarksRequest request,
      @AuthenticationPrincipal Driver driver) {
    if (request.marks().size() > 2000) {
      throw Problem.bad("refusal.trial.so_many_laps_cannot").at("marks");
    }
    trials.mark(driver.id(), id, request.marks());
  }

  /** Which way is taken. */
  record TakenWay(@NotNull TrialPlan.Way way) {}

  @PostMapping("/trials/{id}/taken")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void take(
      @PathVariable UUID id,
      @Valid @RequestBody TakenWay body,
      @AuthenticationPrincipal Driver driver) {
    trials.take(driver.id(), id, body.way() == TrialPlan.Way.B);
  }

  @DeleteMapping("/trials/{id}/taken")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void giveBack(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    trials.giveBack(driver.id(), id);
  }

  @DeleteMapping("/trials/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    trials.remove(driver.id(), id);
  }
}
