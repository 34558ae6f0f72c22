package marvek.core.marker;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.ReliefTest;
import marvek.core.circuit.Sight;
import marvek.core.marker.MarkerJudge.About;
import marvek.core.marker.MarkerJudge.Grade;
import marvek.core.marker.MarkerJudge.Judgement;
import marvek.core.marker.MarkerJudge.Spot;
import marvek.core.marker.MarkerJudge.View;
import org.junit.jupiter.api.Test;

class MarkerJudgeTest {
  private static final Centreline FLAT = ReliefTest.hill(s -> 0);
  private static final Spot PLACE = new Spot(39.62, -8.05, 100);
  private static final View ALONE = new View(null, null, false, Sight.EYE_CAR);
  private static final Landmark BOARD = new Landmark("b", LandmarkKind.BOARD, "100", 600, true, "");

  private static Judgement judge(Landmark l, double past, View view, Landmark... others) {
    return judge(FLAT, l, past, view, others);
  }

  private static Judgement judge(
      Centreline road, Landmark l, double past, View view, Landmark... others) {
    List<Landmark> all = new java.util.ArrayList<>(List.of(others));
    all.add(l);
    return new MarkerJudge(road, all, view).judge(l, past, 50, 3);
  }

  private static Landmark of(LandmarkKind kind, String label, double station) {
    return new Landmark(kind + label, kind, label, station, true, "");
  }

  private static List<About> reasons(Judgement j) {
    return j.reasons().stream().map(MarkerJudge.Reason::about).toList();
  }

  @Test
  void aFixedBoardAtThePointIsSolidAndSaysWhatATenthIsWorth() {
    Judgement j = judge(BOARD, 0, ALONE);
    assertThat(j.grade()).isEqualTo(Grade.SOLID);
    assertThat(j.reasons()).isEmpty();
    assertThat(j.precision()).isCloseTo(1, within(1e-9));
    assertThat(j.atSpeed()).isCloseTo(5, within(1e-9));
  }

  @Test
  void theFartherThePointTheLessPrecise() {
    double before = Double.MAX_VALUE;
    for (double past : new double[] {0, 10, 25, 45, 70}) {
      Judgement j = judge(BOARD, past, ALONE);
      assertThat((double) j.marks()).isLessThanOrEqualTo(before);
      before = j.marks();
      // 12 % of the distance judged by eye, and the metre of the board itself.
      assertThat(j.precision()).isCloseTo(Math.hypot(1, 0.12 * past), within(1e-9));
      assertThat(judge(BOARD, -past, ALONE).marks()).isEqualTo(j.marks());
    }
    assertThat(judge(BOARD, 70, ALONE).grade()).isNotEqualTo(Grade.SOLID);
  }

  @Test
  void whatMovesOrFadesIsWorthLessThanWhatStands() {
    int board = judge(BOARD, 0, ALONE).marks();
    for (LandmarkKind kind : List.of(LandmarkKind.CONE, LandmarkKind.RUBBER, LandmarkKind.TREE)) {
      Judgement j = judge(of(kind, "x", 600), 0, ALONE);
      assertThat(j.marks()).as(kind.name()).isLessThan(board);
      assertThat(reasons(j)).contains(About.PERMANENCE);
    }
  }

  @Test
  void twoThatLookAlikeAreToldAndReadableBoardsAreNot() {
    Landmark second = new Landmark("p2", LandmarkKind.POST, "", 640, true, "");
    assertThat(reasons(judge(of(LandmarkKind.POST, "", 600), 0, ALONE, second)))
        .contains(About.LOOK_ALIKES);
    Landmark fifty = new Landmark("f", LandmarkKind.BOARD, "50", 650, true, "");
    assertThat(reasons(judge(BOARD, 0, ALONE, fifty))).isEmpty();
    Landmark blurred =
        new Landmark(
            "u",
            LandmarkKind.BOARD,
            "2nd",
            650,
            true,
            "",
            3,
            1.4,
            Landmark.Permanence.FIXED,
            false,
            null,
            "",
            "",
            0);
    assertThat(reasons(judge(blurred, 0, ALONE, BOARD)))
        .contains(About.LOOK_ALIKES, About.PERMANENCE);
  }

  @Test
  void aBoardOnTheFarSideOfAWideRoadCostsAndOneOnTheNearSideDoesNot() {
    Landmark left = new Landmark("l", LandmarkKind.BOARD, "L", 600, true, "");
    Landmark right = new Landmark("r", LandmarkKind.BOARD, "R", 600, false, "");
    double edge = FLAT.left()[600] + left.out();
    double across = 15 - edge;
    // So far to the right of the middle, the board on the left stands 15 m away.
    MarkerJudge eyes = new MarkerJudge(FLAT, List.of(left, right), ALONE);
    assertThat(reasons(eyes.judge(left, 0, 50, -across))).contains(About.SIDE);
    assertThat(reasons(eyes.judge(right, 0, 50, -across))).doesNotContain(About.SIDE);
    assertThat(reasons(eyes.judge(left, 0, 50, across))).doesNotContain(About.SIDE);
    assertThat(reasons(eyes.judge(right, 0, 50, across))).contains(About.SIDE);
  }

  @Test
  void aCarAheadHidesWhatLiesOnTheRoad() {
    View traffic = new View(null, null, true, Sight.EYE_CAR);
    assertThat(reasons(judge(of(LandmarkKind.SEAM, "x", 600), 0, traffic))).contains(About.TRAFFIC);
    assertThat(reasons(judge(BOARD, 0, traffic))).doesNotContain(About.TRAFFIC);
    assertThat(reasons(judge(of(LandmarkKind.SEAM, "x", 600), 0, ALONE)))
        .doesNotContain(About.TRAFFIC);
  }

  @Test
  void aCrestHidesALowThingBehindItAndNotATallOne() {
    Centreline crest =
        ReliefTest.hill(s -> s > 500 && s < 700 ? 8 - (s - 600) * (s - 600) / 1250 : 0);
    Landmark low =
        new Landmark(
            "low",
            LandmarkKind.OTHER,
            "stone",
            660,
            true,
            "",
            2,
            0.3,
            Landmark.Permanence.FIXED,
            true,
            null,
            "",
            "",
            0);
    assertThat(reasons(judge(crest, low, 0, ALONE))).contains(About.VISIBILITY);
    assertThat(reasons(judge(FLAT, low, 0, ALONE))).doesNotContain(About.VISIBILITY);
    Landmark pine =
        new Landmark(
            "pine",
            LandmarkKind.TREE,
            "pine",
            660,
            true,
            "",
            12,
            20,
            Landmark.Permanence.SEASONAL,
            true,
            null,
            "",
            "",
            0);
    assertThat(reasons(judge(crest, pine, 0, ALONE))).doesNotContain(About.VISIBILITY);
  }

  @Test
  void lowSunAheadAndDarknessCost() {
    // The road runs east. Half past six on a morning in May the sun is low in the east-north-east.
    View morning = new View(Instant.parse("2026-05-16T05:50:00Z"), PLACE, false, 1);
    View noon = new View(Instant.parse("2026-05-16T12:30:00Z"), PLACE, false, 1);
    View night = new View(Instant.parse("2026-05-16T23:30:00Z"), PLACE, false, 1);
    assertThat(reasons(judge(BOARD, 0, morning))).contains(About.LIGHT);
    assertThat(reasons(judge(BOARD, 0, noon))).isEmpty();
    assertThat(judge(BOARD, 0, night).grade()).isEqualTo(Grade.WEAK);
  }

  @Test
  void aShadowSaysHowFarItWillHaveMoved() {
    Instant seen = Instant.parse("2026-05-16T15:00:00Z");
    Landmark shadow =
        new Landmark(
            "s",
            LandmarkKind.SHADOW,
            "shadow",
            600,
            true,
            "",
            -1,
            10,
            Landmark.Permanence.LIGHT,
            true,
            seen,
            "",
            "",
            0);
    Judgement same = judge(shadow, 0, new View(seen, PLACE, false, 1));
    assertThat(same.moved()).isCloseTo(0.0, within(1e-9));
    Judgement later = judge(shadow, 0, new View(seen.plusSeconds(2 * 3600), PLACE, false, 1));
    // In the afternoon shadows grow to the east, the way this road runs.
    assertThat(later.moved()).isGreaterThan(5.0);
    assertThat(later.marks()).isLessThan(same.marks() - 20);
    Judgement dusk = judge(shadow, 0, new View(seen.plusSeconds(6 * 3600), PLACE, false, 1));
    assertThat(dusk.grade()).isEqualTo(Grade.NOT_TO_BE_RELIED_ON);
    assertThat(judge(shadow, 0, ALONE).reasons()).isNotEmpty();
  }
}
