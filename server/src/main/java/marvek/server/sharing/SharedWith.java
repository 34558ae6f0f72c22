package marvek.server.sharing;

import java.util.UUID;

/** Somebody to whom a reference is open. */
public record SharedWith(UUID person, String name, String email, Role role) {}
