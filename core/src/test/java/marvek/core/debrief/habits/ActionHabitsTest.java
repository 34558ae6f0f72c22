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
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.RandomScores;
import marvek.core.logger.Deviation;
import marvek.core.logger.Mistake;
import marvek.core.logger.Plan;
import marvek.core.logger.Planted;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.telemetry.Acts;
import org.junit.jupiter.api.Test;

/** Mistakes planted in each kind of action, on roads and scores made by chance. */
class ActionHabitsTest {
  private static final Set<String> OF_ACTIONS =
      Habits.all().stream()
          .filter(h -> h instanceof ActionHabit || h instanceof LiftedUnwritten)
          .map(Habit::id)
          .collect(Collectors.toSet());

  private record Case(ComputedLap lap, List<CornerEntry> plan, long seed) {
    Debrief drive(Deviation... otherwise) {
      return Debriefer.read(lap, plan, laps(1, List.of(), otherwise));
    }

    List<LapData> laps(double pace, List<Planted> mistakes, Deviation... otherwise) {
      Plan as =
          new Plan(lap, plan, mistakes, 4, 1.5, pace, 0, true)
              .deviating(List.of(otherwise), List.of());
      return Drives.read(as, seed).stream().map(l -> Drives.data(l, lap)).toList();
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
      // The brake comes off 14 m before: sooner than this it would not come off at all.
      case BRAKE -> out.put("PRESSED_AGAIN_EARLY", Deviation.late(corner, a.id(), -10));
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

  private static long times(Debrief debrief, List<CornerEntry> of, String habit) {
    return of.stream().filter(e -> fired(debrief, e.corner()).contains(habit)).count();
  }

  /** An entry as such were written before more than points could be. */
  private static CornerEntry pointsOnly(CornerEntry e, Slowing slowing, PointKind... without) {
    List<PointKind> none = List.of(without);
    return e.copy()
        .slowing(slowing)
        .points(
            e.points().stream()
                .filter(p -> !none.contains(p.kind()))
                .map(p -> new CornerPoint(p.kind(), p.station(), p.tie(), p.sure()))
                .toList())
        .actions(List.of())
        .done();
  }

  @Test
  void aLiftThatIsOnlyAWordASlowHandOffAndTheOwnPaceAreNoLiftsTooMany() {
    int lifted = 0;
    int deeply = 0;
    int slower = 0;
    int flat = 0;
    for (String vehicle : List.of("cup-gt", "single-seater")) {
      for (long seed : new long[] {41, 42, 43, 44, 45, 46}) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
        List<CornerEntry> written = Drafter.draft(lap, List.of()).corners();
        List<CornerEntry> lifts =
            written.stream().filter(e -> e.slowing() == Slowing.LIFT).toList();
        List<CornerEntry> words =
            written.stream()
                .map(e -> e.slowing() == Slowing.LIFT ? pointsOnly(e, Slowing.LIFT) : e)
                .toList();
        Case driven = new Case(lap, written, seed);
        List<LapData> laps = driven.laps(1, List.of());
        assertThat(times(Debriefer.read(lap, words, laps), lifts, "LIFTED_UNWRITTEN")).isZero();
        lifted += lifts.size();

        // Flat is said where laps show a lift by more than a little.
        List<CornerEntry> deep =
            lifts.stream()
                .filter(e -> e.actions().stream().anyMatch(a -> lifts(lap, laps, a)))
                .toList();
        List<CornerEntry> flatOut =
            words.stream()
                .map(
                    e ->
                        lifts.stream().anyMatch(l -> l.corner().equals(e.corner()))
                            ? pointsOnly(
                                e, Slowing.FLAT, PointKind.FIRST_THROTTLE, PointKind.FULL_THROTTLE)
                            : e)
                .toList();
        flat += (int) times(Debriefer.read(lap, flatOut, laps), deep, "LIFTED_UNWRITTEN");
        deeply += deep.size();

        List<LapData> careful = driven.laps(0.93, List.of());
        slower += (int) times(Debriefer.read(lap, written, careful), lifts, "LIFTED_MORE");

        List<CornerEntry> braked =
            written.stream().filter(e -> e.slowing() == Slowing.BRAKE).toList();
        List<Planted> waits =
            braked.stream().map(e -> new Planted(Mistake.SLOW_HAND_OFF, e.corner(), 1, 1)).toList();
        Debrief handed = Debriefer.read(lap, written, driven.laps(1, waits));
        assertThat(times(handed, braked, "LIFTED_UNWRITTEN")).isZero();
      }
    }
    assertThat(lifted).isGreaterThan(4);
    assertThat(deeply).isGreaterThan(2);
    assertThat(flat).isGreaterThanOrEqualTo((int) Math.ceil(0.8 * deeply));
    assertThat(slower).isZero();
  }

  private static boolean lifts(ComputedLap lap, List<LapData> laps, Action a) {
    Double kept = a.amount();
    return a.kind() == ActionKind.LIFT
        && kept != null
        && kept < 0.8
        && laps.stream().allMatch(l -> shown(lap, l, a.station()));
  }

  private static boolean shown(ComputedLap lap, LapData in, double station) {
    return Acts.of(in.sketch()).stream()
        .filter(a -> a.kind() == ActionKind.LIFT)
        .anyMatch(a -> Math.abs(lap.road().apart(station, a.station())) < 15);
  }
}
