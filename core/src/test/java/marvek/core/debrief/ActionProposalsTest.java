package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Slowing;
import marvek.core.entry.Step;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.RandomScores;
import marvek.core.logger.Deviation;
import marvek.core.logger.Plan;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.plan.ScoredAction;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Test;

/** Proposals for written actions, from laps that did them otherwise each time. */
class ActionProposalsTest {
  private static List<LapData> driven(
      ComputedLap lap, List<CornerEntry> plan, String corner, Action a, boolean share, long seed) {
    Random chance = new Random(seed);
    List<LapData> out = new ArrayList<>();
    for (int k = 0; k < 10; k++) {
      double by = (share ? 0.15 : 8) * (2 * chance.nextDouble() - 1);
      Deviation d = share ? Deviation.more(corner, a.id(), by) : Deviation.late(corner, a.id(), by);
      Plan as = new Plan(lap, plan, List.of(), 1, 0.4, 1, 0, true).deviating(List.of(d), List.of());
      int number = k + 1;
      Drives.read(as, seed + k).stream()
          .map(l -> Drives.data(l, lap))
          .map(
              l ->
                  new LapData(
                      "lap" + number,
                      "run",
                      number,
                      l.lapTime(),
                      l.step(),
                      l.times(),
                      l.events(),
                      l.told(),
                      l.sketch()))
          .forEach(out::add);
    }
    return out;
  }

  /** The same laps, a hundredth quicker after the lift for each metre that it came later. */
  private static List<LapData> quickerLater(List<LapData> laps, Action lift) {
    Random chance = new Random(7);
    double[] usual = laps.get(0).times();
    List<LapData> out = new ArrayList<>();
    for (LapData l : laps) {
      double late = 8 * (2 * chance.nextDouble() - 1);
      double[] times = usual.clone();
      for (int i = (int) (lift.station() / l.step()) + 2; i < times.length; i++) {
        times[i] -= 0.01 * late;
      }
      out.add(
          new LapData(
              l.id(),
              l.run(),
              l.number(),
              times[times.length - 1],
              l.step(),
              times,
              l.events(),
              l.told(),
              l.sketch()));
    }
    return out;
  }

  private record Lifted(ComputedLap lap, List<CornerEntry> plan, CornerEntry entry, Action lift) {
    Optional<Proposal> proposed(boolean share, long seed) {
      List<LapData> laps = driven(lap, plan, entry.corner(), lift, share, seed);
      // What a promise is followed by is what the proposal rests on.
      assertThat(Debriefer.driven(lap, plan, laps, entry.corner(), lift.id(), share))
          .hasSizeGreaterThanOrEqualTo(8)
          .allSatisfy(
              at ->
                  assertThat(
                          share
                              ? at - Objects.requireNonNull(lift.amount())
                              : lap.road().apart(lift.station(), at))
                      .isBetween(share ? -0.3 : -15.0, share ? 0.3 : 15.0));
      return Proposals.of(lap, Things.none(), plan, laps, 5).stream()
          .filter(p -> p.corner().equals(entry.corner()) && p.action().equals(lift.id()))
          .filter(p -> p.share() == share)
          .findFirst();
    }

    double by(Proposal p) {
      return p.share() ? p.to() - p.from() : lap.road().apart(p.from(), p.to());
    }
  }

  /** Lifts before a braking that are written by chance, or drafted ones that are all there is. */
  private static List<Lifted> lifted(boolean before, long... seeds) {
    List<Lifted> out = new ArrayList<>();
    for (String vehicle : List.of("cup-gt", before ? "small-hatch" : "single-seater")) {
      for (long seed : seeds) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
        List<CornerEntry> plan =
            before ? RandomScores.of(lap, seed) : Drafter.draft(lap, List.of()).corners();
        for (CornerEntry e : plan) {
          e.actions().stream()
              .filter(a -> a.kind() == ActionKind.LIFT)
              .filter(a -> before == a.id().equals("own-lift"))
              .filter(a -> before || e.slowing() == Slowing.LIFT)
              .forEach(a -> out.add(new Lifted(lap, plan, e, a)));
        }
      }
    }
    return out;
  }

  /** Whether the corner is made, and throttle and turn ask for no more than before or there is. */
  private static boolean holds(Lifted l, Step step) {
    double was = asked(Answers.answer(l.lap(), Things.none(), l.entry()));
    CornerAnswer then = Answers.answer(l.lap(), Things.none(), step.in(l.lap().road(), l.entry()));
    return then.score().stream().allMatch(ScoredAction::made)
        && asked(then) <= Math.max(1.02, was) + 1e-9;
  }

  private static double asked(CornerAnswer answer) {
    return answer.score().stream()
        .filter(s -> s.before() != null)
        .mapToDouble(s -> Math.max(s.asked(), s.before()))
        .max()
        .orElse(0);
  }

  @Test
  void aLiftThatWasQuickerLaterOrLighterIsProposedAsFarAsTheCornerIsMade() {
    int right = 0;
    int wrong = 0;
    for (Lifted l : lifted(true, 51, 52, 53, 54, 55)) {
      for (boolean share : new boolean[] {false, true}) {
        Proposal p = l.proposed(share, 7).orElseThrow();
        assertThat(p.laps()).isGreaterThanOrEqualTo(8);
        if (!p.change()) {
          continue;
        }
        // All that a lift before a braking can give is given by less of it.
        right += l.by(p) > 0 ? 1 : 0;
        wrong += l.by(p) < 0 ? 1 : 0;
        assertThat(Math.abs(l.by(p))).isLessThanOrEqualTo(share ? 0.1 + 1e-9 : 5 + 1e-9);
        Step step = new Step(p.action(), share, p.to());
        if (l.by(p) > 0) {
          assertThat(holds(l, step)).as("%s", p).isTrue();
        }
      }
    }
    assertThat(right).isGreaterThanOrEqualTo(5);
    assertThat(wrong).isLessThanOrEqualTo(1);
  }

  @Test
  void aLiftThatLeavesNothingInHandIsNotMovedLaterHoweverQuickThatWas() {
    int refused = 0;
    int held = 0;
    for (Lifted l : lifted(false, 41, 42, 43, 44, 45, 46)) {
      // As late and as light as it is still made with.
      double made = 0;
      double missed = 60;
      for (int k = 0; k < 12; k++) {
        double half = (made + missed) / 2;
        Step to = new Step(l.lift().id(), false, l.lift().station() + half);
        boolean makes = holds(l, to);
        made = makes ? half : made;
        missed = makes ? missed : half;
      }
      if (made < 1 || made > 40) {
        continue;
      }
      Proposal p = quickerLaterFrom(l, made - 0.5);
      assertThat(p.change() && l.by(p) > 0).as("%s", p).isFalse();
      refused += Plain.words(p.reason()).contains("no margin") ? 1 : 0;
      // With a little in hand it is moved by that and no more.
      Proposal some = quickerLaterFrom(l, made - IN_HAND);
      if (some.change() && l.by(some) > 0) {
        assertThat(l.by(some)).as("%s", some).isLessThan(IN_HAND + 0.5);
        held += Plain.words(some.limitedBy()).contains("still be made") ? 1 : 0;
      }
    }
    assertThat(refused).isGreaterThanOrEqualTo(2);
    assertThat(held).isGreaterThanOrEqualTo(2);
  }

  private static final double IN_HAND = 3;

  /** What laps propose that were the quicker the later they lifted, for a lift so much later. */
  private static Proposal quickerLaterFrom(Lifted l, double later) {
    CornerEntry last =
        new Step(l.lift().id(), false, l.lift().station() + later).in(l.lap().road(), l.entry());
    List<CornerEntry> plan =
        l.plan().stream().map(e -> e.corner().equals(last.corner()) ? last : e).toList();
    Action lift =
        last.actions().stream().filter(a -> a.id().equals(l.lift().id())).findFirst().orElseThrow();
    List<LapData> laps = quickerLater(driven(l.lap(), plan, last.corner(), lift, false, 7), lift);
    return Proposals.of(l.lap(), Things.none(), plan, laps, 5).stream()
        .filter(x -> x.corner().equals(last.corner()) && x.action().equals(lift.id()))
        .filter(x -> !x.share())
        .findFirst()
        .orElseThrow();
  }
}
