package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** A line that lies early, and an exit that runs out of road. */
@AutoService(Habit.class)
public final class TurnedInEarlyRanWide implements Habit {
  // Metres along, and across.
  private static final double EARLY = 4.5;
  private static final double WIDE = 0.45;

  @Override
  public String id() {
    return "TURNED_IN_EARLY_RAN_WIDE";
  }

  @Override
  public int rank() {
    return 30;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.under(look.events().lineShift(), -EARLY) && Look.over(look.wide(), WIDE)
        ? look.events().lineShift()
        : null;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.TURNED_IN_EARLY_RAN_WIDE.measure", Value.length(-middle));
  }
}
