package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A written lift begun too soon. */
@AutoService(Habit.class)
public final class LiftedEarly implements Habit {
  // Metres.
  private static final double EARLY = 10;

  @Override
  public String id() {
    return "LIFTED_EARLY";
  }

  @Override
  public int rank() {
    return 93;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.LIFT, h -> -h.late(), EARLY);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.LIFTED_EARLY.measure", Value.length(middle));
  }
}
