package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** A written shift taken somewhere else. */
@AutoService(Habit.class)
public final class ShiftedElsewhere extends ActionHabit {
  // Metres.
  private static final double LIMIT = 15;

  /** The habit. */
  public ShiftedElsewhere() {
    super(
        "SHIFTED_ELSEWHERE", 165, ActionKind.SHIFT, h -> Math.abs(h.late()), LIMIT, Value::length);
  }
}
