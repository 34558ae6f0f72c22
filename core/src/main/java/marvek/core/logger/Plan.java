package marvek.core.logger;

import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.plan.ComputedLap;

/**
 * What the simulated driver is to do.
 *
 * @param computed road, vehicle and day
 * @param entries the reference to be driven, one for each corner
 * @param habits mistakes
 * @param laps from line to line
 * @param spread metres of scatter of the driver's points, one standard deviation
 * @param pace share that the driver keeps of the speed that the grip allows, 0.8 to 1
 * @param coldLaps how many of the first laps are on cold tyres
 * @param outAndIn whether the recording begins with leaving the pits and ends with coming in
 * @param deviations actions of written scores that are done otherwise
 * @param asides places passed beside the line
 * @param byLap what is driven instead on lap 1, 2, …; on the laps after those, the reference
 */
public record Plan(
    ComputedLap computed,
    List<CornerEntry> entries,
    List<Planted> habits,
    int laps,
    double spread,
    double pace,
    int coldLaps,
    boolean outAndIn,
    List<Deviation> deviations,
    List<Aside> asides,
    List<List<CornerEntry>> byLap) {
  public Plan {
    entries = List.copyOf(entries);
    habits = List.copyOf(habits);
    deviations = List.copyOf(deviations);
    asides = List.copyOf(asides);
    byLap = byLap.stream().map(List::copyOf).toList();
    if (laps < 1 || laps > 200) {
      throw new IllegalArgumentException("laps: 1 to 200");
    }
    if (!(spread >= 0 && spread <= 20) || !(pace >= 0.7 && pace <= 1.05)) {
      throw new IllegalArgumentException("spread 0 to 20 m, pace 0.7 to 1.05");
    }
  }

  /** A plan whose written scores are done as they are written. */
  public Plan(
      ComputedLap computed,
      List<CornerEntry> entries,
      List<Planted> habits,
      int laps,
      double spread,
      double pace,
      int coldLaps,
      boolean outAndIn) {
    this(
        computed, entries, habits, laps, spread, pace, coldLaps, outAndIn, List.of(), List.of(),
        List.of());
  }

  /** The same with some actions done otherwise. */
  public Plan deviating(List<Deviation> otherwise, List<Aside> beside) {
    return new Plan(
        computed, entries, habits, laps, spread, pace, coldLaps, outAndIn, otherwise, beside,
        byLap);
  }

  /** The same with some laps driven otherwise. */
  public Plan inTurn(List<List<CornerEntry>> otherwise) {
    return new Plan(
        computed,
        entries,
        habits,
        laps,
        spread,
        pace,
        coldLaps,
        outAndIn,
        deviations,
        asides,
        otherwise);
  }

  /** What is driven on a lap, 1 for the first from line to line. */
  List<CornerEntry> on(int lap) {
    return lap >= 1 && lap <= byLap.size() ? byLap.get(lap - 1) : entries;
  }
}
