/**
 * Laps from data: files read, cleaned, put on the road, cut into laps, and what happened in each
 * corner.
 *
 * <p>SI units and radians throughout; stations and offsets as in {@code circuit}.
 */
package marvek.core.telemetry;
