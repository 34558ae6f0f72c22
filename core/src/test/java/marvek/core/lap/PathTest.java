package marvek.core.lap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import marvek.core.circuit.Centreline;
import marvek.core.fixtures.Tracks;
import org.junit.jupiter.api.Test;

class PathTest {
  private static final Centreline CIRCLE = Tracks.every(4).arc(100, 360).survey().centreline();

  @Test
  void aLineBesideACircleIsACircleOfItsOwnRadius() {
    for (double offset : new double[] {-6, 0, 6}) {
      double[] n = new double[CIRCLE.size()];
      Arrays.fill(n, offset);
      Path path = Path.over(CIRCLE, n);
      // Positive offset is to the left, and a left turn's left side is its inside.
      assertThat(path.length()).isCloseTo(2 * Math.PI * (100 - offset), within(0.6));
      for (double k : path.curvature()) {
        assertThat(k).isCloseTo(1 / (100 - offset), within(2e-4));
      }
    }
  }

  @Test
  void aWaveOnAStraightHasTheCurvatureOfItsFormula() {
    // Far inside a long straight: κ = y″/(1 + y′²)^1.5 of y = A sin(ws).
    Centreline road = Tracks.stadium(1500, 200, 8).survey().centreline();
    double[] n = new double[road.size()];
    double w = 2 * Math.PI / 120;
    for (int i = 0; i < n.length; i++) {
      n[i] = 2 * Math.sin(w * i * road.step());
    }
    Path path = Path.over(road, n);
    for (int i = 300; i < 1200; i += 7) {
      double s = i * road.step();
      double slope = 2 * w * Math.cos(w * s);
      double expected = -2 * w * w * Math.sin(w * s) / Math.pow(1 + slope * slope, 1.5);
      assertThat(path.curvature()[i]).isCloseTo(expected, within(1e-4));
    }
  }

  @Test
  void theMiddleOfTheRoadIsTheRoad() {
    Path path = Path.middle(CIRCLE);
    assertThat(path.curvature()).containsExactly(CIRCLE.curvature(), within(1e-12));
    assertThat(path.length()).isCloseTo(CIRCLE.length(), within(1e-6));
    assertThat(path.size()).isEqualTo(CIRCLE.size());
  }
}
