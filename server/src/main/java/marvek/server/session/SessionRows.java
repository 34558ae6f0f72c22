package marvek.server.session;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface SessionRows extends JpaRepository<SessionRow, UUID> {
  List<SessionRow> findByOwnerIdAndRemovedAtIsNullOrderByStartsAt(UUID ownerId);

  List<SessionRow> findByEventIdAndRemovedAtIsNullOrderByStartsAt(UUID eventId);

  Optional<SessionRow> findFirstByOwnerIdAndCalendarUid(UUID ownerId, String calendarUid);

  List<SessionRow> findByOwnerIdAndJoinedIntoNotNull(UUID ownerId);

  List<SessionRow> findByJoinedIntoInOrderByStartsAt(List<UUID> into);

  List<SessionRow> findByOwnerIdAndRemovedAtIsNullAndStartsAtAfterOrderByStartsAt(
      UUID ownerId, Instant after);

  List<SessionRow> findByOwnerIdAndReferenceIdAndRemovedAtIsNullOrderByStartsAt(
      UUID ownerId, UUID referenceId);

  List<SessionRow> findTop5ByReferenceIdNotNullAndRemovedAtIsNullAndStartsAtAfterOrderByStartsAt(
      Instant after);
}
