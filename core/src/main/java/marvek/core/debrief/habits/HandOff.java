package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Waiting between throttle and brake. */
@AutoService(Habit.class)
public final class HandOff implements Habit {
  // Seconds.
  private static final double WAIT = 0.28;

  @Override
  public String id() {
    return "HAND_OFF";
  }

  @Override
  public int rank() {
    return 140;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.over(look.events().handOff(), WAIT) ? look.events().handOff() : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.HAND_OFF.measure", Value.figure(middle, 1));
  }
}
