package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Objects;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Limits;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A motorcycle's front wheel: held down by a gear up, or by the throttle. */
@Tag("slow")
class FrontWheelTest {
  private static final MarkerJudge.View PLAIN = new MarkerJudge.View(null, null, false, 1);

  private static boolean arises(ComputedLap lap, CornerEntry e) {
    return Choices.arising(lap, Things.none(), e).contains(Question.FRONT_WHEEL);
  }

  private static List<CornerEntry> taken(ComputedLap lap, CornerEntry e, School school) {
    return Choices.choose(lap, Things.none(), List.of(e), e.corner(), school);
  }

  private static List<Action> shifts(CornerEntry e) {
    return e.actions().stream().filter(a -> a.kind() == ActionKind.SHIFT).toList();
  }

  @Test
  void aGearUpIsTakenWhereTheFrontWheelWouldRiseAndWinsNoTime() {
    int asked = 0;
    int made = 0;
    double most = 0;
    for (String vehicle : List.of("motorcycle-1000", "motorcycle-600")) {
      for (long seed = 401; seed < 405; seed++) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
        for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
          if (!arises(lap, e)) {
            continue;
          }
          asked++;
          CornerEntry shifted = taken(lap, e, School.FRONT_SHIFTED).get(0);
          Action up = shifts(shifted).get(0);
          rises(lap, e, up);
          assertThat(taken(lap, shifted, School.FRONT_EASED).get(0).actions())
              .isEqualTo(e.actions());
          assertThat(arises(lap, shifted)).isTrue();
          Choices.Compared compared =
              Choices.compare(lap, Things.none(), e, Question.FRONT_WHEEL, PLAIN);
          Double now = Objects.requireNonNull(compared.now().toNext());
          assertThat(toNext(compared, School.FRONT_EASED)).isCloseTo(now, within(1e-9));
          Double gearUp = toNext(compared, School.FRONT_SHIFTED);
          if (gearUp != null) {
            made++;
            most = Math.max(most, gearUp - now);
            assertThat(gearUp - now).as("%s", e.corner()).isBetween(-1e-6, 0.15);
            // It spares the tyres at most, where it takes no longer.
            boolean same = gearUp - now < 0.004;
            assertThat(compared.best() == School.FRONT_SHIFTED && !same).isFalse();
          }
        }
      }
    }
    assertThat(asked).isGreaterThan(30);
    assertThat(made).isGreaterThan(9 * asked / 10);
    assertThat(most).isGreaterThan(0.03);
  }

  /** More is pulled there than the front wheel bears, in the gear below, and not just before. */
  private static void rises(ComputedLap lap, CornerEntry e, Action up) {
    CornerAnswer.Profile p = Answers.answer(lap, e).profile();
    int k = (int) Math.round(lap.road().ahead(p.from(), up.station()) / p.step());
    assertThat(over(lap, p, k + 1) || over(lap, p, k)).as("at %s", up.station()).isTrue();
    assertThat(up.gear()).isEqualTo(lap.limits().bestGear(p.speed()[k]) + 1);
  }

  private static boolean over(ComputedLap lap, CornerAnswer.Profile p, int k) {
    Limits limits = lap.limits();
    double v = p.speed()[k];
    int i = lap.road().index(lap.road().wrap(p.from() + k * p.step()));
    return limits.engineDrive(v) > limits.frontUp(limits.load(lap.path(), i, v * v));
  }

  private static @Nullable Double toNext(Choices.Compared compared, School school) {
    return compared.outcomes().stream()
        .filter(o -> o.school() == school)
        .findFirst()
        .map(Choices.Outcome::toNext)
        .orElse(null);
  }

  @Test
  void nobodyAsksForTheFrontWheelOfACar() {
    for (String vehicle : List.of("cup-gt", "single-seater")) {
      ComputedLap lap = Drives.computed(RandomRoads.of(401, 300), vehicle);
      assertThat(Drafter.draft(lap, List.of()).corners()).noneMatch(e -> arises(lap, e));
    }
  }

  /** A throttle that is full nowhere before the next braking is opened on, whatever is shifted. */
  @Test
  void aShiftDoesNotHoldTheFirstThrottle() {
    int corners = 0;
    for (long seed : new long[] {402, 403, 405}) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), "motorcycle-1000");
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        boolean opens =
            e.point(PointKind.FIRST_THROTTLE).isPresent()
                && e.point(PointKind.FULL_THROTTLE).isEmpty()
                && e.actions().isEmpty();
        if (!opens) {
          continue;
        }
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        CornerAnswer.Profile alone = answers.answer(e).profile();
        CornerAnswer.Profile played = answers.answer(answers.played(e)).profile();
        int last = Math.min(alone.speed().length, played.speed().length) - 1;
        assertThat(played.speed()[last])
            .as(e.corner())
            .isCloseTo(alone.speed()[last], within(0.12 * alone.speed()[last]));
        corners++;
      }
    }
    assertThat(corners).isPositive();
  }
}
