package marvek.core.review;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import marvek.core.entry.CornerEntry;
import marvek.core.plan.CornerAnswer;

/**
 * What a corner is worth working on.
 *
 * @param corner id
 * @param place in the computed order, 1 is the first
 * @param own place that the driver gave it, or 0
 * @param seconds on offer: what the plan leaves, and what {@link #WITHIN_REACH} more at the exit
 *     gives
 * @param left seconds that the plan gives away against the computed best
 * @param perKmh seconds that 1 km/h more at the exit gives up to the next braking
 * @param metres at the lowest speed that this is: what may be lost before it for that
 */
public record Worth(
    String corner, int place, int own, double seconds, double left, double perKmh, double metres) {
  /** km/h at the exit that a driver can still find (common practice, no source). */
  public static final double WITHIN_REACH = 2;

  /**
   * All corners, most worth first; those that the driver placed stand at their place.
   *
   * @param entries with their answers in the same order
   */
  public static List<Worth> order(List<CornerEntry> entries, List<CornerAnswer> answers) {
    List<Worth> worths =
        IntStream.range(0, entries.size())
            .mapToObj(i -> of(entries.get(i), answers.get(i)))
            .sorted(Comparator.comparingDouble(Worth::seconds).reversed())
            .toList();
    List<Worth> placed = new ArrayList<>();
    for (int i = 0; i < worths.size(); i++) {
      Worth w = worths.get(i);
      placed.add(new Worth(w.corner, i + 1, w.own, w.seconds, w.left, w.perKmh, w.metres));
    }
    List<Worth> out = new ArrayList<>(placed.stream().filter(w -> w.own == 0).toList());
    placed.stream()
        .filter(w -> w.own > 0)
        .sorted(Comparator.comparingInt(Worth::own))
        .forEach(w -> out.add(Math.min(out.size(), w.own - 1), w));
    return List.copyOf(out);
  }

  private static Worth of(CornerEntry e, CornerAnswer a) {
    Double effect = a.lapEffect();
    double left = effect == null ? 0 : Math.max(0, effect);
    Integer own = e.priority();
    return new Worth(
        e.corner(),
        0,
        own == null ? 0 : own,
        left + WITHIN_REACH * a.exit().seconds(),
        left,
        a.exit().seconds(),
        a.exit().metres());
  }
}
