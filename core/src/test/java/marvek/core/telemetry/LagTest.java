package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import marvek.core.fixtures.Device;
import marvek.core.logger.Drive;
import marvek.core.logger.Recorder;
import marvek.core.logger.Truth;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Positions that come later than the pedals. */
@Tag("slow")
class LagTest {
  private static final Drive DRIVEN = Device.drive(4, 41);
  private static final Pattern TOLD = Pattern.compile("come (-?[0-9.]+) s after the pedals");

  private static Device.Read recorded(double lag, double rate, double noise) {
    Recorder.Noise device =
        new Recorder.Noise(noise, noise / 6, 0.005, Math.toRadians(0.3), 0, 0, lag);
    return Device.read(Device.spoilt(Device.rows(DRIVEN, rate, device), c -> c));
  }

  private static double told(Device.Read read) {
    Matcher m = TOLD.matcher(read.said());
    return m.find() ? Double.parseDouble(m.group(1)) : 0;
  }

  private static double worst(Device.Read read) {
    List<Truth.Lap> whole = DRIVEN.truth().laps().stream().filter(l -> l.number() > 0).toList();
    double worst = 0;
    for (int lap = 0; lap < whole.size(); lap++) {
      for (Truth.Done d : whole.get(lap).corners()) {
        for (CornerEvents e : read.events().get(lap)) {
          if (e.corner().equals(d.corner()) && d.brake() != null && e.brake() != null) {
            worst = Math.max(worst, Math.abs(Device.DESK.road().apart(d.brake(), e.brake())));
          }
        }
      }
    }
    return worst;
  }

  @ParameterizedTest
  @CsvSource({"0.08, 50", "0.12, 50", "0.25, 50", "0.4, 100", "0.2, 20", "-0.1, 50"})
  void isFoundToldAndMended(double lag, double rate) {
    Device.Read read = recorded(lag, rate, 0.5);
    assertThat(told(read)).isBetween(lag - 0.03, lag + 0.03);
    // At 60 m/s a tenth of a second is six metres.
    assertThat(worst(read)).isLessThan(2.5);
  }

  @ParameterizedTest
  @CsvSource({"50", "20", "10"})
  void isNotInventedWhereThereIsNone(double rate) {
    Device.Read read = recorded(0, rate, 0.5);
    assertThat(read.said()).doesNotContain("after the pedals");
    assertThat(read.whole()).hasSize(4);
  }

  @Test
  void lapTimesAreThoseOfTheLineAllTheSame() {
    Device.Read late = recorded(0.3, 50, 0.5);
    for (int i = 0; i < 4; i++) {
      double truth = DRIVEN.truth().laps().get(i + 1).lapTime();
      assertThat(late.whole().get(i).lapTime()).isBetween(truth - 0.02, truth + 0.02);
    }
  }

  @Test
  void cannotBeToldWithoutABrake() {
    List<String> rows =
        Device.rows(DRIVEN, 50, new Recorder.Noise(0.5, 0.1, 0.005, 0.005, 0, 0, 0.3));
    rows.set(0, rows.get(0).replace("brake (%)", "fuel (l)"));
    assertThat(Device.read(Device.spoilt(rows, c -> c)).said())
        .doesNotContain("after the pedals")
        .contains("The brake was not recorded");
  }

  /**
   * A recording whose brake tapers while the vehicle slows as before, with a gap of four seconds
   * and two seconds without a fix.
   */
  static Device.Read spoilt(double lag, long seed) {
    Random random = new Random(seed);
    Drive driven = Device.drive(4, seed);
    Recorder.Noise device = new Recorder.Noise(0.5, 0.1, 0.005, Math.toRadians(0.3), 0, 0, lag);
    List<String> rows = Device.rows(driven, 50, device);
    List<String> names = List.of(rows.get(0).split(","));
    int brake = names.indexOf("brake (%)");
    int x =
        names.stream()
            .filter(n -> n.startsWith("x"))
            .mapToInt(names::indexOf)
            .findFirst()
            .orElseThrow();
    int gap = 600 + random.nextInt(rows.size() - 2000);
    int stuck = 600 + random.nextInt(rows.size() - 2000);
    double taper = 0.4 + 0.8 * random.nextDouble();
    int[] row = {0};
    double[] since = {0};
    String[] held = new String[2];
    return Device.read(
        Device.spoilt(
            rows,
            c -> {
              row[0]++;
              double b = Double.parseDouble(c[brake]);
              since[0] = b > 3 ? since[0] + 0.02 : 0;
              c[brake] =
                  String.format(
                      Locale.ROOT, "%.2f", b * Math.exp(-Math.max(0, since[0] - 0.15) / taper));
              if (row[0] >= stuck && row[0] < stuck + 100) {
                c[x] = held[0];
                c[x + 1] = held[1];
              }
              held[0] = c[x];
              held[1] = c[x + 1];
              return row[0] >= gap && row[0] < gap + 200 ? new String[0] : c;
            }));
  }

  @ParameterizedTest
  @ValueSource(doubles = {0, 0.05, 0.1, 0.3})
  void isWithinThreeHundredthsOrNotTakenWhereBrakesTaperAndRecordingsHaveGaps(double lag) {
    for (long seed = 100; seed < 108; seed++) {
      double told = told(spoilt(lag, seed));
      assertThat(told == 0 || lag > 0 && Math.abs(told - lag) <= 0.03)
          .as("lag %.2f, seed %d: %.3f", lag, seed, told)
          .isTrue();
    }
  }
}
