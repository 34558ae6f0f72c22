package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.day.DayFit;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.DayKind;
import marvek.core.entry.Variant;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Plan;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.said.Said;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.LapGrid;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Laps driven on days of all sorts, on roads that nobody drew, held against the day that fits. */
@Tag("slow")
class DaysOfLapsTest {
  private static final double PACE = 0.98;

  private static ComputedLap base(long road, double radius, String vehicle) {
    return Drives.computed(RandomRoads.of(road, radius), vehicle);
  }

  private static List<CornerEntry> draft(ComputedLap computed) {
    return Drafter.draft(computed, Drafter.boards(computed)).corners();
  }

  private static Variant day(DayKind kind, double grip) {
    return new Variant(kind.name(), kind, "", kind.usual().withGrip(grip), List.of());
  }

  private static List<CornerEntry> on(ComputedLap base, ComputedLap then, Variant day) {
    return draft(base).stream().map(e -> Variants.adjust(base, then, day, e).entry()).toList();
  }

  private static double used(ComputedLap computed, DrivenLap lap) {
    LapGrid fine = LapGrid.of(lap, computed.road().length(), computed.road().size());
    double[] across = fine.channels().get(Channel.ACROSS);
    return GripUse.of(computed, fine.speed(), across == null ? new double[0] : across);
  }

  private static List<DrivenLap> drive(ComputedLap base, Variant day, int laps, long seed) {
    ComputedLap then = Variants.computed(base, Footing.plain(List.of()), day.day());
    return Drives.read(
        new Plan(then, on(base, then, day), List.of(), laps, 1.5, PACE, 0, true), seed);
  }

  @ParameterizedTest
  @CsvSource({
    "51, 260, cup-gt",
    "52, 320, motorcycle-600",
    "53, 420, downforce-prototype",
    "54, 200, single-seater"
  })
  void lapsTellTheGripThatTheDayHad(long road, double radius, String vehicle) {
    ComputedLap base = base(road, radius, vehicle);
    for (double grip : new double[] {1, 0.85, 0.7, 0.55}) {
      Variant day = day(grip < 0.78 ? DayKind.WET : DayKind.DAMP, grip);
      double[] told =
          drive(base, day, 5, road * 10 + (long) (grip * 100)).stream()
              // Grip goes as the square of a speed.
              .mapToDouble(lap -> used(base, lap) / (grip * PACE * PACE))
              .toArray();
      // A run is held against the day that its middle lap tells.
      assertThat(Robust.median(told))
          .as("%s on road %d with grip %.2f", vehicle, road, grip)
          .isCloseTo(1, within(0.8 * DayFit.AGREES));
      assertThat(told)
          .satisfies(
              t ->
                  Arrays.stream(t)
                      .forEach(one -> assertThat(one).isCloseTo(1, within(1.3 * DayFit.AGREES))));
    }
  }

  private static long withHabits(ComputedLap by, List<CornerEntry> entries, List<DrivenLap> laps) {
    return Debriefer.read(by, entries, laps.stream().map(l -> Drives.data(l, by)).toList())
        .corners()
        .stream()
        .filter(c -> !c.habits().isEmpty())
        .count();
  }

  @Test
  void wetLapsAreAsCleanOnTheirDayAsDryOnesOnTheirsAndNotOnTheDryOne() {
    long wetOnWet = 0;
    long dryOnDry = 0;
    long wetOnDry = 0;
    int corners = 0;
    for (long road : new long[] {61, 62, 66}) {
      ComputedLap base = base(road, 300, "cup-gt");
      Variant wet = day(DayKind.WET, 0.7);
      ComputedLap then = Variants.computed(base, Footing.plain(List.of()), wet.day());
      List<DrivenLap> laps = drive(base, wet, 8, road);
      wetOnWet += withHabits(then, on(base, then, wet), laps);
      wetOnDry += withHabits(base, draft(base), laps);
      dryOnDry += withHabits(base, draft(base), drive(base, day(DayKind.DAMP, 1), 8, road));
      corners += base.corners().size();
    }
    String seen =
        "%d wet on wet, %d dry on dry, %d wet on dry of %d"
            .formatted(wetOnWet, dryOnDry, wetOnDry, corners);
    assertThat(wetOnDry).as(seen).isGreaterThan(corners / 2);
    assertThat(wetOnWet).as(seen).isLessThanOrEqualTo(dryOnDry + 3);
  }

  @Test
  void lapsOfARunThatTurnsWetGoToTwoDays() {
    ComputedLap base = base(63, 280, "cup-gt");
    List<DayFit.Candidate> days =
        List.of(
            new DayFit.Candidate("", Said.NOTHING, 1),
            new DayFit.Candidate("w", Said.NOTHING, 0.7));
    List<DayFit.Lap> laps = new ArrayList<>();
    drive(base, day(DayKind.DAMP, 1), 3, 5)
        .forEach(l -> laps.add(new DayFit.Lap("dry" + l.number(), used(base, l))));
    drive(base, day(DayKind.WET, 0.7), 3, 6)
        .forEach(l -> laps.add(new DayFit.Lap("wet" + l.number(), used(base, l))));
    DayFit fit = DayFit.of(days, laps, null, Said.NOTHING);
    assertThat(fit.parts()).hasSize(2);
    assertThat(fit.parts().get(0).laps()).hasSize(3).allMatch(l -> l.startsWith("dry"));
    assertThat(fit.parts().get(1).day()).isEqualTo(days.get(1));
    assertThat(fit.parts().get(1).laps()).hasSize(3).allMatch(l -> l.startsWith("wet"));
  }
}
