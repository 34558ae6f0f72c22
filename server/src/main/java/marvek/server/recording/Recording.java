package marvek.server.recording;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.core.logger.Truth;
import marvek.core.said.Said;
import marvek.core.telemetry.Mapping;
import marvek.core.telemetry.ReadReport;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A file that came from a run, and what became of it. */
@Entity
public class Recording {
  /** Where it stands. */
  public enum State {
    /** On its way to the server. */
    RECEIVING,
    /** Sent line by line while driving. */
    LIVE,
    /** Stored as it came; waiting. */
    STORED,
    /** Stored, but the driver has to say what a column holds. */
    ASKS,
    WORKING,
    DONE,
    FAILED,
    CANCELLED
  }

  /** Why it could not be read. */
  public record Trouble(Said what, @Nullable Said where, Said remedy) {}

  @Id private UUID id;
  private UUID ownerId;
  private UUID runId;
  private String name;
  private long bytes;
  private String digest;

  @Enumerated(EnumType.STRING)
  private State state;

  private double progress;
  private boolean cancel;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable Mapping mapping;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<ReadReport.Remark> report = List.of();

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable Trouble problem;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable Truth truth;

  private int readBy;
  private @Nullable String token;
  private @Nullable Instant heardAt;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected Recording() {}

  Recording(UUID ownerId, UUID runId, String name, State state, Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.runId = runId;
    this.name = name;
    this.digest = "";
    this.state = state;
    this.createdAt = now;
  }

  void stored(long size, String sum) {
    bytes = size;
    digest = sum;
    state = State.STORED;
    token = null;
    progress = 0;
  }

  /** Found out how it is read; waits for the driver where that is not enough. */
  void found(@Nullable Mapping how, @Nullable Trouble missing) {
    mapping = how;
    problem = missing;
    state = missing == null ? State.STORED : State.ASKS;
  }

  void fail(Trouble trouble, List<ReadReport.Remark> remarks) {
    state = State.FAILED;
    problem = trouble;
    report = remarks;
    readBy = Importer.READ_BY;
  }

  void work() {
    state = State.WORKING;
    progress = 0;
    cancel = false;
    problem = null;
  }

  void cancelled() {
    state = State.CANCELLED;
  }

  void done(List<ReadReport.Remark> remarks) {
    state = State.DONE;
    progress = 1;
    report = remarks;
    readBy = Importer.READ_BY;
  }

  /** Whether its laps were made by an earlier version of the reading. */
  public boolean earlier() {
    return state == State.DONE && readBy < Importer.READ_BY;
  }

  void tell(Truth what) {
    truth = what;
  }

  void listen(String secret) {
    token = secret;
  }

  public UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  public UUID runId() {
    return runId;
  }

  public String name() {
    return name;
  }

  public long bytes() {
    return bytes;
  }

  String digest() {
    return digest;
  }

  public State state() {
    return state;
  }

  public double progress() {
    return progress;
  }

  boolean cancel() {
    return cancel;
  }

  public @Nullable Mapping mapping() {
    return mapping;
  }

  public List<ReadReport.Remark> report() {
    return report;
  }

  public @Nullable Trouble problem() {
    return problem;
  }

  public @Nullable Truth truth() {
    return truth;
  }

  public @Nullable String token() {
    return token;
  }

  Instant createdAt() {
    return createdAt;
  }
}
