package marvek.server.run;

import java.util.Optional;
import marvek.core.reference.Variant;
import org.jspecify.annotations.Nullable;

/**
 * A day that laps speak for.
 *
 * @param kind that the driver named, or that is usual for such a grip
 * @param grip as the laps use it, as a factor on the reference's own
 */
record OfferedDay(Variant.Kind kind, String words, double grip) {
  private static final double LEAST = 0.2;
  private static final double MOST = 1.2;
  // Midway between the usual grips of the kinds.
  private static final double WET = 0.78;
  private static final double DAMP = 0.9;

  static Optional<OfferedDay> of(@Nullable String word, @Nullable Double used) {
    if (used == null) {
      return RunDays.kind(word).map(k -> new OfferedDay(k, k.words(), k.usual().grip()));
    }
    double grip = Math.rint(Math.max(LEAST, Math.min(MOST, used)) * 100) / 100;
    Variant.Kind kind =
        RunDays.kind(word)
            .orElse(
                used < WET
                    ? Variant.Kind.WET
                    : used < DAMP ? Variant.Kind.DAMP : Variant.Kind.COLD_TYRES);
    return Optional.of(new OfferedDay(kind, kind.words(), grip));
  }
}
