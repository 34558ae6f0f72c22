package marvek.server.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import marvek.core.circuit.Corner;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.DayKind;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.ways.Choices;
import marvek.core.ways.Compromise;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * For each question there is a corner of the demo where each school wins, by computation; but for
 * keeping off the kerbs, which using them where they pay includes, for letting the throttle go
 * wholly, which is more than is asked for, for braking straight, which leaves grip unused and wins
 * hardly anywhere, for doing without the brake, which costs time always, for opening the throttle
 * at once, which a squeeze that begins late includes, for the very edge, which the quickest line
 * touches where it pays, and for keeping off what lies beyond it.
 */
@Tag("slow")
class SchoolsTest {
  private static final MarkerJudge.View PLAIN = new MarkerJudge.View(null, null, false, 1);
  private static final DemoDesk RING_GT = DemoDesk.of("falcoeira-ring", "cup-gt");
  private static final DemoDesk RING_PROTOTYPE =
      DemoDesk.of("falcoeira-ring", "downforce-prototype");
  private static final DemoDesk HILL_GT = DemoDesk.of("serra-quebrada", "cup-gt");
  private static final DemoDesk HILL_BIKE = DemoDesk.of("serra-quebrada", "motorcycle-600");

  private static DemoDesk computed(String name) {
    return switch (name) {
      case "ring gt" -> RING_GT;
      case "ring prototype" -> RING_PROTOTYPE;
      case "hill gt" -> HILL_GT;
      default -> HILL_BIKE;
    };
  }

  @ParameterizedTest
  @CsvSource({
    "BRAKE_SHAPE, FRONT_LOADED, ring gt, c4",
    "BRAKE_SHAPE, PROGRESSIVE, ring gt, c12",
    "RELEASE, TO_APEX, ring gt, c4",
    "RELEASE, EARLY_ROLL, ring prototype, c5",
    "TRAIL, HEAVY_TRAIL, ring gt, c1",
    "TRAIL, LIGHT_TRAIL, hill gt, c15",
    "ROLL, NEVER_COAST, ring gt, c4",
    "LIFT, LIFT_SOME, ring gt, c11",
    "SLOW_WITH, BRAKED, hill gt, c8",
    "THROTTLE, SQUEEZED, ring gt, c14",
    "LINE, TWO_APEXES, ring gt, c7",
    "LINE, ONE_LATE_APEX, hill gt, c34",
    "LINE, TIGHT, ring gt, c8",
    "WIDTH, AS_PAYS, ring gt, c9",
    "CROSSING, CROSS_AT_ONCE, hill gt, c23",
    "CROSSING, DRIFT_OVER, hill gt, c1",
    "APEX, LATE_APEX, ring gt, c5",
    "APEX, EARLY_APEX, ring gt, c3",
    "GEAR, LOWER_GEAR, ring gt, c4",
    "GEAR, HIGHER_GEAR, ring gt, c14",
    "SHIFT, LIMITER, hill bike, c9",
    "SHIFT, SHIFT_UP, ring gt, c4",
    "KERBS, ALL_KERBS, ring gt, c1",
    "LIGHT, NO_LIGHT, ring gt, c14",
    "LIGHT, SAME_HOUR, hill bike, c22",
  })
  void wins(Question question, School school, String where, String corner) {
    DemoDesk demo = computed(where);
    Choices.Compared compared =
        Choices.compare(demo.computed(), demo.things(), demo.entry(corner), question, PLAIN);
    assertThat(compared.best()).isEqualTo(school);
    Choices.Outcome best = outcome(compared, school);
    for (Choices.Outcome other : compared.outcomes()) {
      if (other.school() == school || other.toNext() == null) {
        continue;
      }
      if (question == Question.LIGHT) {
        assertThat(Objects.requireNonNull(best.precision()))
            .as("without the other there is no marker, or a worse one")
            .isLessThanOrEqualTo(
                Objects.requireNonNullElse(other.precision(), Double.MAX_VALUE) + 0.01);
      } else {
        assertThat(Objects.requireNonNull(best.toNext())).isLessThan(other.toNext() + 0.004);
      }
    }
  }

  /**
   * In the dry kerbs give room nearly everywhere on the ring; where they are slippery, the wet
   * takes it.
   */
  @Test
  void inTheWetSomeKerbsPayNoLonger() {
    ComputedLap dry = RING_GT.computed();
    ComputedLap wet =
        Variants.computed(dry, Footing.plain(RING_GT.things().zones()), DayKind.WET.usual());
    List<String> pay = best(dry, RING_GT.things(), School.ALL_KERBS);
    List<String> still = best(wet, RING_GT.things(), School.ALL_KERBS);
    assertThat(pay).hasSizeGreaterThan(3);
    assertThat(still).isNotEmpty();
    // What pays by a few thousandths of a second only is told to be alike.
    assertThat(pay).anyMatch(c -> !still.contains(c));
  }

  /** Between the pedals a vehicle neither slows as it could nor gains: no roll is ever quicker. */
  @Test
  void rollingIsNowhereTheQuicker() {
    for (DemoDesk demo : List.of(RING_GT, RING_PROTOTYPE, HILL_GT, HILL_BIKE)) {
      List<School> rolls =
          demo.draft().stream()
              .filter(
                  e -> Choices.arising(demo.computed(), demo.things(), e).contains(Question.ROLL))
              .map(
                  e ->
                      Choices.compare(demo.computed(), demo.things(), e, Question.ROLL, PLAIN)
                          .best())
              .toList();
      assertThat(rolls).hasSizeGreaterThan(4).doesNotContain(School.COAST);
    }
  }

  /** Whoever may use the kerbs may leave them: where leaving them wins, it wins by a hair. */
  @Test
  void keepingOffTheKerbsIsNowhereTheQuicker() {
    for (DemoDesk demo : List.of(RING_GT, RING_PROTOTYPE, HILL_GT, HILL_BIKE)) {
      assertThat(given(demo.computed(), demo.things()).values())
          .isNotEmpty()
          .allMatch(seconds -> seconds > -0.004);
    }
  }

  /** Where every kerb is slippery, some that pay in the dry pay no longer in the wet. */
  @Test
  void slipperyKerbsAreLeftAloneInTheWet() {
    Things slippery =
        new Things(
            RING_GT.things().landmarks(),
            RING_GT.things().kerbs().stream().map(SchoolsTest::slippery).toList(),
            RING_GT.things().zones(),
            RING_GT.things().limits(),
            RING_GT.things().places());
    ComputedLap dry = RING_GT.computed();
    ComputedLap wet =
        Variants.computed(dry, Footing.plain(RING_GT.things().zones()), DayKind.WET.usual());
    List<String> left = new ArrayList<>(best(dry, slippery, School.ALL_KERBS));
    left.removeAll(best(wet, slippery, School.ALL_KERBS));
    assertThat(left).isNotEmpty();
    // Nowhere the other way round.
    assertThat(best(dry, slippery, School.NO_KERBS))
        .doesNotContainAnyElementsOf(best(wet, slippery, School.ALL_KERBS));
    // Over the lap the wet takes a good part of what they give.
    double inTheDry = sum(given(dry, slippery));
    double inTheWet = sum(given(wet, slippery));
    assertThat(inTheWet).isBetween(0.0, 0.75 * inTheDry);
  }

  private static double sum(Map<String, Double> seconds) {
    return seconds.values().stream().mapToDouble(s -> s).sum();
  }

  /** Seconds that the kerbs give in each corner that has them, to the next braking. */
  private static Map<String, Double> given(ComputedLap day, Things things) {
    Map<String, Double> out = new LinkedHashMap<>();
    for (CornerEntry entry : Drafter.draft(day, things.landmarks()).corners()) {
      if (Choices.arising(day, things, entry).contains(Question.KERBS)) {
        Choices.Compared both = Choices.compare(day, things, entry, Question.KERBS, PLAIN);
        Double without = outcome(both, School.NO_KERBS).toNext();
        if (without != null) {
          Double with = outcome(both, School.ALL_KERBS).toNext();
          assertThat(with).as("%s can be made with kerbs as well", entry.corner()).isNotNull();
          out.put(entry.corner(), without - Objects.requireNonNull(with));
        }
      }
    }
    return out;
  }

  private static Kerb slippery(Kerb k) {
    return new Kerb(
        k.id(),
        k.left(),
        k.from(),
        k.to(),
        k.corner(),
        k.part(),
        k.profile(),
        k.width(),
        k.height(),
        k.behind(),
        true,
        k.verdict(),
        k.note(),
        k.photo());
  }

  /** Corners in which one way with the kerbs is the best. */
  private static List<String> best(ComputedLap day, Things things, School way) {
    List<CornerEntry> draft = Drafter.draft(day, things.landmarks()).corners();
    List<String> out = new ArrayList<>();
    for (Corner c : day.corners()) {
      CornerEntry entry = draft.get(day.indexOf(c.id()));
      if (Choices.arising(day, things, entry).contains(Question.KERBS)
          && Choices.compare(day, things, entry, Question.KERBS, PLAIN).best() == way) {
        out.add(c.id());
      }
    }
    return out;
  }

  private static Choices.Outcome outcome(Choices.Compared compared, School school) {
    return compared.outcomes().stream().filter(o -> o.school() == school).findFirst().orElseThrow();
  }

  /** The corners from one to another linked, as a driver may link them in the survey. */
  private static ComputedLap linked(ComputedLap computed, String first, String last) {
    int from = computed.indexOf(first);
    int to = computed.indexOf(last);
    List<Corner> corners = new ArrayList<>();
    for (int k = 0; k < computed.corners().size(); k++) {
      Corner c = computed.corners().get(k);
      corners.add(
          new Corner(
              c.id(),
              c.number(),
              c.name(),
              c.left(),
              c.entry(),
              c.apexes(),
              c.exit(),
              c.radius(),
              c.angle(),
              c.kind(),
              k >= from && k <= to ? 9 : 0,
              false));
    }
    return ComputedLap.onLine(
        computed.road(),
        corners,
        computed.ground(),
        computed.vehicle(),
        computed.conditions(),
        computed.path().offset());
  }

  /** The lap's own line is the quickest already: what a corner gives away is not won back. */
  @ParameterizedTest
  @CsvSource({
    "GIVE_FIRST, c5, c6",
    "GIVE_SECOND, c11, c12",
    "GIVE_MIDDLE, c9, c11",
  })
  void givingAwayLinkedCornersIsSaidToCostTime(School school, String first, String last) {
    ComputedLap computed = linked(RING_GT.computed(), first, last);
    int c = computed.indexOf(first);
    Compromise picture = Compromise.of(computed, RING_GT.things(), c, school, 1);
    Compromise.Step nothing = picture.steps().get(0);
    Compromise.Step all = picture.steps().get(picture.steps().size() - 1);
    assertThat(picture.best().given()).isLessThan(0.35);
    assertThat(picture.best().seconds()).isGreaterThan(nothing.seconds() - 0.01);
    assertThat(all.metres()).isGreaterThan(0.5);
    assertThat(all.seconds()).isGreaterThan(nothing.seconds() + 0.01);
  }

  @Test
  void whatIsLostInOneAndWonInTheOthersIsTheWhole() {
    ComputedLap computed = RING_GT.computed();
    Compromise picture =
        Compromise.of(computed, RING_GT.things(), computed.indexOf("c9"), School.GIVE_MIDDLE, 1);
    Compromise.Step nothing = picture.steps().get(0);
    assertThat(nothing.lost()).isZero();
    assertThat(nothing.metres()).isZero();
    double moved = -1;
    for (Compromise.Step step : picture.steps()) {
      assertThat(step.seconds())
          .isCloseTo(
              nothing.seconds() + step.lost() - step.won(),
              org.assertj.core.api.Assertions.within(1e-9));
      moved = Math.max(moved, step.metres());
    }
    assertThat(moved).isGreaterThan(0.5);
    assertThat(
            Compromise.of(
                    computed, RING_GT.things(), computed.indexOf("c9"), School.GIVE_MIDDLE, 0.3)
                .steps())
        .hasSize(4);
  }

  @Test
  void theCautionStaysThatNoChoiceBrakesLaterThanItsOwnMargin() {
    for (String corner : new String[] {"c1", "c4", "c12"}) {
      Choices.Compared compared =
          Choices.compare(
              RING_GT.computed(),
              RING_GT.things(),
              RING_GT.entry(corner),
              Question.BRAKE_SHAPE,
              PLAIN);
      for (Choices.Outcome o : compared.outcomes()) {
        assertThat(o.marginSeconds()).isGreaterThan(0.8 * compared.now().marginSeconds());
      }
    }
  }
}
