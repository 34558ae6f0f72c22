package marvek.server.reference;

import marvek.core.circuit.Centreline;
import marvek.core.day.Footing;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.server.circuit.LayoutVersion;

/** What a line is wanted for. */
record Wanted(LayoutVersion layout, Centreline road, AsSetUp machine, Footing footing) {
  Ground underWheels() {
    return footing.ground(road, layout.counted(), machine.numbers(), Surface.DRY);
  }

  Conditions conditions() {
    return Conditions.dryWarm().withDriving(OwnPace.of(footing.pace()));
  }

  /** Searches for it. */
  ComputedLap search(Watch watch) {
    return ComputedLap.compute(
        road, layout.counted(), underWheels(), machine.numbers(), conditions(), watch);
  }

  /** Searches on from a line that there is. */
  ComputedLap searchFrom(double[] offsets, Watch watch) {
    return ComputedLap.onLine(
            road, layout.counted(), underWheels(), machine.numbers(), conditions(), offsets)
        .near(watch);
  }
}
