package marvek.core.circuit;

import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * A piece of a closed road; it may run across the line.
 *
 * @param loop that it is a piece of
 * @param first index of its first station, inside the lap
 * @param count stations; more than the loop has are gone through again
 */
public record Span(Loop loop, int first, int count) {
  public Span {
    if (first < 0 || first >= loop.size() || count < 0) {
      throw new IllegalArgumentException("no piece of the loop: " + first + ", " + count);
    }
  }

  /** The index inside the lap of its k-th station. */
  public int at(int k) {
    return loop.at(first + k);
  }

  /** Whether a station lies in it. */
  public boolean holds(int index) {
    return loop.ahead(first, index) < count;
  }

  /** Its indices, in driving order. */
  public IntStream indices() {
    return IntStream.range(0, count).map(this::at);
  }

  /** Whether it is so at any of its stations. */
  public boolean any(IntPredicate so) {
    return indices().anyMatch(so);
  }

  /** The values at its stations. */
  public double[] of(double[] values) {
    double[] out = new double[count];
    for (int k = 0; k < count; k++) {
      out[k] = values[at(k)];
    }
    return out;
  }
}
