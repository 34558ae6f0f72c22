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
 * @param warnings that a driver is given before leaving the road costs anything
 * @param penalty seconds that it costs then; null where not said
 * @param grid place that one starts from, 1 for the first; null where not known
 */
@RecordBuilder
public record SessionRules(
    Limits limits,
    @Nullable Double pitSpeed,
    @Nullable Double pitLine,
    String must,
    List<DeviceZone> device,
    int warnings,
    @Nullable Double penalty,
    @Nullable Integer grid) {
  /** What leaving the road costs in a session. */
  public enum Limits {
    UNKNOWN,
    FREE,
    LAP_DELETED,
    WARNINGS,
    PENALTY
  }

  /** Metres that the first on a grid stands before the line, and each further one behind it. */
  private static final double PLACE = 8;

  // The middle of a grid, where nobody has said the place.
  private static final double MIDDLE = 60;

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

  /** Metres before the line that one starts from (common practice, no source). */
  public double standing() {
    return grid == null ? MIDDLE : PLACE * grid;
  }

  /** Whether leaving the road costs something that counts. */
  public boolean counted() {
    return limits != Limits.UNKNOWN && limits != Limits.FREE;
  }

  /** Nothing said. */
  public static SessionRules unknown() {
    return new SessionRules(Limits.UNKNOWN, null, null, "", List.of(), 0, null, null);
  }
}
