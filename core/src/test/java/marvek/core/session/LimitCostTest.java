package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import org.junit.jupiter.api.Test;

/** Half a metre kept from the edges, on roads that nobody drew. */
class LimitCostTest {
  private static SessionRules rules(SessionRules.Limits limits, int warnings, Double penalty) {
    return SessionRulesBuilder.builder(SessionRules.unknown())
        .limits(limits)
        .warnings(warnings)
        .penalty(penalty)
        .build();
  }

  @Test
  void lessRoadCostsTimeWhereTheRoadBends() {
    for (long seed : List.of(921L, 922L)) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 380), "cup-gt");
      List<CornerEntry> entries = Drafter.draft(lap, List.of()).corners();
      LimitCost cost = LimitCost.of(lap, entries, SessionRules.unknown(), Watch.NOBODY);
      // Half a metre off both sides takes a metre of what the line may use across: by s = w / (1 -
      // cos(angle / 2)) a wider radius, of which a lap has a few per mille (from memory).
      assertThat(cost.seconds() / lap.lap().lapTime()).isBetween(0.0005, 0.02);
      assertThat(cost.corners()).isNotEmpty();
      double sum = cost.corners().stream().mapToDouble(LimitCost.InCorner::seconds).sum();
      assertThat(sum).isCloseTo(cost.seconds(), within(0.25 * cost.seconds() + 0.05));
      assertThat(cost.pays()).isNull();
      assertThat(cost.breach()).isNull();
    }
  }

  @Test
  void aPenaltyIsWeighedAgainstIt() {
    ComputedLap lap = Drives.computed(RandomRoads.of(923, 380), "cup-gt");
    List<CornerEntry> entries = Drafter.draft(lap, List.of()).corners();
    LimitCost at = cost(lap, entries, rules(SessionRules.Limits.PENALTY, 0, 5.0));
    LimitCost third = cost(lap, entries, rules(SessionRules.Limits.WARNINGS, 3, 5.0));
    assertThat(at.breach()).isEqualTo(5.0);
    assertThat(third.breach()).isEqualTo(1.25);
    assertThat(at.pays()).isCloseTo(5.0 / at.seconds(), within(1e-9));
    assertThat(third.pays()).isCloseTo(at.pays() / 4, within(1e-9));
    // What is free costs nothing, whatever else is said.
    assertThat(cost(lap, entries, rules(SessionRules.Limits.FREE, 0, 5.0)).pays()).isNull();
  }

  private static LimitCost cost(ComputedLap lap, List<CornerEntry> entries, SessionRules rules) {
    return LimitCost.of(lap, entries, rules, Watch.NOBODY);
  }
}
