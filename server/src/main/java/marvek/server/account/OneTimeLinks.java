package marvek.server.account;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface OneTimeLinks extends JpaRepository<OneTimeLink, UUID> {
  @Query(
      "select l from OneTimeLink l where l.digest = :digest and l.purpose = :purpose"
          + " and l.usedAt is null and l.expiresAt > :now")
  Optional<OneTimeLink> good(String digest, OneTimeLink.Purpose purpose, Instant now);

  /** Uses a link; 0 where somebody else was first. */
  @Modifying
  @Query("update OneTimeLink l set l.usedAt = :now where l.id = :id and l.usedAt is null")
  int use(UUID id, Instant now);

  @Query(
      "select count(l) from OneTimeLink l where l.ownerId = :owner and l.usedAt is null"
          + " and l.expiresAt > :now")
  long waiting(UUID owner, Instant now);
}
