package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A lift that comes too late is not made, though the model cuts what the tyres do not bear. */
@Tag("slow")
class LateLiftTest {
  private static final String[] VEHICLES = {
    "cup-gt", "small-hatch", "motorcycle-600", "single-seater"
  };

  private static CornerAnswer late(ComputedLap lap, CornerEntry e, double metres) {
    return Answers.answer(
        lap,
        e.copy()
            .actions(
                e.actions().stream()
                    .map(a -> a.kind() == ActionKind.LIFT ? later(lap, a, metres) : a)
                    .toList())
            .done());
  }

  private static Action later(ComputedLap lap, Action a, double metres) {
    return a.at(lap.road().wrap(a.station() + metres));
  }

  private static Optional<Value> said(CornerAnswer answer, String key) {
    return answer.remarks().stream()
        .filter(r -> r.key().equals(key))
        .map(r -> r.values().get(0))
        .findFirst();
  }

  /** Most that throttle and turn ask for together before the lift. */
  private static double asked(CornerAnswer answer) {
    return answer.score().stream()
        .filter(s -> s.action().kind() == ActionKind.LIFT)
        .findFirst()
        .map(ScoredAction::before)
        .orElseThrow();
  }

  @Test
  void aLiftAfterMoreIsAskedThanThereIsIsNotMade() {
    int lifts = 0;
    int made = 0;
    for (int k = 0; k < 10; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(980 + k, 220 + 15 * k), VEHICLES[k % 4]);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (e.slowing() != Slowing.LIFT || Drafter.lift(e).isEmpty()) {
          continue;
        }
        lifts++;
        for (double metres : new double[] {0, -5, -30}) {
          CornerAnswer answer = late(lap, e, metres);
          assertThat(answer.time()).as("%s %.0f m", e.corner(), metres).isNotNull();
          assertThat(asked(answer)).isLessThanOrEqualTo(1.03);
          assertThat(said(answer, "plan.lift_asks")).isEmpty();
          assertThat(said(answer, "plan.lift_late")).isEmpty();
        }
        // The margin is in hand: as much later is still made.
        Action lift = Drafter.lift(e).orElseThrow();
        double speed = lap.lap().speed()[lap.road().index(lift.station())];
        double inHand = lap.conditions().driving().margin() * speed - 1;
        assertThat(late(lap, e, inHand).time()).as("%s %.1f m", e.corner(), inHand).isNotNull();
        for (double metres : new double[] {60, 100, 150}) {
          CornerAnswer answer = late(lap, e, metres);
          Optional<Value> asks = said(answer, "plan.lift_asks");
          Optional<Value> late = said(answer, "plan.lift_late");
          assertThat(asks.isPresent()).isNotEqualTo(late.isPresent());
          if (asks.isPresent()) {
            assertThat(answer.time()).as("%s %.0f m", e.corner(), metres).isNull();
            assertThat(((Value.Figure) asks.get()).value()).isGreaterThan(103);
          } else {
            assertThat(((Value.Length) late.get()).metres()).isBetween(metres - 40, metres);
            made++;
          }
        }
      }
    }
    assertThat(lifts).isGreaterThan(5);
    assertThat(made).isLessThanOrEqualTo(3 * lifts / 4);
  }

  /** Less throttle after a lift than it keeps would be another lift. */
  @Test
  void theThrottleOpensFromWhatALiftKeeps() {
    int lifts = 0;
    int kept = 0;
    for (int k = 0; k < 8; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(300 + k, 300), VEHICLES[k % 4]);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        Action lift = Drafter.lift(e).orElse(null);
        if (lift == null) {
          continue;
        }
        lifts++;
        double least = Objects.requireNonNull(lift.amount());
        kept += least > 0.2 ? 1 : 0;
        assertThat(Score.of(lap.road(), e))
            .filteredOn(a -> a.kind() == ActionKind.THROTTLE)
            .allSatisfy(
                a -> {
                  assertThat(a.amount()).as("%s", e.corner()).isGreaterThanOrEqualTo(least);
                  assertThat(lap.road().apart(lift.station(), a.station())).isPositive();
                });
        // What is simple to do costs little against the lap.
        Double costs = Answers.answer(lap, e).lapEffect();
        assertThat(costs).as("%s", e.corner()).isNotNull().isLessThan(0.15);
      }
    }
    assertThat(lifts).isGreaterThan(8);
    assertThat(kept).isGreaterThan(4);
  }
}
