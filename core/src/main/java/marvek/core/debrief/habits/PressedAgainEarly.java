package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** A further press of the brake that comes too soon. */
@AutoService(Habit.class)
public final class PressedAgainEarly extends ActionHabit {
  // Metres.
  private static final double LIMIT = 8;

  /** The habit. */
  public PressedAgainEarly() {
    super("PRESSED_AGAIN_EARLY", 103, ActionKind.BRAKE, h -> -h.late(), LIMIT, Value::length);
  }
}
