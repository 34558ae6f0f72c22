package marvek.server.trial;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.session.PlannedTrial;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** Two ways of doing something, driven on purpose. */
@Entity
@Table(name = "corner_trial")
class CornerTrial {
  static final String NEITHER = "-";

  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private @Nullable UUID sessionId;

  @JdbcTypeCode(SqlTypes.JSON)
  private PlannedTrial body;

  @JdbcTypeCode(SqlTypes.JSON)
  private Map<String, String> marks;

  private @Nullable String taken;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable Before was;

  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected CornerTrial() {}

  /**
   * What stood before a way was taken.
   *
   * @param entries of the corners, for a way of driving
   * @param taken what stood there after it was taken
   * @param sheet on the vehicle, for a set-up; null for none
   * @param put sheet that was put on; null for a way of driving
   */
  record Before(
      List<CornerEntry> entries,
      List<CornerEntry> taken,
      @Nullable UUID sheet,
      @Nullable UUID put) {
    Before {
      taken = taken == null ? List.of() : List.copyOf(taken);
      entries = entries == null ? List.of() : List.copyOf(entries);
    }
  }

  CornerTrial(UUID ownerId, UUID referenceId, UUID sessionId, PlannedTrial body, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.sessionId = sessionId;
    this.body = body;
    this.marks = Map.of();
    this.createdAt = now;
  }

  /** Says of laps what they were, whatever was planned: A, B, or a dash for neither. */
  void mark(Map<String, String> laps) {
    Map<String, String> all = new TreeMap<>(laps);
    all.values().removeIf(w -> !w.equals("A") && !w.equals("B") && !w.equals(NEITHER));
    marks = all;
  }

  void take(@Nullable String way, @Nullable Before before) {
    taken = way;
    was = before;
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

  @Nullable UUID sessionId() {
    return sessionId;
  }

  PlannedTrial body() {
    return body;
  }

  @Nullable String taken() {
    return taken;
  }

  @Nullable Before was() {
    return was;
  }

  /** A, B or a dash by id of the lap, where the driver says so. */
  Map<String, String> marks() {
    return marks;
  }

  Instant createdAt() {
    return createdAt;
  }
}
