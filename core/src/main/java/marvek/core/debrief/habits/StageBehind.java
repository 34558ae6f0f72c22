package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** Less of the throttle than is written on the way out. */
@AutoService(Habit.class)
public final class StageBehind extends ActionHabit {
  // Share of the throttle.
  private static final double LIMIT = 0.12;

  /** The habit. */
  public StageBehind() {
    super("STAGE_BEHIND", 133, ActionKind.THROTTLE, h -> -h.more(), LIMIT, Value::percent);
  }
}
