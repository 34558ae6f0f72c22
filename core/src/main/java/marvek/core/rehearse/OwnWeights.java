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

/** A driver's own weights, told from enough answers. */
public final class OwnWeights {
  /** Answers from which on a driver's own weights are told. */
  public static final int FROM = 300;

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

  private OwnWeights() {}

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
      return Weights.USUAL;
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
      usual.addAll(losses(judges, Weights.USUAL, from));
      own.addAll(losses(judges, fitted(rest, from), from));
    }
    int n = usual.size();
    if (n < 2) {
      return Weights.USUAL;
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
    return mean > Math.sqrt(square / n) ? fitted(rows, from) : Weights.USUAL;
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
      low[k] = Math.max((Weights.LOW[i] - Weights.USUAL.at(i)) / apart(i), -MOST_APART);
      high[k] = Math.min((Weights.HIGH[i] - Weights.USUAL.at(i)) / apart(i), MOST_APART);
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
    return APART * Weights.USUAL.at(i) + LEAST_APART;
  }

  private static Weights weights(double[] x) {
    List<Double> out = new ArrayList<>(Weights.USUAL.values());
    for (int k = 0; k < x.length; k++) {
      int i = TOLD[k];
      out.set(
          i,
          Math.min(
              Weights.HIGH[i], Math.max(Weights.LOW[i], Weights.USUAL.at(i) + x[k] * apart(i))));
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
