package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.function.UnaryOperator;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.ActionKind;
import org.junit.jupiter.api.Test;

/** What a pedal shows at rest and at its hardest, where a recording has neither. */
class PedalTravelTest {
  private static final Drive DRIVE = Device.drive(2, 5);
  private static final List<String> ROWS = Device.rows(DRIVE, 50, Recorder.Noise.usual());
  private static final int BRAKE = column("brake");
  private static final int THROTTLE = column("throttle");

  private static int column(String name) {
    String[] names = ROWS.get(0).split(",");
    int k = 0;
    while (!names[k].startsWith(name)) {
      k++;
    }
    return k;
  }

  private static Device.Read read(UnaryOperator<String[]> how) {
    return Device.read(Device.spoilt(ROWS, how));
  }

  private static Device.Read slowly(UnaryOperator<String[]> how) {
    return Device.read(Device.spoilt(Device.rows(DRIVE, 10, Recorder.Noise.usual()), how));
  }

  /** The throttle that never falls below a share of its travel. */
  private static String[] above(String[] row, double rest) {
    double share = Double.parseDouble(row[THROTTLE]) / 100;
    row[THROTTLE] = String.format(Locale.ROOT, "%.1f", 100 * (rest + (1 - rest) * share));
    return row;
  }

  private static double least(Device.Read read) {
    return read.whole().stream()
        .flatMapToDouble(l -> Arrays.stream(l.trace().of(Channel.THROTTLE)))
        .min()
        .orElseThrow();
  }

  private static double most(Device.Read read, Channel channel) {
    return read.whole().stream()
        .flatMapToDouble(l -> Arrays.stream(l.trace().of(channel)))
        .max()
        .orElseThrow();
  }

  @Test
  void whatTheThrottleShowsWhileBrakingIsShut() {
    Device.Read read = read(row -> above(row, 0.25));
    assertThat(least(read)).isZero();
    assertThat(most(read, Channel.BRAKE)).isCloseTo(1, within(0.05));
    assertThat(read.said()).contains("Throttle runs from 25 to 100 %");
  }

  @Test
  void whatIsNeverLessIsHeldWhereNoBrakingSaysThatItIsShut() {
    Random chance = new Random(3);
    UnaryOperator<String[]> how =
        row -> {
          row[BRAKE] = String.format(Locale.ROOT, "%.1f", Math.max(0, chance.nextGaussian()));
          return above(row, 0.4);
        };
    Device.Read read = read(how);
    assertThat(most(slowly(how), Channel.BRAKE)).as("ten a second").isZero();
    assertThat(least(read)).isCloseTo(0.4, within(0.03));
    assertThat(most(read, Channel.BRAKE)).as("scatter is no press").isZero();
    assertThat(read.said()).contains("hardly falls below 40 %").doesNotContain("hardest press");
  }

  /** A sensor that grows with speed is not pressed either, while the throttle is open. */
  @Test
  void anOffsetThatGrowsWithSpeedIsNoPress() {
    Device.Read read =
        read(
            row -> {
              double v = Double.parseDouble(row[3]) / 200;
              row[BRAKE] = String.format(Locale.ROOT, "%.1f", 6 * v * v);
              return above(row, 0.55);
            });
    assertThat(least(read)).isCloseTo(0.55, within(0.03));
    assertThat(most(read, Channel.BRAKE)).isZero();
  }

  @Test
  void aLittleThatNoFootHoldsIsShutEvenWithoutABrake() {
    Device.Read read =
        read(
            row -> {
              row[BRAKE] = "";
              return above(row, 0.1);
            });
    assertThat(least(read)).isZero();
    assertThat(read.said()).contains("Throttle runs from 10 to 100 %");
  }

  /** Circuits on which one corner is lifted for and none braked. */
  @Test
  void oneLiftOfALapIsReadAsItIsDone() {
    int lifts = 0;
    for (long seed : new long[] {44, 301}) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), "single-seater");
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      Plan plan = new Plan(lap, draft, List.of(), 1, 0.4, 1, 0, true);
      Drive driven = SimulatedDriver.drive(plan, new Random(7));
      boolean braked = Arrays.stream(driven.brake()).anyMatch(b -> b > 0.02);
      for (DrivenLap l : Drives.read(driven, lap, 50, Recorder.Noise.usual(), 8)) {
        List<Act> acts = Acts.of(Drives.data(l, lap).sketch());
        if (!braked) {
          assertThat(acts).noneMatch(a -> a.kind() == ActionKind.BRAKE);
        }
        for (CornerEntry e : draft) {
          Drafter.lift(e)
              .ifPresent(
                  lift ->
                      assertThat(acts)
                          .as("lift at %s", lift.station())
                          .anySatisfy(
                              a -> {
                                assertThat(a.kind()).isEqualTo(ActionKind.LIFT);
                                assertThat(a.station()).isCloseTo(lift.station(), within(4.0));
                                assertThat(a.amount()).isCloseTo(lift.amount(), within(0.06));
                              }));
          lifts += Drafter.lift(e).isPresent() ? 1 : 0;
        }
      }
    }
    assertThat(lifts).isPositive();
  }
}
