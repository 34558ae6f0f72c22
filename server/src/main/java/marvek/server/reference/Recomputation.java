package marvek.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.core.anew.Recomputed;
import marvek.server.circuit.RoadBytes;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/**
 * A reference computed anew beside what it was. Of each reference the last proposal is kept, and
 * the last one that was taken, to be undone.
 */
@Entity
@Table(name = "recomputation")
class Recomputation {
  @Id private UUID id;
  private UUID referenceId;
  private UUID ownerId;
  private int fromVersion;

  @JdbcTypeCode(SqlTypes.JSON)
  private Sitting proposed;

  private byte[] proposedLine;

  @JdbcTypeCode(SqlTypes.JSON)
  private Sitting before;

  private byte[] beforeLine;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Recomputed.Change> corners;

  private Instant madeAt;
  private boolean taken;

  @SuppressWarnings("NullAway.Init")
  protected Recomputation() {}

  Recomputation(
      ReferenceRow row,
      Sitting proposed,
      double[] line,
      List<Recomputed.Change> corners,
      Instant now) {
    this.id = UUID.randomUUID();
    this.referenceId = row.id();
    this.ownerId = row.ownerId();
    this.fromVersion = row.version();
    this.proposed = proposed;
    this.proposedLine = RoadBytes.pack(line);
    this.before = row.sitting();
    this.beforeLine = RoadBytes.pack(row.lineOffsets());
    this.corners = List.copyOf(corners);
    this.madeAt = now;
  }

  void take() {
    taken = true;
  }

  boolean isTaken() {
    return taken;
  }

  /** Version of the reference that it was made from. */
  int fromVersion() {
    return fromVersion;
  }

  Sitting proposed() {
    return proposed;
  }

  double[] proposedLine() {
    return RoadBytes.unpack(proposedLine)[0];
  }

  Sitting before() {
    return before;
  }

  double[] beforeLine() {
    return RoadBytes.unpack(beforeLine)[0];
  }

  List<Recomputed.Change> corners() {
    return corners;
  }

  Instant madeAt() {
    return madeAt;
  }
}
