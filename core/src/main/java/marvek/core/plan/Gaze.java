package marvek.core.plan;

import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * Where what is looked at stands, from the driver's eye on the computed line.
 *
 * @param angle radians between where the line heads and where it is
 * @param metres along the road to it; negative where it is behind
 * @param seconds of the computed lap until it is reached
 * @param words in short
 * @param why it is not seen without turning the head; nothing where it is
 */
public record Gaze(double angle, double metres, double seconds, Said words, Said why) {
  static Gaze of(double angle, double metres, double seconds, Said why) {
    return new Gaze(
        angle,
        metres,
        seconds,
        Said.of(
            "gaze.told",
            Value.figure(Math.toDegrees(angle), 0),
            Value.length(metres),
            Value.figure(seconds, 1)),
        why);
  }
}
