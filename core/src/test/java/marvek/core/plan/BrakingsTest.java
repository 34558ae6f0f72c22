package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import marvek.core.circuit.CircuitReading;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.BrakedAgain;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.entry.Variant;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.Driving;
import marvek.core.lap.LapTrace;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** No braking of the lap is without a point, on roads and vehicles that nobody had in mind. */
@Tag("slow")
class BrakingsTest {
  /** A braking as the lap's own trace tells it: onset, slowest and the speeds there. */
  record Seen(double onset, double slowest, double from, double to) {}

  /**
   * Brakings found by walking along the trace once, apart from how the draft finds them: pressed
   * above 3 %, over when half a second without brakes has regained 1 m/s.
   */
  static List<Seen> seen(ComputedLap computed) {
    LapTrace lap = computed.lap();
    int n = lap.size();
    int start = 0;
    // Where most speed was gained since the brake was last pressed no braking goes on.
    double gained = 0;
    for (int i = 0; i < n; i++) {
      int j = i;
      while (lap.brake()[j] <= 0.03 && Math.floorMod(i - j, n) < n - 1) {
        double gain = lap.speed()[i] - lap.speed()[j];
        start = gain > gained ? i : start;
        gained = Math.max(gained, gain);
        j = (j + n - 1) % n;
      }
    }
    List<Seen> out = new ArrayList<>();
    int onset = -1;
    int slowest = -1;
    int last = -1;
    for (int k = start; k <= start + n; k++) {
      int i = k % n;
      boolean pressed = lap.brake()[i] > 0.03 && k < start + n;
      if (onset >= 0) {
        double gap = 0;
        for (int j = last; j < k; j++) {
          gap += computed.path().step()[j % n] / lap.speed()[j % n];
        }
        boolean over = gap >= 0.5 && lap.speed()[i] - lap.speed()[slowest % n] >= 1;
        if (over || k == start + n) {
          double from = lap.speed()[onset % n];
          double to = lap.speed()[slowest % n];
          if (from - to > 4) {
            out.add(
                new Seen(
                    onset % n * computed.road().step(),
                    slowest % n * computed.road().step(),
                    from,
                    to));
          }
          onset = -1;
        }
      }
      if (pressed && onset < 0) {
        onset = k;
        slowest = k;
      }
      if (onset >= 0) {
        slowest = lap.speed()[i] < lap.speed()[slowest % n] ? k : slowest;
        last = pressed ? k : last;
      }
    }
    return out;
  }

  static Stream<Arguments> drives() {
    List<Arguments> out = new ArrayList<>();
    for (int seed = 50; seed < 52; seed++) {
      for (VehicleClasses.VehicleClass v : VehicleClasses.all()) {
        out.add(Arguments.of(seed, v.id()));
      }
    }
    return out.stream();
  }

  @ParameterizedTest
  @MethodSource("drives")
  void everyBrakingHasItsPointOrItsRemark(long seed, String vehicle) {
    CircuitReading survey = RandomRoads.of(seed, 150 + 40 * (seed % 4));
    ComputedLap dry = Drives.computed(survey, vehicle);
    check(dry);
    ComputedLap wet = dry.on(Conditions.dryWarm().withGrip(0.62));
    check(wet);
    assertThat(wet.lap().lapTime()).isGreaterThan(dry.lap().lapTime());
    unchanged(dry);
  }

  /**
   * A corner that is rolled through while the brakes are on for the one after it is no end of what
   * its neighbour is driven over: margin and throttle of the first are its own.
   */
  @ParameterizedTest
  @CsvSource({"3188, 280, c14, c1", "3042, 230, c6, c8"})
  void aBrakingThatGoesOverIntoTheOneAfterNext(long seed, double radius, String one, String other) {
    CircuitReading survey = RandomRoads.of(seed, radius);
    ComputedLap lap = Drives.computed(survey, "motorcycle-1000");
    check(lap);
    CornerEntry first = Drafter.entry(lap, lap.indexOf(one));
    double next = lap.brakings().of(lap.indexOf(other)).get(0).onset() * lap.road().step();
    CornerAnswer answer = Answers.answer(lap, first);
    assertThat(answer.braking()).isNotNull();
    assertThat(answer.braking().marginSeconds()).isBetween(0.1, 0.6);
    first
        .station(PointKind.FIRST_THROTTLE)
        .ifPresent(s -> assertThat(lap.road().apart(s, next)).isPositive());
  }

  /** Carried to the very same circumstances, a driver's own corners stay as they are. */
  private static void unchanged(ComputedLap computed) {
    List<CornerEntry> draft = Drafter.draft(computed, List.of()).corners();
    for (CornerEntry was : draft) {
      CornerEntry own = was.copy().note("mine").done();
      for (CornerPoint p : was.points()) {
        own = own.copy().moved(p.kind(), computed.road().wrap(p.station() + 3.3)).done();
      }
      assertThat(
              Carried.entry(computed.road(), own, was, was, 0.5, computed.vehicle().gears(), null))
          .isEqualTo(own);
    }
  }

  static void check(ComputedLap computed) {
    ReferenceContent draft = Drafter.draft(computed, List.of());
    assertThat(LostBrakings.in(computed, draft)).isEmpty();
    for (Seen b : seen(computed)) {
      double early = Driving.FULL.margin() * b.from() + 5;
      boolean marked =
          draft.corners().stream()
              .flatMap(e -> e.station(PointKind.BRAKE).stream())
              .map(s -> computed.road().apart(s, b.onset()))
              .anyMatch(ahead -> ahead >= -1e-6 && ahead <= early);
      boolean remarked =
          draft.corners().stream()
              .flatMap(e -> e.again().stream())
              .anyMatch(a -> Math.abs(computed.road().apart(a.station(), b.onset())) < 1.5);
      boolean written =
          draft.corners().stream()
              .flatMap(e -> e.actions().stream())
              .filter(a -> a.kind() == ActionKind.BRAKE)
              .map(a -> computed.road().apart(a.station(), b.onset()))
              .anyMatch(ahead -> ahead >= -1e-6 && ahead <= early);
      assertThat(marked || remarked || written).as(b.toString()).isTrue();
    }
  }

  /**
   * m/s that the brakes themselves take off before a point of the draft: what is rolled off in
   * between, by the turn and the air, the reader counts too. For telling what a failed check is.
   */
  static double takenOff(ComputedLap computed, Seen b) {
    ReferenceContent draft = Drafter.draft(computed, List.of());
    LapTrace lap = computed.lap();
    int n = lap.size();
    double point =
        Stream.of(
                draft.corners().stream().flatMap(e -> e.station(PointKind.BRAKE).stream()),
                draft.corners().stream().flatMap(e -> e.again().stream()).map(BrakedAgain::station),
                draft.corners().stream()
                    .flatMap(e -> e.actions().stream())
                    .filter(a -> a.kind() == ActionKind.BRAKE)
                    .map(Action::station))
            .flatMap(x -> x)
            .mapToDouble(x -> computed.road().ahead(b.onset(), x))
            .min()
            .orElse(computed.road().length());
    double end = Math.min(point, computed.road().ahead(b.onset(), b.slowest()));
    int first = (int) Math.round(b.onset() / computed.road().step());
    double sum = 0;
    for (int k = 0; k * computed.road().step() < end; k++) {
      int i = (first + k) % n;
      if (lap.brake()[i] > 0.03) {
        sum += Math.max(0, lap.speed()[i] - lap.speed()[(i + 1) % n]);
      }
    }
    return sum;
  }

  @ParameterizedTest
  @CsvSource({
    "701, 280, single-seater",
    "713, 280, single-seater",
    "718, 240, cup-gt",
    "720, 400, motorcycle-1000"
  })
  void noThrottleIsOpenedPastTheNextMarker(long seed, double radius, String vehicle) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
    for (int c = 0; c < draft.size(); c++) {
      CornerEntry next = draft.get((c + 1) % draft.size());
      CornerEntry here = draft.get(c);
      List<CornerPoint> points = new ArrayList<>(here.points());
      points.addAll(Drafter.places(lap, c).points());
      next.station(PointKind.BRAKE)
          .ifPresent(
              marker ->
                  assertThat(points)
                      .as(here.corner())
                      .filteredOn(
                          p ->
                              p.kind() == PointKind.FIRST_THROTTLE
                                  || p.kind() == PointKind.FULL_THROTTLE)
                      .allMatch(p -> lap.road().apart(p.station(), marker) > 0));
    }
  }

  /** Half a second of little throttle at the limit of the tyres before the next braking. */
  @ParameterizedTest
  @CsvSource({
    "705, 640, motorcycle-1000, c1",
    "714, 360, motorcycle-600, c1",
    "714, 400, motorcycle-1000, c1",
    "720, 360, motorcycle-600, c1"
  })
  void whatIsHeldBackUpToTheNextBrakingIsNotFlat(
      long seed, double radius, String vehicle, String corner) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    int c = lap.indexOf(corner);
    int onset = lap.brakesFrom(c + 1);
    int steps = (int) (lap.lap().speed()[onset] / 2 / lap.road().step());
    for (int k = steps / 4; k <= steps; k++) {
      assertThat(lap.lap().throttle()[lap.road().loop().at(onset - k)])
          .as("held back all the way")
          .isLessThan(0.75);
    }
    assertThat(Drafter.places(lap, c).slowing()).isEqualTo(Slowing.LIFT);
    // Eased the most where it rolls, and not where it is braked for what comes next.
    double here = mean(lap, lap.slowest(c));
    int turnIn = lap.road().index(lap.lines().get(c).turnIn());
    for (int k = 12; k < lap.road().loop().ahead(turnIn, onset); k++) {
      assertThat(here).isLessThanOrEqualTo(mean(lap, onset - k) + 1e-9);
    }
  }

  /** The throttle around a place, where it is not braked. */
  private static double mean(ComputedLap lap, int at) {
    return IntStream.rangeClosed(-6, 6)
        .map(j -> lap.road().loop().at(at + j))
        .filter(i -> lap.lap().brake()[i] <= 0)
        .mapToDouble(i -> lap.lap().throttle()[i])
        .average()
        .orElse(1);
  }

  @Test
  void aMarkerThatStandsPastTheBrakingIsTold() {
    Example gt = Example.of("cup-gt");
    assertThat(LostBrakings.in(gt.computed, gt.draft)).isEmpty();
    double onset = gt.computed.brakesFrom(0) * gt.computed.road().step();
    CornerEntry late = gt.first().copy().moved(PointKind.BRAKE, onset + 96).done();
    List<LostBrakings.Lost> lost =
        LostBrakings.in(
            gt.computed, new ReferenceContent(List.of(late, gt.draft.corners().get(1))));
    assertThat(lost).hasSize(1);
    assertThat(lost.get(0).corner()).isEqualTo(late.corner());
    assertThat(lost.get(0).later()).isBetween(95.0, 97.0);
    assertThat(gt.answer(late).braking()).isNotNull();
    assertThat(gt.answer(late).braking().marginMetres()).isLessThan(-40);
    CornerEntry lifted = gt.first().copy().slowing(Slowing.LIFT).done();
    assertThat(LostBrakings.in(gt.computed, new ReferenceContent(List.of(lifted)))).hasSize(1);
  }

  @Test
  void aCornerLiftedForInTheDryIsBrakedForInTheWet() {
    Example gt = Example.of("cup-gt");
    CornerEntry lifted =
        gt.first()
            .copy()
            .slowing(Slowing.LIFT)
            .points(gt.first().points().stream().filter(p -> p.kind() != PointKind.BRAKE).toList())
            .done();
    Variant wet = new Variant("wet", DayKind.WET, "", DayKind.WET.usual(), List.of());
    CornerEntry then =
        Variants.adjust(
                gt.computed,
                Variants.computed(gt.computed, Footing.plain(List.of()), wet.day()),
                wet,
                lifted)
            .entry();
    assertThat(then.slowing()).isEqualTo(Slowing.BRAKE);
    assertThat(then.point(PointKind.BRAKE)).isPresent();
  }

  @Test
  void aSecondBrakingOfACornerIsSaidAndKeptOutOfTheMargin() {
    ComputedLap computed = null;
    int c = -1;
    for (long seed = 70; seed < 75 && c < 0; seed++) {
      CircuitReading survey = RandomRoads.of(seed, 230);
      computed = Drives.computed(survey, "downforce-prototype");
      for (int k = 0; k < computed.corners().size() && c < 0; k++) {
        c = computed.brakings().of(k).size() > 1 ? k : -1;
      }
    }
    assertThat(c).as("a corner with two brakings").isNotNegative();
    CornerEntry e = Drafter.entry(computed, c);
    long written = e.actions().stream().filter(a -> a.kind() == ActionKind.BRAKE).count();
    assertThat(e.again().size() + written).isEqualTo(computed.brakings().of(c).size() - 1);
    Speech speech = Speech.PLAIN.on(computed.road().length());
    assertThat(Sentence.line(computed.corners().get(c), e, speech)).contains("brake again");
    double onset = computed.brakings().of(c).get(0).onset() * computed.road().step();
    CornerAnswer.BrakingNumbers b = Answers.answer(computed, e).braking();
    assertThat(b).isNotNull();
    // The last place to brake is that for the first slow place, not for the second.
    assertThat(computed.road().apart(onset, b.limitStation())).isBetween(-3.0, 5.0);
  }

  /** Whoever rolls for a second and a half between two presses has braked twice. */
  @Test
  void aLongRollBetweenTwoPressesMakesTwoBrakings() {
    ComputedLap on = Drives.computed(RandomRoads.of(8, 300), "cup-gt");
    assertThat(presses(on, 1.0).all()).hasSize(1);
    assertThat(presses(on, 1.3).all()).hasSize(1);
    assertThat(presses(on, 1.8).all()).hasSize(2);
  }

  /** Braked from 40 to 30 m/s, rolled at that speed, braked to 20 m/s; flat for the rest. */
  private static Brakings presses(ComputedLap on, double rolled) {
    int n = on.road().size();
    double[] speed = new double[n];
    double[] brake = new double[n];
    int first = n / 3;
    int again = first + 60 + (int) Math.round(30 * rolled / on.road().step());
    for (int i = 0; i < n; i++) {
      double v = 40;
      if (i >= first && i < again) {
        v = Math.max(30, 40 - (i - first) / 6.0);
      } else if (i >= again) {
        v = Math.min(40, Math.max(20, 30 - (i - again) / 6.0) + Math.max(0, i - again - 70) / 10.0);
      }
      speed[i] = v;
      brake[i] = i >= first && i < first + 60 || i >= again && i < again + 60 ? 0.5 : 0;
    }
    LapTrace lap = on.lap();
    return Brakings.of(
        on.road(),
        on.path(),
        new LapTrace(
            speed,
            lap.time(),
            lap.along(),
            lap.across(),
            lap.gear(),
            lap.throttle(),
            brake,
            lap.cornerSpeed(),
            lap.unbraked(),
            lap.lapTime(),
            lap.boostBelow()),
        List.of());
  }
}
