package marvek.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import marvek.core.reference.Desk;
import marvek.core.reference.ReferenceContent;
import marvek.core.vehicle.Vehicle;
import marvek.server.circuit.RoadBytes;
import marvek.server.vehicle.VehicleRow;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A reference with its working copy. Revisions stand apart and never change. */
@Entity
@Table(name = "reference")
public class ReferenceRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID layoutVersionId;
  private UUID vehicleId;
  private int vehicleVersion;
  private String name;

  @JdbcTypeCode(SqlTypes.JSON)
  private Vehicle vehicleNumbers;

  private byte[] line;
  private int deskVersion;
  private double lapTime;

  @JdbcTypeCode(SqlTypes.JSON)
  private ReferenceContent working;

  private int basedOnRevision;
  private boolean changed;

  @Version private int version;
  private Instant createdAt;
  private Instant changedAt;

  @SuppressWarnings("NullAway.Init")
  protected ReferenceRow() {}

  ReferenceRow(
      UUID ownerId,
      UUID layoutVersionId,
      VehicleRow vehicle,
      String name,
      Desk desk,
      ReferenceContent draft,
      double lapTime,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.layoutVersionId = layoutVersionId;
    this.vehicleId = vehicle.id();
    this.name = name;
    this.createdAt = now;
    this.working = draft;
    this.changed = true;
    this.changedAt = now;
    this.lapTime = lapTime;
    sitAt(vehicle, desk);
  }

  /** Takes the numbers of the vehicle and the line computed with them. */
  final void sitAt(VehicleRow vehicle, Desk desk) {
    vehicleVersion = vehicle.version();
    vehicleNumbers = vehicle.numbers();
    line = RoadBytes.pack(desk.path().offset());
    deskVersion++;
  }

  void work(ReferenceContent content, double time, Instant now) {
    working = content;
    lapTime = time;
    changed = true;
    changedAt = now;
  }

  void startFrom(int revision, ReferenceContent content, double time, Instant now) {
    work(content, time, now);
    basedOnRevision = revision;
    changed = false;
  }

  void saved(int revision) {
    basedOnRevision = revision;
    changed = false;
  }

  public UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  public UUID layoutVersionId() {
    return layoutVersionId;
  }

  public UUID vehicleId() {
    return vehicleId;
  }

  int vehicleVersion() {
    return vehicleVersion;
  }

  public String name() {
    return name;
  }

  Vehicle vehicleNumbers() {
    return vehicleNumbers;
  }

  double[] lineOffsets() {
    return RoadBytes.unpack(line)[0];
  }

  public int deskVersion() {
    return deskVersion;
  }

  double lapTime() {
    return lapTime;
  }

  public ReferenceContent working() {
    return working;
  }

  int basedOnRevision() {
    return basedOnRevision;
  }

  boolean changed() {
    return changed;
  }

  public int version() {
    return version;
  }

  Instant createdAt() {
    return createdAt;
  }

  Instant changedAt() {
    return changedAt;
  }
}
