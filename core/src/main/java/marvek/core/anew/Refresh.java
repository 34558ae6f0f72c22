package marvek.core.anew;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.lap.LapTrace;
import marvek.core.marker.Landmark;
import marvek.core.marker.Tie;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Reached;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/** Brings what follows from the points of an entry into line with them. */
public final class Refresh {
  private static final double KEEP = 35;
  private static final double REACH = 60;
  private static final double NEAR = 14;

  private Refresh() {}

  /**
   * The entry with its points in driving order, each tied to the landmark it had while that is
   * within 35 m, or else to the nearest in reach; and with the speeds that were reached.
   */
  public static CornerEntry entry(
      ComputedLap computed, List<Landmark> landmarks, CornerEntry e, Reached reached) {
    Centreline road = computed.road();
    Corner corner = computed.corners().get(computed.indexOf(e.corner()));
    double origin = road.wrap(corner.apexes().get(0) - road.length() / 2);
    List<CornerPoint> points =
        e.points().stream()
            .map(
                p ->
                    new CornerPoint(
                        p.kind(),
                        road.wrap(p.station()),
                        tie(road, landmarks, p),
                        p.sure(),
                        p.play()))
            .sorted(
                Comparator.<CornerPoint>comparingDouble(p -> road.ahead(origin, p.station()))
                    .thenComparing(CornerPoint::kind))
            .toList();
    Double set =
        e.point(PointKind.BRAKE)
            .flatMap(p -> Optional.ofNullable(p.play()))
            .flatMap(a -> Optional.ofNullable(a.amount()))
            .orElse(null);
    Double peak = set != null ? set : reached.peak();
    return e.copy()
        .points(points)
        .approach(reached.arrivalGear(), reached.arrivalSpeed())
        .firstEffort(peak == null ? e.firstEffort() : Math.min(1, Math.round(peak * 100) / 100.0))
        .minimumSpeed(reached.minimumSpeed())
        .again(reached.again())
        .done();
  }

  private static @Nullable Tie tie(Centreline road, List<Landmark> landmarks, CornerPoint point) {
    Tie had = point.tie();
    if (had != null) {
      for (Landmark l : landmarks) {
        if (l.id().equals(had.landmark())) {
          Tie now = Tie.to(road, l, point.station());
          if (Math.abs(now.past()) <= KEEP) {
            return now;
          }
        }
      }
    }
    boolean braking = point.kind() == PointKind.BRAKE || point.kind().marksBraking();
    double reach = braking ? REACH : NEAR;
    return Tie.nearest(road, landmarks, point.station(), reach).orElse(null);
  }

  /** The same with what driving the entry as planned leads to. */
  public static CornerEntry entry(ComputedLap computed, Things things, CornerEntry e) {
    Answers answers = Answers.at(computed, things, computed.indexOf(e.corner()));
    return entry(computed, things.landmarks(), e, answers.reached(e));
  }

  /** Content with every corner brought into line. */
  public static ReferenceContent content(
      ComputedLap computed, Things things, ReferenceContent content) {
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry stored : content.corners()) {
      entries.add(entry(computed, things, Answers.placed(computed, things, stored)));
    }
    return content.with(entries);
  }

  /**
   * The same for entries that a rule moved: their cues follow from those that they had.
   *
   * @param had entries as they stood before
   */
  public static ReferenceContent content(
      ComputedLap computed, Things things, ReferenceContent content, List<CornerEntry> had) {
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : content.corners()) {
      Optional<CornerEntry> was =
          had.stream().filter(h -> h.corner().equals(e.corner())).findFirst();
      entries.add(was.map(h -> Answers.followed(computed, things, h, e)).orElse(e));
    }
    return content(computed, things, content.with(entries));
  }

  /**
   * Content with one entry for each corner of the computed lap; those the survey added are drafted.
   */
  public static ReferenceContent fitting(
      ComputedLap computed, Things things, ReferenceContent content) {
    return Rejoin.fits(computed.corners(), content)
        ? content
        : content(computed, things, Rejoin.entries(computed, content));
  }

  /** The lap if every corner of a content is driven as it says. */
  public static LapAsPlanned planned(
      ComputedLap computed, Things things, ReferenceContent content) {
    return planned(
        computed.lap(),
        content.corners().stream().map(e -> Answers.answer(computed, things, e)).toList());
  }

  /**
   * The lap if every corner is driven as answered: the computed lap plus the losses. A corner that
   * cannot be made as it is written costs nothing in it, and is counted.
   */
  public static LapAsPlanned planned(LapTrace lap, List<CornerAnswer> answers) {
    double time = lap.lapTime();
    int unmade = 0;
    for (CornerAnswer a : answers) {
      Double effect = a.lapEffect();
      time += effect == null ? 0 : effect;
      unmade += effect == null ? 1 : 0;
    }
    return new LapAsPlanned(time, unmade);
  }
}
