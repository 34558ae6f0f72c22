package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.NOT_CLOSED;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_FEW_POINTS;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** Makes one closed lap of the points of a file: doubles and spikes out, further laps cut. */
final class LapTrim {
  private static final double DOUBLE = 0.02;
  private static final int FEWEST = 8;

  private final Outline outline;
  private final List<Said> remarks;

  private LapTrim(Outline outline, List<Said> remarks) {
    this.outline = outline;
    this.remarks = remarks;
  }

  /**
   * Returns the points of one lap, the first not repeated at the end.
   *
   * @param outline in metres
   * @param remarks takes what was mended
   */
  static Outline closedLap(Outline outline, List<Said> remarks) {
    LapTrim trim = new LapTrim(outline, remarks);
    List<Integer> keep = trim.withoutDoubles();
    trim.needEnough(keep);
    keep = trim.withoutSpikes(keep);
    Outline several =
        SeveralLaps.middle(
            outline.only(keep.stream().mapToInt(Integer::intValue).toArray()), remarks);
    if (several != null) {
      return several;
    }
    keep = trim.oneLap(keep);
    trim.needEnough(keep);
    return outline.only(keep.stream().mapToInt(Integer::intValue).toArray());
  }

  private double gap(int a, int b) {
    return Math.hypot(outline.x()[a] - outline.x()[b], outline.y()[a] - outline.y()[b]);
  }

  private void needEnough(List<Integer> keep) {
    if (keep.size() < FEWEST) {
      throw OutlineProblem.of(
          TOO_FEW_POINTS,
          "refusal.circuit.only_different_points_left",
          Value.figure(keep.size(), 0),
          Value.figure(FEWEST, 0));
    }
  }

  private List<Integer> withoutDoubles() {
    List<Integer> keep = new ArrayList<>();
    for (int i = 0; i < outline.size(); i++) {
      if (keep.isEmpty() || gap(keep.get(keep.size() - 1), i) > DOUBLE) {
        keep.add(i);
      }
    }
    return keep;
  }

  /** A spike: a point far off the way between its neighbours, there and back. */
  private List<Integer> withoutSpikes(List<Integer> points) {
    double usual = median(points);
    List<Integer> keep = new ArrayList<>(points);
    int dropped = 0;
    Said first = null;
    for (int k = 1; k + 1 < keep.size(); k++) {
      int a = keep.get(k - 1);
      int b = keep.get(k);
      int c = keep.get(k + 1);
      double detour = gap(a, b) + gap(b, c);
      if (detour > 3 * gap(a, c) + 6 * usual && Math.min(gap(a, b), gap(b, c)) > 4 * usual) {
        first = dropped == 0 ? outline.where(b) : first;
        keep.remove(k);
        dropped++;
        k = Math.max(0, k - 2);
      }
    }
    if (dropped > 0) {
      remarks.add(
          Said.of(
              "report.circuit.stray_points",
              Value.count(dropped),
              Objects.requireNonNull(first).in()));
    }
    return keep;
  }

  private List<Integer> oneLap(List<Integer> points) {
    double usual = median(points);
    double near = Math.max(12, 1.5 * usual);
    int start = points.get(0);
    double far = 0;
    double way = 0;
    int best = -1;
    for (int k = 1; k < points.size(); k++) {
      way += gap(points.get(k - 1), points.get(k));
      double distance = gap(start, points.get(k));
      far = Math.max(far, distance);
      boolean home = far > 40 && way > 150 && distance < near && sameWay(points, k);
      if (home && (best < 0 || distance < gap(start, points.get(best)))) {
        best = k;
      } else if (best >= 0 && !home) {
        break;
      }
    }
    if (best > 0) {
      if (points.size() - best > 3) {
        remarks.add(
            Said.of("report.circuit.points_go_round_more", outline.where(points.get(best)).in()));
      }
      return withoutLastIfHome(points.subList(0, best + 1));
    }
    int last = points.get(points.size() - 1);
    double open = gap(start, last);
    if (open > Math.min(150, Math.max(30, 0.02 * way)) && open > 2.5 * usual) {
      throw OutlineProblem.of(NOT_CLOSED, "refusal.circuit.lap_not_closed_end", Value.length(open))
          .at(outline.where(last));
    }
    return withoutLastIfHome(points);
  }

  private List<Integer> withoutLastIfHome(List<Integer> points) {
    int last = points.size() - 1;
    double usual = median(points);
    while (last > FEWEST && gap(points.get(0), points.get(last)) < 0.5 * usual) {
      last--;
    }
    // Points past the start would make the closed line run back on itself.
    double dx = outline.x()[points.get(1)] - outline.x()[points.get(0)];
    double dy = outline.y()[points.get(1)] - outline.y()[points.get(0)];
    while (last > FEWEST
        && gap(points.get(0), points.get(last)) < 2 * usual + 12
        && (outline.x()[points.get(last)] - outline.x()[points.get(0)]) * dx
                + (outline.y()[points.get(last)] - outline.y()[points.get(0)]) * dy
            > 0) {
      last--;
    }
    return new ArrayList<>(points.subList(0, last + 1));
  }

  private boolean sameWay(List<Integer> points, int k) {
    int before = points.get(k - 1);
    int here = points.get(k);
    int start = points.get(0);
    int next = points.get(1);
    double ax = outline.x()[here] - outline.x()[before];
    double ay = outline.y()[here] - outline.y()[before];
    double bx = outline.x()[next] - outline.x()[start];
    double by = outline.y()[next] - outline.y()[start];
    return ax * bx + ay * by > 0.5 * Math.hypot(ax, ay) * Math.hypot(bx, by);
  }

  private double median(List<Integer> points) {
    double[] gaps = new double[points.size() - 1];
    for (int k = 1; k < points.size(); k++) {
      gaps[k - 1] = gap(points.get(k - 1), points.get(k));
    }
    Arrays.sort(gaps);
    return gaps[gaps.length / 2];
  }
}
