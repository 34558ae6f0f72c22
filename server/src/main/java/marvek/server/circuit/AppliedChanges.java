package marvek.server.circuit;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface AppliedChanges extends JpaRepository<AppliedChange, UUID> {
  boolean existsByIdAndLayoutVersionId(UUID id, UUID layoutVersionId);
}
