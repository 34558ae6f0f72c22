package marvek.core.anew;

/**
 * A lap as a reference plans it.
 *
 * @param seconds with every corner driven as it is written
 * @param unmade corners that cannot be made as they are written, which the seconds take as computed
 */
public record LapAsPlanned(double seconds, int unmade) {}
