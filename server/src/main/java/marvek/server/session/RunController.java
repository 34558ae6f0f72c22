package marvek.server.session;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.day.RunDays;
import marvek.core.debrief.LapData;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.LapGrid;
import marvek.core.telemetry.LapKind;
import marvek.core.telemetry.Mapping;
import marvek.core.telemetry.ReadReport;
import marvek.core.telemetry.Unit;
import marvek.server.access.Driver;
import marvek.server.debrief.Evidences;
import marvek.server.recording.Inbox;
import marvek.server.recording.Recording;
import marvek.server.recording.Recordings;
import marvek.server.reference.References;
import marvek.server.run.LapLine;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
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

/** Runs and their laps. */
@RestController
@RequestMapping("/api")
class RunController {
  private final Runs runs;
  private final References references;
  private final Inbox inbox;
  private final Evidences evidences;
  private final Recordings recordings;
  private final Sessions sessions;

  RunController(
      Runs runs,
      References references,
      Inbox inbox,
      Evidences evidences,
      Recordings recordings,
      Sessions sessions) {
    this.runs = runs;
    this.references = references;
    this.inbox = inbox;
    this.evidences = evidences;
    this.recordings = recordings;
    this.sessions = sessions;
  }

  record StartRequest(
      @Nullable @Size(max = 100) String name,
      @Nullable @Size(max = 60) String day,
      @Nullable Instant drivenAt) {}

  record RunChange(
      @NotBlank @Size(max = 100) String name,
      @Nullable @Size(max = 60) String day,
      int revision,
      @NotNull @Size(max = 2000) String note) {}

  record RunCreated(UUID id) {}

  /**
   * A recording and what was read, cleaned, derived or dropped.
   *
   * @param earlier whether an earlier version has read it, and it waits to be read again
   */
  record RecordingLine(
      UUID id,
      UUID run,
      String name,
      long bytes,
      Recording.State state,
      double progress,
      @Nullable Mapping mapping,
      List<ReadReport.Remark> report,
      Recording.@Nullable Trouble problem,
      boolean truth,
      boolean earlier) {
    static RecordingLine of(Recording r) {
      return new RecordingLine(
          r.id(),
          r.runId(),
          r.name(),
          r.bytes(),
          r.state(),
          r.progress(),
          r.mapping(),
          r.report(),
          r.problem(),
          r.truth() != null,
          r.earlier());
    }
  }

  /**
   * A run with its laps.
   *
   * @param session that it was driven in; null where there is none, or for whoever else reads
   */
  record RunLine(
      UUID id,
      String name,
      Instant drivenAt,
      @Nullable String day,
      List<RunDays.PartLine> parts,
      int revision,
      String sheet,
      String note,
      List<LapLine> laps,
      List<RecordingLine> recordings,
      @Nullable UUID session) {}

  /** A session that a run may belong to. */
  record SessionChoice(UUID id, String name, Instant begins, ZoneId zone) {}

  /**
   * The runs of a reference, the newest first.
   *
   * @param days that a run can be said to have been driven on
   * @param sessions that its runs may belong to, the latest first
   * @param inbox folder that is watched for this reference's files, or null
   */
  record RunsView(
      UUID reference,
      String title,
      String vehicle,
      Role role,
      int revision,
      List<Corner> corners,
      List<RunLine> runs,
      List<RunDays.DayChoice> days,
      List<SessionChoice> sessions,
      @Nullable String inbox) {}

  /** What a column may hold, for the driver to choose. */
  record ChannelChoice(Channel channel, Said words, List<UnitChoice> units) {}

  record UnitChoice(Unit unit, String symbol) {}

  @GetMapping("/channels")
  List<ChannelChoice> channels() {
    return java.util.Arrays.stream(Channel.values())
        .map(
            c ->
                new ChannelChoice(
                    c,
                    c.said(),
                    c.units().stream().map(u -> new UnitChoice(u, u.symbol())).toList()))
        .toList();
  }

  @GetMapping("/references/{id}/runs")
  RunsView runs(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.read(driver.id(), id);
    List<RunRow> rows = runs.of(driver.id(), id);
    // Asked for first: the laps of a recording that is said to be done are there.
    Map<UUID, List<RecordingLine>> recordings =
        this.recordings.of(rows).stream()
            .map(RecordingLine::of)
            .collect(Collectors.groupingBy(RecordingLine::run));
    Map<UUID, List<LapLine>> laps =
        runs.lapLines(rows).stream().collect(Collectors.groupingBy(LapLine::run));
    RunDays days = RunDays.of(opened.working());
    // Sessions are their driver's alone.
    boolean mine = opened.role() == Role.OWNER;
    Map<UUID, UUID> whole = mine ? sessions.wholes(driver.id()) : Map.of();
    return new RunsView(
        id,
        opened.layout().circuit().name(),
        opened.row().name(),
        opened.role(),
        opened.row().basedOnRevision(),
        opened.layout().counted(),
        rows.stream()
            .map(
                r ->
                    new RunLine(
                        r.id(),
                        r.name(),
                        r.drivenAt(),
                        days.named(r.day()),
                        days.parts(r.day(), LapLine.ofDays(laps.getOrDefault(r.id(), List.of()))),
                        r.revision(),
                        r.sheetName(),
                        r.note(),
                        laps.getOrDefault(r.id(), List.of()),
                        recordings.getOrDefault(r.id(), List.of()),
                        whole.get(r.sessionId())))
            .toList(),
        days.choices(),
        mine ? choices(driver, id) : List.of(),
        mine ? inbox.of(id) : null);
  }

  private List<SessionChoice> choices(Driver driver, UUID reference) {
    return sessions.all(driver.id()).stream()
        .filter(s -> reference.equals(s.referenceId()))
        .sorted(Comparator.comparing(SessionRow::startsAt).reversed())
        .map(
            s ->
                new SessionChoice(
                    s.id(), s.body().name(), s.startsAt(), s.body().timing().start().zone()))
        .toList();
  }

  @PostMapping("/references/{id}/runs")
  @ResponseStatus(HttpStatus.CREATED)
  RunCreated start(
      @PathVariable UUID id,
      @Valid @RequestBody StartRequest request,
      @AuthenticationPrincipal Driver driver) {
    return new RunCreated(
        runs.start(
                driver.id(),
                id,
                request.name() == null ? "" : request.name(),
                request.drivenAt(),
                request.day())
            .id());
  }

  @PutMapping("/runs/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void change(
      @PathVariable UUID id,
      @Valid @RequestBody RunChange change,
      @AuthenticationPrincipal Driver driver)
      throws IOException {
    String was = runs.own(driver.id(), id).day();
    runs.change(driver.id(), id, change.name(), change.day(), change.revision(), change.note());
    if (!Objects.equals(was, change.day())) {
      // Events are found by the line and the grip of the day.
      recordings.againAll(driver.id(), id);
    }
  }

  @DeleteMapping("/runs/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    runs.remove(driver.id(), id);
  }

  record LapChange(@NotNull LapKind kind, boolean counts, @NotNull @Size(max = 2000) String note) {}

  record LapByHand(double lapTime, @NotNull LapKind kind, @NotNull @Size(max = 2000) String note) {}

  @PutMapping("/laps/{id}")
  LapLine say(
      @PathVariable UUID id,
      @Valid @RequestBody LapChange change,
      @AuthenticationPrincipal Driver driver) {
    return LapLine.of(runs.say(driver.id(), id, change.kind(), change.counts(), change.note()));
  }

  @DeleteMapping("/laps/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeLap(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    runs.removeLap(driver.id(), id);
  }

  @PostMapping("/runs/{id}/laps")
  @ResponseStatus(HttpStatus.CREATED)
  LapLine byHand(
      @PathVariable UUID id,
      @Valid @RequestBody LapByHand lap,
      @AuthenticationPrincipal Driver driver) {
    return LapLine.of(runs.byHand(driver.id(), id, lap.lapTime(), lap.kind(), lap.note()));
  }

  /**
   * A lap's traces at even stations. Values are rounded to what a drawing can show.
   *
   * @param step metres
   * @param times seconds since the line, one more than the others
   * @param offset metres left of the centreline; empty where the place is not known
   * @param channels the rest by name
   * @param told whether the pedals were recorded, and not told from the speed
   */
  record TraceView(
      String id,
      Said title,
      double lapTime,
      double step,
      double[] times,
      double[] speed,
      double[] offset,
      Map<Channel, double[]> channels,
      List<CornerEvents> events,
      boolean told) {}

  @GetMapping("/laps/{id}/trace")
  TraceView trace(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Runs.OpenedLap found = runs.lap(driver.id(), id);
    LapGrid grid = runs.channels(found.lap()).grid();
    return new TraceView(
        id.toString(),
        Said.of(
            "trace.lap", Value.own(found.opened().run().name()), Value.count(found.lap().number())),
        found.lap().lapTime(),
        grid.step(),
        LapLine.rounded(grid.times()),
        LapLine.rounded(grid.speed()),
        grid.offset().length > 0 && Double.isNaN(grid.offset()[0])
            ? new double[0]
            : LapLine.rounded(grid.offset()),
        grid.channels().entrySet().stream()
            .collect(Collectors.toMap(Map.Entry::getKey, e -> LapLine.rounded(e.getValue()))),
        found.lap().events(),
        found.lap().told());
  }

  /** The computed lap of the day that the run was driven on, in the same form. */
  @GetMapping("/runs/{id}/plan-trace")
  TraceView plan(
      @PathVariable UUID id,
      @RequestParam(required = false) @Nullable String day,
      @AuthenticationPrincipal Driver driver) {
    var computed = evidences.judged(runs.read(driver.id(), id), day).computed();
    int count = Math.max(2, computed.road().size() / 2);
    double step = computed.road().length() / count;
    LapData plan = LapData.of(computed, step);
    int[] at = new int[count];
    for (int i = 0; i < count; i++) {
      at[i] = computed.road().index(i * step);
    }
    double[] gear = new double[count];
    double[] revs = new double[count];
    for (int i = 0; i < count; i++) {
      gear[i] = computed.lap().gear()[at[i]];
      revs[i] =
          computed.vehicle().revs(computed.lap().speed()[at[i]], computed.lap().gear()[at[i]]);
    }
    return new TraceView(
        "plan",
        Said.of("trace.computed"),
        plan.lapTime(),
        step,
        LapLine.rounded(plan.times()),
        LapLine.rounded(taken(computed.lap().speed(), at)),
        LapLine.rounded(taken(computed.path().offset(), at)),
        Map.of(
            Channel.BRAKE,
            LapLine.rounded(taken(computed.lap().brake(), at)),
            Channel.THROTTLE,
            LapLine.rounded(taken(computed.lap().throttle(), at)),
            Channel.ALONG,
            LapLine.rounded(taken(computed.lap().along(), at)),
            Channel.ACROSS,
            LapLine.rounded(taken(computed.lap().across(), at)),
            Channel.GEAR,
            gear,
            Channel.REVS,
            LapLine.rounded(revs)),
        List.of(),
        true);
  }

  private static double[] taken(double[] column, int[] at) {
    double[] out = new double[at.length];
    for (int i = 0; i < at.length; i++) {
      out[i] = column[at[i]];
    }
    return out;
  }
}
