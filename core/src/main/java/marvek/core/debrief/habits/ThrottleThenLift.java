package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Throttle that has to be taken back. */
@AutoService(Habit.class)
public final class ThrottleThenLift implements Habit {
  @Override
  public String id() {
    return "THROTTLE_THEN_LIFT";
  }

  @Override
  public int rank() {
    return 40;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.counted(look.events().lifts(), 0);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.THROTTLE_THEN_LIFT.measure", Value.count(Math.round(middle)));
  }
}
