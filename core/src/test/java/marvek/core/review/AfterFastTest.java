package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.said.Said;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Corners that look slower than they are, as what came before was fast for long. */
@Tag("slow")
class AfterFastTest {
  private static boolean warned(ComputedLap lap, CornerEntry e) {
    return Hazards.of(lap, Things.none(), e).warnings().stream()
        .map(Said::key)
        .anyMatch("hazard.after_fast"::equals);
  }

  /** Seconds without a break, up to the braking for a corner, at that many times its speed. */
  private static double fast(ComputedLap lap, Corner corner, double times) {
    double[] speed = lap.lap().speed();
    double length = lap.road().length();
    double low = Double.MAX_VALUE;
    double at = corner.entry();
    for (double s = 0; s <= lap.road().ahead(corner.entry(), corner.exit()); s += 0.5) {
      double v = speed[lap.road().index(lap.road().wrap(corner.entry() + s))];
      at = v < low ? corner.entry() + s : at;
      low = Math.min(low, v);
    }
    double seconds = 0;
    boolean reached = false;
    for (double back = 0; back < length; back += 0.5) {
      double v = speed[lap.road().index(lap.road().wrap(at - back))];
      reached |= v >= times * low;
      if (reached && v < times * low) {
        break;
      }
      seconds += reached ? 0.5 / v : 0;
    }
    return seconds;
  }

  @Test
  void areWarnedOfAndNoOthers() {
    int looks = 0;
    int others = 0;
    for (String vehicle : List.of("cup-gt", "single-seater", "motorcycle-1000")) {
      ComputedLap lap =
          Drives.computed(
              CircuitReader.read(
                  OutlineFile.read(Tracks.square(900, 30, 4).csv()),
                  new CircuitReader.Choices(false, 200, 12, false)),
              vehicle);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        double fast = fast(lap, lap.corners().get(lap.indexOf(e.corner())), 1.8);
        looks += warned(lap, e) ? 1 : 0;
        assertThat(warned(lap, e)).as("%s %.1f s", e.corner(), fast).isEqualTo(fast > 8);
      }
    }
    for (int k = 0; k < 6; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(8100 + k, 150 + 30 * k), "cup-gt");
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        double fast = fast(lap, lap.corners().get(lap.indexOf(e.corner())), 1.8);
        if (fast < 7.5) {
          others++;
          assertThat(warned(lap, e)).as("%s %.1f s", e.corner(), fast).isFalse();
        }
      }
    }
    assertThat(looks).isGreaterThan(3);
    assertThat(others).isGreaterThan(20);
  }
}
