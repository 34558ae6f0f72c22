package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Staying off the apex. */
@AutoService(Habit.class)
public final class KerbMissed implements Habit {
  @Override
  public String id() {
    return "KERB_MISSED";
  }

  @Override
  public int rank() {
    return 170;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.over(look.off(), Look.OFF_APEX) && !look.deep() ? look.off() : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.KERB_MISSED.measure", Value.length(middle, 1));
  }
}
