package marvek.core.circuit;

import java.util.ArrayList;
import java.util.List;

/**
 * Crests, compressions and steep stretches, and corners whose entry hides behind a crest, from the
 * heights alone.
 *
 * @param spans in driving order
 * @param blind corners that cannot be seen in time
 */
public record Relief(List<ReliefSpan> spans, List<BlindEntry> blind) {
  private static final double CURVED = 1 / 1500.0;
  private static final double SHORTEST = 12;
  private static final double STEEP = Math.tan(Math.toRadians(2.3));
  private static final double DECIDES = 120;
  private static final double FAR = 400;

  /** Sorts of relief. */
  public enum Kind {
    CREST,
    COMPRESSION,
    CLIMB,
    DESCENT
  }

  /**
   * A stretch of relief.
   *
   * @param kind what it is
   * @param from station, m
   * @param to station, m
   * @param value least radius in metres of a crest or compression; steepest gradient, as a share,
   *     of a climb or descent (negative downhill)
   */
  public record ReliefSpan(Kind kind, double from, double to, double value) {}

  /**
   * A corner whose entry is hidden where it should be seen.
   *
   * @param corner id
   * @param from station where it is looked for: {@value #DECIDES} m before the entry
   * @param sight metres of road in view there
   */
  public record BlindEntry(String corner, double from, double sight) {}

  /**
   * Reads the heights; empty for a road without any.
   *
   * @param eye height of the eyes, metres
   */
  public static Relief of(Centreline road, List<Corner> corners, double eye) {
    if (!road.hasHeight()) {
      return new Relief(List.of(), List.of());
    }
    List<ReliefSpan> spans = new ArrayList<>();
    runs(road, road.verticalCurvature(), -CURVED, Kind.CREST, spans);
    runs(road, road.verticalCurvature(), CURVED, Kind.COMPRESSION, spans);
    runs(road, road.gradient(), STEEP, Kind.CLIMB, spans);
    runs(road, road.gradient(), -STEEP, Kind.DESCENT, spans);
    spans.sort((a, b) -> Double.compare(a.from(), b.from()));
    List<BlindEntry> blind = new ArrayList<>();
    for (Corner c : corners) {
      double at = road.wrap(c.entry() - DECIDES);
      double sight = Sight.distance(road, at, eye, 0, FAR);
      if (sight < DECIDES) {
        blind.add(new BlindEntry(c.id(), at, sight));
      }
    }
    return new Relief(List.copyOf(spans), List.copyOf(blind));
  }

  private static void runs(
      Centreline road, double[] values, double over, Kind kind, List<ReliefSpan> spans) {
    int n = road.size();
    double sign = Math.signum(over);
    int begin = 0;
    while (begin < n && sign * values[begin] >= Math.abs(over)) {
      begin++;
    }
    int start = -1;
    double most = 0;
    for (int k = begin; k <= begin + n; k++) {
      double v = k < begin + n ? sign * values[k % n] : 0;
      if (v >= Math.abs(over)) {
        start = start < 0 ? k : start;
        most = Math.max(most, v);
      } else if (start >= 0) {
        if ((k - start) * road.step() >= SHORTEST) {
          boolean bend = kind == Kind.CREST || kind == Kind.COMPRESSION;
          spans.add(
              new ReliefSpan(
                  kind,
                  road.wrap(start * road.step()),
                  road.wrap((k - 1) * road.step()),
                  bend ? 1 / most : sign * Math.tan(most)));
        }
        start = -1;
        most = 0;
      }
    }
  }
}
