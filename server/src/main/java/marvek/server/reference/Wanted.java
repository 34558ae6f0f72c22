package marvek.server.reference;

import java.nio.DoubleBuffer;
import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.day.Footing;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.vehicle.Vehicle;
import marvek.server.circuit.LayoutVersion;

/** What a line is wanted for. */
record Wanted(LayoutVersion layout, Centreline road, AsSetUp machine, Footing footing) {
  Ground underWheels() {
    return footing.ground(road, layout.counted(), machine.numbers(), Surface.DRY);
  }

  Conditions conditions() {
    return Conditions.dryWarm().withDriving(OwnPace.of(footing.pace()));
  }

  /**
   * All that a lap depends on, by what it is.
   *
   * @param road what there is at each station
   * @param corners as they are counted
   * @param vehicle as it is set up
   * @param footing of its wheels
   */
  record Question(
      List<DoubleBuffer> road, List<Corner> corners, Vehicle vehicle, Footing footing) {}

  /** What it depends on. */
  Question question() {
    return new Question(
        Arrays.stream(road.columns()).map(DoubleBuffer::wrap).toList(),
        layout.counted(),
        machine.numbers(),
        footing);
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
