package marvek.core.line;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.lap.Path;
import org.jspecify.annotations.Nullable;

/**
 * Where a line does what in a corner.
 *
 * @param corner id of the corner
 * @param turnIn station where steering starts
 * @param apexes stations closest to the inside edge, one or two
 * @param exit station where the line is let run to
 * @param apexGap metres between the inside edge and the middle of the vehicle at the last apex
 * @param type early, middle or late
 */
public record CornerLine(
    String corner, double turnIn, List<Double> apexes, double exit, double apexGap, ApexType type) {

  // An earlier apex is kept where the line comes as near to the inside but for so much, metres.
  private static final double KEPT = 0.1;
  // Metres to each side within which a touch is the same one.
  private static final double SAME_TOUCH = 15;

  /** Metres for which hands that rest on the way have not left the corner. */
  public static final double REST = 22;

  /** Metres before a long corner's entry within which it is turned into. */
  public static final double BEFORE_ENTRY = 60;

  /** Metres before its apex within which a corner is turned into. */
  public static final double LONGEST = 300;

  public CornerLine {
    apexes = List.copyOf(apexes);
  }

  /** The apex from which the exit is built. */
  public double apex() {
    return apexes.get(apexes.size() - 1);
  }

  /** The same line, turned in elsewhere, m. */
  public CornerLine turningInAt(double station) {
    return new CornerLine(corner, station, apexes, exit, apexGap, type);
  }

  /** Reads every corner of a line. */
  public static List<CornerLine> all(Centreline road, Path path, List<Corner> corners) {
    return all(road, path, corners, null);
  }

  /**
   * Reads every corner of a line that was found near an earlier one. Where a bend is touched on the
   * inside in two places about equally, the one that was the apex before stays it.
   *
   * @param earlier the corners of the earlier line, or null
   */
  public static List<CornerLine> all(
      Centreline road, Path path, List<Corner> corners, @Nullable List<CornerLine> earlier) {
    List<CornerLine> out = new ArrayList<>();
    int count = corners.size();
    for (int c = 0; c < count; c++) {
      out.add(at(road, path, corners, c, earlier == null ? List.of() : earlier.get(c).apexes()));
    }
    return List.copyOf(out);
  }

  /** Reads one corner of a line. */
  public static CornerLine at(Centreline road, Path path, List<Corner> corners, int c) {
    return at(road, path, corners, c, List.of());
  }

  private static CornerLine at(
      Centreline road, Path path, List<Corner> corners, int c, List<Double> kept) {
    int count = corners.size();
    Corner corner = corners.get(c);
    Corner before = corners.get((c + count - 1) % count);
    Corner after = corners.get((c + 1) % count);
    double back = count == 1 ? 150 : road.ahead(before.apex(), corner.apexes().get(0));
    double onward = count == 1 ? 150 : road.ahead(corner.apex(), after.apexes().get(0));
    double turns = count == 1 ? back : turnsWithin(road, before, corner, back);
    return of(road, path, corner, 0.75 * back, turns, Math.min(150, 0.6 * onward), kept);
  }

  private static CornerLine of(
      Centreline road,
      Path path,
      Corner corner,
      double back,
      double turns,
      double onward,
      List<Double> kept) {
    Loop loop = road.loop();
    double slack = Math.min(25, 0.3 * Math.min(Math.min(150, back), onward));
    List<Double> apexes = new ArrayList<>();
    if (corner.apexes().size() == 2) {
      double middle =
          corner.apexes().get(0) + road.ahead(corner.apexes().get(0), corner.apexes().get(1)) / 2;
      apexes.add(closest(road, path, corner, corner.entry() - slack, middle, kept));
      double second = closest(road, path, corner, middle, corner.exit() + slack, kept);
      if (road.ahead(apexes.get(0), second) > 15) {
        apexes.add(second);
      }
    } else {
      // A long bend may be touched on the inside in more than one place: look near its tightest.
      double span = road.ahead(corner.entry(), corner.exit());
      double reach = Math.max(slack + 10, 0.35 * span);
      double from = Math.min(reach, road.ahead(corner.entry(), corner.apex()) + slack);
      double to = Math.min(reach, road.ahead(corner.apex(), corner.exit()) + slack);
      apexes.add(closest(road, path, corner, corner.apex() - from, corner.apex() + to, kept));
    }
    double sign = corner.left() ? 1 : -1;
    double turnIn = turnIn(road, path, corner, apexes.get(0), Math.min(back, turns));
    double last = apexes.get(apexes.size() - 1);
    int lastIndex = road.index(last);
    int reach = (int) (onward / road.step());
    int exit = lastIndex + Math.max(1, reach / 2);
    double widest = -Double.MAX_VALUE;
    for (int j = 5; j <= reach; j++) {
      int i = loop.at(lastIndex + j);
      double out = -sign * path.offset()[i] - (corner.left() ? road.right()[i] : road.left()[i]);
      if (out > widest + 0.02) {
        widest = out;
        exit = lastIndex + j;
      }
    }
    int gapIndex = road.index(last);
    double edge = corner.left() ? road.left()[gapIndex] : road.right()[gapIndex];
    return new CornerLine(
        corner.id(),
        turnIn,
        apexes,
        road.wrap(exit * road.step()),
        edge - sign * path.offset()[gapIndex],
        type(road, corner, last));
  }

  /**
   * Metres before its first apex within which a corner is turned into: after a corner of the same
   * direction from that one's end on, as the hands hold from one to the other.
   *
   * @param back metres from the apex before
   */
  public static double turnsWithin(Centreline road, Corner before, Corner corner, double back) {
    return before.left() == corner.left()
        ? Math.min(back, road.ahead(before.exit(), corner.apexes().get(0)))
        : back;
  }

  /**
   * Station where a path has come to bend by about three tenths of its most in a corner, up to the
   * middle between two apexes, see {@link Onset}.
   *
   * @param apex station of the first apex
   * @param back metres before the apex that belong to the corner at the most, where it is not long
   */
  public static double turnIn(Centreline road, Path path, Corner corner, double apex, double back) {
    Loop loop = road.loop();
    double sign = corner.left() ? 1 : -1;
    int apexIndex = road.index(apex);
    double before = road.apart(corner.entry(), apexIndex * road.step());
    int entry = apexIndex - (int) (Math.max(0, before) / road.step());
    double until;
    if (corner.apexes().size() == 2) {
      until = road.ahead(corner.entry(), corner.apexes().get(0));
      until += road.ahead(corner.apexes().get(0), corner.apexes().get(1)) / 2;
    } else {
      until = road.ahead(corner.entry(), corner.exit());
    }
    int end = Math.max(apexIndex + 1, entry + (int) (until / road.step()));
    double longest = Math.max(before, Math.min(back, Math.max(LONGEST, before + BEFORE_ENTRY)));
    int most = apexIndex - (int) (longest / road.step());
    double at =
        Onset.of(
            k -> sign * path.curvature()[loop.at(k)],
            k -> k * road.step(),
            entry,
            apexIndex,
            end,
            most,
            REST);
    return road.wrap(at);
  }

  /**
   * Station closest to the inside edge between two, in the middle of where the line runs along it;
   * one of those kept where the line is nearly as close there.
   */
  private static double closest(
      Centreline road, Path path, Corner corner, double from, double to, List<Double> kept) {
    int first = (int) Math.ceil(from / road.step());
    int count = (int) Math.max(1, road.ahead(from, to) / road.step());
    int best = closest(road, path, corner, first, first + count);
    int around = (int) (SAME_TOUCH / road.step());
    for (double apex : kept) {
      int was = first + road.loop().ahead(first, road.index(apex));
      if (was > first + count) {
        continue;
      }
      if (gap(road, path, corner, was) < gap(road, path, corner, best) + KEPT) {
        return road.wrap(apex);
      }
      int low = Math.max(first, was - around);
      int high = Math.min(first + count, was + around);
      int near = closest(road, path, corner, low, high);
      // At an end of what is looked at the line only comes from or goes on to another touch.
      boolean touch = (near > low || low == first) && (near < high || high == first + count);
      boolean close = gap(road, path, corner, near) < gap(road, path, corner, best) + KEPT;
      best = touch && close ? near : best;
    }
    double least = gap(road, path, corner, best);
    // The line may run along the inside for a while: the apex is the middle of that.
    int end = best;
    while (end < first + count && gap(road, path, corner, end + 1) <= least + 0.05) {
      end++;
    }
    return road.wrap((best + end) / 2 * road.step());
  }

  private static int closest(Centreline road, Path path, Corner corner, int first, int last) {
    int best = first;
    double least = Double.MAX_VALUE;
    for (int k = first; k <= last; k++) {
      double gap = gap(road, path, corner, k);
      if (gap < least - 1e-3) {
        least = gap;
        best = k;
      }
    }
    return best;
  }

  /** Metres between a line and the inside edge. */
  private static double gap(Centreline road, Path path, Corner corner, int k) {
    int i = road.loop().at(k);
    return corner.left() ? road.left()[i] - path.offset()[i] : road.right()[i] + path.offset()[i];
  }

  /** By how much of the corner's angle lies before the apex. */
  static ApexType type(Centreline road, Corner corner, double apex) {
    double turned = 0;
    Loop loop = road.loop();
    int first = road.index(corner.entry());
    int count = (int) (road.ahead(corner.entry(), corner.exit()) / road.step());
    double until = road.apart(corner.entry(), apex);
    double whole = 0;
    for (int k = 0; k <= count; k++) {
      double bend = Math.abs(road.curvature()[loop.at(first + k)]);
      whole += bend;
      turned += k * road.step() <= until ? bend : 0;
    }
    double share = whole > 0 ? turned / whole : 0.5;
    return share < 0.42 ? ApexType.EARLY : share > 0.58 ? ApexType.LATE : ApexType.MIDDLE;
  }
}
