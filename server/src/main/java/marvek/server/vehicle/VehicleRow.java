package marvek.server.vehicle;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import marvek.core.vehicle.Vehicle;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.annotations.SQLRestriction;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A vehicle of somebody's own. */
@Entity
@SQLRestriction("removed_at is null")
@Table(name = "vehicle")
public class VehicleRow {
  @Id private UUID id;
  private UUID ownerId;
  private String name;
  private String basedOn;

  @JdbcTypeCode(SqlTypes.JSON)
  private Vehicle numbers;

  @Version private int version;
  private Instant createdAt;
  private @Nullable UUID nextSheetId;

  @SuppressWarnings("NullAway.Init")
  protected VehicleRow() {}

  VehicleRow(UUID ownerId, String name, String basedOn, Vehicle numbers, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.name = name;
    this.basedOn = basedOn;
    this.numbers = numbers;
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

  public String basedOn() {
    return basedOn;
  }

  public Vehicle numbers() {
    return numbers;
  }

  public int version() {
    return version;
  }

  public Instant createdAt() {
    return createdAt;
  }

  /** The set-up sheet that is on it for the next session, or null. */
  public @Nullable UUID nextSheetId() {
    return nextSheetId;
  }

  void putOn(@Nullable UUID sheet) {
    nextSheetId = sheet;
  }

  void change(String newName, Vehicle newNumbers) {
    name = newName;
    numbers = newNumbers;
  }
}
