package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import marvek.core.debrief.Sections.Phase;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Device;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

/** A lap cut by its corners. */
class SectionsTest {
  private static final Sections SECTIONS = new Sections(Device.DESK, Device.DRAFT);
  private static final double LENGTH = Device.DESK.road().length();
  private static final int CORNERS = Device.DRAFT.size();

  private static LapData at(double[] speeds, double step) {
    double[] times = new double[speeds.length + 1];
    for (int i = 0; i < speeds.length; i++) {
      times[i + 1] = times[i] + step / speeds[i];
    }
    return new LapData("l", "r", 1, times[times.length - 1], step, times, List.of(), true);
  }

  private static LapData random(long seed) {
    Random chance = new Random(seed);
    int n = 200 + chance.nextInt(400);
    return at(chance.doubles(n, 10, 80).toArray(), LENGTH / n);
  }

  @Property(tries = 60)
  void sectionsAddUpToTheLapWhateverWasDriven(@ForAll @LongRange(min = 0, max = 1000) long seed) {
    LapData lap = random(seed);
    double sum = 0;
    for (int c = 0; c < CORNERS; c++) {
      double section = SECTIONS.time(lap, c);
      assertThat(section).isPositive();
      double parts = 0;
      for (Phase p : Phase.values()) {
        assertThat(SECTIONS.time(lap, c, p)).isGreaterThanOrEqualTo(-1e-9);
        parts += SECTIONS.time(lap, c, p);
      }
      assertThat(parts).isCloseTo(section, within(1e-9));
      sum += section;
    }
    assertThat(sum).isCloseTo(lap.lapTime(), within(1e-6));
  }

  @Test
  void atOneSpeedSecondsAreMetres() {
    int n = (int) (LENGTH / 5);
    double[] even = new double[n];
    java.util.Arrays.fill(even, 25);
    LapData lap = at(even, LENGTH / n);
    for (int c = 0; c < CORNERS; c++) {
      var entry = Device.DRAFT.get(c);
      double braking =
          Device.DESK
              .road()
              .ahead(
                  entry.station(PointKind.BRAKE).orElseThrow(),
                  entry.station(PointKind.TURN_IN).orElseThrow());
      assertThat(SECTIONS.time(lap, c, Phase.BRAKING)).isCloseTo(braking / 25, within(1e-6));
    }
  }

  @Test
  void whatIsLostOnAStraightIsChargedToTheCornerBeforeIt() {
    int n = (int) (LENGTH / 2);
    double step = LENGTH / n;
    double[] even = new double[n];
    java.util.Arrays.fill(even, 30);
    double[] slow = even.clone();
    double exit = Device.DRAFT.get(0).station(PointKind.EXIT).orElseThrow();
    for (int i = 0; i < n; i++) {
      double s = i * step;
      slow[i] = s > exit + 5 && s < exit + 85 ? 27 : 30;
    }
    double lost = at(slow, step).lapTime() - at(even, step).lapTime();
    assertThat(SECTIONS.time(at(slow, step), 0) - SECTIONS.time(at(even, step), 0))
        .isCloseTo(lost, within(1e-6));
    assertThat(SECTIONS.time(at(slow, step), 1))
        .isCloseTo(SECTIONS.time(at(even, step), 1), within(1e-6));
  }

  @Test
  void theBestOfAllCornersIsNeverSlowerThanTheBestLap() {
    double theoretical = 0;
    double best = Double.MAX_VALUE;
    for (int c = 0; c < CORNERS; c++) {
      double least = Double.MAX_VALUE;
      for (long seed = 0; seed < 8; seed++) {
        LapData lap = random(seed);
        least = Math.min(least, SECTIONS.time(lap, c));
        best = Math.min(best, lap.lapTime());
      }
      theoretical += least;
    }
    assertThat(theoretical).isLessThanOrEqualTo(best + 1e-9);
  }
}
