package marvek.core.debrief.habits;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.RandomScores;
import marvek.core.logger.Deviation;
import marvek.core.logger.Plan;
import marvek.core.plan.ComputedLap;
import marvek.core.score.Action;
import org.junit.jupiter.api.Test;

/** Mistakes planted in each kind of action, on roads and scores made by chance. */
class ActionHabitsTest {
  private static final Set<String> OF_ACTIONS =
      Set.of(
          "LIFTED_MORE",
          "LIFTED_EARLY",
          "LIFT_HELD",
          "LIFTED_UNWRITTEN",
          "PRESSED_AGAIN_EARLY",
          "PRESSED_AGAIN_HARD",
          "EASED_LATE",
          "STAGE_BEHIND",
          "STAGE_LATE",
          "SHIFTED_ELSEWHERE");

  private record Case(ComputedLap lap, List<CornerEntry> plan, long seed) {
    Debrief drive(Deviation... otherwise) {
      Plan as =
          new Plan(lap, plan, List.of(), 4, 1.5, 1, 0, true)
              .deviating(List.of(otherwise), List.of());
      List<LapData> laps = Drives.read(as, seed).stream().map(l -> Drives.data(l, lap)).toList();
      return Debriefer.read(lap, plan, laps);
    }
  }

  private static List<Case> cases(long... seeds) {
    List<Case> out = new ArrayList<>();
    for (String vehicle : List.of("small-hatch", "cup-gt", "single-seater")) {
      for (long seed : seeds) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
        out.add(new Case(lap, RandomScores.of(lap, seed), seed));
      }
    }
    return out;
  }

  private static Set<String> fired(Debrief debrief, String corner) {
    return debrief.corners().stream()
        .filter(c -> c.corner().equals(corner))
        .flatMap(c -> c.habits().stream())
        .map(Debrief.HabitFinding::cause)
        .filter(OF_ACTIONS::contains)
        .collect(Collectors.toCollection(TreeSet::new));
  }

  /** What can be done otherwise with an action, by the habit that it is. */
  private static Map<String, Deviation> deviations(String corner, Action a) {
    Map<String, Deviation> out = new TreeMap<>();
    Double share = a.amount();
    switch (a.kind()) {
      case LIFT -> {
        out.put("LIFTED_EARLY", Deviation.late(corner, a.id(), -20));
        if (share != null && share > 0.35) {
          out.put("LIFTED_MORE", Deviation.more(corner, a.id(), -0.25));
        }
      }
      case BRAKE -> out.put("PRESSED_AGAIN_EARLY", Deviation.late(corner, a.id(), -13));
      case THROTTLE -> {
        if (share != null && share > 0.5) {
          out.put("STAGE_BEHIND", Deviation.more(corner, a.id(), -0.25));
        }
      }
      case SHIFT -> out.put("SHIFTED_ELSEWHERE", Deviation.late(corner, a.id(), 25));
      default -> {}
    }
    return out;
  }

  @Test
  void mistakesOfEachKindAreNamedAndCleanLapsAreLeftAlone() {
    Map<String, Map<String, Integer>> confusion = new TreeMap<>();
    Map<String, Integer> planted = new TreeMap<>();
    int clean = 0;
    int wrongly = 0;
    int elsewhere = 0;
    int others = 0;
    for (Case c : cases(31, 32, 33, 34, 35, 36)) {
      Debrief as = c.drive();
      for (CornerEntry e : c.plan()) {
        clean++;
        Set<String> wrong = fired(as, e.corner());
        wrongly += wrong.isEmpty() ? 0 : 1;
        for (Action a : e.actions()) {
          if (a.id().startsWith("own-")) {
            for (Map.Entry<String, Deviation> d : deviations(e.corner(), a).entrySet()) {
              Debrief with = c.drive(d.getValue());
              planted.merge(d.getKey(), 1, Integer::sum);
              Set<String> seen = fired(with, e.corner());
              for (String s : seen.isEmpty() ? Set.of("-") : seen) {
                confusion
                    .computeIfAbsent(d.getKey(), k -> new TreeMap<>())
                    .merge(s, 1, Integer::sum);
              }
              for (CornerEntry other : c.plan()) {
                if (!other.corner().equals(e.corner())) {
                  others++;
                  elsewhere += fired(with, other.corner()).isEmpty() ? 0 : 1;
                }
              }
            }
          }
        }
      }
    }
    for (Map.Entry<String, Integer> p : planted.entrySet()) {
      Map<String, Integer> seen = confusion.getOrDefault(p.getKey(), Map.of());
      assertThat(seen.getOrDefault(p.getKey(), 0))
          .describedAs("%s read as %s", p, seen)
          .isGreaterThanOrEqualTo((int) Math.ceil(0.8 * p.getValue()));
    }
    assertThat(planted.keySet())
        .contains(
            "LIFTED_EARLY",
            "LIFTED_MORE",
            "PRESSED_AGAIN_EARLY",
            "STAGE_BEHIND",
            "SHIFTED_ELSEWHERE");
    assertThat(wrongly).isLessThanOrEqualTo(clean / 40);
    assertThat(elsewhere).isLessThanOrEqualTo(others / 40);
  }
}
