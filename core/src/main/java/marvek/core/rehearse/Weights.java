package marvek.core.rehearse;

import java.util.List;

/**
 * The weights of FSRS-6: usual ones (from memory; checked against its open implementation in the
 * tests), or a driver's own ({@link OwnWeights}).
 *
 * @param values twenty-one of them, as the formulas number them
 */
public record Weights(List<Double> values) {

  // Bounds of the open implementation (from memory).
  static final double[] LOW = {
    0.001, 0.001, 0.001, 0.001, 1, 0.001, 0.001, 0.001, 0, 0, 0.001, 0.001, 0.001, 0.001, 0, 0, 1,
    0, 0, 0, 0.1
  };
  static final double[] HIGH = {
    100, 100, 100, 100, 10, 4, 4, 0.75, 4.5, 0.8, 3.5, 5, 0.25, 0.9, 4, 1, 6, 2, 2, 0.8, 0.8
  };

  /** Default weights. */
  public static final Weights USUAL =
      new Weights(
          List.of(
              0.212, 1.2931, 2.3065, 8.2956, 6.4133, 0.8334, 3.0194, 0.001, 1.8722, 0.1666, 0.796,
              1.4835, 0.0614, 0.2629, 1.6483, 0.6014, 1.8729, 0.5425, 0.0912, 0.0658, 0.1542));

  public Weights {
    values = List.copyOf(values);
    if (values.size() != LOW.length) {
      throw new IllegalArgumentException("There are " + LOW.length + " weights.");
    }
  }

  double at(int i) {
    return values.get(i);
  }
}
