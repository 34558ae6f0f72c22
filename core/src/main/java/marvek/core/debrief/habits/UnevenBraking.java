package marvek.core.debrief.habits;

import com.google.auto.service.AutoService;
import java.util.List;
import java.util.Optional;
import marvek.core.debrief.Debrief.PointFinding;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Braking somewhere else each lap: seen over laps only. */
@AutoService(Habit.class)
public final class UnevenBraking implements Habit {
  // Metres as a standard deviation, and laps.
  private static final double UNEVEN = 5.5;
  private static final int FEWEST = 5;

  @Override
  public String id() {
    return "UNEVEN_BRAKING";
  }

  @Override
  public int rank() {
    return 210;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return null;
  }

  @Override
  public boolean forTime() {
    return false;
  }

  @Override
  public Said measure(double middle) {
    return Said.of("habit.UNEVEN_BRAKING.measure", Value.length(middle));
  }

  @Override
  public Optional<Across> across(List<PointFinding> points) {
    // Scatter explains the single laps that are early or late.
    return points.stream()
        .filter(p -> p.kind() == PointKind.BRAKE)
        .filter(p -> p.late().size() >= FEWEST && p.spread() > UNEVEN)
        .findFirst()
        .map(
            p -> new Across(p.spread(), p.laps(), List.of("BRAKED_EARLY", "BRAKED_LATE_RAN_DEEP")));
  }
}
