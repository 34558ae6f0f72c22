package marvek.server.sharing;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;

/** That a reference is open to somebody besides its owner. */
@Entity
class Share {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private UUID personId;

  @Enumerated(EnumType.STRING)
  private Role role;

  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Share() {}

  Share(UUID ownerId, UUID referenceId, UUID personId, Role role, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.personId = personId;
    this.role = role;
    this.createdAt = now;
  }

  Role role() {
    return role;
  }

  void become(Role other) {
    role = other;
  }
}
