package marvek.core.ways;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Objects;
import java.util.stream.DoubleStream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.line.Room;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.TrackLimit;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneBuilder;
import marvek.core.survey.ZoneKind;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Ways with the width of the road, the straight before a corner and the ground beyond the edge. */
@Tag("slow")
class EdgeWaysTest {
  private static final MarkerJudge.View PLAIN = new MarkerJudge.View(null, null, false, 1);
  // s; lines are compared on their stretch, here over the lap.
  private static final double HAIR = 0.002;
  // s; places are told to half a metre.
  private static final double GRAIN = 0.03;

  /** Good ground a metre and a half wide beyond the outer edge of every exit. */
  private static Things beyond(CircuitReading read, List<TrackLimit> limits) {
    Centreline road = read.centreline();
    List<Zone> zones =
        read.corners().stream()
            .map(
                c ->
                    ZoneBuilder.builder(
                            new Zone(
                                "beyond-" + c.id(),
                                ZoneKind.BEYOND,
                                c.left() ? Zone.Side.RIGHT : Zone.Side.LEFT,
                                road.wrap(c.apex() + 10),
                                road.wrap(c.exit() + 50),
                                2,
                                1.5,
                                "",
                                ""))
                        .beyond(new Zone.Beyond(0.95, 0.0))
                        .build())
            .toList();
    return new Things(List.of(), List.of(), zones, limits, List.of());
  }

  private static SchoolLine line(ComputedLap lap, Things things, CornerEntry e, School school) {
    return Answers.at(lap, things, lap.indexOf(e.corner()))
        .line(e.copy().schools(List.of(school)).done());
  }

  /** Metres that a line is past the edge of the room that the road itself has; below 0 inside. */
  private static double past(ComputedLap lap, SchoolLine line) {
    Room room = Room.on(lap.road(), lap.vehicle(), lap.ground());
    double most = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < lap.road().size(); i++) {
      double at = line.path().offset()[i];
      most = Math.max(most, Math.max(at - room.upper()[i], room.lower()[i] - at));
    }
    return most;
  }

  @ParameterizedTest
  @CsvSource({
    "71, 240, cup-gt",
    "72, 300, downforce-prototype",
    "73, 220, small-hatch",
    "74, 260, motorcycle-600",
  })
  void whatLiesBeyondIsUsedOnlyWhereItPays(long seed, double radius, String vehicle) {
    CircuitReading read = RandomRoads.of(seed, radius);
    ComputedLap lap = Drives.computed(read, vehicle);
    Things things = beyond(read, List.of());
    double used = 0;
    double given = 0;
    int asked = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      if (!Choices.arising(lap, things, e).contains(Question.BEYOND)) {
        continue;
      }
      asked++;
      SchoolLine with = line(lap, things, e, School.ALL_BEYOND);
      double own = lap.lap().lapTime();
      double then = lap.along(with.path()).lap().lapTime();
      assertThat(then).as("line of %s", e.corner()).isLessThan(own + HAIR);
      used = Math.max(used, past(lap, with));
      given += own - then;
      assertThat(past(lap, line(lap, things, e, School.NO_BEYOND))).isLessThan(0.01);
      Choices.Compared both = Choices.compare(lap, things, e, Question.BEYOND, PLAIN);
      Double now = both.now().toNext();
      if (now != null) {
        assertThat(Objects.requireNonNull(KerbWaysTest.seconds(both, School.NO_BEYOND)))
            .as("the lap keeps off it as it is")
            .isCloseTo(now, within(1e-9));
        Double told = KerbWaysTest.seconds(both, School.ALL_BEYOND);
        if (told != null) {
          assertThat(told - now).as("what the lines differ by").isCloseTo(then - own, within(1e-9));
        }
      }
    }
    assertThat(asked).isGreaterThan(4);
    assertThat(used).isGreaterThan(0.2);
    assertThat(given).isPositive();
  }

  @Test
  void whatALimitForbidsIsNotAskedFor() {
    CircuitReading read = RandomRoads.of(75, 260);
    ComputedLap lap = Drives.computed(read, "cup-gt");
    List<TrackLimit> limits =
        read.corners().stream()
            .map(
                c ->
                    new TrackLimit(
                        "limit-" + c.id(),
                        c.id(),
                        Kerb.Part.EXIT,
                        !c.left(),
                        TrackLimit.Line.WHITE_LINE,
                        4,
                        "",
                        "",
                        List.of()))
            .toList();
    int open = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      open += Choices.arising(lap, beyond(read, List.of()), e).contains(Question.BEYOND) ? 1 : 0;
      assertThat(Choices.arising(lap, beyond(read, limits), e)).doesNotContain(Question.BEYOND);
    }
    assertThat(open).isGreaterThan(4);
  }

  @Test
  void toTheVeryEdgeTheLineTouchesIt() {
    String[] vehicles = {"cup-gt", "small-hatch", "motorcycle-1000", "single-seater"};
    int asked = 0;
    int dearer = 0;
    for (int k = 0; k < 8; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(810 + k, 220 + 20 * k), vehicles[k % 4]);
      Room room = Room.on(lap.road(), lap.vehicle(), lap.ground());
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (!Choices.arising(lap, Things.none(), e).contains(Question.WIDTH)) {
          continue;
        }
        asked++;
        int c = lap.indexOf(e.corner());
        Corner corner = lap.corners().get(c);
        SchoolLine edge = line(lap, Things.none(), e, School.VERY_EDGE);
        List<SchoolLine.Outermost> places = Answers.at(lap, Things.none(), c).outermost();
        assertThat(places).isNotEmpty();
        for (SchoolLine.Outermost o : places) {
          int i = lap.road().index(o.station());
          double at = edge.path().offset()[i];
          double off = corner.left() ? at - room.lower()[i] : room.upper()[i] - at;
          assertThat(off).as("%s at %.0f", e.corner(), o.station()).isBetween(-0.01, 0.05);
        }
        assertThat(line(lap, Things.none(), e, School.AS_PAYS).path()).isSameAs(lap.path());
        double then = lap.along(edge.path()).lap().lapTime();
        assertThat(then).isGreaterThan(lap.lap().lapTime() - GRAIN);
        dearer += then > lap.lap().lapTime() + HAIR ? 1 : 0;
      }
    }
    assertThat(asked).isGreaterThan(8);
    assertThat(dearer).isGreaterThan(asked / 2);
  }

  /** Twelve bends, two one way and one the other, with straights between. */
  private static CircuitReading cross(double straight, double radius) {
    Tracks road = Tracks.every(4);
    for (int arm = 0; arm < 4; arm++) {
      road.straight(straight)
          .bend(radius, 90, 0.4 * radius)
          .straight(straight)
          .bend(radius, 90, 0.4 * radius)
          .straight(straight)
          .bend(radius, -90, 0.4 * radius);
    }
    return road.survey();
  }

  @ParameterizedTest
  @CsvSource({
    "260, 45, cup-gt",
    "340, 60, downforce-prototype",
    "300, 35, motorcycle-600",
    "400, 80, small-hatch",
  })
  void aStraightIsCrossedAtOnceOrAllAlongIt(double straight, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(cross(straight, radius), vehicle);
    Centreline road = lap.road();
    int asked = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      if (!Choices.arising(lap, Things.none(), e).contains(Question.CROSSING)) {
        continue;
      }
      asked++;
      int c = lap.indexOf(e.corner());
      SchoolLine.Crossing way =
          SchoolLine.crossing(
              road, lap.corners(), lap.lines(), c, lap.lap().speed(), lap.path().offset());
      double[] atOnce = line(lap, Things.none(), e, School.CROSS_AT_ONCE).path().offset();
      double[] drift = line(lap, Things.none(), e, School.DRIFT_OVER).path().offset();
      assertThat(across(lap, way, atOnce, way.atOnce())).as(e.corner()).isGreaterThan(0.6);
      assertThat(across(lap, way, drift, way.metres() / 2)).isBetween(0.2, 0.8);
      assertThat(across(lap, way, drift, way.metres() / 4))
          .isLessThan(across(lap, way, atOnce, way.metres() / 4) + 0.05);
      // On a straight there is next to nothing between them; either keeps near what is quickest.
      for (School school : School.answering(Question.CROSSING)) {
        double then = lap.along(line(lap, Things.none(), e, school).path()).lap().lapTime();
        assertThat(then - lap.lap().lapTime())
            .as("%s %s", e.corner(), school)
            .isBetween(-HAIR, 0.2);
      }
      assertThat(Choices.compare(lap, Things.none(), e, Question.CROSSING, PLAIN).outcomes())
          .anyMatch(o -> o.toNext() != null);
    }
    assertThat(asked).isGreaterThan(2);
  }

  /** A way that was chosen may meet a line on which there is nothing left to choose. */
  @Test
  void whereThereIsNothingToCrossTheLineStaysOne() {
    ComputedLap lap = Drives.computed(RandomRoads.of(76, 240), "single-seater");
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      for (School school :
          List.of(School.CROSS_AT_ONCE, School.DRIFT_OVER, School.VERY_EDGE, School.ALL_BEYOND)) {
        SchoolLine line = line(lap, Things.none(), e, school);
        assertThat(DoubleStream.of(line.path().offset()).allMatch(Double::isFinite))
            .as("%s %s", e.corner(), school)
            .isTrue();
        // Between the knots of a line that is held to a place; the road's edge is farther off.
        assertThat(past(lap, line)).isLessThan(0.1);
      }
    }
  }

  /** Share of the way to the other side at so many metres along. */
  private static double across(
      ComputedLap lap, SchoolLine.Crossing way, double[] offset, double metres) {
    Centreline road = lap.road();
    double begin = lap.path().offset()[road.index(way.from())];
    return (offset[road.index(road.wrap(way.from() + metres))] - begin) / way.across();
  }
}
