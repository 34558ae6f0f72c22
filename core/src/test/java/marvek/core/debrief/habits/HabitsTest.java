package marvek.core.debrief.habits;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The habits as a whole: each once, and what brings another about before it. */
class HabitsTest {
  private static final List<String> IDS = Habits.all().stream().map(Habit::id).toList();

  @Test
  void eachStandsOnceAndAtAPlaceOfItsOwn() {
    assertThat(IDS).isNotEmpty().doesNotHaveDuplicates();
    assertThat(Habits.all().stream().map(Habit::rank)).doesNotHaveDuplicates();
  }

  /** The usual chains of the trade (common practice, no source). */
  @ParameterizedTest
  @CsvSource({
    "FROM_THE_CORNER_BEFORE, BRAKED_LATE_RAN_DEEP",
    "FROM_THE_CORNER_BEFORE, OVER_SLOWED",
    "BRAKED_LATE_RAN_DEEP, KERB_MISSED",
    "BRAKED_LATE_RAN_DEEP, FULL_LATE",
    "TURNED_IN_EARLY_RAN_WIDE, BEYOND_THE_EDGE",
    "THROTTLE_THEN_LIFT, FULL_LATE",
    "RELEASED_SOON, COASTING",
    "BRAKED_EARLY, OVER_SLOWED"
  })
  void whatBringsAnotherAboutIsNamedFirst(String first, String then) {
    assertThat(IDS).contains(first, then);
    assertThat(IDS.indexOf(first)).isLessThan(IDS.indexOf(then));
  }

  @Test
  void onlyWhatBeginsInTheCornerBeforeSaysSo() {
    assertThat(Habits.all().stream().filter(Habit::beginsBefore).map(Habit::id))
        .containsExactly("FROM_THE_CORNER_BEFORE");
  }
}
