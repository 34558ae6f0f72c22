package marvek.core.survey;

import java.util.List;
import marvek.core.marker.Landmark;

/**
 * What a survey has found along a road.
 *
 * @param landmarks things to steer by
 * @param kerbs along the edges
 * @param zones where something is different
 * @param limits how far one may go
 * @param places that matter for something else
 */
public record Things(
    List<Landmark> landmarks,
    List<Kerb> kerbs,
    List<Zone> zones,
    List<TrackLimit> limits,
    List<Place> places) {

  public Things {
    landmarks = List.copyOf(landmarks);
    kerbs = List.copyOf(kerbs);
    zones = List.copyOf(zones);
    limits = List.copyOf(limits);
    places = List.copyOf(places);
  }

  /** Nothing found yet. */
  public static Things none() {
    return new Things(List.of(), List.of(), List.of(), List.of(), List.of());
  }

  public int size() {
    return landmarks.size() + kerbs.size() + zones.size() + limits.size() + places.size();
  }
}
