package marvek.core.anew;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.marker.Landmark;
import marvek.core.marker.Tie;
import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * A point that was set on an older version of a layout and is to be looked at again.
 *
 * @param corner id
 * @param kind of the point
 * @param why what was changed
 */
public record Doubt(String corner, PointKind kind, Said why) {
  private static final double SAME_PLACE = 0.5;

  /**
   * What was changed on the ground.
   *
   * @param from station, m
   * @param to station, m
   * @param what in the driver's words
   */
  public record Change(double from, double to, String what) {}

  /**
   * The points of a reference that changes on the ground put in doubt: those in a changed stretch,
   * and those whose landmark has gone or moved.
   *
   * @param before landmarks of the version that the reference was made on
   * @param after landmarks of the newer version
   */
  public static List<Doubt> about(
      Centreline road,
      ReferenceContent content,
      List<Landmark> before,
      List<Landmark> after,
      List<Change> changes) {
    Map<String, Landmark> then = byId(before);
    Map<String, Landmark> now = byId(after);
    List<Doubt> doubts = new ArrayList<>();
    for (CornerEntry e : content.corners()) {
      for (CornerPoint p : e.points()) {
        Said why = why(road, p, then, now, changes);
        if (!why.equals(Said.NOTHING)) {
          doubts.add(new Doubt(e.corner(), p.kind(), why));
        }
      }
    }
    return List.copyOf(doubts);
  }

  private static Said why(
      Centreline road,
      CornerPoint p,
      Map<String, Landmark> then,
      Map<String, Landmark> now,
      List<Change> changes) {
    for (Change c : changes) {
      if (road.ahead(c.from(), p.station()) <= road.ahead(c.from(), c.to())) {
        return c.what().isBlank()
            ? Said.of("doubt.something")
            : Said.of("doubt.changed", Value.own(c.what()));
      }
    }
    Tie tie = p.tie();
    Landmark was = tie == null ? null : then.get(tie.landmark());
    if (tie == null || was == null) {
      return Said.NOTHING;
    }
    Landmark is = now.get(tie.landmark());
    if (is == null) {
      return Said.of("doubt.gone", Value.own(tie.spoken()));
    }
    double moved = road.apart(was.station(), is.station());
    return Math.abs(moved) < SAME_PLACE
        ? Said.NOTHING
        : Said.of(
            "doubt.moved", Value.own(tie.spoken()), Value.length(moved), Value.choice(moved > 0));
  }

  private static Map<String, Landmark> byId(List<Landmark> landmarks) {
    return landmarks.stream()
        .collect(
            Collectors.toMap(Landmark::id, Function.identity(), (a, b) -> a, LinkedHashMap::new));
  }
}
