package marvek.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.Test;

class LoopTest {
  private final Random random = new Random(4);

  @Test
  void walkingAheadArrives() {
    for (int t = 0; t < 2000; t++) {
      Loop loop = new Loop(1 + random.nextInt(50));
      int from = random.nextInt(400) - 200;
      int to = random.nextInt(400) - 200;
      int ahead = loop.ahead(from, to);
      assertThat(ahead).isBetween(0, loop.size() - 1);
      assertThat(loop.at(from + ahead)).isEqualTo(loop.at(to)).isBetween(0, loop.size() - 1);
      int apart = loop.apart(from, to);
      assertThat(loop.at(from + apart)).isEqualTo(loop.at(to));
      assertThat(2 * Math.abs(apart)).isLessThanOrEqualTo(loop.size());
    }
  }

  @Test
  void theShortWayMayBeBack() {
    Loop loop = new Loop(100);
    assertThat(loop.apart(95, 5)).isEqualTo(10);
    assertThat(loop.apart(5, 95)).isEqualTo(-10);
    assertThat(loop.at(-1)).isEqualTo(99);
    assertThat(loop.at(3L * 100 + 7)).isEqualTo(7);
  }

  @Test
  void aSpanHoldsWhatItGoesThrough() {
    for (int t = 0; t < 500; t++) {
      Loop loop = new Loop(2 + random.nextInt(40));
      int first = random.nextInt(200) - 100;
      int last = random.nextInt(200) - 100;
      Span span = loop.between(first, last);
      int[] indices = span.indices().toArray();
      assertThat(indices[0]).isEqualTo(loop.at(first));
      assertThat(indices[indices.length - 1]).isEqualTo(loop.at(last));
      for (int i = 0; i < loop.size(); i++) {
        int index = i;
        assertThat(span.holds(i)).isEqualTo(span.any(k -> k == index));
      }
    }
  }

  @Test
  void aSpanAcrossTheLineTakesItsValues() {
    Span span = new Loop(5).from(-2, 4);
    assertThat(span.of(new double[] {0, 1, 2, 3, 4})).containsExactly(3, 4, 0, 1);
    assertThat(span.holds(2)).isFalse();
    assertThatThrownBy(() -> new Span(new Loop(5), 5, 1))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> new Loop(0)).isInstanceOf(IllegalArgumentException.class);
  }
}
