package marvek.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** What a coach pins to a corner, perhaps with a change that the driver may take. */
@Entity
class Remark {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private UUID authorId;
  private String corner;

  @Enumerated(EnumType.STRING)
  private @Nullable PointKind kind;

  private String text;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable CornerEntry proposed;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable CornerEntry was;

  @Enumerated(EnumType.STRING)
  private State state;

  private Instant createdAt;
  private @Nullable Instant decidedAt;

  /** What the driver made of it. */
  enum State {
    OPEN,
    ACCEPTED,
    DECLINED
  }

  @SuppressWarnings("NullAway.Init")
  protected Remark() {}

  Remark(
      ReferenceRow reference,
      UUID authorId,
      String corner,
      @Nullable PointKind kind,
      String text,
      @Nullable CornerEntry was,
      @Nullable CornerEntry proposed,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = reference.ownerId();
    this.referenceId = reference.id();
    this.authorId = authorId;
    this.corner = corner;
    this.kind = kind;
    this.text = text;
    this.was = was;
    this.proposed = proposed;
    this.state = State.OPEN;
    this.createdAt = now;
  }

  void decide(boolean accepted, Instant now) {
    state = accepted ? State.ACCEPTED : State.DECLINED;
    decidedAt = now;
  }

  UUID id() {
    return id;
  }

  UUID authorId() {
    return authorId;
  }

  String corner() {
    return corner;
  }

  @Nullable PointKind kind() {
    return kind;
  }

  String text() {
    return text;
  }

  /** The corner as it was when the remark was made. */
  @Nullable CornerEntry was() {
    return was;
  }

  @Nullable CornerEntry proposed() {
    return proposed;
  }

  State state() {
    return state;
  }

  Instant createdAt() {
    return createdAt;
  }
}
