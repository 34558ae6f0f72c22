package marvek.server.run;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.List;
import java.util.UUID;
import marvek.core.day.DayFit;
import marvek.core.debrief.LapData;
import marvek.core.said.Said;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.LapKind;
import marvek.core.telemetry.LapSketch;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A lap: when, what kind, and what happened in it. Its channels lie apart. */
@Entity
@Table(name = "driven_lap")
public class LapRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID runId;
  private @Nullable UUID recordingId;
  private int number;

  @Enumerated(EnumType.STRING)
  private LapKind kind;

  private boolean counts;
  private double lapTime;
  private double started;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Double> sectors;

  @JdbcTypeCode(SqlTypes.JSON)
  private Said remark;

  private String note;
  private boolean told;
  private boolean said;
  private double step;
  private byte[] times;
  private @Nullable Double grip;
  private @Nullable String day;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<CornerEvents> events;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable LapSketch sketch;

  @SuppressWarnings("NullAway.Init")
  protected LapRow() {}

  /** A lap of a recording. */
  public LapRow(
      UUID ownerId,
      UUID runId,
      @Nullable UUID recordingId,
      int number,
      LapKind kind,
      double lapTime,
      double started,
      List<Double> sectors,
      Said remark,
      boolean told,
      double step,
      byte[] times,
      List<CornerEvents> events) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.runId = runId;
    this.recordingId = recordingId;
    this.number = number;
    this.kind = kind;
    this.counts = kind.counts();
    this.lapTime = lapTime;
    this.started = started;
    this.sectors = sectors;
    this.remark = remark;
    this.note = "";
    this.told = told;
    this.step = step;
    this.times = times;
    this.events = events;
  }

  /** A lap timed by hand. */
  static LapRow byHand(
      UUID ownerId, UUID runId, int number, LapKind kind, double lapTime, String note) {
    LapRow row =
        new LapRow(
            ownerId,
            runId,
            null,
            number,
            kind,
            lapTime,
            number,
            List.of(),
            Said.of("remark.lap.by_hand"),
            false,
            0,
            new byte[0],
            List.of());
    row.note = note;
    return row;
  }

  /** What the driver says of it. */
  void say(LapKind newKind, boolean newCounts, String newNote) {
    kind = newKind;
    counts = newCounts;
    note = newNote;
    said = true;
  }

  /** Takes the place of the same lap as it was read before, with what the driver said of it. */
  void continues(LapRow old) {
    id = old.id;
    if (old.said) {
      say(old.kind, old.counts, old.note);
    }
  }

  /** What feet and hand did in it. */
  public LapRow drawn(@Nullable LapSketch newSketch) {
    sketch = newSketch;
    return this;
  }

  /** What it uses of the grip across, and the day by which its events were found. */
  public LapRow on(double newGrip, String newDay) {
    grip = Double.isNaN(newGrip) ? null : newGrip;
    day = newDay;
    return this;
  }

  public @Nullable Double grip() {
    return grip;
  }

  /** As a day is found for it. */
  public DayFit.Lap ofDay() {
    return DayFit.Lap.of(id.toString(), grip);
  }

  /** The day by whose line and grip its events were found; null for laps of before. */
  public @Nullable String day() {
    return day;
  }

  /** Takes the kind that the whole recording shows. */
  public LapRow judged(DrivenLap lap) {
    kind = lap.kind();
    counts = lap.kind().counts();
    remark = lap.remark();
    return this;
  }

  /** Whether it holds more than a time. */
  public boolean measured() {
    return times.length > 0;
  }

  public LapData data() {
    return new LapData(
        id.toString(),
        runId.toString(),
        number,
        lapTime,
        step,
        measured() ? Packed.doubles(times) : new double[0],
        events,
        told,
        sketch);
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

  @Nullable UUID recordingId() {
    return recordingId;
  }

  public int number() {
    return number;
  }

  public LapKind kind() {
    return kind;
  }

  public boolean counts() {
    return counts;
  }

  public double lapTime() {
    return lapTime;
  }

  double started() {
    return started;
  }

  public List<Double> sectors() {
    return sectors;
  }

  public Said remark() {
    return remark;
  }

  public String note() {
    return note;
  }

  public boolean told() {
    return told;
  }

  double step() {
    return step;
  }

  public List<CornerEvents> events() {
    return events;
  }
}
