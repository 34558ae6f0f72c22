package marvek.core.plan;

import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * What a rider's weight and share of the front brake make of a motorcycle's limits, straight on at
 * the place and speed where it begins.
 *
 * @param stops most braking, as a share of that with the weight in the middle and both brakes as
 *     the grip asks
 * @param drives most drive that the wheels bear, as a share of that with the weight in the middle
 * @param words in short
 */
public record Rides(double stops, double drives, Said words) {
  static Rides of(double stops, double drives) {
    return new Rides(
        stops, drives, Said.of("rides.told", Value.percent(stops), Value.percent(drives)));
  }
}
