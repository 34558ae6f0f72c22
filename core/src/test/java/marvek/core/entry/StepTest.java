package marvek.core.entry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import org.junit.jupiter.api.Test;

/** Steps of actions to another place, or to another share. */
class StepTest {
  private static final ComputedLap LAP =
      Drives.computed(RandomRoads.of(8801, 290), "single-seater");
  private static final Centreline ROAD = LAP.road();

  private static CornerEntry braked() {
    return Drafter.draft(LAP, List.of()).corners().stream()
        .filter(e -> e.slowing() == Slowing.BRAKE)
        .findFirst()
        .map(e -> e.copy().actions(List.of()).done())
        .orElseThrow();
  }

  private static CornerEntry lifting(double from, double to) {
    return Score.with(
        braked(),
        ActionBuilder.builder(Action.of("l", ActionKind.LIFT, from, 0.4))
            .until(to)
            .cue(Cue.of(CueKind.SHARE, "w", "the wall", 0.5))
            .build());
  }

  private static Action only(CornerEntry e) {
    return e.actions().get(0);
  }

  @Test
  void aLiftGoesWithItsEndAndIsFoundByNothingThen() {
    Action moved = only(new Step("l", false, 104).in(ROAD, lifting(100, 140)));
    assertThat(moved.station()).isEqualTo(104);
    assertThat(moved.until()).isCloseTo(144, within(1e-9));
    assertThat(moved.cue()).isNull();
    assertThat(moved.amount()).isEqualTo(0.4);
  }

  @Test
  void itMayPassTheLine() {
    double length = ROAD.length();
    Action moved = only(new Step("l", false, length + 1).in(ROAD, lifting(length - 3, length - 1)));
    assertThat(moved.station()).isCloseTo(1, within(1e-9));
    assertThat(moved.until()).isCloseTo(3, within(1e-9));
  }

  @Test
  void aShareLeavesThePlaceAndItsCue() {
    Action eased = only(new Step("l", true, 0.55).in(ROAD, lifting(100, 140)));
    assertThat(eased.amount()).isEqualTo(0.55);
    assertThat(eased.station()).isEqualTo(100);
    assertThat(eased.cue()).isEqualTo(only(lifting(100, 140)).cue());
  }

  @Test
  void aPointIsMovedAndWhatIsNotThereChangesNothing() {
    CornerEntry e = braked();
    double brake = e.station(PointKind.BRAKE).orElseThrow();
    CornerEntry later = Step.of(PointKind.BRAKE, brake + 2).in(ROAD, e);
    assertThat(later.station(PointKind.BRAKE).orElseThrow()).isCloseTo(brake + 2, within(1e-9));
    assertThat(new Step("nothing", false, 5).in(ROAD, e)).isEqualTo(e);
  }
}
