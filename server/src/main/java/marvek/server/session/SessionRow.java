package marvek.server.session;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import marvek.core.session.TrackSession;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A session on the track. */
@Entity
@Table(name = "track_session")
class SessionRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID eventId;
  private @Nullable UUID referenceId;

  @JdbcTypeCode(SqlTypes.JSON)
  private TrackSession body;

  private Instant startsAt;
  private String calendarUid;
  private int sequence;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable Map<String, String> briefRead;

  private @Nullable Instant briefReadAt;
  private boolean made;
  private @Nullable Instant removedAt;
  private @Nullable UUID joinedInto;
  @Version private int version;
  private Instant createdAt;
  private Instant changedAt;

  @SuppressWarnings("NullAway.Init")
  protected SessionRow() {}

  SessionRow(
      UUID ownerId,
      UUID eventId,
      @Nullable UUID referenceId,
      TrackSession body,
      @Nullable String calendarUid,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.eventId = eventId;
    this.referenceId = referenceId;
    this.body = body;
    this.startsAt = body.timing().begins();
    this.calendarUid = calendarUid == null ? id + "@marvek" : calendarUid;
    this.createdAt = now;
    this.changedAt = now;
  }

  void plan(@Nullable UUID reference, TrackSession other, Instant now) {
    if (!other.timing().equals(body.timing()) || !other.name().equals(body.name())) {
      sequence++;
    }
    referenceId = reference;
    body = other;
    startsAt = other.timing().begins();
    changedAt = now;
  }

  void read(Map<String, String> said, Instant now) {
    briefRead = said;
    briefReadAt = now;
  }

  void removed(@Nullable Instant at) {
    removedAt = at;
    sequence++;
  }

  /** Into another session, of which it is a part from then on; null to be one of its own again. */
  void joined(@Nullable UUID into, Instant now) {
    joinedInto = into;
    removed(into == null ? null : now);
  }

  void moved(UUID event, Instant now) {
    eventId = event;
    changedAt = now;
  }

  @Nullable UUID joinedInto() {
    return joinedInto;
  }

  UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID eventId() {
    return eventId;
  }

  @Nullable UUID referenceId() {
    return referenceId;
  }

  TrackSession body() {
    return body;
  }

  Instant startsAt() {
    return startsAt;
  }

  String calendarUid() {
    return calendarUid;
  }

  int sequence() {
    return sequence;
  }

  /** What each part of the brief said when it was read; null where it was not. */
  @Nullable Map<String, String> briefRead() {
    return briefRead;
  }

  @Nullable Instant briefReadAt() {
    return briefReadAt;
  }

  /** Whether it was made from what was driven. */
  boolean made() {
    return made;
  }

  @Nullable Instant removedAt() {
    return removedAt;
  }

  int version() {
    return version;
  }

  Instant changedAt() {
    return changedAt;
  }
}
