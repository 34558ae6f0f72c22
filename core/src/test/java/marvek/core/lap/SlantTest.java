package marvek.core.lap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import marvek.core.units.Units;
import org.junit.jupiter.api.Test;

class SlantTest {
  /** Sine, cosine and weight on a plane that is inclined both ways: any textbook of mechanics. */
  @Test
  void isThatOfAnInclinedPlane() {
    Random random = new Random(5);
    int n = 200;
    double[] gradient = random.doubles(n, -0.3, 0.3).toArray();
    double[] crossfall = random.doubles(n, -1, 1).toArray();
    Slant slant = Slant.of(gradient, crossfall);
    for (int i = 0; i < n; i++) {
      double level = Math.cos(gradient[i]) * Math.cos(crossfall[i]);
      assertThat(slant.sine()[i]).isCloseTo(Math.sin(crossfall[i]), within(1e-6));
      assertThat(slant.cosine()[i]).isCloseTo(Math.cos(crossfall[i]), within(2e-6));
      assertThat(slant.load()[i]).isCloseTo(Units.G * level, within(3e-5));
      assertThat(slant.climb()[i]).isCloseTo(Units.G * Math.sin(gradient[i]), within(3e-4));
    }
  }
}
