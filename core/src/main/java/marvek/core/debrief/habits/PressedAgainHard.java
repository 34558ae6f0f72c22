package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A further press of the brake harder than is written. */
@AutoService(Habit.class)
public final class PressedAgainHard implements Habit {
  // Share of the full press.
  private static final double HARD = 0.15;

  @Override
  public String id() {
    return "PRESSED_AGAIN_HARD";
  }

  @Override
  public int rank() {
    return 104;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(ActionKind.BRAKE, Look.Held::more, HARD);
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.PRESSED_AGAIN_HARD.measure", Value.percent(middle));
  }
}
