package marvek.server.reference;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import org.springframework.stereotype.Component;

/**
 * Laps that were searched for not long ago, by everything that they depend on: whoever drafts the
 * same vehicle on the same road again, or is the next in a group to do so, need not wait.
 */
@Component
class LapsFound {
  private static final int MOST = 16;

  private final Cache<Wanted.Question, ComputedLap> found =
      Caffeine.newBuilder().maximumSize(MOST).softValues().build();

  /** The lap that was found, or that a search finds now. */
  ComputedLap search(Wanted wanted, Watch watch) {
    Wanted.Question question = wanted.question();
    ComputedLap known = found.getIfPresent(question);
    if (known != null) {
      return known;
    }
    // Not by the cache itself, which would hold others up until the search is over.
    ComputedLap computed = wanted.search(watch);
    found.put(question, computed);
    return computed;
  }
}
