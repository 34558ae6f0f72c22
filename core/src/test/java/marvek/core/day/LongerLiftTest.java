package marvek.core.day;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.entry.Variant;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.ways.Choices;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A lift chosen in place of a braking, on other days, on roads that nothing was tuned to. */
@Tag("slow")
class LongerLiftTest {
  private record Spared(ComputedLap lap, CornerEntry entry) {}

  private static final List<Spared> SPARED = new ArrayList<>();

  @BeforeAll
  static void roads() {
    String[] vehicles = {"motorcycle-600", "cup-gt", "small-hatch", "motorcycle-1000"};
    for (int k = 0; k < 10; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(960 + k, 220 + 20 * k), vehicles[k % 4]);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        Choices.choose(lap, Things.none(), List.of(e), e.corner(), School.NO_BRAKE)
            .forEach(w -> SPARED.add(new Spared(lap, w)));
      }
    }
    assertThat(SPARED).hasSizeGreaterThan(6);
  }

  private static double lift(CornerEntry e) {
    return e.actions().stream()
        .filter(a -> a.kind() == ActionKind.LIFT)
        .findFirst()
        .orElseThrow()
        .station();
  }

  private static boolean makes(ComputedLap lap, CornerEntry e) {
    return Answers.at(lap, Things.none(), lap.indexOf(e.corner())).makes(e);
  }

  private static CornerEntry later(Spared s, double metres) {
    return s.entry()
        .copy()
        .actions(
            s.entry().actions().stream()
                .map(
                    a ->
                        a.kind() == ActionKind.LIFT
                            ? a.at(s.lap().road().wrap(a.station() + metres))
                            : a)
                .toList())
        .done();
  }

  private static List<LostBrakings.Lost> lost(ComputedLap lap, CornerEntry e) {
    return LostBrakings.in(lap, new ReferenceContent(List.of(e)));
  }

  /** A braking that is spared by a lift that does is no lost one; by one that does not it is. */
  @Test
  void whatIsLiftedForInTimeIsNotLost() {
    int warned = 0;
    for (Spared s : SPARED) {
      assertThat(lost(s.lap(), s.entry())).as(s.entry().corner()).isEmpty();
      CornerEntry late = later(s, 2 * s.entry().approachSpeed());
      // Corners that lose little speed only were never counted.
      warned += lost(s.lap(), late).size();
    }
    assertThat(warned).isGreaterThan(SPARED.size() / 2);
  }

  /** On another day the lift comes in time, or the brake comes back: never neither, never both. */
  @Test
  void onAnotherDayItComesInTimeOrIsBraked() {
    int lifted = 0;
    int braked = 0;
    int sooner = 0;
    for (Spared s : SPARED) {
      for (Day day :
          List.of(
              DayKind.WET.usual(),
              DayKind.FULL_TANK.usual(),
              new Day(0.93, 0, 0, 0, 1, 1, null, "", null, null))) {
        ComputedLap then = Variants.computed(s.lap(), Footing.plain(List.of()), day);
        Variant variant = new Variant("v", DayKind.OTHER_HOUR, "", day, List.of());
        for (CornerEntry e :
            List.of(
                Variants.adjust(s.lap(), then, variant, s.entry()).entry(),
                Variants.placed(s.lap(), then, s.entry()))) {
          assertThat(makes(then, e)).as(e.corner()).isTrue();
          if (Drafter.places(then, s.lap().indexOf(e.corner())).slowing() != Slowing.BRAKE) {
            // There is no brake to be spared on such a day.
            assertThat(e.slowing()).isNotEqualTo(Slowing.BRAKE);
            continue;
          }
          boolean lifts = e.actions().stream().anyMatch(a -> a.kind() == ActionKind.LIFT);
          assertThat(lifts).as(e.corner()).isEqualTo(e.slowing() == Slowing.LIFT);
          assertThat(e.point(PointKind.BRAKE).isPresent()).isEqualTo(!lifts);
          assertThat(e.schools().contains(School.NO_BRAKE)).isEqualTo(lifts);
          lifted += lifts ? 1 : 0;
          braked += lifts ? 0 : 1;
          sooner += lifts && s.lap().road().apart(lift(s.entry()), lift(e)) < -1 ? 1 : 0;
        }
      }
    }
    assertThat(lifted).isGreaterThan(braked);
    assertThat(sooner).isGreaterThan(lifted / 4);
  }
}
