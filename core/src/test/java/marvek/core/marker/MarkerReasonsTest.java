package marvek.core.marker;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.ReliefTest;
import marvek.core.circuit.Sight;
import marvek.core.fixtures.Plain;
import marvek.core.marker.MarkerJudge.About;
import marvek.core.marker.MarkerJudge.Grade;
import marvek.core.marker.MarkerJudge.Judgement;
import marvek.core.marker.MarkerJudge.Reason;
import marvek.core.marker.MarkerJudge.Spot;
import marvek.core.marker.MarkerJudge.View;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** What each doubt about a marker says and costs. */
class MarkerReasonsTest {
  private static final Centreline FLAT = ReliefTest.hill(s -> 0);
  private static final View ALONE = new View(null, null, false, Sight.EYE_CAR);
  private static final View TRAFFIC = new View(null, null, true, Sight.EYE_CAR);
  private static final Spot PLACE = new Spot(39.62, -8.05, 100);

  private static Landmark thing(
      LandmarkKind kind, double station, double out, double height, Landmark.Permanence lasts) {
    return new Landmark(
        kind.name() + station,
        kind,
        "x",
        station,
        true,
        "",
        out,
        height,
        lasts,
        true,
        null,
        "",
        "",
        0);
  }

  private static Landmark usual(LandmarkKind kind, double station) {
    return thing(kind, station, kind.usualOut(), kind.usualHeight(), kind.usualPermanence());
  }

  private static Judgement judge(
      Centreline road, Landmark l, double past, double speed, View view, Landmark... others) {
    List<Landmark> all = new ArrayList<>(List.of(others));
    all.add(l);
    return new MarkerJudge(road, all, view).judge(l, past, speed, 3);
  }

  private static Reason about(Judgement j, About about) {
    return j.reasons().stream().filter(r -> r.about() == about).findFirst().orElseThrow();
  }

  @ParameterizedTest
  @EnumSource(LandmarkKind.class)
  void everySortHasAWordAndWhatIsUsual(LandmarkKind kind) {
    assertThat(kind.word()).isNotBlank();
    assertThat(kind.usualPermanence()).isNotNull();
    assertThat(kind.precision()).isPositive();
    assertThat(Arrays.stream(LandmarkKind.values()).filter(k -> k.word().equals(kind.word())))
        .hasSize(1);
    // On the road nothing stands up but what hangs over it.
    if (kind.usualOut() < 0 && kind != LandmarkKind.SHADOW) {
      assertThat(kind.usualHeight()).isZero();
    }
    Judgement j = judge(FLAT, usual(kind, 600), 0, 50, ALONE);
    assertThat(j.marks()).isEqualTo(100 - j.reasons().stream().mapToInt(Reason::cost).sum());
    assertThat(j.reasons()).isSortedAccordingTo(Comparator.comparing(Reason::cost).reversed());
    if (kind.usualPermanence() != Landmark.Permanence.FIXED) {
      assertThat(Plain.words(about(j, About.PERMANENCE).words()))
          .isEqualTo("it " + Plain.words(kind.usualPermanence().said()))
          .hasSizeGreaterThan(8);
    }
  }

  @Test
  void usualPlacesAndHeightsTellThingsApart() {
    assertThat(LandmarkKind.TREE.usualHeight()).isGreaterThan(LandmarkKind.BOARD.usualHeight());
    assertThat(LandmarkKind.TREE.usualOut()).isGreaterThan(LandmarkKind.BOARD.usualOut());
  }

  @ParameterizedTest
  @CsvSource({"100, SOLID", "80, SOLID", "79, USABLE", "60, USABLE", "59, WEAK", "35, WEAK"})
  void marksMakeFourGrades(int marks, Grade grade) {
    assertThat(Grade.of(marks)).isEqualTo(grade);
    assertThat(Grade.of(34)).isEqualTo(Grade.NOT_TO_BE_RELIED_ON);
  }

  @ParameterizedTest
  @CsvSource({
    "30, 30 m past it must be judged by eye",
    "-30, 30 m before it must be judged by eye"
  })
  void whatIsJudgedByEyeSaysHowFarAndCostsByTheMetre(double past, String words) {
    Judgement j = judge(FLAT, usual(LandmarkKind.BOARD, 600), past, 50, ALONE);
    Reason r = about(j, About.PRECISION);
    assertThat(Plain.words(r.words())).isEqualTo(words);
    assertThat(r.cost()).isEqualTo((int) Math.min(35, Math.round(3.5 * (j.precision() - 1.6)) + 1));
  }

  @Test
  void whatIsVagueItselfSaysSo() {
    Landmark bump = thing(LandmarkKind.RUBBER, 600, 3, 1, Landmark.Permanence.FIXED);
    assertThat(Plain.words(about(judge(FLAT, bump, 0, 50, ALONE), About.PRECISION).words()))
        .isEqualTo("its place can be told to 4 m only");
    assertThat(Plain.words(about(judge(FLAT, bump, 8, 50, ALONE), About.PRECISION).words()))
        .startsWith("its place can be told");
  }

  @ParameterizedTest
  @CsvSource({
    "OTHER, 2.9, 0.79, true",
    "OTHER, 3, 0.79, false",
    "OTHER, 2.9, 0.8, false",
    "OTHER, -0.1, 5, true",
    "OTHER, 0, 5, false",
    "BRIDGE, -1, 0, false",
    "TREE, -1, 0, false",
    "SHADOW, -1, 0, false"
  })
  void aCarAheadHidesWhatIsLowAndNear(
      LandmarkKind kind, double out, double height, boolean hidden) {
    Landmark l = thing(kind, 600, out, height, Landmark.Permanence.FIXED);
    List<About> with =
        judge(FLAT, l, 0, 50, TRAFFIC).reasons().stream().map(Reason::about).toList();
    assertThat(with.contains(About.TRAFFIC)).isEqualTo(hidden);
    if (hidden) {
      assertThat(about(judge(FLAT, l, 0, 50, TRAFFIC), About.TRAFFIC).cost()).isEqualTo(25);
    }
  }

  @Test
  void aCrestIsHiddenByTrafficWhereItIsSeenAndNotWhereItIsFelt() {
    Landmark seen = thing(LandmarkKind.CREST, 600, -2, 0, Landmark.Permanence.FIXED);
    Landmark felt = thing(LandmarkKind.CREST, 600, -2, 0, Landmark.Permanence.FEEL);
    assertThat(judge(FLAT, seen, 0, 50, TRAFFIC).reasons())
        .anyMatch(r -> r.about() == About.TRAFFIC);
    assertThat(judge(FLAT, felt, 0, 50, TRAFFIC).reasons())
        .noneMatch(r -> r.about() == About.TRAFFIC);
  }

  @ParameterizedTest
  @CsvSource({"119, true", "121, false", "-119, true", "-121, false", "0.5, false", "2, true"})
  void whatLooksAlikeConfusesWithinSight(double on, boolean confused) {
    Landmark l = usual(LandmarkKind.POST, 600);
    Judgement j = judge(FLAT, l, 0, 50, ALONE, usual(LandmarkKind.POST, 600 + on));
    assertThat(j.reasons().stream().anyMatch(r -> r.about() == About.LOOK_ALIKES))
        .isEqualTo(confused);
    if (confused) {
      assertThat(Plain.words(about(j, About.LOOK_ALIKES).words()))
          .isEqualTo(
              String.format(
                  "another post %.0f m %s looks alike",
                  Math.abs(on), on > 0 ? "further on" : "before it"));
    }
  }

  @Test
  void whatACrestHidesCostsByTheTimeThatIsLeft() {
    Centreline crest =
        ReliefTest.hill(s -> s > 500 && s < 700 ? 8 - (s - 600) * (s - 600) / 1250 : 0);
    Landmark low = thing(LandmarkKind.OTHER, 660, 2, 0.3, Landmark.Permanence.FIXED);
    Pattern said =
        Pattern.compile("a crest hides it until (\\d+) m before, ([\\d.]+) s at that speed");
    for (double speed : new double[] {12, 20, 30, 45, 60, 80}) {
      for (double past : new double[] {0, -25}) {
        Judgement j = judge(crest, low, past, speed, ALONE);
        Matcher m =
            said.matcher(
                j.reasons().stream()
                    .filter(r -> r.about() == About.VISIBILITY)
                    .map(r -> Plain.words(r.words()))
                    .findFirst()
                    .orElse(""));
        if (!m.matches()) {
          continue;
        }
        double seen = Double.parseDouble(m.group(1));
        assertThat(Double.parseDouble(m.group(2))).isCloseTo(seen / speed, within(0.06));
        double left = (seen + past) / speed;
        assertThat(left).isLessThan(2);
        assertThat(about(j, About.VISIBILITY).cost()).isEqualTo(left < 1 ? 45 : 20);
      }
    }
    assertThat(judge(crest, low, 0, 60, ALONE).reasons())
        .anyMatch(r -> r.about() == About.VISIBILITY);
    assertThat(judge(crest, low, 0, 3, ALONE).reasons())
        .noneMatch(r -> r.about() == About.VISIBILITY);
  }

  @Test
  void lightSaysWhatItDoes() {
    View morning = new View(Instant.parse("2026-05-16T05:50:00Z"), PLACE, false, 1);
    View night = new View(Instant.parse("2026-05-16T23:30:00Z"), PLACE, false, 1);
    Landmark board = usual(LandmarkKind.BOARD, 600);
    assertThat(Plain.words(about(judge(FLAT, board, 0, 50, morning), About.LIGHT).words()))
        .matches("the sun stands \\d+° up, \\d+° off your heading");
    assertThat(Plain.words(about(judge(FLAT, board, 0, 50, night), About.LIGHT).words()))
        .isEqualTo("it is dark at that hour");
    Landmark shadow = usual(LandmarkKind.SHADOW, 600);
    assertThat(judge(FLAT, shadow, 0, 50, ALONE).moved()).isNull();
    assertThat(Plain.words(about(judge(FLAT, shadow, 0, 50, ALONE), About.LIGHT).words()))
        .isEqualTo("where it falls depends on the hour");
    assertThat(judge(FLAT, shadow, 0, 50, night).moved()).isNull();
    View noon = new View(Instant.parse("2026-05-16T12:30:00Z"), PLACE, false, 1);
    Judgement unnoted = judge(FLAT, shadow, 0, 50, noon);
    assertThat(unnoted.moved()).isNull();
    assertThat(Plain.words(about(unnoted, About.LIGHT).words()))
        .isEqualTo("no hour is noted for where it was");
  }
}
