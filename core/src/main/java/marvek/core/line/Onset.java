package marvek.core.line;

import java.util.function.IntToDoubleFunction;

/**
 * Where a turn begins: where it has come to about a third of its most. A bend that grows by steps
 * may rest at any share of it, so that a single one is passed now here and now metres on; the mean
 * of several moves no more than the bend does.
 */
public final class Onset {
  private static final double FIRST = 0.24;
  private static final double STEP = 0.01;
  private static final int SHARES = 13;

  private Onset() {}

  /**
   * The place where a turn begins, between two samples where it passes a share.
   *
   * @param bend to the side of the turn at each sample, in any unit
   * @param place of each sample, m, growing
   * @param held sample at which it bends about as much as at the most
   * @param least sample before which it is not looked
   * @param rest metres for which hands that rest on the way have not left the turn
   * @param peak the most that it bends
   */
  public static double of(
      IntToDoubleFunction bend,
      IntToDoubleFunction place,
      int held,
      int least,
      double rest,
      double peak) {
    double sum = 0;
    for (int j = 0; j < SHARES; j++) {
      sum += passed(bend, place, held, least, rest, (FIRST + j * STEP) * peak);
    }
    return sum / SHARES;
  }

  private static double passed(
      IntToDoubleFunction bend,
      IntToDoubleFunction place,
      int held,
      int least,
      double rest,
      double share) {
    int begun = held;
    for (int k = held;
        k > least && place.applyAsDouble(begun) - place.applyAsDouble(k) < rest;
        k--) {
      begun = bend.applyAsDouble(k) > share ? k : begun;
    }
    double below = bend.applyAsDouble(begun - 1);
    double above = bend.applyAsDouble(begun);
    double part = above > below ? (share - below) / (above - below) : 0;
    double from = place.applyAsDouble(begun - 1);
    return from + Math.max(0, Math.min(1, part)) * (place.applyAsDouble(begun) - from);
  }
}
