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
  private final AtomicReferenceArray<CornerEntry> marked;
  private final AtomicReferenceArray<Double> best;

  Drafts(int corners) {
    made = new AtomicReferenceArray<>(corners);
    marked = new AtomicReferenceArray<>(corners);
    best = new AtomicReferenceArray<>(corners);
  }

  CornerEntry of(int c, IntFunction<CornerEntry> draft) {
    return of(made, c, draft);
  }

  /** The same before anything is written into it but its places. */
  CornerEntry marked(int c, IntFunction<CornerEntry> draft) {
    return of(marked, c, draft);
  }

  private static CornerEntry of(
      AtomicReferenceArray<CornerEntry> kept, int c, IntFunction<CornerEntry> draft) {
    CornerEntry had = kept.get(c);
    if (had != null) {
      return had;
    }
    CornerEntry now = draft.apply(c);
    kept.set(c, now);
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
