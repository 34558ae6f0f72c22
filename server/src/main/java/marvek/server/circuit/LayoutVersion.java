package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One state of one way round a circuit. Its road stands apart and never changes. */
@Entity
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
  private List<String> remarks;

  private String sourceName;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected LayoutVersion() {}

  LayoutVersion(
      Circuit circuit,
      String layoutName,
      int number,
      LocalDate validFrom,
      CircuitReading survey,
      String sourceName,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = circuit.ownerId();
    this.circuit = circuit;
    this.layoutName = layoutName;
    this.number = number;
    this.validFrom = validFrom;
    this.length = survey.centreline().length();
    this.cornerCount = survey.corners().size();
    this.corners = survey.corners();
    this.remarks = survey.remarks();
    this.sourceName = sourceName;
    this.createdAt = now;
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

  public List<String> remarks() {
    return remarks;
  }

  public String sourceName() {
    return sourceName;
  }

  public Instant createdAt() {
    return createdAt;
  }

  /** Gives a corner another name; its id stays. */
  void rename(String corner, String name) {
    corners =
        corners.stream()
            .map(
                c ->
                    c.id().equals(corner)
                        ? new Corner(
                            c.id(),
                            c.number(),
                            name,
                            c.left(),
                            c.entry(),
                            c.apexes(),
                            c.exit(),
                            c.radius(),
                            c.angle(),
                            c.kind(),
                            c.complex())
                        : c)
            .toList();
  }
}
