package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.circuit.LocalPlane;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.server.problem.Problem;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.annotations.SQLRestriction;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** One state of one way round a circuit. Its road stands apart and never changes. */
@Entity
@SQLRestriction("removed_at is null")
public class LayoutVersion {
  @Id private UUID id;
  private UUID ownerId;

  @ManyToOne(fetch = FetchType.LAZY, optional = false)
  @JoinColumn(name = "circuit_id")
  private Circuit circuit;

  private String layoutName;
  private int number;
  private LocalDate validFrom;
  private double length;
  private int cornerCount;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Corner> corners;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Said> remarks;

  private String sourceName;
  private Instant createdAt;
  private @Nullable Double latitude;
  private @Nullable Double longitude;
  private double altitude;
  private int cornersVersion = 1;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<GroundChange> changes = List.of();

  private String reason = "";

  /** A stretch that was changed on the ground, in metres from the line. */
  public record GroundChange(double from, double to, String what) {
    public GroundChange {
      Objects.requireNonNull(what, "what");
    }
  }

  @SuppressWarnings("NullAway.Init")
  protected LayoutVersion() {}

  LayoutVersion(
      Circuit circuit,
      String layoutName,
      int number,
      LocalDate validFrom,
      CircuitReading reading,
      String sourceName,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = circuit.ownerId();
    this.circuit = circuit;
    this.layoutName = layoutName;
    this.number = number;
    this.validFrom = validFrom;
    this.length = reading.centreline().length();
    this.cornerCount = reading.corners().size();
    this.corners = reading.corners();
    this.remarks = reading.remarks();
    this.sourceName = sourceName;
    this.createdAt = now;
    LocalPlane plane = reading.plane();
    if (plane != null) {
      latitude = plane.latitude();
      longitude = plane.longitude();
    }
    double[] height = reading.centreline().height();
    altitude = reading.centreline().hasHeight() ? height[0] : 0;
  }

  /** The version that follows another on the same road. */
  LayoutVersion(
      LayoutVersion before,
      int number,
      LocalDate validFrom,
      String reason,
      List<GroundChange> changes,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = before.ownerId;
    this.circuit = before.circuit;
    this.layoutName = before.layoutName;
    this.number = number;
    this.validFrom = validFrom;
    this.length = before.length;
    this.cornerCount = before.cornerCount;
    this.corners = List.copyOf(before.corners);
    this.remarks = List.copyOf(before.remarks);
    this.sourceName = before.sourceName;
    this.createdAt = now;
    this.latitude = before.latitude;
    this.longitude = before.longitude;
    this.altitude = before.altitude;
    this.changes = List.copyOf(changes);
    this.reason = reason;
  }

  public UUID id() {
    return id;
  }

  public UUID ownerId() {
    return ownerId;
  }

  public Circuit circuit() {
    return circuit;
  }

  public String layoutName() {
    return layoutName;
  }

  public int number() {
    return number;
  }

  public LocalDate validFrom() {
    return validFrom;
  }

  public double length() {
    return length;
  }

  public int cornerCount() {
    return cornerCount;
  }

  public List<Corner> corners() {
    return corners;
  }

  public List<Said> remarks() {
    return remarks;
  }

  public String sourceName() {
    return sourceName;
  }

  public Instant createdAt() {
    return createdAt;
  }

  /** Corners that have a number and an entry in a reference. */
  public List<Corner> counted() {
    return corners.stream().filter(c -> !c.uncounted()).toList();
  }

  /** Rises with every change of the corners. */
  public int cornersVersion() {
    return cornersVersion;
  }

  /** What was changed on the ground since the version before. */
  public List<GroundChange> changes() {
    return changes;
  }

  public String reason() {
    return reason;
  }

  /** Where the metres of the road lie on the earth; null when nobody has said. */
  public @Nullable LocalPlane plane() {
    return latitude == null || longitude == null ? null : new LocalPlane(longitude, latitude);
  }

  /** Metres over the sea, as far as is known. */
  public double altitude() {
    return altitude;
  }

  /** The instant of an hour on the circuit's clock. */
  public Instant instant(LocalDateTime at) {
    if (at.getYear() < 1950 || at.getYear() > 2150) {
      throw Problem.bad("refusal.circuit.year_out_range", Value.figure(at.getYear(), 0)).at("at");
    }
    return at.atZone(circuit.zone()).toInstant();
  }

  void place(double newLatitude, double newLongitude, double newAltitude) {
    latitude = newLatitude;
    longitude = newLongitude;
    altitude = newAltitude;
  }

  void rearrange(List<Corner> settled) {
    corners = settled;
    cornerCount = counted().size();
    cornersVersion++;
  }
}
