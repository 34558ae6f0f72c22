package marvek.server.reference;

import java.util.UUID;
import marvek.server.sharing.Role;

/**
 * A reference of somebody else's in a list.
 *
 * @param driver whose it is
 * @param unmade corners of the lap as planned that cannot be made as they are written
 * @param openRemarks that wait for the driver
 */
public record SharedReference(
    UUID id,
    String name,
    String circuit,
    String vehicle,
    String driver,
    Role role,
    double lapTime,
    int unmade,
    int revision,
    long openRemarks) {}
