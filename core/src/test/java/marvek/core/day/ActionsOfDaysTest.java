package marvek.core.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import marvek.core.entry.BrakedAgain;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Variant;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Matching;
import marvek.core.survey.Things;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.ways.Choices;
import org.junit.jupiter.api.Test;

/** Actions on other days: moved as the day moves them, added, left out, and set by hand. */
class ActionsOfDaysTest {
  private static final Things NOTHING =
      new Things(List.of(), List.of(), List.of(), List.of(), List.of());

  private static final ComputedLap BASE = lap("cup-gt", 5504, 400);

  private static ComputedLap lap(String vehicle, long seed, double radius) {
    return Drives.computed(RandomRoads.of(seed, radius), vehicle);
  }

  private static Variant day(DayKind kind, Variant.ByHand... hands) {
    return new Variant("day", kind, "", kind.usual(), List.of(hands));
  }

  private static ComputedLap on(ComputedLap base, Variant day) {
    return Variants.computed(base, Footing.plain(List.of()), day.day());
  }

  @Test
  void aDraftOnAnotherDayIsTheDraftOfThatDay() {
    int actions = 0;
    for (String vehicle : List.of("cup-gt", "small-hatch", "motorcycle-1000")) {
      ComputedLap base = lap(vehicle, 5504, 400);
      for (DayKind kind : List.of(DayKind.WET, DayKind.COLD_TYRES, DayKind.FULL_TANK)) {
        Variant day = day(kind);
        ComputedLap then = on(base, day);
        for (CornerEntry own : Drafter.draft(base, List.of()).corners()) {
          Variants.Adjusted adjusted = Variants.adjust(base, then, day, own);
          CornerEntry wanted = Drafter.entry(then, then.indexOf(own.corner()));
          List<Action> is = adjusted.entry().actions();
          // Every drafted action of the day is there, to the metre, and none besides.
          assertThat(is.stream().map(Action::kind))
              .describedAs("%s on %s", own, kind)
              .containsExactlyInAnyOrderElementsOf(
                  wanted.actions().stream().map(Action::kind).toList());
          Matching same =
              Matching.of(
                  sorted(base, adjusted.entry()), sorted(base, wanted), base.road().length());
          for (Matching.Pair p : same.pairs()) {
            double apart = base.road().apart(p.first().station(), p.second().station());
            assertThat(Math.abs(apart)).isLessThan(1.01);
            Double one = p.first().amount();
            Double other = p.second().amount();
            assertThat(one == null).isEqualTo(other == null);
            if (one != null) {
              assertThat(Math.abs(one - other)).isLessThan(0.011);
            }
            actions++;
          }
        }
      }
    }
    assertThat(actions).isGreaterThan(30);
  }

  private static List<Action> sorted(ComputedLap lap, CornerEntry e) {
    return Score.of(lap.road(), e).stream().filter(a -> Score.point(a.id()).isEmpty()).toList();
  }

  @Test
  void whatTheDriverWroteIsKeptAndMovesWithTheDay() {
    Variant wet = day(DayKind.WET);
    ComputedLap then = on(BASE, wet);
    int kept = 0;
    for (CornerEntry own : Drafter.draft(BASE, List.of()).corners()) {
      double apex = own.station(PointKind.APEX).orElseThrow();
      Action look = Action.of("mine", ActionKind.EYES, BASE.road().wrap(apex - 30), null);
      CornerEntry written = own.copy().actions(with(own.actions(), look)).done();
      CornerEntry is = Variants.adjust(BASE, then, wet, written).entry();
      double moved = BASE.road().apart(apex, is.station(PointKind.APEX).orElseThrow());
      Action there =
          is.actions().stream().filter(a -> a.id().equals("mine")).findFirst().orElseThrow();
      assertThat(BASE.road().apart(look.station(), there.station()))
          .isBetween(moved - 0.6, moved + 0.6);
      kept++;
    }
    assertThat(kept).isPositive();
  }

  private static List<Action> with(List<Action> actions, Action more) {
    List<Action> out = new ArrayList<>(actions);
    out.add(more);
    return out;
  }

  @Test
  void aDayHoldsWhatIsDoneOtherwiseBesidesAndNotAtAll() {
    Variant damp = day(DayKind.DAMP);
    ComputedLap then = on(BASE, damp);
    int tried = 0;
    for (CornerEntry draft : Drafter.draft(BASE, List.of()).corners()) {
      double apex = draft.station(PointKind.APEX).orElseThrow();
      List<Action> mine = new ArrayList<>(draft.actions());
      mine.add(Action.of("look", ActionKind.EYES, BASE.road().wrap(apex - 40), null));
      mine.add(Action.of("half", ActionKind.THROTTLE, BASE.road().wrap(apex + 9), 0.5));
      CornerEntry own = draft.copy().actions(mine).done();
      CornerEntry proposed = Variants.adjust(BASE, then, damp, own).proposed();
      Action more =
          Action.of("dab", ActionKind.BRAKE, own.station(PointKind.APEX).orElseThrow(), 0.1);
      List<Action> actions = new ArrayList<>(proposed.actions());
      actions.add(more);
      String gone = null;
      String changed = null;
      if (proposed.actions().size() > 1) {
        gone = actions.remove(0).id();
        Action other = actions.remove(0);
        changed = other.id();
        actions.add(other.at(BASE.road().wrap(other.station() + 7)));
      }
      CornerEntry edited = proposed.copy().actions(actions).firstThrottle(0.33).done();
      Optional<Variant.ByHand> hand = Variants.byHand(BASE.road().length(), proposed, edited);
      assertThat(hand).isPresent();
      Variants.Adjusted again = Variants.adjust(BASE, then, day(DayKind.DAMP, hand.get()), own);
      assertThat(again.entry().actions()).containsExactlyInAnyOrderElementsOf(edited.actions());
      assertThat(again.entry().firstThrottle()).isEqualTo(0.33);
      assertThat(again.changes()).anyMatch(a -> "dab".equals(a.action()) && a.byHand());
      if (gone != null) {
        String left = gone;
        String moved = changed;
        assertThat(hand.get().without()).containsExactly(left);
        assertThat(again.changes()).anyMatch(a -> left.equals(a.action()) && a.byHand());
        assertThat(again.changes()).anyMatch(a -> moved.equals(a.action()) && a.byHand());
        tried++;
      }
      // Set by hand for this day only: the base knows nothing of it.
      assertThat(Answers.answer(BASE, own).score()).noneMatch(s -> s.action().id().equals("dab"));
    }
    assertThat(tried).isPositive();
    CornerEntry first = Drafter.entry(BASE, 0);
    CornerEntry still = Variants.adjust(BASE, then, damp, first).proposed();
    assertThat(Variants.byHand(BASE.road().length(), still, still)).isEmpty();
  }

  @Test
  void aDayHoldsWaysOfItsOwnAndDrivesThem() {
    Variant wet = day(DayKind.WET);
    ComputedLap then = on(BASE, wet);
    Set<Question> tried = new LinkedHashSet<>();
    for (CornerEntry own : Drafter.draft(BASE, List.of()).corners()) {
      CornerEntry proposed = Variants.adjust(BASE, then, wet, own).proposed();
      for (Question q : Choices.arising(then, NOTHING, proposed)) {
        School way = School.answering(q).get(School.answering(q).size() - 1);
        List<CornerEntry> taken =
            q == Question.LINKED || q == Question.LIGHT || tried.contains(q)
                ? List.of()
                : Choices.choose(then, NOTHING, List.of(proposed), own.corner(), way);
        if (taken.isEmpty()) {
          continue;
        }
        CornerEntry edited = taken.get(0);
        Variant.ByHand hand = Variants.byHand(BASE.road().length(), proposed, edited).orElseThrow();
        Variants.Adjusted again = Variants.adjust(BASE, then, day(DayKind.WET, hand), own);
        assertThat(again.entry().schools()).as("%s", q).isEqualTo(edited.schools()).contains(way);
        assertThat(again.entry().pedals()).isEqualTo(edited.pedals());
        assertThat(again.entry().apexOff()).isEqualTo(edited.apexOff());
        assertThat(again.changes()).as("%s", way).anyMatch(Variants.Adjustment::byHand);
        CornerAnswer asked = Answers.answer(then, edited);
        CornerAnswer driven = Answers.answer(then, again.entry());
        assertThat(driven.reached().minimumSpeed())
            .as("%s in %s", way, own.corner())
            .isCloseTo(asked.reached().minimumSpeed(), within(0.3));
        assertThat(own.schools()).isEmpty();
        tried.add(q);
      }
    }
    assertThat(tried).hasSizeGreaterThan(4);
    // A day without ways of its own has those that the reference comes to have.
    CornerEntry first = Drafter.entry(BASE, 0).copy().schools(List.of(School.LATE_APEX)).done();
    assertThat(Variants.adjust(BASE, then, wet, first).entry().schools())
        .containsExactly(School.LATE_APEX);
  }

  @Test
  void anotherAmountAloneIsHeldForTheDay() {
    Variant damp = day(DayKind.DAMP);
    ComputedLap then = on(BASE, damp);
    int tried = 0;
    for (CornerEntry own : Drafter.draft(BASE, List.of()).corners()) {
      CornerEntry proposed = Variants.adjust(BASE, then, damp, own).proposed();
      for (Action a : proposed.actions()) {
        Double share = a.amount();
        if (share == null || share > 0.8) {
          continue;
        }
        List<Action> actions = new ArrayList<>(proposed.actions());
        actions.remove(a);
        actions.add(a.amounting(share + 0.1));
        CornerEntry edited = proposed.copy().actions(actions).done();
        Variant.ByHand hand = Variants.byHand(BASE.road().length(), proposed, edited).orElseThrow();
        Variants.Adjusted again = Variants.adjust(BASE, then, day(DayKind.DAMP, hand), own);
        assertThat(again.entry().actions()).containsExactlyInAnyOrderElementsOf(edited.actions());
        assertThat(again.changes()).anyMatch(c -> a.id().equals(c.action()) && c.byHand());
        tried++;
      }
    }
    assertThat(tried).isPositive();
  }

  @Test
  void whatIsNotedOfAnActionForADayIsKept() {
    Variant damp = day(DayKind.DAMP);
    ComputedLap then = on(BASE, damp);
    CornerEntry own =
        Drafter.entry(BASE, 0)
            .copy()
            .actions(List.of(Action.of("look", ActionKind.EYES, 50, null)))
            .done();
    CornerEntry proposed = Variants.adjust(BASE, then, damp, own).proposed();
    List<Action> noted =
        proposed.actions().stream()
            .map(a -> ActionBuilder.builder(a).note("the puddle").build())
            .toList();
    Variant.ByHand hand =
        Variants.byHand(BASE.road().length(), proposed, proposed.copy().actions(noted).done())
            .orElseThrow();
    CornerEntry again = Variants.adjust(BASE, then, day(DayKind.DAMP, hand), own).entry();
    assertThat(again.actions()).anyMatch(a -> a.note().equals("the puddle"));
  }

  /** An entry of before had a remark where a draft now writes: the braking is written then. */
  @Test
  void aFurtherBrakingOfWhichThereWasARemarkIsWritten() {
    int written = 0;
    for (long seed = 70; seed < 75; seed++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 230), "downforce-prototype");
      for (int c = 0; c < lap.corners().size(); c++) {
        CornerEntry draft = Drafter.entry(lap, c);
        List<Action> brakings =
            draft.actions().stream().filter(a -> a.kind() == ActionKind.BRAKE).toList();
        if (brakings.isEmpty()) {
          continue;
        }
        CornerEntry old =
            draft
                .copy()
                .actions(List.of())
                .again(List.of(new BrakedAgain(brakings.get(0).station(), 50, 40)))
                .done();
        CornerEntry carried = Carried.entry(lap.road(), old, draft, draft, 1, 6, null);
        assertThat(carried.actions())
            .filteredOn(a -> a.kind() == ActionKind.BRAKE)
            .hasSameSizeAs(brakings);
        // Whoever has taken it out, with no remark left, keeps it out.
        CornerEntry without = draft.copy().actions(List.of()).again(List.of()).done();
        assertThat(Carried.entry(lap.road(), without, draft, draft, 1, 6, null).actions())
            .isEmpty();
        written++;
      }
    }
    assertThat(written).isPositive();
  }

  @Test
  void aLiftThatTheDayLetsKeepMoreKeepsNoMoreThanThereIs() {
    CornerEntry draft = Drafter.entry(BASE, 0);
    Action lift = Action.of("lift", ActionKind.LIFT, 100, 0.3);
    CornerEntry was = draft.copy().actions(List.of(lift)).done();
    CornerEntry is = draft.copy().actions(List.of(lift.amounting(0.9))).done();
    CornerEntry own = draft.copy().actions(List.of(lift.amounting(0.6))).done();
    Action carried = Carried.entry(BASE.road(), own, was, is, 1, 6, null).actions().get(0);
    assertThat(carried.amount()).isEqualTo(0.95);
  }
}
