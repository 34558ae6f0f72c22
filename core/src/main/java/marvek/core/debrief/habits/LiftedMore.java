package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.entry.Slowing;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** The throttle closed further than a written lift asks for, and slower for it. */
@AutoService(Habit.class)
public final class LiftedMore extends ActionHabit {
  // Share of the throttle.
  private static final double LIMIT = 0.12;

  /** The habit. */
  public LiftedMore() {
    super("LIFTED_MORE", 95, ActionKind.LIFT, h -> -h.more(), LIMIT, Value::percent);
  }

  /**
   * Whoever is as quick as elsewhere where only the lift slows keeps what the own pace asks for.
   */
  @Override
  public @Nullable Double seen(Look look) {
    boolean owed = look.plan().slowing() == Slowing.LIFT && !look.slower();
    // Less speed is held with less throttle.
    double slower = 1 - Math.min(1, look.pace() * look.pace());
    return owed ? null : look.most(ActionKind.LIFT, h -> -h.more() - h.written(slower), LIMIT);
  }
}
