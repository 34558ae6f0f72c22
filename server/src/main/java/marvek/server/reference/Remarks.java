package marvek.server.reference;

import java.time.Clock;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.said.Value;
import marvek.server.problem.Problem;
import marvek.server.sharing.Role;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Remarks on a reference: made by a coach, decided by the driver. */
@Service
public class Remarks {
  private static final int MOST_OPEN = 200;

  private final RemarkRows rows;
  private final References references;
  private final WorkingCopies workingCopies;
  private final Clock clock;

  Remarks(RemarkRows rows, References references, WorkingCopies workingCopies, Clock clock) {
    this.rows = rows;
    this.references = references;
    this.workingCopies = workingCopies;
    this.clock = clock;
  }

  @Transactional(readOnly = true)
  List<RemarkRows.Signed> on(UUID person, UUID reference) {
    references.read(person, reference);
    return rows.signed(reference);
  }

  /** Pins a remark; a driver may pin one as well, as a note to be decided later. */
  @Transactional
  public UUID pin(
      UUID person,
      UUID reference,
      String corner,
      @Nullable PointKind kind,
      String text,
      @Nullable CornerEntry proposed) {
    References.Opened opened = references.read(person, reference);
    if (opened.role() == Role.VIEWER) {
      throw Problem.forbidden("refusal.reference.you_may_read_reference");
    }
    CornerEntry was =
        opened.working().corners().stream()
            .filter(e -> e.corner().equals(corner))
            .findFirst()
            .orElseThrow(
                () -> Problem.bad("refusal.reference.no_corner", Value.own(corner)).at("corner"));
    if (proposed != null) {
      if (!proposed.corner().equals(corner)) {
        throw Problem.bad("refusal.reference.proposal_another_corner").at("proposed");
      }
      opened.check(new ReferenceContent(List.of(proposed)));
    }
    if (rows.countByReferenceIdAndAuthorIdAndState(reference, person, Remark.State.OPEN)
        >= MOST_OPEN) {
      throw Problem.bad("refusal.reference.you_remarks_open_here", Value.figure(MOST_OPEN, 0));
    }
    return rows.save(
            new Remark(
                opened.row(), person, corner, kind, text.strip(), was, proposed, clock.instant()))
        .id();
  }

  /** Takes one's own remark back while it is open. */
  @Transactional
  void takeBack(UUID person, UUID reference, UUID id) {
    references.read(person, reference);
    Remark remark = found(reference, id);
    if (!remark.authorId().equals(person)) {
      throw Problem.forbidden("refusal.reference.remark_somebody_elses");
    }
    if (remark.state() != Remark.State.OPEN) {
      throw Problem.bad("refusal.reference.been_decided_already");
    }
    rows.delete(remark);
  }

  /**
   * The driver's decision. An accepted proposal becomes part of the working copy; a revision is
   * still the driver's to save.
   *
   * @param version of the working copy
   */
  @Transactional
  ReferenceRow decide(UUID owner, UUID reference, UUID id, boolean accepted, int version) {
    References.Opened opened = references.open(owner, reference);
    Remark remark = found(reference, id);
    if (remark.state() != Remark.State.OPEN) {
      throw Problem.bad("refusal.reference.been_decided_already_b");
    }
    remark.decide(accepted, clock.instant());
    CornerEntry proposed = remark.proposed();
    if (!accepted || proposed == null) {
      return opened.row();
    }
    List<CornerEntry> entries =
        opened.working().corners().stream()
            .map(
                e ->
                    e.corner().equals(proposed.corner())
                        ? references.answer(opened, proposed).entry()
                        : e)
            .toList();
    return workingCopies.work(owner, reference, version, opened.working().with(entries));
  }

  private Remark found(UUID reference, UUID id) {
    return rows.findByIdAndReferenceId(id, reference)
        .orElseThrow(() -> Problem.none("refusal.none.no_remark"));
  }
}
