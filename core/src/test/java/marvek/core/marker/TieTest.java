package marvek.core.marker;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.fixtures.Tracks;
import marvek.core.units.Display;
import marvek.core.words.Punctuation;
import org.junit.jupiter.api.Test;

class TieTest {
  private static final CircuitReading SURVEY = Tracks.square(300, 50, 5).survey();
  private static final Centreline ROAD = SURVEY.centreline();

  private static Landmark board(String label, double station) {
    return new Landmark(label, LandmarkKind.BOARD, label, station, true, "c1");
  }

  @Test
  void theNearestInReachIsTakenBeforeOrBehind() {
    List<Landmark> boards = List.of(board("100", 200), board("50", 250));
    assertThat(Tie.nearest(ROAD, boards, 222, 60).orElseThrow().landmark()).isEqualTo("100");
    assertThat(Tie.nearest(ROAD, boards, 228, 60).orElseThrow().landmark()).isEqualTo("50");
    assertThat(Tie.nearest(ROAD, boards, 228, 60).orElseThrow().past()).isEqualTo(-22);
    assertThat(Tie.nearest(ROAD, boards, 400, 60)).isEmpty();
    assertThat(Tie.nearest(ROAD, List.of(), 228, 60)).isEmpty();
  }

  @Test
  void aTieReachesAcrossTheStartFinishLine() {
    Landmark last = board("50", ROAD.length() - 10);
    assertThat(Tie.to(ROAD, last, 8).past()).isCloseTo(18, within(1e-9));
    assertThat(Tie.to(ROAD, board("50", 5), ROAD.length() - 5).past()).isCloseTo(-10, within(1e-9));
  }

  @Test
  void landmarksAreSpokenOfAsDriversDo() {
    assertThat(board("100", 1).spoken()).isEqualTo("the 100 board");
    assertThat(new Landmark("t", LandmarkKind.TREE, "old oak", 1, true, "").spoken())
        .isEqualTo("the old oak");
    assertThat(new Landmark("t", LandmarkKind.BRIDGE, " ", 1, true, "").spoken())
        .isEqualTo("the bridge");
    assertThat(new Landmark("t", LandmarkKind.OTHER, "our flag", 1, true, "").spoken())
        .isEqualTo("our flag");
  }

  @Test
  void briefTiesRoundToWholeUnits() {
    assertThat(Punctuation.brief(new Tie("l", "the 100 board", 13.6), Display.METRIC))
        .isEqualTo("100 board + 14 m");
    assertThat(Punctuation.brief(new Tie("l", "the 100 board", -7.4), Display.METRIC))
        .isEqualTo("100 board − 7 m");
    assertThat(Punctuation.brief(new Tie("l", "the 100 board", 0.3), Display.METRIC))
        .isEqualTo("100 board");
  }

  @Test
  void boardsGoBackOnlyAsFarAsTheStraight() {
    Corner first = SURVEY.corners().get(0);
    Corner last = SURVEY.corners().get(3);
    List<Landmark> boards = DistanceBoards.before(ROAD, first, last, "b-");
    assertThat(boards).extracting(Landmark::label).containsExactly("200", "150", "100", "50");
    assertThat(boards).allMatch(b -> b.left() != first.left());
    assertThat(boards)
        .allMatch(b -> b.corner().equals(first.id()) && b.kind() == LandmarkKind.BOARD);
    Landmark hundred = boards.get(2);
    assertThat(ROAD.ahead(hundred.station(), first.entry())).isCloseTo(100, within(1e-9));
  }
}
