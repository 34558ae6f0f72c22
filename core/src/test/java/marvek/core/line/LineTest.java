package marvek.core.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Path;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

class LineTest {
  private static final Vehicle GT = VehicleClasses.byId("cup-gt").vehicle();

  private static CircuitReading square(double width) {
    return CircuitReader.read(
        OutlineFile.read(Tracks.square(260, 40, 4).csv()),
        new CircuitReader.Choices(false, 0, width, false));
  }

  private static double bending(Path path) {
    double sum = 0;
    for (int i = 0; i < path.size(); i++) {
      sum += path.curvature()[i] * path.curvature()[i] * path.step()[i];
    }
    return sum;
  }

  @Test
  void theWidestArcIsThatOfPlaneGeometry() {
    // R = (Ro − Ri cos ½θ)/(1 − cos ½θ): 90° between edges of 20 m and 32 m gives 60.971 m.
    assertThat(WidestArc.radius(20, 32, Math.PI / 2)).isCloseTo(60.971, within(5e-4));
    // Checked against its own meaning: the arc touches the outer edge's straights and the inner
    // edge's middle.
    double r = WidestArc.radius(20, 32, Math.PI / 2);
    double centre = (r - 32) * Math.sqrt(2);
    assertThat(r - centre).isCloseTo(20, within(1e-9));
  }

  @Test
  void theLineStaysInItsRoomAndBendsLessThanAnyShiftOfIt() {
    Centreline road = square(12).centreline();
    Room room = Room.on(road, GT);
    double[] offset = MinimumCurvature.offsets(road, room);
    for (int i = 0; i < offset.length; i++) {
      assertThat(offset[i]).isBetween(room.lower()[i] - 0.05, room.upper()[i] + 0.05);
    }
    double least = bending(Path.over(road, offset));
    assertThat(least).isLessThan(0.75 * bending(Path.middle(road)));
    for (double share : new double[] {0.6, 0.8, 0.9}) {
      double[] less = Arrays.stream(offset).map(n -> n * share).toArray();
      assertThat(bending(Path.over(road, less))).isGreaterThan(least);
    }
  }

  @Test
  void theLineRunsOutInOutAndComesNearTheWidestArc() {
    CircuitReading survey = square(12);
    Centreline road = survey.centreline();
    Path path = Path.over(road, MinimumCurvature.offsets(road, Room.on(road, GT)));
    List<CornerLine> lines = CornerLine.all(road, path, survey.corners());
    double usable = 12 - GT.width() - 2 * Ground.MARGIN;
    double arc = WidestArc.radius(40 - usable / 2, 40 + usable / 2, Math.PI / 2);
    for (int c = 0; c < 4; c++) {
      Corner corner = survey.corners().get(c);
      CornerLine line = lines.get(c);
      assertThat(path.offset()[road.index(line.apex())]).isGreaterThan(usable / 2 - 0.3);
      assertThat(path.offset()[road.index(line.exit())]).isLessThan(0);
      assertThat(Math.abs(road.apart(corner.apex(), line.apex()))).isLessThan(12);
      assertThat(road.apart(line.turnIn(), line.apex())).isBetween(15.0, 90.0);
      assertThat(line.type()).isEqualTo(ApexType.MIDDLE);
      double tightest = 0;
      for (int i = road.index(corner.entry()); i <= road.index(corner.exit()); i++) {
        tightest = Math.max(tightest, path.curvature()[i]);
      }
      // Least bending is no single arc: it is tighter in the middle, and the bend's
      // clothoids leave less room than the plain arcs of the formula.
      assertThat(1 / tightest).isBetween(0.6 * arc, 1.02 * arc);
    }
  }

  @Test
  void leastBendingIsQuickerThanTheMiddleOfTheRoad() {
    for (String id : List.of("cup-gt", "motorcycle-600", "small-hatch")) {
      Centreline road = square(11).centreline();
      Vehicle v = VehicleClasses.byId(id).vehicle();
      Path path = Path.over(road, MinimumCurvature.offsets(road, Room.on(road, v)));
      assertThat(LapSimulator.lap(path, v, Conditions.dryWarm()).lapTime())
          .as(id)
          .isLessThan(LapSimulator.lap(Path.middle(road), v, Conditions.dryWarm()).lapTime());
    }
  }

  @Test
  void aWarpMovesAFeatureAndFadesOut() {
    Centreline road = square(12).centreline();
    double[] offset = MinimumCurvature.offsets(road, Room.on(road, GT));
    double apex = CornerLine.all(road, Path.over(road, offset), square(12).corners()).get(1).apex();
    double[] later = Warp.shifted(road, offset, apex, 8, 80, 80);
    int at = road.index(apex);
    assertThat(later[at + 8]).isCloseTo(offset[at], within(0.05));
    assertThat(later[at + 90]).isEqualTo(offset[at + 90]);
    assertThat(later[at - 90]).isEqualTo(offset[at - 90]);
  }

  @Test
  void aNarrowRoadStillHasALine() {
    Centreline road =
        CircuitReader.read(
                OutlineFile.read(Tracks.square(140, 12, 2).csv()),
                new CircuitReader.Choices(false, 0, 3, false))
            .centreline();
    double[] offset = MinimumCurvature.offsets(road, Room.on(road, GT));
    assertThat(Arrays.stream(offset).map(Math::abs).max().orElse(9)).isLessThan(0.6);
  }

  /**
   * Of two touches of the inside the nearer one is the apex; found near an earlier line, the
   * earlier one, while it comes nearly as close. Not where the line has left it.
   */
  @Test
  void anEarlierApexStaysWhileItIsATouchAboutAsClose() {
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(Tracks.square(260, 120, 4).csv()),
            new CircuitReader.Choices(false, 0, 12, false));
    Centreline road = survey.centreline();
    Corner corner = survey.corners().get(1);
    double first = corner.apex() - 40;
    double second = corner.apex() + 40;
    List<CornerLine> earlier = CornerLine.all(road, two(road, first, 3.1, second, 3), one(survey));
    assertThat(road.apart(first, earlier.get(0).apex())).isCloseTo(0, within(3.0));
    // Read again alone, the other touch is a hair nearer.
    Path turned = two(road, first, 3, second, 3.05);
    assertThat(road.apart(second, CornerLine.all(road, turned, one(survey)).get(0).apex()))
        .isCloseTo(0, within(3.0));
    assertThat(road.apart(first, apex(road, turned, survey, earlier))).isCloseTo(0, within(3.0));
    // Nearer by more than a hand.
    Path moved = two(road, first, 3, second, 3.3);
    assertThat(road.apart(second, apex(road, moved, survey, earlier))).isCloseTo(0, within(3.0));
    // The touch itself has moved farther than one does: it is no touch any more where it was.
    double on = first + 24;
    Path gone = two(road, on, 3, second, 2);
    assertThat(road.apart(on, apex(road, gone, survey, earlier))).isCloseTo(0, within(3.0));
    // A line along the inside for a while, read again, has its apex where it had it.
    double[] along = new double[road.size()];
    for (int k = -40; k <= 40; k++) {
      along[road.loop().at(road.index(corner.apex()) + k)] = 3;
    }
    Path kept = Path.over(road, along);
    List<CornerLine> plateau = CornerLine.all(road, kept, one(survey));
    assertThat(apex(road, kept, survey, plateau)).isEqualTo(plateau.get(0).apex());
  }

  private static List<Corner> one(CircuitReading survey) {
    return List.of(survey.corners().get(1));
  }

  private static double apex(
      Centreline road, Path path, CircuitReading survey, List<CornerLine> earlier) {
    return CornerLine.all(road, path, one(survey), earlier).get(0).apex();
  }

  /** A line down the middle that comes to the inside of a left turn in two places. */
  private static Path two(Centreline road, double a, double most, double b, double other) {
    double[] offset = Warp.bumped(road, new double[road.size()], a, most, 30);
    return Path.over(road, Warp.bumped(road, offset, b, other, 30));
  }

  /** A bend that tightens after its apex is turned into before the apex all the same. */
  @Test
  void aCornerIsTurnedIntoBeforeItsApex() {
    for (Object[] on :
        new Object[][] {
          {722, 240.0, "motorcycle-600"}, {61, 280.0, "small-hatch"}, {62, 300.0, "cup-gt"}
        }) {
      CircuitReading read = RandomRoads.of((int) on[0], (double) on[1]);
      for (CornerLine line : Drives.computed(read, (String) on[2]).lines()) {
        double ahead = read.centreline().apart(line.turnIn(), line.apexes().get(0));
        assertThat(ahead).as("%s of %s", line.corner(), on[0]).isGreaterThanOrEqualTo(0);
      }
    }
  }
}
