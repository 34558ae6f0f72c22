package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** A written lift begun too soon. */
@AutoService(Habit.class)
public final class LiftedEarly extends ActionHabit {
  // Metres.
  private static final double LIMIT = 10;

  /** The habit. */
  public LiftedEarly() {
    super("LIFTED_EARLY", 93, ActionKind.LIFT, h -> -h.late(), LIMIT, Value::length);
  }
}
