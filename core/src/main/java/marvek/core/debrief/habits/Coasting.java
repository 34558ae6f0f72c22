package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Rolling between brake and throttle for longer than planned. */
@AutoService(Habit.class)
public final class Coasting implements Habit {
  // Seconds.
  private static final double ROLL = 0.3;

  @Override
  public String id() {
    return "COASTING";
  }

  @Override
  public int rank() {
    return 130;
  }

  @Override
  public @Nullable Double seen(Look look) {
    Double roll = look.events().roll();
    if (roll == null || roll <= ROLL) {
      return null;
    }
    Double planned = look.planRoll();
    double more = planned == null ? 0 : roll - planned;
    return more > ROLL && !ReleasedSoon.is(look) ? more : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.COASTING.measure", Value.figure(middle, 1));
  }
}
