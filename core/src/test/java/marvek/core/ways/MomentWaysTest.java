package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Limits;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.marker.MarkerJudge;
import marvek.core.numeric.Earlier;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Cues;
import marvek.core.plan.Drafter;
import marvek.core.plan.ScoredAction;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.survey.Things;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * When something is done: before the hands or after, before a crest or not, by one thing or two.
 */
@Tag("slow")
class MomentWaysTest {
  private static final MarkerJudge.View PLAIN = new MarkerJudge.View(null, null, false, 1);
  private static final String[] VEHICLES = {
    "cup-gt", "single-seater", "motorcycle-1000", "motorcycle-600"
  };

  /** Roads other than those on which the ways were made. */
  private static ComputedLap lap(int k) {
    return Drives.computed(RandomRoads.of(7300 + k, 170 + 40 * k), VEHICLES[k % VEHICLES.length]);
  }

  private static boolean arises(ComputedLap lap, Things things, CornerEntry e, Question question) {
    return Choices.arising(lap, things, e).contains(question);
  }

  private static CornerEntry taken(ComputedLap lap, Things things, CornerEntry e, School school) {
    return Choices.choose(lap, things, List.of(e), e.corner(), school).get(0);
  }

  private static Optional<Choices.Outcome> outcome(
      ComputedLap lap, Things things, CornerEntry e, School school) {
    return Choices.compare(lap, things, e, school.question(), PLAIN).outcomes().stream()
        .filter(o -> o.school() == school)
        .findFirst();
  }

  private static double past(ComputedLap lap, CornerEntry e, PointKind from, PointKind to) {
    return lap.road().apart(e.station(from).orElseThrow(), e.station(to).orElseThrow());
  }

  @Test
  void whereTheLapBrakesInTheTurnBrakingStraightCostsTime() {
    int asked = 0;
    double most = 0;
    for (int k = 0; k < 8; k++) {
      ComputedLap lap = lap(k);
      Things none = Things.none();
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        boolean turned =
            e.slowing() == Slowing.BRAKE && past(lap, e, PointKind.TURN_IN, PointKind.BRAKE) >= 2;
        boolean arises = arises(lap, none, e, Question.HANDS);
        assertThat(!arises || turned).as("%s", e.corner()).isTrue();
        if (!arises) {
          continue;
        }
        asked++;
        double margin = Answers.at(lap, none, lap.indexOf(e.corner())).margin(e);
        CornerEntry straight = taken(lap, none, e, School.BRAKE_FIRST);
        assertThat(past(lap, straight, PointKind.TURN_IN, PointKind.BRAKE))
            .isLessThanOrEqualTo(-10);
        assertThat(past(lap, straight, PointKind.TURN_IN, PointKind.RELEASE)).isLessThan(0.5);
        Choices.Outcome first = outcome(lap, none, e, School.BRAKE_FIRST).orElseThrow();
        Choices.Outcome now = outcome(lap, none, e, School.HANDS_FIRST).orElseThrow();
        assertThat(now.brakingMoved()).isZero();
        Double costs = first.toNext();
        if (costs != null) {
          assertThat(first.marginSeconds()).isGreaterThan(0.8 * margin - 0.03);
          double more = costs - Objects.requireNonNull(now.toNext());
          assertThat(more).as("%s", e.corner()).isGreaterThan(-0.01);
          most = Math.max(most, more);
        }
        // Taken, it can be asked again and leads back into the turn.
        assertThat(arises(lap, none, straight, Question.HANDS)).isTrue();
        CornerEntry back = taken(lap, none, straight, School.HANDS_FIRST);
        assertThat(past(lap, back, PointKind.TURN_IN, PointKind.BRAKE)).isGreaterThanOrEqualTo(2);
        assertThat(School.chosen(back.schools(), Question.HANDS)).contains(School.HANDS_FIRST);
      }
    }
    assertThat(asked).isGreaterThan(4);
    assertThat(most).isGreaterThan(0.05);
  }

  private static double load(ComputedLap lap, double station, double v) {
    Limits limits = lap.limits();
    return limits.load(lap.path(), lap.road().index(station), v * v) / limits.levelLoad(v);
  }

  @Test
  void aCrestInATurnIsSettledForOrHeldFlat() {
    int asked = 0;
    int slower = 0;
    int eased = 0;
    for (int k = 0; k < 8; k++) {
      ComputedLap lap = lap(k);
      Things none = Things.none();
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (!arises(lap, none, e, Question.CREST)) {
          continue;
        }
        asked++;
        CornerEntry settled = taken(lap, none, e, School.SETTLED_BEFORE);
        Action lift =
            settled.actions().stream()
                .filter(a -> a.id().equals("settle"))
                .findFirst()
                .orElseThrow();
        assertThat(lift.kind()).isEqualTo(ActionKind.LIFT);
        double comesBack = Objects.requireNonNull(lift.until());
        // Light shortly after it comes back, not before it is let go, and driven flat as planned.
        CornerAnswer.Profile p = Answers.answer(lap, e).profile();
        double least = 1;
        for (double m = 0; m < 60; m += p.step()) {
          double at = lap.road().wrap(comesBack + m);
          int i = (int) Math.round(lap.road().ahead(p.from(), at) / p.step());
          if (i < p.speed().length) {
            least = Math.min(least, load(lap, at, p.speed()[i]));
          }
        }
        assertThat(least).as("%s", e.corner()).isLessThan(0.87);
        int at = (int) Math.round(lap.road().ahead(p.from(), lift.station()) / p.step());
        assertThat(p.throttle()[at]).isGreaterThan(0.9);
        // Held flat again is as it was.
        CornerEntry flat = taken(lap, none, settled, School.HELD_FLAT);
        assertThat(flat.slowing()).isEqualTo(e.slowing());
        assertThat(flat.actions()).isEqualTo(e.actions());
        Choices.Outcome over = outcome(lap, none, e, School.HELD_FLAT).orElseThrow();
        Choices.Outcome before = outcome(lap, none, e, School.SETTLED_BEFORE).orElseThrow();
        Double seconds = before.toNext();
        if (seconds != null) {
          slower += seconds > Objects.requireNonNull(over.toNext()) ? 1 : 0;
          eased += before.asks() <= over.asks() + 0.02 ? 1 : 0;
          assertThat(over.asks()).isGreaterThan(0.1);
        }
      }
    }
    assertThat(asked).isGreaterThan(5);
    assertThat(slower).isGreaterThan(2 * asked / 3);
    assertThat(eased).isGreaterThan(2 * asked / 3);
  }

  private static Things posts(ComputedLap lap, double brake, double... before) {
    List<Landmark> posts = new ArrayList<>();
    for (double metres : before) {
      posts.add(
          new Landmark(
              "p" + posts.size(),
              LandmarkKind.BOARD,
              "board " + posts.size(),
              lap.road().wrap(brake - metres),
              posts.size() % 2 == 0,
              "c1"));
    }
    return new Things(posts, List.of(), List.of(), List.of(), List.of());
  }

  @Test
  void twoThingsHeldTogetherBrakeEarlierOnAverage() {
    int asked = 0;
    for (int k = 0; k < 4; k++) {
      ComputedLap lap = lap(k);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (e.slowing() != Slowing.BRAKE
            || !Answers.at(lap, Things.none(), lap.indexOf(e.corner())).makes(e)) {
          continue;
        }
        double brake = e.station(PointKind.BRAKE).orElseThrow();
        assertThat(arises(lap, posts(lap, brake, 8), e, Question.MARKERS)).isFalse();
        Things things = posts(lap, brake, 4, 11);
        assertThat(arises(lap, things, e, Question.MARKERS)).isTrue();
        asked++;
        CornerEntry two = taken(lap, things, e, School.TWO_MARKERS);
        assertThat(two.station(PointKind.BRAKE).orElseThrow()).isEqualTo(brake);
        Action marker = marker(lap, two);
        Cue first = Objects.requireNonNull(marker.cue());
        Cue second = Objects.requireNonNull(marker.together());
        assertThat(first.thing()).isNotEqualTo(second.thing());
        Cues cues = new Cues(lap, things);
        List<Action> score = Score.of(lap.road(), two);
        Earlier earlier =
            Earlier.of(
                0,
                cues.find(first, marker, score).precision(),
                0,
                cues.find(second, marker, score).precision());
        Choices.Outcome together = outcome(lap, things, two, School.TWO_MARKERS).orElseThrow();
        Choices.Outcome alone = outcome(lap, things, two, School.ONE_MARKER).orElseThrow();
        assertThat(together.brakingMoved()).isCloseTo(earlier.mean(), within(0.02));
        assertThat(together.precision()).isCloseTo(earlier.sigma(), within(0.02));
        assertThat(alone.brakingMoved()).isZero();
        assertThat(alone.precision())
            .isCloseTo(cues.find(first, marker, score).precision(), within(0.01));
        // What stands beside the action is the two of them, not the first alone.
        Double told =
            Answers.answer(lap, things, two).score().stream()
                .filter(s -> s.action().id().equals(marker.id()))
                .map(ScoredAction::precision)
                .findFirst()
                .orElseThrow();
        assertThat(told).isCloseTo(earlier.sigma(), within(0.02));
        if (together.toNext() != null && alone.toNext() != null) {
          assertThat(together.toNext() - alone.toNext()).isBetween(-0.003, 0.1);
        }
        CornerEntry again = taken(lap, things, two, School.ONE_MARKER);
        assertThat(marker(lap, again).together()).isNull();
        assertThat(marker(lap, again).cue()).isEqualTo(first);
      }
    }
    assertThat(asked).isGreaterThan(8);
  }

  private static Action marker(ComputedLap lap, CornerEntry e) {
    return Score.of(lap.road(), e).stream()
        .filter(a -> a.id().equals(Score.id(PointKind.BRAKE)))
        .findFirst()
        .orElseThrow();
  }
}
