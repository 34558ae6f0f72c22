package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import marvek.core.fixtures.Plain;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** How many laps a driver takes to settle in. */
class SettlingTest {
  /** Laps of a driver who loses by and by less until a lap, and spreads after it as drivers do. */
  private static List<@Nullable Double> session(Random random, int settles, int laps) {
    List<@Nullable Double> out = new ArrayList<>();
    double pace = 80 + 40 * random.nextDouble();
    for (int k = 1; k <= laps; k++) {
      double nerves = k < settles ? 0.02 + 0.01 * (settles - k) : 0;
      out.add(pace * (1 + nerves + 0.0015 * random.nextGaussian()));
    }
    return out;
  }

  @Test
  void aPlantedLapIsFoundInNineOfTenDrivers() {
    Random random = new Random(9);
    int found = 0;
    int tried = 0;
    for (int k = 0; k < 300; k++) {
      int settles = 1 + random.nextInt(4);
      List<List<@Nullable Double>> sessions = new ArrayList<>();
      for (int s = 0; s < 2 + random.nextInt(4); s++) {
        sessions.add(session(random, settles, 9 + random.nextInt(8)));
      }
      Settling told = Settling.of(sessions).orElseThrow();
      assertThat(told.sessions()).isEqualTo(sessions.size());
      tried++;
      found += told.lap() == settles ? 1 : 0;
      if (settles == 1) {
        assertThat(Math.abs(told.costs())).isLessThan(1.5);
      } else if (told.lap() == settles) {
        assertThat(told.costs()).isGreaterThan(1.0);
      }
    }
    assertThat(found).isGreaterThan(tried * 9 / 10);
  }

  @Test
  void whatIsLostBeforeIsSummed() {
    List<@Nullable Double> one = Arrays.asList(104.0, 102.0, null, 100.0, 100.0, 100.0, 100.0);
    Settling told = Settling.of(List.of(one, one)).orElseThrow();
    assertThat(told.lap()).as("a lap that says nothing is a lap").isEqualTo(4);
    assertThat(told.costs()).isCloseTo(6, within(1e-9));
    assertThat(Plain.words(told.words(2)))
        .contains("lap 4", "2 sessions", "6.0 s", "2 laps after the tyres");
    assertThat(Plain.words(told.words(4))).contains("with the tyres");
  }

  @Test
  void fewLapsOrSessionsTellNothing() {
    Random random = new Random(3);
    assertThat(Settling.of(List.of())).isEmpty();
    assertThat(Settling.of(List.of(session(random, 2, 12)))).isEmpty();
    assertThat(Settling.of(List.of(session(random, 2, 12), session(random, 2, 4)))).isEmpty();
    assertThat(Settling.of(List.of(session(random, 2, 12), session(random, 2, 5)))).isPresent();
  }
}
