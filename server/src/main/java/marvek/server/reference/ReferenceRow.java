package marvek.server.reference;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import java.util.function.Predicate;
import marvek.core.anew.Doubt;
import marvek.core.anew.LapAsPlanned;
import marvek.core.day.Footing;
import marvek.core.entry.OwnPace;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Zone;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import marvek.server.circuit.RoadBytes;
import marvek.server.vehicle.SheetRow;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.annotations.SQLRestriction;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;

/** A reference with its working copy. Revisions stand apart and never change. */
@Entity
@SQLRestriction("removed_at is null")
@Table(name = "reference")
public class ReferenceRow {
  /** The method by which lines are computed now: the search for the quickest. */
  static final int LINE_BY = 1;

  @Id private UUID id;
  private UUID ownerId;
  private UUID layoutVersionId;
  private UUID vehicleId;
  private int vehicleVersion;
  private String name;

  @JdbcTypeCode(SqlTypes.JSON)
  private Vehicle vehicleNumbers;

  private byte[] line;
  private int lineBy;
  private boolean recomputed;
  private int deskVersion;
  private double lapTime;
  private int unmade;

  @JdbcTypeCode(SqlTypes.JSON)
  private ReferenceContent working;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Zone> ground = List.of();

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable OwnPace pace;

  @JdbcTypeCode(SqlTypes.JSON)
  private Footing.@Nullable Used used;

  private boolean laidInPart;

  private @Nullable UUID sheetId;
  private int sheetVersion;

  @JdbcTypeCode(SqlTypes.JSON)
  private @Nullable SetupSheet sheet;

  @JdbcTypeCode(SqlTypes.JSON)
  private List<Doubt> doubts = List.of();

  private int basedOnRevision;
  private boolean changed;
  private @Nullable UUID lastWrite;

  @Version private int version;
  private Instant createdAt;
  private Instant changedAt;

  @SuppressWarnings("NullAway.Init")
  protected ReferenceRow() {}

  ReferenceRow(
      UUID ownerId,
      UUID layoutVersionId,
      AsSetUp machine,
      String name,
      Footing footing,
      ComputedLap computed,
      ReferenceContent draft,
      LapAsPlanned lap,
      Instant now) {
    this.id = UUID.randomUUID();
    this.ownerId = ownerId;
    this.layoutVersionId = layoutVersionId;
    this.vehicleId = machine.vehicle().id();
    this.name = name;
    this.createdAt = now;
    this.working = draft;
    this.changed = true;
    this.changedAt = now;
    plan(lap);
    sitAt(machine, footing, computed);
  }

  /**
   * Takes the numbers of the vehicle as it is set up, the ground, and the line computed on them.
   */
  final void sitAt(AsSetUp machine, Footing footing, ComputedLap computed) {
    vehicleVersion = machine.vehicle().version();
    vehicleNumbers = machine.numbers();
    SheetRow on = machine.sheet();
    sheetId = on == null ? null : on.id();
    sheetVersion = on == null ? 0 : on.version();
    sheet = on == null ? null : on.sheet();
    ground = footing.zones();
    used = footing.used();
    laidInPart = false;
    pace = footing.pace();
    line = RoadBytes.pack(computed.path().offset());
    lineBy = LINE_BY;
    deskVersion++;
  }

  /** What the reference is computed on and what it holds, to be brought back. */
  Sitting sitting() {
    return new Sitting(
        vehicleVersion,
        vehicleNumbers,
        sheetId,
        sheetVersion,
        sheet,
        ground,
        used(),
        laidInPart,
        pace,
        lineBy,
        working,
        lapTime,
        changed,
        unmade);
  }

  /**
   * Sits on other numbers and another line, with other points.
   *
   * @param anew whether they were computed anew, so that this can be undone
   */
  void sitAt(Sitting there, double[] offset, boolean anew, Instant now) {
    recomputed = anew;
    vehicleVersion = there.vehicleVersion();
    vehicleNumbers = there.vehicle();
    sheetId = there.sheetId();
    sheetVersion = there.sheetVersion();
    sheet = there.sheet();
    ground = there.ground();
    used = there.used();
    laidInPart = there.laidInPart();
    pace = there.pace();
    lineBy = there.deskBy();
    line = RoadBytes.pack(offset);
    deskVersion++;
    working = there.working();
    lastWrite = null;
    plan(there.planned());
    changed = there.changed();
    changedAt = now;
  }

  boolean recomputed() {
    return recomputed;
  }

  /** Whether the line was computed by a method that has been replaced since. */
  boolean oldLine() {
    return lineBy < LINE_BY;
  }

  /** Goes over to a newer version of the layout; the points in doubt are to be confirmed. */
  void moveTo(UUID newLayoutVersion, List<Doubt> inDoubt) {
    layoutVersionId = newLayoutVersion;
    doubts = inDoubt;
    deskVersion++;
  }

  /** Takes points out of doubt. */
  void confirm(Predicate<Doubt> sure) {
    doubts = doubts.stream().filter(sure.negate()).toList();
  }

  /** Takes another working copy that no device wrote. */
  void work(ReferenceContent content, LapAsPlanned lap, Instant now) {
    work(content, lap, null, now);
  }

  /**
   * Takes another working copy.
   *
   * @param write what the device calls this writing of its own, by which it knows it again when the
   *     answer was lost; null for what no device wrote
   */
  void work(ReferenceContent content, LapAsPlanned lap, @Nullable UUID write, Instant now) {
    working = content;
    lastWrite = write;
    plan(lap);
    changed = true;
    changedAt = now;
  }

  void startFrom(int revision, ReferenceContent content, LapAsPlanned lap, Instant now) {
    work(content, lap, now);
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

  public UUID ownerId() {
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

  private void plan(LapAsPlanned lap) {
    lapTime = lap.seconds();
    unmade = lap.unmade();
  }

  LapAsPlanned planned() {
    return new LapAsPlanned(lapTime, unmade);
  }

  public ReferenceContent working() {
    return working;
  }

  /** What the device that wrote the working copy calls that writing; null where none wrote it. */
  @Nullable UUID lastWrite() {
    return lastWrite;
  }

  /** The pace at which the reference was computed; null for all of the grip. */
  public @Nullable OwnPace pace() {
    return pace;
  }

  List<Zone> ground() {
    return ground;
  }

  /** The edges and gates on which it was computed. */
  Footing.Used used() {
    return used == null ? Footing.Used.NONE : used;
  }

  /** What it was computed on. */
  public Footing footing() {
    return new Footing(ground, used(), pace);
  }

  /** Whether the line was laid anew on a stretch only, and the rest is as before. */
  boolean laidInPart() {
    return laidInPart;
  }

  @Nullable UUID sheetId() {
    return sheetId;
  }

  int sheetVersion() {
    return sheetVersion;
  }

  public @Nullable SetupSheet sheet() {
    return sheet;
  }

  List<Doubt> doubts() {
    return doubts;
  }

  public int basedOnRevision() {
    return basedOnRevision;
  }

  public boolean changed() {
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
