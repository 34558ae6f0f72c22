package marvek.core.marker;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;

/** Distance boards where a circuit usually has them: on the outside, counted to the corner. */
public final class DistanceBoards {
  private static final List<Integer> USUAL = List.of(300, 200, 150, 100, 50);
  private static final double CLEAR_OF_CORNER = 15;

  private DistanceBoards() {}

  /**
   * The boards before a corner, as far back as the straight before it reaches.
   *
   * @param before the corner before it
   * @param prefix start of each id
   */
  public static List<Landmark> before(
      Centreline road, Corner corner, Corner before, String prefix) {
    double straight =
        before.id().equals(corner.id())
            ? road.length() - 300
            : road.ahead(before.exit(), corner.entry());
    List<Integer> fitting =
        USUAL.stream().filter(distance -> distance <= straight - CLEAR_OF_CORNER).toList();
    return set(road, corner, fitting, corner.entry(), !corner.left(), prefix);
  }

  /**
   * A set of boards before a corner.
   *
   * @param distances metres written on them
   * @param countedTo station that they count to
   * @param left side on which they stand
   * @param prefix start of each id
   */
  public static List<Landmark> set(
      Centreline road,
      Corner corner,
      List<Integer> distances,
      double countedTo,
      boolean left,
      String prefix) {
    List<Landmark> boards = new ArrayList<>();
    for (int distance : distances) {
      boards.add(
          new Landmark(
              prefix + corner.id() + "-" + distance,
              LandmarkKind.BOARD,
              Integer.toString(distance),
              road.wrap(countedTo - distance),
              left,
              corner.id()));
    }
    return boards;
  }
}
