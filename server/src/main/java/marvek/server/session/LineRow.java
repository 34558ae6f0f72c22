package marvek.server.session;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import marvek.core.session.Told;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A line of a session's log, as a device sent it. */
@Entity
@Table(name = "session_line")
class LineRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID sessionId;
  private String device;
  private Instant saidAt;

  @JdbcTypeCode(SqlTypes.JSON)
  private Told body;

  private boolean removed;
  private Instant receivedAt;

  @SuppressWarnings("NullAway.Init")
  protected LineRow() {}

  LineRow(
      UUID id,
      UUID ownerId,
      UUID sessionId,
      String device,
      Instant saidAt,
      Told body,
      Instant now) {
    this.id = id;
    this.ownerId = ownerId;
    this.sessionId = sessionId;
    this.device = device;
    this.saidAt = saidAt;
    this.body = body;
    this.receivedAt = now;
  }

  void taken(boolean back) {
    removed = back;
  }

  UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID sessionId() {
    return sessionId;
  }

  String device() {
    return device;
  }

  Instant saidAt() {
    return saidAt;
  }

  Told body() {
    return body;
  }

  boolean removed() {
    return removed;
  }
}
