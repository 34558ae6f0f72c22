package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Plan;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A brake of which a recording hardly shows anything is not told to be let go too soon. */
class FaintPressTest {
  @ParameterizedTest
  @CsvSource({"714, 360, motorcycle-600, c9", "708, 400, motorcycle-1000, c2"})
  void theEndsOfAFaintPressAreNotJudged(long seed, double radius, String vehicle, String corner) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    List<CornerEntry> plan = Drafter.draft(lap, List.of()).corners();
    Plan as = new Plan(lap, plan, List.of(), 6, 1.5, 1, 0, true);
    List<LapData> laps = Drives.read(as, seed).stream().map(l -> Drives.data(l, lap)).toList();
    assertThat(
            laps.stream()
                .flatMap(l -> l.events().stream())
                .filter(e -> e.corner().equals(corner))
                .filter(e -> e.brakePeak() > 0 && e.brakePeak() < 0.15))
        .hasSizeGreaterThan(2);
    assertThat(Debriefer.read(lap, plan, laps).corners())
        .filteredOn(c -> c.corner().equals(corner))
        .hasSize(1)
        .allSatisfy(
            c ->
                assertThat(c.habits())
                    .extracting(Debrief.HabitFinding::cause)
                    .doesNotContain("RELEASED_SOON", "COASTING", "UNEVEN_BRAKING"));
  }
}
