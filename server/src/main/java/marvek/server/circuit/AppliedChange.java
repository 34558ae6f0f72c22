package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.Immutable;
import org.springframework.data.domain.Persistable;

/** A change of a survey that has been applied, by the id that its sender gave it. */
@Entity
@Immutable
@Table(name = "survey_change")
class AppliedChange implements Persistable<UUID> {
  @Id private UUID id;
  private UUID ownerId;
  private UUID layoutVersionId;
  private Instant appliedAt;

  @SuppressWarnings("NullAway.Init")
  protected AppliedChange() {}

  AppliedChange(UUID id, LayoutVersion layout, Instant now) {
    this.id = id;
    this.ownerId = layout.ownerId();
    this.layoutVersionId = layout.id();
    this.appliedAt = now;
  }

  @Override
  public UUID getId() {
    return id;
  }

  /** Always stored as new: a second one of the same id must fail, not overwrite. */
  @Override
  public boolean isNew() {
    return true;
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID layoutVersionId() {
    return layoutVersionId;
  }

  Instant appliedAt() {
    return appliedAt;
  }
}
