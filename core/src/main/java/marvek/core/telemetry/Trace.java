package marvek.core.telemetry;

import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;

/**
 * One lap as it was driven, with what came just before and after it. Arrays are not to be changed
 * by whoever reads them.
 *
 * @param rate samples a second, as they stand here
 * @param sampled samples a second as they were recorded
 * @param time seconds since the start/finish line
 * @param station metres along the road since the line, not wrapped: below zero before it
 * @param offset metres to the left of the centreline; NaN where the place is not known
 * @param speed m/s
 * @param curvature of the path driven, 1/m; NaN where the place is not known
 * @param channels what else was recorded or derived
 * @param derived what was not recorded but worked out
 * @param begin first sample of the lap itself
 * @param end first sample after it
 */
public record Trace(
    double rate,
    double sampled,
    double[] time,
    double[] station,
    double[] offset,
    double[] speed,
    double[] curvature,
    Map<Channel, double[]> channels,
    Set<Channel> derived,
    int begin,
    int end) {
  /** Samples a second from which a corner is known. */
  public static final double FEWEST = 4;

  public Trace {
    channels = channels.isEmpty() ? new EnumMap<>(Channel.class) : new EnumMap<>(channels);
    derived = derived.isEmpty() ? EnumSet.noneOf(Channel.class) : EnumSet.copyOf(derived);
  }

  /** Whether too little was recorded for places and speeds in corners; times are as good. */
  public boolean sparse() {
    return sampled < FEWEST;
  }

  /** Number of stations. */
  public int size() {
    return time.length;
  }

  /** Whether a channel was recorded or told. */
  public boolean has(Channel channel) {
    return channels.containsKey(channel);
  }

  /** Whether a channel was recorded and not worked out. */
  public boolean recorded(Channel channel) {
    return has(channel) && !derived.contains(channel);
  }

  /** Values of a channel. */
  public double[] of(Channel channel) {
    double[] values = channels.get(channel);
    if (values == null) {
      throw new IllegalArgumentException("no " + channel);
    }
    return values;
  }

  /** Whether the place across the road is known. */
  public boolean placed() {
    return size() > 0 && !Double.isNaN(offset[size() / 2]);
  }

  /** The first sample at or past a station. */
  public int at(double metres) {
    int low = 0;
    int high = size();
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (station[middle] < metres) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /** A column's value at a station, by straight lines between the samples. */
  public double value(double[] column, double metres) {
    int j = at(metres);
    if (j == 0 || j >= size()) {
      return j == 0 && size() > 0 && station[0] == metres ? column[0] : Double.NaN;
    }
    double span = station[j] - station[j - 1];
    double share = span > 0 ? (metres - station[j - 1]) / span : 0;
    return column[j - 1] + share * (column[j] - column[j - 1]);
  }
}
