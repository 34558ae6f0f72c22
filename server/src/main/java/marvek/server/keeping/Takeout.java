package marvek.server.keeping;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.ResultSet;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import marvek.server.problem.Problem;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * All that an account has, as a ZIP: a line of JSON for each row of each table, and the files as
 * they came.
 */
@Service
class Takeout {
  private static final int AT_ONCE = 20;
  private static final Duration PATIENCE = Duration.ofSeconds(10);
  private static final String ABOUT =
      """
      What Marvek keeps of you.
      tables/NAME.jsonl  one object of JSON a line, for each thing that you have made
      outlines/ID-NAME   the files that layouts were made from, as they came
      pictures/ID.jpg    pictures of the survey
      spoken/ID.TYPE     what you said aloud after a run
      recordings/ID-NAME the recordings of your runs, as they came
      References and runs can also be had one by one, as JSON and CSV, where they are shown.
      """;

  /** Tables, and the columns that hold files or what is computed anew. */
  private enum Table {
    circuit(""),
    layout_version(""),
    survey_item(""),
    vehicle(""),
    setup_sheet(""),
    reference("line"),
    revision(""),
    share(""),
    session_let_in(""),
    remark(""),
    run(""),
    recording("token"),
    driven_lap("times"),
    corner_trial(""),
    event(""),
    track_session(""),
    session_line(""),
    spoken("sound"),
    rehearsed(""),
    mapping_memory("");

    private final String without;

    Table(String without) {
      this.without = without;
    }
  }

  /** One is written at a time; who asks for a second meanwhile is told so. */
  private final Semaphore one = new Semaphore(1, true);

  private final Set<UUID> asked = ConcurrentHashMap.newKeySet();
  private final JdbcTemplate sql;
  private final TransactionTemplate transaction;

  Takeout(JdbcTemplate sql, TransactionTemplate transaction) {
    this.sql = new JdbcTemplate(java.util.Objects.requireNonNull(sql.getDataSource()));
    this.sql.setFetchSize(AT_ONCE);
    this.transaction = transaction;
  }

  /**
   * All of it as a file that is gone once it has been read. Written row by row and to the disk
   * first: whoever reads slowly holds no connection of the database.
   */
  InputStream of(UUID owner) throws IOException {
    if (!asked.add(owner)) {
      throw Problem.tooMany("refusal.keeping.all_you_being_put");
    }
    try {
      if (!one.tryAcquire(PATIENCE.toSeconds(), TimeUnit.SECONDS)) {
        throw Problem.busy();
      }
      try {
        return written(owner);
      } finally {
        one.release();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Problem.busy();
    } finally {
      asked.remove(owner);
    }
  }

  private InputStream written(UUID owner) throws IOException {
    Path file = Files.createTempFile("takeout", ".zip");
    try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
      to(owner, out);
    } catch (IOException | RuntimeException e) {
      Files.deleteIfExists(file);
      throw e;
    }
    return Files.newInputStream(file, StandardOpenOption.DELETE_ON_CLOSE);
  }

  private void to(UUID owner, OutputStream out) throws IOException {
    try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
      // The database sends rows by and by only within a transaction.
      transaction.executeWithoutResult(
          t -> {
            try {
              write(owner, zip);
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          });
    } catch (UncheckedIOException e) {
      throw new IOException(e);
    }
  }

  private void write(UUID owner, ZipOutputStream zip) throws IOException {
    entry(zip, "about.txt");
    zip.write(ABOUT.getBytes(StandardCharsets.UTF_8));
    zip.closeEntry();
    lines(
        zip,
        "account",
        "select (to_jsonb(t) - 'password')::text from account t where id = ?",
        owner);
    for (Table t : Table.values()) {
      lines(
          zip,
          t.name(),
          "select (to_jsonb(t) - '"
              + t.without
              + "')::text from "
              + t.name()
              + " t where owner_id = ?",
          owner);
    }
    files(
        zip,
        "select 'outlines/' || l.id || '-' || l.source_name, r.source from layout_road r"
            + " join layout_version l on l.id = r.layout_version_id where l.owner_id = ?",
        owner);
    files(
        zip,
        "select 'spoken/' || id || '.' || split_part(type, '/', 2), sound from spoken where owner_id = ?",
        owner);
    files(zip, "select 'pictures/' || id || '.jpg', jpeg from photo where owner_id = ?", owner);
    List<String[]> recordings =
        sql.query(
            "select id::text, name from recording where owner_id = ? order by created_at",
            (row, i) -> new String[] {row.getString(1), row.getString(2)},
            owner);
    for (String[] r : recordings) {
      entry(zip, "recordings/" + r[0] + "-" + plain(r[1]));
      sql.query(
          "select body from recording_part where recording_id = ?::uuid order by number",
          row -> {
            try (InputStream part = new GZIPInputStream(row.getBinaryStream(1))) {
              part.transferTo(zip);
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          },
          r[0]);
      zip.closeEntry();
    }
  }

  private void lines(ZipOutputStream zip, String table, String query, UUID owner)
      throws IOException {
    entry(zip, "tables/" + table + ".jsonl");
    sql.query(
        query,
        row -> {
          put(zip, (row.getString(1) + "\n").getBytes(StandardCharsets.UTF_8));
        },
        owner);
    zip.closeEntry();
  }

  private void files(ZipOutputStream zip, String query, UUID owner) {
    sql.query(
        query,
        (ResultSet row) -> {
          try {
            String name = row.getString(1);
            int at = name.indexOf('/') + 1;
            entry(zip, name.substring(0, at) + plain(name.substring(at)));
            put(zip, row.getBytes(2));
            zip.closeEntry();
          } catch (IOException e) {
            throw new UncheckedIOException(e);
          }
        },
        owner);
  }

  private static void put(ZipOutputStream zip, byte[] bytes) {
    try {
      zip.write(bytes);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void entry(ZipOutputStream zip, String name) throws IOException {
    zip.putNextEntry(new ZipEntry(name));
  }

  /** A name that is a file's and not a path. */
  private static String plain(String name) {
    return name.replaceAll("[^\\p{L}\\p{N}._ -]", "_");
  }
}
