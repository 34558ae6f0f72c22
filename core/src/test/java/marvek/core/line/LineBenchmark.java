package marvek.core.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.fixtures.Bumps;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;

/**
 * What the search for the quickest line leaves, how steady it is and how long it takes, on six
 * roads and all classes: {@code ./marvek bench line [tries]}. No test; seeds are fixed.
 */
public final class LineBenchmark {
  private static final long SEED = 7;

  /** Points that move by more than this on another line are told, m. */
  private static final double FAR = 5;

  private LineBenchmark() {}

  private record Result(
      String road,
      String vehicle,
      double won,
      double left,
      double seconds,
      int laps,
      List<Double> moved) {}

  /**
   * Measures.
   *
   * @param args folder of the demo's outlines, folder to write to, tries of bumps
   */
  public static void main(String[] args) throws IOException {
    int tries = args.length > 2 ? Integer.parseInt(args[2]) : 8000;
    List<VehicleClasses.VehicleClass> classes = VehicleClasses.all();
    List<Result> results = new ArrayList<>();
    for (Map.Entry<String, CircuitReading> road : roads(Path.of(args[0])).entrySet()) {
      // Times one at a time, before anything else runs.
      Map<String, double[]> times = new LinkedHashMap<>();
      for (VehicleClasses.VehicleClass v : classes) {
        times.put(v.id(), timed(road.getValue(), v.vehicle()));
      }
      results.addAll(
          classes.parallelStream()
              .map(v -> result(road.getKey(), road.getValue(), v, tries, times.get(v.id())))
              .toList());
      results.stream()
          .skip(Math.max(0, results.size() - classes.size()))
          .forEach(r -> System.out.println(line(r)));
    }
    StringBuilder out = new StringBuilder();
    out.append(
        "| road | class | quicker than least bending | left | search (s) | laps | moved, 95 % (m) | most (m) |\n"
            + "|---|---|---|---|---|---|---|---|\n");
    results.forEach(r -> out.append(line(r)).append('\n'));
    List<Double> all = results.stream().flatMap(r -> r.moved().stream()).sorted().toList();
    out.append(
        String.format(
            Locale.ROOT,
            "%nLeft at most %.3f %%; points moved more than on the unchanged line: %.2f m at the 95th percentile, %.2f m at most, of %d.%n",
            100 * results.stream().mapToDouble(Result::left).max().orElse(Double.NaN),
            at(all, 0.95),
            at(all, 1),
            all.size()));
    System.out.println(out);
    Path to = Path.of(args[1]);
    Files.createDirectories(to);
    Files.writeString(to.resolve("line.md"), out.toString());
  }

  private static String line(Result r) {
    List<Double> moved = r.moved().stream().sorted().toList();
    return String.format(
        Locale.ROOT,
        "| %s | %s | %.2f %% | %.3f %% | %.2f | %d | %.2f | %.2f |",
        r.road(),
        r.vehicle(),
        100 * r.won(),
        100 * r.left(),
        r.seconds(),
        r.laps(),
        at(moved, 0.95),
        at(moved, 1));
  }

  private static double at(List<Double> sorted, double share) {
    return sorted.isEmpty() ? 0 : sorted.get((int) Math.round(share * (sorted.size() - 1)));
  }

  private static Map<String, CircuitReading> roads(Path demo) throws IOException {
    Map<String, CircuitReading> out = new LinkedHashMap<>();
    out.put("ring", read(Files.readAllBytes(demo.resolve("falcoeira-ring.csv"))));
    out.put("hill", read(Files.readAllBytes(demo.resolve("serra-quebrada.csv"))));
    out.put("kart", RandomRoads.of(11, 120));
    out.put("arcs", read(arcs()));
    out.put("random 21", RandomRoads.of(21, 330));
    out.put("random 22", RandomRoads.of(22, 480));
    return out;
  }

  private static CircuitReading read(byte[] file) {
    return CircuitReader.read(OutlineFile.read(file), CircuitReader.Choices.asItComes());
  }

  /** A closed loop of arcs alone, left and right, without transitions. */
  private static byte[] arcs() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    double[][] arcs = {{90, 150}, {60, -120}, {60, 120}, {90, 150}, {200, 60}};
    double x = 0;
    double y = 0;
    double h = 0;
    double left = 0;
    List<double[]> points = new ArrayList<>();
    for (double[] arc : arcs) {
      left += Math.toRadians(arc[1]);
      double metres = Math.abs(Math.toRadians(arc[1])) * arc[0];
      int n = (int) (metres / 2);
      for (int i = 0; i < n; i++) {
        points.add(new double[] {x, y});
        double turn = Math.toRadians(arc[1]) / n;
        x += metres / n * Math.cos(h + turn / 2);
        y += metres / n * Math.sin(h + turn / 2);
        h += turn;
      }
    }
    // Turned once round; what is left open is spread over the loop.
    for (int i = 0; i < points.size(); i++) {
      double share = i / (double) points.size();
      text.append(points.get(i)[0] - share * x)
          .append(',')
          .append(points.get(i)[1] - share * y)
          .append('\n');
    }
    if (Math.abs(left - 2 * Math.PI) > 1e-6) {
      throw new IllegalStateException("the arcs turn by " + Math.toDegrees(left));
    }
    return text.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8);
  }

  private static Limits limits(Centreline road, Vehicle v) {
    marvek.core.lap.Path first =
        marvek.core.lap.Path.over(road, MinimumCurvature.offsets(road, Room.on(road, v)));
    return new Limits(
        v, Conditions.dryWarm(), LapSimulator.lap(first, v, Conditions.dryWarm()).boostBelow());
  }

  private static double[] timed(CircuitReading survey, Vehicle v) {
    Centreline road = survey.centreline();
    Limits limits = limits(road, v);
    Room room = Room.on(road, v);
    Ground ground = Ground.good(road.size());
    double best = Double.MAX_VALUE;
    int laps = 0;
    for (int k = 0; k < 3; k++) {
      long begun = System.nanoTime();
      laps = QuickestLine.fresh(road, room, ground, limits, Watch.NOBODY).laps();
      best = Math.min(best, (System.nanoTime() - begun) / 1e9);
    }
    return new double[] {best, laps};
  }

  private static Result result(
      String name,
      CircuitReading survey,
      VehicleClasses.VehicleClass v,
      int tries,
      double[] timed) {
    Centreline road = survey.centreline();
    ComputedLap computed =
        ComputedLap.compute(road, survey.corners(), v.vehicle(), Conditions.dryWarm());
    double least =
        LapSimulator.lap(
                marvek.core.lap.Path.over(
                    road, MinimumCurvature.offsets(road, Room.on(road, v.vehicle()))),
                v.vehicle(),
                Conditions.dryWarm())
            .lapTime();
    double left =
        Bumps.left(
            road,
            Room.on(road, v.vehicle()),
            Ground.good(road.size()),
            v.vehicle(),
            Conditions.dryWarm(),
            computed.path().offset(),
            tries,
            SEED);
    return new Result(
        name,
        v.id(),
        1 - computed.lap().lapTime() / least,
        left,
        timed[0],
        (int) timed[1],
        moved(computed));
  }

  /**
   * By how much more each point of a braked corner moves with 1 % of grip or 5 kg, up or down,
   * where the line may follow than where it may not, m.
   */
  private static List<Double> moved(ComputedLap computed) {
    List<Double> out = new ArrayList<>();
    Conditions day = computed.conditions();
    for (Conditions other :
        List.of(
            day.withGrip(day.grip() * 1.01),
            day.withGrip(day.grip() * 0.99),
            heavier(day, 5),
            heavier(day, -5))) {
      ComputedLap held = computed.on(other);
      ComputedLap free = held.near(Watch.NOBODY);
      for (int c = 0; c < computed.corners().size(); c++) {
        if (counts(computed, c) && counts(held, c) && counts(free, c)) {
          compared(computed, held, free, c, out);
        }
      }
    }
    return out;
  }

  /** Whether a corner is braked for by more than 4 m/s. */
  private static boolean counts(ComputedLap computed, int c) {
    List<Brakings.Braking> brakings = computed.brakings().of(c);
    return !brakings.isEmpty() && brakings.get(0).from() - brakings.get(0).to() > Brakings.COUNTS;
  }

  private static void compared(
      ComputedLap computed, ComputedLap held, ComputedLap free, int c, List<Double> out) {
    CornerEntry was = Drafter.draft(computed, List.of()).corners().get(c);
    CornerEntry onHeld = Drafter.draft(held, List.of()).corners().get(c);
    CornerEntry onFree = Drafter.draft(free, List.of()).corners().get(c);
    for (CornerPoint p : was.points()) {
      if (onHeld.station(p.kind()).isPresent() && onFree.station(p.kind()).isPresent()) {
        double a = computed.road().apart(p.station(), onHeld.station(p.kind()).orElseThrow());
        double b = computed.road().apart(p.station(), onFree.station(p.kind()).orElseThrow());
        double more = Math.max(0, Math.abs(b) - Math.abs(a));
        out.add(more);
        if (more > FAR) {
          System.out.printf(
              Locale.ROOT,
              "   %s of %s: %.1f m on the line as it was, %.1f m on the new one; brakes %s, %s, %s%n",
              p.kind(),
              was.corner(),
              a,
              b,
              words(computed, c),
              words(held, c),
              words(free, c));
        }
      }
    }
  }

  private static String words(ComputedLap computed, int c) {
    Brakings.Braking b = computed.brakings().of(c).get(0);
    return String.format(
        Locale.ROOT,
        "%.0f to %.0f km/h from %.0f m",
        3.6 * b.from(),
        3.6 * b.to(),
        b.onset() * computed.road().step());
  }

  private static Conditions heavier(Conditions day, double by) {
    return new Conditions(
        day.grip(),
        day.airDensity(),
        day.windSpeed(),
        day.windFrom(),
        day.extraMass() + by,
        day.drag(),
        day.downforce(),
        day.driving());
  }
}
