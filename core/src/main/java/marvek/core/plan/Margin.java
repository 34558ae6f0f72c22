package marvek.core.plan;

import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.lap.Path;
import marvek.core.technique.Pedals;

/**
 * What is in hand at a braking marker: the time by which it comes before the last place from which
 * the corner is still made. Nothing is counted from a braking that comes later.
 */
final class Margin {
  // Metres before the last place that pedals to the floor allow, where another shape is looked for.
  private static final double SOONEST = 220;
  // Steps past that place up to which it is looked for.
  private static final int AFTER = 12;
  // Steps in which the last place of a shape is looked for first.
  private static final int COARSE = 6;

  private Margin() {}

  /** Seconds by which a plan begins to brake before the last place that its own shape allows. */
  static double seconds(Stretch on, CornerEntry entry) {
    Optional<Double> brake = entry.station(PointKind.BRAKE);
    if (brake.isEmpty()) {
      return 0;
    }
    Stretch.Laid laid = on.laid(entry);
    PlannedCorner plan = laid.plan();
    int step = on.step(brake.get());
    return plan.metres(step, last(on, laid)) / Math.max(1, plan.unbrakedAt(step));
  }

  /** The last step at which braking in the entry's shape can begin. */
  static int last(Stretch on, Stretch.Laid laid) {
    Path path = laid.path();
    PlannedCorner.Steps steps = laid.steps();
    Pedals pedals = steps.pedals();
    PlannedCorner even = pedals == null ? laid.plan() : on.plan(path, steps.withPedals(null));
    int last = (int) Math.floor(even.limitStep());
    if (pedals == null) {
      return last;
    }
    PlannedCorner.Steps free = steps.withPedals(pedals.withPeak(null)).withOpenMarker();
    int low = (int) Math.max(1, last - SOONEST / on.computed.road().step());
    int high = Math.max(low, Math.min(on.count - 2, last + AFTER));
    // From the last place back: much sooner the press would fall into the corner before.
    int made = high;
    while (made > low && !on.plan(path, free.withBrake(made)).makesItsMarker()) {
      made -= COARSE;
    }
    int step = Math.max(low, made);
    while (step < Math.min(high, made + COARSE - 1)
        && on.plan(path, free.withBrake(step + 1)).makesItsMarker()) {
      step++;
    }
    return step;
  }
}
