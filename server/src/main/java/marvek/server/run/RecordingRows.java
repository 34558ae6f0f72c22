package marvek.server.run;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface RecordingRows extends JpaRepository<Recording, UUID> {
  List<Recording> findByRunIdInOrderByCreatedAt(Collection<UUID> runIds);

  Optional<Recording> findByToken(String token);

  @org.springframework.data.jpa.repository.Modifying
  @org.springframework.data.jpa.repository.Query(
      "update Recording r set r.cancel = true where r.id = :id and r.state = WORKING")
  void cancel(UUID id);

  /** What no worker has begun with is cancelled at once. */
  @org.springframework.data.jpa.repository.Modifying
  @org.springframework.data.jpa.repository.Query(
      "update Recording r set r.state = CANCELLED, r.cancel = true"
          + " where r.id = :id and r.state in (STORED, ASKS)")
  void cancelWaiting(UUID id);

  /** A line that is open has brought something. */
  @org.springframework.transaction.annotation.Transactional
  @org.springframework.data.jpa.repository.Modifying
  @org.springframework.data.jpa.repository.Query(
      "update Recording r set r.heardAt = :now where r.id = :id and r.state = LIVE")
  void heard(UUID id, java.time.Instant now);

  @org.springframework.data.jpa.repository.Query(
      "select r.id from Recording r where r.state = LIVE and r.heardAt < :before")
  List<UUID> silentSince(java.time.Instant before);

  List<Recording> findByStateAndCreatedAtBefore(Recording.State state, java.time.Instant before);

  boolean existsByStateIn(Collection<Recording.State> states);

  Optional<Recording> findFirstByStateAndReadByLessThanOrderByCreatedAtDesc(
      Recording.State state, int version);

  List<Recording> findByOwnerIdAndDigestAndRunIdIn(
      UUID ownerId, String digest, Collection<UUID> runIds);
}
