package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** A written lift that comes back too late. */
@AutoService(Habit.class)
public final class LiftHeld extends ActionHabit {
  // Metres.
  private static final double LIMIT = 10;

  /** The habit. */
  public LiftHeld() {
    super("LIFT_HELD", 97, ActionKind.LIFT, Look.Held::back, LIMIT, Value::length);
  }
}
