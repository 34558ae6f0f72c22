package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.function.IntFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Refused;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.refusal.Refusal;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Recordings whose places all lie beside the road. */
@Tag("slow")
class PlaceShiftTest {
  private static final Pattern SAID =
      Pattern.compile("All places lie ([0-9.]+) m to the (\\S+) of");

  private static List<String> rows(ComputedLap computed, int laps, long seed, double rate) {
    Drive driven =
        SimulatedDriver.drive(
            new Plan(
                computed,
                Drafter.draft(computed, Drafter.boards(computed)).corners(),
                List.<Planted>of(),
                laps,
                1.5,
                0.98,
                0,
                true),
            new Random(seed));
    List<String> rows = new ArrayList<>();
    new Recorder(driven, computed.road(), null, Recorder.Noise.usual(), new Random(seed + 1))
        .table(rate, rows::add);
    return rows;
  }

  private static ComputedLap random(long road, double radius, String vehicle) {
    return Drives.computed(RandomRoads.of(road, radius), vehicle);
  }

  /** The recording with every place moved, by what its row says. */
  private static String moved(List<String> rows, IntFunction<double[]> by) {
    List<String> names = List.of(rows.get(0).split(","));
    int east = names.stream().map(PlaceShiftTest::plain).toList().indexOf("x");
    int north = names.stream().map(PlaceShiftTest::plain).toList().indexOf("y");
    StringBuilder text = new StringBuilder(rows.get(0)).append('\n');
    for (int i = 1; i < rows.size(); i++) {
      String[] cells = rows.get(i).split(",", -1);
      double[] d = by.apply(i);
      cells[east] = plus(cells[east], d[0]);
      cells[north] = plus(cells[north], d[1]);
      text.append(String.join(",", cells)).append('\n');
    }
    return text.toString();
  }

  private static String plain(String name) {
    return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z].*", "");
  }

  private static String plus(String cell, double d) {
    return cell.isEmpty() ? cell : String.format(Locale.ROOT, "%.3f", Double.parseDouble(cell) + d);
  }

  private static double spread(Device.Read read) {
    return read.whole().stream()
        .filter(l -> l.kind() == LapKind.PUSH || l.kind() == LapKind.COLD)
        .count();
  }

  @Test
  void aMoveOfAllPlacesIsFoundAndTakenBack() {
    List<ComputedLap> computedLaps =
        List.of(Device.DESK, random(81, 300, "cup-gt"), random(82, 450, "motorcycle-1000"));
    Random random = new Random(4);
    for (ComputedLap computed : computedLaps) {
      List<String> rows = rows(computed, 8, 11, 10);
      Device.Read plain = Device.read(moved(rows, i -> new double[2]), computed, null);
      assertThat(plain.said()).doesNotContain("All places");
      for (double metres : new double[] {3, 8, 21, 55, 100}) {
        double way = 2 * Math.PI * random.nextDouble();
        double[] d = {metres * Math.cos(way), metres * Math.sin(way)};
        Device.Read read = Device.read(moved(rows, i -> d), computed, null);
        Matcher said = SAID.matcher(read.said());
        assertThat(said.find()).as("%.0f m: %s", metres, read.said()).isTrue();
        assertThat(Double.parseDouble(said.group(1))).isCloseTo(metres, within(0.5));
        assertThat(spread(read)).isEqualTo(spread(plain));
        for (int k = 0; k < plain.whole().size(); k++) {
          Trace a = plain.whole().get(k).trace();
          Trace b = read.whole().get(k).trace();
          assertThat(read.whole().get(k).lapTime())
              .isCloseTo(plain.whole().get(k).lapTime(), within(0.03));
          double out = 0;
          for (double s = 50; s < computed.road().length() - 50; s += 10) {
            out = Math.max(out, Math.abs(a.value(a.offset(), s) - b.value(b.offset(), s)));
          }
          assertThat(out).as("offset across, %.0f m", metres).isLessThan(0.8);
        }
      }
    }
  }

  @Test
  void placesThatAreRightAreLeftAlone() {
    for (long seed = 1; seed <= 12; seed++) {
      ComputedLap computed =
          random(90 + seed, 220 + 25 * seed, seed % 2 == 0 ? "cup-gt" : "motorcycle-600");
      List<String> rows = rows(computed, 3, seed, seed % 3 == 0 ? 5 : 20);
      double[] little = {0.5 * Math.cos(seed), 0.5 * Math.sin(seed)};
      Device.Read read = Device.read(moved(rows, i -> little), computed, null);
      assertThat(read.said()).as("road %d", 90 + seed).doesNotContain("All places");
      assertThat(read.whole()).hasSize(3);
    }
  }

  @Test
  void placesThatDriftAreRefusedWithTheReason() {
    ComputedLap computed = Device.DESK;
    List<String> rows = rows(computed, 8, 5, 25);
    double n = rows.size();
    String text = moved(rows, i -> new double[] {6 + 8 * i / n, 10 * i / n});
    assertThatThrownBy(() -> Device.read(text, computed, null))
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("beside this road"));
  }
}
