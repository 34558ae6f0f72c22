package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.util.UUID;
import marvek.core.marker.Landmark;

/** A landmark of a layout version. */
@Entity
@Table(name = "landmark")
public class LandmarkRow {
  @Id private UUID id;
  private UUID ownerId;
  private UUID layoutVersionId;

  @Enumerated(EnumType.STRING)
  private Landmark.Kind kind;

  private String label;
  private double station;
  private boolean leftSide;
  private String corner;

  @Version private int version;

  @SuppressWarnings("NullAway.Init")
  protected LandmarkRow() {}

  LandmarkRow(LayoutVersion layout, Landmark landmark) {
    this.id = UUID.randomUUID();
    this.ownerId = layout.ownerId();
    this.layoutVersionId = layout.id();
    this.corner = landmark.corner();
    take(landmark);
  }

  final void take(Landmark landmark) {
    kind = landmark.kind();
    label = landmark.label();
    station = landmark.station();
    leftSide = landmark.left();
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID layoutVersionId() {
    return layoutVersionId;
  }

  int version() {
    return version;
  }

  public Landmark landmark() {
    return new Landmark(id.toString(), kind, label, station, leftSide, corner);
  }
}
