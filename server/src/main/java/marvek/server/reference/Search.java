package marvek.server.reference;

import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A search for a line on its way, as it is shown.
 *
 * @param id by which it is asked for and cancelled
 * @param state where it is
 * @param share of the most that it may take, 0 to 1
 * @param reference that it made or computed, once done
 * @param problem why it failed, in words
 * @param remedy what to do about that
 */
record Search(
    UUID id,
    State state,
    double share,
    @Nullable UUID reference,
    @Nullable String problem,
    @Nullable String remedy) {
  enum State {
    WAITING,
    SEARCHING,
    DONE,
    CANCELLED,
    FAILED
  }
}
