package marvek.core.marker;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;

/**
 * How a point is found on the road: metres past a landmark. The words are kept with it, so that a
 * revision can still be read when the landmark has been moved or removed.
 *
 * @param landmark id of the landmark
 * @param spoken how the landmark is called
 * @param past metres from the landmark onwards, negative before it
 */
public record Tie(String landmark, String spoken, double past) {

  /** The landmark nearest to a station within reach, or nothing. */
  public static Optional<Tie> nearest(
      Centreline road, List<Landmark> landmarks, double station, double reach) {
    return landmarks.stream()
        .map(l -> to(road, l, station))
        .filter(t -> Math.abs(t.past()) <= reach)
        .min(Comparator.comparingDouble(t -> Math.abs(t.past())));
  }

  /** The tie of a station to one landmark. */
  public static Tie to(Centreline road, Landmark landmark, double station) {
    return new Tie(landmark.id(), landmark.spoken(), road.apart(landmark.station(), station));
  }
}
