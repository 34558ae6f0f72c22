package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import org.junit.jupiter.api.Test;

/** A way taken for a stretch of corners, each as if it were taken there alone. */
class StyleOfStretchTest {
  @Test
  void eachCornerOfTheStretchFollowsWhereItCanAndNoOther() {
    int took = 0;
    int left = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-600")) {
      ComputedLap lap = Drives.computed(RandomRoads.of(641, 300), vehicle);
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      int n = draft.size();
      for (School school : List.of(School.TO_APEX, School.LATE_APEX)) {
        // Over the start line, and one corner alone.
        for (int[] way : new int[][] {{n - 2, 2}, {3, 3}}) {
          List<CornerEntry> expected = new ArrayList<>();
          for (int c = way[0]; ; c = (c + 1) % n) {
            List<CornerEntry> one =
                Choices.arising(lap, Things.none(), draft.get(c)).contains(school.question())
                    ? Choices.choose(lap, Things.none(), draft, draft.get(c).corner(), school)
                    : List.of();
            expected.addAll(one);
            left += one.isEmpty() ? 1 : 0;
            if (c == way[1]) {
              break;
            }
          }
          List<CornerEntry> changed =
              Choices.chooseTo(
                  lap,
                  Things.none(),
                  draft,
                  draft.get(way[0]).corner(),
                  draft.get(way[1]).corner(),
                  school);
          assertThat(changed).isEqualTo(expected);
          assertThat(changed).allMatch(e -> e.schools().contains(school));
          took += changed.size();
        }
      }
    }
    assertThat(took).isGreaterThan(8);
    assertThat(left).isPositive();
  }
}
