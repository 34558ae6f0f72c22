package marvek.server.recording;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;
import marvek.core.telemetry.Mapping;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** How a driver said that files with certain columns are to be read. */
@Entity
class MappingMemory {
  @Id private UUID id;
  private UUID ownerId;
  private String signature;

  @JdbcTypeCode(SqlTypes.JSON)
  private Mapping mapping;

  @SuppressWarnings("NullAway.Init")
  protected MappingMemory() {}

  MappingMemory(UUID ownerId, String signature, Mapping mapping) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.signature = signature;
    this.mapping = mapping;
  }

  void learn(Mapping other) {
    mapping = other;
  }

  UUID ownerId() {
    return ownerId;
  }

  String signature() {
    return signature;
  }

  Mapping mapping() {
    return mapping;
  }
}
