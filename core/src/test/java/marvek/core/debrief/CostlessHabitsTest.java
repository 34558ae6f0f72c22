package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.DoubleStream;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.logger.Plan;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.CornerEventsBuilder;
import org.junit.jupiter.api.Test;

/** What some laps show and others do not is told where it cost time, or where it is a danger. */
class CostlessHabitsTest {
  private static final CornerEntry ENTRY =
      Device.DRAFT.stream()
          .filter(
              e -> e.slowing() == Slowing.BRAKE && e.station(PointKind.FULL_THROTTLE).isPresent())
          .skip(1)
          .findFirst()
          .orElseThrow();
  private static final List<LapData> CLEAN =
      Drives.read(new Plan(Device.DESK, Device.DRAFT, List.of(), 6, 0, 1, 0, true), 4).stream()
          .map(l -> Drives.data(l, Device.DESK))
          .toList();

  /**
   * Six laps, some of which come slower to the middle of a corner, or over its edge.
   *
   * @param shown how many
   * @param seconds that they lose in it
   * @param over whether they leave the road after it
   */
  private static List<String> told(int shown, double seconds, boolean over) {
    return told(over, DoubleStream.generate(() -> seconds).limit(shown).toArray());
  }

  /** The same, each of the first laps with a time of its own. */
  private static List<String> told(boolean over, double... seconds) {
    List<LapData> laps = new ArrayList<>();
    for (int k = 0; k < CLEAN.size(); k++) {
      LapData lap = CLEAN.get(k);
      laps.add(k < seconds.length ? slower(lap, seconds[k], over) : lap);
    }
    return Debriefer.read(Device.DESK, Device.DRAFT, laps).corners().stream()
        .filter(c -> c.corner().equals(ENTRY.corner()))
        .flatMap(c -> c.habits().stream().map(Debrief.HabitFinding::cause))
        .toList();
  }

  private static LapData slower(LapData lap, double seconds, boolean over) {
    Corner corner = Device.DESK.corners().get(Device.DESK.indexOf(ENTRY.corner()));
    double[] times = lap.times().clone();
    for (int i = 0; i < times.length; i++) {
      times[i] += i * lap.step() > corner.apex() ? seconds : 0;
    }
    List<CornerEvents> events =
        lap.events().stream()
            .map(e -> e.corner().equals(ENTRY.corner()) ? changed(e, over) : e)
            .toList();
    return new LapData(
        lap.id(),
        lap.run(),
        lap.number(),
        lap.lapTime() + seconds,
        lap.step(),
        times,
        events,
        lap.told(),
        lap.sketch());
  }

  private static CornerEvents changed(CornerEvents e, boolean over) {
    CornerEventsBuilder to = CornerEventsBuilder.builder(e);
    return (over ? to.exitRoom(-0.9) : to.minimumSpeed(0.9 * e.minimumSpeed())).build();
  }

  @Test
  void cleanLapsTellNothing() {
    assertThat(CLEAN).hasSize(6);
    assertThat(told(0, 0, false)).isEmpty();
  }

  @Test
  void whatCostNothingInSomeOfTheLapsIsNotTold() {
    assertThat(told(3, -0.1, false)).isEmpty();
    assertThat(told(3, 0.004, false)).isEmpty();
  }

  @Test
  void whatCostTimeOrIsInMostOfTheLapsIsTold() {
    assertThat(told(3, 0.1, false)).contains("OVER_SLOWED");
    // Two laps without it are too few to compare.
    assertThat(told(4, -0.1, false)).contains("OVER_SLOWED");
    assertThat(told(5, -0.1, false)).contains("OVER_SLOWED");
    assertThat(told(6, -0.1, false)).contains("OVER_SLOWED");
  }

  /** Half of the laps may show it by chance: then each of them must have been slower. */
  @Test
  void whatHalfOfTheLapsShowIsToldWhereEachOfThemWasSlower() {
    assertThat(told(false, 0.1, 0.1, 0.1)).contains("OVER_SLOWED");
    assertThat(told(false, 0.1, 0.1, -0.1)).isEmpty();
    assertThat(told(false, 0.1, 0.1, 0.1, -0.1)).contains("OVER_SLOWED");
  }

  /** Over the edge is told whatever it gained. */
  @Test
  void aDangerIsToldWhateverItGained() {
    assertThat(told(3, -0.1, true)).contains("BEYOND_THE_EDGE");
  }
}
