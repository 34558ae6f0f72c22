package marvek.server.reference;

import java.time.Instant;
import java.util.UUID;

/**
 * A reference in a list.
 *
 * @param unmade corners of the lap as planned that cannot be made as they are written
 * @param revision number that the working copy started from, 0 for none
 * @param changed whether the working copy differs from it
 * @param vehicleChanged whether the vehicle has been edited since the numbers were computed
 */
public record ReferenceSummary(
    UUID id,
    String name,
    UUID layoutId,
    String circuit,
    String layout,
    int layoutVersion,
    UUID vehicleId,
    String vehicle,
    double lapTime,
    int unmade,
    int revision,
    boolean changed,
    boolean vehicleChanged,
    Instant changedAt) {}
