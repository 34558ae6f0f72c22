package marvek.core.debrief.habits;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.CornerEventsBuilder;
import org.junit.jupiter.api.Test;

/** What a score asks for is no habit; what goes beyond it is. */
class PlannedScoresTest {
  private static final ComputedLap LAP = lap();

  private static ComputedLap lap() {
    return Drives.computed(RandomRoads.of(8801, 290), "single-seater");
  }

  private static CornerEntry braked() {
    return Drafter.draft(LAP, List.of()).corners().stream()
        .filter(e -> e.slowing() == Slowing.BRAKE && e.point(PointKind.FULL_THROTTLE).isPresent())
        .findFirst()
        .map(e -> e.copy().actions(List.of()).done())
        .orElseThrow();
  }

  private static CornerEvents events(int brakings, int lifts) {
    return new CornerEvents(
        braked().corner(),
        null,
        null,
        0.8,
        null,
        null,
        brakings,
        null,
        null,
        null,
        null,
        null,
        null,
        null,
        30,
        0,
        50,
        40,
        null,
        0,
        null,
        null,
        lifts,
        null,
        null,
        5,
        3,
        List.of(),
        0,
        0,
        0,
        0,
        null);
  }

  private static Double seen(Habit habit, CornerEntry plan, int brakings, int lifts) {
    return habit.seen(
        new Look(LAP, events(brakings, lifts), plan, 1, true, null, new AsPlanned(LAP, plan)));
  }

  private static CornerEntry with(Action... actions) {
    List<Action> all = new ArrayList<>(List.of(actions));
    return braked().copy().actions(all).done();
  }

  @Test
  void aSecondPressThatIsWrittenIsNoHabit() {
    Habit twice = new TwoPresses();
    double apex = braked().station(PointKind.APEX).orElseThrow();
    CornerEntry dab = with(Action.of("dab", ActionKind.BRAKE, LAP.road().wrap(apex - 8), 0.1));
    assertThat(seen(twice, braked(), 1, 0)).isNull();
    assertThat(seen(twice, braked(), 2, 0)).isEqualTo(2);
    assertThat(seen(twice, dab, 2, 0)).isNull();
    assertThat(seen(twice, dab, 3, 0)).isEqualTo(3);
  }

  @Test
  void throttleThatIsEasedAsWrittenIsNoHabit() {
    Habit back = new ThrottleThenLift();
    double first = braked().station(PointKind.FIRST_THROTTLE).orElseThrow();
    CornerEntry eased =
        with(
            Action.of("more", ActionKind.THROTTLE, LAP.road().wrap(first + 4), 0.8),
            Action.of("less", ActionKind.THROTTLE, LAP.road().wrap(first + 8), 0.4));
    CornerEntry stages =
        with(
            Action.of("more", ActionKind.THROTTLE, LAP.road().wrap(first + 4), 0.6),
            Action.of("yet", ActionKind.THROTTLE, LAP.road().wrap(first + 8), 0.8));
    // What a second press shuts is told as a press, not as throttle taken back.
    CornerEntry pressed =
        with(
            Action.of("more", ActionKind.THROTTLE, LAP.road().wrap(first + 4), 0.8),
            Action.of("dab", ActionKind.BRAKE, LAP.road().wrap(first + 8), 0.1),
            Action.of("on", ActionKind.THROTTLE, LAP.road().wrap(first + 12), 0.3));
    assertThat(seen(back, pressed, 2, 1)).isEqualTo(1);
    assertThat(seen(back, braked(), 1, 1)).isEqualTo(1);
    assertThat(seen(back, eased, 1, 1)).isNull();
    assertThat(seen(back, eased, 1, 2)).isEqualTo(2);
    assertThat(seen(back, stages, 1, 1)).isEqualTo(1);
    assertThat(seen(back, stages, 1, 0)).isNull();
  }

  /**
   * A light press that is eased off evenly is lost from sight before it ends; a hard one is not.
   */
  @Test
  void aLightPressGoesOnLongerThanItIsSeen() {
    CornerEntry plan =
        Drafter.draft(LAP, List.of()).corners().stream()
            .filter(e -> e.slowing() == Slowing.BRAKE && longBraked(e))
            .findFirst()
            .orElseThrow();
    double brake = plan.station(PointKind.BRAKE).orElseThrow();
    double release = plan.station(PointKind.RELEASE).orElseThrow();
    double early = LAP.road().wrap(release - 30);
    assertThat(seen(new ReleasedSoon(), plan, brake, early, 0.9, 0)).isNotNull();
    assertThat(seen(new ReleasedSoon(), plan, brake, early, 0.1, 0)).isNull();
    // Nor does who is seen to let go so much sooner roll for so long.
    double away = LAP.road().apart(release, plan.station(PointKind.FIRST_THROTTLE).orElseThrow());
    double rolls = (Math.max(0, away) + 30) / plan.minimumSpeed();
    assertThat(seen(new Coasting(), plan, brake, early, 0.1, rolls)).isNull();
    assertThat(seen(new Coasting(), plan, brake, release, 0.1, rolls + 0.1)).isNotNull();
    CornerEntry shut =
        plan.copy()
            .points(
                plan.points().stream().filter(p -> p.kind() != PointKind.FIRST_THROTTLE).toList())
            .done();
    assertThat(seen(new Coasting(), shut, brake, release, 0.9, 3)).isNull();
  }

  private static boolean longBraked(CornerEntry e) {
    return e.point(PointKind.FIRST_THROTTLE).isPresent()
        && LAP.road()
                .apart(
                    e.station(PointKind.BRAKE).orElseThrow(),
                    e.station(PointKind.RELEASE).orElseThrow())
            > 70;
  }

  private static Double seen(
      Habit habit, CornerEntry plan, double brake, double release, double peak, double roll) {
    CornerEvents events =
        CornerEventsBuilder.builder(events(1, 0))
            .corner(plan.corner())
            .brake(brake)
            .release(release)
            .brakePeak(peak)
            .roll(roll)
            .build();
    return habit.seen(new Look(LAP, events, plan, 1, true, null, new AsPlanned(LAP, plan)));
  }
}
