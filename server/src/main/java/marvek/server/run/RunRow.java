package marvek.server.run;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.SQLRestriction;
import org.jspecify.annotations.Nullable;

/** A run: a time on the track, with a reference, on a day. */
@Entity
@SQLRestriction("removed_at is null")
@Table(name = "run")
public class RunRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private UUID layoutVersionId;
  private int revision;
  private String name;
  private Instant drivenAt;

  private @Nullable String day;
  private @Nullable UUID sessionId;
  private String sheetName;
  private String note;
  @Version private int version;
  private Instant createdAt;

  @SuppressWarnings("NullAway.Init")
  protected RunRow() {}

  RunRow(
      UUID ownerId,
      UUID referenceId,
      UUID layoutVersionId,
      int revision,
      String name,
      Instant drivenAt,
      @Nullable String day,
      String sheetName,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.layoutVersionId = layoutVersionId;
    this.revision = revision;
    this.name = name;
    this.drivenAt = drivenAt;
    this.day = day;
    this.sheetName = sheetName;
    this.note = "";
    this.createdAt = now;
  }

  void change(String newName, @Nullable String newDay, int newRevision, String newNote) {
    name = newName;
    day = newDay;
    revision = newRevision;
    note = newNote;
  }

  public UUID id() {
    return id;
  }

  public UUID ownerId() {
    return ownerId;
  }

  public UUID referenceId() {
    return referenceId;
  }

  public UUID layoutVersionId() {
    return layoutVersionId;
  }

  /** Revision that was driven; 0 for a working copy. */
  public int revision() {
    return revision;
  }

  public String name() {
    return name;
  }

  public Instant drivenAt() {
    return drivenAt;
  }

  /**
   * On which day it was driven, as the driver says: empty for the reference's own, id of a variant
   * or kind of a day that the reference does not have; null to be told from the laps.
   */
  public @Nullable String day() {
    return day;
  }

  void on(String newDay) {
    day = newDay;
  }

  /** The session in which it was driven; null where none was planned. */
  public @Nullable UUID sessionId() {
    return sessionId;
  }

  void into(@Nullable UUID session) {
    sessionId = session;
  }

  public String sheetName() {
    return sheetName;
  }

  public String note() {
    return note;
  }

  public int version() {
    return version;
  }
}
