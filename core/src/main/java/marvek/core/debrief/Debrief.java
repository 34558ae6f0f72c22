package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * What a run says.
 *
 * @param laps that count
 * @param best lap, s
 * @param median lap, s
 * @param theoretical sum of the best sections, s
 * @param planned lap of the reference as computed, s
 * @param pace the lap to be expected by the driver's best sections against the computed one; 1.02
 *     is 2 % slower
 * @param focus at most three corners, those with most on offer first
 * @param corners in driving order
 * @param places across the road that the reference asks for, in driving order
 */
public record Debrief(
    int laps,
    double best,
    double median,
    double theoretical,
    double planned,
    double pace,
    List<String> focus,
    List<CornerFinding> corners,
    List<PlaceFinding> places) {
  public Debrief {
    focus = List.copyOf(focus);
    corners = List.copyOf(corners);
    places = List.copyOf(places);
  }

  /**
   * A corner.
   *
   * @param corner id
   * @param offer seconds on offer
   * @param median section, s
   * @param best section, s
   * @param spread of the section as a standard deviation, s
   * @param bestLap lap with the best section
   * @param lost seconds by part of the section, median against the best section's
   * @param points measured against the reference
   * @param actions that are written beyond the points, measured against the reference
   * @param minimumSpeed m/s, median
   * @param speedSpread m/s
   * @param plannedSpeed of the reference, m/s
   * @param habits seen in a good share of the laps, those that bring others about first
   * @param words what matters here, with what is on offer
   * @param why the same without it
   */
  public record CornerFinding(
      String corner,
      double offer,
      double median,
      double best,
      double spread,
      String bestLap,
      Map<Sections.Phase, Double> lost,
      List<PointFinding> points,
      List<ActionFinding> actions,
      double minimumSpeed,
      double speedSpread,
      double plannedSpeed,
      List<HabitFinding> habits,
      Said words,
      Said why) {
    public CornerFinding {
      points = List.copyOf(points);
      actions = List.copyOf(actions);
      habits = List.copyOf(habits);
    }

    /** The habit that explains most, or null. */
    public @Nullable String cause() {
      return habits.isEmpty() ? null : habits.get(0).cause();
    }
  }

  /**
   * A point of the reference as it was driven.
   *
   * @param kind which
   * @param planned station
   * @param median metres late, negative for early
   * @param spread as a standard deviation, m
   * @param hits share of laps within the tolerance
   * @param tolerance m
   * @param trend metres a lap over the run
   * @param trendTells whether the trend is more than chance
   * @param told false when it was worked out from the speed and not recorded
   * @param laps ids of the laps, in order
   * @param late metres late on each
   */
  public record PointFinding(
      PointKind kind,
      double planned,
      double median,
      double spread,
      double hits,
      double tolerance,
      double trend,
      boolean trendTells,
      boolean told,
      List<String> laps,
      List<Double> late) {
    public PointFinding {
      laps = List.copyOf(laps);
      late = List.copyOf(late);
    }
  }

  /**
   * A habit.
   *
   * @param cause id of the habit
   * @param share of the laps
   * @param seconds that laps with it took longer than those without; null when all have it
   * @param measure how much
   * @param words what the driver does
   * @param cure what to do
   * @param before corner where it begins, when that is another one
   * @param laps ids of laps that show it
   */
  public record HabitFinding(
      String cause,
      double share,
      @Nullable Double seconds,
      Said measure,
      Said words,
      Said cure,
      @Nullable String before,
      List<String> laps) {
    public HabitFinding {
      laps = List.copyOf(laps);
    }
  }

  /**
   * A written action as it was driven.
   *
   * @param action id of the action in its corner
   * @param kind of it
   * @param said what is written
   * @param planned station
   * @param amount share written; null where it has none or is left open
   * @param seen whether the recording can show it at all
   * @param unseen why it cannot; nothing where it can
   * @param done share of the laps in which it was done
   * @param off whether it is done otherwise than written, beyond what is tolerated
   * @param late metres, median; negative for sooner; null where never told
   * @param spread of it as a standard deviation, m
   * @param tolerance metres within which it counts as met
   * @param more median share driven less the share written; null where either is not known
   * @param moreSpread of it as a standard deviation
   * @param laps ids of the laps in which it was done
   * @param lates metres late on each of these; null where not told
   * @param amounts share driven on each of these; null where not told
   */
  public record ActionFinding(
      String action,
      ActionKind kind,
      Said said,
      double planned,
      @Nullable Double amount,
      boolean seen,
      Said unseen,
      double done,
      boolean off,
      @Nullable Double late,
      double spread,
      double tolerance,
      @Nullable Double more,
      double moreSpread,
      List<String> laps,
      List<@Nullable Double> lates,
      List<@Nullable Double> amounts) {
    public ActionFinding {
      laps = List.copyOf(laps);
      // Some are null.
      lates = Collections.unmodifiableList(new ArrayList<>(lates));
      amounts = Collections.unmodifiableList(new ArrayList<>(amounts));
    }
  }

  /**
   * A place across the road as it was passed.
   *
   * @param gate id of the gate
   * @param station m
   * @param left whether metres are told from the left edge
   * @param metres asked for, from that edge to the vehicle's side
   * @param tolerance either way, m
   * @param room metres from that edge to the vehicle's side when its other side is on the other
   *     edge
   * @param corner id of the corner that comes next, or in which it lies
   * @param over metres before the station from which on it is to be held; 0 where it is passed
   * @param drift metres farther from the edge at its end than where it begins to be held, median
   * @param off metres farther from the edge than asked, median
   * @param spread as a standard deviation, m
   * @param precision metres that the recording may be wrong by
   * @param met share of the laps within tolerance and precision
   * @param missed whether the median, or the drift, is off by more than tolerance and precision
   * @param laps ids
   * @param driven metres from the edge on each of them; where it is held, on the mean of the way
   */
  public record PlaceFinding(
      String gate,
      double station,
      boolean left,
      double metres,
      double tolerance,
      double room,
      String corner,
      double over,
      double drift,
      double off,
      double spread,
      double precision,
      double met,
      boolean missed,
      List<String> laps,
      List<Double> driven) {
    public PlaceFinding {
      laps = List.copyOf(laps);
      driven = List.copyOf(driven);
    }
  }
}
