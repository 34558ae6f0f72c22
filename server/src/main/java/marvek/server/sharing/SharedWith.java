package marvek.server.sharing;

import java.util.UUID;

/**
 * Somebody to whom a reference is open.
 *
 * @param id of the share
 * @param name of the person once they have opened it; until then the address, whether or not
 *     somebody here has it
 * @param seen whether they have opened it
 * @param asks whether they made their account after it was given, and wait for the owner's word
 * @param seesRehearsed whether they may see what the driver knows by heart
 */
public record SharedWith(
    UUID id,
    String name,
    String email,
    Role role,
    boolean seen,
    boolean asks,
    boolean seesRehearsed) {}
