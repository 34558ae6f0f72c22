package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Throttle that has to be taken back, more often than is written. */
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
    return Look.counted(look.events().lifts(), look.easings());
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.THROTTLE_THEN_LIFT.measure", Value.count(Math.round(middle)));
  }
}
