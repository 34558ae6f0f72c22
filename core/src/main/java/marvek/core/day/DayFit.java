package marvek.core.day;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * On which of a reference's days laps were driven.
 *
 * <p>The driver's word wins. Without it laps go to the day whose grip is nearest to what they use
 * across: the reference's own dry day where that agrees within 5 %, then the nearest within 10 %;
 * laps that agree with none have no day. A run is taken as one while its laps lie within 10 % of
 * that day, and split by lap beyond. Laps of one day that drift by more than 10 % were driven while
 * the road changed: no day fits them. What is used across tells grip, not mass, wind or tow; such
 * days are the driver's to name.
 *
 * @param said whether the driver said it
 * @param parts laps by day, in the order in which their first laps were driven
 */
public record DayFit(boolean said, List<Part> parts) {
  /** Share of the grip within which a day agrees with laps. */
  public static final double AGREES = 0.05;

  /** Share of the grip beyond which no day fits. */
  public static final double FARTHEST = 0.10;

  // Of a drive with so few laps the lowest and the highest are no drift.
  private static final int FEW = 4;

  public DayFit {
    parts = List.copyOf(parts);
  }

  /**
   * A day of a reference.
   *
   * @param id of the variant; empty for the reference's own day
   * @param called in the driver's words
   * @param grip factor on the reference's own grip
   */
  public record Candidate(String id, Said called, double grip) {}

  /**
   * A lap.
   *
   * @param id of it
   * @param grip what it uses across, as a factor on what the reference's own computed lap uses; NaN
   *     where it cannot be told
   */
  public record Lap(String id, double grip) {
    /** One of which it may not be known what it uses. */
    public static Lap of(String id, @Nullable Double grip) {
      return new Lap(id, grip == null ? Double.NaN : grip);
    }
  }

  /**
   * Laps of one day.
   *
   * @param day or null where none fits
   * @param laps ids, in the order driven
   * @param grip used across, middle of the laps; NaN where it cannot be told
   * @param sure whether the driver said so or the grips agree within 5 %: nothing is to be changed
   *     on the word of laps of which it is not sure on which day they were driven
   * @param steady whether the laps tell a grip and keep to it: only then is there a day like them
   * @param words why
   */
  public record Part(
      @Nullable Candidate day,
      List<String> laps,
      double grip,
      boolean sure,
      boolean steady,
      Said words) {
    public Part {
      laps = List.copyOf(laps);
    }
  }

  /**
   * Finds the day of each lap.
   *
   * @param days the reference's own first
   * @param laps in the order driven
   * @param word id of the day that the driver named; null without one. An id that is not among the
   *     days means a day that the reference does not have
   * @param called what such a day is called
   */
  public static DayFit of(
      List<Candidate> days, List<Lap> laps, @Nullable String word, Said called) {
    if (word != null) {
      Optional<Candidate> named = days.stream().filter(d -> d.id().equals(word)).findFirst();
      double grip = middle(laps);
      boolean steady = !Double.isNaN(grip) && drift(laps) <= FARTHEST;
      return new DayFit(
          true,
          List.of(
              named
                  .map(d -> new Part(d, ids(laps), grip, true, steady, Said.of("day.said")))
                  .orElseGet(
                      () ->
                          new Part(
                              null,
                              ids(laps),
                              grip,
                              false,
                              steady,
                              and(Said.of("day.none_such", called.in()), used(grip))))));
    }
    List<Part> parts = new ArrayList<>();
    List<Lap> left = new ArrayList<>(laps);
    while (!left.isEmpty()) {
      // A lap in the middle of those left stands for its like, so that no single lap is split off
      // by what scatters from lap to lap.
      double[] known = known(left);
      double middle = known.length == 0 ? Double.NaN : known[(known.length - 1) / 2];
      Optional<Candidate> day = nearest(days, middle);
      double grip = day.map(Candidate::grip).orElse(middle);
      List<Lap> alike =
          left.stream()
              .filter(l -> known.length == 0 || Math.abs(l.grip() / grip - 1) <= FARTHEST)
              .toList();
      left.removeAll(alike);
      parts.add(part(day, alike));
    }
    List<String> order = ids(laps);
    parts.sort(Comparator.comparingInt(p -> order.indexOf(p.laps().get(0))));
    return new DayFit(false, parts);
  }

  /** Grips of those laps that tell one, in order of size. */
  private static double[] known(List<Lap> laps) {
    return laps.stream().mapToDouble(Lap::grip).filter(g -> !Double.isNaN(g)).sorted().toArray();
  }

  private static Part part(Optional<Candidate> day, List<Lap> laps) {
    double grip = middle(laps);
    if (Double.isNaN(grip)) {
      // Laps that tell nothing of the grip are not held against anything but the driver's word.
      return new Part(null, ids(laps), grip, false, false, Said.of("day.untold"));
    }
    double drift = drift(laps);
    if (drift > FARTHEST) {
      return new Part(
          null, ids(laps), grip, false, false, Said.of("day.drifts", Value.percent(drift)));
    }
    if (day.isEmpty()) {
      return new Part(
          null, ids(laps), grip, false, true, and(Said.of("day.none_near"), used(grip)));
    }
    double off = Math.abs(grip / day.get().grip() - 1);
    return new Part(
        day.get(),
        ids(laps),
        grip,
        off <= AGREES,
        true,
        Said.of(
            off > AGREES ? "day.nearest" : "day.told",
            Value.percent(grip),
            day.get().called().in(),
            Value.percent(day.get().grip())));
  }

  /** How far the laps drift: between those at the ends, as a share. */
  private static double drift(List<Lap> laps) {
    double[] x = laps.stream().mapToDouble(Lap::grip).filter(g -> !Double.isNaN(g)).toArray();
    if (x.length < FEW) {
      return 0;
    }
    int end = Math.max(2, x.length / 3);
    double first = median(Arrays.copyOfRange(x, 0, end));
    double last = median(Arrays.copyOfRange(x, x.length - end, x.length));
    return Math.abs(last - first) / median(x);
  }

  private static Optional<Candidate> nearest(List<Candidate> days, double grip) {
    if (Double.isNaN(grip)) {
      return Optional.empty();
    }
    if (!days.isEmpty() && off(days.get(0), grip) <= AGREES) {
      return Optional.of(days.get(0));
    }
    Candidate best = null;
    for (Candidate d : days) {
      if (best == null || off(d, grip) < off(best, grip) - 1e-9) {
        best = d;
      }
    }
    return best == null || off(best, grip) > FARTHEST ? Optional.empty() : Optional.of(best);
  }

  private static double off(Candidate day, double grip) {
    return Math.abs(grip / day.grip() - 1);
  }

  private static Optional<Said> used(double grip) {
    return Double.isNaN(grip)
        ? Optional.empty()
        : Optional.of(Said.of("day.used", Value.percent(grip)));
  }

  private static Said and(Said first, Optional<Said> second) {
    return second.map(first::then).orElse(first);
  }

  private static List<String> ids(List<Lap> laps) {
    return laps.stream().map(Lap::id).toList();
  }

  private static double middle(List<Lap> laps) {
    return median(laps.stream().mapToDouble(Lap::grip).filter(g -> !Double.isNaN(g)).toArray());
  }

  private static double median(double[] x) {
    if (x.length == 0) {
      return Double.NaN;
    }
    double[] sorted = x.clone();
    Arrays.sort(sorted);
    int h = sorted.length / 2;
    return sorted.length % 2 == 1 ? sorted[h] : (sorted[h - 1] + sorted[h]) / 2;
  }
}
