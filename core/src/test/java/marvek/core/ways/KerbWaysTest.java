package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Kerbs;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whoever may use the kerbs may leave them: that is never slower, dry or wet. */
@Tag("slow")
class KerbWaysTest {
  private static final MarkerJudge.View PLAIN = new MarkerJudge.View(null, null, false, 1);
  // s; lines are compared on their stretch, here over the lap.
  private static final double HAIR = 0.002;

  @ParameterizedTest
  @CsvSource({
    "91, 240, cup-gt, 1",
    "92, 300, downforce-prototype, 1",
    "93, 220, small-hatch, 1",
    "91, 240, cup-gt, 0.7",
    "94, 260, motorcycle-600, 0.7",
  })
  void usingThemWhereTheyPayIsNeverSlowerThanNever(
      long seed, double radius, String vehicle, double grip) {
    CircuitReading read = RandomRoads.of(seed, radius);
    ComputedLap lap = Drives.computed(read, vehicle).on(Conditions.dryWarm().withGrip(grip));
    Things kerbs = Kerbs.atExits(read, true);
    double given = 0;
    int compared = 0;
    for (CornerEntry e : Drafter.draft(lap, Drafter.boards(lap)).corners()) {
      assertThat(driven(lap, kerbs, e, School.ALL_KERBS))
          .as("line of %s", e.corner())
          .isLessThan(driven(lap, kerbs, e, School.NO_KERBS) + HAIR);
      // As points are told, to half metres and twentieths, a corner may lose what the line gives.
      Choices.Compared both = Choices.compare(lap, kerbs, e, Question.KERBS, PLAIN);
      Double without = seconds(both, School.NO_KERBS);
      if (without != null) {
        Double with = seconds(both, School.ALL_KERBS);
        assertThat(with).as("%s can be made as well", e.corner()).isNotNull();
        given += without - Objects.requireNonNull(with);
        compared++;
      }
    }
    assertThat(compared).isGreaterThan(4);
    assertThat(given).isPositive();
  }

  /** Seconds of the lap on the line of a way. */
  private static double driven(ComputedLap lap, Things kerbs, CornerEntry e, School school) {
    Answers answers = Answers.at(lap, kerbs, lap.indexOf(e.corner()));
    CornerEntry asked = e.copy().schools(List.of(school)).done();
    return lap.along(answers.line(asked).path()).lap().lapTime();
  }

  static Double seconds(Choices.Compared both, School school) {
    return both.outcomes().stream()
        .filter(o -> o.school() == school)
        .findFirst()
        .map(Choices.Outcome::toNext)
        .orElse(null);
  }
}
