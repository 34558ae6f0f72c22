package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** Less of the throttle than is written on the way out. */
@AutoService(Habit.class)
public final class StageBehind implements Habit {
  // Share of the throttle.
  private static final double LESS = 0.12;

  @Override
  public String id() {
    return "STAGE_BEHIND";
  }

  @Override
  public int rank() {
    return 133;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.THROTTLE, h -> -h.more(), LESS);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.STAGE_BEHIND.measure", Value.percent(middle));
  }
}
