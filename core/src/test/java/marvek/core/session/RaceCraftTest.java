package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.DoubleSummaryStatistics;
import java.util.List;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.fixtures.DrawnRoads;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Glances;
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Test;

/** Racing others on roads that nobody drew. */
class RaceCraftTest {
  private static ComputedLap lap(String vehicle, long seed) {
    return Drives.computed(RandomRoads.of(seed, 320), vehicle);
  }

  private static Things posts(List<Landmark> landmarks, Place... places) {
    return new Things(landmarks, List.of(), List.of(), List.of(), List.of(places));
  }

  private static Place post(double station, boolean left) {
    return new Place("p", PlaceKind.MARSHAL_POST, left, station, station, "7", "");
  }

  @Test
  void followingCostsAndTimeToBreatheIsOnStraights() {
    int costs = 0;
    int corners = 0;
    for (long seed : List.of(95L, 96L)) {
      for (String vehicle : List.of("cup-gt", "motorcycle-1000")) {
        ComputedLap then = lap(vehicle, seed);
        RaceCraft craft = RaceCraft.of(then, Things.none());
        assertThat(craft.held()).hasSameSizeAs(then.corners());
        for (RaceCraft.Held h : craft.held()) {
          corners++;
          assertThat(h.seconds()).isBetween(0.0, 2.5);
          costs += h.seconds() > 0.05 ? 1 : 0;
        }
        assertThat(craft.breathing()).hasSizeLessThanOrEqualTo(Glances.on(then).size());
        for (RaceCraft.Breathing b : craft.breathing()) {
          assertThat(b.seconds()).isBetween(2.0, 40.0);
          // Nobody brakes there.
          assertThat(then.lap().brake()[then.road().index(b.from())]).isZero();
          assertThat(then.lap().brake()[then.road().index(b.to())]).isZero();
        }
        assertThat(craft.posts()).isEmpty();
      }
    }
    assertThat(costs).isGreaterThan(corners / 2);
  }

  /**
   * From the inside a corner is slower, is braked for sooner, and the loss is paid by some place.
   */
  /** Somebody a second ahead is where the lap is a second later. */
  @Test
  void aSecondIsManyMetresOnTheStraightAndFewInTheCorner() {
    int braked = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-1000")) {
      ComputedLap then = lap(vehicle, 96);
      List<RaceCraft.Gauge> gauges = RaceCraft.of(then, Things.none()).gauges();
      assertThat(gauges).hasSameSizeAs(then.corners());
      for (int c = 0; c < gauges.size(); c++) {
        RaceCraft.Gauge g = gauges.get(c);
        int at = then.road().index(g.at());
        assertThat(secondsAhead(then, at, g.arriving())).isCloseTo(1, within(0.06));
        assertThat(secondsAhead(then, then.slowest(c), g.slowest())).isCloseTo(1, within(0.06));
        // So many metres of the road as it is fast there, on the mean.
        int to = then.road().index(then.road().wrap(g.at() + g.arriving()));
        DoubleSummaryStatistics along = alongTheRoad(then, at, to);
        assertThat(g.arriving()).isBetween(along.getMin() - 1, along.getMax() + 1);
        double slowed = then.lap().speed()[at] - then.lap().speed()[then.slowest(c)];
        if (slowed > 10) {
          braked++;
          // Whoever brakes comes nearer than the speed on arrival says.
          assertThat(g.arriving()).isLessThan(then.lap().speed()[at]);
          assertThat(g.slowest()).isLessThan(g.arriving());
        }
      }
    }
    assertThat(braked).isGreaterThan(6);
  }

  /** Metres of the road in each second: more than the speed where the line cuts a bend short. */
  private static DoubleSummaryStatistics alongTheRoad(ComputedLap then, int from, int to) {
    double step = then.road().step();
    return then.road()
        .loop()
        .between(from, to)
        .indices()
        .mapToDouble(i -> then.lap().speed()[i] * step / then.path().step()[i])
        .summaryStatistics();
  }

  private static double secondsAhead(ComputedLap then, int from, double metres) {
    int to = then.road().index(then.road().wrap(from * then.road().step() + metres));
    return then.lap().between(from, to);
  }

  @Test
  void theInsideCostsWhatItCosts() {
    int told = 0;
    int sooner = 0;
    List<ComputedLap> laps = new ArrayList<>();
    for (long seed : List.of(98L, 99L)) {
      laps.add(lap("cup-gt", seed));
    }
    // With straights on which somebody can be passed.
    for (long seed : List.of(501L, 502L, 503L, 504L, 505L, 506L)) {
      laps.add(
          Drives.computed(
              CircuitReader.read(
                  OutlineFile.read(DrawnRoads.of(seed, 18, 120, 9).csv(5, 0, seed)),
                  CircuitReader.Choices.asItComes()),
              seed % 2 == 0 ? "cup-gt" : "downforce-prototype"));
    }
    for (ComputedLap then : laps) {
      for (int c = 0; c < then.corners().size(); c++) {
        RaceCraft.Inside in = RaceCraft.inside(then, c);
        if (in == null) {
          continue;
        }
        told++;
        Corner corner = then.corners().get(c);
        // The quickest line is not beaten by one that is bound.
        assertThat(in.seconds()).isGreaterThan(-0.02).isLessThan(3);
        assertThat(in.slowest()).isLessThan(in.usual() + 1.5);
        sooner += in.metres() > 0 ? 1 : 0;
        // Braked for sooner or as late, and crossing over is no braking.
        assertThat(in.metres()).isBetween(0.0, 30.0);
        // Before the turn it lies nearer to the inside than the quickest one does.
        int turn = then.road().index(then.lines().get(c).turnIn());
        int k = then.road().loop().ahead(then.road().index(in.from()), turn);
        // The road is crossed over to the inside as a car can, without a jump.
        double[] usual = then.path().offset();
        int first = then.road().index(in.from());
        for (int j = 1; j < Math.min(k, in.offset().length); j++) {
          int i = then.road().loop().at(first + j);
          double bent =
              in.offset()[j] - in.offset()[j - 1] - usual[i] + usual[then.road().loop().at(i - 1)];
          assertThat(Math.abs(bent) / in.step()).isLessThan(0.2);
        }
        if (k < in.offset().length) {
          double sign = corner.left() ? 1 : -1;
          assertThat(sign * in.offset()[k]).isGreaterThan(sign * then.path().offset()[turn] - 0.3);
        }
      }
    }
    assertThat(told).isGreaterThan(8);
    assertThat(sooner).isGreaterThan(told / 2);
  }

  /** In view from far on an empty straight; behind a wall only from its end on. */
  @Test
  void aPostIsInViewFromWhereItIs() {
    ComputedLap then = Drives.computed(Tracks.stadium(900, 60, 5).survey(), "cup-gt");
    double at = then.road().wrap(then.corners().get(0).entry() - 100);
    RaceCraft.Post free = RaceCraft.of(then, posts(List.of(), post(at, true))).posts().get(0);
    assertThat(free.label()).isEqualTo("7");
    assertThat(free.corner()).isEqualTo(then.corners().get(0).id());
    assertThat(free.sight()).isGreaterThan(250);
    assertThat(free.seconds())
        .isCloseTo(free.sight() / then.lap().speed()[then.road().index(at - 150)], within(2.0));
    // A wall close by the road, from far before the post to ten metres before it.
    Landmark wall =
        new Landmark(
            "w",
            LandmarkKind.WALL,
            "wall",
            then.road().wrap(at - 310),
            true,
            "",
            0.5,
            4,
            Landmark.Permanence.FIXED,
            true,
            null,
            "",
            "",
            300);
    RaceCraft.Post hidden = RaceCraft.of(then, posts(List.of(wall), post(at, true))).posts().get(0);
    assertThat(hidden.sight()).isLessThan(120).isLessThan(free.sight() / 2);
    assertThat(hidden.seconds()).isLessThan(free.seconds());
  }
}
