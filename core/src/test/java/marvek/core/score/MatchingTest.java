package marvek.core.score;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class MatchingTest {
  private static final double LAP = 2000;

  private static Action at(String id, ActionKind kind, double station) {
    return Action.of(id, kind, station, null);
  }

  @Test
  void oneThatIsMissingDoesNotShiftTheOthers() {
    List<Action> first =
        List.of(
            at("a", ActionKind.THROTTLE, 100),
            at("b", ActionKind.THROTTLE, 140),
            at("c", ActionKind.THROTTLE, 180));
    List<Action> second =
        List.of(at("x", ActionKind.THROTTLE, 145), at("y", ActionKind.THROTTLE, 183));
    Matching matching = Matching.of(first, second, LAP);
    assertThat(matching.second(first.get(0))).isEmpty();
    assertThat(matching.second(first.get(1))).contains(second.get(0));
    assertThat(matching.first(second.get(1))).contains(first.get(2));
  }

  @Test
  void otherKindsAndPlacesFarAwayAreNotTheSame() {
    List<Action> lift = List.of(at("a", ActionKind.LIFT, 1995));
    assertThat(Matching.of(lift, List.of(at("b", ActionKind.BRAKE, 1995)), LAP).pairs()).isEmpty();
    assertThat(Matching.of(lift, List.of(at("b", ActionKind.LIFT, 200)), LAP).pairs()).isEmpty();
    // Across the start/finish line eight metres are eight metres.
    assertThat(Matching.of(lift, List.of(at("b", ActionKind.LIFT, 3)), LAP).pairs()).hasSize(1);
  }

  @Test
  void theSumOfMetresIsTheLeastThatThereIs() {
    Random random = new Random(3);
    for (int round = 0; round < 300; round++) {
      List<Action> first = some(random, "a");
      List<Action> second = some(random, "b");
      Matching matching = Matching.of(first, second, LAP);
      double sum =
          matching.pairs().stream()
              .mapToDouble(p -> Math.abs(p.first().station() - p.second().station()))
              .sum();
      double alone = 60.0 * (first.size() + second.size() - 2 * matching.pairs().size());
      assertThat(sum + alone).isCloseTo(least(first, second, 0, 0), within(1e-6));
    }
  }

  private static List<Action> some(Random random, String id) {
    List<Action> out = new ArrayList<>();
    double station = 300;
    for (int k = random.nextInt(5); k >= 0; k--) {
      station += 5 + 70 * random.nextDouble();
      out.add(at(id + k, ActionKind.BRAKE, station));
    }
    return out;
  }

  /** Every way tried. */
  private static double least(List<Action> a, List<Action> b, int i, int j) {
    if (i == a.size() || j == b.size()) {
      return 60.0 * (a.size() - i + b.size() - j);
    }
    double both = Math.abs(a.get(i).station() - b.get(j).station()) + least(a, b, i + 1, j + 1);
    return Math.min(both, 60 + Math.min(least(a, b, i + 1, j), least(a, b, i, j + 1)));
  }
}
