package marvek.core.debrief;

import java.util.List;
import java.util.Optional;
import marvek.core.plan.ComputedLap;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.LapSketch;
import org.jspecify.annotations.Nullable;

/**
 * A lap as a debrief sees it.
 *
 * @param id whose evidence it is
 * @param run that it was driven in; laps are set against others of the same run
 * @param number in the order driven
 * @param lapTime seconds
 * @param step metres between the stations of {@code times}
 * @param times seconds since the line at stations 0, step, 2·step, …, the last at the end of the
 *     lap
 * @param events of each corner
 * @param told whether the pedals were recorded, and not only told from the speed
 * @param sketch what feet and hand did; null for laps of before and those without channels
 */
public record LapData(
    String id,
    String run,
    int number,
    double lapTime,
    double step,
    double[] times,
    List<CornerEvents> events,
    boolean told,
    @Nullable LapSketch sketch) {
  public LapData {
    events = List.copyOf(events);
  }

  /** A lap of which no sketch was kept. */
  public LapData(
      String id,
      String run,
      int number,
      double lapTime,
      double step,
      double[] times,
      List<CornerEvents> events,
      boolean told) {
    this(id, run, number, lapTime, step, times, events, told, null);
  }

  /** Seconds of the computed lap as a lap of data, for comparison. */
  public static LapData of(ComputedLap computed, double step) {
    int n = (int) Math.ceil(computed.road().length() / step - 1e-9);
    double[] times = new double[n + 1];
    double[] time = computed.lap().time();
    for (int i = 0; i < n; i++) {
      double at = i * step / computed.road().step();
      int k = (int) at;
      double a = time[Math.min(k, time.length - 1)];
      double b = k + 1 < time.length ? time[k + 1] : computed.lap().lapTime();
      times[i] = a + (at - k) * (b - a);
    }
    times[n] = computed.lap().lapTime();
    return new LapData("computed", "", 0, computed.lap().lapTime(), step, times, List.of(), true);
  }

  /** The same without what was measured from a computed line, where it was another day's. */
  public LapData withoutLine() {
    return new LapData(
        id,
        run,
        number,
        lapTime,
        step,
        times,
        events.stream().map(CornerEvents::withoutLine).toList(),
        told,
        sketch);
  }

  /** What happened in a corner, by its id. */
  public Optional<CornerEvents> corner(String corner) {
    return events.stream().filter(e -> e.corner().equals(corner)).findFirst();
  }

  /** Seconds since the line at a station in [0, length]. */
  public double at(double station) {
    double at = station / step;
    int i = (int) Math.max(0, Math.min(times.length - 2, Math.floor(at)));
    double a = times[i];
    // The last step is as long as what is left of the lap.
    double u = Math.max(0, Math.min(1, at - i));
    return a + u * (times[i + 1] - a);
  }
}
