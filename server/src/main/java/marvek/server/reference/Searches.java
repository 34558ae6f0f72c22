package marvek.server.reference;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.UUID;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import marvek.core.line.SearchStopped;
import marvek.core.line.Watch;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Searches for a line, with progress and cancel. Nothing is stored before a search is done, so one
 * that is cancelled, or lost with the server, leaves everything as it was.
 */
@Component
class Searches {
  private static final Logger LOG = LoggerFactory.getLogger(Searches.class);

  /** For so long whoever starts a search waits for it. */
  static final Duration MOMENT = Duration.ofSeconds(1);

  private static final int QUEUED = 64;
  private static final Duration KEPT = Duration.ofMinutes(10);

  // One at a time: a search takes all of a core, and the others are for those who look and drag.
  private final ThreadPoolExecutor searching =
      new ThreadPoolExecutor(1, 1, 0, TimeUnit.SECONDS, new ArrayBlockingQueue<>(QUEUED));
  private final Cache<UUID, Running> all =
      Caffeine.newBuilder().maximumSize(1000).expireAfterWrite(KEPT).build();

  private static final class Running {
    final UUID id = UUID.randomUUID();
    final UUID owner;
    final CountDownLatch ended = new CountDownLatch(1);
    volatile Search.State state = Search.State.WAITING;
    volatile double share;
    volatile boolean unwanted;
    volatile @Nullable UUID reference;
    volatile @Nullable RuntimeException problem;

    Running(UUID owner) {
      this.owner = owner;
    }

    Search shown() {
      RuntimeException p = problem;
      return new Search(
          id,
          state,
          share,
          reference,
          p == null ? null : p instanceof Problem ? p.getMessage() : "The computation failed.",
          p == null ? null : Problem.remedy(p));
    }
  }

  /**
   * Starts a search and waits a moment for it, as most are done at once.
   *
   * @param work searches while it is wanted, and stores what it found; gives the reference's id
   */
  Search start(UUID owner, Function<Watch, UUID> work, Duration moment) {
    boolean busy =
        all.asMap().values().stream()
            .anyMatch(r -> r.owner.equals(owner) && r.ended.getCount() > 0 && !r.unwanted);
    if (busy) {
      throw Problem.conflict(
          "A line is being searched for you already.", "Wait for it, or cancel it.", null);
    }
    Running run = new Running(owner);
    all.put(run.id, run);
    try {
      searching.execute(() -> search(run, work));
    } catch (RejectedExecutionException e) {
      all.invalidate(run.id);
      throw Problem.tooMany("Too many lines are being searched.", "Try again in a minute.");
    }
    try {
      boolean done = run.ended.await(moment.toMillis(), TimeUnit.MILLISECONDS);
      RuntimeException problem = run.problem;
      if (done && problem instanceof Problem) {
        throw problem;
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return run.shown();
  }

  private static void search(Running run, Function<Watch, UUID> work) {
    try {
      if (run.unwanted) {
        run.state = Search.State.CANCELLED;
        return;
      }
      run.state = Search.State.SEARCHING;
      run.reference =
          work.apply(
              share -> {
                run.share = share;
                return !run.unwanted;
              });
      run.share = 1;
      run.state = Search.State.DONE;
    } catch (SearchStopped e) {
      run.state = Search.State.CANCELLED;
    } catch (RuntimeException e) {
      if (!(e instanceof Problem)) {
        LOG.error("a search for a line failed", e);
      }
      run.problem = e;
      run.state = Search.State.FAILED;
    } finally {
      run.ended.countDown();
    }
  }

  Search shown(UUID owner, UUID id) {
    return mine(owner, id).shown();
  }

  /** Ends a search that is on its way; what is done stays done. */
  Search cancel(UUID owner, UUID id) {
    Running run = mine(owner, id);
    run.unwanted = true;
    try {
      run.ended.await(1, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return run.shown();
  }

  private Running mine(UUID owner, UUID id) {
    Running run = all.getIfPresent(id);
    if (run == null || !run.owner.equals(owner)) {
      throw Problem.notFound("There is no such search.");
    }
    return run;
  }

  @PreDestroy
  void stop() {
    all.asMap().values().forEach(r -> r.unwanted = true);
    searching.shutdownNow();
  }
}
