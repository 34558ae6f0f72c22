package marvek.server.reference;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface Revisions extends JpaRepository<Revision, UUID> {
  List<Revision> findByReferenceIdAndOwnerIdOrderByNumberDesc(UUID referenceId, UUID ownerId);

  Optional<Revision> findByReferenceIdAndOwnerIdAndNumber(
      UUID referenceId, UUID ownerId, int number);

  @Query("select coalesce(max(r.number), 0) from Revision r where r.referenceId = :reference")
  int lastNumber(UUID reference);
}
