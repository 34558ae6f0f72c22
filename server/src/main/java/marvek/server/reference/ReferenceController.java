package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import marvek.core.anew.Doubt;
import marvek.core.anew.LapAsPlanned;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.ReferenceFile;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.survey.Things;
import marvek.core.vehicle.SetupSheet;
import marvek.core.words.Comparison;
import marvek.core.words.ReferenceCsv;
import marvek.core.words.ScoreCsv;
import marvek.core.words.Sentence;
import marvek.server.access.Driver;
import marvek.server.account.Accounts;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.RoadView;
import marvek.server.sharing.Role;
import marvek.server.sharing.Sharing;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.VehicleRow;
import marvek.server.work.Job;
import marvek.server.work.Jobs;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** References: draft, answer, work on, save, compare, bring in and take out. */
@RestController
@RequestMapping("/api")
class ReferenceController {
  private final References references;
  private final WorkingCopies workingCopies;
  private final NewerLayouts newerLayouts;
  private final Recomputing recomputing;
  private final Drafting drafting;
  private final Sharing sharing;
  private final Jobs jobs;
  private final Accounts accounts;
  private final Speaking speaking;

  ReferenceController(
      References references,
      WorkingCopies workingCopies,
      NewerLayouts newerLayouts,
      Recomputing recomputing,
      Drafting drafting,
      Sharing sharing,
      Jobs jobs,
      Accounts accounts,
      Speaking speaking) {
    this.sharing = sharing;
    this.references = references;
    this.workingCopies = workingCopies;
    this.newerLayouts = newerLayouts;
    this.recomputing = recomputing;
    this.drafting = drafting;
    this.jobs = jobs;
    this.accounts = accounts;
    this.speaking = speaking;
  }

  record DraftRequest(
      @NotNull UUID layoutId, @NotNull UUID vehicleId, @Nullable @Size(max = 100) String name) {}

  /**
   * A working copy to be stored.
   *
   * @param write a name of this writing that the device makes up: when its answer is lost, the
   *     device knows its own writing again and does not take it for another's
   */
  record WorkingRequest(int version, @NotNull ReferenceContent content, @Nullable UUID write) {}

  record SaveRequest(int version, @NotBlank @Size(max = 500) String reason) {}

  record VersionRequest(int version) {}

  /** The computed lap for drawing, at even steps of the centreline. */
  record LapView(
      double step,
      double lapTime,
      double[] speed,
      double[] throttle,
      double[] brake,
      int[] gear,
      double[] offset) {}

  /**
   * A reference as it is worked on.
   *
   * @param width of the vehicle, m
   * @param vehicleChanged whether vehicle, sheet or ground differ from what was computed on
   * @param sheet name of the set-up sheet that it is proved on, or null
   * @param otherSheetNext name of the sheet that is on the vehicle for the next session, when it is
   *     another one
   * @param doubts points to be confirmed since the layout changed
   * @param ahead points that a newer layout version would put in doubt
   * @param newerLayout whether there is one
   * @param placed whether the circuit's place on the earth is known
   * @param role of the person who looks
   * @param driver whose reference it is, when it is somebody else's
   * @param oldLine whether its line was computed by a method that has been replaced since
   * @param lost brakings of the computed lap that the working copy has no point for
   * @param recomputed whether it was computed anew, so that this can be undone
   * @param laidInPart whether the line was laid anew on a stretch and the rest is as before
   */
  record ReferenceView(
      UUID id,
      String name,
      UUID layoutId,
      String circuit,
      String layout,
      int layoutVersion,
      double length,
      UUID vehicleId,
      String vehicle,
      boolean motorcycle,
      int gears,
      double width,
      boolean vehicleChanged,
      int revision,
      boolean changed,
      LapAsPlanned planned,
      List<Corner> corners,
      Things things,
      Map<String, Integer> thingVersions,
      WorkingView working,
      ReferenceContent draft,
      @Nullable ReferenceContent saved,
      List<Sentence.Words> words,
      @Nullable String sheet,
      @Nullable String otherSheetNext,
      List<Doubt> doubts,
      List<Doubt> ahead,
      boolean newerLayout,
      boolean placed,
      String zone,
      Role role,
      @Nullable String driver,
      boolean oldLine,
      List<LostBrakings.Lost> lost,
      boolean recomputed,
      boolean laidInPart) {}

  record RevisionSummary(
      int number, int basedOn, String reason, LapAsPlanned planned, Instant createdAt) {}

  record RevisionView(
      RevisionSummary summary, ReferenceContent content, List<Sentence.Words> words) {}

  record ComparisonView(
      ReferenceContent before,
      ReferenceContent after,
      LapAsPlanned lapBefore,
      LapAsPlanned lapAfter,
      List<Comparison.Difference> differences) {}

  @GetMapping("/references")
  List<ReferenceSummary> all(@AuthenticationPrincipal Driver driver) {
    return references.of(driver.id());
  }

  /** Starts a draft; where it is not there within a moment, ask for the job and its end. */
  @PostMapping("/references")
  Job draft(@AuthenticationPrincipal Driver driver, @Valid @RequestBody DraftRequest body) {
    String name = body.name() == null ? "" : body.name();
    return jobs.start(
        driver.id(),
        watch ->
            Job.Result.of(
                drafting.draft(driver.id(), body.layoutId(), body.vehicleId(), name, watch).id()));
  }

  @GetMapping("/references/{id}")
  ReferenceView one(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    References.Opened opened = references.read(driver.id(), id);
    if (opened.role() != Role.OWNER) {
      sharing.seen(id, driver.id());
    }
    return view(driver, opened);
  }

  /** The road under a reference, for whoever may read it. */
  @GetMapping("/references/{id}/road")
  ResponseEntity<RoadView> road(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "2") double step) {
    References.Opened opened = references.read(driver.id(), id);
    return ResponseEntity.ok()
        .eTag("\"" + opened.layout().id() + "-" + step + "\"")
        .header(HttpHeaders.CACHE_CONTROL, "private, no-cache")
        .body(RoadView.of(opened.computed().road(), Math.max(1, step)));
  }

  @GetMapping("/references/{id}/lap")
  LapView lap(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "2") double step) {
    ComputedLap computed = references.read(driver.id(), id).computed();
    int stride = RoadView.stride(computed.road(), step);
    int n = (computed.road().size() + stride - 1) / stride;
    double[][] columns = new double[4][n];
    int[] gear = new int[n];
    for (int i = 0; i < n; i++) {
      int k = i * stride;
      columns[0][i] = rounded(computed.lap().speed()[k]);
      columns[1][i] = rounded(computed.lap().throttle()[k]);
      columns[2][i] = rounded(computed.lap().brake()[k]);
      columns[3][i] = rounded(computed.path().offset()[k]);
      gear[i] = computed.lap().gear()[k];
    }
    return new LapView(
        stride * computed.road().step(),
        computed.lap().lapTime(),
        columns[0],
        columns[1],
        columns[2],
        gear,
        columns[3]);
  }

  private static double rounded(double value) {
    return Math.round(value * 1000) / 1000.0;
  }

  @PostMapping("/references/{id}/answer")
  AnswerView answer(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(required = false) String moved,
      @RequestBody CornerEntry entry) {
    References.Opened opened = references.read(driver.id(), id);
    return speaking.answer(opened, references.answer(opened, entry, moved), driver);
  }

  @PutMapping("/references/{id}/working")
  WorkingView work(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody WorkingRequest body) {
    return WorkingView.of(
        workingCopies.work(driver.id(), id, body.version(), body.content(), body.write()));
  }

  /** Reads a reference from a JSON or CSV file onto this one, without storing it. */
  @PostMapping(value = "/references/{id}/read", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  ReferenceContent read(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestPart MultipartFile file)
      throws IOException {
    References.Opened opened = references.open(driver.id(), id);
    byte[] bytes = file.getBytes();
    String text = new String(bytes, StandardCharsets.UTF_8).strip();
    ReferenceContent content =
        text.startsWith("{")
            ? ReferenceFile.read(bytes).content()
            : ReferenceCsv.read(
                text,
                opened.layout().counted(),
                opened.computed().road().length(),
                opened.working());
    return references.taken(opened, content);
  }

  /** Makes a new reference of a JSON file on the layout given. */
  @PostMapping(
      value = "/layouts/{layoutId}/references",
      consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  Job take(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID layoutId,
      @RequestPart MultipartFile file)
      throws IOException {
    ReferenceFile read = ReferenceFile.read(file.getBytes());
    return jobs.start(
        driver.id(),
        watch -> Job.Result.of(drafting.take(driver.id(), layoutId, read, watch).id()));
  }

  @PostMapping("/references/{id}/vehicle")
  WorkingView takeVehicle(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return WorkingView.of(recomputing.takeVehicle(driver.id(), id));
  }

  @PostMapping("/references/{id}/revisions")
  @ResponseStatus(HttpStatus.CREATED)
  ReferenceView save(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody SaveRequest body) {
    workingCopies.save(driver.id(), id, body.version(), body.reason());
    return one(driver, id);
  }

  @GetMapping("/references/{id}/revisions")
  List<RevisionSummary> revisions(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    UUID owner = references.read(driver.id(), id).row().ownerId();
    return references.revisions(owner, id).stream().map(ReferenceController::summary).toList();
  }

  @GetMapping("/references/{id}/revisions/{number}")
  RevisionView revision(
      @AuthenticationPrincipal Driver driver, @PathVariable UUID id, @PathVariable int number) {
    References.Opened opened = references.read(driver.id(), id);
    Revision revision = references.revision(opened.row().ownerId(), id, number);
    ReferenceContent content = opened.fitting(revision.content());
    return new RevisionView(
        summary(revision), content, speaking.words(opened.computed(), content, driver));
  }

  @PostMapping("/references/{id}/revisions/{number}/start")
  ReferenceView startFrom(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @PathVariable int number,
      @RequestBody VersionRequest body) {
    workingCopies.startFrom(driver.id(), id, body.version(), number);
    return one(driver, id);
  }

  /** Compares two revisions; 0 stands for the working copy. */
  @GetMapping("/references/{id}/comparison")
  ComparisonView compare(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam int from,
      @RequestParam int to) {
    References.Opened opened = references.read(driver.id(), id);
    ReferenceContent before = content(opened, from);
    ReferenceContent after = content(opened, to);
    return new ComparisonView(
        before,
        after,
        planned(opened, from),
        planned(opened, to),
        Comparison.between(
            opened.layout().corners(),
            opened.computed().road().length(),
            before,
            after,
            speaking.speech(driver)));
  }

  @GetMapping(value = "/references/{id}/export.json", produces = "application/json")
  ResponseEntity<byte[]> exportJson(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "0") int revision) {
    References.Opened opened = references.read(driver.id(), id);
    LayoutVersion layout = opened.layout();
    Revision saved =
        revision == 0 ? null : references.revision(opened.row().ownerId(), id, revision);
    ReferenceFile file =
        new ReferenceFile(
            ReferenceFile.FORMAT,
            opened.row().name(),
            ReferenceFile.key(
                layout.circuit().name(), layout.number(), layout.length(), layout.counted()),
            references.vehicle(opened).name(),
            saved == null ? opened.row().vehicleNumbers() : saved.vehicleNumbers(),
            revision,
            saved == null ? "" : saved.reason(),
            saved == null ? null : saved.createdAt().toString(),
            saved == null ? opened.working() : saved.content());
    return download(file.write(), fileName(opened, revision) + ".json", "application/json");
  }

  /** What a row of an exported table is. */
  enum CsvRows {
    CORNERS,
    ACTIONS
  }

  @GetMapping(value = "/references/{id}/export.csv", produces = "text/csv")
  ResponseEntity<byte[]> exportCsv(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "0") int revision,
      @RequestParam(defaultValue = "CORNERS") CsvRows rows) {
    References.Opened opened = references.read(driver.id(), id);
    ReferenceContent content = content(opened, revision);
    boolean actions = rows == CsvRows.ACTIONS;
    String csv =
        actions
            ? ScoreCsv.write(opened.layout().counted(), content, opened.computed().road().length())
            : ReferenceCsv.write(opened.layout().counted(), content);
    return download(
        csv.getBytes(StandardCharsets.UTF_8),
        fileName(opened, revision) + (actions ? "-actions.csv" : ".csv"),
        "text/csv;charset=UTF-8");
  }

  @GetMapping(value = "/schemas/reference-1", produces = "application/schema+json")
  ClassPathResource schema() {
    return new ClassPathResource("marvek/reference-1.schema.json");
  }

  @GetMapping(value = "/schemas/reference-2", produces = "application/schema+json")
  ClassPathResource currentSchema() {
    return new ClassPathResource("marvek/reference-2.schema.json");
  }

  private ReferenceContent content(References.Opened opened, int number) {
    return number == 0
        ? opened.working()
        : opened.fitting(
            references.revision(opened.row().ownerId(), opened.row().id(), number).content());
  }

  private LapAsPlanned planned(References.Opened opened, int number) {
    return number == 0
        ? opened.row().planned()
        : references.revision(opened.row().ownerId(), opened.row().id(), number).planned();
  }

  private ReferenceView view(Driver driver, References.Opened opened) {
    ReferenceRow row = opened.row();
    LayoutVersion layout = opened.layout();
    VehicleRow vehicle = references.vehicle(opened);
    SetupSheet sheet = row.sheet();
    NewerLayouts.Ahead ahead = newerLayouts.ahead(opened);
    SheetRow next = references.nextSheet(opened, vehicle);
    return new ReferenceView(
        row.id(),
        row.name(),
        layout.id(),
        layout.circuit().name(),
        layout.layoutName(),
        layout.number(),
        opened.computed().road().length(),
        row.vehicleId(),
        vehicle.name(),
        opened.computed().vehicle().leanLimit() != null,
        opened.computed().vehicle().gears(),
        opened.computed().vehicle().width(),
        recomputing.behind(opened, vehicle),
        row.basedOnRevision(),
        row.changed(),
        row.planned(),
        layout.counted(),
        opened.things(),
        opened.thingVersions(),
        new WorkingView(row.version(), opened.working(), row.lastWrite()),
        Drafter.draft(opened.computed(), opened.landmarks()),
        row.basedOnRevision() == 0
            ? null
            : opened.fitting(
                references.revision(row.ownerId(), row.id(), row.basedOnRevision()).content()),
        speaking.words(opened.computed(), opened.working(), driver),
        sheet == null ? null : sheet.name(),
        next == null || next.id().equals(row.sheetId()) ? null : next.sheet().name(),
        row.doubts(),
        ahead.doubts(),
        ahead.newer(),
        layout.plane() != null,
        layout.circuit().zone().getId(),
        opened.role(),
        opened.role() == Role.OWNER ? null : accounts.findById(row.ownerId()).orElseThrow().name(),
        row.oldLine(),
        LostBrakings.in(opened.computed(), opened.working()),
        row.recomputed(),
        row.laidInPart());
  }

  private static RevisionSummary summary(Revision r) {
    return new RevisionSummary(r.number(), r.basedOn(), r.reason(), r.planned(), r.createdAt());
  }

  private static String fileName(References.Opened opened, int revision) {
    String plain = opened.row().name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    return plain + (revision == 0 ? "-working" : "-revision-" + revision);
  }

  private static ResponseEntity<byte[]> download(byte[] bytes, String name, String type) {
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment().filename(name).build().toString())
        .contentType(MediaType.parseMediaType(type))
        .body(bytes);
  }
}
