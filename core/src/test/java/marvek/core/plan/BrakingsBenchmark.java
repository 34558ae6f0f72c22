package marvek.core.plan;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import marvek.core.circuit.CircuitReading;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.vehicle.VehicleClasses;

/**
 * Brakings without a point on many random roads with all classes, dry and wet: {@code ./marvek
 * bench brakings [roads]}. A part of it is in {@link BrakingsTest}.
 */
public final class BrakingsBenchmark {
  private static final int FIRST_SEED = 3000;

  private BrakingsBenchmark() {}

  /**
   * Measures.
   *
   * @param args folder to write to, number of roads
   */
  public static void main(String[] args) throws IOException {
    int roads = args.length > 1 ? Integer.parseInt(args[1]) : 200;
    List<VehicleClasses.VehicleClass> classes = VehicleClasses.all();
    AtomicInteger drafts = new AtomicInteger();
    AtomicInteger brakings = new AtomicInteger();
    AtomicInteger without = new AtomicInteger();
    IntStream.range(0, roads * classes.size())
        .parallel()
        .forEach(
            k -> {
              int seed = FIRST_SEED + k / classes.size();
              VehicleClasses.VehicleClass v = classes.get(k % classes.size());
              CircuitReading survey = RandomRoads.of(seed, 130 + 50 * (seed % 5));
              ComputedLap dry =
                  ComputedLap.compute(
                      survey.centreline(), survey.corners(), v.vehicle(), Conditions.dryWarm());
              for (ComputedLap day : List.of(dry, dry.on(Conditions.dryWarm().withGrip(0.62)))) {
                drafts.incrementAndGet();
                brakings.addAndGet(BrakingsTest.seen(day).size());
                try {
                  BrakingsTest.check(day);
                } catch (AssertionError | RuntimeException e) {
                  without.incrementAndGet();
                  double most =
                      BrakingsTest.seen(day).stream()
                          .filter(b -> e.toString().contains(b.toString()))
                          .mapToDouble(b -> BrakingsTest.takenOff(day, b))
                          .max()
                          .orElse(Double.NaN);
                  System.out.printf(
                      Locale.ROOT,
                      "road %d, %s, %s: the brakes take off %.1f m/s: %s%n",
                      seed,
                      v.id(),
                      day == dry ? "dry" : "wet",
                      most,
                      e);
                }
              }
            });
    String words =
        String.format(
            Locale.ROOT,
            "%d random roads, %d drafts dry and wet, %d brakings of more than 4 m/s: %d drafts with one that has no point.%n",
            roads,
            drafts.get(),
            brakings.get(),
            without.get());
    System.out.print(words);
    Path to = Path.of(args[0]);
    Files.createDirectories(to);
    Files.writeString(to.resolve("brakings.md"), words);
  }
}
