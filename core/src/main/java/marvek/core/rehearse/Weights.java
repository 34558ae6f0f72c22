package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleBounds;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.BOBYQAOptimizer;

/**
 * The weights of FSRS-6: usual ones (from memory; checked against its open implementation in the
 * tests), or a driver's own, told from enough answers.
 *
 * @param values twenty-one of them, as the formulas number them
 */
public record Weights(List<Double> values) {
  /** Answers from which on a driver's own weights are told. */
  public static final int FROM = 300;

  // Bounds of the open implementation (from memory).
  private static final double[] LOW = {
    0.001, 0.001, 0.001, 0.001, 1, 0.001, 0.001, 0.001, 0, 0, 0.001, 0.001, 0.001, 0.001, 0, 0, 1,
    0, 0, 0, 0.1
  };
  private static final double[] HIGH = {
    100, 100, 100, 100, 10, 4, 4, 0.75, 4.5, 0.8, 3.5, 5, 0.25, 0.9, 4, 1, 6, 2, 2, 0.8, 0.8
  };
  // How far other people's weights lie from the usual ones: about half of them.
  private static final double APART = 0.5;
  private static final double LEAST_APART = 0.05;
  private static final double MOST_APART = 6;
  // Each part of the facts judges what the others tell.
  private static final int PARTS = 3;
  private static final int TRIES = 250;

  // How long a first answer lasts, how much another adds or takes, and how it fades: some hundreds
  // of answers tell no more.
  private static final int[] TOLD = {0, 1, 2, 3, 8, 10, 11, 20};
  private static final double SURE = 1e-4;

  /** Answers that are looked at: the latest, so that this stays quick. */
  private static final int MOST = 3000;

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

  /**
   * An answer in a row of answers to one fact.
   *
   * @param at days since any moment, with fractions
   */
  public record Answer(Grade grade, double at) {}

  /**
   * The weights that tell best what a driver still knew, as far as that is borne out by answers
   * that they were not told from; the usual ones otherwise.
   *
   * @param rows answers to one fact each, in the order given
   */
  public static Weights of(List<List<Answer>> rows) {
    int all = rows.stream().mapToInt(List::size).sum();
    if (all < FROM) {
      return USUAL;
    }
    double[] moments =
        rows.stream().flatMap(List::stream).mapToDouble(Answer::at).sorted().toArray();
    double from = moments[Math.max(0, all - MOST)];
    List<Double> usual = new ArrayList<>();
    List<Double> own = new ArrayList<>();
    for (int k = 0; k < PARTS; k++) {
      int part = k;
      List<List<Answer>> rest = rows(rows, i -> i % PARTS != part);
      List<List<Answer>> judges = rows(rows, i -> i % PARTS == part);
      usual.addAll(losses(judges, USUAL, from));
      own.addAll(losses(judges, fitted(rest, from), from));
    }
    int n = usual.size();
    if (n < 2) {
      return USUAL;
    }
    double mean = 0;
    for (int i = 0; i < n; i++) {
      mean += (usual.get(i) - own.get(i)) / n;
    }
    double square = 0;
    for (int i = 0; i < n; i++) {
      square += Math.pow(usual.get(i) - own.get(i) - mean, 2) / (n - 1);
    }
    // Better by more than its own doubt.
    return mean > Math.sqrt(square / n) ? fitted(rows, from) : USUAL;
  }

  private static List<List<Answer>> rows(List<List<Answer>> all, IntPredicate which) {
    return IntStream.range(0, all.size()).filter(which).mapToObj(all::get).toList();
  }

  /** The likeliest weights, given that others' lie about the usual ones. */
  private static Weights fitted(List<List<Answer>> rows, double from) {
    int n = TOLD.length;
    double[] low = new double[n];
    double[] high = new double[n];
    for (int k = 0; k < n; k++) {
      int i = TOLD[k];
      low[k] = Math.max((LOW[i] - USUAL.at(i)) / apart(i), -MOST_APART);
      high[k] = Math.min((HIGH[i] - USUAL.at(i)) / apart(i), MOST_APART);
    }
    double[][] best = {new double[n]};
    double[] least = {Double.POSITIVE_INFINITY};
    ObjectiveFunction cost =
        new ObjectiveFunction(
            x -> {
              double sum = 0;
              for (double l : losses(rows, weights(x), from)) {
                sum += l;
              }
              for (double v : x) {
                sum += v * v / 2;
              }
              if (sum < least[0]) {
                least[0] = sum;
                best[0] = x.clone();
              }
              return sum;
            });
    try {
      new BOBYQAOptimizer(2 * n + 1, 0.5, SURE)
          .optimize(
              cost,
              GoalType.MINIMIZE,
              new MaxEval(TRIES),
              new InitialGuess(best[0]),
              new SimpleBounds(low, high));
    } catch (MathRuntimeException e) {
      // It stops after so many tries: the best of them is judged by answers it has not seen.
      return weights(best[0]);
    }
    return weights(best[0]);
  }

  private static double apart(int i) {
    return APART * USUAL.at(i) + LEAST_APART;
  }

  private static Weights weights(double[] x) {
    List<Double> out = new ArrayList<>(USUAL.values());
    for (int k = 0; k < x.length; k++) {
      int i = TOLD[k];
      out.set(i, Math.min(HIGH[i], Math.max(LOW[i], USUAL.at(i) + x[k] * apart(i))));
    }
    return new Weights(out);
  }

  /**
   * How badly each answer was foreseen: minus the logarithm of the chance given to what came.
   * Answers of the same day are not counted: what was just seen is known.
   *
   * @param from moment from which answers count
   */
  static List<Double> losses(List<List<Answer>> rows, Weights by, double from) {
    List<Double> out = new ArrayList<>();
    for (List<Answer> row : rows) {
      Memory memory = null;
      double last = 0;
      for (Answer a : row) {
        if (memory == null) {
          memory = Memory.first(a.grade(), by);
        } else {
          double days = a.at() - last;
          if (days >= Memory.DAY && a.at() >= from) {
            double chance = Math.min(1 - SURE, Math.max(SURE, memory.recall(days)));
            out.add(-Math.log(a.grade() == Grade.AGAIN ? 1 - chance : chance));
          }
          memory = memory.next(a.grade(), days);
        }
        last = a.at();
      }
    }
    return out;
  }
}
