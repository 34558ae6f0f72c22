package marvek.server.reference;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;
import marvek.core.anew.Doubt;
import marvek.core.anew.LapAsPlanned;
import marvek.core.anew.Recomputed;
import marvek.core.anew.Refresh;
import marvek.core.anew.Rejoin;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.LocalPlane;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.Carried;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.OwnPace;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.ReferenceFile;
import marvek.core.entry.RoadUse;
import marvek.core.entry.Step;
import marvek.core.entry.Variant;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Watch;
import marvek.core.marker.Landmark;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.plan.Relaid;
import marvek.core.said.Value;
import marvek.core.score.Sureness;
import marvek.core.session.Evidence;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Things;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import marvek.server.keeping.Allowance;
import marvek.server.problem.Problem;
import marvek.server.sharing.Role;
import marvek.server.sharing.Sharing;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.Sheets;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** References of one owner: drafting, working on them, saving revisions. */
@Service
public class References {
  private final ReferenceRows rows;
  private final Revisions revisions;
  private final Layouts layouts;
  private final SurveyBook book;
  private final Garage garage;
  private final Sheets sheets;
  private final ComputedLaps computedLaps;
  private final Recomputations recomputations;
  private final Sharing sharing;
  private final Allowance allowance;
  private final TransactionTemplate transaction;
  private final ApplicationEventPublisher events;
  private final Clock clock;

  References(
      ReferenceRows rows,
      Revisions revisions,
      Layouts layouts,
      SurveyBook book,
      Garage garage,
      Sheets sheets,
      ComputedLaps computedLaps,
      Recomputations recomputations,
      Sharing sharing,
      Allowance allowance,
      PlatformTransactionManager transactions,
      ApplicationEventPublisher events,
      Clock clock) {
    this.rows = rows;
    this.revisions = revisions;
    this.layouts = layouts;
    this.book = book;
    this.garage = garage;
    this.sheets = sheets;
    this.computedLaps = computedLaps;
    this.recomputations = recomputations;
    this.sharing = sharing;
    this.allowance = allowance;
    this.transaction = new TransactionTemplate(transactions);
    this.events = events;
    this.clock = clock;
  }

  /**
   * A reference with what is needed to compute on it.
   *
   * @param working its working copy, in line with the corners that there are now
   * @param role of the person who opened it
   */
  public record Opened(
      ReferenceRow row,
      LayoutVersion layout,
      Things things,
      Map<String, Integer> thingVersions,
      ComputedLap computed,
      ReferenceContent working,
      Role role) {
    public List<Landmark> landmarks() {
      return things.landmarks();
    }

    /**
     * From where and when the driver looks.
     *
     * @param at on the circuit's clock; null where the hour does not matter
     * @param traffic whether another vehicle is close ahead
     */
    public MarkerJudge.View view(@Nullable LocalDateTime at, boolean traffic) {
      LocalPlane plane = layout.plane();
      return new MarkerJudge.View(
          at == null ? null : layout.instant(at),
          plane == null
              ? null
              : new MarkerJudge.Spot(plane.latitude(), plane.longitude(), layout.altitude()),
          traffic,
          computed.eye());
    }
  }

  /** The computed on one of the reference's days. */
  public ComputedLap on(Opened opened, Day day) {
    return computedLaps.on(opened.row(), opened.layout(), opened.computed(), day);
  }

  /** The computed on a day, on the line of another of its days. */
  public ComputedLap held(Opened opened, Day lineOf, Day day) {
    return computedLaps.held(
        opened.row(), opened.layout(), opened.computed(), on(opened, lineOf), lineOf, day);
  }

  /** A reference's vehicle as it is now, which may have been edited since. */
  @Transactional(readOnly = true)
  VehicleRow vehicle(Opened opened) {
    return garage.get(opened.row().ownerId(), opened.row().vehicleId());
  }

  /** The sheet that is on a vehicle for the next session, or null. */
  @Transactional(readOnly = true)
  @Nullable SheetRow nextSheet(Opened opened, VehicleRow vehicle) {
    UUID next = vehicle.nextSheetId();
    return next == null ? null : sheets.find(opened.row().ownerId(), next).orElse(null);
  }

  /** A corner after its points moved: brought into line, and what they lead to. */
  public record Answered(CornerEntry entry, CornerAnswer answer) {}

  @Transactional(readOnly = true)
  public List<ReferenceSummary> of(UUID owner) {
    return rows.summaries(owner);
  }

  /** Whose reference it is. */
  @Transactional(readOnly = true)
  public Optional<UUID> ownerOf(UUID id) {
    return rows.findById(id).map(ReferenceRow::ownerId);
  }

  /** References of others that are open to somebody. */
  @Transactional(readOnly = true)
  public List<SharedReference> sharedWith(UUID person) {
    return rows.sharedWith(person);
  }

  /** Opens a reference of one's own, to work on it. */
  @Transactional(readOnly = true)
  public Opened open(UUID owner, UUID id) {
    ReferenceRow row =
        rows.findByIdAndOwnerId(id, owner)
            .orElseThrow(
                () ->
                    sharing.given(id, owner).isPresent()
                        ? Problem.forbidden("refusal.reference.reference_drivers_change")
                        : Problem.none("refusal.none.no_reference_among_yours"));
    return opened(row, Role.OWNER);
  }

  /** Opens a reference of one's own, or one that is open to this person, to read it. */
  @Transactional(readOnly = true)
  public Opened read(UUID person, UUID id) {
    Optional<ReferenceRow> own = rows.findByIdAndOwnerId(id, person);
    if (own.isPresent()) {
      return opened(own.get(), Role.OWNER);
    }
    Role role =
        sharing
            .given(id, person)
            .orElseThrow(() -> Problem.none("refusal.none.no_reference_among_yours"));
    return opened(rows.findById(id).orElseThrow(), role);
  }

  private Opened opened(ReferenceRow row, Role role) {
    LayoutVersion layout = layouts.get(row.ownerId(), row.layoutVersionId());
    ComputedLap computed = computedLaps.of(row, layout);
    SurveyBook.Found found = book.found(layout.id());
    Things things = found.things();
    return new Opened(
        row,
        layout,
        things,
        found.versions(),
        computed,
        fitting(computed, things, row.working()),
        role);
  }

  /**
   * Content with one entry for each corner of the computed lap; those the survey added are drafted.
   */
  static ReferenceContent fitting(ComputedLap computed, Things things, ReferenceContent content) {
    return Rejoin.fits(computed.corners(), content)
        ? content
        : refreshed(computed, things, Rejoin.entries(computed, content));
  }

  /** Drafts a reference for a layout and a vehicle, and places boards where there are none. */
  public ReferenceRow draft(UUID owner, UUID layoutId, UUID vehicleId, String name) {
    return draft(owner, layoutId, vehicleId, name, Watch.NOBODY);
  }

  /**
   * The same, watched. Nothing is stored, and nothing in the database is held, before the line is
   * found.
   */
  ReferenceRow draft(UUID owner, UUID layoutId, UUID vehicleId, String name, Watch watch) {
    Wanted wanted = inOne(() -> wanted(owner, layoutId, vehicleId));
    ComputedLap computed = compute(wanted, watch);
    return inOne(
        () -> {
          LayoutVersion layout = wanted.layout();
          Things things = book.placeFirst(layout, Drafter.boards(computed));
          ReferenceContent draft = refreshed(computed, things, Drafter.draft(computed, things));
          return rows.save(
              new ReferenceRow(
                  owner,
                  layoutId,
                  wanted.machine(),
                  called(name, wanted),
                  wanted.footing(),
                  computed,
                  draft,
                  planned(computed, things, draft),
                  clock.instant()));
        });
  }

  private static String called(String name, Wanted wanted) {
    return name.isBlank()
        ? wanted.layout().circuit().name() + " · " + wanted.machine().vehicle().name()
        : name.strip();
  }

  /** What a line is wanted for. */
  private record Wanted(LayoutVersion layout, Centreline road, AsSetUp machine, Footing footing) {
    Ground underWheels() {
      return footing.ground(road, layout.counted(), machine.numbers(), Surface.DRY);
    }

    Conditions conditions() {
      return Conditions.dryWarm().withDriving(OwnPace.of(footing.pace()));
    }
  }

  private Wanted wanted(UUID owner, UUID layoutId, UUID vehicleId) {
    VehicleRow vehicle = garage.get(owner, vehicleId);
    UUID next = vehicle.nextSheetId();
    return wanted(
        layouts.get(owner, layoutId),
        new AsSetUp(vehicle, next == null ? null : sheets.get(owner, next)),
        new ReferenceContent(List.of()));
  }

  private Wanted wanted(LayoutVersion layout, AsSetUp machine, ReferenceContent content) {
    Centreline road = layouts.road(layout);
    return new Wanted(
        layout,
        road,
        machine,
        Footing.of(
            road, layout.counted(), book.found(layout.id()).things(), machine.numbers(), content));
  }

  /** Work in one transaction. */
  private <T> T inOne(Supplier<T> work) {
    return Objects.requireNonNull(transaction.execute(t -> work.get()));
  }

  private static ComputedLap compute(Wanted wanted, Watch watch) {
    return ComputedLap.compute(
        wanted.road(),
        wanted.layout().counted(),
        wanted.underWheels(),
        wanted.machine().numbers(),
        wanted.conditions(),
        watch);
  }

  /** Whether the vehicle, its sheet or the ground differ from what the numbers were computed on. */
  boolean behind(Opened opened, VehicleRow vehicle) {
    ReferenceRow row = opened.row();
    UUID sheetId = row.sheetId();
    int sheetNow =
        sheetId == null ? 0 : sheets.find(row.ownerId(), sheetId).map(SheetRow::version).orElse(0);
    return vehicle.version() != row.vehicleVersion()
        || sheetNow != row.sheetVersion()
        || !row.footing().equals(footing(opened, opened.working()));
  }

  /** What a content would be computed on, by the survey as it is now. */
  static Footing footing(Opened opened, ReferenceContent content) {
    return Footing.of(
        opened.computed().road(),
        opened.layout().counted(),
        opened.things(),
        opened.row().vehicleNumbers(),
        content);
  }

  /** Computes the line and numbers anew with vehicle, sheet and ground as they are now. */
  public ReferenceRow takeVehicle(UUID owner, UUID id) {
    recompute(owner, id, sheetNow(owner, id), Watch.NOBODY);
    return takeRecomputed(owner, id);
  }

  /** Says on which sheet the reference is proved, and computes on it; null for none. */
  public ReferenceRow proveOn(UUID owner, UUID id, @Nullable UUID sheetId) {
    recompute(owner, id, sheetId, Watch.NOBODY);
    return takeRecomputed(owner, id);
  }

  /** The sheet that a reference is proved on, if it is still there. */
  @Transactional(readOnly = true)
  @Nullable UUID sheetNow(UUID owner, UUID id) {
    UUID sheet = open(owner, id).row().sheetId();
    return sheet == null ? null : sheets.find(owner, sheet).map(SheetRow::id).orElse(null);
  }

  /**
   * Computes a reference anew, on its vehicle and ground as they are now, for the driver to look
   * at. A line that was found by a search is searched on from; an older one is searched for afresh.
   *
   * @param sheetId set-up sheet, or null for none
   */
  void recompute(UUID owner, UUID id, @Nullable UUID sheetId, Watch watch) {
    Opened opened = inOne(() -> open(owner, id));
    Wanted wanted =
        inOne(
            () -> {
              VehicleRow vehicle = garage.get(owner, opened.row().vehicleId());
              SheetRow sheet = sheetId == null ? null : sheets.get(owner, sheetId);
              if (sheet != null && !sheet.vehicleId().equals(vehicle.id())) {
                throw Problem.bad("refusal.reference.sheet_belongs_another_vehicle").at("sheet");
              }
              return wanted(opened.layout(), new AsSetUp(vehicle, sheet), opened.working());
            });
    ComputedLap computed =
        opened.row().oldLine()
            ? compute(wanted, watch)
            : ComputedLap.onLine(
                    wanted.road(),
                    wanted.layout().counted(),
                    wanted.underWheels(),
                    wanted.machine().numbers(),
                    wanted.conditions(),
                    opened.row().lineOffsets())
                .near(watch);
    Recomputed anew = Recomputed.of(opened.computed(), computed, opened.working());
    ReferenceContent content =
        refreshed(computed, opened.things(), anew.content(), opened.working().corners());
    inOne(
        () -> {
          ReferenceRow row = open(owner, id).row();
          sameVersion(row, opened.row().version());
          SheetRow sheet = wanted.machine().sheet();
          LapAsPlanned lap = planned(computed, opened.things(), content);
          Sitting proposed =
              new Sitting(
                  wanted.machine().vehicle().version(),
                  wanted.machine().numbers(),
                  sheet == null ? null : sheet.id(),
                  sheet == null ? 0 : sheet.version(),
                  sheet == null ? null : sheet.sheet(),
                  wanted.footing().zones(),
                  wanted.footing().used(),
                  false,
                  wanted.footing().pace(),
                  ReferenceRow.LINE_BY,
                  content,
                  lap.seconds(),
                  true,
                  lap.unmade());
          forget(owner, id, false);
          return recomputations.save(
              new Recomputation(
                  row, proposed, computed.path().offset(), anew.corners(), clock.instant()));
        });
  }

  /**
   * Something that a driver wants of the line on a stretch.
   *
   * @param use of edges and gates; null for that of the working copy
   * @param entry a corner whose points the line is to pass; null for none
   */
  public record Wish(@Nullable RoadUse use, @Nullable CornerEntry entry) {}

  /**
   * A line laid anew on a stretch.
   *
   * @param use that it is laid for
   * @param relaid the line
   */
  record LaidAnew(RoadUse use, Footing footing, Relaid relaid) {}

  /** Lays the line anew where a wish changes it; nothing is stored. */
  LaidAnew layAnew(Opened opened, Wish wish) {
    ComputedLap computed = opened.computed();
    RoadUse now = RoadUse.of(opened.working().use());
    RoadUse asked = wish.use() == null ? now : wish.use();
    CornerEntry entry = wish.entry();
    if (entry != null) {
      check(opened, new ReferenceContent(List.of(entry)));
      asked = asked.through(Relaid.gates(computed, entry));
    }
    ContentCheck.use(computed.road().length(), asked);
    usable(opened, now, asked);
    Footing.Used used =
        Footing.used(
            computed.road(),
            opened.layout().counted(),
            opened.things(),
            computed.vehicle(),
            opened.working().withUse(asked));
    Footing footing = opened.row().footing().withUsed(used);
    Footing.Stretch on =
        Footing.differ(computed.road(), opened.row().used(), used)
            .orElseThrow(() -> Problem.bad("refusal.reference.line_laid_already"));
    Ground ground =
        footing.ground(computed.road(), computed.corners(), computed.vehicle(), Surface.DRY);
    return new LaidAnew(asked, footing, Relaid.of(computed, ground, on.start(), on.end()));
  }

  /** Refuses to open what the survey does not know or forbids. */
  private static void usable(Opened opened, RoadUse now, RoadUse asked) {
    List<Edge> edges =
        Edges.all(
            opened.computed().road(),
            opened.layout().counted(),
            opened.things(),
            opened.computed().vehicle());
    for (String id : asked.opened()) {
      if (!now.opened().contains(id)
          && edges.stream().noneMatch(e -> e.id().equals(id) && e.usable())) {
        throw Problem.bad("refusal.reference.edge_cannot_used_survey").at("opened");
      }
    }
  }

  /**
   * Takes the line laid anew for a wish: the points move with it but for those that it was laid
   * through. {@link #undoRecomputed} brings back what was.
   */
  @Transactional
  public ReferenceRow takeLaidAnew(UUID owner, UUID id, int version, Wish wish) {
    Opened opened = open(owner, id);
    ReferenceRow row = opened.row();
    sameVersion(row, version);
    LaidAnew laid = layAnew(opened, wish);
    ComputedLap computed = laid.relaid().computed();
    Recomputed anew = Recomputed.of(opened.computed(), computed, opened.working());
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : anew.content().corners()) {
      CornerEntry own = wish.entry();
      entries.add(own != null && own.corner().equals(e.corner()) ? Relaid.passed(e, own) : e);
    }
    ReferenceContent content =
        refreshed(
            computed,
            opened.things(),
            anew.content().with(entries).withUse(laid.use().orNone()),
            opened.working().corners());
    check(opened, content);
    Sitting before = row.sitting();
    LapAsPlanned lap = planned(computed, opened.things(), content);
    Sitting proposed =
        new Sitting(
            before.vehicleVersion(),
            before.vehicle(),
            before.sheetId(),
            before.sheetVersion(),
            before.sheet(),
            before.ground(),
            laid.footing().used(),
            true,
            before.pace(),
            before.deskBy(),
            content,
            lap.seconds(),
            true,
            lap.unmade());
    forget(owner, id, false);
    forget(owner, id, true);
    Recomputation taken =
        new Recomputation(row, proposed, computed.path().offset(), anew.corners(), clock.instant());
    taken.take();
    recomputations.save(taken);
    row.sitAt(proposed, computed.path().offset(), true, clock.instant());
    return rows.saveAndFlush(row);
  }

  /** What was computed anew last and not taken, or the last that was. */
  @Transactional(readOnly = true)
  Optional<Recomputation> recomputed(UUID owner, UUID id, boolean taken) {
    return recomputations.findByReferenceIdAndOwnerIdAndTaken(id, owner, taken);
  }

  /** Takes what was computed anew; {@link #undoRecomputed} brings back what was. */
  @Transactional
  public ReferenceRow takeRecomputed(UUID owner, UUID id) {
    ReferenceRow row = open(owner, id).row();
    Recomputation anew =
        recomputed(owner, id, false)
            .orElseThrow(() -> Problem.bad("refusal.reference.nothing_computed_anew_waits"));
    if (anew.fromVersion() != row.version()) {
      throw Problem.conflict(null, "refusal.reference.reference_changed_since_computed");
    }
    OwnPace before = row.pace();
    row.sitAt(anew.proposed(), anew.proposedLine(), true, clock.instant());
    forget(owner, id, true);
    anew.take();
    return paced(row, before);
  }

  /** Brings back line, numbers and points as they were before the reference was computed anew. */
  @Transactional
  public ReferenceRow undoRecomputed(UUID owner, UUID id, int version) {
    ReferenceRow row = open(owner, id).row();
    sameVersion(row, version);
    Recomputation anew =
        recomputed(owner, id, true)
            .orElseThrow(() -> Problem.bad("refusal.reference.nothing_taken_could_undone"));
    OwnPace before = row.pace();
    row.sitAt(anew.before(), anew.beforeLine(), false, clock.instant());
    recomputations.delete(anew);
    return paced(row, before);
  }

  /**
   * A reference is computed at another pace: what its laps use of the grip is to be told anew.
   *
   * @param owner of the reference
   */
  public record OtherPace(UUID owner, UUID reference) {}

  private ReferenceRow paced(ReferenceRow row, @Nullable OwnPace before) {
    ReferenceRow kept = rows.saveAndFlush(row);
    if (!Objects.equals(before, row.pace())) {
      events.publishEvent(new OtherPace(row.ownerId(), row.id()));
    }
    return kept;
  }

  /** Drops what was computed anew and not taken. */
  @Transactional
  public void dropRecomputed(UUID owner, UUID id) {
    open(owner, id);
    forget(owner, id, false);
  }

  private void forget(UUID owner, UUID id, boolean taken) {
    recomputed(owner, id, taken).ifPresent(recomputations::delete);
    recomputations.flush();
  }

  public Answered answer(Opened opened, CornerEntry given) {
    return answer(opened, given, null);
  }

  /**
   * What an entry leads to.
   *
   * @param moved id of an action that was moved by hand, whose cue follows it; null for none
   */
  public Answered answer(Opened opened, CornerEntry given, @Nullable String moved) {
    check(opened, new ReferenceContent(List.of(given)));
    CornerEntry held =
        moved == null ? given : Answers.moved(opened.computed(), opened.things(), given, moved);
    CornerEntry entry = Answers.placed(opened.computed(), opened.things(), held);
    CornerAnswer answer = Answers.answer(opened.computed(), opened.things(), entry);
    return new Answered(
        Refresh.entry(opened.computed(), opened.landmarks(), entry, answer.reached()), answer);
  }

  /** Stores the working copy; refuses when another window was first. */
  @Transactional
  public ReferenceRow work(UUID owner, UUID id, int version, ReferenceContent content) {
    return work(owner, id, version, content, null);
  }

  /**
   * Stores the working copy; refuses when another window was first.
   *
   * @param write what the device calls this writing
   */
  @Transactional
  ReferenceRow work(
      UUID owner, UUID id, int version, ReferenceContent content, @Nullable UUID write) {
    Opened opened = open(owner, id);
    sameVersion(opened.row(), version);
    check(opened, content);
    moved(opened, content);
    opened
        .row()
        .work(
            content, planned(opened.computed(), opened.things(), content), write, clock.instant());
    return rows.saveAndFlush(opened.row());
  }

  /** A point that was moved is no longer in doubt. */
  private static void moved(Opened opened, ReferenceContent content) {
    if (opened.row().doubts().isEmpty()) {
      return;
    }
    opened
        .row()
        .confirm(
            d ->
                !station(opened.working(), d.corner(), d.kind())
                    .equals(station(content, d.corner(), d.kind())));
  }

  private static Optional<Double> station(ReferenceContent content, String corner, PointKind kind) {
    return content.corners().stream()
        .filter(e -> e.corner().equals(corner))
        .findFirst()
        .flatMap(e -> e.station(kind));
  }

  /**
   * What a newer version of the layout would mean.
   *
   * @param newer whether there is one
   * @param doubts points that it would put in doubt
   */
  record Ahead(boolean newer, List<Doubt> doubts) {}

  Ahead ahead(Opened opened) {
    return layouts
        .newer(opened.layout())
        .map(newer -> new Ahead(true, doubts(opened, newer)))
        .orElse(new Ahead(false, List.of()));
  }

  private List<Doubt> doubts(Opened opened, LayoutVersion newer) {
    return Doubt.about(
        opened.computed().road(),
        opened.working(),
        opened.landmarks(),
        book.found(newer.id()).things().landmarks(),
        newer.changes().stream().map(c -> new Doubt.Change(c.from(), c.to(), c.what())).toList());
  }

  /** Takes the reference over to the newest version of its layout. */
  @Transactional
  public ReferenceRow moveToNewest(UUID owner, UUID id) {
    Opened opened = open(owner, id);
    LayoutVersion newest =
        layouts
            .newer(opened.layout())
            .orElseThrow(
                () -> Problem.bad("refusal.reference.newest_version_already").at("layout"));
    if (Math.abs(newest.length() - opened.layout().length()) > 0.5) {
      throw Problem.bad("refusal.reference.newest_version_another_road").at("layout");
    }
    List<Doubt> inDoubt = new ArrayList<>(opened.row().doubts());
    doubts(opened, newest).stream().filter(d -> !inDoubt.contains(d)).forEach(inDoubt::add);
    opened.row().moveTo(newest.id(), inDoubt);
    return rows.saveAndFlush(opened.row());
  }

  /** Takes one point out of doubt. */
  @Transactional
  public ReferenceRow confirm(UUID owner, UUID id, String corner, PointKind kind) {
    ReferenceRow row = open(owner, id).row();
    row.confirm(d -> d.corner().equals(corner) && d.kind() == kind);
    return rows.saveAndFlush(row);
  }

  /** A step of an action of a corner. */
  public record Move(String corner, Step step) {}

  /**
   * Takes steps in the working copy and saves the whole as the next revision, with the evidence
   * that spoke for it.
   *
   * @param day whose steps they are: empty or null for the reference's own, id of a variant
   */
  @Transactional
  public ReferenceRow revise(
      UUID owner,
      UUID id,
      @Nullable String day,
      int version,
      List<Move> moves,
      String reason,
      List<Evidence> evidence) {
    Opened opened = open(owner, id);
    sameVersion(opened.row(), version);
    if (day != null && !day.isEmpty()) {
      ReferenceContent content = onDay(opened, day, moves);
      check(opened, content);
      opened
          .row()
          .work(content, planned(opened.computed(), opened.things(), content), clock.instant());
      return saved(opened.row(), reason, evidence);
    }
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      CornerEntry moved = e;
      for (Move m : moves) {
        if (m.corner().equals(e.corner())) {
          moved = m.step().in(opened.computed().road(), moved);
        }
      }
      entries.add(moved == e ? e : followed(opened, e, moved));
    }
    ReferenceContent content = opened.working().with(entries);
    check(opened, content);
    opened
        .row()
        .work(content, planned(opened.computed(), opened.things(), content), clock.instant());
    return saved(opened.row(), reason, evidence);
  }

  /** A corner that a rule moved, answered: its cues follow from those that it had. */
  CornerEntry followed(Opened opened, CornerEntry had, CornerEntry now) {
    CornerEntry entry = Answers.followed(opened.computed(), opened.things(), had, now);
    return answer(opened, entry).entry();
  }

  /**
   * Takes entries into the working copy, each brought into line; answers those that stood there.
   */
  @Transactional
  public List<CornerEntry> replace(UUID owner, UUID id, List<CornerEntry> with) {
    Opened opened = open(owner, id);
    List<CornerEntry> was = new ArrayList<>();
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      CornerEntry next =
          with.stream().filter(w -> w.corner().equals(e.corner())).findFirst().orElse(null);
      if (next != null) {
        was.add(e);
      }
      entries.add(next == null ? e : followed(opened, e, next));
    }
    ReferenceContent content = opened.working().with(entries);
    check(opened, content);
    opened
        .row()
        .work(content, planned(opened.computed(), opened.things(), content), clock.instant());
    rows.saveAndFlush(opened.row());
    return was;
  }

  /** Adds a day to the working copy. */
  @Transactional
  public void addDay(UUID owner, UUID id, Variant day) {
    Opened opened = open(owner, id);
    List<Variant> variants = new ArrayList<>(opened.working().variants());
    variants.add(day);
    ReferenceContent content = opened.working().withVariants(variants);
    check(opened, content);
    opened
        .row()
        .work(content, planned(opened.computed(), opened.things(), content), clock.instant());
    rows.saveAndFlush(opened.row());
  }

  /** Steps taken on one day only: set by hand for it, the reference itself stays. */
  private ReferenceContent onDay(Opened opened, String day, List<Move> moves) {
    List<Variant> variants = new ArrayList<>();
    for (Variant v : opened.working().variants()) {
      Variant moved = v;
      if (v.id().equals(day)) {
        ComputedLap then = on(opened, v.day());
        for (Move m : moves) {
          CornerEntry own = opened.working().corners().get(opened.computed().indexOf(m.corner()));
          moved = Variants.moved(opened.computed(), then, moved, own, m.step());
        }
      }
      variants.add(moved);
    }
    return opened.working().withVariants(variants);
  }

  /** Content as it was driven: of a revision, or the working copy for 0. */
  @Transactional(readOnly = true)
  public ReferenceContent driven(Opened opened, int revision) {
    return revisions
        .findByReferenceIdAndOwnerIdAndNumber(opened.row().id(), opened.row().ownerId(), revision)
        .map(r -> fitting(opened.computed(), opened.things(), r.content()))
        .orElse(opened.working());
  }

  /** Saves the working copy as the next revision. */
  @Transactional
  public ReferenceRow save(UUID owner, UUID id, int version, String reason) {
    Opened opened = open(owner, id);
    ReferenceRow row = opened.row();
    sameVersion(row, version);
    if (!opened.working().equals(row.working())) {
      row.work(
          opened.working(),
          planned(opened.computed(), opened.things(), opened.working()),
          clock.instant());
    }
    return saved(row, reason, List.of());
  }

  private ReferenceRow saved(ReferenceRow row, String reason, List<Evidence> evidence) {
    allowance.room(row.ownerId(), 0);
    int number = revisions.lastNumber(row.id()) + 1;
    revisions.save(new Revision(row, number, reason.strip(), evidence, clock.instant()));
    row.saved(number);
    return rows.saveAndFlush(row);
  }

  /** Takes an older revision as the new start; the revision itself stays as it is. */
  @Transactional
  public ReferenceRow startFrom(UUID owner, UUID id, int version, int number) {
    Opened opened = open(owner, id);
    sameVersion(opened.row(), version);
    Revision revision = revision(owner, id, number);
    ReferenceContent content = fitting(opened.computed(), opened.things(), revision.content());
    opened
        .row()
        .startFrom(
            number, content, planned(opened.computed(), opened.things(), content), clock.instant());
    return rows.saveAndFlush(opened.row());
  }

  @Transactional(readOnly = true)
  public List<Revision> revisions(UUID owner, UUID id) {
    return revisions.findByReferenceIdAndOwnerIdOrderByNumberDesc(id, owner);
  }

  @Transactional(readOnly = true)
  Revision revision(UUID owner, UUID id, int number) {
    return revisions
        .findByReferenceIdAndOwnerIdAndNumber(id, owner, number)
        .orElseThrow(() -> Problem.none("refusal.none.no_revision", Value.figure(number, 0)));
  }

  /** Content from a file, tied to the landmarks here and brought into line. */
  ReferenceContent taken(Opened opened, ReferenceContent content) {
    check(opened, content);
    return refreshed(opened.computed(), opened.things(), content);
  }

  /**
   * Copies a reference to another vehicle, set-up or layout version. Each point is the driver's own
   * plus what the computation says the other circumstances change, and is marked as not proved.
   *
   * @param sheetId set-up sheet of that vehicle, or null
   */
  @Transactional
  public ReferenceRow copy(
      UUID owner,
      UUID id,
      UUID layoutId,
      UUID vehicleId,
      @Nullable UUID sheetId,
      String name,
      Watch watch) {
    Opened from = open(owner, id);
    LayoutVersion layout = layouts.get(owner, layoutId);
    VehicleRow vehicle = garage.get(owner, vehicleId);
    SheetRow sheet = sheetId == null ? null : sheets.get(owner, sheetId);
    if (sheet != null && !sheet.vehicleId().equals(vehicle.id())) {
      throw Problem.bad("refusal.reference.sheet_belongs_another_vehicle").at("sheet");
    }
    List<String> there = layout.counted().stream().map(Corner::id).toList();
    List<String> here = from.layout().counted().stream().map(Corner::id).toList();
    if (!there.equals(here)
        || Math.abs(layout.length() - from.layout().length()) > 0.01 * layout.length()) {
      throw Problem.bad("refusal.reference.layout_other_corners").at("layout");
    }
    AsSetUp machine = new AsSetUp(vehicle, sheet);
    Wanted wanted = wanted(layout, machine, from.working());
    ComputedLap computed = compute(wanted, watch);
    Things things = book.placeFirst(layout, Drafter.boards(computed));
    List<CornerEntry> was = Drafter.draft(from.computed(), from.landmarks()).corners();
    List<CornerEntry> is = Drafter.draft(computed, things).corners();
    List<CornerEntry> entries = new ArrayList<>();
    for (int c = 0; c < is.size(); c++) {
      CornerEntry carried =
          Carried.entry(
              computed.road(),
              from.working().corners().get(c),
              was.get(c),
              is.get(c),
              0.5,
              machine.numbers().gears(),
              Sureness.CARRIED);
      entries.add(LostBrakings.kept(computed, carried, is.get(c)));
    }
    ReferenceContent content =
        refreshed(computed, things, from.working().with(entries), from.working().corners());
    return rows.save(
        new ReferenceRow(
            owner,
            layoutId,
            machine,
            name.isBlank() ? layout.circuit().name() + " · " + vehicle.name() : name.strip(),
            wanted.footing(),
            computed,
            content,
            planned(computed, things, content),
            clock.instant()));
  }

  /** Makes a new reference of a file, on a layout that has the same corners. */
  @Transactional
  public ReferenceRow take(UUID owner, UUID layoutId, ReferenceFile file, Watch watch) {
    LayoutVersion layout = layouts.get(owner, layoutId);
    boolean fits =
        Math.abs(layout.length() - file.layout().length()) < 0.01 * layout.length()
            && layout.cornerCount() == file.layout().corners().size();
    if (!fits) {
      throw Problem.bad(
              "refusal.reference.file_lap_with_corners",
              Value.length(file.layout().length()),
              Value.figure(file.layout().corners().size(), 0),
              Value.length(layout.length()),
              Value.figure(layout.cornerCount(), 0))
          .at("layout");
    }
    VehicleRow vehicle = garage.add(owner, file.vehicleName(), "file", file.vehicle());
    AsSetUp machine = new AsSetUp(vehicle, null);
    ContentCheck.content(
        layout.counted(), layout.length(), vehicle.numbers().gears(), file.content());
    Wanted wanted = wanted(layout, machine, file.content());
    ComputedLap computed = compute(wanted, watch);
    Things things = book.placeFirst(layout, Drafter.boards(computed));
    ReferenceContent content = refreshed(computed, things, file.content());
    return rows.save(
        new ReferenceRow(
            owner,
            layoutId,
            machine,
            file.name(),
            wanted.footing(),
            computed,
            content,
            planned(computed, things, content),
            clock.instant()));
  }

  static void check(Opened opened, ReferenceContent content) {
    ContentCheck.content(
        opened.layout().counted(),
        opened.computed().road().length(),
        opened.computed().vehicle().gears(),
        content);
  }

  /** The same for entries that a rule moved: their cues follow from those that they had. */
  private static ReferenceContent refreshed(
      ComputedLap computed, Things things, ReferenceContent content, List<CornerEntry> had) {
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : content.corners()) {
      Optional<CornerEntry> was =
          had.stream().filter(h -> h.corner().equals(e.corner())).findFirst();
      entries.add(was.map(h -> Answers.followed(computed, things, h, e)).orElse(e));
    }
    return refreshed(computed, things, content.with(entries));
  }

  private static ReferenceContent refreshed(
      ComputedLap computed, Things things, ReferenceContent content) {
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry stored : content.corners()) {
      CornerEntry e = Answers.placed(computed, things, stored);
      entries.add(Refresh.entry(computed, things, e));
    }
    return content.with(entries);
  }

  private static LapAsPlanned planned(
      ComputedLap computed, Things things, ReferenceContent content) {
    return Refresh.planned(
        computed.lap(),
        content.corners().stream().map(e -> Answers.answer(computed, things, e)).toList());
  }

  private static void sameVersion(ReferenceRow row, int version) {
    if (row.version() != version) {
      throw Problem.conflict(
          WorkingView.of(row), "refusal.reference.another_window_changed_reference");
    }
  }
}
