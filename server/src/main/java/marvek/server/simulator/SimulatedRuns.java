package marvek.server.simulator;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import java.util.UUID;
import marvek.core.day.RunDays;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Variant;
import marvek.core.line.Watch;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.plan.ComputedLap;
import marvek.server.recording.Importer;
import marvek.server.recording.Recordings;
import marvek.server.reference.References;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs of the simulated driver, as a device would record them. */
@Component
public class SimulatedRuns {
  private final Runs runs;
  private final Recordings recordings;
  private final Importer importer;
  private final References references;

  SimulatedRuns(Runs runs, Recordings recordings, Importer importer, References references) {
    this.runs = runs;
    this.recordings = recordings;
    this.importer = importer;
    this.references = references;
  }

  /** A drive, and the device that recorded it. */
  record Recorded(Drive driven, Recorder recorder) {
    /** Writes the table that the device writes, 50 rows a second. */
    void table(Path file) throws IOException {
      try (BufferedWriter out = Files.newBufferedWriter(file)) {
        recorder.table(
            50,
            line -> {
              try {
                out.write(line);
                out.write("\r\n");
              } catch (IOException e) {
                throw new UncheckedIOException(e);
              }
            });
      }
    }
  }

  /**
   * Drives a reference.
   *
   * @param day one of its days, or another that it is to be driven on; null for its own
   * @param inTurn corners driven otherwise on lap 1, 2, …
   */
  Recorded drive(
      References.Opened opened,
      List<CornerEntry> entries,
      @Nullable Variant day,
      List<List<CornerEntry>> inTurn,
      int laps,
      List<Planted> habits,
      double spread,
      double pace,
      Recorder.Noise device,
      long seed,
      Watch watch) {
    ComputedLap computed = day == null ? opened.computed() : references.on(opened, day.day());
    List<CornerEntry> then =
        day == null ? entries : RunDays.on(opened.computed(), computed, day, entries);
    Drive driven =
        SimulatedDriver.drive(
            new Plan(computed, then, habits, laps, spread, pace, laps > 5 ? 1 : 0, true)
                .inTurn(inTurn.stream().map(other -> with(then, other)).toList()),
            new Random(seed),
            watch);
    return new Recorded(
        driven,
        new Recorder(
            driven,
            opened.computed().road(),
            opened.layout().plane(),
            device,
            new Random(seed + 1)));
  }

  private static List<CornerEntry> with(List<CornerEntry> entries, List<CornerEntry> other) {
    return entries.stream()
        .map(e -> other.stream().filter(o -> o.corner().equals(e.corner())).findFirst().orElse(e))
        .toList();
  }

  /**
   * Drives the reference as it was last saved, and reads the recording at once.
   *
   * @param at when it was driven, or null for now
   */
  public UUID run(
      UUID owner,
      UUID reference,
      String name,
      @Nullable Instant at,
      int laps,
      List<Planted> habits,
      long seed) {
    return run(owner, reference, name, at, laps, List.of(), habits, seed);
  }

  /** Drives some corners otherwise lap by lap, as a trial asks for. */
  public UUID inTurn(
      UUID owner,
      UUID reference,
      String name,
      Instant at,
      List<List<CornerEntry>> inTurn,
      long seed) {
    return run(owner, reference, name, at, inTurn.size(), inTurn, List.of(), seed);
  }

  private UUID run(
      UUID owner,
      UUID reference,
      String name,
      @Nullable Instant at,
      int laps,
      List<List<CornerEntry>> inTurn,
      List<Planted> habits,
      long seed) {
    References.Opened opened = references.open(owner, reference);
    UUID run = runs.start(owner, reference, name, at, null).id();
    Recorded recorded =
        drive(
            opened,
            references.driven(opened, opened.row().basedOnRevision()).corners(),
            null,
            inTurn,
            laps,
            habits,
            1.8,
            0.98,
            Recorder.Noise.usual(),
            seed,
            Watch.NOBODY);
    try {
      importer.run(stored(owner, run, "simulated.csv", recorded).id());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return run;
  }

  /** Takes what the device wrote, as any file. */
  Recordings.Taken stored(UUID owner, UUID run, String name, Recorded recorded) throws IOException {
    Path file = Files.createTempFile("simulated", ".csv");
    try {
      recorded.table(file);
      try (InputStream in = Files.newInputStream(file)) {
        return recordings.take(owner, run, name, in, Files.size(file), recorded.driven().truth());
      }
    } finally {
      Files.delete(file);
    }
  }
}
