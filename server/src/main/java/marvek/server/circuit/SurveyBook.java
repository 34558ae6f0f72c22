package marvek.server.circuit;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.CornerBook;
import marvek.core.marker.Landmark;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;
import marvek.core.survey.Place;
import marvek.core.survey.Severity;
import marvek.core.survey.Things;
import marvek.core.survey.ThingsCheck;
import marvek.core.survey.TrackLimit;
import marvek.core.survey.Zone;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What surveys have found along the roads of one owner. */
@Service
public class SurveyBook {
  private static final int MOST = 5000;

  private final SurveyItems items;
  private final AppliedChanges applied;
  private final LayoutVersions versions;
  private final Layouts layouts;
  private final ObjectMapper json;
  private final Clock clock;

  SurveyBook(
      SurveyItems items,
      AppliedChanges applied,
      LayoutVersions versions,
      Layouts layouts,
      ObjectMapper json,
      Clock clock) {
    this.items = items;
    this.applied = applied;
    this.versions = versions;
    this.layouts = layouts;
    this.json = json;
    this.clock = clock;
  }

  /**
   * A change, whole or not at all.
   *
   * @param id chosen by its sender: sent twice, it is applied once
   * @param put things that are new or different
   * @param remove ids of things to take away; those not there are passed over
   * @param expected version of each thing that is changed or removed, as its sender saw it; a thing
   *     that is there and not named here is not changed
   * @param corners all corners, when they change; null otherwise
   * @param cornersVersion version of the corners as the sender saw them
   */
  public record SurveyChange(
      @NotNull UUID id,
      @NotNull Things put,
      @NotNull List<String> remove,
      @NotNull Map<String, Integer> expected,
      @Nullable List<Corner> corners,
      @Nullable Integer cornersVersion) {}

  /** Things with the version of each by its id. */
  public record Found(Things things, Map<String, Integer> versions) {}

  @Transactional(readOnly = true)
  public Found found(UUID layout) {
    return read(items.findByLayoutVersionId(layout));
  }

  /** Puts landmarks on a version that has none. */
  @Transactional
  public Things placeFirst(LayoutVersion layout, List<Landmark> first) {
    if (!items.existsByLayoutVersionIdAndSort(layout.id(), SurveyItem.Sort.LANDMARK)) {
      items.saveAllAndFlush(
          first.stream()
              .map(l -> new SurveyItem(layout, l.id(), SurveyItem.Sort.LANDMARK, text(l)))
              .toList());
    }
    return found(layout.id()).things();
  }

  /** Starts a new version of a layout with everything found on the old one, ids and all. */
  @Transactional
  public LayoutVersion startVersion(
      UUID owner,
      UUID id,
      LocalDate from,
      String reason,
      List<LayoutVersion.GroundChange> changes,
      boolean anew) {
    // One at a time: of two windows that start a version the second is told of the first's.
    LayoutVersion before =
        versions
            .lockByIdAndOwnerId(id, owner)
            .orElseThrow(() -> Problem.none("refusal.none.no_layout_among_yours"));
    LayoutVersion next = layouts.startVersion(before, from, reason, changes);
    if (anew) {
      next.rearrange(CornerBook.anew(layouts.road(before), before.corners()).corners());
      versions.saveAndFlush(next);
    }
    items.saveAll(
        items.findByLayoutVersionId(id).stream()
            .map(i -> new SurveyItem(next, i.itemId(), i.sort(), i.body()))
            .toList());
    return next;
  }

  /** Applies a change. */
  @Transactional
  public LayoutVersion apply(UUID owner, UUID layoutId, SurveyChange change) {
    // One change at a time on a layout, so that none is applied twice and none is lost.
    LayoutVersion layout =
        versions
            .lockByIdAndOwnerId(layoutId, owner)
            .orElseThrow(() -> Problem.none("refusal.none.no_layout_among_yours"));
    if (applied.existsByIdAndLayoutVersionId(change.id(), layoutId)) {
      return layout;
    }
    Map<String, SurveyItem> there = new HashMap<>();
    items.findByLayoutVersionId(layoutId).forEach(i -> there.put(i.itemId(), i));
    unseenChanges(change, there);
    List<Corner> corners = change.corners();
    if (corners != null) {
      rearrange(layout, corners, change.cornersVersion(), there);
    }
    ThingsCheck.check(change.put(), ids(layout.corners()), layout.length());
    for (Entry e : entries(change.put())) {
      SurveyItem item = there.get(e.id());
      if (item == null) {
        SurveyItem made = new SurveyItem(layout, e.id(), e.sort(), text(e.thing()));
        there.put(e.id(), items.save(made));
      } else {
        item.take(e.sort(), text(e.thing()));
      }
    }
    for (String id : change.remove()) {
      SurveyItem item = there.remove(id);
      if (item != null) {
        items.delete(item);
      }
    }
    if (there.size() > MOST) {
      throw Problem.bad("refusal.circuit.layout_holds_things_most", Value.figure(MOST, 0));
    }
    applied.save(new AppliedChange(change.id(), layout, clock.instant()));
    items.flush();
    return layout;
  }

  private void unseenChanges(SurveyChange change, Map<String, SurveyItem> there) {
    Map<String, String> put = new HashMap<>();
    for (Entry e : entries(change.put())) {
      if (put.put(e.id(), text(e.thing())) != null) {
        throw Problem.bad("refusal.circuit.id_comes_twice", Value.own(e.id())).at(e.id());
      }
    }
    Set<String> touched = new LinkedHashSet<>(put.keySet());
    touched.addAll(change.remove());
    for (String id : touched) {
      SurveyItem item = there.get(id);
      if (item != null && !change.expected().containsKey(id) && !same(item.body(), put.get(id))) {
        // A change that does not say on what it was made might undo another's.
        throw Problem.conflict(
            read(List.copyOf(there.values())),
            "refusal.circuit.change_does_not_say",
            Value.own(id));
      }
    }
    change
        .expected()
        .forEach(
            (id, version) -> {
              SurveyItem item = there.get(id);
              boolean same = item != null && same(item.body(), put.get(id));
              if (item != null && !Objects.equals(item.version(), version) && !same) {
                throw Problem.conflict(
                    read(List.copyOf(there.values())),
                    "refusal.circuit.another_window_changed_same");
              }
            });
  }

  private boolean same(String a, @Nullable String b) {
    try {
      return b != null && json.readTree(a).equals(json.readTree(b));
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a stored thing can always be read", e);
    }
  }

  private void rearrange(
      LayoutVersion layout,
      List<Corner> wanted,
      @Nullable Integer seen,
      Map<String, SurveyItem> there) {
    if (seen == null || seen != layout.cornersVersion()) {
      throw Problem.conflict(
          read(List.copyOf(there.values())), "refusal.circuit.another_window_changed_corners");
    }
    Centreline road = layouts.road(layout);
    List<Corner> before = layout.corners();
    List<Corner> after = CornerBook.settled(road, wanted);
    layout.rearrange(after);
    Map<String, String> moved = new HashMap<>();
    Set<String> left = ids(after);
    for (Corner c : before) {
      if (!left.contains(c.id())) {
        moved.put(c.id(), nearest(road, after, c.apex()));
      }
    }
    if (!moved.isEmpty()) {
      there.values().forEach(i -> follow(i, moved));
    }
  }

  private static String nearest(Centreline road, List<Corner> corners, double station) {
    return corners.stream()
        .min(Comparator.comparingDouble(c -> Math.abs(road.apart(c.apex(), station))))
        .orElseThrow()
        .id();
  }

  /** A thing of a corner that is no more belongs to the one that took its place. */
  private void follow(SurveyItem item, Map<String, String> moved) {
    try {
      var tree = json.readTree(item.body());
      String to = moved.get(tree.path("corner").asText());
      if (to != null && tree instanceof com.fasterxml.jackson.databind.node.ObjectNode object) {
        object.put("corner", to);
        item.take(item.sort(), json.writeValueAsString(object));
      }
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a stored thing can always be read", e);
    }
  }

  private static Set<String> ids(List<Corner> corners) {
    return corners.stream().map(Corner::id).collect(Collectors.toSet());
  }

  private record Entry(String id, SurveyItem.Sort sort, Object thing) {}

  private static List<Entry> entries(Things things) {
    List<Entry> all = new ArrayList<>();
    things.landmarks().forEach(t -> all.add(new Entry(t.id(), SurveyItem.Sort.LANDMARK, t)));
    things.kerbs().forEach(t -> all.add(new Entry(t.id(), SurveyItem.Sort.KERB, t)));
    things.zones().forEach(t -> all.add(new Entry(t.id(), SurveyItem.Sort.ZONE, t)));
    things.limits().forEach(t -> all.add(new Entry(t.id(), SurveyItem.Sort.LIMIT, t)));
    things.places().forEach(t -> all.add(new Entry(t.id(), SurveyItem.Sort.PLACE, t)));
    things.severities().forEach(t -> all.add(new Entry(t.id(), SurveyItem.Sort.SEVERITY, t)));
    return all;
  }

  private Found read(List<SurveyItem> rows) {
    List<Landmark> landmarks = new ArrayList<>();
    List<Kerb> kerbs = new ArrayList<>();
    List<Zone> zones = new ArrayList<>();
    List<TrackLimit> limits = new ArrayList<>();
    List<Place> places = new ArrayList<>();
    List<Severity> severities = new ArrayList<>();
    Map<String, Integer> versionOf = new HashMap<>();
    for (SurveyItem row : rows) {
      versionOf.put(row.itemId(), row.version());
      switch (row.sort()) {
        case LANDMARK -> landmarks.add(parse(row, Landmark.class));
        case KERB -> kerbs.add(parse(row, Kerb.class));
        case ZONE -> zones.add(parse(row, Zone.class));
        case LIMIT -> limits.add(parse(row, TrackLimit.class));
        case PLACE -> places.add(parse(row, Place.class));
        case SEVERITY -> severities.add(parse(row, Severity.class));
      }
    }
    landmarks.sort(Comparator.comparingDouble(Landmark::station).thenComparing(Landmark::id));
    kerbs.sort(Comparator.comparingDouble(Kerb::from).thenComparing(Kerb::id));
    zones.sort(Comparator.comparingDouble(Zone::from).thenComparing(Zone::id));
    limits.sort(Comparator.comparing(TrackLimit::corner).thenComparing(TrackLimit::id));
    places.sort(Comparator.comparingDouble(Place::from).thenComparing(Place::id));
    severities.sort(Comparator.comparing(Severity::id));
    return new Found(new Things(landmarks, kerbs, zones, limits, places, severities), versionOf);
  }

  private <T> T parse(SurveyItem row, Class<T> type) {
    try {
      return json.readValue(row.body(), type);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a stored thing can always be read", e);
    }
  }

  private String text(Object thing) {
    try {
      return json.writeValueAsString(thing);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a thing can always be written", e);
    }
  }
}
