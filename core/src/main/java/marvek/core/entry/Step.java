package marvek.core.entry;

import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;

/**
 * One step of an action of a corner: to another place, or to another share of its pedal.
 *
 * @param action id
 * @param share whether its share changes, and not its place
 * @param to station, m, or share from 0 to 1
 */
public record Step(String action, boolean share, double to) {
  /** A point at another place. */
  public static Step of(PointKind kind, double station) {
    return new Step(Score.id(kind), false, station);
  }

  /**
   * The entry with the step taken. What had been found by a cue is found by nothing then, and the
   * end of a lift goes with its beginning.
   */
  public CornerEntry in(Centreline road, CornerEntry entry) {
    Optional<PointKind> point = Score.point(action);
    if (point.isPresent() && !share) {
      return entry.copy().moved(point.get(), road.wrap(to)).done();
    }
    return Score.of(road, entry).stream()
        .filter(a -> a.id().equals(action))
        .findFirst()
        .map(a -> Score.with(entry, share ? a.amounting(to) : elsewhere(road, a)))
        .orElse(entry);
  }

  private Action elsewhere(Centreline road, Action a) {
    Double until = a.until();
    return ActionBuilder.builder(a.at(road.wrap(to)).unfound())
        .until(until == null ? null : road.wrap(until + road.apart(a.station(), to)))
        .build();
  }
}
