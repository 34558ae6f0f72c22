package marvek.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Proposal;
import marvek.core.debrief.Proposals;
import marvek.core.entry.ReferenceContent;
import marvek.core.lap.Conditions;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import marvek.core.telemetry.Blocks;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.EventFinder;
import marvek.core.telemetry.LapGrid;
import marvek.core.telemetry.LapReader;
import marvek.core.telemetry.Mapping;
import marvek.core.telemetry.ReadReport;
import marvek.core.telemetry.RecordingFile;
import marvek.core.vehicle.VehicleClasses;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * An hour at 50 Hz read into laps and events, against the same bytes read by the CSV library alone;
 * and debriefs of more and more laps.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 4, time = 2)
@Fork(value = 1, jvmArgs = "-Xmx512m")
@SuppressWarnings("NullAway.Init")
public class RunsBenchmark {
  @Param({"10", "30", "60"})
  private int laps = 30;

  private byte[] hour = new byte[0];
  private Mapping mapping;
  private ComputedLap computed;
  private ReferenceContent draft;
  private List<LapData> data = List.of();

  @Setup
  public void setUp() throws IOException {
    StringBuilder outline = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < 1000; i++) {
      double a = 2 * Math.PI * i / 1000;
      double r = 600 + 90 * Math.sin(7 * a) + 45 * Math.sin(12 * a + 1);
      outline.append(String.format(Locale.ROOT, "%.3f,%.3f%n", r * Math.cos(a), r * Math.sin(a)));
    }
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(outline.toString().getBytes(StandardCharsets.UTF_8)),
            CircuitReader.Choices.asItComes());
    computed =
        ComputedLap.compute(
            survey.centreline(),
            survey.corners(),
            VehicleClasses.byId("cup-gt").vehicle(),
            Conditions.dryWarm());
    draft = Drafter.draft(computed, Drafter.boards(computed));
    Drive driven =
        SimulatedDriver.drive(
            new Plan(
                computed,
                draft.corners(),
                List.of(),
                (int) (3600 / computed.lap().lapTime()) + 1,
                1.5,
                0.98,
                0,
                true),
            new Random(1));
    StringBuilder text = new StringBuilder();
    new Recorder(driven, computed.road(), null, Recorder.Noise.usual(), new Random(2))
        .table(50, line -> text.append(line).append('\n'));
    hour = text.toString().getBytes(StandardCharsets.UTF_8);
    mapping = RecordingFile.sniff(java.util.Arrays.copyOf(hour, RecordingFile.HEAD));
    List<LapData> all = new ArrayList<>();
    EventFinder finder = finder();
    for (DrivenLap l : read()) {
      if (l.number() > 0) {
        LapGrid grid = LapGrid.of(l, computed.road().length(), computed.road().size() / 5);
        List<CornerEvents> events = finder.find(l);
        all.add(
            new LapData(
                "l" + l.number(),
                "r",
                l.number(),
                l.lapTime(),
                grid.step(),
                grid.times(),
                events,
                true));
      }
    }
    data = new ArrayList<>();
    for (int i = 0; i < laps; i++) {
      data.add(all.get(i % all.size()));
    }
  }

  private EventFinder finder() {
    return new EventFinder(computed.road(), computed.corners(), computed.limits(), computed.path());
  }

  private List<DrivenLap> read() throws IOException {
    List<DrivenLap> out = new ArrayList<>();
    ReadReport report = new ReadReport();
    RecordingFile.read(
        new ByteArrayInputStream(hour),
        mapping,
        new Blocks(new LapReader(computed.road(), null, computed.vehicle(), report, out::add)),
        report);
    return out;
  }

  /** The yardstick: every field of the file touched by the CSV library, nothing else. */
  @Benchmark
  public long csvAlone() throws IOException {
    long sum = 0;
    try (var csv =
        CsvReader.builder()
            .ofCsvRecord(
                new InputStreamReader(new ByteArrayInputStream(hour), StandardCharsets.UTF_8))) {
      for (var row : csv) {
        for (int i = 0; i < row.getFieldCount(); i++) {
          sum += row.getField(i).length();
        }
      }
    }
    return sum;
  }

  /** Parsed, cleaned, put on the road, cut into laps, events found, put on stations. */
  @Benchmark
  public int importOneHour() throws IOException {
    EventFinder finder = finder();
    int events = 0;
    for (DrivenLap l : read()) {
      events += finder.find(l).size();
      events += LapGrid.of(l, computed.road().length(), computed.road().size() / 2).speed().length;
    }
    return events;
  }

  @Benchmark
  public Debrief debrief() {
    return Debriefer.read(computed, draft.corners(), data);
  }

  @Benchmark
  public List<Proposal> proposals() {
    return Proposals.of(computed, Things.none(), draft.corners(), data, 5);
  }
}
