package marvek.server.trial;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface TrialRows extends JpaRepository<CornerTrial, UUID> {
  List<CornerTrial> findByReferenceIdOrderByCreatedAtDesc(UUID referenceId);

  List<CornerTrial> findBySessionIdInOrderByCreatedAt(List<UUID> sessions);
}
