package marvek.server.session;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.said.Said;
import marvek.core.session.Errand;
import marvek.core.session.RaceCraft;
import marvek.core.session.SessionDay;
import marvek.core.session.Told;
import marvek.core.session.TrackSession;
import marvek.core.session.Weather;
import marvek.server.access.Driver;
import marvek.server.export.Paper;
import marvek.server.problem.Problem;
import marvek.server.reference.ReferenceSummary;
import marvek.server.reference.References;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import marvek.server.words.Speakers;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
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
import org.springframework.web.multipart.MultipartFile;

/** Events, sessions, their plans, briefs and logs. */
@RestController
@RequestMapping("/api")
class TrackSessionController {
  // Where no reference says how long a lap takes, s.
  private static final double SOME_LAP = 100;

  private final Sessions sessions;
  private final Planner planner;
  private final References references;
  private final Runs runs;
  private final FeltBeside felt;
  private final WeatherReader station;
  private final SpokenNotes spoken;
  private final BriefTrials trials;
  private final SessionPack packs;
  private final Speakers speakers;
  private final Clock clock;

  TrackSessionController(
      Sessions sessions,
      Planner planner,
      References references,
      Runs runs,
      FeltBeside felt,
      WeatherReader station,
      SpokenNotes spoken,
      BriefTrials trials,
      SessionPack packs,
      Speakers speakers,
      Clock clock) {
    this.sessions = sessions;
    this.planner = planner;
    this.references = references;
    this.runs = runs;
    this.felt = felt;
    this.station = station;
    this.spoken = spoken;
    this.trials = trials;
    this.packs = packs;
    this.speakers = speakers;
    this.clock = clock;
  }

  record EventView(UUID id, String name, ZoneId zone, List<SessionLine> sessions) {}

  /** All events, the latest last, and the references that a session can be for. */
  record CalendarView(List<EventView> events, List<ReferenceSummary> references) {}

  @GetMapping("/events")
  CalendarView calendar(@AuthenticationPrincipal Driver driver) {
    List<ReferenceSummary> mine = references.of(driver.id());
    Map<UUID, ReferenceSummary> by =
        mine.stream().collect(Collectors.toMap(ReferenceSummary::id, r -> r));
    List<SessionRow> all = sessions.all(driver.id());
    Map<UUID, Integer> driven = sessions.driven(driver.id());
    Map<UUID, List<SessionRow>> of =
        all.stream().collect(Collectors.groupingBy(SessionRow::eventId));
    List<EventView> events =
        sessions.events(driver.id()).stream()
            .map(
                e -> {
                  List<SessionRow> rows = of.getOrDefault(e.id(), List.of());
                  return new EventView(
                      e.id(),
                      e.name(),
                      e.zone(),
                      rows.stream()
                          .map(
                              s ->
                                  line(
                                      s,
                                      by.get(s.referenceId()),
                                      s.equals(rows.get(0)),
                                      driven.getOrDefault(s.id(), 0)))
                          .toList());
                })
            .toList();
    return new CalendarView(events, mine);
  }

  private SessionLine line(
      SessionRow s, @Nullable ReferenceSummary reference, boolean first, int driven) {
    double lap = reference == null ? SOME_LAP : reference.lapTime();
    var timing = s.body().timing();
    return new SessionLine(
        s.id(),
        s.eventId(),
        s.referenceId(),
        reference == null ? null : reference.circuit() + ", " + reference.name(),
        s.body(),
        timing.begins(),
        timing.ends(lap),
        timing.begins().atZone(timing.start().zone()).toLocalDateTime(),
        timing.clocks(lap),
        s.made(),
        s.version(),
        sessions.sheet(s, lap, first),
        driven);
  }

  record EventRequest(
      @NotBlank @Size(max = 100) String name, @NotBlank @Size(max = 60) String zone) {}

  record EventName(@NotBlank @Size(max = 100) String name) {}

  record SessionMade(UUID id) {}

  @PostMapping("/events")
  @ResponseStatus(HttpStatus.CREATED)
  SessionMade event(@Valid @RequestBody EventRequest body, @AuthenticationPrincipal Driver driver) {
    return new SessionMade(sessions.event(driver.id(), body.name(), body.zone()).id());
  }

  @PutMapping("/events/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void rename(
      @PathVariable UUID id,
      @Valid @RequestBody EventName body,
      @AuthenticationPrincipal Driver driver) {
    sessions.rename(driver.id(), id, body.name());
  }

  @DeleteMapping("/events/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeEvent(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    sessions.removeEvent(driver.id(), id);
  }

  /**
   * A session to keep.
   *
   * @param version that it was changed from; nothing for a new one
   */
  record SessionRequest(int version, @Nullable UUID reference, @NotNull TrackSession session) {}

  @PostMapping("/events/{id}/sessions")
  @ResponseStatus(HttpStatus.CREATED)
  SessionMade add(
      @PathVariable UUID id,
      @Valid @RequestBody SessionRequest body,
      @AuthenticationPrincipal Driver driver) {
    return new SessionMade(
        sessions.add(driver.id(), id, body.reference(), body.session(), null).id());
  }

  @GetMapping("/sessions/{id}")
  PlannedSession session(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    SessionRow row = sessions.own(driver.id(), id);
    return planned(driver, row);
  }

  private PlannedSession planned(Driver driver, SessionRow row) {
    UUID of = row.referenceId();
    ReferenceSummary reference =
        of == null
            ? null
            : references.of(driver.id()).stream()
                .filter(r -> r.id().equals(of))
                .findFirst()
                .orElse(null);
    List<RunRow> driven = sessions.runs(row.id());
    Planner.SessionPlan plan = reference == null ? null : planner.plan(driver, row).orElse(null);
    return new PlannedSession(
        line(row, reference, sessions.first(row), driven.size()),
        sessions.ownEvent(driver.id(), row.eventId()).name(),
        driven.stream()
            .map(r -> new PlannedSession.RunOfSession(r.id(), r.name(), r.drivenAt()))
            .toList(),
        sessions.parts(row.id()).stream()
            .map(p -> new PlannedSession.PartOfSession(p.id(), p.body().name(), p.startsAt()))
            .toList(),
        plan,
        row.body().day().words(),
        plan == null ? List.of() : BriefSheet.of(row.body(), plan, trials.of(driver, row.id())),
        row.briefRead(),
        row.briefReadAt());
  }

  /** What the session does to its tyres, and where they are spared. */
  @GetMapping("/sessions/{id}/tyres")
  Planner.TyresToday tyres(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return planner.tyres(driver, id);
  }

  /** Where one is held up, may breathe, and where flags are shown. */
  @GetMapping("/sessions/{id}/race")
  Planner.RaceToday race(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return planner.race(driver, id);
  }

  @GetMapping("/sessions/{id}/limits")
  Planner.LimitsToday limits(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return planner.limits(driver, id);
  }

  /** A corner from the inside; nothing where there is no way to come there. */
  record InsideView(RaceCraft.@Nullable Inside inside) {}

  @GetMapping("/sessions/{id}/inside/{corner}")
  InsideView inside(
      @PathVariable UUID id, @PathVariable String corner, @AuthenticationPrincipal Driver driver) {
    return new InsideView(planner.inside(driver, id, corner));
  }

  /** The brief as open data: the same as is shown. */
  @GetMapping("/sessions/{id}/brief.json")
  ResponseEntity<PlannedSession> brief(
      @PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"brief.json\"")
        .body(session(id, driver));
  }

  /** The brief on one page. */
  @GetMapping("/sessions/{id}/brief.pdf")
  ResponseEntity<byte[]> paper(
      @PathVariable UUID id,
      @RequestParam(defaultValue = "A4") BriefPdf.Size size,
      @AuthenticationPrincipal Driver driver)
      throws IOException {
    PlannedSession session = session(id, driver);
    if (session.plan() == null) {
      throw noPlan();
    }
    return Paper.file(
        "brief.pdf", "application/pdf", BriefPdf.of(session, speakers.of(driver), size));
  }

  /** Brief, reference of the day, lap, sheet and calendar in one file. */
  @GetMapping("/sessions/{id}/pack.zip")
  ResponseEntity<byte[]> pack(@PathVariable UUID id, @AuthenticationPrincipal Driver driver)
      throws IOException {
    SessionRow row = sessions.own(driver.id(), id);
    PlannedSession session = planned(driver, row);
    if (session.plan() == null) {
      throw noPlan();
    }
    return Paper.file(
        "session.zip",
        "application/zip",
        packs.of(session, row, planner.driven(driver.id(), id), speakers.of(driver)));
  }

  private static Problem noPlan() {
    return Problem.bad("refusal.session.no_plan_take_along");
  }

  @PutMapping("/sessions/{id}")
  PlannedSession keep(
      @PathVariable UUID id,
      @Valid @RequestBody SessionRequest body,
      @AuthenticationPrincipal Driver driver) {
    return planned(
        driver, sessions.plan(driver.id(), id, body.version(), body.reference(), body.session()));
  }

  /**
   * What became of a session.
   *
   * @param minutes later, or to which it is shortened (laps, where its length is in laps)
   */
  record TurnRequest(@NotNull Sessions.Turn turn, @Min(-600) @Max(1440) int minutes) {}

  @PostMapping("/sessions/{id}/turned")
  PlannedSession turned(
      @PathVariable UUID id,
      @Valid @RequestBody TurnRequest body,
      @AuthenticationPrincipal Driver driver) {
    return planned(driver, sessions.turned(driver.id(), id, body.turn(), body.minutes()));
  }

  /** The session that it becomes a part of; null to be one of its own again. */
  record JoinRequest(@Nullable UUID into) {}

  @PutMapping("/sessions/{id}/joined")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void join(
      @PathVariable UUID id,
      @Valid @RequestBody JoinRequest body,
      @AuthenticationPrincipal Driver driver) {
    sessions.join(driver.id(), id, body.into());
  }

  /** Runs that become a session of their own. */
  record PartRequest(@NotEmpty @Size(max = 100) List<@NotNull UUID> runs) {}

  @PostMapping("/sessions/{id}/parts")
  @ResponseStatus(HttpStatus.CREATED)
  SessionMade part(
      @PathVariable UUID id,
      @Valid @RequestBody PartRequest body,
      @AuthenticationPrincipal Driver driver) {
    return new SessionMade(sessions.part(driver.id(), id, body.runs()).id());
  }

  record EventOfSession(@NotNull UUID event) {}

  @PutMapping("/sessions/{id}/event")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void moveToEvent(
      @PathVariable UUID id,
      @Valid @RequestBody EventOfSession body,
      @AuthenticationPrincipal Driver driver) {
    sessions.toEvent(driver.id(), id, body.event());
  }

  record DoneRequest(@NotNull Errand errand, boolean done) {}

  @PostMapping("/sessions/{id}/done")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void done(
      @PathVariable UUID id,
      @Valid @RequestBody DoneRequest body,
      @AuthenticationPrincipal Driver driver) {
    sessions.done(driver.id(), id, body.errand(), body.done());
  }

  record LikeRequest(@NotNull LocalDateTime wall, @Nullable @Size(max = 100) String name) {}

  @PostMapping("/sessions/{id}/like")
  @ResponseStatus(HttpStatus.CREATED)
  SessionMade like(
      @PathVariable UUID id,
      @Valid @RequestBody LikeRequest body,
      @AuthenticationPrincipal Driver driver) {
    return new SessionMade(sessions.like(driver.id(), id, body.wall(), body.name()).id());
  }

  @DeleteMapping("/sessions/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    sessions.remove(driver.id(), id, false);
  }

  @PostMapping("/sessions/{id}/back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void back(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    sessions.remove(driver.id(), id, true);
  }

  /** What each part of the brief said. */
  record ReadRequest(@NotNull Map<String, String> said) {}

  @PostMapping("/sessions/{id}/read")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void read(
      @PathVariable UUID id,
      @Valid @RequestBody ReadRequest body,
      @AuthenticationPrincipal Driver driver) {
    sessions.read(driver.id(), id, body.said());
  }

  @PostMapping("/sessions/{id}/runs")
  @ResponseStatus(HttpStatus.CREATED)
  SessionMade run(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return new SessionMade(sessions.run(driver.id(), id).id());
  }

  /** Where a run belongs; null for nowhere. */
  record IntoRequest(@Nullable UUID session) {}

  @PutMapping("/runs/{id}/session")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void into(
      @PathVariable UUID id,
      @Valid @RequestBody IntoRequest body,
      @AuthenticationPrincipal Driver driver) {
    sessions.into(driver.id(), id, body.session());
  }

  @GetMapping("/sessions/{id}/log")
  List<LogLine> log(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return sessions.lines(driver.id(), id).stream().map(LogLine::of).toList();
  }

  record LineRequest(
      @NotNull UUID id,
      @NotNull @Size(max = 60) String device,
      @NotNull Instant at,
      @NotNull Told told,
      boolean removed) {}

  record LogRequest(@NotNull @Size(max = 300) List<@Valid LineRequest> lines) {}

  /** Takes lines of a log; the same sent twice is there once. */
  @PostMapping("/sessions/{id}/log")
  List<LogLine> say(
      @PathVariable UUID id,
      @Valid @RequestBody LogRequest body,
      @AuthenticationPrincipal Driver driver) {
    sessions.take(
        driver.id(),
        id,
        body.lines().stream()
            .map(l -> new Sessions.Sent(l.id(), l.device(), l.at(), l.told(), l.removed()))
            .toList());
    return log(id, driver);
  }

  @PostMapping(
      value = "/sessions/{id}/log/{line}/sound",
      consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void speak(
      @PathVariable UUID id,
      @PathVariable UUID line,
      @RequestParam MultipartFile file,
      @AuthenticationPrincipal Driver driver)
      throws IOException {
    spoken.keep(driver.id(), id, line, file.getBytes());
  }

  @GetMapping("/sessions/{id}/log/{line}/sound")
  ResponseEntity<byte[]> sound(
      @PathVariable UUID id, @PathVariable UUID line, @AuthenticationPrincipal Driver driver) {
    SpokenNotes.Sound sound = spoken.of(driver.id(), id, line);
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType(sound.type()))
        .header("X-Content-Type-Options", "nosniff")
        .body(sound.bytes());
  }

  @GetMapping("/sessions/{id}/felt")
  FeltBeside.FeltView felt(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return felt.of(driver.id(), id);
  }

  /**
   * Weather around a session.
   *
   * @param there whether there is a station
   * @param stale whether its last reading is too old to go by
   * @param trouble why it was not understood
   * @param proposed conditions for the session's start; null where nothing is known of it
   */
  record WeatherView(
      boolean there,
      boolean stale,
      @Nullable Said trouble,
      @Nullable Weather weather,
      @Nullable SessionDay proposed) {}

  @GetMapping("/sessions/{id}/weather")
  WeatherView weather(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return weatherView(
        sessions.own(driver.id(), id),
        station.there(),
        station.weather().orElse(null),
        station.trouble());
  }

  /** What a file in the station's format says of a session, JSON or CSV; nothing of it is kept. */
  @PostMapping(value = "/sessions/{id}/weather", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  WeatherView weatherOfFile(
      @PathVariable UUID id,
      @RequestParam MultipartFile file,
      @AuthenticationPrincipal Driver driver)
      throws IOException {
    SessionRow row = sessions.own(driver.id(), id);
    if (file.getSize() > WeatherReader.LARGEST) {
      throw Problem.bad("refusal.session.file_larger").at("file");
    }
    return weatherView(row, true, Weather.read(file.getBytes()), null);
  }

  private WeatherView weatherView(
      SessionRow row, boolean there, @Nullable Weather weather, @Nullable Said trouble) {
    return new WeatherView(
        there,
        weather != null && weather.stale(clock.instant()),
        trouble,
        weather,
        weather == null
            ? null
            : weather.proposed(row.body().day(), row.body().timing().begins()).orElse(null));
  }
}
