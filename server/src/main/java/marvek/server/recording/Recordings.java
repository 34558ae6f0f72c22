package marvek.server.recording;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.logger.Truth;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.Mapping;
import marvek.core.telemetry.RecordingFile;
import marvek.server.keeping.Allowance;
import marvek.server.keeping.Turns;
import marvek.server.problem.Problem;
import marvek.server.reference.Recomputing;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Lazy;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Takes recordings in: stored first as they came, then read by a job. */
@Service
public class Recordings {
  private static final Logger LOG = LoggerFactory.getLogger(Recordings.class);
  private static final Duration FORGOTTEN = Duration.ofSeconds(30);
  private static final Duration BROKE_OFF = Duration.ofHours(2);

  static final long ASK_EVERY = 16L << 20;

  private volatile Set<UUID> forgotten = Set.of();

  /** The largest file taken. */
  static final long LARGEST = 512L << 20;

  private final RecordingRows rows;
  private final MappingRows mappings;
  private final Runs runs;
  private final Parts parts;
  private final SchedulerClient scheduler;
  private final TransactionTemplate transaction;
  private final Allowance allowance;
  private final Turns turns;
  private final Clock clock;

  Recordings(
      RecordingRows rows,
      MappingRows mappings,
      Runs runs,
      Parts parts,
      @Lazy SchedulerClient scheduler,
      TransactionTemplate transaction,
      Allowance allowance,
      Turns turns,
      Clock clock) {
    this.allowance = allowance;
    this.turns = turns;
    this.rows = rows;
    this.mappings = mappings;
    this.runs = runs;
    this.parts = parts;
    this.scheduler = scheduler;
    this.transaction = transaction;
    this.clock = clock;
  }

  /**
   * A file taken in.
   *
   * @param known whether the same file had come before; then it is that one and nothing was added
   */
  public record Taken(UUID id, UUID run, boolean known) {}

  /** Stores a file and has it read. */
  public Taken take(UUID owner, UUID runId, String name, InputStream body, @Nullable Truth truth)
      throws IOException {
    return take(owner, runId, name, body, -1, truth);
  }

  /**
   * Stores a file and has it read.
   *
   * @param expected bytes that are to come; below nothing where that is not known
   */
  public Taken take(
      UUID owner, UUID runId, String name, InputStream body, long expected, @Nullable Truth truth)
      throws IOException {
    allowance.room(owner, Math.max(0, expected));
    RunRow run = runs.own(owner, runId);
    String called = name.isBlank() ? "recording" : name.strip();
    Recording row =
        rows.saveAndFlush(
            new Recording(
                owner,
                run.id(),
                called.substring(0, Math.min(200, called.length())),
                Recording.State.RECEIVING,
                clock.instant()));
    boolean whole = false;
    try {
      MessageDigest sum = MessageDigest.getInstance("SHA-256");
      long bytes = copy(row, new DigestInputStream(body, sum));
      String digest = HexFormat.of().formatHex(sum.digest());
      if (expected >= 0 && bytes != expected) {
        throw Problem.bad(
            "refusal.recording.only_bytes_came", Value.figure(bytes, 0), Value.figure(expected, 0));
      }
      Optional<Recording> same =
          Objects.requireNonNull(
              transaction.execute(t -> store(owner, run, row.id(), bytes, digest, truth)));
      if (same.isPresent()) {
        return new Taken(same.get().id(), same.get().runId(), true);
      }
      whole = true;
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    } finally {
      if (!whole) {
        rows.deleteById(row.id());
      }
    }
    recognise(row.id());
    return new Taken(row.id(), runId, false);
  }

  /** Stores a file that has come, unless the same is there; two at once take turns. */
  private Optional<Recording> store(
      UUID owner, RunRow run, UUID id, long bytes, String digest, @Nullable Truth truth) {
    turns.at("recordings of " + owner);
    Optional<Recording> same = same(owner, run, digest);
    if (same.isEmpty()) {
      Recording stored = rows.findById(id).orElseThrow();
      stored.stored(bytes, digest);
      if (truth != null) {
        stored.tell(truth);
      }
      rows.saveAndFlush(stored);
    }
    return same;
  }

  private long copy(Recording row, InputStream in) throws IOException {
    long bytes = 0;
    long asked = ASK_EVERY;
    byte[] buffer = new byte[1 << 16];
    try (OutputStream out = parts.to(row.id(), row.ownerId())) {
      int n;
      while ((n = in.read(buffer)) > 0) {
        bytes += n;
        if (bytes > LARGEST) {
          throw Problem.bad("refusal.recording.file_larger");
        }
        if (bytes >= asked) {
          // Where the length was not told, room is asked for as it comes.
          asked = bytes + ASK_EVERY;
          allowance.room(row.ownerId(), bytes);
        }
        out.write(buffer, 0, n);
      }
    }
    if (bytes == 0) {
      throw Problem.bad("refusal.telemetry.file_empty");
    }
    return bytes;
  }

  /** Files of runs that this person may see, in the order in which they came. */
  @Transactional(readOnly = true)
  public List<Recording> of(List<RunRow> of) {
    return rows.findByRunIdInOrderByCreatedAt(of.stream().map(RunRow::id).toList());
  }

  /** The same file among the runs of the same reference. */
  private Optional<Recording> same(UUID owner, RunRow run, String digest) {
    List<UUID> all = runs.newest(run.referenceId()).stream().map(RunRow::id).toList();
    return rows.findByOwnerIdAndDigestAndRunIdIn(owner, digest, all).stream().findFirst();
  }

  /** Finds out how a stored file is read, and has it read unless the driver must be asked. */
  void recognise(UUID id) throws IOException {
    byte[] head;
    try (InputStream in = parts.from(id)) {
      head = in.readNBytes(RecordingFile.HEAD);
    }
    Recording row = rows.findById(id).orElseThrow();
    try {
      Mapping found = RecordingFile.sniff(head);
      Mapping mapping =
          mappings
              .findByOwnerIdAndSignature(row.ownerId(), signature(found))
              .map(MappingMemory::mapping)
              .orElse(found);
      Optional<Refusal> missing = mapping.problem();
      row.found(mapping, missing.map(Recordings::trouble).orElse(null));
      rows.saveAndFlush(row);
      if (missing.isEmpty()) {
        read(id);
      }
    } catch (Refusal p) {
      row.fail(trouble(p), List.of());
      rows.saveAndFlush(row);
    }
  }

  static Recording.Trouble trouble(Refusal p) {
    return new Recording.Trouble(p.what(), p.where(), p.remedy());
  }

  /** What tells files of one source: their columns' names and form. */
  private static String signature(Mapping mapping) {
    String names =
        mapping.format()
            + "\u0000"
            + mapping.delimiter()
            + mapping.columns().stream()
                .map(Mapping.Column::header)
                .collect(Collectors.joining("\u0000"));
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(names.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  /** Has a stored file read by the next free worker, this process's or another's. */
  private void read(UUID id) {
    transaction.executeWithoutResult(
        t -> {
          UUID owner = rows.findById(id).orElseThrow().ownerId();
          turns.at("reading of " + owner);
          // One at a time for each account: who brings a hundred files does not keep others
          // waiting.
          if (!rows.reading(owner, id)) {
            schedule(id);
          }
        });
  }

  /** Has the next file of somebody read, after one was. */
  void next(UUID owner, UUID after) {
    transaction.executeWithoutResult(
        t -> {
          turns.at("reading of " + owner);
          rows.waiting(owner, after).ifPresent(this::schedule);
        });
  }

  private void schedule(UUID id) {
    scheduler.scheduleIfNotExists(Importer.TASK.instance(id.toString()).build(), clock.instant());
  }

  Recording own(UUID owner, UUID id) {
    Recording row = rows.findById(id).orElseThrow(() -> Problem.none("refusal.none.no_recording"));
    runs.own(owner, row.runId());
    return row;
  }

  /** Takes what the driver says of the columns, remembers it, and reads the file anew. */
  void map(UUID owner, UUID id, List<Mapping.Column> columns) {
    Recording row = own(owner, id);
    Mapping before = row.mapping();
    if (before == null || before.format() != Mapping.Format.TABLE) {
      throw Problem.bad("refusal.recording.file_no_columns_name");
    }
    settled(row);
    Mapping mapping = before.with(columns);
    mapping
        .problem()
        .ifPresent(
            p -> {
              throw p;
            });
    transaction.executeWithoutResult(
        t -> {
          String signature = signature(before);
          MappingMemory memory =
              mappings
                  .findByOwnerIdAndSignature(owner, signature)
                  .orElseGet(() -> new MappingMemory(owner, signature, mapping));
          memory.learn(mapping);
          mappings.save(memory);
          row.found(mapping, null);
          rows.save(row);
        });
    read(id);
  }

  /** Reads a file once more, as after a change of the corners. */
  void again(UUID owner, UUID id) throws IOException {
    Recording row = own(owner, id);
    settled(row);
    if (row.state() == Recording.State.RECEIVING) {
      throw Problem.conflict(null, "refusal.recording.file_not_whole_still");
    }
    if (row.mapping() == null) {
      recognise(id);
      return;
    }
    row.found(row.mapping(), null);
    rows.saveAndFlush(row);
    read(id);
  }

  /**
   * What a server that was ended left between two steps: a file that is stored and that no job
   * reads is given one; one that broke off on its way was never taken, and goes.
   */
  @Scheduled(fixedDelay = 20_000)
  void sweep() {
    Instant now = clock.instant();
    Set<UUID> unknown = new HashSet<>();
    for (Recording row :
        rows.findByStateAndCreatedAtBefore(Recording.State.STORED, now.minus(FORGOTTEN))) {
      if (row.mapping() != null) {
        read(row.id());
      } else {
        unknown.add(row.id());
      }
    }
    for (UUID id : unknown) {
      // Seen at the last round too: whoever stores it now is not in the middle of it.
      if (forgotten.contains(id)) {
        try {
          recognise(id);
        } catch (IOException | RuntimeException e) {
          LOG.warn("Recording {} is stored and cannot be recognised", id, e);
        }
      }
    }
    forgotten = unknown;
    for (Recording row :
        rows.findByStateAndCreatedAtBefore(Recording.State.RECEIVING, now.minus(BROKE_OFF))) {
      rows.delete(row);
    }
  }

  /**
   * What an earlier version has read is read again, the newest first and one at a time, and only
   * while no driver waits for a file.
   */
  @Scheduled(fixedDelay = 3000)
  void renew() throws IOException {
    if (rows.existsByStateIn(List.of(Recording.State.STORED, Recording.State.WORKING))) {
      return;
    }
    Optional<Recording> next = rows.readBefore(Importer.READ_BY);
    if (next.isPresent()) {
      again(next.get().ownerId(), next.get().id());
    }
  }

  /** Laps tell their grip against the computed lap: another pace asks for another reading. */
  @EventListener
  @Transactional
  public void paced(Recomputing.OtherPace other) throws IOException {
    for (RunRow run : runs.newest(other.reference())) {
      againAll(other.owner(), run.id());
    }
  }

  /** Reads all recordings of a run once more, as after another day was named for it. */
  public void againAll(UUID owner, UUID runId) throws IOException {
    for (Recording r : rows.findByRunIdInOrderByCreatedAt(List.of(runs.own(owner, runId).id()))) {
      if (r.state() == Recording.State.DONE) {
        again(owner, r.id());
      }
    }
  }

  private static void settled(Recording row) {
    if (row.state() == Recording.State.WORKING) {
      throw Problem.conflict(null, "refusal.recording.file_being_read");
    }
  }

  void cancel(UUID owner, UUID id) {
    Recording row = own(owner, id);
    transaction.executeWithoutResult(
        t -> {
          rows.cancel(row.id());
          rows.cancelWaiting(row.id());
        });
  }

  void remove(UUID owner, UUID id) {
    Recording row = own(owner, id);
    settled(row);
    rows.delete(row);
  }

  InputStream file(UUID owner, UUID id) {
    return parts.from(own(owner, id).id());
  }

  /** Begins a recording whose lines will come over the live port. */
  public Recording listen(UUID owner, UUID runId, String name, @Nullable Truth truth) {
    RunRow run = runs.own(owner, runId);
    Recording row = new Recording(owner, run.id(), name, Recording.State.LIVE, clock.instant());
    row.listen(UUID.randomUUID().toString());
    if (truth != null) {
      row.tell(truth);
    }
    return rows.saveAndFlush(row);
  }

  /**
   * Ends a line whose process is gone: what came before it broke off is read like any other file.
   */
  void broken(UUID id) throws IOException {
    long bytes = 0;
    try (InputStream in = parts.from(id)) {
      bytes = in.transferTo(OutputStream.nullOutputStream());
    }
    ended(id, bytes);
  }

  /** Ends a live recording: what came is now a file like any other. */
  void ended(UUID id, long bytes) throws IOException {
    Recording row = rows.findById(id).orElseThrow();
    row.stored(bytes, "");
    rows.saveAndFlush(row);
    if (bytes == 0) {
      row.fail(
          new Recording.Trouble(
              Said.of("refusal.recording.nothing_came.what"),
              null,
              Said.of("refusal.recording.nothing_came.remedy")),
          List.of());
      rows.saveAndFlush(row);
      return;
    }
    recognise(id);
  }
}
