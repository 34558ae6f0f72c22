package marvek.server.reference;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;
import marvek.core.anew.LapAsPlanned;
import marvek.core.anew.Recomputed;
import marvek.core.anew.Refresh;
import marvek.core.day.Footing;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.OwnPace;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.RoadUse;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Relaid;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.server.problem.Problem;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.Sheets;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * References computed anew, whole or on a stretch, when vehicle, ground, room or line are others.
 */
@Service
public class Recomputing {
  private final ReferenceRows rows;
  private final References references;
  private final Recomputations recomputations;
  private final Sheets sheets;
  private final LinesWanted lines;
  private final LapsFound found;
  private final ApplicationEventPublisher events;
  private final Clock clock;
  private final TransactionTemplate transaction;

  Recomputing(
      ReferenceRows rows,
      References references,
      Recomputations recomputations,
      Sheets sheets,
      LinesWanted lines,
      LapsFound found,
      ApplicationEventPublisher events,
      Clock clock,
      PlatformTransactionManager transactions) {
    this.rows = rows;
    this.references = references;
    this.recomputations = recomputations;
    this.sheets = sheets;
    this.lines = lines;
    this.found = found;
    this.events = events;
    this.clock = clock;
    this.transaction = new TransactionTemplate(transactions);
  }

  /** Whether the vehicle, its sheet or the ground differ from what the numbers were computed on. */
  boolean behind(References.Opened opened, VehicleRow vehicle) {
    ReferenceRow row = opened.row();
    UUID sheetId = row.sheetId();
    int sheetNow =
        sheetId == null ? 0 : sheets.find(row.ownerId(), sheetId).map(SheetRow::version).orElse(0);
    return vehicle.version() != row.vehicleVersion()
        || sheetNow != row.sheetVersion()
        || !row.footing().equals(footing(opened, opened.working()));
  }

  /** What a content would be computed on, by the survey as it is now. */
  static Footing footing(References.Opened opened, ReferenceContent content) {
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
    return inOne(() -> takeRecomputed(owner, id));
  }

  /** Says on which sheet the reference is proved, and computes on it; null for none. */
  public ReferenceRow proveOn(UUID owner, UUID id, @Nullable UUID sheetId) {
    recompute(owner, id, sheetId, Watch.NOBODY);
    return inOne(() -> takeRecomputed(owner, id));
  }

  /** The sheet that a reference is proved on, if it is still there. */
  @Transactional(readOnly = true)
  @Nullable UUID sheetNow(UUID owner, UUID id) {
    UUID sheet = references.open(owner, id).row().sheetId();
    return sheet == null ? null : sheets.find(owner, sheet).map(SheetRow::id).orElse(null);
  }

  /**
   * Computes a reference anew, on its vehicle and ground as they are now, for the driver to look
   * at. A line that was found by a search is searched on from; an older one is searched for afresh.
   *
   * @param sheetId set-up sheet, or null for none
   */
  void recompute(UUID owner, UUID id, @Nullable UUID sheetId, Watch watch) {
    References.Opened opened = inOne(() -> references.open(owner, id));
    Wanted wanted =
        inOne(
            () ->
                lines.wanted(
                    opened.layout(),
                    lines.machine(owner, opened.row().vehicleId(), sheetId),
                    opened.working()));
    ComputedLap computed =
        opened.row().oldLine()
            ? found.search(wanted, watch)
            : wanted.searchFrom(opened.row().lineOffsets(), watch);
    Recomputed anew = Recomputed.of(opened.computed(), computed, opened.working());
    ReferenceContent content =
        Refresh.content(computed, opened.things(), anew.content(), opened.working().corners());
    inOne(
        () -> {
          References.Opened now = references.open(owner, id);
          ReferenceRow row = now.row();
          now.sameVersion(opened.row().version());
          SheetRow sheet = wanted.machine().sheet();
          LapAsPlanned lap = Refresh.planned(computed, opened.things(), content);
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
  LaidAnew layAnew(References.Opened opened, Wish wish) {
    ComputedLap computed = opened.computed();
    RoadUse now = RoadUse.of(opened.working().use());
    RoadUse asked = wish.use() == null ? now : wish.use();
    CornerEntry entry = wish.entry();
    if (entry != null) {
      opened.check(new ReferenceContent(List.of(entry)));
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
  private static void usable(References.Opened opened, RoadUse now, RoadUse asked) {
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
    References.Opened opened = references.open(owner, id);
    ReferenceRow row = opened.row();
    opened.sameVersion(version);
    LaidAnew laid = layAnew(opened, wish);
    ComputedLap computed = laid.relaid().computed();
    Recomputed anew = Recomputed.of(opened.computed(), computed, opened.working());
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : anew.content().corners()) {
      CornerEntry own = wish.entry();
      entries.add(own != null && own.corner().equals(e.corner()) ? Relaid.passed(e, own) : e);
    }
    ReferenceContent content =
        Refresh.content(
            computed,
            opened.things(),
            anew.content().with(entries).withUse(laid.use().orNone()),
            opened.working().corners());
    opened.check(content);
    Sitting before = row.sitting();
    LapAsPlanned lap = Refresh.planned(computed, opened.things(), content);
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
    ReferenceRow row = references.open(owner, id).row();
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
    References.Opened now = references.open(owner, id);
    ReferenceRow row = now.row();
    now.sameVersion(version);
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
    references.open(owner, id);
    forget(owner, id, false);
  }

  private void forget(UUID owner, UUID id, boolean taken) {
    recomputed(owner, id, taken).ifPresent(recomputations::delete);
    recomputations.flush();
  }

  /** Work in one transaction. */
  private <T> T inOne(Supplier<T> work) {
    return Objects.requireNonNull(transaction.execute(t -> work.get()));
  }
}
