package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.Arrays;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import org.hibernate.annotations.Immutable;

/** The road of a layout version and the file it came from; written once, read seldom. */
@Entity
@Immutable
class LayoutRoad {
  @Id private UUID layoutVersionId;
  private UUID ownerId;
  private byte[] road;
  private byte[] source;

  @SuppressWarnings("NullAway.Init")
  protected LayoutRoad() {}

  LayoutRoad(LayoutVersion layout, Centreline road, byte[] source) {
    this.layoutVersionId = layout.id();
    this.ownerId = layout.ownerId();
    this.road = RoadBytes.write(road);
    this.source = source;
  }

  private LayoutRoad(LayoutVersion layout, byte[] road, byte[] source) {
    this.layoutVersionId = layout.id();
    this.ownerId = layout.ownerId();
    this.road = road;
    this.source = source;
  }

  /** The same road for another version. */
  LayoutRoad to(LayoutVersion version) {
    return new LayoutRoad(version, road, source);
  }

  UUID layoutVersionId() {
    return layoutVersionId;
  }

  UUID ownerId() {
    return ownerId;
  }

  Centreline road() {
    return RoadBytes.read(road);
  }

  /** Whether it is this road, from this file. */
  boolean same(Centreline other, byte[] file) {
    return Arrays.equals(road, RoadBytes.write(other)) && Arrays.equals(source, file);
  }
}
