package marvek.server.work;

import java.util.UUID;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * Heavy work on its way, as it is shown.
 *
 * @param id by which it is asked for and cancelled
 * @param state where it is
 * @param share of the most that it may take, 0 to 1
 * @param made id of what it made or computed, once done
 * @param run that a recording was made in, where it made one
 * @param problem why it failed, in words
 * @param remedy what to do about that
 */
public record Job(
    UUID id,
    State state,
    double share,
    @Nullable UUID made,
    @Nullable UUID run,
    @Nullable Said problem,
    @Nullable Said remedy) {
  /** Where it is. */
  public enum State {
    WAITING,
    WORKING,
    DONE,
    CANCELLED,
    FAILED
  }

  /**
   * What came of it.
   *
   * @param id of what was made
   * @param run that a recording was made in, or null
   */
  public record Result(UUID id, @Nullable UUID run) {
    public static Result of(UUID id) {
      return new Result(id, null);
    }
  }
}
