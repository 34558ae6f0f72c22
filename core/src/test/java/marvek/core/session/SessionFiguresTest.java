package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import marvek.core.debrief.habits.Habit;
import marvek.core.debrief.habits.Habits;
import marvek.core.said.Said;
import marvek.core.score.Sureness;
import marvek.core.vehicle.Vehicle;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;

/** Figures of a session against worked examples, each with its source. */
class SessionFiguresTest {
  private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");

  /** Ideal gas with absolute values: 1.90 bar at 85 °C is 1.371 bar at 20 °C. */
  @Test
  void coldPressureGoesByTheGasLaw() {
    assertThat(Pressures.cold(190, 85, 20, Pressures.atmosphere(0))).isCloseTo(137.1, within(0.1));
    assertThat(Pressures.hotAt(145, 10, 195, Pressures.atmosphere(0))).isCloseTo(67.5, within(0.1));
    double cold = Pressures.cold(175, 70, 14, 95);
    assertThat(Pressures.hot(cold, 14, 70, 95)).isCloseTo(175, within(1e-9));
  }

  /** Standard atmosphere (ICAO Doc 7488): 0.932 bar at 700 m. */
  @Test
  void theAtmosphereIsThinnerHigherUp() {
    assertThat(Pressures.atmosphere(0)).isEqualTo(101.325);
    assertThat(Pressures.atmosphere(700)).isCloseTo(93.2, within(0.05));
  }

  /** 9.0 MJ at 30 % and 43.4 MJ/kg are 0.691 kg or 0.928 l; 300 g/kWh are 27.6 %. */
  @Test
  void fuelComesFromTheWorkOfTheEngine() {
    assertThat(FuelNeed.litres(9.0e6, 0.30, 43.4, 0.745)).isCloseTo(0.928, within(0.001));
    assertThat(FuelNeed.worked(9.0e6, null).perLap()).isCloseTo(0.928, within(0.001));
    // Alcohol holds 26.8 MJ/kg (from memory) at 0.79 kg/l; an engine that makes 36 % of it.
    Vehicle.Fuel alcohol = new Vehicle.Fuel(10, 60, 0.79, 26.8, 0.36);
    assertThat(FuelNeed.worked(9.0e6, alcohol).perLap()).isCloseTo(1.181, within(0.001));
    assertThat(FuelNeed.efficiency(0.300, 43.4)).isCloseTo(0.276, within(0.001));
  }

  /** Thirteen laps of 0.93 ± 0.02 l told from six: 12.30 l; 12 l reach with 24 %. */
  @Test
  void fuelToTheEndCoversAllButOneInTwenty() {
    FuelNeed need = new FuelNeed(0.93, 0.02, 6);
    assertThat(need.litres(13)).isCloseTo(12.30, within(0.005));
    assertThat(need.reaches(12, 13)).isCloseTo(0.24, within(0.015));
    assertThat(need.reaches(need.litres(13), 13)).isCloseTo(0.95, within(0.001));
    FuelNeed own = FuelNeed.measured(List.of(0.91, 0.93, 0.95));
    assertThat(own.perLap()).isCloseTo(0.93, within(1e-9));
    assertThat(own.spread()).isCloseTo(0.02, within(1e-9));
  }

  @Test
  void aRaceByTimeHasTheLapThatIsBegun() {
    assertThat(FuelNeed.laps(1200, 92.4, false)).isEqualTo(13);
    assertThat(FuelNeed.laps(1200, 92.4, true)).isEqualTo(14);
  }

  /** First-order lag of 150 s from 20 to 85: 49.9, 66.0, 74.8, 79.5 after laps of 92.4 s. */
  @Test
  void warmthSettles() {
    double at = 20;
    double[] seen = new double[4];
    for (int i = 0; i < 4; i++) {
      at = WarmUp.settled(at, 85, 92.4, 150);
      seen[i] = at;
    }
    assertThat(seen).containsExactly(new double[] {49.9, 66.0, 74.8, 79.5}, within(0.06));
  }

  /** Cold tyres are warm after three to five laps (common practice, no source). */
  @Test
  void usualTyresAreWarmWithinFiveLaps() {
    for (double lap : new double[] {75, 92.4, 110}) {
      assertThat(WarmUp.USUAL.warmFrom(lap)).isBetween(3, 5);
      assertThat(WarmUp.USUAL.share(1, lap)).isLessThan(WarmUp.USUAL.share(2, lap));
    }
    assertThat(WarmUp.WARMERS.warmFrom(92.4)).isLessThan(WarmUp.USUAL.warmFrom(92.4));
  }

  /** Milliken 1995: 1.3 g, 0.45 m high, 1.6 m wide: 0.866 of the load is on the outer wheel. */
  @Test
  void theOuterWheelBearsMore() {
    assertThat(WarmUp.outside(1.3, 0.45, 1.6)).isCloseTo(0.866, within(0.001));
  }

  /** Wilson 1927: six of eight are 0.409 at least. */
  @Test
  void aShareOfFewLapsIsDoubted() {
    assertThat(Focus.atLeast(6, 8)).isCloseTo(0.409, within(0.001));
    assertThat(Focus.atLeast(60, 80)).isGreaterThan(0.64);
    assertThat(Focus.atLeast(0, 0)).isZero();
  }

  private static Focus.Candidate candidate(String corner, double offer) {
    return new Focus.Candidate(
        corner, "WHEEL_LOCKED", offer, 0.01, 8, 8, Sureness.SURE, true, true, 0);
  }

  @Test
  void focusIsThreeCornersAtMostAndNoNeighboursThatAreLinked() {
    List<Focus.Candidate> all =
        List.of(
            candidate("1", 0.30),
            candidate("2", 0.29),
            candidate("3", 0.20),
            candidate("4", 0.15),
            candidate("5", 0.14),
            candidate("6", 0.04));
    assertThat(Focus.of(all, (a, b) -> a.equals("1") && b.equals("2")))
        .extracting(Focus::corner)
        .containsExactly("1", "3", "4");
  }

  @Test
  void whatIsNotToldOrNotSafeIsNoFocus() {
    assertThat(focused("WHEEL_LOCKED", 0.2, 0.01, true, true, 0)).isTrue();
    assertThat(focused("WHEEL_LOCKED", 0.2, -0.01, true, true, 0)).isFalse();
    assertThat(focused("WHEEL_LOCKED", 0.049, 0.01, true, true, 0)).isFalse();
    // Later or faster needs room, a driver who trusts it no less than before, and laps of such a
    // day.
    for (String more : List.of("BRAKED_EARLY", "FULL_LATE", "SOMETHING_NEW")) {
      assertThat(focused(more, 0.2, 0.01, true, true, 0)).as(more).isTrue();
      assertThat(focused(more, 0.2, 0.01, false, true, 0)).as(more).isFalse();
      assertThat(focused(more, 0.2, 0.01, true, false, 0)).as(more).isFalse();
      assertThat(focused(more, 0.2, 0.01, true, true, -1)).as(more).isFalse();
    }
    assertThat(focused("WHEEL_LOCKED", 0.2, 0.01, false, false, -1)).isTrue();
  }

  private static boolean focused(
      String cause, double offer, double low, boolean alike, boolean room, double confidence) {
    return !Focus.of(
            List.of(
                new Focus.Candidate("1", cause, offer, low, 8, 8, null, alike, room, confidence)),
            (a, b) -> false)
        .isEmpty();
  }

  /**
   * What asks for nothing more is a habit that there is; every other habit counts as asking for it.
   */
  @Test
  void everyHabitIsCalmOrTakenWithCare() {
    List<String> all = Habits.all().stream().map(Habit::id).toList();
    assertThat(all).containsAll(Focus.calm());
    assertThat(all.stream().filter(Focus::faster))
        .contains("BRAKED_EARLY", "OVER_SLOWED", "FULL_LATE", "LIFTED_UNWRITTEN", "COASTING");
    assertThat(Focus.calm()).noneMatch(Focus::faster);
  }

  @Test
  void onlyMarkersThatAreNotProvedOrTooSoonAreApproached() {
    Focus early = new Focus("1", "BRAKED_EARLY", 0.1, 0.2, 0.5);
    Focus late = new Focus("1", "FULL_LATE", 0.1, 0.2, 0.5);
    assertThat(Rungs.wanted(true, null)).isTrue();
    assertThat(Rungs.wanted(false, early)).isTrue();
    assertThat(Rungs.wanted(false, late)).isFalse();
    assertThat(Rungs.wanted(false, null)).isFalse();
  }

  /** Four wheels, two wheels; too low is refused with the number and not rounded up. */
  @Test
  void pressuresAreForTheWheelsThatThereAre() {
    SessionTyres tyres =
        SessionTyresBuilder.builder(SessionTyres.unknown())
            .hot(List.of(190.0, 150.0, 185.0, 185.0))
            .lastCold(List.of(145.0))
            .lastColdAt(10.0)
            .lastHot(List.of(195.0))
            .least(120.0)
            .build();
    double air = Pressures.atmosphere(0);
    List<Wheels> four = Wheels.of(tyres, 4, 20, null, air);
    assertThat(four).hasSize(4);
    assertThat(Wheels.of(tyres, 2, 20, null, air)).hasSize(2);
    Wheels learned = four.get(0);
    assertThat(learned.learned()).isTrue();
    assertThat(learned.hotAt()).isCloseTo(67.5, within(0.1));
    assertThat(learned.cold())
        .isCloseTo(Pressures.cold(190, learned.hotAt(), 20, air), within(1e-9));
    assertThat(learned.high() - learned.low()).isLessThan(four.get(2).high() - four.get(2).low());
    Wheels under = four.get(1);
    assertThat(under.cold()).isNull();
    assertThat(under.refused().key()).isEqualTo("wheels.under");
    assertThat(four.get(2).refused()).isEqualTo(Said.NOTHING);
  }

  /**
   * On a road that is 20 °C cooler the gas stays 10 °C cooler: more is set, and warmth comes later.
   */
  @Test
  void aCoolRoadAsksForMorePressureAndLongerToWarm() {
    double air = Pressures.atmosphere(0);
    SessionTyres tyres =
        SessionTyresBuilder.builder(SessionTyres.unknown())
            .hot(List.of(190.0))
            .lastCold(List.of(145.0))
            .lastColdAt(10.0)
            .lastHot(List.of(195.0))
            .lastRoad(35.0)
            .build();
    Wheels same = Wheels.of(tyres, 4, 20, 35.0, air).get(0);
    Wheels cool = Wheels.of(tyres, 4, 20, 15.0, air).get(0);
    assertThat(same.hotAt()).isCloseTo(67.5, within(0.1));
    assertThat(cool.hotAt()).isCloseTo(57.5, within(0.1));
    // (190 + p)·(T/330.7 − T/340.7) with p = 101.3 and T = 293.15: 7.6 kPa, by hand.
    assertThat(cool.cold() - same.cold()).isCloseTo(7.6, within(0.1));
    // Where only one of the two roads is known, nothing is told from the other.
    assertThat(Wheels.of(tyres, 4, 20, null, air).get(0).hotAt()).isEqualTo(same.hotAt());
    SessionDay mild = SessionDay.usual();
    SessionDay cold =
        SessionDayBuilder.builder(mild)
            .day(marvek.core.entry.DayBuilder.builder(mild.day()).airTemperature(3.0).build())
            .build();
    SessionTyres plain = SessionTyres.unknown();
    assertThat(plain.warmUp(mild)).isEqualTo(WarmUp.USUAL);
    assertThat(plain.warmUp(cold).missing()).isCloseTo(0.08 * 72 / 60, within(1e-9));
    assertThat(plain.warmUp(cold).warmFrom(90)).isGreaterThan(plain.warmUp(mild).warmFrom(90));
    SessionTyres out = SessionTyresBuilder.builder(plain).warmers(true).build();
    assertThat(out.warmUp(cold)).isEqualTo(WarmUp.WARMERS);
  }

  @Test
  void wearGoesWithTheWorkOfALap() {
    SessionTyres tyres =
        SessionTyresBuilder.builder(SessionTyres.unknown()).age(10).life(40).build();
    assertThat(tyres.worn(10, 1)).isCloseTo(1 - SessionTyres.WORN * 0.5, within(1e-12));
    assertThat(tyres.worn(10, 0.5)).isCloseTo(1 - SessionTyres.WORN * 15 / 40, within(1e-12));
    assertThat(SessionTyres.unknown().worn(30, 1)).isEqualTo(1);
  }

  @Test
  void anUnsurePlaceCountsLess() {
    Focus.Candidate sure = candidate("1", 0.2);
    Focus.Candidate unsure =
        new Focus.Candidate("2", "GEAR", 0.3, 0.01, 8, 8, Sureness.UNSURE, true, true, 0);
    assertThat(Focus.of(List.of(unsure, sure), (a, b) -> false).get(0).corner()).isEqualTo("1");
  }

  @Test
  void rungsAreShortAndKeepHalfOfWhatIsInHand() {
    Rungs rungs = Rungs.of("1", 22, 4, 20);
    assertThat(rungs.reached()).isTrue();
    List<Double> at = rungs.rungs();
    assertThat(at.get(0)).isEqualTo(22);
    for (int i = 1; i < at.size(); i++) {
      double step = at.get(i - 1) - at.get(i);
      assertThat(step).isPositive().isLessThanOrEqualTo(Rungs.LONGEST + 0.5);
      // Rounding to a metre gives half a metre either way.
      assertThat(step).isLessThanOrEqualTo((at.get(i - 1) + 4) / 2 + 1);
    }
    // Too few laps: it ends at what is reached by then.
    Rungs few = Rungs.of("1", 22, 4, 3);
    assertThat(few.reached()).isFalse();
    assertThat(few.rungs()).hasSize(3).last().isEqualTo(12.0);
    // No margin at the marker: the steps get small.
    assertThat(Rungs.of("1", 8, 0, 20).rungs()).startsWith(8.0, 4.0, 2.0);
  }

  /** Cohen 1988 (from memory): d 0.5, 0.8, 1.0 want 64, 26, 17 a side. */
  @Test
  void lapsForATrialAreThoseOfTheHandbook() {
    assertThat(TrialPlan.laps(0.5, 1)).isEqualTo(64);
    assertThat(TrialPlan.laps(0.8, 1)).isEqualTo(26);
    assertThat(TrialPlan.laps(1.0, 1)).isEqualTo(17);
    assertThat(TrialPlan.laps(-0.2, 0.15)).isEqualTo(10);
    assertThat(TrialPlan.laps(0, 0.15)).isGreaterThan(1000);
  }

  /** Thue–Morse: places 1 4 6 7 and 2 3 5 8 have the same sum (18) and sum of squares (102). */
  @Test
  void theOrderOfATrialTakesOutWhatDrifts() {
    List<TrialPlan.Way> order = TrialPlan.blocks(8);
    int[] sum = new int[2];
    int[] squares = new int[2];
    for (int i = 0; i < 8; i++) {
      int way = order.get(i).ordinal();
      sum[way] += i + 1;
      squares[way] += (i + 1) * (i + 1);
    }
    assertThat(sum).containsExactly(18, 18);
    assertThat(squares).containsExactly(102, 102);
  }

  @Test
  void aTrialOfTooFewLapsSaysSo() {
    TrialPlan enough = TrialPlan.driving(0.2, 0.15, 40);
    assertThat(enough.told()).isTrue();
    // Ten of each that count are five blocks of three of each.
    assertThat(enough.order()).hasSize(30);
    assertThat(enough.order().stream().filter(w -> w == TrialPlan.Way.A)).hasSize(15);
    assertThat(TrialPlan.driving(0.2, 0.15, 20).told()).isFalse();
  }

  /**
   * Kinematics: 180 to 60 km/h at 8 m/s² takes 138.9 m; drag 0.75 gives 1.1006 of the top speed.
   */
  @Test
  void stopsAndTows() {
    assertThat(Kinematics.stop(180 / 3.6, 60 / 3.6, 8)).isCloseTo(138.9, within(0.05));
    assertThat(Kinematics.stop(60, 25, 12)).isCloseTo(123.96, within(0.01));
    assertThat(Kinematics.after(100, 6)).isCloseTo(34.64, within(0.01));
    assertThat(Kinematics.tow(0.75)).isCloseTo(1.1006, within(0.0001));
  }

  /** java.time; RFC 5545: a gap moves forward, an overlap takes the earlier. */
  @Test
  void theClockOnTheWallIsKeptWhenItIsPutForwardOrBack() {
    Start gap = new Start(LocalDateTime.of(2026, 3, 29, 2, 30), BERLIN);
    assertThat(gap.instant()).isEqualTo(Instant.parse("2026-03-29T01:30:00Z"));
    assertThat(gap.zoned().toLocalTime()).hasToString("03:30");
    assertThat(gap.leftOut()).isTrue();
    Start twice = new Start(LocalDateTime.of(2026, 10, 25, 2, 30), BERLIN);
    assertThat(twice.instant()).isEqualTo(Instant.parse("2026-10-25T00:30:00Z"));
    assertThat(twice.twice()).isTrue();
    assertThat(gap.twice() || twice.leftOut()).isFalse();
    assertThat(Speaker.PLAIN.say(Timing.of(gap, 20).clocks(90)))
        .isEqualTo("The clock goes forward and leaves 02:30 out: 03:30 is meant.");
    assertThat(Speaker.PLAIN.say(Timing.of(twice, 20).clocks(90)))
        .isEqualTo("The clock goes back and 02:30 comes twice: the first is meant.");
    // Begun before, and still running when the clock goes.
    Start before = new Start(LocalDateTime.of(2026, 10, 25, 1, 50), BERLIN);
    assertThat(Speaker.PLAIN.say(Timing.of(before, 90).clocks(90)))
        .isEqualTo("The clock goes back while it runs: it ends at 02:20 by the new time.");
    assertThat(Timing.of(before, 60).clocks(90)).isEqualTo(Said.NOTHING);
    Start night = new Start(LocalDateTime.of(2026, 3, 29, 1, 30), BERLIN);
    assertThat(Speaker.PLAIN.say(new Timing(night, null, 60, 0, null, Timing.State.ON).clocks(60)))
        .isEqualTo("The clock goes forward while it runs: it ends at 03:30 by the new time.");
    // On every other day there is nothing to say, over midnight neither.
    Start late = new Start(LocalDateTime.of(2026, 12, 5, 23, 50), BERLIN);
    assertThat(Timing.of(late, 40).clocks(90)).isEqualTo(Said.NOTHING);
  }

  @Test
  void dueTimesRunBackwardsFromTheStartAndFollowADelay() {
    Timing timing = Timing.of(new Start(LocalDateTime.of(2026, 6, 6, 23, 50), BERLIN), 20);
    List<DaySheet.Due> sheet = DaySheet.of(timing, 90, true, List.of(Errand.WALK));
    assertThat(sheet).extracting(DaySheet.Due::errand).containsExactly(Errand.values());
    DaySheet.Due out = sheet.get(Errand.OUT.ordinal());
    assertThat(out.until()).isEqualTo(Instant.parse("2026-06-06T21:50:00Z"));
    // Over midnight at the circuit.
    DaySheet.Due log = sheet.get(Errand.LOG.ordinal());
    assertThat(log.from().atZone(BERLIN).toLocalDateTime()).hasToString("2026-06-07T00:10");
    assertThat(sheet.get(0).done()).isTrue();
    for (int i = 1; i < sheet.size(); i++) {
      assertThat(sheet.get(i).from()).isAfterOrEqualTo(sheet.get(i - 1).from());
    }
    List<DaySheet.Due> late = DaySheet.of(timing.later(20), 90, false, List.of());
    assertThat(late).noneMatch(d -> d.errand() == Errand.WALK);
    assertThat(late.get(late.size() - 1).from())
        .isEqualTo(sheet.get(sheet.size() - 1).from().plusSeconds(1200));
  }

  @Test
  void aCancelledSessionAsksNothingAndAStoppedOneOnlyWhatFollows() {
    Timing timing = Timing.of(new Start(LocalDateTime.of(2026, 6, 6, 14, 0), BERLIN), 20);
    assertThat(
            DaySheet.of(
                TimingBuilder.builder(timing).state(Timing.State.CANCELLED).build(),
                90,
                true,
                List.of()))
        .isEmpty();
    assertThat(
            DaySheet.of(
                TimingBuilder.builder(timing).state(Timing.State.STOPPED).build(),
                90,
                true,
                List.of()))
        .allMatch(d -> d.errand().after())
        .hasSize(3);
  }

  @Test
  void theNextErrandIsTheFirstThatIsNotDoneAndNotOver() {
    Timing timing = Timing.of(new Start(LocalDateTime.of(2026, 6, 6, 14, 0), BERLIN), 20);
    Instant begins = timing.begins();
    List<DaySheet.Due> sheet = DaySheet.of(timing, 90, false, List.of(Errand.BRIEF));
    assertThat(DaySheet.next(sheet, begins.minusSeconds(3600)).orElseThrow().errand())
        .isEqualTo(Errand.REHEARSE);
    assertThat(DaySheet.next(sheet, begins.minusSeconds(45 * 60)).orElseThrow().errand())
        .isEqualTo(Errand.PRESSURES);
    assertThat(DaySheet.next(sheet, begins.plusSeconds(4000)).orElseThrow().errand())
        .isEqualTo(Errand.LOG);
    assertThat(DaySheet.next(sheet, begins.plusSeconds(86_400))).isEmpty();
  }

  @Test
  void lapsThatFitFollowAShorterSession() {
    Timing timing = Timing.of(new Start(LocalDateTime.of(2026, 6, 6, 14, 0), BERLIN), 20);
    assertThat(timing.fits(92.4)).isEqualTo(12);
    assertThat(TimingBuilder.builder(timing).shortened(10).build().fits(92.4)).isEqualTo(6);
    Timing laps = TimingBuilder.builder(timing).minutes(null).laps(15).build();
    assertThat(laps.fits(92.4)).isEqualTo(15);
    assertThat(laps.lasts(100).toSeconds()).isEqualTo(1500);
  }

  private static List<Told> said(String corner, Told.Felt... felt) {
    return java.util.Arrays.stream(felt).map(f -> Told.corner(corner, f)).toList();
  }

  @Test
  void confidenceFallsWhereOneWasScaredLastOrWasGreatBefore() {
    assertThat(Confidence.trend(List.of(said("1", Told.Felt.GREAT), said("1", Told.Felt.EARLY))))
        .containsEntry("1", -1.0);
    assertThat(Confidence.trend(List.of(said("1", Told.Felt.SCARED))).get("1")).isNegative();
    assertThat(Confidence.trend(List.of(said("1", Told.Felt.SCARED), said("1", Told.Felt.GREAT))))
        .containsEntry("1", 1.0);
    // The last word of a session counts, and corners of which nothing was said are not there.
    assertThat(Confidence.trend(List.of(said("1", Told.Felt.SCARED, Told.Felt.LATE))))
        .containsOnly(java.util.Map.entry("1", 0.0));
  }
}
