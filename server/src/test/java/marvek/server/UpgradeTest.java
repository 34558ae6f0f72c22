package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.sql.Timestamp;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.sql.DataSource;
import marvek.core.said.Said;
import marvek.core.session.PlannedTrial;
import marvek.core.session.TrackSession;
import marvek.core.words.Speaker;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** A database of each version, with something in every table, brought to the newest. */
@ServerTest
class UpgradeTest {
  private static final int NEWEST = 22;

  /** The version since which there are runs, and that since which there are sessions. */
  private static final int RUNS = 4;

  private static final int SESSIONS = 13;

  /** The version since which what is remarked of a lap is a key with values. */
  private static final int REMARKS = 21;

  private static final Instant DAY = Instant.parse("2026-05-02T08:00:00Z");

  @Autowired private DataSource source;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private ObjectMapper json;

  /** Ids of the row that others refer to, by table. */
  private final Map<String, Object> ids = new HashMap<>();

  private String schema = "";

  static List<Integer> versions() {
    return IntStream.range(1, NEWEST).boxed().toList();
  }

  private Flyway flyway(String target) {
    return Flyway.configure()
        .dataSource(source)
        .schemas(schema)
        .locations("classpath:db/migration")
        .target(target)
        .load();
  }

  @ParameterizedTest
  @MethodSource("versions")
  void whatWasThereIsThereAfterwards(int version) throws Exception {
    schema = "upgrade_" + version;
    jdbc.execute("drop schema if exists " + schema + " cascade");
    try {
      flyway(String.valueOf(version)).migrate();
      fill();
      if (version < REMARKS && tables().contains("driven_lap")) {
        for (String remark : List.of("", "timed by hand", "1.4 s beyond the edge")) {
          row("driven_lap", Map.of("remark", remark));
        }
      }
      Map<String, Long> before = counts();
      Long landmarks = before.remove("landmark");
      List<UUID> runs = version >= RUNS ? runs() : List.of();
      UUID trial = version >= RUNS && version < SESSIONS + 1 ? trial(runs) : null;
      assertThat(flyway("latest").migrate().success).isTrue();
      assertThat(
              jdbc.queryForObject(
                  "select max(version::int) from " + schema + ".flyway_schema_history",
                  Integer.class))
          .isEqualTo(NEWEST);
      counts()
          .forEach(
              (table, n) ->
                  assertThat(n).as(table).isGreaterThanOrEqualTo(before.getOrDefault(table, 0L)));
      assertThat(counts().keySet()).containsAll(before.keySet());
      if (landmarks != null) {
        // They became things of the survey.
        assertThat(counts().get("survey_item")).isEqualTo(landmarks);
      }
      if (before.containsKey("driven_lap") && version < REMARKS) {
        remarksAreRead();
      }
      if (!runs.isEmpty() && version < SESSIONS) {
        belongToSessions(runs);
      }
      if (trial != null && version < SESSIONS + 1) {
        keepsItsWords(trial, version < SESSIONS ? runs.get(0) : null);
      }
    } finally {
      jdbc.execute("drop schema if exists " + schema + " cascade");
    }
  }

  /** Two hours apart is one session, a day later another, and both are read like any. */
  private void belongToSessions(List<UUID> runs) throws Exception {
    List<UUID> sessions = runs.stream().map(this::session).toList();
    assertThat(sessions.get(1)).isEqualTo(sessions.get(0));
    assertThat(sessions.get(2)).isNotEqualTo(sessions.get(0));
    for (UUID s : sessions) {
      String body =
          jdbc.queryForObject(
              "select body::text from " + schema + ".track_session where id = ?", String.class, s);
      TrackSession session = json.readValue(body, TrackSession.class);
      session.check();
      assertThat(session.timing().start().zone().getId()).isEqualTo("Europe/Lisbon");
      assertThat(
              jdbc.queryForObject(
                  "select made from " + schema + ".track_session where id = ?", Boolean.class, s))
          .isTrue();
    }
  }

  /** What was remarked of laps in words is told as it was. */
  private void remarksAreRead() throws Exception {
    List<String> told = new ArrayList<>();
    for (String remark :
        jdbc.queryForList("select remark::text from " + schema + ".driven_lap", String.class)) {
      told.add(Speaker.PLAIN.say(json.readValue(remark, Said.class)));
    }
    assertThat(told).contains("", "timed by hand", "1.4 s beyond the edge");
  }

  private UUID session(UUID run) {
    return jdbc.queryForObject(
        "select session_id from " + schema + ".run where id = ?", UUID.class, run);
  }

  private void keepsItsWords(UUID trial, UUID run) throws Exception {
    String body =
        jdbc.queryForObject(
            "select body::text from " + schema + ".corner_trial where id = ?", String.class, trial);
    PlannedTrial planned = json.readValue(body, PlannedTrial.class);
    assertThat(planned.a().label()).isEqualTo("one gear lower");
    assertThat(planned.b().label()).isEqualTo("as planned");
    assertThat(planned.corner()).isEqualTo("c3");
    if (run != null) {
      assertThat(
              jdbc.queryForObject(
                  "select session_id from " + schema + ".corner_trial where id = ?",
                  UUID.class,
                  trial))
          .isEqualTo(session(run));
    }
  }

  private List<UUID> runs() {
    List<UUID> out = new ArrayList<>();
    for (Instant at : List.of(DAY, DAY.plus(2, ChronoUnit.HOURS), DAY.plus(1, ChronoUnit.DAYS))) {
      out.add((UUID) row("run", Map.of("driven_at", Timestamp.from(at))));
    }
    return out;
  }

  /** Two texts, and laps of the first run that were the one and the other. */
  private UUID trial(List<UUID> runs) {
    Object lap = row("driven_lap", Map.of("run_id", runs.get(0)));
    boolean words = columns("corner_trial").stream().anyMatch(c -> c.name.equals("first_way"));
    return words
        ? (UUID)
            row(
                "corner_trial",
                Map.of(
                    "corner", "c3",
                    "first_way", "one gear lower",
                    "second_way", "as planned",
                    "marks", "{\"" + lap + "\": \"A\"}"))
        : null;
  }

  private Map<String, Long> counts() {
    Map<String, Long> out = new TreeMap<>();
    for (String table : tables()) {
      out.put(
          table, jdbc.queryForObject("select count(*) from " + schema + "." + table, Long.class));
    }
    return out;
  }

  private List<String> tables() {
    return jdbc.queryForList(
        "select table_name from information_schema.tables where table_schema = ? and table_name <>"
            + " 'flyway_schema_history' order by 1",
        String.class,
        schema);
  }

  private record Column(String name, String type, boolean needed, String refers) {}

  private List<Column> columns(String table) {
    return jdbc.query(
        """
        select c.column_name, c.data_type,
          c.is_nullable = 'NO' and c.column_default is null and c.is_identity = 'NO',
          (select r.relname from pg_constraint k
            join pg_class t on t.oid = k.conrelid
            join pg_namespace n on n.oid = t.relnamespace
            join pg_class r on r.oid = k.confrelid
            join pg_attribute a on a.attrelid = t.oid and a.attnum = k.conkey[1]
            where k.contype = 'f' and n.nspname = c.table_schema and t.relname = c.table_name
              and a.attname = c.column_name limit 1)
        from information_schema.columns c where c.table_schema = ? and c.table_name = ?
        order by c.ordinal_position
        """,
        (row, i) ->
            new Column(row.getString(1), row.getString(2), row.getBoolean(3), row.getString(4)),
        schema,
        table);
  }

  /** A row in every table, what they refer to first. */
  private void fill() {
    ids.clear();
    List<String> left = new ArrayList<>(tables());
    while (!left.isEmpty()) {
      String next =
          left.stream()
              .filter(
                  t ->
                      columns(t).stream()
                          .allMatch(
                              c ->
                                  !c.needed
                                      || c.refers == null
                                      || c.refers.equals(t)
                                      || ids.containsKey(c.refers)))
              .findFirst()
              .orElseThrow();
      ids.put(next, row(next, Map.of()));
      left.remove(next);
    }
  }

  /** Adds a row and says its first column. */
  private Object row(String table, Map<String, Object> given) {
    Map<String, Object> values = new TreeMap<>();
    List<String> json = new ArrayList<>();
    for (Column c : columns(table)) {
      if (given.containsKey(c.name) || c.needed) {
        values.put(c.name, given.getOrDefault(c.name, value(table, c)));
        if (c.type.equals("jsonb")) {
          json.add(c.name);
        }
      }
    }
    String names = String.join(", ", values.keySet());
    String marks =
        values.keySet().stream()
            .map(n -> json.contains(n) ? "?::jsonb" : "?")
            .collect(Collectors.joining(", "));
    jdbc.update(
        "insert into " + schema + "." + table + " (" + names + ") values (" + marks + ")",
        values.values().toArray());
    return values.getOrDefault(columns(table).get(0).name, "");
  }

  private Object value(String table, Column c) {
    if (c.refers != null && ids.containsKey(c.refers)) {
      return ids.get(c.refers);
    }
    if (c.name.equals("zone")) {
      return "Europe/Lisbon";
    }
    return switch (c.type) {
      case "uuid" -> UUID.randomUUID();
      case "integer", "smallint", "bigint" -> 1;
      case "double precision" -> 1.0;
      case "boolean" -> false;
      case "date" -> java.sql.Date.valueOf("2026-05-01");
      case "timestamp with time zone" -> Timestamp.from(DAY);
      case "bytea" -> new byte[] {0};
      case "jsonb" -> "{}";
      default -> table.length() > 8 ? table.substring(0, 8) : table;
    };
  }
}
