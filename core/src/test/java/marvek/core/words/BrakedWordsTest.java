package marvek.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is said of corners that are turned into on the brakes for another. */
class BrakedWordsTest {
  private static List<String> lengths(Corner corner, CornerEntry e, Speech speech) {
    return List.of(
        Sentence.line(corner, e, speech),
        Sentence.full(corner, e, speech),
        Sentence.pocket(corner, e, speech),
        Sentence.spoken(corner, e, speech),
        Sentence.brief(corner, e, speech));
  }

  /** Who lifts there, as for other corners, arrives too fast. */
  @ParameterizedTest
  @CsvSource({"706, 200, small-hatch", "718, 200, small-hatch", "718, 240, cup-gt"})
  void aCornerUnderTheBrakesForAnotherIsNotLiftedFor(long seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    Speech speech = Speech.PLAIN.on(lap.road().length()).braked(lap.braked());
    int braked = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      Corner corner = lap.corners().get(lap.indexOf(e.corner()));
      Corner under = lap.braked().get(e.corner());
      if (under == null) {
        assertThat(lengths(corner, e, speech)).noneMatch(s -> s.contains("on the brakes"));
        assertThat(Sentence.words(corner, e, speech).braked()).isEmpty();
        continue;
      }
      braked++;
      assertThat(e.slowing()).isEqualTo(Slowing.LIFT);
      assertThat(under).isNotEqualTo(corner);
      assertThat(lengths(corner, e, speech))
          .allMatch(s -> s.toLowerCase(Locale.ROOT).contains("on the brakes"))
          .noneMatch(s -> s.toLowerCase(Locale.ROOT).contains("lift"));
      assertThat(Sentence.line(corner, e, speech))
          .contains("the brakes for corner " + under.number());
      assertThat(Sentence.words(corner, e, speech).braked()).isEqualTo(under.number());
      // Who means to stay flat, or brakes, is told that.
      assertThat(lengths(corner, e.copy().slowing(Slowing.FLAT).done(), speech))
          .noneMatch(s -> s.toLowerCase(Locale.ROOT).contains("on the brakes"));
      double at = lap.road().wrap(e.station(PointKind.TURN_IN).orElseThrow() - 20);
      Action own = Action.of("brake-1", ActionKind.BRAKE, at, 0.5);
      assertThat(lengths(corner, e.copy().actions(List.of(own)).done(), speech))
          .noneMatch(s -> s.toLowerCase(Locale.ROOT).contains("on the brakes"));
    }
    assertThat(braked).isPositive();
  }
}
