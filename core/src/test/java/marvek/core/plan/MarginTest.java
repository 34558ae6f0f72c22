package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.DrawnRoads;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The margin of a braking marker, on roads that nobody drew. */
@Tag("slow")
class MarginTest {

  private static CircuitReading road(long seed) {
    return seed % 2 == 0
        ? RandomRoads.of(seed, 220 + 10 * (seed % 30))
        : CircuitReader.read(
            OutlineFile.read(DrawnRoads.of(seed, 20, 160, 9).csv(5, 0, seed)),
            CircuitReader.Choices.asItComes());
  }

  @ParameterizedTest
  @CsvSource({
    "301, cup-gt",
    "302, small-hatch",
    "303, motorcycle-600",
    "304, motorcycle-1000",
    "305, single-seater",
    "306, downforce-prototype",
    "307, cup-gt",
    "308, single-seater"
  })
  void doesNotGrowAsTheMarkerMovesLater(long seed, String vehicle) {
    ComputedLap computed = Drives.computed(road(seed), vehicle);
    int looked = 0;
    List<String> grown = new ArrayList<>();
    for (CornerEntry e : Drafter.draft(computed, List.of()).corners()) {
      if (e.slowing() != Slowing.BRAKE) {
        continue;
      }
      double brake = e.station(PointKind.BRAKE).orElseThrow();
      double before = Double.MAX_VALUE;
      for (double on = -60; on <= 60; on += 6) {
        double station = computed.road().wrap(brake + on);
        List<CornerPoint> points = new ArrayList<>(e.points());
        points.replaceAll(
            p -> p.kind() == PointKind.BRAKE ? new CornerPoint(p.kind(), station, null) : p);
        CornerAnswer answer = Answers.answer(computed, e.copy().points(points).done());
        double margin = answer.braking() == null ? Double.NaN : answer.braking().marginMetres();
        assertThat(margin).isFinite();
        if (margin > before + 0.5) {
          grown.add(
              String.format("%s at %+.0f m: %.1f after %.1f", e.corner(), on, margin, before));
        }
        before = margin;
        looked++;
      }
    }
    assertThat(grown).as("%d places of %s on road %d", looked, vehicle, seed).isEmpty();
    assertThat(looked).isPositive();
  }

  /**
   * What is said of a marker and of the last place go together: one that makes it lies before the
   * last place, and one before it by more than a step makes it, unless what else is written of the
   * pedals asks for more.
   */
  @ParameterizedTest
  @CsvSource({
    "4, 45, cup-gt",
    "404, 220, small-hatch",
    "403, 220, motorcycle-600",
    "407, 150, downforce-prototype"
  })
  void agreesWithWhetherItIsMade(long seed, double radius, String vehicle) {
    ComputedLap computed = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    int made = 0;
    int not = 0;
    List<String> odd = new ArrayList<>();
    for (CornerEntry e : Drafter.draft(computed, List.of()).corners()) {
      if (e.slowing() != Slowing.BRAKE) {
        continue;
      }
      double brake = e.station(PointKind.BRAKE).orElseThrow();
      for (double on = 0; on <= 30; on += 2) {
        double station = computed.road().wrap(brake + on);
        List<CornerPoint> points = new ArrayList<>(e.points());
        points.replaceAll(
            p -> p.kind() == PointKind.BRAKE ? new CornerPoint(p.kind(), station, null) : p);
        CornerAnswer answer = Answers.answer(computed, e.copy().points(points).done());
        CornerAnswer.BrakingNumbers told = answer.braking();
        if (told == null) {
          continue;
        }
        double margin = told.marginMetres();
        boolean marker =
            answer.score().stream()
                .filter(a -> a.action().id().equals(PlannedCorner.MARKER))
                .allMatch(ScoredAction::made);
        boolean wrong = told.makesIt() ? margin < -0.01 : !marker && margin > 1.01;
        if (wrong) {
          odd.add(String.format("%s %+.1f m: %s, %.1f m", e.corner(), on, told.makesIt(), margin));
        }
        made += told.makesIt() ? 1 : 0;
        not += told.makesIt() ? 0 : 1;
      }
    }
    assertThat(odd).as("%s on road %d", vehicle, seed).isEmpty();
    assertThat(made).isPositive();
    assertThat(not).isPositive();
  }
}
