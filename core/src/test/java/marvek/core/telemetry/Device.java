package marvek.core.telemetry;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.OutlineFile;
import marvek.core.circuit.Tracks;
import marvek.core.lap.Conditions;
import marvek.core.logger.Driven;
import marvek.core.logger.Habit;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.reference.CornerEntry;
import marvek.core.reference.Desk;
import marvek.core.reference.Drafter;
import marvek.core.vehicle.VehicleClasses;
import org.jspecify.annotations.Nullable;

/** A lap of four bends, driven by the simulated driver; its files can be spoilt before reading. */
public final class Device {
  public static final Desk DESK = desk("cup-gt");
  public static final List<CornerEntry> DRAFT = Drafter.draft(DESK, Drafter.boards(DESK)).corners();

  private Device() {}

  static Desk desk(String vehicle) {
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(Tracks.square(420, 45, 4).csv()),
            new CircuitReader.Choices(false, 200, 12, false));
    return Desk.compute(
        survey.centreline(),
        survey.corners(),
        VehicleClasses.byId(vehicle).vehicle(),
        Conditions.dryWarm());
  }

  public static Driven drive(int laps, long seed, Habit... habits) {
    return SimulatedDriver.drive(
        new Plan(DESK, DRAFT, List.of(habits), laps, 1.5, 0.98, 0, true), new Random(seed));
  }

  /** The rows of a recording, the names first. */
  static List<String> rows(Driven driven, double rate, Recorder.Noise noise) {
    List<String> rows = new ArrayList<>();
    new Recorder(driven, DESK.road(), null, noise, new Random(9)).table(rate, rows::add);
    return rows;
  }

  /** Every row's cells changed; the names stay. */
  static String spoilt(List<String> rows, UnaryOperator<String[]> how) {
    return rows.get(0)
        + "\n"
        + rows.stream()
            .skip(1)
            .map(r -> how.apply(r.split(",")))
            .filter(c -> c.length > 0)
            .map(c -> String.join(",", c))
            .collect(Collectors.joining("\n"))
        + "\n";
  }

  /** What came of reading. */
  public record Read(List<DrivenLap> laps, ReadReport report) {
    public List<DrivenLap> whole() {
      return laps.stream().filter(l -> l.number() > 0).toList();
    }

    String said() {
      return report.remarks().stream()
          .map(ReadReport.Remark::words)
          .collect(Collectors.joining("\n"));
    }

    public List<List<CornerEvents>> events() {
      EventFinder finder = new EventFinder(DESK.road(), DESK.corners(), DESK.limits(), DESK.path());
      return whole().stream().map(finder::find).toList();
    }
  }

  public static Read read(String text) {
    return read(text, DESK, null);
  }

  static Read read(byte[] bytes, Mapping mapping) {
    return read(bytes, mapping, DESK, null);
  }

  /** What comes of a file on the road of a desk, which lies where the plane says. */
  static Read read(String text, Desk desk, @Nullable LocalPlane plane) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    byte[] head = Arrays.copyOf(bytes, Math.min(bytes.length, RecordingFile.HEAD));
    return read(bytes, RecordingFile.sniff(head), desk, plane);
  }

  private static Read read(byte[] bytes, Mapping mapping, Desk desk, @Nullable LocalPlane plane) {
    List<DrivenLap> laps = new ArrayList<>();
    ReadReport report = new ReadReport();
    try {
      new LapFile(desk.road(), desk.path(), plane, desk.vehicle())
          .read(() -> new ByteArrayInputStream(bytes), mapping, report, laps::add, laps::clear);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return new Read(laps, report);
  }

  public static Read read(Driven driven) {
    return read(spoilt(rows(driven, 50, Recorder.Noise.usual()), c -> c));
  }
}
