package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** A rear wheel that spins on the way out. */
@AutoService(Habit.class)
public final class WheelSpun implements Habit {
  @Override
  public String id() {
    return "WHEEL_SPUN";
  }

  @Override
  public int rank() {
    return 70;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.counted(look.events().spins(), 0);
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.WHEEL_SPUN.measure", Value.count(Math.round(middle)));
  }
}
