package marvek.server.work;

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
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Heavy work, with progress and cancel. Each account has one job at a time and the queue is
 * bounded, so first come is first served and still fair. Nothing is stored before a job is done, so
 * one that is cancelled, or lost with the server, leaves everything as it was.
 */
@Component
public class Jobs {
  private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
  private static final Duration KEPT = Duration.ofMinutes(10);

  private final WorkSettings settings;

  // One at a time: a job takes all of a core, and the others are for those who look and drag.
  private final ThreadPoolExecutor working;
  private final Cache<UUID, Running> all =
      Caffeine.newBuilder().maximumSize(1000).expireAfterWrite(KEPT).build();

  Jobs(WorkSettings settings) {
    this.settings = settings;
    this.working =
        new ThreadPoolExecutor(
            1, 1, 0, TimeUnit.SECONDS, new ArrayBlockingQueue<>(settings.queued()));
  }

  private static final class Running {
    final UUID id = UUID.randomUUID();
    final UUID owner;
    final CountDownLatch ended = new CountDownLatch(1);
    volatile Job.State state = Job.State.WAITING;
    volatile double share;
    volatile boolean unwanted;
    volatile Job.@Nullable Result made;
    volatile @Nullable RuntimeException problem;

    Running(UUID owner) {
      this.owner = owner;
    }

    Job shown() {
      RuntimeException p = problem;
      Job.Result made = this.made;
      return new Job(
          id,
          state,
          share,
          made == null ? null : made.id(),
          made == null ? null : made.run(),
          p == null ? null : p instanceof Refusal r ? r.what() : Said.of("refusal.not_computed"),
          p == null ? null : Problem.remedy(p));
    }
  }

  /**
   * Starts a job and waits a moment for it, as most are done at once.
   *
   * @param work works while it is wanted, and stores what it found; gives the id of that
   */
  public Job start(UUID owner, Function<Watch, Job.Result> work) {
    return start(owner, work, settings.moment());
  }

  /** Starts a job and waits for it so long. */
  public Job start(UUID owner, Function<Watch, Job.Result> work, Duration moment) {
    Running run = new Running(owner);
    synchronized (all) {
      boolean busy =
          all.asMap().values().stream()
              .anyMatch(r -> r.owner.equals(owner) && r.ended.getCount() > 0 && !r.unwanted);
      if (busy) {
        throw Problem.conflict(null, "refusal.work.something_being_computed_you");
      }
      all.put(run.id, run);
    }
    try {
      working.execute(() -> work(run, work));
    } catch (RejectedExecutionException e) {
      all.invalidate(run.id);
      throw Problem.tooMany("refusal.work.too_much_being_computed");
    }
    try {
      boolean done = run.ended.await(moment.toMillis(), TimeUnit.MILLISECONDS);
      RuntimeException problem = run.problem;
      // Refusals and what the database says are answered as they would be without a queue.
      if (done && problem != null) {
        throw problem;
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return run.shown();
  }

  private static void work(Running run, Function<Watch, Job.Result> work) {
    try {
      if (run.unwanted) {
        run.state = Job.State.CANCELLED;
        return;
      }
      run.state = Job.State.WORKING;
      run.made =
          work.apply(
              share -> {
                run.share = share;
                return !run.unwanted;
              });
      run.share = 1;
      run.state = Job.State.DONE;
    } catch (SearchStopped e) {
      run.state = Job.State.CANCELLED;
    } catch (RuntimeException e) {
      run.problem = e;
      run.state = Job.State.FAILED;
    } catch (OutOfMemoryError e) {
      LOG.error("A job took too much memory", e);
      run.problem = Problem.bad("refusal.work.too_large_server");
      run.state = Job.State.FAILED;
    } finally {
      run.ended.countDown();
    }
  }

  Job shown(UUID owner, UUID id) {
    return mine(owner, id).shown();
  }

  /** Ends a job that is on its way; what is done stays done. */
  Job cancel(UUID owner, UUID id) {
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
      throw Problem.none("refusal.none.no_job");
    }
    return run;
  }

  @PreDestroy
  void stop() {
    all.asMap().values().forEach(r -> r.unwanted = true);
    working.shutdownNow();
  }
}
