package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Path;

/**
 * The brakings of a lap, and the corners that they belong to.
 *
 * <p>A braking begins where the brake passes {@link #ONSET} of what it can give there, and runs
 * while the wheels are braked: a gap shorter than {@link #GAP}, or one shorter than {@link #ROLLS}
 * that regains less than {@link #REGAINED}, does not end it; but where the brake, eased through one
 * corner, is pressed harder by {@link #HARDER} for the next, another begins. It belongs to the
 * corner whose apex comes next where it begins; so one between two corners belongs to the next, and
 * one that runs on through a corner to that one.
 */
public final class Brakings {
  /** Share of what the brake can give from which on it counts as pressed. */
  static final double ONSET = 0.03;

  /** Seconds without brakes that do not end a braking. */
  static final double GAP = 0.5;

  /** Share of the brake by which it is pressed harder again where a new braking begins. */
  static final double HARDER = 0.3;

  /** Share of the brake up to which touches after the slowest place only hold the speed. */
  static final double HOLDS = 0.3;

  /** m/s regained between two presses that do not make two brakings of them. */
  static final double REGAINED = 1;

  /** Seconds without brakes that end a braking, however little is regained. */
  static final double ROLLS = 1.5;

  /** Every braking that takes off more than this, m/s, has a point in a draft. */
  public static final double COUNTS = 4;

  /**
   * Where no braking of a corner counts, one that takes off more than this, m/s, and is pressed to
   * {@link #FELT} is still braked for; what is less is lifted for.
   */
  static final double LIGHT = 3;

  /** Share of the brake below which a light braking is no more than rolling. */
  static final double FELT = 0.1;

  /**
   * A braking.
   *
   * @param onset index of the station where the brake is pressed
   * @param end index of the last braked station
   * @param slowest index of the slowest station that it serves
   * @param from m/s at its onset
   * @param to m/s at its slowest
   * @param peak greatest share of the brake
   */
  public record Braking(int onset, int end, int slowest, double from, double to, double peak) {
    double lost() {
      return from - to;
    }
  }

  private final List<Braking> all;
  private final List<List<Braking>> ofCorner;

  private Brakings(List<Braking> all, List<List<Braking>> ofCorner) {
    this.all = List.copyOf(all);
    this.ofCorner = ofCorner.stream().map(List::copyOf).toList();
  }

  /** Reads the brakings of a lap. */
  static Brakings of(Centreline road, Path path, LapTrace lap, List<Corner> corners) {
    List<Braking> all =
        runs(path, lap).stream()
            .flatMap(r -> parts(road, lap, corners, r).stream())
            .map(r -> braking(lap, r[0], r[1]))
            .filter(b -> b.peak() > FELT ? b.lost() > LIGHT : rolled(lap, b) > COUNTS)
            .toList();
    List<List<Braking>> ofCorner = new ArrayList<>();
    corners.forEach(c -> ofCorner.add(new ArrayList<>()));
    for (Braking b : all) {
      int c = next(road, corners, b.onset());
      if (c >= 0) {
        ofCorner.get(c).add(b);
      }
    }
    for (int c = 0; c < corners.size(); c++) {
      double apex = corners.get(c).apex();
      ofCorner
          .get(c)
          .sort(Comparator.comparingDouble(b -> -road.ahead(b.onset() * road.step(), apex)));
    }
    return new Brakings(all, ofCorner);
  }

  /**
   * What a braking takes off while the brake is touched: of a touch that is no more than rolling,
   * the bend takes off the rest, and lifting is enough for that.
   */
  private static double rolled(LapTrace lap, Braking b) {
    return b.from() - lap.speed()[(b.end() + 1) % lap.size()];
  }

  /** All that are braked for, from the start/finish line on. */
  List<Braking> all() {
    return all;
  }

  /**
   * The brakings that a corner is slowed for with, in driving order: those that count, or else the
   * one light one that takes off most. Empty where lifting is enough.
   */
  public List<Braking> of(int c) {
    List<Braking> mine = ofCorner.get(c);
    List<Braking> counting = mine.stream().filter(b -> b.lost() > COUNTS).toList();
    return counting.isEmpty()
        ? mine.stream().max(Comparator.comparingDouble(Braking::lost)).stream().toList()
        : counting;
  }

  /** First and last braked station of each run of the brakes; the last may lie past the line. */
  private static List<int[]> runs(Path path, LapTrace lap) {
    int n = lap.size();
    int start = afterMostRegained(lap);
    List<int[]> runs = new ArrayList<>();
    for (int k = start; k < start + n; k++) {
      if (lap.brake()[k % n] <= ONSET) {
        continue;
      }
      int[] last = runs.isEmpty() ? null : runs.get(runs.size() - 1);
      if (last != null && joins(path, lap, last, k)) {
        last[1] = k;
      } else {
        runs.add(new int[] {k, k});
      }
    }
    return runs;
  }

  /** The corner whose apex comes next at a station; -1 without corners. */
  private static int next(Centreline road, List<Corner> corners, int station) {
    double at = road.wrap(station * road.step());
    return IntStream.range(0, corners.size())
        .boxed()
        .min(Comparator.comparingDouble(c -> road.ahead(at, corners.get(c).apex())))
        .orElse(-1);
  }

  /**
   * The parts of a run of the brakes: where it is eased through one corner and pressed again for
   * the next, a new braking begins, though it was never let go.
   */
  private static List<int[]> parts(Centreline road, LapTrace lap, List<Corner> corners, int[] run) {
    int n = lap.size();
    List<int[]> parts = new ArrayList<>();
    int begin = run[0];
    for (int k = begin; k < run[1]; k++) {
      boolean past = next(road, corners, k % n) != next(road, corners, begin % n);
      if (!past) {
        continue;
      }
      int end = k;
      while (end < run[1] && next(road, corners, (end + 1) % n) == next(road, corners, k % n)) {
        end++;
      }
      int again = again(lap, k, end);
      if (again >= 0
          && lap.speed()[begin % n] - lap.speed()[again % n] > COUNTS
          && lap.speed()[again % n] - lap.speed()[run[1] % n] > COUNTS) {
        int last = again - 1;
        while (last > begin && lap.brake()[last % n] <= ONSET) {
          last--;
        }
        parts.add(new int[] {begin, last});
        begin = again;
      }
      k = end;
    }
    parts.add(new int[] {begin, run[1]});
    return parts;
  }

  /** Index from which the brake, eased, is pressed much harder again; -1 if it is not. */
  private static int again(LapTrace lap, int from, int to) {
    int n = lap.size();
    int low = from;
    int high = -1;
    for (int k = from; k <= to; k++) {
      if (high < 0 && lap.brake()[k % n] < lap.brake()[low % n]) {
        low = k;
      } else if (lap.brake()[k % n] > lap.brake()[low % n] + HARDER) {
        high = k;
        break;
      }
    }
    for (int k = high; k > low; k--) {
      if (lap.brake()[k % n] <= lap.brake()[low % n] + HARDER / 3) {
        return k;
      }
    }
    return high < 0 ? -1 : low + 1;
  }

  /**
   * Index where the brake is pressed after the way without it that regains the most speed, which
   * surely ends a braking; 0 where it never is.
   */
  private static int afterMostRegained(LapTrace lap) {
    int n = lap.size();
    double least = Double.MAX_VALUE;
    double regained = 0;
    double most = -1;
    int start = 0;
    for (int k = 0; k < 2 * n; k++) {
      double v = lap.speed()[k % n];
      if (lap.brake()[k % n] <= ONSET) {
        least = Math.min(least, v);
        regained = Math.max(regained, v - least);
        continue;
      }
      if (k >= n && regained > most) {
        most = regained;
        start = k % n;
      }
      least = v;
      regained = 0;
    }
    return start;
  }

  private static boolean joins(Path path, LapTrace lap, int[] run, int again) {
    int n = lap.size();
    double seconds = 0;
    double least = Double.MAX_VALUE;
    // Speed that is regained and rolled off again before the brake has been regained all the same.
    double regained = 0;
    for (int k = run[0]; k <= again; k++) {
      least = Math.min(least, lap.speed()[k % n]);
      if (k >= run[1]) {
        regained = Math.max(regained, lap.speed()[k % n] - least);
        seconds += k < again ? path.step()[k % n] / lap.speed()[k % n] : 0;
      }
    }
    return seconds < GAP || seconds < ROLLS && regained < REGAINED;
  }

  private static Braking braking(LapTrace lap, int first, int last) {
    int n = lap.size();
    int slowest = last + 1;
    for (int k = first; k <= last + 1; k++) {
      slowest = lap.speed()[k % n] < lap.speed()[slowest % n] ? k : slowest;
    }
    // Rolling on to the slowest place still belongs to the braking.
    while (slowest > last
        && slowest < last + n / 4
        && lap.speed()[(slowest + 1) % n] <= lap.speed()[slowest % n]
        && lap.brake()[slowest % n] <= ONSET) {
      slowest++;
    }
    double peak = 0;
    double after = 0;
    for (int k = first; k <= last; k++) {
      peak = Math.max(peak, lap.brake()[k % n]);
      after = k > slowest ? Math.max(after, lap.brake()[k % n]) : after;
    }
    // Touches that only hold the speed of the slowest place are no braking any more.
    int end = after > HOLDS ? last : Math.max(first, Math.min(last, slowest));
    return new Braking(
        first % n, end % n, slowest % n, lap.speed()[first % n], lap.speed()[slowest % n], peak);
  }
}
