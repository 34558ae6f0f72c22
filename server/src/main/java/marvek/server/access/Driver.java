package marvek.server.access;

import java.io.Serializable;
import java.security.Principal;
import java.util.UUID;

/**
 * The person signed in.
 *
 * @param id of the account
 * @param name as shown
 */
public record Driver(UUID id, String name) implements Principal, Serializable {
  @Override
  public String getName() {
    return id.toString();
  }
}
