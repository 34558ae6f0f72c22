package marvek.server.sharing;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** That a reference is open to somebody besides its owner. */
@Entity
class Share {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private @Nullable UUID personId;
  private String email;

  /** Whether it opens to that person; who came after it was given waits for the owner's word. */
  private boolean confirmed;

  private @Nullable Instant seenAt;

  @Enumerated(EnumType.STRING)
  private Role role;

  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Share() {}

  Share(
      UUID ownerId,
      UUID referenceId,
      @Nullable UUID personId,
      String email,
      Role role,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.personId = personId;
    this.email = email;
    this.confirmed = personId != null;
    this.role = role;
    this.createdAt = now;
  }

  Role role() {
    return role;
  }

  /** Gives a role, and opens to the person who has the address now, if there is one. */
  void become(Role other, @Nullable UUID person) {
    role = other;
    personId = person;
    confirmed = person != null;
  }
}
