package marvek.core.telemetry;

import java.util.Map;
import marvek.core.numeric.SavitzkyGolay;

/** Samples at an even rate. */
record Even(double rate, double[] time, Map<Channel, double[]> columns, boolean[] gap) {
  boolean has(Channel c) {
    return columns.containsKey(c);
  }

  double[] of(Channel c) {
    double[] column = columns.get(c);
    if (column == null) {
      throw new IllegalArgumentException("no " + c);
    }
    return column;
  }

  /** A smoother over about so many seconds to each side. */
  static SavitzkyGolay over(double seconds, double rate) {
    return new SavitzkyGolay((int) Math.max(2, Math.round(seconds * rate)));
  }
}
