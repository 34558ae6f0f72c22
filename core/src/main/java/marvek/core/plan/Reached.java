package marvek.core.plan;

import java.util.List;
import marvek.core.entry.BrakedAgain;
import org.jspecify.annotations.Nullable;

/**
 * What driving a corner as planned writes into its entry.
 *
 * @param arrivalSpeed at the braking point (or turn-in), m/s
 * @param arrivalGear best gear there
 * @param minimumSpeed m/s at the slowest point
 * @param peak of the braking as a share of what there is at the marker; null without a shape
 * @param again further brakings of the lap that the driver has written nothing of
 */
public record Reached(
    double arrivalSpeed,
    int arrivalGear,
    double minimumSpeed,
    @Nullable Double peak,
    List<BrakedAgain> again) {
  public Reached {
    again = List.copyOf(again);
  }
}
