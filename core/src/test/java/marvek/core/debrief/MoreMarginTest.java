package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Mistake;
import marvek.core.logger.Plan;
import marvek.core.logger.Planted;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Who keeps braking past the last place is proposed more margin, on roads made by chance. */
@Tag("slow")
class MoreMarginTest {
  private static final int LAPS = 8;

  private static List<LapData> laps(
      ComputedLap lap, List<CornerEntry> plan, List<Planted> mistakes, long seed) {
    Plan as = new Plan(lap, plan, mistakes, LAPS, 1, 1, 0, true);
    return Drives.read(as, seed).stream().map(l -> Drives.data(l, lap)).toList();
  }

  private static double margin(ComputedLap lap, CornerEntry e) {
    return Objects.requireNonNull(Answers.answer(lap, Things.none(), e).braking()).marginMetres();
  }

  private static double last(double[] sorted) {
    return sorted[sorted.length - 1] - sorted[sorted.length - 2];
  }

  private static boolean asksForMargin(Proposal p) {
    return p.change() && Plain.words(p.reason()).contains("Take more margin");
  }

  @Test
  void whoKeepsBrakingPastTheLastPlaceTakesMoreMargin() {
    int sooner = 0;
    int enough = 0;
    for (String vehicle : List.of("small-hatch", "cup-gt", "motorcycle-600")) {
      for (long seed = 640; seed < 642; seed++) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
        List<CornerEntry> plan = Drafter.draft(lap, List.of()).corners();
        List<CornerEntry> braked =
            plan.stream().filter(e -> e.slowing() == Slowing.BRAKE).limit(5).toList();
        List<Planted> deep = new ArrayList<>();
        for (int k = 0; k < braked.size(); k += 2) {
          deep.add(
              new Planted(
                  Mistake.BRAKES_LATE_RUNS_DEEP, braked.get(k).corner(), k == 0 ? 2 : 1, 1));
        }
        List<LapData> driven = laps(lap, plan, deep, seed);
        Debrief debrief = Debriefer.read(lap, plan, driven);
        List<Proposal> all = Proposals.of(lap, Things.none(), plan, driven, 5);
        for (CornerEntry e : braked) {
          Proposal p =
              all.stream()
                  .filter(
                      x ->
                          x.corner().equals(e.corner())
                              && x.action().equals(Score.id(PointKind.BRAKE)))
                  .findFirst()
                  .orElseThrow();
          double margin = margin(lap, e);
          double[] late = p.off().stream().mapToDouble(Double::doubleValue).sorted().toArray();
          boolean habit =
              debrief.corners().get(lap.indexOf(e.corner())).habits().stream()
                  .anyMatch(h -> h.cause().equals("BRAKED_LATE_RAN_DEEP"));
          if (!asksForMargin(p)) {
            boolean held = late.length < 5 || late[late.length - 3] <= margin;
            assertThat(!habit || held).as(e.corner() + " on " + seed).isTrue();
            continue;
          }
          assertThat(habit).as(e.corner() + " on " + seed).isTrue();
          assertThat(deep.stream().map(Planted::corner)).contains(e.corner());
          double by = lap.road().apart(p.from(), p.to());
          assertThat(by).isBetween(-5.0, -0.5);
          assertThat(late[late.length - 3]).isGreaterThan(margin);
          // With as much lateness as ever 95 of 100 lie before the last place then, or it is one
          // step.
          double nearly = late[late.length - 1] - 0.05 * (late.length - 1) * last(late);
          assertThat(-by).isLessThan(nearly - margin + 0.5);
          boolean limited = Plain.words(p.limitedBy()).contains("one step");
          double left = margin(lap, e.copy().moved(PointKind.BRAKE, p.to()).done());
          if (limited) {
            assertThat(by).isCloseTo(-5, within(1e-6));
            assertThat(left).isLessThan(nearly + 0.3);
          } else {
            assertThat(left).isBetween(nearly - 0.3, nearly + 0.8);
          }
          enough += limited ? 0 : 1;
          sooner++;
          List<Proposal> changed =
              all.stream().filter(x -> x.corner().equals(e.corner()) && x.change()).toList();
          assertThat(changed).containsExactly(p);
        }
        long asked = all.stream().filter(MoreMarginTest::asksForMargin).count();
        assertThat(all.stream().limit(asked)).allMatch(MoreMarginTest::asksForMargin);
      }
    }
    assertThat(sooner).isGreaterThan(4);
    assertThat(enough).isGreaterThan(2);
  }
}
