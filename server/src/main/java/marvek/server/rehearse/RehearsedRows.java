package marvek.server.rehearse;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface RehearsedRows extends JpaRepository<RehearsedRow, UUID> {
  List<RehearsedRow> findByOwnerIdAndReferenceIdOrderByDoneAtAscIdAsc(
      UUID ownerId, UUID referenceId);

  List<RehearsedRow> findByOwnerIdOrderByReferenceIdAscDoneAtAscIdAsc(UUID ownerId);

  long countByOwnerId(UUID ownerId);

  long countByOwnerIdAndReferenceId(UUID ownerId, UUID referenceId);
}
