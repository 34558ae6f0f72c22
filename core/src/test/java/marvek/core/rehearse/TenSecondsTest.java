package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** The lap in ten seconds, against all that could be said. */
class TenSecondsTest {
  private static double most(List<TenSeconds.Item> items, int from, int room) {
    if (from == items.size()) {
      return 0;
    }
    double best = most(items, from + 1, room);
    List<String> texts = items.get(from).texts();
    for (int i = 0; i < texts.size(); i++) {
      int takes = Calls.words(texts.get(i));
      if (takes <= room) {
        double worth = items.get(from).worth() * (i == 0 ? 1 : TenSeconds.SHORTER);
        best = Math.max(best, worth + most(items, from + 1, room - takes));
      }
    }
    return best;
  }

  @Test
  void nothingThatFitsInTenSecondsIsWorthMore() {
    SplittableRandom chance = new SplittableRandom(11);
    int full = 0;
    for (int k = 0; k < 200; k++) {
      List<TenSeconds.Item> items = new ArrayList<>();
      for (int i = 0; i < 9; i++) {
        String name = "c" + i + " ";
        items.add(
            new TenSeconds.Item(
                0.01 + chance.nextDouble(),
                List.of(
                    name + "brake ".repeat(3 + chance.nextInt(6)).strip(),
                    name + "brake ".repeat(2).strip())));
      }
      List<String> said = TenSeconds.of(items);
      int words = said.stream().mapToInt(Calls::words).sum();
      assertThat(words).isLessThanOrEqualTo(TenSeconds.WORDS);
      full += said.stream().anyMatch(t -> Calls.words(t) > 3) ? 1 : 0;
      double worth = 0;
      int last = -1;
      for (String text : said) {
        int of = Integer.parseInt(text.substring(1, 2));
        assertThat(of).isGreaterThan(last);
        last = of;
        worth +=
            items.get(of).worth()
                * (items.get(of).texts().indexOf(text) == 0 ? 1 : TenSeconds.SHORTER);
      }
      assertThat(worth).isCloseTo(most(items, 0, TenSeconds.WORDS), within(1e-3));
    }
    // What is worth most is said in full.
    assertThat(full).isGreaterThan(150);
  }

  @Test
  void aShortLapIsSaidInFull() {
    assertThat(
            TenSeconds.of(
                List.of(
                    new TenSeconds.Item(0.1, List.of("one brake at the bridge", "one brake")),
                    new TenSeconds.Item(0, List.of()))))
        .containsExactly("one brake at the bridge");
    assertThat(TenSeconds.of(List.of())).isEmpty();
  }
}
