package marvek.core.plan;

import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.IntFunction;
import java.util.function.IntToDoubleFunction;
import marvek.core.entry.CornerEntry;

/**
 * The drafts of a lap's corners and what these take, each made once: days, copies and the desk ask
 * for them at every turn. Only saves time.
 */
final class Drafts {
  private final AtomicReferenceArray<CornerEntry> made;
  private final AtomicReferenceArray<Double> best;

  Drafts(int corners) {
    made = new AtomicReferenceArray<>(corners);
    best = new AtomicReferenceArray<>(corners);
  }

  CornerEntry of(int c, IntFunction<CornerEntry> draft) {
    CornerEntry had = made.get(c);
    if (had != null) {
      return had;
    }
    CornerEntry now = draft.apply(c);
    made.set(c, now);
    return now;
  }

  /** Seconds that a corner takes at best. */
  double best(int c, IntToDoubleFunction drives) {
    Double had = best.get(c);
    if (had != null) {
      return had;
    }
    double now = drives.applyAsDouble(c);
    best.set(c, now);
    return now;
  }
}
