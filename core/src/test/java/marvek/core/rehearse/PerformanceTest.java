package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Path;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.rehearse.Performance.Control;
import marvek.core.rehearse.Performance.DueAction;
import marvek.core.rehearse.Performance.Press;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** A lap driven by heart: on the clock, pressed, and told. */
class PerformanceTest {
  private static DueAction due(Control key, double at) {
    return new DueAction("c", "a" + at, key, at, at * 60, null);
  }

  private static Press press(Control key, double at) {
    return new Press(key, at, null, null);
  }

  private static Performance of(List<DueAction> due, List<Press> presses) {
    return Performance.of(due, presses, t -> t * 60);
  }

  /**
   * Four vehicles: braking sooner costs time and is made, and once it is later than the margin the
   * corner is missed, by as many metres as it is beyond it.
   */
  @Test
  void whatWouldHaveHappenedIsDriven() {
    int deep = 0;
    int slow = 0;
    for (String vehicle : List.of("small-hatch", "cup-gt", "single-seater", "motorcycle-600")) {
      Example example = Example.of(vehicle);
      ComputedLap lap = example.computed;
      List<CornerEntry> entries = example.draft.corners();
      for (CornerEntry e : entries) {
        CornerAnswer plan = Answers.answer(lap, Things.none(), e);
        if (e.slowing() != Slowing.BRAKE || plan.time() == null || plan.braking() == null) {
          continue;
        }
        double margin = plan.braking().marginMetres();
        DueAction due = new DueAction(e.corner(), "brake", Control.BRAKE, 10, 0, null);
        Happened sooner = happened(lap, entries, due, -12);
        assertThat(sooner.seconds()).isNotNull().isGreaterThan(0);
        assertThat(sooner.deep()).isNull();
        slow++;
        Happened late = happened(lap, entries, due, margin + 9);
        assertThat(late.seconds()).isNull();
        if (late.deep() != null) {
          // The last place is told anew for the speed that is carried further.
          assertThat(late.deep()).isBetween(4.0, 16.0);
          Double deeper = happened(lap, entries, due, margin + 15).deep();
          assertThat(deeper).isNotNull().isBetween(late.deep() + 3, late.deep() + 9);
          deep++;
        }
      }
    }
    assertThat(slow).isGreaterThan(8);
    assertThat(deep).isGreaterThan(slow / 2);
  }

  private static Happened happened(
      ComputedLap lap, List<CornerEntry> entries, DueAction due, double metres) {
    List<Happened> all =
        Happened.of(
            lap,
            Things.none(),
            entries,
            List.of(new Performance.Met(due, metres / 60, metres, null, true, false)));
    assertThat(all).hasSize(1);
    return all.get(0);
  }

  /** What is on its place needs no telling, and the farthest are told first of all. */
  @Test
  void theFarthestAreDriven() {
    ComputedLap lap = Drives.computed(RandomRoads.of(2, 45), "cup-gt");
    List<CornerEntry> entries = Drafter.draft(lap, List.of()).corners();
    List<Performance.Met> met = new ArrayList<>();
    double by = 0.5;
    for (DueAction d : Drive.of(lap, entries).due()) {
      met.add(new Performance.Met(d, 0.01, by, null, true, false));
      by += 0.5;
    }
    List<Happened> told = Happened.of(lap, Things.none(), entries, met);
    assertThat(told).hasSize(Happened.MOST);
    Performance.Met last = met.get(met.size() - 1);
    assertThat(told.get(told.size() - 1).action()).isEqualTo(last.due().action());
    assertThat(Happened.of(lap, Things.none(), entries, met.subList(0, 2))).isEmpty();
  }

  /** 60 m/s, 0.2 s late: 12 m; at half speed 0.2 s by the wall is 0.1 s of road, 6 m. */
  @Test
  void lateIsToldInSecondsAndMetresOfTheRoad() {
    List<DueAction> due = List.of(due(Control.BRAKE, 10));
    Performance full =
        of(due, List.of(press(Control.BRAKE, Performance.road(10.2 + 0.03, 0.03, 1))));
    assertThat(full.met().get(0).seconds()).isCloseTo(0.2, within(1e-9));
    assertThat(full.met().get(0).metres()).isCloseTo(12, within(1e-6));
    Performance half = of(due, List.of(press(Control.BRAKE, Performance.road(20.2, 0, 0.5))));
    assertThat(half.met().get(0).metres()).isCloseTo(6, within(1e-6));
  }

  @Test
  void orderIsKeptAndWhatBelongsToNothingIsExtra() {
    List<DueAction> due =
        List.of(due(Control.BRAKE, 10), due(Control.BRAKE, 11), due(Control.HANDS, 10.4));
    Performance p =
        of(
            due,
            List.of(
                press(Control.BRAKE, 10.45),
                press(Control.BRAKE, 10.9),
                press(Control.BRAKE, 30),
                press(Control.THROTTLE, 10)));
    assertThat(p.met().stream().map(m -> m.due().at()).toList()).containsExactly(10.0, 11.0);
    assertThat(p.missed()).containsExactly(due.get(2));
    assertThat(p.extra()).hasSize(2);
    // Nearer to the next one than to its own: that one was meant.
    Performance later = of(due, List.of(press(Control.BRAKE, 10.6)));
    assertThat(later.met().get(0).due().at()).isEqualTo(11);
  }

  /** A planted driver late by 0.2 s with a spread of 0.04 s is read right, and the spread told. */
  @Test
  void aPlantedBiasIsReadWithinFiveHundredths() {
    Random chance = new Random(3);
    int held = 0;
    for (int k = 0; k < 200; k++) {
      List<DueAction> due = new ArrayList<>();
      List<Press> presses = new ArrayList<>();
      for (int i = 0; i < 14; i++) {
        due.add(due(Control.BRAKE, 6 * (i + 1)));
        presses.add(press(Control.BRAKE, 6 * (i + 1) + 0.2 + 0.04 * chance.nextGaussian()));
      }
      Performance p = of(due, presses);
      assertThat(p.bias()).isNotNull().isCloseTo(0.2, within(0.05));
      assertThat(p.spread()).isNotNull().isBetween(0.015, 0.08);
      Double low = p.low();
      Double high = p.high();
      assertThat(low).isNotNull();
      assertThat(high).isNotNull();
      held += low <= 0.2 && 0.2 <= high ? 1 : 0;
    }
    // 95 of 100 or more: order statistics come in whole presses.
    assertThat(held / 200.0).isGreaterThan(0.93);
    assertThat(of(List.of(due(Control.BRAKE, 5)), List.of(press(Control.BRAKE, 5.1))).bias())
        .isNull();
  }

  /** The road runs on the plan: times add up to the lap, and places are where they are due. */
  @Test
  void theLapOnTheClockIsTheComputedLap() {
    for (String vehicle : List.of("cup-gt", "motorcycle-600")) {
      ComputedLap lap = Drives.computed(RandomRoads.of(831, 380), vehicle);
      List<CornerEntry> entries = Drafter.draft(lap, List.of()).corners();
      Drive drive = Drive.of(lap, entries);
      assertThat(drive.lapTime()).isCloseTo(lap.lap().lapTime(), within(0.05));
      assertThat(drive.due()).hasSizeGreaterThan(entries.size());
      double last = -1;
      for (DueAction d : drive.due()) {
        assertThat(d.at()).isGreaterThanOrEqualTo(last);
        last = d.at();
        assertThat(drive.station(d.at())).isCloseTo(d.station(), within(0.01));
      }
      assertThat(drive.station(drive.lapTime() + 1))
          .isCloseTo(lap.road().length() + drive.station(1), within(0.01));
    }
  }

  @Test
  void everyActionThatIsPlacedIsAFactAndLateBrakingIsWorthMost() {
    ComputedLap lap = Drives.computed(RandomRoads.of(832, 380), "cup-gt");
    List<CornerEntry> entries = Drafter.draft(lap, List.of()).corners();
    List<Fact> facts = Facts.of(lap, Things.none(), entries, Set.of("1"));
    assertThat(facts.stream().map(Fact::id)).doesNotHaveDuplicates();
    for (CornerEntry e : entries) {
      List<Fact> own = facts.stream().filter(f -> f.corner().equals(e.corner())).toList();
      assertThat(own).anyMatch(f -> f.asks() == Fact.Asks.GEAR && f.answer() == e.gear());
      assertThat(
              own.stream()
                  .anyMatch(f -> f.action().equals("brake") || e.slowing() != Slowing.BRAKE))
          .isTrue();
      own.forEach(
          f -> {
            assertThat(f.worth()).isBetween(0.004, 1.0);
            assertThat(f.precision()).isBetween(0.0, 12.0);
          });
    }
  }

  /** By the slide of a thumb to 15 points; by the two keys of the brake as hard or light. */
  @Test
  void howMuchIsToldByTheThumbAndByTheTwoKeysOfTheBrake() {
    DueAction hard = new DueAction("c", "brake", Control.BRAKE, 10, 600, 0.9);
    DueAction light = new DueAction("c", "brake-2", Control.BRAKE, 14, 840, 0.35);
    DueAction lift = new DueAction("c", "lift", Control.THROTTLE, 20, 1200, 0.6);
    List<Performance.Met> thumb =
        of(
                List.of(hard, light, lift),
                List.of(
                    new Press(Control.BRAKE, 10, 0.8, null),
                    new Press(Control.BRAKE, 14, 0.6, null),
                    new Press(Control.THROTTLE, 20, null, null)))
            .met();
    assertThat(thumb.get(0).more()).isCloseTo(-0.1, within(1e-9));
    assertThat(thumb.get(0).enough()).isTrue();
    assertThat(thumb.get(1).more()).isCloseTo(0.25, within(1e-9));
    assertThat(thumb.get(1).enough()).isFalse();
    assertThat(thumb.get(2).more()).isNull();
    assertThat(thumb).noneMatch(Performance.Met::otherKey);
    for (boolean right : List.of(true, false)) {
      List<Performance.Met> keys =
          of(
                  List.of(hard, light),
                  List.of(
                      new Press(Control.BRAKE, 10, null, right),
                      new Press(Control.BRAKE, 14, null, !right)))
              .met();
      assertThat(keys).allMatch(m -> m.otherKey() != right && m.more() == null);
    }
    // A marker that says nothing of how hard is pressed with either.
    Press either = new Press(Control.BRAKE, 10, null, false);
    assertThat(of(List.of(due(Control.BRAKE, 10)), List.of(either)).met().get(0).otherKey())
        .isFalse();
  }

  /**
   * What is told as one's own is the middle of three passes or more; else it is a usual mistake.
   */
  @Test
  void aMistakeOnPurposeIsTheDriversOwnWhereThereIsOne() {
    Example example = Example.of("cup-gt");
    ComputedLap lap = example.computed;
    int corners = 0;
    for (CornerEntry e : example.draft.corners()) {
      CornerAnswer plan = Answers.answer(lap, Things.none(), e);
      if (e.slowing() != Slowing.BRAKE || plan.time() == null) {
        continue;
      }
      corners++;
      double at =
          Score.of(lap.road(), e).stream()
              .filter(a -> a.id().equals("brake"))
              .findFirst()
              .orElseThrow()
              .station();
      List<OnPurpose> usual = OnPurpose.of(lap, Things.none(), e, Map.of(), Map.of());
      assertThat(usual).isNotEmpty().hasSizeLessThanOrEqualTo(OnPurpose.MOST);
      assertThat(usual).allMatch(p -> p.whose() == OnPurpose.Whose.USUAL && p.of() == 0);
      for (OnPurpose p : usual) {
        assertThat(p.planned().speed()).hasSameSizeAs(p.wrong().speed());
        // Turned too late at the planned speed, only the way that is driven is another.
        boolean elsewhere = !Arrays.equals(p.planned().offset(), p.wrong().offset());
        assertThat(elsewhere || !Arrays.equals(p.planned().speed(), p.wrong().speed())).isTrue();
        assertThat(p.happened().seconds() == null || p.happened().seconds() > 0).isTrue();
      }
      // Twelve metres early in recorded laps: that is shown first, and what it costs.
      List<Double> driven = List.of(at - 11, at - 12, at - 14);
      OnPurpose own =
          OnPurpose.of(
                  lap,
                  Things.none(),
                  e,
                  Map.of("brake", driven),
                  Map.of("brake", List.of(9.0, 9.0, 9.0)))
              .get(0);
      assertThat(own.whose()).isEqualTo(OnPurpose.Whose.DRIVEN);
      assertThat(own.kind()).isEqualTo(ActionKind.BRAKE);
      assertThat(own.metres()).isCloseTo(-12, within(1e-6));
      assertThat(own.happened().seconds()).isNotNull().isPositive();
      // What was driven was made: sixty metres late cannot be, so something else was measured.
      List<Double> other = List.of(at + 60, at + 60, at + 61);
      assertThat(OnPurpose.of(lap, Things.none(), e, Map.of("brake", other), Map.of()))
          .isNotEmpty()
          .allMatch(p -> p.whose() == OnPurpose.Whose.USUAL);
      OnPurpose heart =
          OnPurpose.of(
                  lap,
                  Things.none(),
                  e,
                  Map.of("brake", List.of(at + 1, at - 1, at)),
                  Map.of("brake", List.of(-8.0, -9.0, -10.0)))
              .get(0);
      assertThat(heart.whose()).isEqualTo(OnPurpose.Whose.BY_HEART);
      assertThat(heart.of()).isEqualTo(3);
      assertThat(
              OnPurpose.of(lap, Things.none(), e, Map.of("brake", driven.subList(0, 2)), Map.of()))
          .allMatch(p -> p.whose() == OnPurpose.Whose.USUAL);
    }
    assertThat(corners).isGreaterThan(1);
  }

  /**
   * Where a corner is not made, what is drawn leaves the planned line to the outside, the farther
   * the later it is slowed for, and never before it differs.
   */
  @Test
  void whatIsNotMadeIsDrawnGoingWide() {
    int wide = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-600")) {
      Example example = Example.of(vehicle);
      ComputedLap lap = example.computed;
      for (CornerEntry e : example.draft.corners()) {
        CornerAnswer plan = Answers.answer(lap, Things.none(), e);
        if (e.slowing() != Slowing.BRAKE || plan.time() == null) {
          continue;
        }
        for (OnPurpose p : OnPurpose.of(lap, Things.none(), e, Map.of(), Map.of())) {
          if (p.happened().seconds() != null || p.kind() != ActionKind.BRAKE) {
            continue;
          }
          boolean left = lap.corners().get(lap.indexOf(e.corner())).left();
          double most = 0;
          for (int k = 0; k < p.wrong().offset().length; k++) {
            double out = (p.planned().offset()[k] - p.wrong().offset()[k]) * (left ? 1 : -1);
            most = Math.max(most, out);
            if (p.wrong().speed()[k] <= p.planned().speed()[k] && most == 0) {
              assertThat(Math.abs(out)).isLessThan(1e-9);
            }
          }
          assertThat(most).isBetween(0.3, 2 * Astray.MOST);
          wide++;
        }
      }
    }
    assertThat(wide).isGreaterThan(2);
  }

  /** On a constant arc, 10 % too fast turns 17 % less: v²/r stays what the tyres bear. */
  @Test
  void tooFastTurnsAsMuchLessAsItsSpeedSquaredIsMore() {
    int n = 200;
    double[] arc = new double[n];
    java.util.Arrays.fill(arc, 0.01);
    double[] none = new double[n];
    double[] even = new double[n];
    java.util.Arrays.fill(even, 1);
    Path path = new Path(none, even, arc, none, none, none, none);
    double[] speed = new double[100];
    for (int k = 0; k < 100; k++) {
      // 33 m/s down to 30 m/s over ten metres, then even.
      speed[k] = k < 10 ? 33 - 0.3 * k : 30;
    }
    CornerAnswer.Profile planned =
        new CornerAnswer.Profile(
            0, 1, speed, none, none, new int[100], new double[100], new double[100]);
    CornerAnswer.Profile late = Astray.slowedLater(path, 1, planned, 30);
    // For 20 m it goes at 33 m/s where 30 is borne: 20 m × 0.01 × (1 − (30/33)²) too little turned.
    double turned = 20 * 0.01 * (1 - Math.pow(30.0 / 33, 2));
    double slope = late.offset()[80] - late.offset()[79];
    assertThat(-slope).isBetween(turned, 2.2 * turned);
    assertThat(late.offset()[0]).isZero();
    assertThat(Astray.slowedLater(path, 1, planned, 0).offset()).containsOnly(0.0);
    assertThat(Astray.turnedLater(path, 1, planned, 0).offset()).containsOnly(0.0);
  }

  /** Late by 0.15 s at speed and in time when slow; what scatters as much is not told. */
  @Test
  void whatComesLateOnlyWhenTheRoadIsFastIsTold() {
    Random chance = new Random(17);
    int told = 0;
    int invented = 0;
    for (int k = 0; k < 200; k++) {
      List<AtSpeed.Lap> laps = new ArrayList<>();
      for (int lap = 0; lap < 10; lap++) {
        double rate = lap < 5 ? 0.5 : 1;
        DueAction late = new DueAction("c1", "brake", Control.BRAKE, 10, 600, 1.0);
        DueAction same = new DueAction("c2", "brake", Control.BRAKE, 20, 1200, 1.0);
        Performance done =
            of(
                List.of(late, same),
                List.of(
                    press(Control.BRAKE, 10 + (rate < 1 ? 0 : 0.15) + 0.04 * chance.nextGaussian()),
                    press(Control.BRAKE, 20.1 + 0.04 * chance.nextGaussian())));
        laps.add(new AtSpeed.Lap(rate, done.met()));
      }
      List<AtSpeed> out = AtSpeed.of(laps);
      told += out.stream().anyMatch(a -> a.corner().equals("c1") && a.fast() > a.slow()) ? 1 : 0;
      invented += out.stream().anyMatch(a -> a.corner().equals("c2")) ? 1 : 0;
      assertThat(AtSpeed.of(laps.subList(3, 10)).stream().map(AtSpeed::corner).toList()).isEmpty();
    }
    assertThat(told).isGreaterThan(190);
    assertThat(invented).isLessThan(12);
  }

  /** Presses of a plan that was changed since say nothing of what is planned now. */
  @Test
  void whatWasPlannedElsewhereIsNotHeldAgainstThePlan() {
    ComputedLap lap = Drives.computed(RandomRoads.of(2, 45), "cup-gt");
    Drive drive = Drive.of(lap, Drafter.draft(lap, List.of()).corners());
    Map<String, Double> planned = new HashMap<>();
    List<Press> presses = new ArrayList<>();
    for (DueAction d : drive.due()) {
      if (d.key() == Control.BRAKE) {
        planned.put(d.corner() + "/" + d.action(), d.station());
        presses.add(press(Control.BRAKE, d.at()));
      }
    }
    assertThat(driven(presses, planned).still(drive)).hasSize(planned.size());
    assertThat(driven(presses, null).still(drive)).isEmpty();
    String first = planned.keySet().iterator().next();
    planned.merge(first, 5.0, Double::sum);
    assertThat(driven(presses, planned).still(drive))
        .hasSize(planned.size() - 1)
        .noneMatch(m -> (m.due().corner() + "/" + m.due().action()).equals(first));
  }

  private static Rehearsed driven(List<Press> presses, @Nullable Map<String, Double> stations) {
    return new Rehearsed(
        "", null, 0, 0, 1, 0, false, null, null, List.of(Control.BRAKE), presses, stations);
  }
}
