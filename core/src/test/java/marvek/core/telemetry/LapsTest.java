package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Refused;
import marvek.core.fixtures.TraceExample;
import marvek.core.logger.Drive;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import marvek.core.logger.Truth;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Laps cut from recordings that devices have spoilt in the ways they do. */
@Tag("slow")
class LapsTest {
  private static final Drive DRIVEN = Device.drive(3, 21);
  private static final List<String> ROWS = Device.rows(DRIVEN, 50, Recorder.Noise.usual());
  private static final List<Truth.Lap> TRUTH =
      DRIVEN.truth().laps().stream().filter(l -> l.number() > 0).toList();

  private static Device.Read spoilt(java.util.function.UnaryOperator<String[]> how) {
    return Device.read(Device.spoilt(ROWS, how));
  }

  private static void sameTimes(Device.Read read, double tolerance) {
    assertThat(read.whole()).as(read.said()).hasSameSizeAs(TRUTH);
    for (int i = 0; i < TRUTH.size(); i++) {
      assertThat(read.whole().get(i).lapTime())
          .isCloseTo(TRUTH.get(i).lapTime(), within(tolerance));
    }
  }

  private static double seconds(String[] c) {
    return Double.parseDouble(c[0]);
  }

  @Test
  void outPushAndInLapsAreToldApart() {
    Device.Read read = spoilt(c -> c);
    sameTimes(read, 0.01);
    assertThat(read.laps().stream().map(DrivenLap::kind))
        .containsExactly(LapKind.OUT, LapKind.PUSH, LapKind.PUSH, LapKind.PUSH, LapKind.IN);
    assertThat(read.whole().get(0).trace().placed()).isTrue();
  }

  @ParameterizedTest
  @CsvSource({"5, 0.05", "10, 0.03", "20, 0.02", "100, 0.01", "400, 0.01"})
  void anyRateGivesTheSameLaps(double rate, double tolerance) {
    Device.Read read =
        Device.read(Device.spoilt(Device.rows(DRIVEN, rate, Recorder.Noise.usual()), c -> c));
    sameTimes(read, tolerance);
  }

  /**
   * By hand: at a steady 50 m/s and five samples a second, one falls 12 m before the line at 10.00
   * s, the next ones 2 m before it and 8 m past it; it is passed at 10.24 s, and a lap of L metres
   * takes L/50 seconds.
   */
  @Test
  void theTimeAtTheLineIsFoundBetweenSamples() {
    double length = Device.DESK.road().length();
    StringBuilder text = new StringBuilder("time (s),x (m),y (m),speed (m/s)\n");
    for (int i = 0; i * 10 < 2 * length + 800; i++) {
      double[] xy =
          marvek.core.circuit.RoadPosition.toPlane(Device.DESK.road(), length - 512 + 10 * i, 0);
      text.append(String.format(Locale.ROOT, "%.1f,%.4f,%.4f,50%n", i / 5.0, xy[0], xy[1]));
    }
    // One sample is not at 50 m/s, or the channel would be taken as stuck.
    Device.Read read = Device.read(text.toString().replaceFirst(",50\\R", ",50.01\n"));
    assertThat(read.whole()).hasSize(2);
    assertThat(read.whole().get(0).start()).isCloseTo(10.24, within(0.004));
    assertThat(read.whole().get(0).lapTime()).isCloseTo(length / 50, within(0.004));
    assertThat(read.whole().get(1).start()).isCloseTo(10.24 + length / 50, within(0.004));
  }

  @Test
  void aFalseOffsetOfTheBrakeIsTakenAwayAndTold() {
    Recorder.Noise offset =
        new Recorder.Noise(0.5, 0.3 / 3.6, 0.005, Math.toRadians(0.3), 0.25, 0, 0);
    Device.Read read = Device.read(Device.spoilt(Device.rows(DRIVEN, 50, offset), c -> c));
    assertThat(read.said()).contains("an offset of the sensor, taken away");
    int found = 0;
    for (int l = 0; l < TRUTH.size(); l++) {
      for (CornerEvents e : read.events().get(l)) {
        for (Truth.Done d : TRUTH.get(l).corners()) {
          if (d.corner().equals(e.corner()) && d.brake() != null && e.brake() != null) {
            assertThat(Device.DESK.road().apart(d.brake(), e.brake())).isBetween(-2.5, 2.5);
            found++;
          }
        }
      }
    }
    assertThat(found).isGreaterThanOrEqualTo(9);
    assertThat(spoilt(c -> c).said()).doesNotContain("offset of the sensor");
  }

  @Test
  void aThrottleThatNeverShowsItsEndsIsScaled() {
    Device.Read read =
        spoilt(
            c -> {
              c[5] = String.format(Locale.ROOT, "%.2f", 8 + 0.8 * Double.parseDouble(c[5]));
              return c;
            });
    assertThat(read.said()).contains("taken as shut and fully open");
    for (List<CornerEvents> lap : read.events()) {
      assertThat(lap).allMatch(e -> e.fullThrottle() != null);
    }
  }

  @Test
  void theGearIsToldFromRevsAndSpeed() {
    String text =
        ROWS.get(0).replace(",gear,", ",nothing,")
            + Device.spoilt(ROWS, c -> c).substring(ROWS.get(0).length());
    Device.Read read = Device.read(text.replace("nothing", "unused"));
    assertThat(read.said()).contains("Gear from revs and speed");
    for (int l = 0; l < TRUTH.size(); l++) {
      for (CornerEvents e : read.events().get(l)) {
        int gear =
            TRUTH.get(l).corners().stream()
                .filter(d -> d.corner().equals(e.corner()))
                .findFirst()
                .orElseThrow()
                .gear();
        assertThat(e.gear()).isEqualTo(gear);
      }
    }
  }

  @Test
  void withoutPedalsTheBrakeIsFoundWithinMetresAndSaidToBe() {
    String names = ROWS.get(0).replace("brake (%)", "b1").replace("throttle (%)", "t1");
    Device.Read read =
        Device.read(names + Device.spoilt(ROWS, c -> c).substring(ROWS.get(0).length()));
    assertThat(read.said()).contains("The brake was not recorded", "The throttle was not recorded");
    double worst = 0;
    for (int l = 0; l < TRUTH.size(); l++) {
      for (CornerEvents e : read.events().get(l)) {
        Truth.Done d =
            TRUTH.get(l).corners().stream()
                .filter(k -> k.corner().equals(e.corner()))
                .findFirst()
                .orElseThrow();
        if (d.brake() != null && e.brake() != null) {
          worst = Math.max(worst, Math.abs(Device.DESK.road().apart(d.brake(), e.brake())));
        }
        assertThat(e.handOff()).isNull();
      }
    }
    assertThat(worst).isBetween(0.01, 8.0);
  }

  @Test
  void aPositionThatStandsStillIsBridgedAndALongGapSpoilsItsLap() {
    Device.Read stuck =
        spoilt(
            new java.util.function.UnaryOperator<>() {
              private String[] held = {};

              @Override
              public String[] apply(String[] c) {
                if (seconds(c) > 40 && seconds(c) < 41.5) {
                  held = held.length == 0 ? c.clone() : held;
                  c[1] = held[1];
                  c[2] = held[2];
                }
                return c;
              }
            });
    assertThat(stuck.said()).contains("stood still for");
    sameTimes(stuck, 0.05);
    double middle = TRUTH.get(0).lapTime() + DRIVEN.truth().laps().get(0).lapTime() + 6;
    Device.Read gap =
        spoilt(c -> seconds(c) > middle && seconds(c) < middle + 4 ? new String[0] : c);
    assertThat(gap.whole().stream().map(DrivenLap::kind)).contains(LapKind.INCOMPLETE);
    assertThat(gap.whole().stream().filter(l -> l.kind() == LapKind.PUSH)).hasSize(2);
  }

  @Test
  void aPositionThatJumpsIsBridged() {
    Device.Read read =
        spoilt(
            c -> {
              if (Math.abs(seconds(c) % 7 - 3) < 0.011) {
                c[1] = "9999.0";
              }
              return c;
            });
    assertThat(read.said()).contains("that jump away");
    sameTimes(read, 0.02);
  }

  @Test
  void aSpeedInAnotherUnitIsNoticed() {
    Device.Read read =
        spoilt(
            c -> {
              c[3] = String.format(Locale.ROOT, "%.3f", Double.parseDouble(c[3]) / 1.609344);
              return c;
            });
    assertThat(read.said()).contains("another unit than the file says");
    assertThat(read.events().get(0).get(0).minimumSpeed())
        .isCloseTo(TRUTH.get(0).corners().get(0).minimumSpeed(), within(0.4));
  }

  @Test
  void aSpeedThatIsNoneGivesWayToThePositions() {
    Device.Read read =
        spoilt(
            c -> {
              c[3] = String.format(Locale.ROOT, "%.3f", Double.parseDouble(c[3]) * 1.3);
              return c;
            });
    assertThat(read.said()).contains("does not go with the positions");
    sameTimes(read, 0.05);
  }

  /** The rows with the positions under names that say nothing, and one column more. */
  private static String unplaced(String added, java.util.function.ToIntFunction<String[]> value) {
    StringBuilder out = new StringBuilder(ROWS.get(0).replace("x (m),y (m)", "p1,p2"));
    out.append(',').append(added).append('\n');
    for (String row : ROWS.subList(1, ROWS.size())) {
      out.append(row).append(',').append(value.applyAsInt(row.split(","))).append('\n');
    }
    return out.toString();
  }

  @Test
  void aLapNumberWillDoWithoutPositions() {
    double first = DRIVEN.truth().laps().get(0).lapTime();
    double[] ends = {
      first,
      first + TRUTH.get(0).lapTime(),
      first + TRUTH.get(0).lapTime() + TRUTH.get(1).lapTime(),
      first + TRUTH.get(0).lapTime() + TRUTH.get(1).lapTime() + TRUTH.get(2).lapTime()
    };
    Device.Read read =
        Device.read(
            unplaced(
                "lap",
                c -> (int) java.util.Arrays.stream(ends).filter(e -> seconds(c) >= e).count()));
    sameTimes(read, 0.03);
    assertThat(read.whole().get(0).trace().placed()).isFalse();
    CornerEvents e = read.events().get(0).get(0);
    assertThat(e.apex()).isNull();
    assertThat(Device.DESK.road().apart(TRUTH.get(0).corners().get(0).brake(), e.brake()))
        .isBetween(-12.0, 12.0);
  }

  @Test
  void withNeitherPositionNorLapNumberItSaysWhatToRecord() {
    assertThatThrownBy(() -> Device.read(unplaced("nothing", c -> 0)))
        .isInstanceOfSatisfying(
            Refusal.class, p -> assertThat(Refused.remedy(p)).contains("lap number"));
  }

  @Test
  void distanceMayStandForTime() {
    StringBuilder text = new StringBuilder("dist (m),speed (km/h),x (m),y (m)\n");
    double metres = 0;
    double last = 0;
    for (String row : ROWS.subList(1, ROWS.size())) {
      String[] c = row.split(",");
      double v = Double.parseDouble(c[3]) / 3.6;
      metres += (seconds(c) - last) * v;
      last = seconds(c);
      text.append(String.format(Locale.ROOT, "%.3f,%s,%s,%s%n", metres, c[3], c[1], c[2]));
    }
    Device.Read read = Device.read(text.toString());
    assertThat(read.said()).contains("Time from distance and speed");
    sameTimes(read, 0.1);
  }

  @Test
  void whoLeavesTheRoadHasALapOffIt() {
    Drive off =
        Device.drive(
            2, 3, new Planted(Mistake.BEYOND_THE_EDGE, Device.DRAFT.get(1).corner(), 2, 1));
    Device.Read read =
        Device.read(
            Device.spoilt(
                Device.rows(off, 50, Recorder.Noise.usual()),
                c -> {
                  // A wide excursion of a second, five metres past the edge.
                  if (seconds(c) > 48 && seconds(c) < 50) {
                    c[1] = String.format(Locale.ROOT, "%.3f", Double.parseDouble(c[1]) + 14);
                    c[2] = String.format(Locale.ROOT, "%.3f", Double.parseDouble(c[2]) + 14);
                  }
                  return c;
                }));
    assertThat(read.whole().stream().map(DrivenLap::kind)).contains(LapKind.OFF);
    assertThat(read.whole().stream().map(l -> Speaker.PLAIN.say(l.remark())))
        .anyMatch(r -> r.matches("\\d\\.\\d s beyond the edge"));
  }

  private static DrivenLap lap(int number, double time) {
    return new DrivenLap(number, LapKind.PUSH, number * 90, time, TraceExample.SHORT, Said.NOTHING);
  }

  @Test
  void slowLapsDoNotCountAndTheFirstAreCold() {
    List<DrivenLap> judged =
        LapReader.judged(
            List.of(lap(1, 92.5), lap(2, 90.1), lap(3, 90.0), lap(4, 99.0), lap(5, 90.2)));
    assertThat(judged.stream().map(DrivenLap::kind))
        .containsExactly(LapKind.COLD, LapKind.PUSH, LapKind.PUSH, LapKind.SLOW, LapKind.PUSH);
    assertThat(Speaker.PLAIN.say(judged.get(3).remark())).contains("10 % slower");
    assertThat(LapReader.judged(List.of(lap(1, 99), lap(2, 90))))
        .allMatch(l -> l.kind() == LapKind.PUSH);
    assertThat(LapKind.COLD.counts()).isFalse();
    assertThat(LapKind.IN.whole()).isFalse();
  }

  @Test
  void aRecordingLongerThanABlockLosesNoLapAndDoublesNone() {
    Drive many = Device.drive(60, 5);
    Device.Read read =
        Device.read(Device.spoilt(Device.rows(many, 90, Recorder.Noise.usual()), c -> c));
    assertThat(many.duration() * 90).isGreaterThan(1.3 * Blocks.SIZE);
    assertThat(read.whole()).hasSize(60);
    List<Truth.Lap> truth = many.truth().laps().stream().filter(l -> l.number() > 0).toList();
    for (int i = 0; i < 60; i++) {
      assertThat(read.whole().get(i).lapTime()).isCloseTo(truth.get(i).lapTime(), within(0.02));
    }
    assertThat(read.events()).allMatch(e -> e.size() == 4);
  }

  @Test
  void whatIsKeptOfALapIsOnTheStationsOfTheRoad() {
    DrivenLap lap = spoilt(c -> c).whole().get(1);
    int count = Device.DESK.road().size() / 2;
    LapGrid grid = LapGrid.of(lap, Device.DESK.road().length(), count);
    assertThat(grid.times()).hasSize(count + 1);
    assertThat(grid.times()[0]).isZero();
    assertThat(grid.times()[count]).isEqualTo(lap.lapTime());
    for (int i = 1; i <= count; i++) {
      assertThat(grid.times()[i]).isGreaterThan(grid.times()[i - 1]);
    }
    // Times and speeds belong together.
    double sum = 0;
    for (double v : grid.speed()) {
      sum += grid.step() / v;
    }
    assertThat(sum).isCloseTo(lap.lapTime(), within(0.03 * lap.lapTime()));
    assertThat(grid.channels()).containsKeys(Channel.BRAKE, Channel.THROTTLE, Channel.GEAR);
  }
}
