package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Braking before the flag. */
@AutoService(Habit.class)
public final class BrakedEarly implements Habit {
  @Override
  public String id() {
    return "BRAKED_EARLY";
  }

  @Override
  public int rank() {
    return 150;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.early() ? look.brake() : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.BRAKED_EARLY.measure", Value.length(-middle));
  }
}
