package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** A wheel that stands under braking. */
@AutoService(Habit.class)
public final class WheelLocked implements Habit {
  @Override
  public String id() {
    return "WHEEL_LOCKED";
  }

  @Override
  public int rank() {
    return 80;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.counted(look.events().locks(), 0);
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.WHEEL_LOCKED.measure", Value.count(Math.round(middle)));
  }
}
