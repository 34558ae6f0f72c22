package marvek.core.telemetry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import marvek.core.fixtures.Device;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What wheel speeds and knocks tell, where a device records them. */
@Tag("slow")
class WheelsAndKerbsTest {
  private static final String SECOND = Device.DRAFT.get(1).corner();
  private static final int FRONT = 11;
  private static final int REAR = 12;
  private static final int UP = 13;

  private static CornerEvents second(Device.Read read, int lap) {
    return read.events().get(lap).stream()
        .filter(e -> e.corner().equals(SECOND))
        .findFirst()
        .orElseThrow();
  }

  private static List<CornerEvents> others(Device.Read read) {
    return read.events().stream()
        .flatMap(List::stream)
        .filter(e -> !e.corner().equals(SECOND))
        .toList();
  }

  private static Device.Read with(Mistake mistake) {
    return Device.read(Device.drive(3, 21, new Planted(mistake, SECOND, 1, 1)));
  }

  @Test
  void aDriveWithoutMistakesLocksSpinsAndStrikesNothing() {
    List<List<CornerEvents>> all = Device.read(Device.drive(3, 20)).events();
    assertThat(all).hasSize(3);
    assertThat(all.stream().flatMap(List::stream))
        .allMatch(e -> e.locks() == 0 && e.spins() == 0)
        .allMatch(e -> e.strike() != null && e.strike() < 8);
  }

  @Test
  void aFrontWheelThatStandsIsCountedOnceAndInItsCorner() {
    Device.Read read = with(Mistake.LOCKS_THE_FRONT);
    for (int lap = 0; lap < 3; lap++) {
      assertThat(second(read, lap).locks()).as("lap " + lap).isEqualTo(1);
      assertThat(second(read, lap).spins()).isZero();
    }
    assertThat(others(read)).allMatch(e -> e.locks() == 0);
  }

  @Test
  void aRearWheelThatSpinsUnderThrottleIsNoLock() {
    Device.Read read = with(Mistake.SPINS_THE_REAR);
    for (int lap = 0; lap < 3; lap++) {
      assertThat(second(read, lap).spins()).as("lap " + lap).isEqualTo(1);
      assertThat(second(read, lap).locks()).isZero();
    }
    assertThat(others(read)).allMatch(e -> e.spins() == 0);
  }

  @Test
  void aKnockIsMeasuredFromWhatTheSensorShowsAtRest() {
    Device.Read read = with(Mistake.STRIKES_THE_KERB);
    double inMetres = second(read, 1).strike();
    assertThat(inMetres).isBetween(24.0, 38.0);
    assertThat(others(read)).allMatch(e -> e.strike() < 8);

    // The same in g, without the weight: another device, the same knock.
    List<String> rows =
        Device.rows(
            Device.drive(3, 21, new Planted(Mistake.STRIKES_THE_KERB, SECOND, 1, 1)),
            50,
            Recorder.Noise.usual());
    rows.set(0, rows.get(0).replace("az (m/s2)", "az (g)"));
    Device.Read inG =
        Device.read(
            Device.spoilt(
                rows,
                c -> {
                  double g = Double.parseDouble(c[UP]) / 9.80665 - 1;
                  c[UP] = String.format(Locale.ROOT, "%.4f", g);
                  return c;
                }));
    assertThat(second(inG, 1).strike()).isBetween(inMetres - 0.5, inMetres + 0.5);
  }

  @Test
  void aTyreOfAnotherSizeIsNeitherLockedNorSpinning() {
    Device.Read read =
        Device.read(
            Device.spoilt(
                Device.rows(Device.drive(3, 22), 50, Recorder.Noise.usual()),
                c -> {
                  c[FRONT] = String.valueOf(0.94 * Double.parseDouble(c[FRONT]));
                  c[REAR] = String.valueOf(1.05 * Double.parseDouble(c[REAR]));
                  return c;
                }));
    assertThat(read.events().stream().flatMap(List::stream))
        .isNotEmpty()
        .allMatch(e -> e.locks() == 0 && e.spins() == 0);
  }

  @Test
  void withoutTheseChannelsNothingIsClaimed() {
    List<String> rows =
        Device.rows(
            Device.drive(3, 21, new Planted(Mistake.LOCKS_THE_FRONT, SECOND, 1, 1)),
            50,
            Recorder.Noise.usual());
    rows.replaceAll(r -> String.join(",", List.of(r.split(",")).subList(0, FRONT)));
    Device.Read read = Device.read(Device.spoilt(rows, c -> c));
    assertThat(read.whole()).hasSize(3);
    assertThat(read.events().stream().flatMap(List::stream))
        .allMatch(e -> e.locks() == 0 && e.spins() == 0 && e.strike() == null);
  }
}
