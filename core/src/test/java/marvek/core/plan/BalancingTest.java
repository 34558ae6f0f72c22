package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Test;

class BalancingTest {
  @Test
  void look() {
    for (String v : List.of("cup-gt", "small-hatch", "single-seater", "motorcycle-600")) {
      CircuitReading read = RandomRoads.of(36, 260);
      ComputedLap computed = Drives.computed(read, v);
      List<CornerEntry> draft = Drafter.draft(computed, Drafter.boards(computed)).corners();
      for (int c = 0; c < draft.size(); c++) {
        long t = System.nanoTime();
        CornerBalance b = Answers.at(computed, Things.none(), c).balance(draft.get(c));
        System.out.printf("BB %s c%d %.1f ms%n", v, c, (System.nanoTime() - t) / 1e6);
        for (CornerBalance.Part p : List.of(b.entry(), b.middle(), b.exit())) {
          System.out.printf(
              "BB   %.0f m f %.2f r %.2f us %.2f deg %s%n",
              p.station(), p.front(), p.rear(), Math.toDegrees(p.understeer()), p.words());
        }
        for (CornerBalance.Move m : b.moves()) {
          System.out.printf(
              "BB   %s %.4f %.4f %.4f corner %s lap %s%n",
              m.what(), m.entry(), m.middle(), m.exit(), m.corner(), m.lap());
        }
      }
    }
    assertThat(true).isTrue();
  }
}
