package marvek.core.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.Day;
import marvek.core.entry.DayKind;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import org.junit.jupiter.api.Test;

/** Lines that schools ask for, on days that keep the lap's own line. */
class KeptLinesTest {
  private static final List<School> SCHOOLS =
      List.of(School.LATE_APEX, School.EARLY_APEX, School.TIGHT);
  // Of a corner's stretch, with what a search leaves over.
  private static final double ALIKE = 0.003;

  private static Day day(double grip, double mass) {
    return new Day(grip, mass, 0, 0, 1, 1, null, "", null, null);
  }

  /** A day that keeps the lap's line keeps theirs, and hardly loses by it. */
  @Test
  void aDayThatKeepsTheLineKeepsThoseOfTheSchools() {
    List<Double> lost = new ArrayList<>();
    for (String vehicle : List.of("cup-gt", "motorcycle-600", "downforce-prototype")) {
      ComputedLap base = Drives.computed(RandomRoads.of(821, 380), vehicle);
      for (Day day : List.of(day(0.92, 0), day(1.03, 30))) {
        ComputedLap then = Variants.computed(base, Footing.plain(List.of()), day);
        assertThat(then.path().offset()).isEqualTo(base.path().offset());
        for (int c = 0; c < base.corners().size(); c += 3) {
          for (School school : SCHOOLS) {
            SchoolLine was = base.laid(Things.none(), c, List.of(school), 0);
            SchoolLine is = then.laid(Things.none(), c, List.of(school), 0);
            assertThat(is.path().offset()).isEqualTo(was.path().offset());
            assertThat(is.line()).isEqualTo(was.line());
            // The ground is that of the day.
            assertThat(is.path().grip()).isEqualTo(then.path().grip());
            SchoolLine anew = then.on(then.conditions()).laid(Things.none(), c, List.of(school), 0);
            double kept = then.along(is.path()).lap().lapTime();
            lost.add(kept / then.along(anew.path()).lap().lapTime() - 1);
          }
        }
      }
    }
    assertThat(lost).hasSizeGreaterThan(40).allMatch(l -> Math.abs(l) < ALIKE);
    assertThat(lost.stream().mapToDouble(l -> l).average().orElseThrow())
        .isCloseTo(0, within(ALIKE / 5));
  }

  /** With far less grip the lap has a line of its own, and so have the schools. */
  @Test
  void aDayWithALineOfItsOwnLaysThemAnew() {
    ComputedLap base = Drives.computed(RandomRoads.of(821, 380), "cup-gt");
    ComputedLap wet = Variants.computed(base, Footing.plain(List.of()), DayKind.WET.usual());
    int moved = 0;
    for (int c = 0; c < base.corners().size(); c++) {
      double[] was = base.laid(Things.none(), c, SCHOOLS.subList(0, 1), 0).path().offset();
      double[] is = wet.laid(Things.none(), c, SCHOOLS.subList(0, 1), 0).path().offset();
      double most = 0;
      for (int i = 0; i < was.length; i++) {
        most = Math.max(most, Math.abs(was[i] - is[i]));
      }
      moved += most > 0.05 ? 1 : 0;
    }
    assertThat(moved).isGreaterThan(base.corners().size() / 2);
  }
}
