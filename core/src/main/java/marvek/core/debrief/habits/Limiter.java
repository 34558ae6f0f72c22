package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** A gear held into the limiter. */
@AutoService(Habit.class)
public final class Limiter implements Habit {
  // Seconds.
  private static final double AT_LIMIT = 0.3;

  @Override
  public String id() {
    return "LIMITER";
  }

  @Override
  public int rank() {
    return 190;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.events().limiter() > AT_LIMIT ? look.events().limiter() : null;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.LIMITER.measure", Value.figure(middle, 1));
  }
}
