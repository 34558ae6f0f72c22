package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.entry.Slowing;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** The brake pressed more often for one corner than is written. */
@AutoService(Habit.class)
public final class TwoPresses implements Habit {
  @Override
  public String id() {
    return "TWO_PRESSES";
  }

  @Override
  public int rank() {
    return 100;
  }

  @Override
  public @Nullable Double seen(Look look) {
    boolean brakes = look.plan().slowing() == Slowing.BRAKE && look.told();
    return brakes ? Look.counted(look.events().brakings(), look.brakings()) : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.TWO_PRESSES.measure", Value.figure(middle, 0));
  }
}
