package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A written shift taken somewhere else. */
@AutoService(Habit.class)
public final class ShiftedElsewhere implements Habit {
  // Metres.
  private static final double OFF = 15;

  @Override
  public String id() {
    return "SHIFTED_ELSEWHERE";
  }

  @Override
  public int rank() {
    return 165;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.SHIFT, h -> Math.abs(h.late()), OFF);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.SHIFTED_ELSEWHERE.measure", Value.length(middle));
  }
}
