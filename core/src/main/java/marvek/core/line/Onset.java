package marvek.core.line;

import java.util.function.IntToDoubleFunction;

/**
 * Where a turn begins: where it has come to about three tenths of its most. A bend that grows by
 * steps may rest at any share of it, so that a single one is passed now here and now metres on; the
 * mean of several moves no more than the bend does.
 */
public final class Onset {
  private static final double FIRST = 0.24;
  private static final double STEP = 0.01;
  private static final int SHARES = 13;
  // Of the most: as good as held.
  private static final double HELD = 0.6;

  private Onset() {}

  /**
   * The place where a turn begins, between two samples where it passes a share of its most. One
   * that tightens after its apex is turned into before.
   *
   * @param bend to the side of the turn at each sample, in any unit
   * @param place of each sample, m, growing
   * @param from first sample of the turn
   * @param apex its sample; one before the first, or after the last, counts for nothing
   * @param to last sample of the turn
   * @param least sample before which it is not looked
   * @param rest metres for which hands that rest on the way have not left the turn
   */
  public static double of(
      IntToDoubleFunction bend,
      IntToDoubleFunction place,
      int from,
      int apex,
      int to,
      int least,
      double rest) {
    double peak = most(bend, from, to);
    int held = held(bend, from, to, peak);
    if (held > apex && apex >= from) {
      peak = most(bend, from, apex);
      held = held(bend, from, apex, peak);
    }
    double sum = 0;
    for (int j = 0; j < SHARES; j++) {
      sum += passed(bend, place, held, least, rest, (FIRST + j * STEP) * peak);
    }
    return sum / SHARES;
  }

  private static double most(IntToDoubleFunction bend, int from, int to) {
    double peak = 0;
    for (int k = from; k <= to; k++) {
      peak = Math.max(peak, bend.applyAsDouble(k));
    }
    return peak;
  }

  /** The first of some samples at which it bends about as much as at the most. */
  private static int held(IntToDoubleFunction bend, int from, int to, double peak) {
    int k = from;
    while (k < to && bend.applyAsDouble(k) < HELD * peak) {
      k++;
    }
    return k;
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
