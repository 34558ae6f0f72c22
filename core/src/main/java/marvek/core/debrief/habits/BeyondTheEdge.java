package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Running beyond the edge of the road at the exit. */
@AutoService(Habit.class)
public final class BeyondTheEdge implements Habit {
  // Metres across.
  private static final double BEYOND = 0.5;

  @Override
  public String id() {
    return "BEYOND_THE_EDGE";
  }

  @Override
  public int rank() {
    return 50;
  }

  @Override
  public @Nullable Double seen(Look look) {
    Double room = look.events().exitRoom();
    return room != null && Look.over(look.wide(), BEYOND) && room < -BEYOND ? -room : null;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.BEYOND_THE_EDGE.measure", Value.length(middle, 1));
  }
}
