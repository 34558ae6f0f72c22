package marvek.server.recording;

import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.day.RunDays;
import marvek.core.debrief.GripUse;
import marvek.core.plan.ComputedLap;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.EventFinder;
import marvek.core.telemetry.LapFile;
import marvek.core.telemetry.LapGrid;
import marvek.core.telemetry.LapReader;
import marvek.core.telemetry.Mapping;
import marvek.core.telemetry.ReadReport;
import marvek.core.telemetry.ReadingStopped;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.run.LapRow;
import marvek.server.run.Packed;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Reads stored recordings into laps. Nothing is written before all is read, and then all at once: a
 * job that was killed is done again from the start and leaves nothing twice.
 */
@Component
public class Importer {
  static final TaskDescriptor<Void> TASK = TaskDescriptor.of("read-recording");

  /**
   * The version of the reading. Raised whenever the same file gives other laps than before: what
   * was read by an earlier one is read again from its kept file.
   */
  static final int READ_BY = 3;

  private static final Logger LOG = LoggerFactory.getLogger(Importer.class);
  private static final long TELL_EVERY = 2L << 20;
  private static final Set<Recording.State> WAITING =
      EnumSet.of(Recording.State.STORED, Recording.State.WORKING);

  private final RecordingRows recordings;
  private final Runs runs;
  private final References references;
  private final ObjectProvider<Recordings> recordingsOf;
  private final Parts parts;
  private final JdbcTemplate jdbc;
  private final TransactionTemplate transaction;

  Importer(
      RecordingRows recordings,
      Runs runs,
      References references,
      ObjectProvider<Recordings> recordingsOf,
      Parts parts,
      JdbcTemplate jdbc,
      TransactionTemplate transaction) {
    this.recordings = recordings;
    this.runs = runs;
    this.references = references;
    this.recordingsOf = recordingsOf;
    this.parts = parts;
    this.jdbc = jdbc;
    this.transaction = transaction;
  }

  /** The job, as the scheduler of any server process finds it. */
  @Configuration
  static class Job {
    @Bean
    OneTimeTask<Void> readRecording(Importer importer) {
      return Tasks.oneTime(TASK)
          .execute(
              (instance, context) -> {
                UUID id = UUID.fromString(instance.getId());
                try {
                  importer.run(id);
                } finally {
                  importer.next(id);
                }
              });
    }
  }

  /** A lap ready to be stored. */
  record Ready(DrivenLap lap, LapRow row, byte[] channels) {}

  public void run(UUID id) {
    Optional<Recording> found = recordings.findById(id);
    // A job that was asked for twice finds it done; one that was killed finds it as it left it.
    if (found.isEmpty() || !WAITING.contains(found.get().state())) {
      return;
    }
    Recording row = found.get();
    Mapping mapping = row.mapping();
    if (mapping == null) {
      return;
    }
    row.work();
    Recording working = recordings.saveAndFlush(row);
    ReadReport report = new ReadReport();
    try {
      List<Ready> ready = read(working, mapping, report);
      store(working, ready, report);
    } catch (Refusal p) {
      // The file cannot be taken, or its run or its reference was put away meanwhile.
      fail(id, Recordings.trouble(p), report);
    } catch (ReadingStopped | InterruptedIOException e) {
      Recording now = recordings.findById(id).orElseThrow();
      now.cancelled();
      recordings.saveAndFlush(now);
    } catch (IOException | RuntimeException | OutOfMemoryError e) {
      LOG.error("Recording {} could not be read", id, e);
      fail(
          id,
          new Recording.Trouble(
              Said.of("refusal.recording.not_read.what"),
              null,
              Said.of("refusal.recording.not_read.remedy")),
          report);
    }
  }

  private void next(UUID after) {
    jdbc.query(
        "select owner_id from recording where id = ?",
        row -> {
          recordingsOf.getObject().next(row.getObject(1, UUID.class), after);
        },
        after);
  }

  private void fail(UUID id, Recording.Trouble trouble, ReadReport report) {
    recordings
        .findById(id)
        .ifPresent(
            r -> {
              r.fail(trouble, report.remarks());
              recordings.saveAndFlush(r);
            });
  }

  /** Bytes read, told to the driver now and then; stops where the driver wants it. */
  private final class Watched extends FilterInputStream {
    private final Recording row;
    private long read;
    private long told;

    Watched(InputStream in, Recording row) {
      super(in);
      this.row = row;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      int n = super.read(b, off, len);
      read += Math.max(0, n);
      if (read - told > TELL_EVERY) {
        told = read;
        Boolean cancel =
            jdbc.queryForObject(
                "update recording set progress = ? where id = ? returning cancel",
                Boolean.class,
                Math.min(0.99, read / (double) Math.max(1, row.bytes())),
                row.id());
        if (Boolean.TRUE.equals(cancel)) {
          throw new InterruptedIOException("cancelled");
        }
      }
      return n;
    }
  }

  private List<Ready> read(Recording row, Mapping mapping, ReadReport report) throws IOException {
    Target target = target(row);
    List<Ready> ready = new ArrayList<>();
    LapReader reader =
        target
            .file()
            .read(
                () -> new Watched(parts.from(row.id()), row),
                mapping,
                report,
                lap -> ready.add(target.ready(row, lap)),
                ready::clear);
    if (ready.isEmpty()) {
      throw Refusal.of("refusal.recording.no_lap_file");
    }
    report.add(
        ReadReport.Sort.READ,
        Said.of("report.recording.laps", Value.count(reader.laps()), Value.count(reader.parts())));
    return ready;
  }

  /** Road, vehicle, corners and days that a recording is read on. */
  final class Target {
    private final ComputedLap computed;
    private final References.Opened opened;
    private final RunDays days;
    private final @Nullable String word;
    private final Map<String, EventFinder> finders = new HashMap<>();

    Target(References.Opened opened, @Nullable String word) {
      this.computed = opened.computed();
      this.opened = opened;
      this.days = RunDays.of(opened.working());
      this.word = word;
    }

    /** Events are found by the line and the grip of the day that the lap was driven on. */
    private EventFinder finder(String day) {
      return finders.computeIfAbsent(
          day,
          d -> {
            ComputedLap then =
                days.variant(d).map(v -> references.on(opened, v.day())).orElse(computed);
            return new EventFinder(then.road(), then.corners(), then.limits(), then.path());
          });
    }

    private double grip(DrivenLap lap) {
      if (!lap.kind().whole() || lap.trace().sparse()) {
        return Double.NaN;
      }
      LapGrid fine = LapGrid.of(lap, computed.road().length(), computed.road().size());
      double[] across = fine.channels().get(Channel.ACROSS);
      return GripUse.of(computed, fine.speed(), across == null ? new double[0] : across);
    }

    /** Reads what comes over a line while it is driven. */
    LapReader reader(ReadReport report, java.util.function.Consumer<DrivenLap> taker) {
      return new LapReader(
          computed.road(), opened.layout().plane(), computed.vehicle(), report, taker);
    }

    LapFile file() {
      return new LapFile(
          computed.road(), computed.path(), opened.layout().plane(), computed.vehicle());
    }

    Ready ready(Recording row, DrivenLap lap) {
      Centreline road = computed.road();
      LapGrid grid = LapGrid.of(lap, road.length(), Math.max(2, road.size() / 2));
      double grip = grip(lap);
      String day = days.day(word, grip).orElse(RunDays.OWN);
      LapGrid coarse = LapGrid.of(lap, road.length(), Math.max(2, road.size() / 5));
      return new Ready(
          lap.withoutSamples(),
          new LapRow(
                  row.ownerId(),
                  row.runId(),
                  row.id(),
                  lap.number(),
                  lap.kind(),
                  lap.lapTime(),
                  lap.start(),
                  sectors(lap, coarse),
                  lap.remark(),
                  lap.trace().recorded(Channel.BRAKE) && lap.trace().recorded(Channel.THROTTLE),
                  coarse.step(),
                  Packed.bytes(coarse.times()),
                  finder(day).find(lap))
              .on(grip, day)
              .drawn(finder(day).sketch(lap, computed.fullPress())),
          Packed.bytes(grid));
    }

    /** Times of three equal thirds. */
    private List<Double> sectors(DrivenLap lap, LapGrid grid) {
      if (!lap.kind().whole()) {
        return List.of();
      }
      int n = grid.times().length - 1;
      double a = grid.times()[n / 3];
      double b = grid.times()[2 * n / 3];
      return List.of(a, b - a, lap.lapTime() - b);
    }
  }

  Target target(Recording row) {
    RunRow run =
        runs.find(row.runId()).orElseThrow(() -> Problem.none("refusal.none.run_file_put_away"));
    References.Opened opened = references.open(row.ownerId(), run.referenceId());
    return new Target(opened, run.day());
  }

  /** Puts the laps in the place of those that the recording had before. */
  void store(Recording row, List<Ready> ready, ReadReport report) {
    List<DrivenLap> judged = LapReader.judged(ready.stream().map(Ready::lap).toList());
    transaction.executeWithoutResult(
        t -> {
          Recording now = recordings.findById(row.id()).orElse(null);
          if (now == null) {
            return;
          }
          List<Runs.NewLap> with = new ArrayList<>();
          for (int i = 0; i < ready.size(); i++) {
            with.add(
                new Runs.NewLap(ready.get(i).row().judged(judged.get(i)), ready.get(i).channels()));
          }
          runs.replace(row.id(), with);
          if (now.state() != Recording.State.LIVE) {
            now.done(report.remarks());
          }
          recordings.save(now);
        });
  }
}
