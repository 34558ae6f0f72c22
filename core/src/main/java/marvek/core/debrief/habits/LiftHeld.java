package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A written lift that comes back too late. */
@AutoService(Habit.class)
public final class LiftHeld implements Habit {
  // Metres.
  private static final double LATE = 10;

  @Override
  public String id() {
    return "LIFT_HELD";
  }

  @Override
  public int rank() {
    return 97;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.LIFT, Look.Held::back, LATE);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.LIFT_HELD.measure", Value.length(middle));
  }
}
