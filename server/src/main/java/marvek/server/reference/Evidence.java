package marvek.server.reference;

import java.util.List;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.said.Said;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * What spoke for a change of an action.
 *
 * @param corner id
 * @param kind of a point; null for another action
 * @param from station before, or share
 * @param to station after, or share
 * @param gain seconds promised, or null where it was not about time
 * @param low lower end of the interval
 * @param high upper end
 * @param laps that spoke for it
 * @param strength name of it; those stored before the end of November 2026 hold words
 * @param run from which it was taken
 * @param lapIds of the laps
 * @param day that it is for: empty for the reference's own, id of a variant; null in evidence from
 *     before there were days, which is of the reference's own
 * @param action id; null in evidence from before there were actions, which is of a point
 * @param does kind of the action; null in evidence of a point
 * @param share whether its share was changed, and not its place; null is not
 */
public record Evidence(
    String corner,
    @Nullable PointKind kind,
    double from,
    double to,
    @Nullable Double gain,
    @Nullable Double low,
    @Nullable Double high,
    int laps,
    String strength,
    String run,
    List<String> lapIds,
    @Nullable String day,
    @Nullable String action,
    @Nullable ActionKind does,
    @Nullable Boolean share) {
  public Evidence {
    lapIds = List.copyOf(lapIds);
  }

  /** The day that it is for. */
  public String on() {
    return day == null ? "" : day;
  }

  /** Id of the action that it is of. */
  public String of() {
    PointKind point = kind;
    String id = action;
    return id != null ? id : point == null ? "" : Score.id(point);
  }

  /** What was changed. */
  public Said what() {
    PointKind point = kind;
    ActionKind act = does;
    return point != null ? point.said() : act != null ? act.said() : Said.NOTHING;
  }

  /** Whether a share was changed, and not a place. */
  public boolean shared() {
    return Boolean.TRUE.equals(share);
  }
}
