package marvek.server.vehicle;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import marvek.core.vehicle.SetupSheet;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A set-up sheet of a vehicle. */
@Entity
@Table(name = "setup_sheet")
public class SheetRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID vehicleId;

  @JdbcTypeCode(SqlTypes.JSON)
  private SetupSheet sheet;

  @Version private int version;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected SheetRow() {}

  SheetRow(VehicleRow vehicle, SetupSheet sheet, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = vehicle.ownerId();
    this.vehicleId = vehicle.id();
    this.sheet = sheet;
    this.createdAt = now;
  }

  public UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  public UUID vehicleId() {
    return vehicleId;
  }

  public SetupSheet sheet() {
    return sheet;
  }

  public int version() {
    return version;
  }

  Instant createdAt() {
    return createdAt;
  }

  void change(SetupSheet newSheet) {
    sheet = newSheet;
  }
}
