package marvek.server.recording;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import marvek.server.People;
import marvek.server.Refused;
import marvek.server.ServerTest;
import marvek.server.problem.Problem;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Files that break off on their way, and files that wait for their turn. */
@ServerTest
class TornFilesTest {
  @Autowired private People people;
  @Autowired private Recordings recordings;
  @Autowired private RecordingRows rows;
  @Autowired private JdbcClient sql;

  private record There(UUID owner, UUID run) {}

  /** A run of the demo's driver, and whose it is. */
  private There demo() {
    Map<String, Object> run =
        sql.sql(
                "select r.id, r.owner_id from run r join account a on a.id = r.owner_id"
                    + " where a.email = 'driver@example.org' order by r.created_at limit 1")
            .query()
            .singleRow();
    return new There((UUID) run.get("owner_id"), (UUID) run.get("id"));
  }

  private List<String> of(UUID run) {
    return sql.sql("select name from recording where run_id = :r")
        .param("r", run)
        .query(String.class)
        .list();
  }

  @Test
  void aFileThatDoesNotComeWholeIsNotTaken() {
    There there = demo();
    List<String> before = of(there.run());
    byte[] half = "time,speed\n0,1\n1,".getBytes(java.nio.charset.StandardCharsets.US_ASCII);
    for (long expected : new long[] {half.length + 1L, half.length - 1L, 1000}) {
      assertThatThrownBy(
              () ->
                  recordings.take(
                      there.owner(),
                      there.run(),
                      "torn.csv",
                      new ByteArrayInputStream(half),
                      expected,
                      null))
          .isInstanceOf(Problem.class)
          .satisfies(e -> assertThat(Refused.what(e)).contains(half.length + " of " + expected));
    }
    InputStream breaks =
        new InputStream() {
          private int n;

          @Override
          public int read() throws IOException {
            if (n++ > 5) {
              throw new IOException("the line broke");
            }
            return 'a';
          }
        };
    assertThatThrownBy(
            () -> recordings.take(there.owner(), there.run(), "broken.csv", breaks, 1000, null))
        .isInstanceOf(IOException.class);
    assertThat(of(there.run())).isEqualTo(before);
  }

  @Test
  void oneFileOfAnAccountIsReadAtATimeAndTheNextFollows() {
    There there = demo();
    // As if one were in the middle of being read.
    UUID working = UUID.randomUUID();
    UUID waiting = UUID.randomUUID();
    for (UUID id : List.of(working, waiting)) {
      sql.sql(
              """
              insert into recording (id, owner_id, run_id, name, bytes, digest, state, progress,
                cancel, mapping, report, created_at)
              select :id, :o, :r, 'wait.csv', 1, :d, :s, 0, false, mapping, '[]', now()
              from recording where mapping is not null limit 1
              """)
          .param("id", id)
          .param("o", there.owner())
          .param("r", there.run())
          .param("d", id.toString())
          .param("s", id.equals(working) ? "WORKING" : "STORED")
          .update();
    }
    try {
      assertThat(rows.reading(there.owner(), waiting)).isTrue();
      assertThat(rows.waiting(there.owner(), working)).contains(waiting);
      UUID other =
          UUID.fromString(
              people.newcomer().get("/api/session").body().path("person").path("id").asText());
      assertThat(rows.reading(other, waiting)).isFalse();
      sql.sql("update recording set state = 'DONE' where id = :id").param("id", working).update();
      assertThat(rows.reading(there.owner(), waiting)).isFalse();
    } finally {
      sql.sql("delete from recording where name = 'wait.csv'").update();
    }
  }
}
