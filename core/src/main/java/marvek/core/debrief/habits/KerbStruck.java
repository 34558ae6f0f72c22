package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.units.Units;
import org.jspecify.annotations.Nullable;

/** A hard knock upwards from a kerb. */
@AutoService(Habit.class)
public final class KerbStruck implements Habit {
  // m/s², about one and a half times what holds the vehicle down.
  private static final double KNOCK = 15;

  @Override
  public String id() {
    return "KERB_STRUCK";
  }

  @Override
  public int rank() {
    return 60;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return Look.over(look.events().strike(), KNOCK) ? look.events().strike() : null;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.KERB_STRUCK.measure", Value.figure(middle / Units.G, 1));
  }
}
