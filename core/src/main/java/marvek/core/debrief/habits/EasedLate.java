package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** The brake eased later than is written. */
@AutoService(Habit.class)
public final class EasedLate implements Habit {
  // Metres.
  private static final double LATE = 9;

  @Override
  public String id() {
    return "EASED_LATE";
  }

  @Override
  public int rank() {
    return 107;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.EASE, Look.Held::late, LATE);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.EASED_LATE.measure", Value.length(middle));
  }
}
