package marvek.server.reference;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface Recomputations extends JpaRepository<Recomputation, UUID> {
  Optional<Recomputation> findByReferenceIdAndOwnerIdAndTaken(
      UUID referenceId, UUID ownerId, boolean taken);
}
