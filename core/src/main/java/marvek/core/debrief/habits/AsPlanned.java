package marvek.core.debrief.habits;

import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.telemetry.EventFinder;
import org.jspecify.annotations.Nullable;

/**
 * A corner as whoever does what is written drives it, which is not always what the computed lap
 * does: what the plan itself shows is no habit of the driver's. Worked out when it is first asked
 * for, which most corners never are.
 */
public final class AsPlanned {
  private final ComputedLap computed;
  private final CornerEntry plan;
  private CornerAnswer.@Nullable Profile profile;

  /** The plan of a corner. */
  public AsPlanned(ComputedLap computed, CornerEntry plan) {
    this.computed = computed;
    this.plan = plan;
  }

  private CornerAnswer.Profile driven() {
    CornerAnswer.Profile known = profile;
    if (known == null) {
      known = Answers.answer(computed, plan).profile();
      profile = known;
    }
    return known;
  }

  /**
   * Metres from a station to where the brake is last pressed by as much as a recording tells;
   * nothing where it never is.
   */
  @Nullable Double pressedUntil(double station) {
    CornerAnswer.Profile p = driven();
    Centreline road = computed.road();
    Double last = null;
    for (int k = 0; k < p.brake().length; k++) {
      double past = road.apart(station, road.wrap(p.from() + k * p.step()));
      // What is pressed again later is not this press.
      if (past <= 0 && p.brake()[k] > EventFinder.PRESSED) {
        last = past;
      }
    }
    return last;
  }

  /** The slowest that it is driven within so many metres of a station, m/s; infinite elsewhere. */
  double slowest(double station, double reach) {
    CornerAnswer.Profile p = driven();
    Centreline road = computed.road();
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < p.speed().length; k++) {
      if (Math.abs(road.apart(station, road.wrap(p.from() + k * p.step()))) <= reach) {
        least = Math.min(least, p.speed()[k]);
      }
    }
    return least;
  }
}
