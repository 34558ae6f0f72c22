package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Braking after the flag and missing the apex or the throttle for it. */
@AutoService(Habit.class)
public final class BrakedLateRanDeep implements Habit {
  @Override
  public String id() {
    return "BRAKED_LATE_RAN_DEEP";
  }

  @Override
  public int rank() {
    return 20;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.deep() ? look.brake() : null;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.BRAKED_LATE_RAN_DEEP.measure", Value.length(middle));
  }
}
