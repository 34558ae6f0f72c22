package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** A stage of the throttle taken later than is written. */
@AutoService(Habit.class)
public final class StageLate extends ActionHabit {
  // Metres.
  private static final double LIMIT = 12;

  /** The habit. */
  public StageLate() {
    super("STAGE_LATE", 134, ActionKind.THROTTLE, Look.Held::late, LIMIT, Value::length);
  }
}
