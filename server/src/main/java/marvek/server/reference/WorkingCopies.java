package marvek.server.reference;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import marvek.core.day.Variants;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Step;
import marvek.core.entry.Variant;
import marvek.core.plan.ComputedLap;
import marvek.core.session.Evidence;
import marvek.server.keeping.Allowance;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Work on references: their working copies, and revisions saved of them. */
@Service
public class WorkingCopies {
  private final ReferenceRows rows;
  private final References references;
  private final Revisions revisions;
  private final Allowance allowance;
  private final Clock clock;

  WorkingCopies(
      ReferenceRows rows,
      References references,
      Revisions revisions,
      Allowance allowance,
      Clock clock) {
    this.rows = rows;
    this.references = references;
    this.revisions = revisions;
    this.allowance = allowance;
    this.clock = clock;
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
    References.Opened opened = references.open(owner, id);
    opened.sameVersion(version);
    opened.check(content);
    moved(opened, content);
    opened.row().work(content, opened.planned(content), write, clock.instant());
    return rows.saveAndFlush(opened.row());
  }

  private void write(References.Opened opened, ReferenceContent content) {
    opened.check(content);
    opened.row().work(content, opened.planned(content), clock.instant());
  }

  /** A point that was moved is no longer in doubt. */
  private static void moved(References.Opened opened, ReferenceContent content) {
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
    References.Opened opened = references.open(owner, id);
    opened.sameVersion(version);
    if (day != null && !day.isEmpty()) {
      ReferenceContent content = onDay(opened, day, moves);
      write(opened, content);
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
      entries.add(moved == e ? e : references.followed(opened, e, moved));
    }
    ReferenceContent content = opened.working().with(entries);
    write(opened, content);
    return saved(opened.row(), reason, evidence);
  }

  /**
   * Takes entries into the working copy, each brought into line; answers those that stood there.
   */
  @Transactional
  public List<CornerEntry> replace(UUID owner, UUID id, List<CornerEntry> with) {
    References.Opened opened = references.open(owner, id);
    List<CornerEntry> was = new ArrayList<>();
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      CornerEntry next =
          with.stream().filter(w -> w.corner().equals(e.corner())).findFirst().orElse(null);
      if (next != null) {
        was.add(e);
      }
      entries.add(next == null ? e : references.followed(opened, e, next));
    }
    ReferenceContent content = opened.working().with(entries);
    write(opened, content);
    rows.saveAndFlush(opened.row());
    return was;
  }

  /** Adds a day to the working copy. */
  @Transactional
  public void addDay(UUID owner, UUID id, Variant day) {
    References.Opened opened = references.open(owner, id);
    List<Variant> variants = new ArrayList<>(opened.working().variants());
    variants.add(day);
    ReferenceContent content = opened.working().withVariants(variants);
    write(opened, content);
    rows.saveAndFlush(opened.row());
  }

  /** Steps taken on one day only: set by hand for it, the reference itself stays. */
  private ReferenceContent onDay(References.Opened opened, String day, List<Move> moves) {
    List<Variant> variants = new ArrayList<>();
    for (Variant v : opened.working().variants()) {
      Variant moved = v;
      if (v.id().equals(day)) {
        ComputedLap then = references.on(opened, v.day());
        for (Move m : moves) {
          CornerEntry own = opened.working().corners().get(opened.computed().indexOf(m.corner()));
          moved = Variants.moved(opened.computed(), then, moved, own, m.step());
        }
      }
      variants.add(moved);
    }
    return opened.working().withVariants(variants);
  }

  /** Saves the working copy as the next revision. */
  @Transactional
  public ReferenceRow save(UUID owner, UUID id, int version, String reason) {
    References.Opened opened = references.open(owner, id);
    ReferenceRow row = opened.row();
    opened.sameVersion(version);
    if (!opened.working().equals(row.working())) {
      row.work(opened.working(), opened.planned(opened.working()), clock.instant());
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
    References.Opened opened = references.open(owner, id);
    opened.sameVersion(version);
    Revision revision = references.revision(owner, id, number);
    ReferenceContent content = opened.fitting(revision.content());
    opened.row().startFrom(number, content, opened.planned(content), clock.instant());
    return rows.saveAndFlush(opened.row());
  }
}
