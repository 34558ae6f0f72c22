package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** The throttle closed further than a written lift asks for. */
@AutoService(Habit.class)
public final class LiftedMore implements Habit {
  // Share of the throttle.
  private static final double MORE = 0.12;

  @Override
  public String id() {
    return "LIFTED_MORE";
  }

  @Override
  public int rank() {
    return 95;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.LIFT, h -> -h.more(), MORE);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.LIFTED_MORE.measure", Value.percent(middle));
  }
}
