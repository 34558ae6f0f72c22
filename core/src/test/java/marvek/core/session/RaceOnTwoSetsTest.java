package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDateTime;
import java.time.ZoneId;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** When to change from one set to the other, against every split driven through. */
class RaceOnTwoSetsTest {
  private static final ComputedLap LAP = Drives.computed(RandomRoads.of(911, 380), "cup-gt");

  private static TrackSession race(int age, @Nullable Integer life, SecondSet second) {
    SessionTyres tyres =
        SessionTyresBuilder.builder(SessionTyres.unknown())
            .age(age)
            .life(life)
            .second(second)
            .build();
    Start start = new Start(LocalDateTime.of(2026, 6, 6, 14, 0), ZoneId.of("Europe/Lisbon"));
    return TrackSessionBuilder.builder(
            TrackSession.of(SessionKind.RACE, "Race", Timing.of(start, 40)))
        .tyres(tyres)
        .build();
  }

  private static StintSplit split(int laps, int age, @Nullable Integer life, SecondSet second) {
    StintSplit split = StintSplit.of(LAP, race(age, life, second), laps, 1);
    assertThat(split).isNotNull();
    return split;
  }

  @Test
  void twoSetsAlikeAreUsedAlike() {
    assertThat(split(20, 0, 40, new SecondSet("same", 1, 0, 40)).change()).isEqualTo(10);
  }

  @Test
  void theOneThatWearsMoreDoesFewerLaps() {
    int even = split(20, 0, 40, new SecondSet("same", 1, 0, 40)).change();
    assertThat(split(20, 0, 40, new SecondSet("lasting", 1, 0, 80)).change()).isLessThan(even);
    assertThat(split(20, 10, 40, new SecondSet("new", 1, 0, 40)).change()).isLessThan(even);
    assertThat(split(20, 0, 40, new SecondSet("slower", 0.97, 0, 40)).change()).isGreaterThan(even);
  }

  /** Linear wear of both: the laps at which both sets have lost as much, by the first condition. */
  @Test
  void bothSetsAreLeftEquallySlow() {
    // k / 120 = (120 - k) / 240, and 0.08 of the grip lost for each; what is cold is cold on both.
    StintSplit split = split(120, 0, 120, new SecondSet("lasting", 1, 0, 240));
    assertThat(split.change()).isCloseTo(40, within(1));
  }

  @Test
  void theWindowIsWhatCostsLessThanASecond() {
    SecondSet second = new SecondSet("lasting", 0.99, 0, 50);
    StintSplit split = split(24, 0, 30, second);
    double best = seconds(24, 30, second, split.change());
    for (int k = 1; k < 24; k++) {
      double more = seconds(24, 30, second, k) - best;
      assertThat(more).as("change after %d", k).isGreaterThanOrEqualTo(-1e-6);
      boolean within = k >= split.earliest() && k <= split.latest();
      assertThat(more < StintSplit.SAME).as("change after %d: %s s", k, more).isEqualTo(within);
    }
    assertThat(split.gained()).isCloseTo(seconds(24, 30, second, 24) - best, within(0.05));
  }

  /** Every lap driven by the simulation with the grip that it has. */
  private static double seconds(int laps, int life, SecondSet second, int change) {
    TrackSession race = race(0, life, second);
    WarmUp warm = race.tyres().warmUp(race.day());
    double lapTime = LAP.lap().lapTime();
    double perGrip =
        (LAP.on(LAP.conditions().withGrip(LAP.conditions().grip() * 0.98)).lap().lapTime()
                - lapTime)
            / 0.02;
    double sum = 0;
    for (int lap = 1; lap <= laps; lap++) {
      boolean first = lap <= change;
      int on = first ? lap : lap - change;
      double used = first ? on / (double) life : on / 50.0;
      double grip =
          warm.share(on, lapTime) * (1 - 0.08 * Math.min(1.5, used)) * (first ? 1 : second.grip());
      sum += lapTime + perGrip * (1 - grip);
    }
    return sum;
  }

  @Test
  void oneSetOrOneLapHasNothingToSplit() {
    TrackSession one =
        TrackSessionBuilder.builder(race(0, 30, new SecondSet("b", 1, 0, 30)))
            .tyres(SessionTyres.unknown())
            .build();
    assertThat(StintSplit.of(LAP, one, 20, 1)).isNull();
    assertThat(StintSplit.of(LAP, race(0, 30, new SecondSet("b", 1, 0, 30)), 1, 1)).isNull();
    assertThat(StintSplit.of(LAP, race(0, null, new SecondSet("b", 1, 0, null)), 20, 1)).isNull();
  }
}
