package marvek.server.session;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface LineRows extends JpaRepository<LineRow, UUID> {
  List<LineRow> findBySessionIdInOrderBySaidAtAscIdAsc(List<UUID> sessions);
}
