package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A lift that comes too late is said to, though the model only cuts what the tyres do not bear. */
@Tag("slow")
class LateLiftTest {
  private static final String LATE = "plan.lift_late";

  private static Optional<Double> late(ComputedLap lap, CornerEntry e, double metres) {
    CornerEntry moved =
        e.copy()
            .actions(
                e.actions().stream()
                    .map(a -> a.kind() == ActionKind.LIFT ? later(lap, a, metres) : a)
                    .toList())
            .done();
    return Answers.answer(lap, moved).remarks().stream()
        .filter(r -> r.key().equals(LATE))
        .map(r -> ((Value.Length) r.values().get(0)).metres())
        .findFirst();
  }

  private static Action later(ComputedLap lap, Action a, double metres) {
    return a.at(lap.road().wrap(a.station() + metres));
  }

  @Test
  void aLiftLaterThanTheLapEasesIsSaidToBe() {
    String[] vehicles = {"cup-gt", "small-hatch", "motorcycle-600", "single-seater"};
    int lifts = 0;
    for (int k = 0; k < 10; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(980 + k, 220 + 15 * k), vehicles[k % 4]);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (e.slowing() != Slowing.LIFT || Drafter.lift(e).isEmpty()) {
          continue;
        }
        lifts++;
        for (double metres : new double[] {0, -5, -30}) {
          assertThat(late(lap, e, metres)).as("%s %.0f m", e.corner(), metres).isEmpty();
        }
        Optional<Double> before = Optional.empty();
        for (double metres : new double[] {60, 100, 150}) {
          Optional<Double> said = late(lap, e, metres);
          assertThat(said).as("%s %.0f m", e.corner(), metres).isPresent();
          assertThat(said.get()).isBetween(metres - 40, metres);
          assertThat(said.get()).isGreaterThan(before.orElse(0.0));
          before = said;
        }
      }
    }
    assertThat(lifts).isGreaterThan(5);
  }
}
