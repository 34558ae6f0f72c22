package marvek.server.rehearse;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import marvek.core.rehearse.Rehearsed;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** Something answered or driven by heart, as a device sent it. */
@Entity
@Table(name = "rehearsed")
class RehearsedRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private Instant doneAt;

  @JdbcTypeCode(SqlTypes.JSON)
  private Rehearsed body;

  private Instant receivedAt;

  @SuppressWarnings("NullAway.Init")
  protected RehearsedRow() {}

  RehearsedRow(
      UUID id, UUID ownerId, UUID referenceId, Instant doneAt, Rehearsed body, Instant now) {
    this.id = id;
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.doneAt = doneAt;
    this.body = body;
    this.receivedAt = now;
  }

  UUID id() {
    return id;
  }

  UUID referenceId() {
    return referenceId;
  }

  UUID ownerId() {
    return ownerId;
  }

  Instant doneAt() {
    return doneAt;
  }

  Rehearsed body() {
    return body;
  }
}
