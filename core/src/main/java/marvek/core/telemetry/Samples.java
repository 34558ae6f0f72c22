package marvek.core.telemetry;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;

/** Consecutive samples of a recording; a channel's value is NaN where it was not recorded. */
public final class Samples {
  private final Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
  private int size;

  /** Room for samples of some channels. */
  public Samples(Set<Channel> channels, int capacity) {
    for (Channel c : channels) {
      columns.put(c, new double[capacity]);
    }
  }

  private Samples(Map<Channel, double[]> columns, int size) {
    this.columns.putAll(columns);
    this.size = size;
  }

  /** Number of samples. */
  public int size() {
    return size;
  }

  /** Channels that there are. */
  public Set<Channel> channels() {
    return columns.isEmpty() ? EnumSet.noneOf(Channel.class) : EnumSet.copyOf(columns.keySet());
  }

  /** Whether a channel is among them. */
  public boolean has(Channel channel) {
    return columns.containsKey(channel);
  }

  /** The values of a channel; longer than {@link #size} where there is spare room. */
  public double[] of(Channel channel) {
    double[] column = columns.get(channel);
    if (column == null) {
      throw new IllegalArgumentException("no " + channel);
    }
    return column;
  }

  /** Adds a sample with no values yet. */
  int grow() {
    for (Map.Entry<Channel, double[]> e : columns.entrySet()) {
      double[] column = e.getValue();
      if (size == column.length) {
        column = Arrays.copyOf(column, Math.max(64, 2 * size));
        e.setValue(column);
      }
      column[size] = Double.NaN;
    }
    return size++;
  }

  void put(Channel channel, double[] values) {
    if (values.length < size) {
      throw new IllegalArgumentException("too few values of " + channel);
    }
    columns.put(channel, values);
  }

  void drop(Channel channel) {
    columns.remove(channel);
  }

  /** A copy of the samples from one to before another. */
  Samples part(int from, int to) {
    Map<Channel, double[]> cut = new EnumMap<>(Channel.class);
    columns.forEach((c, v) -> cut.put(c, Arrays.copyOfRange(v, from, to)));
    return new Samples(cut, to - from);
  }

  /** Forgets all samples before one. */
  void forgetBefore(int from) {
    int left = size - from;
    columns.values().forEach(v -> System.arraycopy(v, from, v, 0, left));
    size = left;
  }
}
