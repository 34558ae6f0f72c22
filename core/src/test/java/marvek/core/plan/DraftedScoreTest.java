package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.lap.Conditions;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.ways.Choices;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What drafts write besides points, on roads and vehicles that nothing was tuned to. */
class DraftedScoreTest {
  private static final List<ComputedLap> LAPS = new ArrayList<>();

  @BeforeAll
  static void roads() {
    String[] vehicles = {"cup-gt", "downforce-prototype", "motorcycle-1000", "small-hatch"};
    for (int k = 0; k < 20; k++) {
      CircuitReading road = RandomRoads.of(5500 + k, 200 + 50 * (k % 5));
      LAPS.add(Drives.computed(road, vehicles[k % 4]));
    }
  }

  private static PlannedCorner drive(ComputedLap lap, CornerEntry e) {
    int c = lap.indexOf(e.corner());
    Stretch stretch = new Stretch(lap, Things.none(), c);
    return stretch.plan(lap.path(), stretch.steps(e, lap.lines().get(c)));
  }

  private static List<CornerEntry> drafts(ComputedLap lap) {
    return Drafter.draft(lap, List.of()).corners();
  }

  /** The most that the throttle of a corner asks for with the turn. */
  private static double asked(ComputedLap lap, CornerEntry e, ActionKind kind) {
    return Answers.answer(lap, Things.none(), e).score().stream()
        .filter(s -> s.action().kind() == kind && s.asked() != null)
        .mapToDouble(ScoredAction::asked)
        .max()
        .orElse(0);
  }

  /** The most that throttle and turn ask for in the turn before a lift. */
  private static double before(ComputedLap lap, CornerEntry e) {
    return Answers.answer(lap, Things.none(), e).score().stream()
        .filter(s -> s.before() != null)
        .mapToDouble(ScoredAction::before)
        .max()
        .orElse(0);
  }

  @Test
  void draftsAskForHardlyMoreThanThereIsAndALiftThatComesLateForMore() {
    int lifts = 0;
    int late = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : drafts(lap)) {
        for (ActionKind kind : List.of(ActionKind.LIFT, ActionKind.THROTTLE)) {
          assertThat(asked(lap, e, kind)).as("%s of %s", kind, e.corner()).isLessThan(1.35);
        }
        if (e.slowing() != Slowing.LIFT) {
          continue;
        }
        for (Action a : e.actions()) {
          Double kept = a.amount();
          if (a.kind() == ActionKind.LIFT && kept != null && kept < 0.6) {
            lifts++;
            CornerEntry then = Score.with(e, a.at(lap.road().wrap(a.station() + 15)));
            late += before(lap, then) > before(lap, e) + 0.004 ? 1 : 0;
          }
        }
      }
    }
    assertThat(lifts).isGreaterThan(3);
    assertThat(late).isGreaterThanOrEqualTo((int) Math.ceil(0.7 * lifts));
  }

  @Test
  void whatIsWrittenIsMadeAndTakesHardlyLonger() {
    int written = 0;
    double dearest = 0;
    double more = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : drafts(lap)) {
        if (e.actions().isEmpty()) {
          continue;
        }
        PlannedCorner score = drive(lap, e);
        PlannedCorner points = drive(lap, e.copy().actions(List.of()).done());
        assertThat(score.driven).isNotNull();
        assertThat(score.makesIt).describedAs("%s", e).isTrue();
        written++;
        dearest = Math.max(dearest, score.time - points.time);
        more += score.time - points.time;
      }
    }
    assertThat(written).isGreaterThan(20);
    assertThat(dearest).isLessThan(0.3);
    assertThat(more / written).isLessThan(0.06);
  }

  @Test
  void aLiftHasItsPlaceAndItsShareAndLessKeptIsSlower() {
    int lifts = 0;
    int corners = 0;
    int looked = 0;
    int dearer = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : drafts(lap)) {
        if (e.slowing() != Slowing.LIFT) {
          continue;
        }
        corners++;
        for (Action a : e.actions()) {
          Double kept = a.amount();
          if (a.kind() == ActionKind.LIFT && kept != null) {
            lifts++;
            assertThat(kept).isBetween(0.0, 0.95);
            e.station(PointKind.FULL_THROTTLE)
                .ifPresent(s -> assertThat(lap.road().apart(a.station(), s)).isPositive());
            if (kept > 0.2) {
              List<Action> less =
                  e.actions().stream().map(b -> b == a ? a.amounting(kept - 0.2) : b).toList();
              PlannedCorner slower = drive(lap, e.copy().actions(less).done());
              // One that the first throttle takes over at once leaves nothing to lose.
              assertThat(slower.time).isGreaterThanOrEqualTo(drive(lap, e).time);
              dearer += slower.time > drive(lap, e).time + 0.001 ? 1 : 0;
              looked++;
            }
          }
        }
      }
    }
    assertThat(corners).isGreaterThan(8);
    assertThat(dearer).isGreaterThanOrEqualTo(looked * 3 / 4).isPositive();
    // A corner as long as a lap has no one share.
    assertThat(lifts).isGreaterThan(corners * 2 / 3);
  }

  /**
   * On a lap with less grip the lift of the plan keeps its share and comes where that is made; what
   * is sought anew is hardly quicker.
   */
  @Test
  void aLiftLikeAnothersKeepsItsShareAndIsMade() {
    int lifts = 0;
    int same = 0;
    for (ComputedLap lap : LAPS) {
      ComputedLap cold = lap.on(Conditions.dryWarm().withGrip(0.93));
      for (CornerEntry was : drafts(lap)) {
        int c = lap.indexOf(was.corner());
        Action planned = lift(was);
        if (planned == null || Drafter.places(cold, c).slowing() != Slowing.LIFT) {
          continue;
        }
        CornerEntry like = Drafter.like(cold, c, was);
        Action lift = lift(like);
        CornerEntry anew = Drafter.entry(cold, c);
        assertThat(lift == null).as(was.corner()).isEqualTo(lift(anew) == null);
        if (lift == null) {
          continue;
        }
        assertThat(drive(cold, like).makesIt).as(was.corner()).isTrue();
        assertThat(drive(cold, like).time)
            .as(was.corner())
            .isLessThan(drive(cold, anew).time + 0.06);
        same += Objects.equals(lift.amount(), planned.amount()) ? 1 : 0;
        lifts++;
      }
    }
    assertThat(lifts).isGreaterThan(8);
    assertThat(same).isGreaterThan(3 * lifts / 4);
  }

  private static @Nullable Action lift(CornerEntry e) {
    return e.actions().stream().filter(a -> a.id().equals("lift")).findFirst().orElse(null);
  }

  @Test
  void everyFurtherBrakingOfTheLapIsWrittenOrSaid() {
    int again = 0;
    int written = 0;
    Random random = new Random(31);
    List<ComputedLap> laps = new ArrayList<>();
    for (int k = 0; k < 8; k++) {
      String vehicle = List.of("cup-gt", "single-seater", "downforce-prototype").get(k % 3);
      // Bends of two apexes, the second slower, with room between them.
      Tracks road = Tracks.every(4);
      double first = 60 + 15 * random.nextDouble();
      double second = 38 + 12 * random.nextDouble();
      for (int half = 0; half < 2; half++) {
        road.straight(500).bend(first, 78, 20).arc(230, 16).bend(second, 86, 20);
      }
      CircuitReading survey =
          CircuitReader.read(
              OutlineFile.read(road.csv()), new CircuitReader.Choices(false, 200, 12, false));
      laps.add(Drives.computed(survey, vehicle));
    }
    for (ComputedLap lap : laps) {
      for (CornerEntry e : drafts(lap)) {
        int c = lap.indexOf(e.corner());
        int more = lap.again(c).size();
        long own = e.actions().stream().filter(a -> a.kind() == ActionKind.BRAKE).count();
        assertThat(e.again().size() + own).describedAs("%s", e).isEqualTo(more);
        again += more;
        written += (int) own;
        double margin = lap.conditions().driving().margin();
        for (Action a : e.actions()) {
          if (a.kind() != ActionKind.BRAKE) {
            continue;
          }
          // Before the place where the lap itself brakes, by the driver's margin.
          int onset = lap.brakings().of(c).get(Integer.parseInt(a.id().substring(6)) - 1).onset();
          double metres = lap.road().apart(a.station(), onset * lap.road().step());
          assertThat(metres / lap.lap().speed()[onset])
              .describedAs("%s", a)
              .isBetween(0.8 * margin, 1.3 * margin + 0.05);
        }
      }
    }
    assertThat(again).isGreaterThan(3);
    assertThat(written).isGreaterThanOrEqualTo(again - 1);
  }

  @Test
  void stagesFollowTheThrottleOfTheLap() {
    int stages = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : drafts(lap)) {
        double before = Double.NEGATIVE_INFINITY;
        double apex = e.station(PointKind.APEX).orElseThrow();
        for (Action a : e.actions()) {
          if (a.kind() != ActionKind.THROTTLE) {
            continue;
          }
          stages++;
          Double share = a.amount();
          assertThat(share).isNotNull().isBetween(0.05, 0.95);
          int i = lap.road().index(a.station());
          double least = 1;
          double most = 0;
          for (int k = -8; k <= 8; k++) {
            double t = lap.lap().throttle()[lap.road().loop().at(i + k)];
            least = Math.min(least, t);
            most = Math.max(most, t);
          }
          assertThat(share).isBetween(least - 0.06, most + 0.06);
          double past = lap.road().apart(apex, a.station());
          assertThat(past).isGreaterThan(before);
          before = past;
        }
      }
    }
    assertThat(stages).isGreaterThan(8);
  }

  /** A share is told to twentieths, for the place where the lap's throttle is just that. */
  @Test
  void aStageStandsWhereTheLapHasItsShare() {
    List<Double> beside = new ArrayList<>();
    for (ComputedLap lap : LAPS) {
      double[] throttle = lap.lap().throttle();
      for (CornerEntry e : drafts(lap)) {
        for (Action a : e.actions()) {
          if (a.kind() == ActionKind.THROTTLE) {
            double at = a.station() / lap.road().step();
            int i = (int) Math.floor(at);
            double here = throttle[lap.road().loop().at(i)];
            double next = throttle[lap.road().loop().at(i + 1)];
            double share = Objects.requireNonNull(a.amount());
            beside.add(Math.abs(here + (at - i) * (next - here) - share));
          }
        }
      }
    }
    beside.sort(Double::compare);
    assertThat(beside).hasSizeGreaterThan(30);
    assertThat(beside.get(beside.size() * 3 / 4)).isLessThan(0.015);
  }

  /** As often as on the points alone, where some markers have no room to go back. */
  @Test
  void shapesOfTheBrakeAreDrivenAsScoresWithTheirMargin() {
    int made = 0;
    int missed = 0;
    for (ComputedLap lap : LAPS) {
      List<CornerEntry> draft = drafts(lap);
      for (CornerEntry e : draft) {
        if (e.actions().isEmpty() || e.slowing() != Slowing.BRAKE) {
          continue;
        }
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        for (School s : List.of(School.FRONT_LOADED, School.PROGRESSIVE)) {
          CornerEntry shaped =
              Choices.choose(lap, Things.none(), draft, e.corner(), s).stream()
                  .filter(x -> x.corner().equals(e.corner()))
                  .findFirst()
                  .orElse(e);
          boolean makes =
              drive(lap, shaped).makesIt && answers.margin(shaped) > 0.8 * answers.margin(e);
          // No shape brakes later than all the braking there is would.
          double most = answers.margin(e.copy().pedals(null).done());
          assertThat(answers.margin(e.copy().pedals(shaped.pedals()).done()))
              .describedAs("%s of %s", s, e)
              .isLessThanOrEqualTo(most + 0.03);
          made += makes ? 1 : 0;
          missed += makes ? 0 : 1;
        }
      }
    }
    assertThat(made).isGreaterThan(30);
    assertThat(missed).isLessThan(made / 5);
  }
}
