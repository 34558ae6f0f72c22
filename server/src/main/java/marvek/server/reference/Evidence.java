package marvek.server.reference;

import java.util.List;
import marvek.core.entry.PointKind;
import org.jspecify.annotations.Nullable;

/**
 * What spoke for a change of a point.
 *
 * @param corner id
 * @param kind of the point
 * @param from station before
 * @param to station after
 * @param gain seconds promised, or null where it was not about time
 * @param low lower end of the interval
 * @param high upper end
 * @param laps that spoke for it
 * @param strength name of it; those stored before the end of November 2026 hold words
 * @param run from which it was taken
 * @param lapIds of the laps
 * @param day that it is for: empty for the reference's own, id of a variant; null in evidence from
 *     before there were days, which is of the reference's own
 */
public record Evidence(
    String corner,
    PointKind kind,
    double from,
    double to,
    @Nullable Double gain,
    @Nullable Double low,
    @Nullable Double high,
    int laps,
    String strength,
    String run,
    List<String> lapIds,
    @Nullable String day) {
  public Evidence {
    lapIds = List.copyOf(lapIds);
  }

  /** The day that it is for. */
  public String on() {
    return day == null ? "" : day;
  }
}
