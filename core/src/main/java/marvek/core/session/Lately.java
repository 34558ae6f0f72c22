package marvek.core.session;

import marvek.core.day.DayFit;
import marvek.core.debrief.Debrief;
import marvek.core.plan.ComputedLap;

/**
 * What the latest laps before a session say.
 *
 * @param debrief of them
 * @param laps that count
 * @param grip of the day that they were held against, as {@link marvek.core.lap.Conditions#grip}
 */
public record Lately(Debrief debrief, int laps, double grip) {
  /** Whether they were driven on a day like it. */
  public boolean alike(ComputedLap then) {
    return Math.abs(grip / then.conditions().grip() - 1) < DayFit.AGREES;
  }
}
