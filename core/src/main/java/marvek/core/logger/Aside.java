package marvek.core.logger;

/**
 * A place that the driver passes beside the line.
 *
 * @param station m
 * @param by metres to the left of the line
 * @param share of the laps on which it happens, 0 to 1
 */
public record Aside(double station, double by, double share) {}
