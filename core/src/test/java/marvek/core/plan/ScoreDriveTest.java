package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import marvek.core.survey.Things;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.ClassicalRungeKuttaIntegrator;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Scores driven, held against a solver on roads and vehicles that nothing was tuned to. */
class ScoreDriveTest {
  private static final double OPEN = Double.NaN;
  // Towards standing still any difference of energy becomes large.
  private static final double SLOW = 15;
  private static final List<ComputedLap> LAPS = new ArrayList<>();

  @BeforeAll
  static void roads() {
    String[] vehicles = {"cup-gt", "downforce-prototype", "motorcycle-1000", "small-hatch"};
    for (int k = 0; k < 4; k++) {
      CircuitReading road = RandomRoads.of(7100 + k, 250 + 60 * k);
      LAPS.add(Drives.computed(road, vehicles[k]));
    }
  }

  private static ScoreDrive.Pedal pedal(
      String id, ActionKind kind, double at, double amount, Manner manner) {
    return new ScoreDrive.Pedal(id, kind, at, Double.NaN, amount, manner);
  }

  /** A brake that is left open, and let go of late, does not slow beyond what it is for. */
  @Test
  void anOpenBrakingEasesWhereItsPlaceIsMet() {
    int met = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : points(lap)) {
        if (e.point(PointKind.BRAKE).isEmpty()
            || e.point(PointKind.RELEASE).isEmpty()
            || e.point(PointKind.FIRST_THROTTLE).isEmpty()) {
          continue;
        }
        double release = e.station(PointKind.RELEASE).orElseThrow() + 25;
        double first = e.station(PointKind.FIRST_THROTTLE).orElseThrow() + 40;
        double full = e.station(PointKind.FULL_THROTTLE).orElse(first) + 50;
        CornerEntry late =
            e.copy()
                .moved(PointKind.RELEASE, lap.road().wrap(release))
                .moved(PointKind.FIRST_THROTTLE, lap.road().wrap(first))
                .moved(PointKind.FULL_THROTTLE, lap.road().wrap(full))
                .actions(List.of(Action.of("look", ActionKind.EYES, release, null)))
                .done();
        Action squeezed =
            Score.of(lap.road(), late).stream()
                .filter(a -> a.id().equals("brake"))
                .findFirst()
                .orElseThrow()
                .in(Manner.SLOWLY);
        CornerEntry written = Score.with(late, squeezed);
        Stretch stretch = new Stretch(lap, Things.none(), lap.indexOf(e.corner()));
        PlannedCorner plan =
            stretch.plan(lap.path(), stretch.steps(written, stretch.line(written).line()));
        ScoreDrive driven = plan.driven;
        assertThat(driven).isNotNull();
        ScoreDrive.Played brake = driven.played[driven.index("brake")];
        int end = stretch.step(lap.road().wrap(release));
        if (!brake.made() || brake.serves() < 0 || end <= brake.serves() + 5) {
          continue;
        }
        double there = plan.speed[brake.serves()];
        double after = plan.speed[end];
        double lost = lap.limits().vehicle().brakes().engineBraking() + 4;
        double metres = (end - brake.serves()) * lap.road().step();
        // Rolling on with the engine shut it slows a little more, not as with the brake on.
        assertThat(after)
            .describedAs("%s", e.corner())
            .isGreaterThan(Math.sqrt(Math.max(0, there * there - 2 * lost * metres)) * 0.98);
        assertThat(driven.brake[Math.min(end - 1, brake.serves() + 12)])
            .isLessThan(0.5 * brake.amount() + 0.02);
        met++;
      }
    }
    assertThat(met).isGreaterThan(8);
  }

  /** A stretch whose places allow any speed, so that only the pedals count. */
  private static ScoreDrive free(
      ComputedLap lap, int from, int count, double arriving, List<ScoreDrive.Pedal> pedals) {
    double[] corner = new double[count + 1];
    Arrays.fill(corner, 200);
    return drive(lap, from, arriving, corner, pedals, List.of(), ScoreDrive.Wants.ALL);
  }

  /** A stretch that is come to at one speed, with what each of its places allows. */
  private static ScoreDrive drive(
      ComputedLap lap,
      int from,
      double arriving,
      double[] corner,
      List<ScoreDrive.Pedal> pedals,
      List<ScoreDrive.Shift> shifts,
      ScoreDrive.Wants wants) {
    double[] speeds = new double[corner.length];
    Arrays.fill(speeds, arriving);
    return new ScoreDrive(
        lap.path(),
        lap.limits(),
        from,
        corner.length - 1,
        speeds,
        corner,
        lap.fullPress(),
        pedals,
        shifts,
        List.of(),
        wants);
  }

  @Test
  void twoBrakingsStagesAndLiftsAreThoseOfTheSolver() {
    Random random = new Random(5);
    int compared = 0;
    for (ComputedLap lap : LAPS) {
      for (int round = 0; round < 10; round++) {
        int from = random.nextInt(lap.road().size());
        double arriving = 45 + 15 * random.nextDouble();
        double[] at = new double[9];
        double next = 4 + 20 * random.nextDouble();
        for (int i = 0; i < at.length; i++) {
          at[i] = next;
          next += 15 + 12 * random.nextDouble();
        }
        double hard = 0.3 + 0.4 * random.nextDouble();
        double dab = 0.1 + 0.2 * random.nextDouble();
        double kept = 0.8 * random.nextDouble();
        List<ScoreDrive.Pedal> score =
            List.of(
                new ScoreDrive.Pedal("lift", ActionKind.LIFT, at[0], at[1], kept, Manner.AT_ONCE),
                pedal("brake", ActionKind.BRAKE, at[2], hard, Manner.AT_ONCE),
                pedal("bleed", ActionKind.EASE, at[3], 0.5 * hard, Manner.EVENLY),
                pedal("off", ActionKind.EASE, at[4], 0.1, Manner.AT_ONCE),
                pedal("dab", ActionKind.BRAKE, at[5], dab, Manner.SLOWLY),
                pedal("crack", ActionKind.THROTTLE, at[6], 0.3, Manner.EVENLY),
                pedal("stage", ActionKind.THROTTLE, at[7], 0.6, Manner.AT_ONCE),
                pedal("all", ActionKind.FULL, at[8], 1, Manner.AT_ONCE));
        int count = (int) at[8] + 60;
        ScoreDrive drive = free(lap, from, count, arriving, score);
        double[] solved = Solver.solve(lap, from, count, arriving, at, hard, dab, kept);
        for (int k = (int) at[0] + 1; k <= count && solved[k] > SLOW; k++) {
          compared++;
          assertThat(drive.speed[k])
              .describedAs("step %d of %s", k, Arrays.toString(at))
              .isCloseTo(solved[k], within(0.001 * solved[k]));
        }
      }
    }
    assertThat(compared).isGreaterThan(5000);
  }

  /** Drafts of points alone. */
  private static List<CornerEntry> points(ComputedLap lap) {
    return IntStream.range(0, lap.corners().size())
        .mapToObj(c -> Drafter.asDriven(lap, c))
        .toList();
  }

  @Test
  void draftsAreMadeAsScoresAndTakeAsLong() {
    // Beside the points a release that changes nothing makes a score of the entry.
    int corners = 0;
    int missed = 0;
    List<Double> longer = new ArrayList<>();
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : points(lap)) {
        Stretch stretch = new Stretch(lap, Things.none(), lap.indexOf(e.corner()));
        CornerLine line = stretch.line(e).line();
        PlannedCorner points = stretch.plan(lap.path(), stretch.steps(e, line));
        double before = lap.road().wrap(e.station(PointKind.TURN_IN).orElseThrow() - 400);
        CornerEntry written =
            e.copy().actions(List.of(Action.of("off", ActionKind.EASE, before, 0.0))).done();
        PlannedCorner score = stretch.plan(lap.path(), stretch.steps(written, line));
        assertThat(score.driven).isNotNull();
        corners++;
        if (!score.makesIt) {
          // The margin of a draft is nearly what the feet need to move.
          missed++;
          continue;
        }
        assertThat(score.time - points.time).describedAs("%s", e).isBetween(-0.1, 0.1);
        longer.add(score.time - points.time);
      }
    }
    longer.sort(null);
    assertThat(longer.get(longer.size() / 2)).isBetween(-0.02, 0.02);
    assertThat(longer.get(longer.size() / 10)).isGreaterThan(-0.06);
    assertThat(longer.get(longer.size() * 9 / 10)).isLessThan(0.05);
    assertThat(corners).isGreaterThan(30);
    assertThat(missed).isLessThanOrEqualTo(1);
  }

  @Test
  void anOpenBrakingMeetsItsPlaceFromWhereverItBegins() {
    Random random = new Random(11);
    int met = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : points(lap)) {
        if (e.point(PointKind.BRAKE).isEmpty()) {
          continue;
        }
        Stretch stretch = new Stretch(lap, Things.none(), lap.indexOf(e.corner()));
        double sooner = 2 + 40 * random.nextDouble();
        CornerEntry early =
            e.copy()
                .moved(
                    PointKind.BRAKE,
                    lap.road().wrap(e.station(PointKind.BRAKE).orElseThrow() - sooner))
                .done();
        Action squeezed =
            Score.of(lap.road(), early).stream()
                .filter(a -> a.id().equals("brake"))
                .findFirst()
                .orElseThrow()
                .in(Manner.SLOWLY);
        CornerEntry written = Score.with(early, squeezed);
        CornerLine line = stretch.line(written).line();
        PlannedCorner plan = stretch.plan(lap.path(), stretch.steps(written, line));
        ScoreDrive driven = plan.driven;
        assertThat(driven).isNotNull();
        ScoreDrive.Played brake = driven.played[driven.index("brake")];
        assertThat(brake.solved()).isTrue();
        if (brake.made()) {
          // Not a share more than is needed: at the place it serves nothing is left over.
          double there = plan.speed[brake.serves()];
          double allowed = lap.limits().cornerSpeed(lap.path(), at(lap, stretch, brake.serves()));
          assertThat(there).isLessThan(1.011 * allowed);
          // And it eases there: nowhere on the way is it slower than all that follows allows.
          double least = Double.MAX_VALUE;
          for (int k = brake.serves(); k > (int) brake.at(); k--) {
            least = Math.min(least, lap.limits().cornerSpeed(lap.path(), at(lap, stretch, k)));
            assertThat(plan.speed[k]).isGreaterThan(0.97 * least);
          }
          met++;
        }
      }
    }
    assertThat(met).isGreaterThan(15);
  }

  @Test
  void whatIsSaidToBeMetIsMetByTheSpeedsDriven() {
    Random random = new Random(23);
    int said = 0;
    int missed = 0;
    for (ComputedLap lap : LAPS) {
      for (int round = 0; round < 25; round++) {
        int from = random.nextInt(lap.road().size());
        int count = 220;
        double[] corner = new double[count + 1];
        double slow = 34 + 12 * random.nextDouble();
        for (int k = 0; k <= count; k++) {
          corner[k] = slow + 0.004 * (k - 130) * (k - 130);
        }
        double at = 10 + 20 * random.nextDouble();
        List<ScoreDrive.Pedal> score =
            List.of(
                pedal("brake", ActionKind.BRAKE, at, 0.5, Manner.AT_ONCE),
                pedal("bleed", ActionKind.EASE, at + 12, OPEN, Manner.EVENLY),
                // While the brake is still on its way to nothing.
                pedal("lift", ActionKind.LIFT, at + 30, 0.1, Manner.AT_ONCE),
                pedal("off", ActionKind.EASE, at + 90, 0, Manner.AT_ONCE),
                pedal("all", ActionKind.FULL, at + 150, 1, Manner.AT_ONCE));
        ScoreDrive drive = drive(lap, from, 45, corner, score, List.of(), ScoreDrive.Wants.ALL);
        ScoreDrive.Played lift = drive.played[drive.index("lift")];
        boolean met = true;
        for (int k = (int) Math.ceil(lift.at()); k <= lift.serves(); k++) {
          met &= drive.speed[k] <= corner[k] * 1.01;
        }
        assertThat(lift.made()).describedAs("%s of %s", lift, slow).isEqualTo(met);
        said += lift.made() ? 1 : 0;
        missed += lift.made() ? 0 : 1;
      }
    }
    assertThat(said).isGreaterThan(10);
    assertThat(missed).isGreaterThan(10);
  }

  @Test
  void whetherItIsMadeIsKnownWithoutHowMuchTheLastActionKeeps() {
    Random random = new Random(11);
    int made = 0;
    int missed = 0;
    for (ComputedLap lap : LAPS) {
      for (int round = 0; round < 60; round++) {
        int from = random.nextInt(lap.road().size());
        int count = 220;
        double[] corner = new double[count + 1];
        double slow = 34 + 12 * random.nextDouble();
        double next = 30 + 14 * random.nextDouble();
        for (int k = 0; k <= count; k++) {
          corner[k] =
              Math.min(slow + 0.004 * (k - 70) * (k - 70), next + 0.01 * (k - 190) * (k - 190));
        }
        double at = 10 + 30 * random.nextDouble();
        List<ScoreDrive.Pedal> score =
            List.of(
                // Open as well: then it is what its own place asks for, whatever is wanted.
                pedal(
                    "brake",
                    ActionKind.BRAKE,
                    at,
                    round % 2 == 0 ? Double.NaN : 0.4,
                    Manner.AT_ONCE),
                pedal("off", ActionKind.EASE, at + 35, 0, Manner.AT_ONCE),
                pedal("all", ActionKind.FULL, at + 50, 1, Manner.AT_ONCE),
                pedal("next", ActionKind.LIFT, 150, Double.NaN, Manner.AT_ONCE));
        boolean makes =
            drive(lap, from, 45, corner, score, List.of(), ScoreDrive.Wants.TIME).makesIt;
        assertThat(drive(lap, from, 45, corner, score, List.of(), ScoreDrive.Wants.MADE).makesIt)
            .describedAs("%s, %s then %s", at, slow, next)
            .isEqualTo(makes);
        made += makes ? 1 : 0;
        missed += makes ? 0 : 1;
      }
    }
    assertThat(made).isGreaterThan(10);
    assertThat(missed).isGreaterThan(10);
  }

  @Test
  void aLiftComesBackWhateverTheBrakeDoesMeanwhile() {
    ComputedLap lap = LAPS.get(0);
    ScoreDrive.Pedal lift =
        new ScoreDrive.Pedal("lift", ActionKind.LIFT, 10, 40, 0.2, Manner.AT_ONCE);
    ScoreDrive alone = free(lap, 0, 120, 45, List.of(lift));
    ScoreDrive eased =
        free(lap, 0, 120, 45, List.of(lift, pedal("off", ActionKind.EASE, 25, 0, Manner.AT_ONCE)));
    assertThat(eased.throttle[100]).isEqualTo(1);
    for (int k = 0; k <= 120; k++) {
      assertThat(eased.speed[k]).isCloseTo(alone.speed[k], within(1e-3));
    }
  }

  @Test
  void aGearHeldPullsAsThatGearDoesAndCutsOutOnTheLimiter() {
    // The drive of a gear is its torque through its ratio; on the limiter there is none.
    for (ComputedLap lap : LAPS) {
      int gear = 2;
      double limit = lap.vehicle().speed(lap.vehicle().engine().limitRevs(), gear);
      double start = 0.7 * limit;
      double[] corner = new double[401];
      Arrays.fill(corner, 300);
      ScoreDrive held =
          drive(
              lap,
              0,
              start,
              corner,
              List.of(),
              List.of(new ScoreDrive.Shift(5, gear, 390)),
              ScoreDrive.Wants.ALL);
      ScoreDrive left =
          drive(
              lap,
              0,
              start,
              corner,
              List.of(),
              List.of(new ScoreDrive.Shift(5, gear, Double.NaN)),
              ScoreDrive.Wants.ALL);
      for (int k = 6; k <= 385; k++) {
        assertThat(held.gears[k]).isEqualTo(gear);
        // Steep downhill the road turns the engine faster than it would turn itself.
        assertThat(held.speed[k]).isLessThan(limit * (lap == LAPS.get(0) ? 1.06 : 1.006));
      }
      assertThat(left.gears[385]).isGreaterThan(gear);
      assertThat(left.speed[385]).isGreaterThan(held.speed[385] + 1);
    }
  }

  @Test
  void aShiftTakesItsTimeWithoutDrive() {
    // By hand: for the time of the shift there is rolling only, so it loses that time's pull.
    for (ComputedLap lap : LAPS) {
      double start = 0.6 * lap.vehicle().speed(lap.vehicle().engine().shiftRevs(), 3);
      double[] corner = new double[81];
      Arrays.fill(corner, 300);
      double lost = 0;
      double pull = 0;
      double[] after = new double[2];
      for (int k = 0; k < 2; k++) {
        // The same gear taken again is a shift all the same; from the start there is none.
        List<ScoreDrive.Shift> shifts =
            k == 0
                ? List.of(new ScoreDrive.Shift(0, 3, 70))
                : List.of(new ScoreDrive.Shift(0, 3, 70), new ScoreDrive.Shift(30, 3, 70));
        ScoreDrive drive = drive(lap, 0, start, corner, List.of(), shifts, ScoreDrive.Wants.ALL);
        after[k] = drive.speed[60];
        double v = drive.speed[30];
        double load = lap.limits().load(lap.path(), 30, v * v);
        double ellipse = lap.limits().ellipse(lap.path(), 30, v * v, load);
        pull =
            Math.min(
                lap.vehicle().wheelForce(v, 3) / lap.limits().mass(),
                lap.limits().traction(load, ellipse, lap.path().driving(30)));
        lost = pull * lap.vehicle().gearbox().shiftTime();
      }
      assertThat(after[0] - after[1]).isBetween(0.5 * lost, 1.05 * lost);
    }
  }

  private static int at(ComputedLap lap, Stretch stretch, int step) {
    return lap.road().loop().at(stretch.from + step);
  }

  /** The same score, pedals written as what each does over time, by Runge and Kutta in 64ths. */
  private static final class Solver {
    /** A pedal's way: from a time on, straight through the points given as time and value. */
    private record Way(double[] times, double[] values) {
      double at(double t) {
        if (t <= times[0]) {
          return values[0];
        }
        for (int i = 1; i < times.length; i++) {
          if (t < times[i]) {
            return values[i - 1]
                + (values[i] - values[i - 1]) * (t - times[i - 1]) / (times[i] - times[i - 1]);
          }
        }
        return values[values.length - 1];
      }
    }

    private static Way step(double t, double was, double is, double lasts) {
      return new Way(new double[] {t, t + lasts}, new double[] {was, is});
    }

    private static Way ramp(double t, double was, double is, double lasts, double end, double to) {
      return new Way(new double[] {t, t + lasts, end}, new double[] {was, is, to});
    }

    static double[] solve(
        ComputedLap lap,
        int from,
        int count,
        double arriving,
        double[] at,
        double hard,
        double dab,
        double kept) {
      double[] out = new double[count + 1];
      // When each place comes hangs on the ramps before it: a few rounds settle it.
      double[] when = new double[10];
      for (int i = 0; i < when.length; i++) {
        when[i] = at[Math.min(8, i)] / arriving;
      }
      for (int round = 0; round < 4; round++) {
        double[] y = {arriving, 0};
        double s = (int) at[0];
        for (int i = 0; i <= 9; i++) {
          double end = i < 9 ? at[i] : count;
          double[] seen = when.clone();
          int leg = i;
          y =
              legs(
                  lap,
                  from,
                  s,
                  end,
                  y,
                  out,
                  t -> throttle(leg, t, seen, kept),
                  t -> brake(leg, t, seen, hard, dab));
          if (i < 9) {
            when[i] = y[1];
          }
          s = end;
        }
      }
      return out;
    }

    // Leg i runs from place i − 1 to place i.
    private static double throttle(int leg, double t, double[] when, double kept) {
      return switch (leg) {
        case 0 -> 1;
        case 1 -> step(when[0], 1, kept, 0.2).at(t);
        case 2 -> step(when[1], step(when[0], 1, kept, 0.2).at(when[1]), 1, 0.2).at(t);
        case 3, 4, 5, 6 -> step(when[2], 1, 0, 0.1).at(t);
        case 7 -> ramp(when[6], 0, 0.3, 0.2, when[7], 0.6).at(t);
        case 8 -> 0.6;
        default -> step(when[8], 0.6, 1, 0.2).at(t);
      };
    }

    private static double brake(int leg, double t, double[] when, double hard, double dab) {
      double bled = ramp(when[3], hard, 0.5 * hard, 0.1, when[4], 0.1).at(t);
      double pressed = step(when[5], 0.1, dab, 0.6).at(t);
      return switch (leg) {
        case 0, 1, 2 -> 0;
        case 3 -> step(when[2], 0, hard, 0.15).at(t);
        case 4 -> bled;
        case 5 -> 0.1;
        case 6 -> pressed;
        case 7 -> step(when[6], step(when[5], 0.1, dab, 0.6).at(when[6]), 0, 0.1).at(t);
        default -> 0;
      };
    }

    private interface Foot {
      double at(double t);
    }

    /** From one place to another, noting the speed at each whole step. */
    private static double[] legs(
        ComputedLap lap,
        int from,
        double start,
        double end,
        double[] y,
        double[] out,
        Foot throttle,
        Foot brake) {
      double s = start;
      double[] now = y;
      while (s < end - 1e-12) {
        double next = Math.min(end, Math.floor(s + 1e-12) + 1);
        int k = (int) Math.floor(s + 1e-12);
        double metres = lap.path().step()[lap.road().loop().at(from + k)];
        now =
            new ClassicalRungeKuttaIntegrator(1 / 16.0)
                .integrate(
                    new OrdinaryDifferentialEquation() {
                      @Override
                      public int getDimension() {
                        return 2;
                      }

                      @Override
                      public double[] computeDerivatives(double x, double[] z) {
                        double part = Math.min(1, Math.max(0, x - k));
                        double u = throttle.at(z[1]);
                        double b = brake.at(z[1]);
                        double a =
                            (1 - part) * along(lap, from + k, z[0], u, b)
                                + part * along(lap, from + k + 1, z[0], u, b);
                        return new double[] {metres * a / z[0], metres / z[0]};
                      }
                    },
                    new ODEState(s, now),
                    next)
                .getPrimaryState();
        s = next;
        if (Math.abs(s - Math.rint(s)) < 1e-9) {
          out[(int) Math.rint(s)] = now[0];
        }
      }
      return now;
    }

    private static double along(ComputedLap lap, int at, double v, double u, double b) {
      Path path = lap.path();
      Limits limits = lap.limits();
      int i = lap.road().loop().at(at);
      double load = limits.load(path, i, v * v);
      double across = limits.sideways(path, i, v * v);
      double most = limits.sidewaysMost(load, path.turning(i));
      double left = Math.sqrt(Math.max(0, 1 - Math.pow(across / (1.03 * most), 2)));
      double engine = limits.vehicle().brakes().engineBraking();
      double force = u * limits.engineDrive(v) - (1 - u) * engine - b * lap.fullPress();
      double stops = limits.brakingMost(load, left, path.braking(i));
      double pulls = limits.traction(load, limits.ellipse(path, i, v * v, load), path.driving(i));
      return Math.max(-stops, Math.min(pulls, force)) - limits.resistance(path, i, v, load);
    }
  }
}
