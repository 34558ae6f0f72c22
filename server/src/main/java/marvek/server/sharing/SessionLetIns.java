package marvek.server.sharing;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SessionLetIns extends JpaRepository<SessionLetIn, UUID> {
  List<SessionLetIn> findBySessionId(UUID sessionId);

  long deleteBySessionIdAndShareId(UUID sessionId, UUID shareId);

  long deleteByShareId(UUID shareId);

  @Query(
      """
      select l.sessionId from SessionLetIn l join Share s on s.id = l.shareId
      where s.referenceId = :reference and s.personId = :person and l.personId = :person
        and s.confirmed and s.role = marvek.server.sharing.Role.COACH
      """)
  List<UUID> sessions(UUID reference, UUID person);
}
