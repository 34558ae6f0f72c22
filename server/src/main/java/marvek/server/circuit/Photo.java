package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.SQLRestriction;
import org.springframework.data.domain.Persistable;

/** A picture of something along the road, made anew from what was sent. */
@Entity
@SQLRestriction("removed_at is null")
@Immutable
class Photo implements Persistable<UUID> {
  @Id private UUID id;
  private UUID ownerId;
  private UUID layoutVersionId;
  private byte[] jpeg;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Photo() {}

  Photo(UUID id, LayoutVersion layout, byte[] jpeg, Instant now) {
    this.id = id;
    this.ownerId = layout.ownerId();
    this.layoutVersionId = layout.id();
    this.jpeg = jpeg;
    this.createdAt = now;
  }

  @Override
  public UUID getId() {
    return id;
  }

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

  byte[] jpeg() {
    return jpeg;
  }

  Instant createdAt() {
    return createdAt;
  }
}
