package marvek.core.entry;

/**
 * A further braking in a corner, after the one that its marker is for. Computed, not planned: an
 * entry has one marker.
 *
 * @param station where the brake is pressed again, metres from the start/finish line
 * @param from m/s there
 * @param to m/s at the slowest place that it serves
 */
public record BrakedAgain(double station, double from, double to) {}
