package marvek.server.keeping;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.UUID;
import marvek.core.said.Value;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What was put away: out of sight at once, brought back within 30 days, deleted after that or when
 * the basket is emptied.
 */
@Service
public class Basket {
  private static final Duration SETTLED = Duration.ofDays(1);

  private final JdbcClient sql;
  private final KeepingSettings settings;
  private final Clock clock;

  Basket(JdbcClient sql, KeepingSettings settings, Clock clock) {
    this.sql = sql;
    this.settings = settings;
    this.clock = clock;
  }

  /** What can be put away. */
  public enum Sort {
    REFERENCE("reference", "name", "reference"),
    LAYOUT(
        "layout_version",
        "(select name from circuit c where c.id = circuit_id) || ', ' || layout_name || ' '"
            + " || number",
        "layout"),
    VEHICLE("vehicle", "name", "vehicle"),
    RUN("run", "name", "run"),
    PHOTO("photo", "to_char(created_at, 'YYYY-MM-DD')", "picture");

    private final String table;
    private final String name;
    private final String words;

    Sort(String table, String name, String words) {
      this.table = table;
      this.name = name;
      this.words = words;
    }
  }

  /** Something in the basket, and until when it can be brought back. */
  public record Away(UUID id, Sort sort, String name, Instant removedAt, Instant until) {}

  /** Puts something away; what stands on it must have been put away before. */
  @Transactional
  public void put(UUID owner, Sort sort, UUID id) {
    if (sort == Sort.LAYOUT || sort == Sort.VEHICLE) {
      String column = sort == Sort.LAYOUT ? "layout_version_id" : "vehicle_id";
      List<String> standing =
          sql.sql(
                  "select name from reference where owner_id = :o and removed_at is null and "
                      + column
                      + " = :id order by name")
              .param("o", owner)
              .param("id", id)
              .query(String.class)
              .list();
      if (!standing.isEmpty()) {
        throw Problem.conflict(
            null,
            "refusal.keeping.references_stand",
            Value.count(standing.size()),
            Value.own(sort.words),
            Value.own(String.join(", ", standing.subList(0, Math.min(3, standing.size())))),
            Value.choice(standing.size() > 3));
      }
    }
    if (mark(owner, sort, id, clock.instant(), "removed_at is null") == 0) {
      throw Problem.none("refusal.none.no_among_yours", Value.own(sort.words));
    }
  }

  /** Brings something back, with what it stands on. */
  @Transactional
  public void back(UUID owner, Sort sort, UUID id) {
    if (mark(owner, sort, id, null, "removed_at is not null") == 0) {
      throw Problem.none("refusal.none.not_your_basket", Value.own(sort.words));
    }
    if (sort == Sort.RUN) {
      one("select reference_id from run where id = :id", id)
          .ifPresent(r -> under(owner, Sort.REFERENCE, r));
    } else if (sort == Sort.REFERENCE) {
      ground(owner, id);
    }
  }

  private void under(UUID owner, Sort sort, UUID id) {
    mark(owner, sort, id, null, "removed_at is not null");
    if (sort == Sort.REFERENCE) {
      ground(owner, id);
    }
  }

  private void ground(UUID owner, UUID reference) {
    one("select layout_version_id from reference where id = :id", reference)
        .ifPresent(l -> under(owner, Sort.LAYOUT, l));
    one("select vehicle_id from reference where id = :id", reference)
        .ifPresent(v -> under(owner, Sort.VEHICLE, v));
  }

  private java.util.Optional<UUID> one(String query, UUID id) {
    return sql.sql(query).param("id", id).query(UUID.class).optional();
  }

  private int mark(UUID owner, Sort sort, UUID id, @Nullable Instant at, String condition) {
    return sql.sql(
            "update "
                + sort.table
                + " set removed_at = :at where id = :id and owner_id = :o and "
                + condition)
        .param("at", at == null ? null : utc(at), java.sql.Types.TIMESTAMP_WITH_TIMEZONE)
        .param("id", id)
        .param("o", owner)
        .update();
  }

  /** What is in somebody's basket, the newest first. */
  @Transactional(readOnly = true)
  public List<Away> of(UUID owner) {
    StringBuilder query = new StringBuilder();
    for (Sort s : Sort.values()) {
      query
          .append(query.isEmpty() ? "" : " union all ")
          .append("select id, '")
          .append(s.name())
          .append("' as sort, ")
          .append(s.name)
          .append(" as name, removed_at from ")
          .append(s.table)
          .append(" where owner_id = :o and removed_at is not null");
    }
    return sql.sql("select * from (" + query + ") as away order by removed_at desc, id")
        .param("o", owner)
        .query(
            (row, i) -> {
              Instant at = row.getObject("removed_at", OffsetDateTime.class).toInstant();
              return new Away(
                  row.getObject("id", UUID.class),
                  Sort.valueOf(row.getString("sort")),
                  row.getString("name"),
                  at,
                  at.plus(settings.basket()));
            })
        .list();
  }

  /** Deletes for good what is in somebody's basket. */
  @Transactional
  public void empty(UUID owner) {
    delete(owner, clock.instant());
  }

  /** Deletes for good what has been in a basket for so long. */
  @Scheduled(fixedDelay = 3_600_000, initialDelay = 60_000)
  @Transactional
  public void clear() {
    // A picture that no thing has any more is put away, once it can no longer be a step to undo.
    sql.sql(
            """
            update photo p set removed_at = :now where removed_at is null and created_at < :settled
              and not exists (select 1 from survey_item i where i.owner_id = p.owner_id
                and i.body ->> 'photo' = p.id::text)
            """)
        .param("now", utc(clock.instant()))
        .param("settled", utc(clock.instant().minus(SETTLED)))
        .update();
    delete(null, clock.instant().minus(settings.basket()));
  }

  /** Puts all that somebody has away, and deletes it. */
  @Transactional
  void everything(UUID owner) {
    Instant now = clock.instant();
    for (Sort s : Sort.values()) {
      sql.sql("update " + s.table + " set removed_at = :at where owner_id = :o")
          .param("at", utc(now))
          .param("o", owner)
          .update();
    }
    delete(owner, now);
  }

  private void delete(@Nullable UUID owner, Instant until) {
    String due = " removed_at <= :until" + (owner == null ? "" : " and owner_id = :o");
    String references = "(select id from reference where" + due + ")";
    String runs = "(select id from run where (" + due + ") or reference_id in " + references + ")";
    // What stands on something goes before it.
    for (String statement :
        List.of(
            "delete from driven_lap where run_id in " + runs,
            "delete from recording where run_id in " + runs,
            "delete from run where id in " + runs,
            "delete from remark where reference_id in " + references,
            "delete from share where reference_id in " + references,
            "delete from corner_trial where reference_id in " + references,
            "delete from rehearsed where reference_id in " + references,
            "delete from revision where reference_id in " + references,
            "delete from track_session where" + due,
            "delete from reference where" + due,
            "delete from photo where" + due)) {
      run(statement, owner, until);
    }
    String layouts =
        "(select l.id from layout_version l where"
            + due
            + " and not exists (select 1 from reference r where r.layout_version_id = l.id)"
            + " and not exists (select 1 from run u where u.layout_version_id = l.id))";
    for (String table : List.of("survey_item", "survey_change", "photo", "layout_road")) {
      run("delete from " + table + " where layout_version_id in " + layouts, owner, until);
    }
    run("delete from layout_version where id in " + layouts, owner, until);
    String vehicles =
        "(select v.id from vehicle v where"
            + due
            + " and not exists (select 1 from reference r where r.vehicle_id = v.id))";
    run("update vehicle set next_sheet_id = null where id in " + vehicles, owner, until);
    run("delete from setup_sheet where vehicle_id in " + vehicles, owner, until);
    run("delete from vehicle where id in " + vehicles, owner, until);
    sql.sql(
            "delete from circuit c where"
                + (owner == null ? "" : " c.owner_id = :o and")
                + " not exists (select 1 from layout_version l where l.circuit_id = c.id)"
                + " and c.created_at < :until")
        .params(
            owner == null
                ? java.util.Map.of("until", utc(until))
                : java.util.Map.of("o", owner, "until", utc(until)))
        .update();
  }

  private void run(String statement, @Nullable UUID owner, Instant until) {
    var prepared = sql.sql(statement).param("until", utc(until));
    (owner == null ? prepared : prepared.param("o", owner)).update();
  }

  static OffsetDateTime utc(Instant at) {
    return OffsetDateTime.ofInstant(at, ZoneOffset.UTC);
  }
}
