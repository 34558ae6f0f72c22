package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** A further press of the brake harder than is written. */
@AutoService(Habit.class)
public final class PressedAgainHard extends ActionHabit {
  // Share of the full press.
  private static final double LIMIT = 0.15;

  /** The habit. */
  public PressedAgainHard() {
    super("PRESSED_AGAIN_HARD", 104, ActionKind.BRAKE, Look.Held::more, LIMIT, Value::percent);
  }
}
