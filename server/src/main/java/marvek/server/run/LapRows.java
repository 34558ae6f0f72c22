package marvek.server.run;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface LapRows extends JpaRepository<LapRow, UUID> {
  List<LapRow> findByRunIdOrderByStarted(UUID runId);

  List<LapRow> findByRunIdInOrderByStarted(Collection<UUID> runIds);

  List<LapRow> findByRecordingId(UUID recordingId);

  Optional<LapRow> findByIdAndOwnerId(UUID id, UUID ownerId);
}
