package marvek.server.reference;

import java.time.Duration;
import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.function.Function;
import marvek.core.plan.ComputedLap;
import marvek.server.circuit.RoadBytes;
import marvek.server.work.Job;
import marvek.server.work.Jobs;
import org.springframework.boot.test.context.TestComponent;
import org.springframework.jdbc.core.JdbcTemplate;

/** Makes references such as were drafted before there was a search, and holds the searching. */
@TestComponent
public class OldLines {
  private final References references;
  private final Jobs jobs;
  private final JdbcTemplate database;

  OldLines(References references, Jobs jobs, JdbcTemplate database) {
    this.references = references;
    this.jobs = jobs;
    this.database = database;
  }

  /** Puts another line under a reference, as one of an older method. */
  public void line(String reference, Function<ComputedLap, double[]> other) {
    UUID id = UUID.fromString(reference);
    UUID owner = references.ownerOf(id).orElseThrow();
    double[] offset = other.apply(references.open(owner, id).computed());
    database.update(
        "update reference set line = ?, line_by = 0, desk_version = desk_version + 1 where id = ?",
        RoadBytes.pack(offset),
        id);
    References.Opened opened = references.open(owner, id);
    database.update(
        "update reference set lap_time = ? where id = ?", opened.computed().lap().lapTime(), id);
  }

  /** Keeps the only searcher busy until it is let go. */
  public void holdSearching(CountDownLatch until) {
    jobs.start(
        UUID.randomUUID(),
        watch -> {
          try {
            until.await();
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
          }
          return Job.Result.of(UUID.randomUUID());
        },
        Duration.ZERO);
  }
}
