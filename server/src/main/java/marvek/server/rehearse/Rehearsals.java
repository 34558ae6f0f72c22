package marvek.server.rehearse;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import marvek.core.rehearse.Known;
import marvek.core.rehearse.Rehearsed;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What somebody answered and drove by heart. It is theirs alone. */
@Service
class Rehearsals {
  private static final int MOST = 20_000;

  private final RehearsedRows rows;
  private final Clock clock;

  Rehearsals(RehearsedRows rows, Clock clock) {
    this.rows = rows;
    this.clock = clock;
  }

  /** Something done, as a device sent it. */
  record Sent(UUID id, Instant at, Rehearsed answered) {}

  @Transactional(readOnly = true)
  public List<RehearsedRow> of(UUID owner, UUID reference) {
    return rows.findByOwnerIdAndReferenceIdOrderByDoneAtAscIdAsc(owner, reference);
  }

  /** All that somebody answered and drove, each reference's own in the order done. */
  @Transactional(readOnly = true)
  public List<RehearsedRow> all(UUID owner) {
    return rows.findByOwnerIdOrderByReferenceIdAscDoneAtAscIdAsc(owner);
  }

  @Transactional(readOnly = true)
  public long count(UUID owner) {
    return rows.countByOwnerId(owner);
  }

  static List<Known.Given> answers(List<RehearsedRow> all) {
    return all.stream()
        .filter(r -> !r.body().driven())
        .map(r -> new Known.Given(r.doneAt(), r.body()))
        .toList();
  }

  /** Takes what was done; the same sent twice is there once. */
  @Transactional
  public void take(UUID owner, UUID reference, List<Sent> sent) {
    long there = rows.countByOwnerIdAndReferenceId(owner, reference);
    for (Sent s : sent) {
      s.answered().check();
      Optional<RehearsedRow> known = rows.findById(s.id());
      if (known.isPresent()) {
        if (!known.get().ownerId().equals(owner)) {
          throw Problem.bad("refusal.rehearse.answer_another_ones").at("id");
        }
        continue;
      }
      if (++there > MOST) {
        throw Problem.full("refusal.rehearse.no_more_answers_kept");
      }
      // Clocks of devices may be ahead; nothing was answered in the future.
      Instant now = clock.instant();
      Instant at = s.at().isAfter(now) ? now : s.at();
      rows.save(new RehearsedRow(s.id(), owner, reference, at, s.answered(), now));
    }
  }
}
