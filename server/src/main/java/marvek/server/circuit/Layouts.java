package marvek.server.circuit;

import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.said.Value;
import marvek.server.keeping.Allowance;
import marvek.server.keeping.Turns;
import marvek.server.problem.Problem;
import org.springframework.cache.annotation.Cacheable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Layout versions of one owner. */
@Service
public class Layouts {
  private static final Duration TWICE = Duration.ofSeconds(30);

  private final Circuits circuits;
  private final LayoutVersions versions;
  private final LayoutRoads roads;
  private final Turns turns;
  private final Allowance allowance;
  private final Clock clock;

  Layouts(
      Circuits circuits,
      LayoutVersions versions,
      LayoutRoads roads,
      Turns turns,
      Allowance allowance,
      Clock clock) {
    this.turns = turns;
    this.allowance = allowance;
    this.circuits = circuits;
    this.versions = versions;
    this.roads = roads;
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
        .orElseThrow(() -> Problem.none("refusal.none.no_layout_among_yours"));
  }

  /** The newest version of the same layout, when it is newer than this one. */
  @Transactional(readOnly = true)
  public Optional<LayoutVersion> newer(LayoutVersion layout) {
    return versions
        .findFirstByCircuitIdAndLayoutNameOrderByNumberDesc(
            layout.circuit().id(), layout.layoutName())
        .filter(l -> l.number() > layout.number());
  }

  /** Saves what was read from a file as the next version of a layout. */
  @Transactional
  public LayoutVersion save(
      UUID owner,
      String circuitName,
      String layoutName,
      ZoneId zone,
      CircuitReading reading,
      String sourceName,
      byte[] source) {
    if (reading.corners().isEmpty()) {
      throw Problem.bad("refusal.circuit.no_corners_were_found");
    }
    turns.at("circuits of " + owner);
    Optional<LayoutVersion> twice = justNow(owner, circuitName, layoutName, reading, source);
    if (twice.isPresent()) {
      return twice.get();
    }
    allowance.room(owner, source.length);
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
                reading,
                sourceName,
                clock.instant()));
    roads.save(new LayoutRoad(version, reading.centreline(), source));
    return version;
  }

  /** The same file read the same way, sent twice at once, makes one layout. */
  private Optional<LayoutVersion> justNow(
      UUID owner, String circuitName, String layoutName, CircuitReading reading, byte[] source) {
    return circuits
        .findFirstByOwnerIdAndName(owner, circuitName)
        .flatMap(
            c -> versions.findFirstByCircuitIdAndLayoutNameOrderByNumberDesc(c.id(), layoutName))
        .filter(v -> v.createdAt().isAfter(clock.instant().minus(TWICE)))
        .filter(v -> roads.findById(v.id()).orElseThrow().same(reading.centreline(), source))
        .filter(v -> v.corners().equals(reading.corners()));
  }

  /** The road of a version; it never changes, so it is kept at hand. */
  @Cacheable(cacheNames = "roads", key = "#layout.id()")
  public Centreline road(LayoutVersion layout) {
    return roads.findById(layout.id()).orElseThrow().road();
  }

  /** The same road from a date on, with what has changed on it; the older version stays. */
  @Transactional
  LayoutVersion startVersion(
      LayoutVersion from,
      LocalDate validFrom,
      String reason,
      List<LayoutVersion.GroundChange> changes) {
    for (LayoutVersion.GroundChange c : changes) {
      boolean onLap =
          c.from() >= 0 && c.from() < from.length() && c.to() >= 0 && c.to() < from.length();
      if (!onLap || c.what().length() > 500) {
        throw Problem.bad(
                "refusal.circuit.changed_stretch_lies_off",
                Value.figure(Math.floor(from.length()), 0))
            .at("changes");
      }
    }
    if (validFrom.getYear() < 1900 || validFrom.getYear() > 2200) {
      throw Problem.bad("refusal.circuit.date_out_range").at("from");
    }
    if (newer(from).isPresent()) {
      throw Problem.bad("refusal.circuit.newer_version_layout_already").at("version");
    }
    if (validFrom.isBefore(from.validFrom())) {
      throw Problem.bad(
              "refusal.circuit.new_version_would_start",
              Value.own(String.valueOf(from.validFrom())))
          .at("from");
    }
    LayoutVersion next =
        versions.saveAndFlush(
            new LayoutVersion(
                from,
                versions.lastNumber(from.circuit().id(), from.layoutName()) + 1,
                validFrom,
                reason,
                changes,
                clock.instant()));
    roads.save(roads.findById(from.id()).orElseThrow().to(next));
    return next;
  }

  /** Says where on the earth a layout lies that came as metres. */
  @Transactional
  public LayoutVersion place(
      UUID owner, UUID id, double latitude, double longitude, double altitude) {
    LayoutVersion layout = get(owner, id);
    layout.place(latitude, longitude, altitude);
    return versions.saveAndFlush(layout);
  }
}
