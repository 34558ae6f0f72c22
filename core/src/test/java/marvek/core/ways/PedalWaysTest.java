package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Ways with the pedals, on roads and vehicles that nothing was tuned to. */
@Tag("slow")
class PedalWaysTest {
  private static final MarkerJudge.View PLAIN = new MarkerJudge.View(null, null, false, 1);
  private static final double SAME = 0.004;
  private static final List<ComputedLap> LAPS = new ArrayList<>();

  @BeforeAll
  static void roads() {
    String[] vehicles = {"cup-gt", "downforce-prototype", "motorcycle-1000", "small-hatch"};
    for (int k = 0; k < 6; k++) {
      LAPS.add(Drives.computed(RandomRoads.of(940 + k, 210 + 30 * k), vehicles[k % 4]));
    }
  }

  private record Asked(ComputedLap lap, CornerEntry entry, Choices.Compared compared) {
    Optional<CornerEntry> as(School school) {
      return Choices.choose(lap, Things.none(), List.of(entry), entry.corner(), school).stream()
          .findFirst();
    }

    Choices.@org.jspecify.annotations.Nullable Outcome outcome(School school) {
      return compared.outcomes().stream()
          .filter(o -> o.school() == school)
          .findFirst()
          .orElse(null);
    }

    CornerAnswer answer(CornerEntry e) {
      return Answers.answer(lap, Things.none(), e);
    }

    double way(double from, double to) {
      return lap.road().apart(from, to);
    }
  }

  private static List<Asked> asked(Question question) {
    List<Asked> out = new ArrayList<>();
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (Choices.arising(lap, Things.none(), e).contains(question)) {
          out.add(new Asked(lap, e, Choices.compare(lap, Things.none(), e, question, PLAIN)));
        }
      }
    }
    assertThat(out).as("corners that ask for %s", question).hasSizeGreaterThan(4);
    return out;
  }

  private static double at(CornerEntry e, PointKind kind) {
    return e.station(kind).orElseThrow();
  }

  /** A little left at turn-in is less than a lot, each is driven with its margin. */
  @Test
  void aLightTrailLeavesLessAtTurnInThanAHeavyOne() {
    int both = 0;
    for (Asked a : asked(Question.TRAIL)) {
      CornerEntry light = a.as(School.LIGHT_TRAIL).orElseThrow();
      CornerEntry heavy = a.as(School.HEAVY_TRAIL).orElseThrow();
      Choices.Outcome l = Objects.requireNonNull(a.outcome(School.LIGHT_TRAIL));
      Choices.Outcome h = Objects.requireNonNull(a.outcome(School.HEAVY_TRAIL));
      if (l.toNext() == null || h.toNext() == null) {
        continue;
      }
      assertThat(left(a, light)).as(a.entry().corner()).isLessThan(left(a, heavy));
      assertThat(l.marginSeconds()).isGreaterThan(0.8 * a.compared().now().marginSeconds());
      assertThat(h.marginSeconds()).isGreaterThan(0.8 * a.compared().now().marginSeconds());
      both++;
    }
    assertThat(both).isGreaterThan(10);
  }

  /** Where there is no room for the margin the marker stays on the corner's own road, untimed. */
  @Test
  void noMarkerStandsInTheCornerBefore() {
    int scarce = 0;
    for (Asked a : asked(Question.TRAIL)) {
      int c = a.lap().indexOf(a.entry().corner());
      Answers answers = Answers.at(a.lap(), Things.none(), c);
      double begins = answers.sooner(at(a.entry(), PointKind.APEX), 1000);
      double now = a.compared().now().marginSeconds();
      for (School school : List.of(School.LIGHT_TRAIL, School.HEAVY_TRAIL)) {
        CornerEntry e = a.as(school).orElseThrow();
        Choices.Outcome o = Objects.requireNonNull(a.outcome(school));
        assertThat(a.way(begins, at(e, PointKind.BRAKE))).as(e.corner()).isGreaterThan(-0.3);
        boolean enough = o.marginSeconds() >= Math.min(0.8 * now, now - 0.02);
        assertThat(enough || o.toNext() == null && o.cornerTime() == null).isTrue();
        scarce += !enough && a.way(begins, at(e, PointKind.BRAKE)) < 2 ? 1 : 0;
      }
    }
    assertThat(scarce).isPositive();
  }

  /** Share of its peak that a shape has left where the hands move. */
  private static double left(Asked a, CornerEntry e) {
    Pedals shape = Objects.requireNonNull(e.pedals());
    double brake = at(e, PointKind.BRAKE);
    return shape.brake(
        a.way(brake, at(e, PointKind.TURN_IN)),
        a.way(brake, at(e, PointKind.TURN_IN)),
        a.way(brake, at(e, PointKind.RELEASE)));
  }

  /** Off before the hands move is off there, and begins sooner than what is held into the turn. */
  @Test
  void brakingStraightIsOverAtTurnIn() {
    int sooner = 0;
    int seen = 0;
    for (Asked a : asked(Question.RELEASE)) {
      Optional<CornerEntry> straight = a.as(School.STRAIGHT);
      Optional<CornerEntry> held = a.as(School.TO_APEX);
      if (a.way(at(a.entry(), PointKind.BRAKE), at(a.entry(), PointKind.TURN_IN)) < 10) {
        assertThat(straight).as("%s is braked for in the turn alone", a.entry().corner()).isEmpty();
      }
      if (straight.isEmpty() || held.isEmpty()) {
        continue;
      }
      double off = at(straight.get(), PointKind.RELEASE);
      assertThat(a.way(at(straight.get(), PointKind.TURN_IN), off)).isBetween(-0.5, 0.5);
      sooner +=
          a.way(at(straight.get(), PointKind.BRAKE), at(held.get(), PointKind.BRAKE)) > 0 ? 1 : 0;
      seen++;
    }
    assertThat(seen).isGreaterThan(10);
    assertThat(sooner).isGreaterThan(2 * seen / 3);
  }

  /** Rolling leaves both pedals alone for half a second, never rolling for no moment. */
  @Test
  void whoeverNeverRollsHoldsALittleThrottleFromTheReleaseOn() {
    int quicker = 0;
    for (Asked a : asked(Question.ROLL)) {
      CornerEntry rolled = a.as(School.COAST).orElseThrow();
      CornerEntry held = a.as(School.NEVER_COAST).orElseThrow();
      double way = a.way(at(rolled, PointKind.RELEASE), at(rolled, PointKind.FIRST_THROTTLE));
      assertThat(way).as(a.entry().corner()).isGreaterThan(0.5 * a.entry().minimumSpeed() - 0.1);
      assertThat(a.way(at(held, PointKind.RELEASE), at(held, PointKind.FIRST_THROTTLE)))
          .as(a.entry().corner())
          .isBetween(0.0, 4.0);
      assertThat(held.firstThrottle()).isLessThan(0.151);
      Choices.Outcome h = Objects.requireNonNull(a.outcome(School.NEVER_COAST));
      Choices.Outcome r = Objects.requireNonNull(a.outcome(School.COAST));
      quicker += h.toNext() != null && r.toNext() != null && h.toNext() < r.toNext() ? 1 : 0;
      // From the one to the other and back: nothing of the first is left behind.
      CornerEntry again =
          Choices.choose(a.lap(), Things.none(), List.of(held), held.corner(), School.COAST).get(0);
      assertThat(again.actions().stream().map(Action::id))
          .containsExactlyInAnyOrderElementsOf(rolled.actions().stream().map(Action::id).toList());
    }
    assertThat(quicker).isPositive();
  }

  /** Keeping some is never slower than letting go of all, and both are made. */
  @Test
  void keepingSomeOfTheThrottleIsNeverSlower() {
    int lost = 0;
    for (Asked a : asked(Question.LIFT)) {
      CornerEntry all = a.as(School.LIFT_ALL).orElseThrow();
      CornerEntry some = a.as(School.LIFT_SOME).orElseThrow();
      assertThat(amount(all)).isZero();
      assertThat(amount(some)).isBetween(0.1, 0.9);
      Double without = a.answer(all).time();
      Double with = a.answer(some).time();
      assertThat(with).as(a.entry().corner()).isNotNull();
      assertThat(without).as(a.entry().corner()).isNotNull();
      assertThat(with).isLessThan(without + SAME);
      lost += without > with + 0.02 ? 1 : 0;
    }
    assertThat(lost).isPositive();
  }

  /** All at once waits until all of it is borne; a squeeze begins sooner and is seldom slower. */
  @Test
  void theThrottleIsOpenedNoSoonerThanItIsBorne() {
    int both = 0;
    int quicker = 0;
    for (Asked a : asked(Question.THROTTLE)) {
      Optional<CornerEntry> once = a.as(School.AT_ONCE);
      Optional<CornerEntry> squeezed = a.as(School.SQUEEZED);
      if (once.isEmpty() || squeezed.isEmpty()) {
        continue;
      }
      Answers answers = Answers.at(a.lap(), Things.none(), a.lap().indexOf(a.entry().corner()));
      double bears = Math.max(1.03, Math.min(1.25, answers.pushes(a.entry())));
      for (CornerEntry e : List.of(once.get(), squeezed.get())) {
        assertThat(answers.makes(e)).as(e.corner()).isTrue();
        assertThat(answers.pushes(e)).as(e.corner()).isLessThan(bears + 1e-9);
        assertThat(a.way(at(e, PointKind.RELEASE), at(e, PointKind.FIRST_THROTTLE)))
            .isGreaterThan(1.9);
      }
      double first = at(once.get(), PointKind.FIRST_THROTTLE);
      assertThat(a.way(first, at(once.get(), PointKind.FULL_THROTTLE))).isLessThan(4.51);
      // A metre sooner more is asked for than there is, or there is no room for it.
      CornerEntry sooner =
          once.get()
              .copy()
              .moved(PointKind.FIRST_THROTTLE, a.lap().road().wrap(first - 1))
              .moved(
                  PointKind.FULL_THROTTLE,
                  a.lap().road().wrap(at(once.get(), PointKind.FULL_THROTTLE) - 1))
              .done();
      assertThat(
              a.way(at(a.entry(), PointKind.RELEASE), first) < 3.1
                  || answers.pushes(sooner) > bears
                  || !answers.makes(sooner))
          .as(a.entry().corner())
          .isTrue();
      assertThat(a.way(at(squeezed.get(), PointKind.FIRST_THROTTLE), first)).isGreaterThan(-0.1);
      Double o = a.answer(once.get()).time();
      Double s = a.answer(squeezed.get()).time();
      assertThat(o).isNotNull();
      assertThat(s).as(a.entry().corner()).isNotNull().isLessThan(o + 0.03);
      quicker += s < o - 0.02 ? 1 : 0;
      both++;
    }
    assertThat(both).isGreaterThan(8);
    assertThat(quicker).isGreaterThan(both / 2);
  }

  /** Without the brake it is let go sooner than it was braked, made, and slower; and back again. */
  @Test
  void whoeverSparesTheBrakeLiftsSooner() {
    int seen = 0;
    for (Asked a : asked(Question.SLOW_WITH)) {
      assertThat(a.entry().firstEffort()).isLessThan(0.56);
      CornerEntry lifted = a.as(School.NO_BRAKE).orElseThrow();
      assertThat(lifted.slowing()).isEqualTo(Slowing.LIFT);
      assertThat(lifted.point(PointKind.BRAKE)).isEmpty();
      assertThat(lifted.actions()).noneMatch(x -> x.kind() == ActionKind.BRAKE);
      assertThat(amount(lifted)).isZero();
      Answers answers = Answers.at(a.lap(), Things.none(), a.lap().indexOf(a.entry().corner()));
      assertThat(answers.makes(lifted)).as(lifted.corner()).isTrue();
      Action lift =
          lifted.actions().stream()
              .filter(x -> x.kind() == ActionKind.LIFT)
              .findFirst()
              .orElseThrow();
      assertThat(a.way(lift.station(), at(a.entry(), PointKind.BRAKE))).isGreaterThan(0);
      double last = 2 * a.entry().approachSpeed();
      CornerEntry later =
          lifted
              .copy()
              .actions(
                  lifted.actions().stream()
                      .map(x -> x == lift ? x.at(a.lap().road().wrap(x.station() + last)) : x)
                      .toList())
              .done();
      assertThat(answers.makes(later)).as("two seconds later at %s", lifted.corner()).isFalse();
      assertThat(a.answer(lifted).time())
          .isGreaterThan(Objects.requireNonNull(a.compared().now().toNext()));
      CornerEntry again =
          Choices.choose(a.lap(), Things.none(), List.of(lifted), lifted.corner(), School.BRAKED)
              .get(0);
      assertThat(again.slowing()).isEqualTo(Slowing.BRAKE);
      assertThat(again.actions()).noneMatch(x -> x.kind() == ActionKind.LIFT);
      assertThat(a.way(at(a.entry(), PointKind.BRAKE), at(again, PointKind.BRAKE)))
          .as(again.corner())
          .isBetween(-6.0, 6.0);
      assertThat(answers.makes(again)).isTrue();
      seen++;
    }
    assertThat(seen).isGreaterThan(4);
  }

  /** A way chosen for a session may meet a corner that is braked for on its day, or no more. */
  @Test
  void aWayThatDoesNotAriseLeadsToNothing() {
    int seen = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        List<Question> arise = Choices.arising(lap, Things.none(), e);
        for (Question q :
            List.of(
                Question.TRAIL,
                Question.ROLL,
                Question.LIFT,
                Question.SLOW_WITH,
                Question.THROTTLE)) {
          for (School school : arise.contains(q) ? List.<School>of() : School.answering(q)) {
            if (school == School.BRAKED && e.slowing() == Slowing.BRAKE) {
              // There it is done so already.
              continue;
            }
            assertThat(Choices.choose(lap, Things.none(), List.of(e), e.corner(), school))
                .as("%s of %s", school, e.corner())
                .isEmpty();
            seen++;
          }
        }
      }
    }
    assertThat(seen).isGreaterThan(50);
  }

  /** No way is compared that has not about the margin of the plan, whatever its shape. */
  @Test
  void whatIsComparedHasTheMarginOfThePlan() {
    int seen = 0;
    for (Question question :
        List.of(
            Question.BRAKE_SHAPE,
            Question.RELEASE,
            Question.TRAIL,
            Question.ROLL,
            Question.THROTTLE)) {
      for (Asked a : asked(question)) {
        for (Choices.Outcome o : a.compared().outcomes()) {
          if (o.toNext() != null) {
            assertThat(o.marginSeconds())
                .as("%s of %s", o.school(), a.entry().corner())
                .isGreaterThan(0.8 * a.compared().now().marginSeconds() - 0.021);
            seen++;
          }
        }
      }
    }
    assertThat(seen).isGreaterThan(100);
  }

  private static double amount(CornerEntry e) {
    return e.actions().stream()
        .filter(x -> x.kind() == ActionKind.LIFT)
        .map(x -> Objects.requireNonNull(x.amount()))
        .findFirst()
        .orElseThrow();
  }
}
