package marvek.server.run;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface RunRows extends JpaRepository<RunRow, UUID> {
  List<RunRow> findByReferenceIdOrderByDrivenAtDesc(UUID referenceId);

  List<RunRow> findBySessionIdInOrderByDrivenAt(List<UUID> sessions);

  @Query(
      "select r.sessionId, count(r) from RunRow r where r.ownerId = :owner and r.sessionId is not"
          + " null group by r.sessionId")
  List<Object[]> bySession(UUID owner);
}
