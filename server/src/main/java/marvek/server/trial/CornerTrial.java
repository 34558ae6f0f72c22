package marvek.server.trial;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** Two ways of doing one corner, driven on purpose. */
@Entity
@Table(name = "corner_trial")
class CornerTrial {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private String corner;
  private String firstWay;
  private String secondWay;

  @JdbcTypeCode(SqlTypes.JSON)
  private Map<String, String> marks;

  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected CornerTrial() {}

  CornerTrial(
      UUID ownerId, UUID referenceId, String corner, String wayA, String wayB, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.corner = corner;
    this.firstWay = wayA;
    this.secondWay = wayB;
    this.marks = Map.of();
    this.createdAt = now;
  }

  void mark(Map<String, String> laps) {
    Map<String, String> all = new TreeMap<>(laps);
    all.values().removeIf(w -> !w.equals("A") && !w.equals("B"));
    marks = all;
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

  String corner() {
    return corner;
  }

  String wayA() {
    return firstWay;
  }

  String wayB() {
    return secondWay;
  }

  /** A or B by id of the lap. */
  Map<String, String> marks() {
    return marks;
  }

  Instant createdAt() {
    return createdAt;
  }
}
