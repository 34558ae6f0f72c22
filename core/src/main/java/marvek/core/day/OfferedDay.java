package marvek.core.day;

import java.util.Optional;
import marvek.core.entry.DayKind;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * A day that laps speak for.
 *
 * @param kind that the driver named, or that is usual for such a grip
 * @param grip as the laps use it, as a factor on the reference's own
 */
public record OfferedDay(DayKind kind, Said words, double grip) {
  private static final double LEAST = 0.2;
  private static final double MORE_THAN_THERE_IS = 1.05;
  // Midway between the usual grips of the kinds.
  private static final double WET = 0.78;
  private static final double DAMP = 0.9;

  /**
   * The day that laps without one speak for: nothing where they do not keep to one grip, or use
   * more than there is on the reference's own day, which is the vehicle's numbers and no weather.
   *
   * @param word what the driver said
   */
  public static Optional<OfferedDay> of(@Nullable String word, RunDays.PartLine part) {
    Double used = part.grip();
    if (part.day() != null) {
      return Optional.empty();
    }
    if (used == null) {
      return RunDays.kind(word).map(k -> new OfferedDay(k, k.said(), k.usual().grip()));
    }
    if (!part.steady() || used > MORE_THAN_THERE_IS) {
      return Optional.empty();
    }
    double grip = Math.rint(Math.max(LEAST, used) * 100) / 100;
    DayKind kind =
        RunDays.kind(word)
            .orElse(used < WET ? DayKind.WET : used < DAMP ? DayKind.DAMP : DayKind.COLD_TYRES);
    return Optional.of(new OfferedDay(kind, kind.said(), grip));
  }
}
