package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.hipparchus.stat.StatUtils;

/**
 * An action that comes at another time when the road is fast than when it is slow.
 *
 * @param slow seconds late at less than full speed, as a median; negative is early
 * @param fast the same at full speed
 */
public record AtSpeed(
    String corner, String action, Performance.Control key, double slow, double fast) {
  /** Presses of each from which that is told. */
  static final int FEWEST = 3;

  /** Seconds of the road that no press tells (common practice, no source). */
  static final double LEAST = 0.06;

  /**
   * A lap that was driven.
   *
   * @param rate 1 for full speed
   */
  public record Lap(double rate, List<Performance.Met> met) {
    public Lap {
      met = List.copyOf(met);
    }
  }

  private record Of(String corner, String action, Performance.Control key) {}

  /**
   * Actions that differ by more than their presses scatter, the most first.
   *
   * @param laps in any order
   */
  public static List<AtSpeed> of(List<Lap> laps) {
    Map<String, Of> what = new TreeMap<>();
    Map<String, List<Double>> slow = new TreeMap<>();
    Map<String, List<Double>> fast = new TreeMap<>();
    for (Lap lap : laps) {
      for (Performance.Met m : lap.met()) {
        String id = m.due().corner() + "/" + m.due().action();
        what.put(id, new Of(m.due().corner(), m.due().action(), m.due().key()));
        (lap.rate() < 1 ? slow : fast).computeIfAbsent(id, k -> new ArrayList<>()).add(m.seconds());
      }
    }
    List<AtSpeed> out = new ArrayList<>();
    what.forEach(
        (id, of) -> {
          double[] s = sorted(slow.getOrDefault(id, List.of()));
          double[] f = sorted(fast.getOrDefault(id, List.of()));
          if (s.length < FEWEST || f.length < FEWEST) {
            return;
          }
          double by = StatUtils.percentile(f, 50) - StatUtils.percentile(s, 50);
          double scatter =
              Math.sqrt(StatUtils.variance(s) / s.length + StatUtils.variance(f) / f.length);
          if (Math.abs(by) >= Math.max(LEAST, 2 * scatter)) {
            out.add(
                new AtSpeed(
                    of.corner(),
                    of.action(),
                    of.key(),
                    StatUtils.percentile(s, 50),
                    StatUtils.percentile(f, 50)));
          }
        });
    out.sort(Comparator.comparingDouble(a -> -Math.abs(a.fast() - a.slow())));
    return out;
  }

  private static double[] sorted(List<Double> values) {
    double[] out = values.stream().mapToDouble(v -> v).toArray();
    Arrays.sort(out);
    return out;
  }
}
