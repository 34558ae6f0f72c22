package marvek.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import marvek.core.reference.ReferenceContent;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A numbered state of a reference; written once. */
@Entity
@Immutable
class Revision {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private int number;
  private int basedOn;
  private String reason;

  @JdbcTypeCode(SqlTypes.JSON)
  private ReferenceContent content;

  @JdbcTypeCode(SqlTypes.JSON)
  private Vehicle vehicleNumbers;

  private String sheetName = "";
  private double lapTime;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Revision() {}

  Revision(ReferenceRow reference, int number, String reason, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = reference.ownerId();
    this.referenceId = reference.id();
    this.number = number;
    this.basedOn = reference.basedOnRevision();
    this.reason = reason;
    this.content = reference.working();
    this.vehicleNumbers = reference.vehicleNumbers();
    SetupSheet sheet = reference.sheet();
    this.sheetName = sheet == null ? "" : sheet.name();
    this.lapTime = reference.lapTime();
    this.createdAt = now;
  }

  UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID referenceId() {
    return referenceId;
  }

  int number() {
    return number;
  }

  int basedOn() {
    return basedOn;
  }

  String reason() {
    return reason;
  }

  ReferenceContent content() {
    return content;
  }

  Vehicle vehicleNumbers() {
    return vehicleNumbers;
  }

  /** Name of the set-up sheet that was on the vehicle, or empty. */
  String sheetName() {
    return sheetName;
  }

  double lapTime() {
    return lapTime;
  }

  Instant createdAt() {
    return createdAt;
  }
}
