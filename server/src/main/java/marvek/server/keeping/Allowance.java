package marvek.server.keeping;

import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.UUID;
import marvek.core.said.Value;
import marvek.server.problem.Problem;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** How much an account keeps and how much it may. */
@Service
public class Allowance {
  private static final Duration DAY = Duration.ofHours(24);
  private static final double MEGABYTE = 1 << 20;

  private final JdbcClient sql;
  private final KeepingSettings settings;
  private final Clock clock;

  Allowance(JdbcClient sql, KeepingSettings settings, Clock clock) {
    this.sql = sql;
    this.settings = settings;
    this.clock = clock;
  }

  /**
   * What is used of what is allowed.
   *
   * @param bytes kept
   * @param bytesAllowed at most
   * @param runs begun in the last 24 hours
   * @param runsAllowed at most
   */
  public record Used(long bytes, long bytesAllowed, int runs, int runsAllowed) {}

  public Used used(UUID owner) {
    return new Used(bytes(owner), settings.space().toBytes(), runs(owner), settings.runsADay());
  }

  /** Whether there is room for so many bytes more. */
  public boolean has(UUID owner, long more) {
    return bytes(owner) + more <= settings.space().toBytes();
  }

  /** Refuses what there is no room for. */
  public void room(UUID owner, long more) {
    long kept = bytes(owner);
    long allowed = settings.space().toBytes();
    if (kept + more > allowed) {
      throw Problem.full(
          "refusal.keeping.your_account_keeps_needs",
          Value.figure(kept / MEGABYTE, 0),
          Value.figure(allowed / MEGABYTE, 0),
          Value.figure(more / MEGABYTE, 1));
    }
  }

  /** Refuses a run more than are allowed in a day. */
  public void anotherRun(UUID owner) {
    if (runs(owner) >= settings.runsADay()) {
      throw Problem.full(
          "refusal.keeping.runs_were_begun_last", Value.figure(settings.runsADay(), 0));
    }
  }

  private long bytes(UUID owner) {
    return sql.sql(
            """
            select coalesce((select sum(bytes) from recording where owner_id = :o), 0)
              + coalesce((select sum(octet_length(body)) from lap_channels where owner_id = :o), 0)
              + coalesce((select sum(octet_length(jpeg)) from photo where owner_id = :o), 0)
              + coalesce((select sum(octet_length(sound)) from spoken where owner_id = :o), 0)
              + coalesce((select sum(octet_length(road) + octet_length(source))
                  from layout_road where owner_id = :o), 0)
              + coalesce((select sum(pg_column_size(content)) from revision where owner_id = :o), 0)
            """)
        .param("o", owner)
        .query(Long.class)
        .single();
  }

  private int runs(UUID owner) {
    return sql.sql("select count(*) from run where owner_id = :o and created_at > :since")
        .param("o", owner)
        .param("since", OffsetDateTime.ofInstant(clock.instant().minus(DAY), ZoneOffset.UTC))
        .query(Integer.class)
        .single();
  }
}
