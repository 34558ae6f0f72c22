package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.plan.ComputedLap;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * A lap on the clock: where one is at each moment, and what is due when. The road runs on the plan
 * whatever is pressed.
 *
 * @param lapTime seconds
 * @param step metres between the samples
 * @param times seconds at each sample, from the start of the lap
 * @param due actions in driving order
 */
public record Drive(double lapTime, double step, double[] times, List<Performance.DueAction> due) {
  public Drive {
    due = List.copyOf(due);
  }

  /**
   * The lap of a day.
   *
   * @param entries as they are to be driven on it
   */
  public static Drive of(ComputedLap then, List<CornerEntry> entries) {
    int n = then.path().size();
    double[] times = new double[n];
    double t = 0;
    for (int i = 0; i < n; i++) {
      times[i] = t;
      double v = then.lap().speed()[i] + then.lap().speed()[(i + 1) % n];
      t += 2 * then.path().step()[i] / v;
    }
    double step = then.road().step();
    List<Performance.DueAction> due = new ArrayList<>();
    for (CornerEntry e : entries) {
      for (Action a : Score.of(then.road(), e)) {
        Performance.@Nullable Control key = Facts.key(a.kind());
        if (key != null) {
          due.add(
              new Performance.DueAction(
                  e.corner(),
                  a.id(),
                  key,
                  at(times, t, step, a.station()),
                  a.station(),
                  amount(a)));
        }
      }
    }
    due.sort(Comparator.comparingDouble(Performance.DueAction::at));
    return new Drive(t, step, times, due);
  }

  /** As planned; a braking that says nothing else is a full one. */
  private static @Nullable Double amount(Action a) {
    Double share = a.amount();
    if (share == null && a.kind() == ActionKind.BRAKE) {
      return 1.0;
    }
    return a.kind().shared() ? share : null;
  }

  private static double at(double[] times, double lapTime, double step, double station) {
    double x = station / step;
    int i = Math.min(times.length - 1, (int) Math.floor(x));
    double next = i + 1 < times.length ? times[i + 1] : lapTime;
    return times[i] + (x - i) * (next - times[i]);
  }

  /** Metres from the line at a time of the road, going on past the end of the lap. */
  public double station(double seconds) {
    double laps = Math.floor(seconds / lapTime);
    double within = seconds - laps * lapTime;
    int low = 0;
    int high = times.length - 1;
    while (low < high) {
      int middle = (low + high + 1) / 2;
      if (times[middle] <= within) {
        low = middle;
      } else {
        high = middle - 1;
      }
    }
    double next = low + 1 < times.length ? times[low + 1] : lapTime;
    double share = next > times[low] ? (within - times[low]) / (next - times[low]) : 0;
    return (laps * times.length + low + share) * step;
  }
}
