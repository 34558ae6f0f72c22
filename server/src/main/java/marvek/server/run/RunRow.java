package marvek.server.run;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;

/** A run: a time on the track, with a reference, on a day. */
@Entity
@Table(name = "run")
public class RunRow {
  /** What the road was like; only laps of like conditions speak together. */
  public enum Conditions {
    DRY,
    COLD,
    DAMP,
    WET,
    DRYING
  }

  @Id private UUID id;
  private UUID ownerId;
  private UUID referenceId;
  private UUID layoutVersionId;
  private int revision;
  private String name;
  private Instant drivenAt;

  @Enumerated(EnumType.STRING)
  private Conditions conditions;

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
      Conditions conditions,
      String sheetName,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.referenceId = referenceId;
    this.layoutVersionId = layoutVersionId;
    this.revision = revision;
    this.name = name;
    this.drivenAt = drivenAt;
    this.conditions = conditions;
    this.sheetName = sheetName;
    this.note = "";
    this.createdAt = now;
  }

  void change(String newName, Conditions newConditions, int newRevision, String newNote) {
    name = newName;
    conditions = newConditions;
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

  public Conditions conditions() {
    return conditions;
  }

  String sheetName() {
    return sheetName;
  }

  String note() {
    return note;
  }

  int version() {
    return version;
  }
}
