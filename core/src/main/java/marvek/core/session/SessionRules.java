package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Rules that matter in a session.
 *
 * @param limits what leaving the road costs
 * @param pitSpeed limit in the pit lane, m/s; null where not said
 * @param pitLine station at which the limit begins, m; null where not said
 * @param must what must be done, in the driver's words, like both compounds used
 * @param device where a drag-reducing device may be used
 */
@RecordBuilder
public record SessionRules(
    Limits limits,
    @Nullable Double pitSpeed,
    @Nullable Double pitLine,
    String must,
    List<DeviceZone> device) {
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
    // Sessions planned before there were any have none.
    device = device == null ? List.of() : List.copyOf(device);
  }

  /**
   * A stretch of the lap.
   *
   * @param from station, m
   * @param to station, m; before the first one where it runs over the line
   */
  public record DeviceZone(double from, double to) {}

  /** Nothing said. */
  public static SessionRules unknown() {
    return new SessionRules(Limits.UNKNOWN, null, null, "", List.of());
  }
}
