package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** The brake let go before the plan does. */
@AutoService(Habit.class)
public final class ReleasedSoon implements Habit {
  // Metres.
  private static final double SOON = 13;

  @Override
  public String id() {
    return "RELEASED_SOON";
  }

  @Override
  public int rank() {
    return 120;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return is(look) ? look.releasedSooner() : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.RELEASED_SOON.measure", Value.length(-middle));
  }

  /** Whether it is seen; who waits for this reason is not told of the wait too. */
  static boolean is(Look look) {
    return Look.under(look.release(), -SOON)
        && !Look.under(look.brake(), -SOON)
        && Look.under(look.releasedSooner(), -SOON);
  }
}
