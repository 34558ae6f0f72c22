package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Steering taken back and put on again. */
@AutoService(Habit.class)
public final class ExtraSteering implements Habit {
  @Override
  public String id() {
    return "EXTRA_STEERING";
  }

  @Override
  public int rank() {
    return 90;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.counted(look.events().corrections(), 0);
  }

  /** A recording of the hands wavers. */
  @Override
  public double byChance() {
    return 0.15;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.EXTRA_STEERING.measure", Value.count(Math.round(middle)));
  }
}
