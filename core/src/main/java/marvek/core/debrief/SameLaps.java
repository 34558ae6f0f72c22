package marvek.core.debrief;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * Laps that two devices have recorded: one lap, whatever brought it.
 *
 * <p>A single lap of an even driver is like another; a session is not. Two recordings are of one
 * session where their laps agree in order: of the shorter at least two laps and three in four have
 * the lap time and the times along the road that the other's laps have, as closely as clocks and
 * positions tell.
 */
public final class SameLaps {
  // Seconds between the lap times, and root mean square between the times along the road.
  private static final double LAP = 0.05;
  private static final double ALONG = 0.06;
  private static final double NEAR = 0.3;
  private static final double SHARE = 0.75;
  private static final int FEWEST = 2;
  // Pieces of the road, and how closely laps of one session vary together in them.
  private static final int PIECES = 24;
  private static final double TOGETHER = 0.35;

  private SameLaps() {}

  /**
   * A lap of a recording.
   *
   * @param source recording; laps of one recording are never the same
   */
  public record Recorded(String source, LapData lap) {}

  /**
   * Each lap once: of those that are one lap the one with recorded pedals, or else the first.
   *
   * @param all in the order driven
   * @return indices of those that stay, in order
   */
  public static List<Integer> once(List<Recorded> all) {
    Map<String, List<Integer>> by = new LinkedHashMap<>();
    for (int i = 0; i < all.size(); i++) {
      by.computeIfAbsent(all.get(i).source(), s -> new ArrayList<>()).add(i);
    }
    List<List<Integer>> sources = List.copyOf(by.values());
    TreeSet<Integer> out = new TreeSet<>();
    for (int i = 0; i < all.size(); i++) {
      out.add(i);
    }
    for (int a = 0; a < sources.size(); a++) {
      for (int b = a + 1; b < sources.size(); b++) {
        for (int[] pair : alike(all, sources.get(a), sources.get(b))) {
          boolean first = all.get(pair[0]).lap().told() || !all.get(pair[1]).lap().told();
          if (out.contains(pair[0]) && out.contains(pair[1])) {
            out.remove(first ? pair[1] : pair[0]);
          }
        }
      }
    }
    return List.copyOf(out);
  }

  /** Pairs of laps that are one, where two recordings are of one session; none otherwise. */
  private static List<int[]> alike(List<Recorded> all, List<Integer> a, List<Integer> b) {
    List<int[]> best = List.of();
    List<int[]> beside = List.of();
    for (int shift = -b.size() + 1; shift < a.size(); shift++) {
      List<int[]> pairs = new ArrayList<>();
      List<int[]> near = new ArrayList<>();
      for (int k = 0; k < b.size(); k++) {
        int i = k + shift;
        if (i < 0 || i >= a.size()) {
          continue;
        }
        LapData one = all.get(a.get(i)).lap();
        LapData other = all.get(b.get(k)).lap();
        int[] pair = {a.get(i), b.get(k)};
        if (same(one, other)) {
          pairs.add(pair);
        }
        if (Math.abs(one.lapTime() - other.lapTime()) < NEAR) {
          near.add(pair);
        }
      }
      if (pairs.size() > best.size()) {
        best = pairs;
        beside = near;
      }
    }
    // Of one session the laps between are the same as well, where a device was out for one.
    int shorter = Math.min(a.size(), b.size());
    return best.size() >= Math.max(FEWEST, SHARE * shorter) && vary(all, best) ? beside : List.of();
  }

  /**
   * Whether laps differ from one to the next in the same places in both recordings: an even
   * driver's laps of another session are as alike, but not that. Two of them tell nothing.
   */
  private static boolean vary(List<Recorded> all, List<int[]> pairs) {
    if (pairs.size() <= FEWEST) {
      return true;
    }
    double[][] a = lessTheirMean(all, pairs, 0);
    double[][] b = lessTheirMean(all, pairs, 1);
    double ab = 0;
    double aa = 0;
    double bb = 0;
    for (int k = 0; k < a.length; k++) {
      for (int i = 0; i < a[k].length; i++) {
        ab += a[k][i] * b[k][i];
        aa += a[k][i] * a[k][i];
        bb += b[k][i] * b[k][i];
      }
    }
    return ab > TOGETHER * Math.sqrt(aa * bb);
  }

  /** Seconds of each lap's pieces of road, less the mean of all those laps. */
  private static double[][] lessTheirMean(List<Recorded> all, List<int[]> pairs, int which) {
    double[][] out = new double[pairs.size()][PIECES];
    double[] mean = new double[PIECES];
    for (int k = 0; k < out.length; k++) {
      LapData lap = all.get(pairs.get(k)[which]).lap();
      double length = lap.step() * (lap.times().length - 1);
      for (int i = 0; i < PIECES; i++) {
        out[k][i] = lap.at(length * (i + 1) / PIECES) - lap.at(length * i / PIECES);
        mean[i] += out[k][i] / out.length;
      }
    }
    for (double[] lap : out) {
      for (int i = 0; i < PIECES; i++) {
        lap[i] -= mean[i];
      }
    }
    return out;
  }

  private static boolean same(LapData a, LapData b) {
    if (a.times().length < 2 || b.times().length < 2 || Math.abs(a.lapTime() - b.lapTime()) > LAP) {
      return false;
    }
    double sum = 0;
    int n = a.times().length;
    for (int i = 0; i < n; i++) {
      double share = i / (double) (n - 1);
      // What the line differs by is not the way round's.
      double apart = a.times()[i] - b.at(i * a.step()) - share * (a.lapTime() - b.lapTime());
      sum += apart * apart;
    }
    return Math.sqrt(sum / n) < ALONG;
  }
}
