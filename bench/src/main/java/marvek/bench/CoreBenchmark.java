package marvek.bench;

import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Outline;
import marvek.core.circuit.OutlineFile;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.DayKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.lap.Conditions;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Path;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.ways.Choices;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * Times of the computation on a lap of 5 km, made up of bends of many radii. {@code copyArrays} is
 * the yardstick of the run: the same number of values copied twenty times.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
@SuppressWarnings("NullAway.Init")
public class CoreBenchmark {
  private byte[] file = new byte[0];
  private CircuitReading survey;
  private Vehicle vehicle;
  private Path path;
  private ComputedLap computed;
  private CornerEntry entry;
  private CornerEntry shaped;
  private CornerEntry relined;
  private Variant wet;

  @Setup
  public void setUp() {
    file = lap();
    Outline outline = OutlineFile.read(file);
    survey = CircuitReader.read(outline, CircuitReader.Choices.asItComes());
    vehicle = VehicleClasses.byId("cup-gt").vehicle();
    computed =
        ComputedLap.compute(survey.centreline(), survey.corners(), vehicle, Conditions.dryWarm());
    path = computed.path();
    entry = Drafter.draft(computed, Drafter.boards(computed)).corners().get(0);
    shaped = entry.copy().pedals(Pedals.FRONT_LOADED).done();
    relined = shaped.copy().schools(List.of(School.LATE_APEX)).done();
    wet = new Variant("v", DayKind.WET, "", DayKind.WET.usual(), List.of());
  }

  /** A closed lap of about 5 km: a circle whose radius swings, 1000 points. */
  private static byte[] lap() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < 1000; i++) {
      double a = 2 * Math.PI * i / 1000;
      double r = 600 + 90 * Math.sin(7 * a) + 45 * Math.sin(12 * a + 1);
      text.append(String.format(Locale.ROOT, "%.3f,%.3f%n", r * Math.cos(a), r * Math.sin(a)));
    }
    return text.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8);
  }

  @Benchmark
  public double[] copyArrays() {
    double[] from = path.curvature();
    double[] to = from;
    for (int i = 0; i < 20; i++) {
      to = to.clone();
      to[i] += 1;
    }
    return to;
  }

  @Benchmark
  public LapTrace lapSimulation() {
    return LapSimulator.lap(path, vehicle, Conditions.dryWarm());
  }

  /** What two axles leave of the grip along a lap, and the lap with it. */
  @Benchmark
  public LapTrace lapOnTwoAxles() {
    return computed.driven(vehicle);
  }

  @Benchmark
  public CircuitReading readCircuit() {
    return CircuitReader.read(OutlineFile.read(file), CircuitReader.Choices.asItComes());
  }

  @Benchmark
  public ReferenceContent draftEverything() {
    CircuitReading fresh = readCircuit();
    ComputedLap made =
        ComputedLap.compute(fresh.centreline(), fresh.corners(), vehicle, Conditions.dryWarm());
    return Drafter.draft(made, Drafter.boards(made));
  }

  @Benchmark
  public CornerAnswer answerOneCorner() {
    return Answers.answer(computed, entry);
  }

  /** With a planned shape of the pedals. */
  @Benchmark
  public CornerAnswer answerShaped() {
    return Answers.answer(computed, shaped);
  }

  /** With a shape, on a line laid anew by a choice. */
  @Benchmark
  public CornerAnswer answerOnAnotherLine() {
    return Answers.answer(computed, relined);
  }

  /** The lap on another day, and one corner adjusted to it. */
  @Benchmark
  public Variants.Adjusted adjustToAnotherDay() {
    return Variants.adjust(
        computed, Variants.computed(computed, Footing.plain(List.of()), wet.day()), wet, entry);
  }

  @Benchmark
  public Choices.Compared compareBrakeShapes() {
    return Choices.compare(
        computed,
        Things.none(),
        entry,
        Question.BRAKE_SHAPE,
        new MarkerJudge.View(null, null, false, 1));
  }
}
