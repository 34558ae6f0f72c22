package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.time.ZoneId;
import java.util.UUID;

/** A venue. */
@Entity
public class Circuit {
  @Id private UUID id;
  private UUID ownerId;
  private String name;
  private String zone;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Circuit() {}

  Circuit(UUID ownerId, String name, ZoneId zone, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.name = name;
    this.zone = zone.getId();
    this.createdAt = now;
  }

  public UUID id() {
    return id;
  }

  public UUID ownerId() {
    return ownerId;
  }

  public String name() {
    return name;
  }

  public ZoneId zone() {
    return ZoneId.of(zone);
  }

  public Instant createdAt() {
    return createdAt;
  }
}
