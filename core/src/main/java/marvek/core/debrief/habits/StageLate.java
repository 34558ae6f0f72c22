package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A stage of the throttle taken later than is written. */
@AutoService(Habit.class)
public final class StageLate implements Habit {
  // Metres.
  private static final double LATE = 12;

  @Override
  public String id() {
    return "STAGE_LATE";
  }

  @Override
  public int rank() {
    return 134;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.THROTTLE, Look.Held::late, LATE);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.STAGE_LATE.measure", Value.length(middle));
  }
}
