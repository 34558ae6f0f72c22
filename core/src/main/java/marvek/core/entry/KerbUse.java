package marvek.core.entry;

import java.util.Objects;
import marvek.core.survey.Kerb;
import org.jspecify.annotations.Nullable;

/**
 * What is done with a kerb.
 *
 * @param part where in the corner
 * @param how keep off, touch, ride, half the car or straddle
 * @param join station at which it is joined, or null
 * @param leave station at which it is left, or null
 * @param why in the driver's words
 */
public record KerbUse(
    Kerb.Part part, Kerb.Verdict how, @Nullable Double join, @Nullable Double leave, String why) {
  public KerbUse {
    Objects.requireNonNull(part, "part");
    Objects.requireNonNull(how, "how");
    Objects.requireNonNull(why, "why");
  }
}
