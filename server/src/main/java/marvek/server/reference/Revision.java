package marvek.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.core.anew.LapAsPlanned;
import marvek.core.entry.ReferenceContent;
import marvek.core.session.Evidence;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A numbered state of a reference; written once. */
@Entity
@Immutable
public class Revision {
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

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Evidence> evidence = List.of();

  private String sheetName = "";
  private double lapTime;
  private int unmade;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Revision() {}

  Revision(
      ReferenceRow reference, int number, String reason, List<Evidence> evidence, Instant now) {
    this.evidence = evidence;
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
    LapAsPlanned lap = reference.planned();
    this.lapTime = lap.seconds();
    this.unmade = lap.unmade();
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

  public int number() {
    return number;
  }

  int basedOn() {
    return basedOn;
  }

  public String reason() {
    return reason;
  }

  public ReferenceContent content() {
    return content;
  }

  Vehicle vehicleNumbers() {
    return vehicleNumbers;
  }

  /** Name of the set-up sheet that was on the vehicle, or empty. */
  String sheetName() {
    return sheetName;
  }

  public LapAsPlanned planned() {
    return new LapAsPlanned(lapTime, unmade);
  }

  /** What the laps said that led to it; empty where the driver decided without. */
  public List<Evidence> evidence() {
    return evidence;
  }

  public Instant createdAt() {
    return createdAt;
  }
}
