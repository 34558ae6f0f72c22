package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** The brake held longer than planned. */
@AutoService(Habit.class)
public final class ReleasedLate implements Habit {
  // Metres.
  private static final double LATE = 9;

  @Override
  public String id() {
    return "RELEASED_LATE";
  }

  @Override
  public int rank() {
    return 110;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.over(look.release(), LATE) && !Look.over(look.brake(), LATE)
        ? look.release()
        : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.RELEASED_LATE.measure", Value.length(middle));
  }
}
