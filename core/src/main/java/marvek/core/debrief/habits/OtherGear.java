package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.entry.Slowing;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Another gear than planned where the vehicle is slowest. */
@AutoService(Habit.class)
public final class OtherGear implements Habit {
  @Override
  public String id() {
    return "GEAR";
  }

  @Override
  public int rank() {
    return 200;
  }

  @Override
  public @Nullable Double seen(Look look) {
    // Who need not ease passes a lifted corner in whatever gear the run out of the last one left.
    boolean slowed =
        look.plan().slowing() == Slowing.BRAKE || look.events().firstThrottle() != null;
    int other = look.plan().slowing() != Slowing.FLAT && slowed ? look.otherGear() : 0;
    return other == 0 ? null : (double) other;
  }

  @Override
  public Said measure(double middle) {
    return Said.of(
        "habit.GEAR.measure", Value.signed(middle, 0), Value.choice(Math.abs(middle) > 1.5));
  }
}
