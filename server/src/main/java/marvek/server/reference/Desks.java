package marvek.server.reference;

import marvek.core.circuit.Centreline;
import marvek.core.day.Surface;
import marvek.core.lap.Conditions;
import marvek.core.reference.Desk;
import marvek.core.reference.Variant;
import marvek.core.reference.Variants;
import marvek.core.survey.Zones;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import org.springframework.cache.annotation.Cacheable;
import org.springframework.stereotype.Component;

/**
 * Desks at hand. Each can be made again from the database by any server process; this only saves
 * the time.
 */
@Component
class Desks {
  private final Layouts layouts;

  Desks(Layouts layouts) {
    this.layouts = layouts;
  }

  @Cacheable(
      cacheNames = "desks",
      key =
          "#reference.id().toString() + '/' + #reference.deskVersion() + '/' + #layout.id() + '/'"
              + " + #layout.cornersVersion()",
      sync = true)
  public Desk of(ReferenceRow reference, LayoutVersion layout) {
    Centreline road = layouts.road(layout);
    return Desk.onLine(
        road,
        layout.counted(),
        Zones.ground(road, reference.ground(), Surface.DRY),
        reference.vehicleNumbers(),
        Conditions.dryWarm(),
        reference.lineOffsets());
  }

  /** The desk of a reference on the day of a variant. */
  @Cacheable(
      cacheNames = "desks",
      key =
          "#reference.id().toString() + '/' + #reference.deskVersion() + '/' + #layout.id() + '/'"
              + " + #layout.cornersVersion() + '/' + #day.toString()",
      sync = true)
  public Desk on(ReferenceRow reference, LayoutVersion layout, Desk base, Variant.Day day) {
    return Variants.desk(base, reference.ground(), day);
  }
}
