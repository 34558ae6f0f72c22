package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Full throttle later than planned, though the first came in time. */
@AutoService(Habit.class)
public final class FullLate implements Habit {
  // Metres.
  private static final double LATE = 14;

  @Override
  public String id() {
    return "FULL_LATE";
  }

  @Override
  public int rank() {
    return 180;
  }

  @Override
  public @Nullable Double seen(Look look) {
    boolean begun = !Look.over(look.first(), Look.LATE_FIRST) && look.events().lifts() == 0;
    return Look.over(look.full(), LATE) && begun ? look.full() : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.FULL_LATE.measure", Value.length(middle));
  }
}
