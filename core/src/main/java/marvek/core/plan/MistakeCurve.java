package marvek.core.plan;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What it costs to do an action early or late, and where to aim for it.
 *
 * @param action id
 * @param metres past its place, negative is early, in order
 * @param seconds lost up to the next braking at each of them, negative is won; null where the
 *     corner cannot be made
 * @param first metres past its place, negative, from which on the corner can be made; null where
 *     that is further than anyone misses
 * @param last up to which it can be made; null likewise
 * @param sigma standard deviation of where it is done, m
 * @param laps that tell it; 0 where a usual value is taken
 * @param tight whether there is no room beyond the road
 * @param aim metres past its place that cost least on average, negative is early
 * @param asPlanned mean seconds lost when aiming at its place
 * @param aimed mean seconds lost at the aim
 * @param off chance of not making the corner when aiming at its place, 0 to 1
 */
public record MistakeCurve(
    String action,
    List<Double> metres,
    List<@Nullable Double> seconds,
    @Nullable Double first,
    @Nullable Double last,
    double sigma,
    int laps,
    boolean tight,
    double aim,
    double asPlanned,
    double aimed,
    double off) {
  public MistakeCurve {
    metres = List.copyOf(metres);
  }
}
