package marvek.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.DrawnRoads;
import marvek.core.logger.Drive;
import marvek.core.logger.Recorder;
import marvek.core.telemetry.RecordedOutline;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A circuit from laps that were driven on it. */
class SeveralLapsTest {
  private static final int LAPS = 10;
  private static final double SCATTER = 0.5;

  private static CircuitReading read(String text) {
    return CircuitReader.read(
        RecordedOutline.read(text.getBytes(StandardCharsets.UTF_8)),
        CircuitReader.Choices.asItComes());
  }

  /** Laps about the line of a road, each wandering slowly, every place scattering. */
  private static String driven(DrawnRoads road, int laps, double spacing, long seed) {
    Random random = new Random(seed);
    StringBuilder out = new StringBuilder("x_m,y_m\n");
    int n = road.x().length;
    double[] phase = random.doubles(laps + 2, 0, 6).toArray();
    double begin = 0.37 * road.length();
    for (double s = 0; s < (laps + 0.6) * road.length(); s += spacing) {
      int i = Math.floorMod((int) Math.round((begin + s) / 0.5), n);
      int p = Math.floorMod(i - 1, n);
      int q = Math.floorMod(i + 1, n);
      double tx = road.x()[q] - road.x()[p];
      double ty = road.y()[q] - road.y()[p];
      double l = Math.hypot(tx, ty);
      double wander = 0.4 * Math.sin(phase[(int) (s / road.length())] + s / 140);
      out.append(
          String.format(
              Locale.ROOT,
              "%.3f,%.3f%n",
              road.x()[i] - wander * ty / l + SCATTER * random.nextGaussian(),
              road.y()[i] + wander * tx / l + SCATTER * random.nextGaussian()));
    }
    return out.toString();
  }

  @Test
  void tenLapsThatScatterGiveTheRoad() {
    List<Double> radii = new ArrayList<>();
    List<Double> alone = new ArrayList<>();
    for (long seed = 301; seed < 313; seed++) {
      DrawnRoads road = DrawnRoads.of(seed, 30, 200, 10);
      CircuitReading exact = read(exact(road));
      CircuitReading read = read(driven(road, LAPS, 4, seed));
      assertThat(read.remarks().stream().map(Speaker.PLAIN::say))
          .anyMatch(r -> r.contains("10 laps go round"));
      assertThat(read.centreline().length())
          .as("road %d", seed)
          .isCloseTo(road.length(), within(0.002 * road.length()));
      radii.addAll(errors(exact, read));
      alone.addAll(errors(exact, read(driven(road, 1, 4, seed))));
    }
    assertThat(share(radii, 0.9)).as("nine of ten").isLessThan(0.1);
    assertThat(share(radii, 0.95)).as("19 of 20").isLessThan(0.11);
    assertThat(share(radii, 0.5)).as("the middle one").isLessThan(0.03);
    assertThat(share(radii, 0.9)).as("better than one lap").isLessThan(share(alone, 0.9));
  }

  private static String exact(DrawnRoads road) {
    StringBuilder out = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < road.x().length; i += 8) {
      out.append(String.format(Locale.ROOT, "%.4f,%.4f%n", road.x()[i], road.y()[i]));
    }
    return out.toString();
  }

  /** Errors of the radii, corner by corner in order from the same place on. */
  private static List<Double> errors(CircuitReading exact, CircuitReading read) {
    List<Double> out = new ArrayList<>();
    if (exact.corners().size() != read.corners().size()) {
      return List.of(1.0);
    }
    int n = exact.corners().size();
    double best = Double.MAX_VALUE;
    // The file begins elsewhere on the lap: the turn of the list that fits best.
    for (int turn = 0; turn < n; turn++) {
      List<Double> here = new ArrayList<>();
      for (int k = 0; k < n; k++) {
        double a = exact.corners().get((k + turn) % n).radius();
        here.add(Math.abs(read.corners().get(k).radius() / a - 1));
      }
      double sum = here.stream().mapToDouble(Double::doubleValue).sum();
      if (sum < best) {
        best = sum;
        out = here;
      }
    }
    return out;
  }

  private static double share(List<Double> values, double part) {
    double[] sorted = values.stream().mapToDouble(Double::doubleValue).sorted().toArray();
    return sorted[(int) Math.min(sorted.length - 1, part * sorted.length)];
  }

  /** A road that goes over itself is one lap, also where the recording is cut at the crossing. */
  @Test
  void aRoadThatCrossesItselfIsNotTakenForTwoLaps() {
    double size = 400;
    double length = 5.244115108584239 * size;
    Random random = new Random(6);
    StringBuilder out = new StringBuilder("x_m,y_m\n");
    int laps = 6;
    // Half-way through the recording, where laps are cut, lies the crossing.
    for (double t = -0.3; t < 0.3 + laps * 2 * Math.PI; t += 4 / size) {
      double at = Math.PI / 2 + t;
      double d = 1 + Math.sin(at) * Math.sin(at);
      out.append(
          String.format(
              Locale.ROOT,
              "%.3f,%.3f%n",
              size * Math.cos(at) / d + 0.2 * random.nextGaussian(),
              size * Math.sin(at) * Math.cos(at) / d + 0.2 * random.nextGaussian()));
    }
    CircuitReading read =
        CircuitReader.read(
            RecordedOutline.read(out.toString().getBytes(StandardCharsets.UTF_8)),
            new CircuitReader.Choices(false, 0, 10, true));
    assertThat(read.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.matches("[56] laps go round.*"));
    assertThat(read.centreline().length()).isCloseTo(length, within(0.005 * length));
  }

  /** A lap through the paddock and one cut short are left out. */
  @Test
  void lapsThatWentElsewhereAreLeftOut() {
    DrawnRoads road = DrawnRoads.of(305, 30, 200, 10);
    List<String> rows = new ArrayList<>(driven(road, 6, 4, 9).lines().toList());
    double detour = 0.08 * road.length();
    int third = (int) (2.6 * road.length() / 4);
    for (int k = 0; k < detour / 4; k++) {
      // There and back beside the road, as through a pit lane with a stop.
      String[] at = rows.get(third).split(",");
      double away = 4 * Math.min(k, detour / 4 - k);
      rows.add(
          third + k,
          String.format(
              Locale.ROOT,
              "%.3f,%.3f",
              Double.parseDouble(at[0]) + away,
              Double.parseDouble(at[1]) + 0.3 * away));
    }
    CircuitReading read = read(String.join("\n", rows));
    assertThat(read.remarks().stream().map(Speaker.PLAIN::say))
        .anyMatch(r -> r.contains("5 laps go round"));
    assertThat(read.centreline().length()).isCloseTo(road.length(), within(0.002 * road.length()));
  }

  /** Rows of the simulated logger, with pedals and all, and its talk as a receiver's. */
  @ParameterizedTest
  @ValueSource(doubles = {10, 25})
  void aRecordingOfTheLoggerMakesACircuit(double rate) {
    Drive drive = Device.drive(4, 77);
    String text = String.join("\n", Device.rows(drive, rate, Recorder.Noise.usual()));
    CircuitReading read = read(text);
    double driven = Arrays.stream(Device.DESK.path().step()).sum();
    assertThat(read.centreline().length()).isCloseTo(driven, within(0.004 * driven));
    assertThat(read.corners().size())
        .isBetween(Device.DESK.corners().size() - 1, Device.DESK.corners().size() + 1);
  }
}
