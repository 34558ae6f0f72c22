package marvek.server.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import marvek.core.numeric.Spread;
import org.junit.jupiter.api.Test;

/** Work that several do at once. */
class HelpersTest {
  private static final List<Integer> MANY = IntStream.range(0, 200).boxed().toList();

  @Test
  void whatComesOutStandsInOrderWhoeverDidIt() {
    for (Spread spread : List.of(new Helpers(0), new Helpers(3), Spread.inTurn())) {
      assertThat(spread.each(MANY, i -> i * i)).isEqualTo(MANY.stream().map(i -> i * i).toList());
      assertThat(spread.each(List.<Integer>of(), i -> i)).isEmpty();
    }
  }

  @Test
  void twoAreAtWorkAtOnce() {
    CountDownLatch both = new CountDownLatch(2);
    List<Boolean> met =
        new Helpers(1)
            .each(
                List.of(1, 2),
                i -> {
                  both.countDown();
                  return await(both);
                });
    assertThat(met).containsExactly(true, true);
  }

  private static boolean await(CountDownLatch latch) {
    try {
      return latch.await(20, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  /** A helper that is busy with something else holds nobody up. */
  @Test
  void whoeverAsksWaitsForNoHelperThatHasNotBegun() throws InterruptedException {
    Helpers helpers = new Helpers(1);
    CountDownLatch busy = new CountDownLatch(2);
    CountDownLatch free = new CountDownLatch(1);
    Thread other =
        new Thread(
            () ->
                helpers.each(
                    List.of(1, 2),
                    i -> {
                      busy.countDown();
                      return await(free);
                    }));
    other.start();
    assertThat(await(busy)).isTrue();
    assertThat(helpers.each(MANY, i -> i + 1)).hasSize(MANY.size());
    free.countDown();
    other.join(Duration.ofSeconds(20).toMillis());
    assertThat(other.isAlive()).isFalse();
  }

  @Test
  void whatFailsIsThrownAsItWasAndEndsTheRest() {
    for (int count : List.of(0, 1)) {
      Set<Integer> begun = ConcurrentHashMap.newKeySet();
      assertThatThrownBy(
              () ->
                  new Helpers(count)
                      .each(
                          MANY,
                          i -> {
                            begun.add(i);
                            if (i == 3) {
                              throw new IllegalArgumentException("three");
                            }
                            return i;
                          }))
          .isInstanceOf(IllegalArgumentException.class)
          .hasMessage("three");
      assertThat(begun).contains(3);
      if (count == 0) {
        assertThat(begun).hasSize(4);
      }
    }
  }
}
