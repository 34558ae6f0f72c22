package marvek.server.work;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.FutureTask;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReferenceArray;
import java.util.function.Function;
import marvek.core.numeric.Spread;
import org.springframework.stereotype.Component;

/**
 * Threads that help with work somebody waits for. Whoever asks does the work too, and waits for no
 * helper that has not begun: where all are busy it is as if there were none.
 */
@Component
public class Helpers implements Spread {
  private final int count;
  private final ExecutorService helping;

  Helpers() {
    // The one who asks is at work as well.
    this(Runtime.getRuntime().availableProcessors() - 1);
  }

  Helpers(int count) {
    this.count = count;
    this.helping =
        Executors.newFixedThreadPool(
            Math.max(1, count),
            task -> {
              Thread thread = new Thread(task, "helper");
              thread.setDaemon(true);
              return thread;
            });
  }

  @Override
  public <T, R> List<R> each(List<T> pieces, Function<? super T, ? extends R> work) {
    int n = pieces.size();
    AtomicReferenceArray<R> done = new AtomicReferenceArray<>(n);
    AtomicInteger next = new AtomicInteger();
    Runnable share =
        () -> {
          for (int i = next.getAndIncrement(); i < n; i = next.getAndIncrement()) {
            done.set(i, work.apply(pieces.get(i)));
          }
        };
    List<FutureTask<?>> help = new ArrayList<>();
    for (int i = 0; i < Math.min(count, n - 1); i++) {
      FutureTask<?> helper = new FutureTask<>(share, null);
      help.add(helper);
      helping.execute(helper);
    }
    try {
      share.run();
    } finally {
      // What fails stops the others at their next piece.
      next.set(n);
    }
    help.forEach(Helpers::waitFor);
    List<R> out = new ArrayList<>(n);
    for (int i = 0; i < n; i++) {
      out.add(done.get(i));
    }
    return out;
  }

  private static void waitFor(FutureTask<?> helper) {
    // One that has not begun is done at once, for nothing is left to do; one that has is let be.
    helper.run();
    try {
      helper.get();
    } catch (ExecutionException e) {
      if (e.getCause() instanceof RuntimeException failed) {
        throw failed;
      }
      throw new IllegalStateException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted while others were at work");
    }
  }

  @PreDestroy
  void end() {
    helping.shutdownNow();
  }
}
