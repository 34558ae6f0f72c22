package marvek.core.circuit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.fixtures.Tracks;
import org.junit.jupiter.api.Test;

class CornersAnewTest {
  private static final CircuitReading READ =
      Tracks.every(6)
          .straight(300)
          .bend(600, 60, 40)
          .straight(300)
          .bend(80, 120, 30)
          .straight(300)
          .bend(600, 60, 40)
          .straight(300)
          .bend(80, 120, 30)
          .survey();

  @Test
  void whatIsThereTodayIsNothingNew() {
    assertThat(READ.corners()).hasSize(4);
    CornerBook.Anew anew = CornerBook.anew(READ.centreline(), READ.corners());
    assertThat(anew.added()).isEmpty();
    assertThat(anew.apexes()).isEmpty();
    assertThat(anew.corners()).isEqualTo(CornerBook.settled(READ.centreline(), READ.corners()));
  }

  @Test
  void aLongBendThatWasNoCornerIsAddedBesideTheNumbersThere() {
    // As an earlier reading had it: the two tight bends only, one under a name and a number of the
    // driver's.
    Corner first = READ.corners().get(1);
    Corner second = READ.corners().get(3);
    List<Corner> there =
        List.of(first.numbered("c1", "1").named("Mill"), second.numbered("c2", "7"));
    CornerBook.Anew anew = CornerBook.anew(READ.centreline(), there);
    assertThat(anew.added()).hasSize(2).allMatch(c -> Math.abs(c.radius() - 600) < 30);
    assertThat(anew.corners().stream().map(Corner::number)).containsExactly("7A", "1", "1A", "7");
    assertThat(anew.corners().stream().map(Corner::id))
        .doesNotHaveDuplicates()
        .contains("c1", "c2");
    assertThat(anew.corners().get(1).name()).isEqualTo("Mill");
    assertThat(anew.apexes()).isEmpty();
  }

  @Test
  void anApexThatLayAtTheArcsEndIsFoundInItsMiddle() {
    List<Corner> there = new ArrayList<>(READ.corners());
    Corner c = there.get(1);
    there.set(1, c.apexed(List.of(c.apex() + 20)));
    CornerBook.Anew anew = CornerBook.anew(READ.centreline(), there);
    assertThat(anew.apexes()).containsExactly(c.id());
    assertThat(anew.corners().get(1).apex()).isCloseTo(c.apex(), within(0.1));
    assertThat(anew.corners().get(1).id()).isEqualTo(c.id());
  }

  @Test
  void cornersThatTheDriverHasMergedOrSplitStayAsTheyAre() {
    Corner a = READ.corners().get(0);
    Corner b = READ.corners().get(1);
    Corner merged =
        new Corner(
            "c1",
            "1",
            "",
            a.left(),
            a.entry(),
            List.of(b.apex() + 12),
            b.exit(),
            80,
            3,
            CornerKind.BEND,
            0);
    CornerBook.Anew one =
        CornerBook.anew(
            READ.centreline(), List.of(merged, READ.corners().get(2), READ.corners().get(3)));
    assertThat(one.added()).isEmpty();
    assertThat(one.apexes()).isEmpty();
    assertThat(one.corners().get(0).apexes()).isEqualTo(merged.apexes());

    double middle = b.apex();
    List<Corner> split = new ArrayList<>(READ.corners());
    split.set(1, part(b, "c2", "2A", b.entry(), middle));
    split.add(2, part(b, "c2b", "2B", middle, b.exit()));
    CornerBook.Anew two = CornerBook.anew(READ.centreline(), split);
    assertThat(two.added()).isEmpty();
    assertThat(two.apexes()).isEmpty();
    assertThat(two.corners()).hasSize(5);
  }

  private static Corner part(Corner c, String id, String number, double from, double to) {
    return new Corner(
        id, number, "", c.left(), from, List.of((from + to) / 2), to, 80, 1, CornerKind.BEND, 0);
  }

  @Test
  void aCornerThatTheDriverDoesNotCountIsNotAddedAgain() {
    List<Corner> there = new ArrayList<>();
    for (Corner c : READ.corners()) {
      there.add(
          new Corner(
              c.id(),
              c.number(),
              "",
              c.left(),
              c.entry(),
              c.apexes(),
              c.exit(),
              c.radius(),
              c.angle(),
              c.kind(),
              0,
              c.radius() > 300));
    }
    assertThat(CornerBook.anew(READ.centreline(), there).added()).isEmpty();
  }
}
