package marvek.server.sharing;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface Shares extends JpaRepository<Share, UUID> {
  Optional<Share> findByReferenceIdAndPersonId(UUID referenceId, UUID personId);

  @Query(
      """
      select new marvek.server.sharing.SharedWith(a.id, a.name, a.email, s.role)
      from Share s join Account a on a.id = s.personId
      where s.referenceId = :reference and s.ownerId = :owner
      order by a.name
      """)
  List<SharedWith> people(UUID owner, UUID reference);

  long deleteByReferenceIdAndOwnerIdAndPersonId(UUID referenceId, UUID ownerId, UUID personId);
}
