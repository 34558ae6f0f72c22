package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.entry.Slowing;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Slower at the slowest place than the rest of the lap lets expect. */
@AutoService(Habit.class)
public final class OverSlowed implements Habit {
  // Shares of the speed.
  static final double SLOW = 0.055;
  private static final double SLOW_LIFT = 0.075;

  @Override
  public String id() {
    return "OVER_SLOWED";
  }

  @Override
  public int rank() {
    return 160;
  }

  @Override
  public @Nullable Double seen(Look look) {
    double slow = look.plan().slowing() == Slowing.LIFT ? SLOW_LIFT : SLOW;
    // A line that is still on the apex bends tighter by so much, most of all in a hairpin.
    slow += Look.OFF_APEX * look.bend() / 2;
    boolean seen = look.speed() < 1 - slow && !look.deep() && !look.before();
    return seen ? (1 - look.speed()) * look.events().minimumSpeed() : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.OVER_SLOWED.measure", Value.speed(middle));
  }
}
