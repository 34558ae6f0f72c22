package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.session.TrialPlan.Way;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.technique.School;
import marvek.core.vehicle.SetupSheet;
import org.hipparchus.stat.StatUtils;
import org.hipparchus.stat.inference.TTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Two ways driven against each other: planned, ordered, judged. */
class TrialTest {
  private static final Things NOTHING = Things.none();

  private static double[] laps(Random chance, int n, double mean, double spread) {
    return chance.doubles(n).map(u -> mean + spread * chance.nextGaussian()).toArray();
  }

  private static String said(TrialResult r) {
    return Plain.words(r.verdict());
  }

  /** Welch's interval against the t test of a reference library on the same numbers. */
  @Test
  void welchAgreesWithAReferenceLibrary() {
    double[] a = {41.20, 41.35, 41.18, 41.42, 41.27, 41.31};
    double[] b = {41.02, 41.15, 40.98, 41.11, 41.30};
    TrialResult trial = TrialResult.of(a, b, 5, 0.1);
    assertThat(trial.difference()).isCloseTo(StatUtils.mean(b) - StatUtils.mean(a), within(1e-12));
    // Moved by either end of the interval, the test says 5 % to the last digit.
    for (double end : List.of(trial.low(), trial.high())) {
      double[] moved = Arrays.stream(b).map(v -> v - end).toArray();
      assertThat(new TTest().tTest(a, moved)).isCloseTo(0.05, within(1e-6));
    }
    assertThat(trial.decided()).isTrue();
    assertThat(said(trial)).startsWith("B is quicker by 0.18 s");
  }

  @Test
  void thereIsOneVerdictAndItWaitsForThePlannedNumber() {
    Random chance = new Random(4);
    double[] a = laps(chance, 6, 41, 0.03);
    double[] b = laps(chance, 6, 40.5, 0.03);
    TrialResult early = TrialResult.of(a, b, 7, 0.1);
    assertThat(early.decided()).isFalse();
    assertThat(said(early)).startsWith("6 of 7 driven each way");
    assertThat(said(TrialResult.of(a, b, 6, 0.1))).startsWith("B is quicker by 0.4");
    assertThat(said(TrialResult.of(b, a, 6, 0.1))).startsWith("A is quicker by 0.4");
    assertThat(said(TrialResult.of(a, a.clone(), 6, 0.1))).startsWith("No difference that matters");
    double[] wide = {40, 43, 41, 42};
    double[] other = {42.5, 40.5, 41.5, 40.2};
    assertThat(said(TrialResult.of(wide, other, 4, 0.1))).startsWith("Cannot be told");
    assertThat(said(TrialResult.of(new double[] {1}, new double[] {2, 3}, 0, 0.1)))
        .startsWith("Not enough laps");
    assertThat(said(TrialResult.of(new double[] {}, new double[] {2, 3}, 5, 0.1)))
        .startsWith("0 of 5");
  }

  /**
   * Trials made by chance: of ways that are alike one in twenty is told apart or fewer, of ways
   * that differ as was reckoned four in five or as many as were reckoned. Few laps tell little of
   * two spreads.
   */
  @ParameterizedTest
  @ValueSource(doubles = {12, 8, 5, 3, 2.2, 1.7, 1.2})
  void trialsKeepTheirLevelAndTheirPower(double spreads) {
    Random chance = new Random(71);
    double worth = 0.1 * spreads;
    int planned = TrialPlan.laps(worth, 0.1);
    int wrong = 0;
    int right = 0;
    int many = 4000;
    for (int k = 0; k < many; k++) {
      double[] a = laps(chance, planned, 20, 0.1);
      TrialResult alike = TrialResult.of(a, laps(chance, planned, 20, 0.1), planned, worth);
      double[] b = laps(chance, planned, 20 - worth, 0.1);
      TrialResult quicker = TrialResult.of(a, b, planned, worth);
      wrong += said(alike).contains("quicker") ? 1 : 0;
      right += said(quicker).startsWith("B is quicker") ? 1 : 0;
    }
    double power = TrialPlan.power(planned, spreads);
    assertThat(power).isGreaterThan(TrialPlan.POWER);
    assertThat((double) right / many).isCloseTo(power, within(0.025));
    assertThat((double) wrong / many).isBetween(planned < 10 ? 0.01 : 0.035, 0.065);
  }

  /** What drifts through a session evenly is in both ways alike. */
  @ParameterizedTest
  @ValueSource(doubles = {0.12, 0.3, 2})
  void theOrderKeepsDriftOutOfTheDifference(double difference) {
    PlannedTrial trial = driving(difference, 0.06, 60);
    List<Way> order = plan(trial).order();
    List<PlannedTrial.Lap> driven = new ArrayList<>();
    for (int lap = 1; lap <= order.size() + 2; lap++) {
      driven.add(new PlannedTrial.Lap("lap " + lap, "run", lap));
    }
    Map<String, Way> marks = trial.marks(driven);
    double[] sum = new double[2];
    int[] count = new int[2];
    for (int lap = 1; lap <= driven.size(); lap++) {
      Way way = marks.get("lap " + lap);
      if (way != null) {
        // A tenth a lap and the square of it: tyres and fuel.
        sum[way.ordinal()] += 0.1 * lap - 0.001 * lap * lap;
        count[way.ordinal()]++;
      }
    }
    assertThat(count[0]).isEqualTo(count[1]).isGreaterThanOrEqualTo(trial.planned());
    double drift = sum[1] / count[1] - sum[0] / count[0];
    // The first half against the second differs by more than a second.
    assertThat(Math.abs(drift)).isLessThan(0.1);
  }

  private static TrialPlan plan(PlannedTrial trial) {
    TrialPlan plan = trial.plan();
    assertThat(plan).isNotNull();
    return plan;
  }

  private static PlannedTrial driving(double difference, double spread, int laps) {
    Alternative a = Alternative.driving(Alternative.Source.REFERENCE, "", "", List.of());
    Alternative b = Alternative.driving(Alternative.Source.SCHOOL, "DAB", "", List.of());
    return PlannedTrial.of(
        "1", a, new Alternatives.Offer(b, -difference), new OwnSpread(spread, 12), laps, 3, null);
  }

  @Test
  void coldLapsAndTheFirstOfEachBlockDoNotCount() {
    PlannedTrial trial = driving(0.2, 0.08, 40);
    assertThat(plan(trial).told()).isTrue();
    List<PlannedTrial.Lap> driven = new ArrayList<>();
    for (int lap = 1; lap <= 8; lap++) {
      driven.add(new PlannedTrial.Lap("a" + lap, "a", lap));
    }
    // From the pits in the second block: it is driven anew when the tyres are warm again.
    for (int lap = 1; lap <= 8; lap++) {
      driven.add(new PlannedTrial.Lap("b" + lap, "b", lap));
    }
    Map<String, Way> marks = trial.marks(driven);
    assertThat(marks.keySet())
        .containsExactlyInAnyOrder("a4", "a5", "a7", "a8", "b4", "b5", "b7", "b8");
    assertThat(marks.get("a4")).isEqualTo(Way.A);
    assertThat(marks.get("a7")).isEqualTo(Way.B);
    assertThat(marks.get("b4")).isEqualTo(Way.B);
    assertThat(marks.get("b7")).isEqualTo(Way.A);
  }

  @Test
  void tooFewLapsForADifferenceAreSaid() {
    PlannedTrial trial = driving(0.01, 0.15, 15);
    assertThat(plan(trial).told()).isFalse();
    assertThat(plan(trial).order()).isEmpty();
    assertThat(trial.planned()).isGreaterThan(1000);
    assertThat(trial.marks(List.of(new PlannedTrial.Lap("x", "run", 5)))).isEmpty();
  }

  @Test
  void aSheetIsTriedByStintsOfWhichThereAreThreeEachAtLeast() {
    Alternative a = Alternative.setUp(Alternative.Source.SHEET, "", "dry", null);
    Alternative b = Alternative.setUp(Alternative.Source.SHEET, "", "wing", null);
    Alternatives.Offer large = new Alternatives.Offer(b, -3.0);
    OwnSpread spread = new OwnSpread(0.2, 20);
    PlannedTrial few = PlannedTrial.of("", a, large, spread, 25, 2, null);
    assertThat(few.planned()).isEqualTo(3);
    assertThat(plan(few).told()).isFalse();
    PlannedTrial enough = PlannedTrial.of("", a, large, spread, 30, 2, null);
    assertThat(plan(enough).order()).containsExactly(Way.A, Way.B, Way.B, Way.A, Way.B, Way.A);
    Map<String, Way> marks =
        enough.marks(
            List.of(
                new PlannedTrial.Lap("1.1", "1", 1),
                new PlannedTrial.Lap("1.2", "1", 2),
                new PlannedTrial.Lap("1.3", "1", 3),
                new PlannedTrial.Lap("2.1", "2", 1),
                new PlannedTrial.Lap("2.2", "2", 2)));
    assertThat(marks).containsOnlyKeys("1.2", "1.3", "2.2");
    assertThat(marks.get("1.3")).isEqualTo(Way.A);
    assertThat(marks.get("2.2")).isEqualTo(Way.B);
  }

  /** Where laps are few, the spread taken is one that eight drivers in ten do not exceed. */
  @Test
  void theOwnSpreadOfFewLapsIsTakenWide() {
    Random chance = new Random(12);
    int under = 0;
    for (int k = 0; k < 1000; k++) {
      OwnSpread few = OwnSpread.of(List.of(laps(chance, 6, 92, 0.2)), 1);
      under += few.seconds() >= 0.2 ? 1 : 0;
    }
    assertThat(under / 1000.0).isBetween(0.77, 0.83);
    // What differs from run to run is not the driver's spread.
    double[] first = laps(chance, 40, 92, 0.2);
    double[] second = laps(chance, 40, 95, 0.2);
    OwnSpread many = OwnSpread.of(List.of(first, second), 1);
    assertThat(many.seconds()).isCloseTo(0.2, within(0.04));
    assertThat(many.laps()).isEqualTo(80);
    assertThat(OwnSpread.of(List.of(new double[] {92, 93, 92}), 0.35))
        .isEqualTo(new OwnSpread(0.35, 0));
  }

  /** Every way that is offered is another way, and takes what is said of it. */
  @Test
  void whatIsOfferedCanBeDrivenAndTakesWhatIsSaid() {
    int offered = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-600")) {
      ComputedLap lap = Drives.computed(RandomRoads.of(821, 380), vehicle);
      List<CornerEntry> entries = Drafter.draft(lap, List.of()).corners();
      for (CornerEntry e : entries.subList(0, 5)) {
        for (Alternatives.Offer o : Alternatives.schools(lap, NOTHING, entries, e.corner())) {
          offered++;
          School school = School.valueOf(o.way().key());
          CornerEntry way =
              o.way().entries().stream()
                  .filter(w -> w.corner().equals(e.corner()))
                  .findFirst()
                  .orElseThrow();
          assertThat(way.schools()).contains(school);
          assertThat(way).isNotEqualTo(e);
          Double is = Answers.answer(lap, NOTHING, e).time();
          Double would = Answers.answer(lap, NOTHING, way).time();
          assertThat(is).isNotNull();
          assertThat(would).isNotNull();
          assertThat(o.predicted()).isCloseTo(would - is, within(1e-6)).isLessThan(0.5);
        }
      }
    }
    assertThat(offered).isGreaterThan(10);
  }

  @Test
  void aCornerWrittenElsewhereIsOfferedWhereItDiffers() {
    ComputedLap lap = Drives.computed(RandomRoads.of(822, 380), "cup-gt");
    CornerEntry e =
        Drafter.draft(lap, List.of()).corners().stream()
            .filter(c -> c.slowing() == Slowing.BRAKE)
            .findFirst()
            .orElseThrow();
    double at = e.station(PointKind.BRAKE).orElseThrow();
    CornerEntry early = e.copy().moved(PointKind.BRAKE, lap.road().wrap(at - 20)).done();
    Alternatives.Offer offer =
        Alternatives.written(lap, NOTHING, e, early, Alternative.Source.REVISION, "3", "")
            .orElseThrow();
    assertThat(offer.predicted()).isGreaterThan(0.05);
    PlannedTrial.Traces traces = Alternatives.traces(lap, NOTHING, e, early);
    int before = (int) (lap.road().ahead(traces.from(), lap.road().wrap(at - 2)) / traces.step());
    assertThat(traces.b().get(before)).isLessThan(traces.a().get(before) - 1);
    assertThat(Alternatives.written(lap, NOTHING, e, e, Alternative.Source.REVISION, "3", ""))
        .isEmpty();
  }

  /** What brakes so late that less than a tenth of a second is left is nothing to be tried. */
  @Test
  void nothingIsOfferedThatUsesUpWhatIsInHand() {
    ComputedLap lap = Drives.computed(RandomRoads.of(824, 380), "cup-gt");
    int asked = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      Answers answers = Answers.at(lap, NOTHING, lap.indexOf(e.corner()));
      if (e.slowing() != Slowing.BRAKE || answers.margin(e) < 0.12) {
        continue;
      }
      asked++;
      CornerEntry last = at(lap, e, answers.markerAt(e, 0.02));
      CornerEntry enough = at(lap, e, answers.markerAt(e, 0.115));
      CornerEntry sooner = at(lap, e, answers.markerAt(e, 0.4));
      assertThat(written(lap, NOTHING, e, last)).isEmpty();
      assertThat(written(lap, NOTHING, e, enough)).isNotEmpty();
      assertThat(written(lap, NOTHING, e, sooner)).isNotEmpty();
      // With something hard behind the edge nothing later, and what is sooner as before.
      Things hard = hardBehind(lap, e);
      assertThat(written(lap, hard, e, enough)).isEmpty();
      assertThat(written(lap, hard, e, sooner)).isNotEmpty();
    }
    assertThat(asked).isGreaterThan(3);
  }

  private static Things hardBehind(ComputedLap lap, CornerEntry e) {
    Corner corner = lap.corners().get(lap.indexOf(e.corner()));
    Zone wall =
        new Zone(
            "z",
            ZoneKind.WALL,
            corner.left() ? Zone.Side.RIGHT : Zone.Side.LEFT,
            corner.apex(),
            lap.road().wrap(corner.apex() + 40),
            2,
            null,
            null,
            null,
            null,
            "",
            "");
    return new Things(List.of(), List.of(), List.of(wall), List.of(), List.of(), List.of());
  }

  private static CornerEntry at(ComputedLap lap, CornerEntry e, double station) {
    return e.copy().moved(PointKind.BRAKE, lap.road().wrap(station)).done();
  }

  private static Optional<Alternatives.Offer> written(
      ComputedLap lap, Things things, CornerEntry now, CornerEntry other) {
    return Alternatives.written(lap, things, now, other, Alternative.Source.REVISION, "2", "");
  }

  @Test
  void aSettingThatTheComputationDoesNotKnowHasNoPrediction() {
    ComputedLap lap = Drives.computed(RandomRoads.of(823, 380), "cup-gt");
    SetupSheet bars =
        new SetupSheet(
            "bars",
            SetupSheet.Purpose.DRY,
            List.of(new SetupSheet.Setting("rebound.front", 9.0, "", "", "")),
            "");
    SetupSheet heavy =
        new SetupSheet(
            "heavy",
            SetupSheet.Purpose.DRY,
            List.of(new SetupSheet.Setting("mass.ballast", 60.0, "", "", "")),
            "");
    assertThat(setUp(lap, bars).predicted()).isNull();
    assertThat(setUp(lap, heavy).predicted()).isGreaterThan(0.1);
  }

  private static Alternatives.Offer setUp(ComputedLap lap, SetupSheet sheet) {
    return Alternatives.setUp(
        lap, lap.vehicle(), null, sheet, Alternative.Source.SHEET, "", sheet.name());
  }
}
