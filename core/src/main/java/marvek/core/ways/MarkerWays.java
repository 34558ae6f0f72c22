package marvek.core.ways;

import java.util.List;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Cues;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.core.survey.Things;
import marvek.core.technique.School;

/** By what the braking marker is found: one cue, or two held together. */
final class MarkerWays {
  private static final String MARKER = Score.id(PointKind.BRAKE);

  private final ComputedLap computed;
  private final Cues cues;

  MarkerWays(ComputedLap computed, Things things) {
    this.computed = computed;
    this.cues = new Cues(computed, things);
  }

  /** Whether the marker is found by two cues, or another could be held with the one that it has. */
  boolean arises(CornerEntry entry) {
    return entry.slowing() == Slowing.BRAKE && two(entry).isPresent();
  }

  /** The marker found by one cue or by two; where neither moves it. Nothing where none is near. */
  Optional<CornerEntry> found(CornerEntry entry, School school) {
    return school == School.TWO_MARKERS ? two(entry) : two(entry).map(e -> alone(entry));
  }

  private CornerEntry alone(CornerEntry entry) {
    return marker(entry)
        .filter(a -> a.together() != null)
        .map(a -> Score.with(entry, a.found(a.cue(), null, a.backUp())))
        .orElse(entry);
  }

  private Optional<CornerEntry> two(CornerEntry entry) {
    Optional<Action> marker = marker(entry);
    if (marker.isEmpty()) {
      return Optional.empty();
    }
    if (marker.get().together() != null) {
      return Optional.of(entry);
    }
    List<Action> score = Score.of(computed.road(), entry);
    List<Cue> still =
        cues.reach(marker.get(), score).stream()
            .map(Cues.Offer::cue)
            .filter(c -> c.kind().thing() && c.kind().number())
            .toList();
    Cue has = marker.get().cue();
    Optional<Cue> first = has == null ? still.stream().findFirst() : Optional.of(has);
    return first.flatMap(
        one ->
            still.stream()
                .filter(c -> !c.thing().equals(one.thing()))
                .findFirst()
                .map(c -> Score.with(entry, marker.get().found(one, c, marker.get().backUp()))));
  }

  /** How the marker comes by its cues. */
  Optional<Cues.Met> met(CornerEntry entry) {
    List<Action> score = Score.of(computed.road(), entry);
    return marker(entry).flatMap(a -> cues.met(a, score));
  }

  /** Braked as much earlier as the marker comes on average. */
  CornerEntry onAverage(CornerEntry entry, Cues.Met met) {
    return entry
        .station(PointKind.BRAKE)
        .map(at -> entry.copy().moved(PointKind.BRAKE, computed.road().wrap(at + met.by())).done())
        .orElse(entry);
  }

  private Optional<Action> marker(CornerEntry entry) {
    return Score.of(computed.road(), entry).stream().filter(a -> a.id().equals(MARKER)).findFirst();
  }
}
