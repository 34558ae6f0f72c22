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
 * @param severities what slight, plain and severe mean here, where it is not what is usual
 */
public record Things(
    List<Landmark> landmarks,
    List<Kerb> kerbs,
    List<Zone> zones,
    List<TrackLimit> limits,
    List<Place> places,
    List<Severity> severities) {

  public Things {
    landmarks = List.copyOf(landmarks);
    kerbs = List.copyOf(kerbs);
    zones = List.copyOf(zones);
    limits = List.copyOf(limits);
    places = List.copyOf(places);
    // Surveys stored before there were any have none.
    severities = severities == null ? List.of() : List.copyOf(severities);
  }

  /** With what is usual for every severity. */
  public Things(
      List<Landmark> landmarks,
      List<Kerb> kerbs,
      List<Zone> zones,
      List<TrackLimit> limits,
      List<Place> places) {
    this(landmarks, kerbs, zones, limits, places, List.of());
  }

  /** The zones that the computation feels, each with its amount told. */
  public List<Zone> ground() {
    return zones.stream().map(z -> z.told(severities)).filter(Zone::counts).toList();
  }

  /** Nothing found yet. */
  public static Things none() {
    return new Things(List.of(), List.of(), List.of(), List.of(), List.of());
  }

  /** Number of all things together. */
  public int size() {
    return landmarks.size()
        + kerbs.size()
        + zones.size()
        + limits.size()
        + places.size()
        + severities.size();
  }
}
