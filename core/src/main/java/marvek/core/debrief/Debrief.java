package marvek.core.debrief;

import java.util.List;
import java.util.Map;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
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
 */
public record Debrief(
    int laps,
    double best,
    double median,
    double theoretical,
    double planned,
    double pace,
    List<String> focus,
    List<CornerFinding> corners) {
  public Debrief {
    focus = List.copyOf(focus);
    corners = List.copyOf(corners);
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
   * @param minimumSpeed m/s, median
   * @param speedSpread m/s
   * @param plannedSpeed of the reference, m/s
   * @param habits seen in a good share of the laps, those that bring others about first
   * @param words what matters here, in a sentence
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
      double minimumSpeed,
      double speedSpread,
      double plannedSpeed,
      List<HabitFinding> habits,
      Said words) {
    public CornerFinding {
      points = List.copyOf(points);
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
}
