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
  // Shares of the throttle: let go of, and kept when it is as good as shut.
  private static final double LESS = 0.12;
  private static final double SHUT = 0.06;

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
    Slowing slowing = look.plan().slowing();
    // A corner that is lifted for without saying how has its lift; who does not press a brake that
    // is written rolls instead.
    boolean rolls = slowing == Slowing.BRAKE && look.events().brake() == null;
    if (slowing == Slowing.LIFT && !look.saysLift() || rolls) {
      return null;
    }
    double most = 0;
    for (Act a : look.liftsBesides()) {
      Double share = a.amount();
      double kept = share == null ? 0 : share;
      // What is shut until it is braked is a slow hand-off.
      boolean handedOff = kept < SHUT && look.brakedIn(a);
      most = Math.max(most, handedOff ? 0 : 1 - kept);
    }
    return most > LESS ? most : null;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.LIFTED_UNWRITTEN.measure", Value.percent(middle));
  }
}
