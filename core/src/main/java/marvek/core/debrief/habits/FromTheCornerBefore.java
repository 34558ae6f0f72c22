package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * Arriving at the wrong place across the road, and paying for it here: it begins one corner before.
 */
@AutoService(Habit.class)
public final class FromTheCornerBefore implements Habit {
  // Metres across the road.
  private static final double WRONG_PLACE = 1.1;
  private static final double OFF = 0.4;
  private static final double LATE = 8;

  @Override
  public String id() {
    return "FROM_THE_CORNER_BEFORE";
  }

  @Override
  public int rank() {
    return 10;
  }

  @Override
  public @Nullable Double seen(Look look) {
    Double place = look.place();
    boolean paid =
        Look.over(look.off(), OFF)
            || look.speed() < 1 - OverSlowed.SLOW / 2
            || Look.over(look.full(), LATE);
    return place != null && Math.abs(place) > WRONG_PLACE && paid ? place : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of(
        "habit.FROM_THE_CORNER_BEFORE.measure", Value.length(middle, 1), Value.choice(middle > 0));
  }

  @Override
  public boolean beginsBefore() {
    return true;
  }
}
