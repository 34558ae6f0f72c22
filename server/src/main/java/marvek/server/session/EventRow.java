package marvek.server.session;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.ZoneId;
import java.util.UUID;

/** A weekend, or whatever holds sessions together. */
@Entity
@Table(name = "event")
class EventRow {
  @Id private UUID id;
  private UUID ownerId;
  private String name;
  private String zone;
  @Version private int version;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected EventRow() {}

  EventRow(UUID ownerId, String name, ZoneId zone, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.name = name;
    this.zone = zone.getId();
    this.createdAt = now;
  }

  void called(String newName) {
    name = newName;
  }

  UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  String name() {
    return name;
  }

  ZoneId zone() {
    return ZoneId.of(zone);
  }

  Instant createdAt() {
    return createdAt;
  }
}
