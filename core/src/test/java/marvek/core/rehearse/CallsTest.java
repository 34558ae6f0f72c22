package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** The lap called aloud. */
class CallsTest {
  /** Five words at 200 km/h start 166.7 m before the marker. */
  @Test
  void aCallEndsASecondBeforeItsMarker() {
    List<Calls.Call> calls =
        Calls.of(List.of(new Calls.Cue(20, 1, List.of("brake hard at the board"))), 1);
    Calls.Call call = calls.get(0);
    assertThat(call.end()).isCloseTo(19, within(1e-9));
    assertThat((20 - call.start()) * 200 / 3.6).isCloseTo(166.7, within(0.05));
    // At half speed a second of the wall is half a second of the road.
    Calls.Call slow =
        Calls.of(List.of(new Calls.Cue(20, 1, List.of("brake hard at the board"))), 0.5).get(0);
    assertThat((20 - slow.start()) / 0.5).isCloseTo(3, within(1e-9));
  }

  @Test
  void numbersAreCountedAsTheyAreSpoken() {
    assertThat(Calls.words("at the 100 board")).isEqualTo(5);
    assertThat(Calls.words("150")).isEqualTo(3);
    assertThat(Calls.words("17")).isEqualTo(1);
    assertThat(Calls.words("84 %")).isEqualTo(2);
    assertThat(Calls.words("1250 m")).isEqualTo(6);
    assertThat(Calls.words("T3: brake – now")).isEqualTo(4);
  }

  /** Against every choice there is, on calls drawn by chance. */
  @Test
  void noOtherChoiceIsWorthMore() {
    Random chance = new Random(9);
    for (int round = 0; round < 200; round++) {
      List<Calls.Cue> cues = new ArrayList<>();
      double at = 3;
      for (int i = 0; i < 6; i++) {
        at += 0.3 + 2.5 * chance.nextDouble();
        List<String> texts = List.of("a b c d e f", "a b c d", "a b", "a");
        cues.add(new Calls.Cue(at, 0.05 + chance.nextDouble(), texts));
      }
      List<Calls.Call> calls = Calls.of(cues, 1);
      double end = Double.NEGATIVE_INFINITY;
      double worth = 0;
      for (Calls.Call c : calls) {
        assertThat(c.start()).isGreaterThanOrEqualTo(end - 1e-9);
        end = c.end();
        worth += worth(cues, c);
      }
      assertThat(worth).isCloseTo(best(cues, 0, Double.NEGATIVE_INFINITY), within(1e-9));
    }
  }

  private static final double[] SHARE = {1, 0.9, 0.75, 0.6};

  private static double worth(List<Calls.Cue> cues, Calls.Call call) {
    Calls.Cue cue = cues.stream().filter(c -> c.at() == call.at()).findFirst().orElseThrow();
    return cue.worth() * SHARE[cue.texts().indexOf(call.text())];
  }

  private static double best(List<Calls.Cue> cues, int i, double free) {
    if (i == cues.size()) {
      return 0;
    }
    double most = best(cues, i + 1, free);
    Calls.Cue c = cues.get(i);
    for (int k = 0; k < c.texts().size(); k++) {
      double start = c.at() - 1 - 0.4 * c.texts().get(k).split(" ").length;
      if (start >= free - 1e-9) {
        most = Math.max(most, c.worth() * SHARE[k] + best(cues, i + 1, c.at() - 1));
      }
    }
    return most;
  }
}
