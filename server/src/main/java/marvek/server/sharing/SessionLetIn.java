package marvek.server.sharing;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** That a coach may see what was felt and said of a session. */
@Entity
class SessionLetIn {
  @Id private UUID id;
  private UUID ownerId;
  private UUID sessionId;
  private UUID shareId;

  /** Who was the coach then: nobody else comes in by the same share. */
  private UUID personId;

  @SuppressWarnings("NullAway.Init")
  protected SessionLetIn() {}

  SessionLetIn(UUID ownerId, UUID sessionId, UUID shareId, UUID personId) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.sessionId = sessionId;
    this.shareId = shareId;
    this.personId = personId;
  }

  UUID shareId() {
    return shareId;
  }
}
