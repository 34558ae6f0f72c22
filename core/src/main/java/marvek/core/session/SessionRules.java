package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Rules that matter in a session.
 *
 * @param limits what leaving the road costs
 * @param pitSpeed limit in the pit lane, m/s; null where not said
 * @param pitLine station at which the limit begins, m; null where not said
 * @param pits laps at the ends of which one comes in
 * @param must what must be done, in the driver's words, like both compounds used
 */
@RecordBuilder
public record SessionRules(
    Limits limits,
    @Nullable Double pitSpeed,
    @Nullable Double pitLine,
    java.util.List<Integer> pits,
    String must) {
  /** What leaving the road costs in a session. */
  public enum Limits {
    UNKNOWN,
    FREE,
    LAP_DELETED,
    WARNINGS,
    PENALTY
  }

  public SessionRules {
    Objects.requireNonNull(limits, "limits");
    Objects.requireNonNull(must, "must");
    pits = pits == null ? java.util.List.of() : java.util.List.copyOf(pits);
  }

  /** Nothing said. */
  public static SessionRules unknown() {
    return new SessionRules(Limits.UNKNOWN, null, null, java.util.List.of(), "");
  }
}
