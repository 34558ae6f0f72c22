package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.entry.Slowing;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.Act;
import org.jspecify.annotations.Nullable;

/** The throttle eased in a corner that is to be driven flat, or once more than is written. */
@AutoService(Habit.class)
public final class LiftedUnwritten implements Habit {
  // Share of the throttle that is let go of.
  private static final double LESS = 0.12;

  @Override
  public String id() {
    return "LIFTED_UNWRITTEN";
  }

  @Override
  public int rank() {
    return 91;
  }

  @Override
  public @Nullable Double seen(Look look) {
    // Who does not press a brake that is written rolls instead.
    boolean rolls = look.plan().slowing() == Slowing.BRAKE && look.events().brake() == null;
    if (rolls) {
      return null;
    }
    double most = 0;
    for (Act a : look.liftsBesides()) {
      Double kept = a.amount();
      most = Math.max(most, kept == null ? 0 : 1 - kept);
    }
    return most > LESS ? most : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.LIFTED_UNWRITTEN.measure", Value.percent(middle));
  }
}
