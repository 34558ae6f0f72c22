package marvek.server.circuit;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.marker.Landmark;
import marvek.server.problem.Problem;
import org.springframework.cache.annotation.Cacheable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Layout versions of one owner, with their landmarks. */
@Service
public class Layouts {
  private final Circuits circuits;
  private final LayoutVersions versions;
  private final LayoutRoads roads;
  private final Landmarks landmarks;
  private final Clock clock;

  Layouts(
      Circuits circuits,
      LayoutVersions versions,
      LayoutRoads roads,
      Landmarks landmarks,
      Clock clock) {
    this.circuits = circuits;
    this.versions = versions;
    this.roads = roads;
    this.landmarks = landmarks;
    this.clock = clock;
  }

  @Transactional(readOnly = true)
  public List<LayoutSummary> of(UUID owner) {
    return versions.summaries(owner);
  }

  @Transactional(readOnly = true)
  public LayoutVersion get(UUID owner, UUID id) {
    return versions
        .findByIdAndOwnerId(id, owner)
        .orElseThrow(() -> Problem.notFound("There is no such layout among yours."));
  }

  /** Saves a survey as the next version of a layout. */
  @Transactional
  public LayoutVersion save(
      UUID owner,
      String circuitName,
      String layoutName,
      ZoneId zone,
      CircuitReading survey,
      String sourceName,
      byte[] source) {
    if (survey.corners().isEmpty()) {
      throw Problem.bad(
          "No corners were found on this outline.",
          null,
          "A circuit needs at least one corner; check that the file holds a whole lap.");
    }
    Circuit circuit =
        circuits
            .findFirstByOwnerIdAndName(owner, circuitName)
            .orElseGet(() -> circuits.save(new Circuit(owner, circuitName, zone, clock.instant())));
    int number = versions.lastNumber(circuit.id(), layoutName) + 1;
    LayoutVersion version =
        versions.saveAndFlush(
            new LayoutVersion(
                circuit,
                layoutName,
                number,
                LocalDate.now(clock.withZone(zone)),
                survey,
                sourceName,
                clock.instant()));
    roads.save(new LayoutRoad(version, survey.centreline(), source));
    return version;
  }

  @Transactional
  public LayoutVersion renameCorner(UUID owner, UUID layout, String corner, String name) {
    LayoutVersion version = get(owner, layout);
    version.rename(corner, name);
    return version;
  }

  /** The road of a version; it never changes, so it is kept at hand. */
  @Cacheable(cacheNames = "roads", key = "#layout.id()")
  public Centreline road(LayoutVersion layout) {
    return roads.findById(layout.id()).orElseThrow().road();
  }

  @Transactional(readOnly = true)
  public List<Landmark> landmarks(UUID layout) {
    return landmarks.findByLayoutVersionIdOrderByStation(layout).stream()
        .map(LandmarkRow::landmark)
        .toList();
  }

  /** Puts landmarks on a version that has none. */
  @Transactional
  public List<Landmark> placeFirst(LayoutVersion layout, List<Landmark> first) {
    if (!landmarks.existsByLayoutVersionId(layout.id())) {
      landmarks.saveAll(first.stream().map(l -> new LandmarkRow(layout, l)).toList());
      landmarks.flush();
    }
    return landmarks(layout.id());
  }

  @Transactional
  public Landmark add(UUID owner, UUID layout, Landmark landmark) {
    LayoutVersion version = get(owner, layout);
    return landmarks.save(new LandmarkRow(version, onRoad(version, landmark))).landmark();
  }

  @Transactional
  public Landmark change(UUID owner, UUID id, Landmark landmark) {
    LandmarkRow row = row(owner, id);
    row.take(onRoad(get(owner, row.layoutVersionId()), landmark));
    return row.landmark();
  }

  @Transactional
  public void remove(UUID owner, UUID id) {
    landmarks.delete(row(owner, id));
  }

  private LandmarkRow row(UUID owner, UUID id) {
    return landmarks
        .findByIdAndOwnerId(id, owner)
        .orElseThrow(() -> Problem.notFound("There is no such landmark among yours."));
  }

  private static Landmark onRoad(LayoutVersion layout, Landmark l) {
    if (!(l.station() >= 0 && l.station() < layout.length())) {
      throw Problem.bad(
          "The landmark lies off the lap.",
          "station",
          "Give metres from the line, 0 to " + Math.floor(layout.length()) + ".");
    }
    return l;
  }
}
