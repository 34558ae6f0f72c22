package marvek.server.reference;

import marvek.core.circuit.Centreline;
import marvek.core.day.Variants;
import marvek.core.entry.Day;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Conditions;
import marvek.core.lap.Surface;
import marvek.core.plan.ComputedLap;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import org.springframework.cache.annotation.Cacheable;
import org.springframework.stereotype.Component;

/**
 * ComputedLaps at hand. Each can be made again from the database by any server process; this only
 * saves the time.
 */
@Component
class ComputedLaps {
  private final Layouts layouts;

  ComputedLaps(Layouts layouts) {
    this.layouts = layouts;
  }

  @Cacheable(
      cacheNames = "desks",
      key =
          "#reference.id().toString() + '/' + #reference.deskVersion() + '/' + #layout.id() + '/'"
              + " + #layout.cornersVersion()",
      sync = true)
  public ComputedLap of(ReferenceRow reference, LayoutVersion layout) {
    Centreline road = layouts.road(layout);
    return ComputedLap.onLine(
        road,
        layout.counted(),
        reference.footing().ground(road, layout.counted(), reference.vehicleNumbers(), Surface.DRY),
        reference.vehicleNumbers(),
        Conditions.dryWarm().withDriving(OwnPace.of(reference.pace())),
        reference.lineOffsets());
  }

  /** The computed of a reference on the day of a variant. */
  @Cacheable(
      cacheNames = "desks",
      key =
          "#reference.id().toString() + '/' + #reference.deskVersion() + '/' + #layout.id() + '/'"
              + " + #layout.cornersVersion() + '/' + #day.toString()",
      sync = true)
  public ComputedLap on(ReferenceRow reference, LayoutVersion layout, ComputedLap base, Day day) {
    return Variants.computed(base, reference.footing(), day);
  }

  /** The computed on a day, on the line of a lap that {@code of} or {@code on} gave. */
  @Cacheable(
      cacheNames = "desks",
      key =
          "#reference.id().toString() + '/' + #reference.deskVersion() + '/' + #layout.id() + '/'"
              + " + #layout.cornersVersion() + '/held on ' + #lineOf.toString() + '/'"
              + " + #day.toString()",
      sync = true)
  public ComputedLap held(
      ReferenceRow reference,
      LayoutVersion layout,
      ComputedLap base,
      ComputedLap line,
      Day lineOf,
      Day day) {
    return Variants.held(base, line, reference.footing(), day);
  }
}
