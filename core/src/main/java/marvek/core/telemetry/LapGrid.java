package marvek.core.telemetry;

import java.util.EnumMap;
import java.util.Map;

/**
 * A whole lap on even stations of the road: what is kept of it. Index i is station i·step; times
 * have one value more, the end of the lap.
 *
 * @param step metres
 * @param times seconds since the line
 * @param speed m/s
 * @param offset metres to the left of the centreline; NaN where not known
 * @param channels the rest
 */
public record LapGrid(
    double step, double[] times, double[] speed, double[] offset, Map<Channel, double[]> channels) {
  public LapGrid {
    channels = new EnumMap<>(channels);
  }

  /**
   * Puts a lap on stations.
   *
   * @param length of the lap's road, m
   * @param count of stations
   */
  public static LapGrid of(DrivenLap lap, double length, int count) {
    Trace t = lap.trace();
    double step = length / count;
    double[] times = new double[count + 1];
    double[] speed = new double[count];
    double[] offset = new double[count];
    Map<Channel, double[]> channels = new EnumMap<>(Channel.class);
    t.channels().keySet().forEach(c -> channels.put(c, new double[count]));
    int j = 0;
    for (int i = 0; i < count; i++) {
      double s = i * step;
      while (j < t.size() && t.station()[j] < s) {
        j++;
      }
      int b = Math.max(1, Math.min(t.size() - 1, j));
      double span = t.station()[b] - t.station()[b - 1];
      double u = span > 0 ? Math.max(0, Math.min(1, (s - t.station()[b - 1]) / span)) : 0;
      times[i] = Math.max(0, mix(t.time(), b, u));
      speed[i] = mix(t.speed(), b, u);
      offset[i] = mix(t.offset(), b, u);
      for (Map.Entry<Channel, double[]> e : channels.entrySet()) {
        double[] v = t.of(e.getKey());
        e.getValue()[i] = e.getKey() == Channel.GEAR ? v[b - 1] : mix(v, b, u);
      }
    }
    times[0] = lap.kind().whole() ? 0 : times[0];
    times[count] = lap.lapTime();
    return new LapGrid(step, times, speed, offset, channels);
  }

  private static double mix(double[] column, int b, double u) {
    return column[b - 1] + u * (column[b] - column[b - 1]);
  }
}
