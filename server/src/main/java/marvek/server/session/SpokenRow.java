package marvek.server.session;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;

/** The sound of a line of a log. */
@Entity
@Table(name = "spoken")
class SpokenRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID sessionId;
  private String type;
  private byte[] sound;
  private Instant receivedAt;

  @SuppressWarnings("NullAway.Init")
  protected SpokenRow() {}

  SpokenRow(UUID id, UUID ownerId, UUID sessionId, String type, byte[] sound, Instant now) {
    this.id = id;
    this.ownerId = ownerId;
    this.sessionId = sessionId;
    this.type = type;
    this.sound = sound;
    this.receivedAt = now;
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID sessionId() {
    return sessionId;
  }

  String type() {
    return type;
  }

  byte[] sound() {
    return sound;
  }
}
