package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.RandomScores;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.Recorder.Shown;
import marvek.core.logger.SimulatedDriver;
import marvek.core.logger.Truth;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.EventFinder;
import marvek.core.telemetry.LapSketch;
import org.junit.jupiter.api.Test;

/**
 * Written actions read from what devices show, on roads and scores made by chance, against what was
 * done.
 */
class DoneActionsTest {
  // Presses that slow nothing are not to be found.
  private static final double FELT = 0.1;

  private record Case(ComputedLap lap, List<CornerEntry> plan, Drive drive) {}

  private static final List<Case> CASES = cases();

  private static List<Case> cases() {
    List<Case> out = new ArrayList<>();
    for (String vehicle : List.of("cup-gt", "single-seater", "motorcycle-1000")) {
      for (long seed : new long[] {21, 22, 24}) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
        List<CornerEntry> plan = RandomScores.of(lap, seed);
        out.add(
            new Case(
                lap,
                plan,
                SimulatedDriver.drive(
                    new Plan(lap, plan, List.of(), 3, 2, 1, 0, true), new Random(seed))));
      }
    }
    return out;
  }

  /** How well a kind is read. */
  private static final class Table {
    final List<Double> late = new ArrayList<>();
    final List<Double> share = new ArrayList<>();
    int missed;
    int besides;

    double late(double quantile) {
      return Robust.quantile(late.stream().mapToDouble(Math::abs).toArray(), quantile);
    }

    double share(double quantile) {
      return Robust.quantile(share.stream().mapToDouble(Math::abs).toArray(), quantile);
    }

    @Override
    public String toString() {
      return String.format(
          "n %d, metres %.1f / %.1f, share %.3f / %.3f, missed %d, besides %d",
          late.size(),
          late(0.5),
          late(0.95),
          share.isEmpty() ? 0 : share(0.5),
          share.isEmpty() ? 0 : share(0.95),
          missed,
          besides);
    }
  }

  private static Map<ActionKind, Table> read(double rate, Recorder.Noise noise, Shown shown) {
    Map<ActionKind, Table> out = new EnumMap<>(ActionKind.class);
    for (ActionKind k : ActionKind.values()) {
      out.put(k, new Table());
    }
    for (Case c : CASES) {
      ComputedLap lap = c.lap();
      EventFinder finder = new EventFinder(lap.road(), lap.corners(), lap.limits(), lap.path());
      for (DrivenLap l : Drives.read(c.drive(), lap, rate, noise, shown, 5)) {
        LapSketch sketch = finder.sketch(l, lap.fullPress());
        DoneActions done = DoneActions.of(lap.road(), lap.corners(), c.plan(), sketch);
        double from = 0;
        for (Truth.Lap t : c.drive().truth().laps()) {
          if (Math.abs(from - l.start()) < 1) {

            compare(c, t, done, out);
          }
          from += t.lapTime();
        }
      }
    }
    return out;
  }

  private static void compare(
      Case c, Truth.Lap truth, DoneActions done, Map<ActionKind, Table> out) {
    for (Truth.Done corner : truth.corners()) {
      boolean pressed = true;
      List<Action> score = Score.of(c.lap().road(), c.plan().get(c.lap().indexOf(corner.corner())));
      for (Truth.Act t : corner.acts()) {
        boolean first = t.kind() == ActionKind.BRAKE;
        pressed &= !first || t.amount() > FELT;
        boolean point = Score.point(t.id()).isPresent();
        // An open braking that is not needed is not pressed, and so not eased.
        boolean idle = t.kind() == ActionKind.EASE && !pressed;
        if (point && !first || first && t.amount() < FELT || idle) {
          continue;
        }
        Action a = score.stream().filter(x -> x.id().equals(t.id())).findFirst().orElseThrow();
        Table table = out.get(t.kind());
        Optional<DoneActions.Done> read = done.of(corner.corner(), t.id());
        if (read.isEmpty()) {
          table.missed++;
          continue;
        }
        Double late = read.get().late();
        if (late != null) {
          table.late.add(late - c.lap().road().apart(a.station(), t.station()));
        }
        Double share = read.get().amount();
        if (share != null) {
          table.share.add(share - t.amount());
        }
      }
      if (pressed && !corner.acts().isEmpty()) {
        // Who does not brake where it is written rolls there, which is read as a lift.
        done.besides(corner.corner()).forEach(x -> out.get(x.kind()).besides++);
      }
    }
  }

  @Test
  void aGoodDeviceShowsEachKindWhereAndAsMuchAsItIsDone() {
    Map<ActionKind, Table> at = read(50, Recorder.Noise.usual(), Shown.straight());
    good(at, 3, 9);
  }

  @Test
  void aSlowDeviceShowsThemLessExactly() {
    Map<ActionKind, Table> at = read(10, Recorder.Noise.usual(), Shown.straight());
    good(at, 6, 12);
  }

  @Test
  void aDeadBandAndABentThrottleAreTakenIntoAccount() {
    Map<ActionKind, Table> at = read(25, Recorder.Noise.usual(), new Shown(0.03, 1.6));
    good(at, 4, 13);
  }

  /** Where the throttle is full before it is eased once more, the last time is meant. */
  @Test
  void fullOnceMoreIsNotTheFirstTime() {
    int again = 0;
    for (String vehicle : List.of("single-seater", "cup-gt")) {
      ComputedLap lap = Drives.computed(RandomRoads.of(23, 330), vehicle);
      List<CornerEntry> plan = new ArrayList<>();
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        plan.add(e.actions().isEmpty() ? twice(lap, e) : e);
      }
      Drive drive =
          SimulatedDriver.drive(new Plan(lap, plan, List.of(), 3, 1, 1, 0, true), new Random(3));
      List<LapData> laps =
          Drives.read(drive, lap, 50, Recorder.Noise.usual(), 5).stream()
              .map(l -> Drives.data(l, lap))
              .toList();
      Debrief debrief = Debriefer.read(lap, plan, laps);
      for (int c = 0; c < plan.size(); c++) {
        if (!DoneActions.fullAgain(lap.road(), plan.get(c))) {
          continue;
        }
        for (Debrief.PointFinding f : debrief.corners().get(c).points()) {
          if (f.kind() == PointKind.FULL_THROTTLE) {
            assertThat(Math.abs(f.median())).describedAs("%s", plan.get(c)).isLessThan(9);
            again++;
          }
        }
      }
    }
    assertThat(again).isPositive();
  }

  /** Full for a while on the way out, lifted for, and full again. */
  private static CornerEntry twice(ComputedLap lap, CornerEntry e) {
    double full = e.station(PointKind.FULL_THROTTLE).orElse(Double.NaN);
    if (Double.isNaN(full) || e.slowing() != Slowing.BRAKE) {
      return e;
    }
    return e.copy()
        .moved(PointKind.FULL_THROTTLE, lap.road().wrap(full + 90))
        .actions(
            List.of(
                Action.of("own-full", ActionKind.FULL, full, null),
                Action.of("own-lift", ActionKind.LIFT, lap.road().wrap(full + 40), 0.6)))
        .done();
  }

  private static void good(Map<ActionKind, Table> at, double metres, double stages) {
    for (ActionKind kind :
        List.of(ActionKind.LIFT, ActionKind.BRAKE, ActionKind.EASE, ActionKind.THROTTLE)) {
      Table t = at.get(kind);
      int n = t.late.size();
      assertThat(n).describedAs("%s %s", kind, t).isGreaterThan(14);
      assertThat(t.late(0.95))
          .describedAs("%s %s", kind, t)
          .isLessThan(kind == ActionKind.THROTTLE ? stages : metres);
      assertThat(t.share(0.5)).describedAs("%s %s", kind, t).isLessThan(0.05);
      assertThat(t.missed).describedAs("%s %s", kind, t).isLessThanOrEqualTo(n / 7);
      assertThat(t.besides).describedAs("%s %s", kind, t).isLessThanOrEqualTo(n / 10);
    }
  }
}
