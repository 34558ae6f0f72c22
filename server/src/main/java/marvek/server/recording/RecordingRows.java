package marvek.server.recording;

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

  /** Whether a file of somebody's other than the given one is being read or about to be. */
  @org.springframework.data.jpa.repository.Query(
      nativeQuery = true,
      value =
          """
          select exists (select 1 from recording r where r.owner_id = :owner and r.id <> :but
            and (r.state = 'WORKING' or r.state = 'STORED' and exists (
              select 1 from scheduled_tasks s where s.task_instance = r.id::text)))
          """)
  boolean reading(UUID owner, UUID but);

  /** The file of somebody's that has waited longest to be read, but the given one. */
  @org.springframework.data.jpa.repository.Query(
      nativeQuery = true,
      value =
          """
          select r.id from recording r where r.owner_id = :owner and r.id <> :but
            and r.state = 'STORED' and r.mapping is not null order by r.created_at limit 1
          """)
  Optional<UUID> waiting(UUID owner, UUID but);

  boolean existsByStateIn(Collection<Recording.State> states);

  /** The newest that an earlier version has read; what is in the basket waits there. */
  @org.springframework.data.jpa.repository.Query(
      """
      select r from Recording r join RunRow u on u.id = r.runId
        join ReferenceRow f on f.id = u.referenceId
      where r.state = DONE and r.readBy < :version order by r.createdAt desc limit 1
      """)
  Optional<Recording> readBefore(int version);

  List<Recording> findByOwnerIdAndDigestAndRunIdIn(
      UUID ownerId, String digest, Collection<UUID> runIds);
}
