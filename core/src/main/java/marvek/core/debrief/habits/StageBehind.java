package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/**
 * Less of the throttle than is written on the way out, beyond what it is less a few metres before
 * its place.
 */
@AutoService(Habit.class)
public final class StageBehind extends ActionHabit {
  // Share of the throttle.
  private static final double LIMIT = 0.12;

  /** The habit. */
  public StageBehind() {
    super("STAGE_BEHIND", 133, ActionKind.THROTTLE, StageBehind::behind, LIMIT, Value::percent);
  }

  /** Share behind; NaN where it is not known, or no more than on the way to the place. */
  private static double behind(Look.Held held) {
    double less = -held.more();
    return less > held.done().slack() ? less : Double.NaN;
  }
}
