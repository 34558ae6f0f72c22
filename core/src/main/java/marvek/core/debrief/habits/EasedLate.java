package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;

/** The brake eased later than is written. */
@AutoService(Habit.class)
public final class EasedLate extends ActionHabit {
  // Metres.
  private static final double LIMIT = 9;

  /** The habit. */
  public EasedLate() {
    super("EASED_LATE", 107, ActionKind.EASE, Look.Held::late, LIMIT, Value::length);
  }
}
