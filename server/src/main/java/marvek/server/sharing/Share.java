package marvek.server.sharing;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Objects;
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

  /** Whether that person may see what the driver knows by heart. */
  private boolean seesRehearsed;

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

  UUID id() {
    return id;
  }

  @Nullable UUID personId() {
    return personId;
  }

  /** Whether that person has opened it, by the owner's word. */
  boolean opened() {
    return confirmed && personId != null && seenAt != null;
  }

  boolean seesRehearsed() {
    return seesRehearsed;
  }

  void letIn(boolean sees) {
    seesRehearsed = sees;
  }

  /** Gives a role, and opens to the person who has the address now, if there is one. */
  void become(Role other, @Nullable UUID person) {
    role = other;
    // Only a coach is let in, and only once more by the owner's word.
    seesRehearsed = seesRehearsed && other == Role.COACH && Objects.equals(personId, person);
    personId = person;
    confirmed = person != null;
  }
}
