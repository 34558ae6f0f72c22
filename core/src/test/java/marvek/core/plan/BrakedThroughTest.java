package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.LapSimulator;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** One braking that runs on through several bends, as it does where grip is short. */
@Tag("slow")
class BrakedThroughTest {
  private static final String ROADS =
      """
      62, 254, small-hatch
      64, 328, cup-gt
      69, 353, downforce-prototype
      71, 267, motorcycle-600
      74, 218, small-hatch
      78, 206, small-hatch
      100, 220, cup-gt
      110, 270, small-hatch
      531, 260, single-seater
      532, 300, motorcycle-1000
      """;

  private static ComputedLap wet(long seed, double radius, String vehicle) {
    return Drives.computed(RandomRoads.of(seed, radius), vehicle)
        .on(Conditions.dryWarm().withGrip(0.7));
  }

  /**
   * Whoever stays at full throttle up to the last place that is told for braking is nowhere before
   * it faster than a bend allows: driven here from where the lap brakes, step by step.
   */
  @ParameterizedTest
  @CsvSource(textBlock = ROADS)
  void theLastPlaceToBrakeLiesBeforeABendThatAsksForIt(long seed, double radius, String vehicle) {
    ComputedLap lap = wet(seed, radius, vehicle);
    int looked = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      CornerAnswer.BrakingNumbers told = Answers.answer(lap, e).braking();
      if (told == null) {
        continue;
      }
      assertThat(told.marginSeconds()).as("margin of %s", e.corner()).isBetween(0.1, 0.6);
      Loop loop = lap.road().loop();
      int i = lap.brakings().of(lap.indexOf(e.corner())).get(0).onset();
      int steps =
          (int) (lap.road().apart(i * lap.road().step(), told.limitStation()) / lap.road().step());
      double v = lap.lap().speed()[i];
      for (int k = 0; k < steps; k++) {
        v = LapSimulator.ahead(lap.path(), lap.limits(), i, loop.at(i + 1), v);
        i = loop.at(i + 1);
        assertThat(v)
            .as("%s, %d steps past the lap's braking", e.corner(), k + 1)
            .isLessThan(lap.limits().cornerSpeed(lap.path(), i) * 1.01);
      }
      looked++;
    }
    assertThat(looked).isGreaterThan(3);
  }

  /** A corner is planned over what belongs to it, and its draft loses nothing on itself. */
  @ParameterizedTest
  @CsvSource(textBlock = ROADS)
  void aCornerBrakedThroughIsPlannedFromTheOneThatBeganIt(
      long seed, double radius, String vehicle) {
    ComputedLap lap = wet(seed, radius, vehicle);
    int count = lap.corners().size();
    for (int c = 0; c < count; c++) {
      Stretch stretch = new Stretch(lap, Things.none(), c);
      double begin = stretch.station(0);
      double apex = lap.lines().get(c).apexes().get(0);
      assertThat(lap.road().ahead(begin, apex))
          .as("start of c%d", c + 1)
          .isLessThan(lap.road().ahead(apex((c + count - 3) % count, lap), apex));
      assertThat(stretch.count).as("steps of c%d", c + 1).isLessThan(lap.road().size() / 2);
      if (lap.brakedThrough(c)) {
        assertThat(Answers.answer(lap, Drafter.entry(lap, c)).lapEffect())
            .as("lap with the draft of c%d", c + 1)
            .isBetween(-0.05, 0.05);
      }
    }
  }

  /**
   * What is said to be its slowest speed is the least that is driven while it is braked through.
   */
  @ParameterizedTest
  @CsvSource({
    "64, 328, cup-gt",
    "69, 353, downforce-prototype",
    "64, 328, small-hatch",
    "96, 232, small-hatch",
    "107, 319, motorcycle-600"
  })
  void aCornerBrakedThroughIsAsSlowAsItIsDriven(long seed, double radius, String vehicle) {
    ComputedLap lap = wet(seed, radius, vehicle);
    Loop loop = lap.road().loop();
    List<String> looked = new ArrayList<>();
    for (int c = 0; c < lap.corners().size(); c++) {
      int turnIn = lap.road().index(lap.lines().get(c).turnIn());
      CornerEntry e = Drafter.entry(lap, c);
      if (e.slowing() == Slowing.BRAKE || lap.lap().brake()[turnIn] < Brakings.FELT) {
        continue;
      }
      double least = lap.lap().speed()[turnIn];
      for (int k = turnIn; lap.lap().brake()[loop.at(k)] > Brakings.ONSET; k++) {
        least = Math.min(least, lap.lap().speed()[loop.at(k)]);
      }
      assertThat(e.minimumSpeed()).as(e.corner()).isLessThan(least + 0.5);
      assertThat(Plain.words(Answers.answer(lap, e).remarks()))
          .as(e.corner())
          .anyMatch(said -> said.contains("are still on here"));
      looked.add(e.corner());
    }
    assertThat(looked).isNotEmpty();
  }

  /** What is drawn of it is the lap with its braking, not a roll at the speed of its slowest. */
  @ParameterizedTest
  @CsvSource({"706, 200, small-hatch", "718, 200, small-hatch", "718, 240, cup-gt"})
  void aCornerBrakedThroughIsDrawnWithTheBrakingForTheOneBefore(
      long seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    boolean plain = vehicle.equals("small-hatch");
    int looked = 0;
    int written = 0;
    for (int c = 0; c < lap.corners().size(); c++) {
      int under = lap.under(c);
      CornerEntry e = Drafter.entry(lap, c);
      if (under < 0) {
        continue;
      }
      looked++;
      follows(lap, e, Score.plays(e) ? 0.6 : 0.3);
      Optional<CornerPoint> first = e.point(PointKind.FIRST_THROTTLE);
      if (!Score.plays(e) && first.isPresent()) {
        // What is written is played, with as much brake as it takes.
        double at = lap.road().wrap(first.get().station() + 8);
        Action held = Action.of("throttle-2", ActionKind.THROTTLE, at, 0.5);
        follows(lap, e.copy().actions(List.of(held)).done(), 0.6);
        written++;
      }
    }
    assertThat(looked).isPositive();
    assertThat(written).as("with more than points").isGreaterThanOrEqualTo(plain ? 1 : 0);
  }

  /** Where the lap is on its brakes, so is the plan, at its speed to so many m/s. */
  private static void follows(ComputedLap lap, CornerEntry e, double near) {
    CornerAnswer.Profile drawn = Answers.answer(lap, e).profile();
    int braked = 0;
    double seconds = 0;
    for (int k = 0; k + 1 < drawn.speed().length; k++) {
      int i = lap.road().index(lap.road().wrap(drawn.from() + k * drawn.step()));
      double step = lap.path().step()[i];
      double next = lap.lap().speed()[lap.road().loop().at(i + 1)];
      seconds +=
          2 * step / (drawn.speed()[k] + drawn.speed()[k + 1])
              - 2 * step / (lap.lap().speed()[i] + next);
      if (lap.lap().brake()[i] > 0.3 && drawn.brake()[k] > 0.15) {
        assertThat(drawn.speed()[k]).isCloseTo(lap.lap().speed()[i], within(near));
        braked++;
      }
    }
    assertThat(braked).as("braked in " + e.corner()).isGreaterThan(5);
    assertThat(seconds).as("time of " + e.corner()).isBetween(-0.05, 0.25);
  }

  private static double apex(int c, ComputedLap lap) {
    return lap.lines().get(c).apexes().get(0);
  }
}
