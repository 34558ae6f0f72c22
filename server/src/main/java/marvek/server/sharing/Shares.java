package marvek.server.sharing;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface Shares extends JpaRepository<Share, UUID> {
  Optional<Share> findByReferenceIdAndPersonIdAndConfirmedTrue(UUID referenceId, UUID personId);

  Optional<Share> findByReferenceIdAndEmail(UUID referenceId, String email);

  Optional<Share> findByIdAndReferenceIdAndOwnerId(UUID id, UUID referenceId, UUID ownerId);

  @Query(
      """
      select new marvek.server.sharing.SharedWith(s.id,
        case when s.seenAt is null and s.confirmed then s.email else coalesce(a.name, s.email) end,
        s.email, s.role, s.seenAt is not null, a.id is not null and not s.confirmed,
        s.seesRehearsed)
      from Share s left join Account a on a.id = s.personId
      where s.referenceId = :reference and s.ownerId = :owner
      order by s.email
      """)
  List<SharedWith> people(UUID owner, UUID reference);

  long deleteByIdAndReferenceIdAndOwnerId(UUID id, UUID referenceId, UUID ownerId);

  @Modifying
  @Query(
      "update Share s set s.seenAt = :now where s.referenceId = :reference"
          + " and s.personId = :person and s.confirmed and s.seenAt is null")
  void seen(UUID reference, UUID person, Instant now);

  @Modifying
  @Query("update Share s set s.personId = :person where s.email = :email and s.personId is null")
  void has(String email, UUID person);
}
