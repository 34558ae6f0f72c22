package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A further press of the brake that comes too soon. */
@AutoService(Habit.class)
public final class PressedAgainEarly implements Habit {
  // Metres.
  private static final double EARLY = 8;

  @Override
  public String id() {
    return "PRESSED_AGAIN_EARLY";
  }

  @Override
  public int rank() {
    return 103;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.BRAKE, h -> -h.late(), EARLY);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.PRESSED_AGAIN_EARLY.measure", Value.length(middle));
  }
}
