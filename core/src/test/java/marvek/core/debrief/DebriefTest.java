package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Plain;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import marvek.core.plan.Answers;
import marvek.core.survey.Things;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.CornerEventsBuilder;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.LapGrid;
import marvek.core.vehicle.Vehicle;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What laps say against a reference, on a lap of four bends. */
@Tag("slow")
class DebriefTest {
  private static final String SECOND = Device.DRAFT.get(1).corner();

  private static List<LapData> laps(int count, long seed, Planted... habits) {
    Device.Read read = Device.read(Device.drive(count, seed, habits));
    List<LapData> out = new ArrayList<>();
    List<List<CornerEvents>> events = read.events();
    for (int i = 0; i < read.whole().size(); i++) {
      DrivenLap l = read.whole().get(i);
      LapGrid grid = LapGrid.of(l, Device.DESK.road().length(), Device.DESK.road().size() / 5);
      out.add(
          new LapData(
              "lap" + l.number(),
              "run",
              l.number(),
              l.lapTime(),
              grid.step(),
              grid.times(),
              events.get(i),
              true));
    }
    return out;
  }

  private static Debrief debrief(List<LapData> laps) {
    return Debriefer.read(Device.DESK, Device.DRAFT, laps);
  }

  @Test
  void sectionsOfALapAddUpToIt() {
    Sections sections = new Sections(Device.DESK, Device.DRAFT);
    for (LapData l : laps(3, 1)) {
      double sum = 0;
      for (int c = 0; c < Device.DRAFT.size(); c++) {
        double parts = 0;
        for (Sections.Phase p : Sections.Phase.values()) {
          parts += sections.time(l, c, p);
        }
        assertThat(parts).isCloseTo(sections.time(l, c), within(1e-9));
        sum += sections.time(l, c);
      }
      assertThat(sum).isCloseTo(l.lapTime(), within(1e-9));
    }
  }

  @Test
  void theBestOfAllCornersIsNoSlowerThanTheBestLap() {
    Debrief d = debrief(laps(8, 2));
    assertThat(d.laps()).isEqualTo(8);
    assertThat(d.theoretical()).isLessThanOrEqualTo(d.best());
    assertThat(d.best()).isLessThanOrEqualTo(d.median());
    assertThat(d.focus().size()).isLessThanOrEqualTo(3);
    assertThat(d.pace()).isBetween(0.95, 1.1);
    assertThat(d.corners()).hasSize(4);
    for (Debrief.CornerFinding f : d.corners()) {
      assertThat(f.offer()).isGreaterThanOrEqualTo(0);
      assertThat(f.points()).isNotEmpty();
      for (Debrief.PointFinding p : f.points()) {
        assertThat(p.hits()).isBetween(0.0, 1.0);
        assertThat(p.late()).hasSameSizeAs(p.laps());
      }
    }
  }

  @Test
  void noLapsGiveAnEmptyDebrief() {
    Debrief d = debrief(List.of());
    assertThat(d.laps()).isZero();
    assertThat(d.focus()).isEmpty();
  }

  @ParameterizedTest
  @EnumSource(
      value = Mistake.class,
      names = {
        "BRAKES_LATE_RUNS_DEEP", "SLOW_HAND_OFF", "RELEASES_SOON", "COASTS", "THROTTLE_THEN_LIFT",
        "MISSES_THE_KERB", "EXTRA_STEERING", "BRAKES_EARLY", "TWO_PRESSES", "FULL_THROTTLE_LATE"
      })
  void theCornerOfTheMistakeIsTheFirstToLookAt(Mistake mistake) {
    Debrief d = debrief(laps(6, 3, new Planted(mistake, SECOND, 1, 1)));
    Debrief.CornerFinding f = d.corners().get(1);
    assertThat(f.habits()).as(Plain.words(f.words())).isNotEmpty();
    assertThat(f.habits().get(0).share()).isGreaterThanOrEqualTo(0.4);
    assertThat(Plain.words(f.habits().get(0).cure())).isNotBlank();
    assertThat(f.habits().get(0).laps()).isNotEmpty();
    for (int c : new int[] {0, 2, 3}) {
      // The corner after may start from another place; no other has a habit of its own.
      if (c != 2) {
        assertThat(d.corners().get(c).habits()).as(mistake + " at " + c).isEmpty();
      }
    }
  }

  @Test
  void aMistakeOfOneLapInEightIsNoHabit() {
    List<LapData> clean = laps(7, 4);
    List<LapData> one = laps(1, 5, new Planted(Mistake.COASTS, SECOND, 1.5, 1));
    List<LapData> all = new ArrayList<>(clean);
    LapData odd = one.get(0);
    all.add(
        new LapData("odd", "run", 8, odd.lapTime(), odd.step(), odd.times(), odd.events(), true));
    assertThat(debrief(all).corners().get(1).habits()).isEmpty();
  }

  @Test
  void aHabitThatSlowsCostsTimeAndDoesNotWinIt() {
    List<LapData> all = new ArrayList<>(laps(4, 4));
    int k = 0;
    for (LapData l : laps(4, 5, new Planted(Mistake.COASTS, SECOND, 1.5, 1))) {
      all.add(
          new LapData(
              "slow" + k++, "run", 5 + k, l.lapTime(), l.step(), l.times(), l.events(), true));
    }
    Debrief.HabitFinding coasting =
        debrief(all).corners().get(1).habits().stream()
            .filter(h -> h.cause().equals("COASTING"))
            .findFirst()
            .orElseThrow();
    assertThat(coasting.laps()).hasSize(4).allMatch(id -> id.startsWith("slow"));
    assertThat(coasting.seconds()).isNotNull().isGreaterThan(0.03);
  }

  @Test
  void laterLapByLapIsATrend() {
    List<LapData> drifting = new ArrayList<>();
    int i = 0;
    for (LapData l : laps(8, 6)) {
      double by = 1.5 * i++;
      drifting.add(moved(l, by, 0));
    }
    Debrief.PointFinding brake =
        debrief(drifting).corners().get(1).points().stream()
            .filter(p -> p.kind() == PointKind.BRAKE)
            .findFirst()
            .orElseThrow();
    assertThat(brake.trendTells()).isTrue();
    assertThat(brake.trend()).isCloseTo(1.5, within(0.6));
  }

  /** The same lap with the second corner's braking elsewhere, and that corner so much slower. */
  private static LapData moved(LapData l, double brakeLater, double slower) {
    List<CornerEvents> events = new ArrayList<>();
    for (CornerEvents e : l.events()) {
      Double brake = e.brake();
      events.add(
          e.corner().equals(SECOND) && brake != null
              ? CornerEventsBuilder.builder(e).brake(brake + brakeLater).build()
              : e);
    }
    double[] times = l.times().clone();
    double apex = Device.DRAFT.get(1).station(PointKind.APEX).orElseThrow();
    for (int k = 0; k < times.length; k++) {
      times[k] += k * l.step() > apex ? slower : 0;
    }
    return new LapData(
        l.id(), l.run(), l.number(), l.lapTime() + slower, l.step(), times, events, l.told());
  }

  /** One lap many times over, each with its own braking, so that nothing else differs. */
  private static List<LapData> planted(int count, double reach, double secondsAMetre) {
    LapData base = laps(1, 7).get(0);
    double on =
        Device.DRAFT.get(1).station(PointKind.BRAKE).orElseThrow()
            - base.corner(SECOND).orElseThrow().brake();
    List<LapData> out = new ArrayList<>();
    Random chance = new Random(8);
    for (int i = 0; i < count; i++) {
      double late = reach * (2.0 * i / Math.max(1, count - 1) - 1);
      LapData l = moved(base, on + late, secondsAMetre * late + 0.002 * chance.nextGaussian());
      out.add(new LapData("lap" + i, "run", i, l.lapTime(), l.step(), l.times(), l.events(), true));
    }
    return out;
  }

  /**
   * Braking anywhere within 60 m, mostly early: it is the scatter that is told, not the early laps.
   */
  @Test
  void scatterExplainsTheLapsThatAreEarly() {
    List<LapData> scattered =
        planted(9, 30, 0).stream().map(l -> moved(l, -12, 0)).collect(Collectors.toList());
    List<String> causes =
        debrief(scattered).corners().get(1).habits().stream()
            .map(Debrief.HabitFinding::cause)
            .toList();
    assertThat(causes).contains("UNEVEN_BRAKING").doesNotContain("BRAKED_EARLY");
    List<LapData> early =
        planted(9, 1, 0).stream().map(l -> moved(l, -12, 0)).collect(Collectors.toList());
    assertThat(debrief(early).corners().get(1).habits())
        .extracting(Debrief.HabitFinding::cause)
        .contains("BRAKED_EARLY")
        .doesNotContain("UNEVEN_BRAKING");
  }

  private static boolean earlyFromSpeedAlone(double metres) {
    List<LapData> laps =
        planted(9, 1, 0).stream()
            .map(l -> moved(l, -metres, 0))
            .map(
                l ->
                    new LapData(
                        l.id(),
                        l.run(),
                        l.number(),
                        l.lapTime(),
                        l.step(),
                        l.times(),
                        l.events(),
                        false))
            .toList();
    return debrief(laps).corners().get(1).habits().stream()
        .anyMatch(h -> h.cause().equals("BRAKED_EARLY"));
  }

  /** From the speed alone braking is known to some metres only: no more is judged than that. */
  @Test
  void whatTheSpeedAloneCannotTellIsNotJudged() {
    assertThat(earlyFromSpeedAlone(12)).isFalse();
    assertThat(earlyFromSpeedAlone(20)).isTrue();
  }

  private static final String BRAKE = Score.id(PointKind.BRAKE);

  private static Proposal braking(List<LapData> laps, double longest) {
    return Proposals.of(Device.DESK, Things.none(), Device.DRAFT, laps, longest).stream()
        .filter(p -> p.corner().equals(SECOND) && p.action().equals(BRAKE))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void laterThatWasQuickerIsProposedWithItsGain() {
    Proposal p = braking(planted(9, 3, -0.02), 5);
    assertThat(p.change()).as(Plain.words(p.reason())).isTrue();
    double step = Device.DESK.road().apart(p.from(), p.to());
    double margin =
        Answers.answer(Device.DESK, Things.none(), Device.DRAFT.get(1)).braking().marginMetres();
    assertThat(step).isPositive().isLessThanOrEqualTo(3.0).isLessThan(margin);
    assertThat(p.gain()).isCloseTo(0.02 * step, within(0.004 * step));
    assertThat(p.gainLow()).isLessThanOrEqualTo(p.gain());
    assertThat(p.gainHigh()).isGreaterThanOrEqualTo(p.gain());
    assertThat(p.strength()).isIn(Proposal.Strength.STRONG, Proposal.Strength.FAIR);
    assertThat(p.evidence()).hasSize(9);
  }

  @Test
  void theStepIsNoLongerThanTheDriverAllows() {
    Proposal p = braking(planted(9, 4, 0.02), 1.5);
    assertThat(p.change()).as(Plain.words(p.reason())).isTrue();
    assertThat(Device.DESK.road().apart(p.from(), p.to())).isCloseTo(-1.5, within(1e-9));
    assertThat(Plain.words(p.limitedBy())).contains("one step");
  }

  @Test
  void neverPastTheMargin() {
    // Braking at the last place already: later was quicker, but none is left.
    double margin =
        Answers.answer(Device.DESK, Things.none(), Device.DRAFT.get(1)).braking().marginMetres();
    List<CornerEntry> last = new ArrayList<>(Device.DRAFT);
    CornerEntry e = last.get(1);
    double to = e.station(PointKind.BRAKE).orElseThrow() + margin - 0.5;
    last.set(1, e.copy().moved(PointKind.BRAKE, to).done());
    List<LapData> laps = new ArrayList<>();
    for (LapData l : planted(9, 3, -0.02)) {
      laps.add(moved(l, margin, 0));
    }
    Proposal p =
        Proposals.of(Device.DESK, Things.none(), last, laps, 5).stream()
            .filter(x -> x.corner().equals(SECOND) && x.action().equals(BRAKE))
            .findFirst()
            .orElseThrow();
    assertThat(p.change()).isFalse();
    assertThat(Plain.words(p.reason())).contains("no margin left");
  }

  @Test
  void tooLittleEvidenceSaysSo() {
    assertThat(Plain.words(braking(planted(4, 3, -0.02), 5).reason()))
        .contains("4 of at least 5 laps");
    Proposal still = braking(planted(9, 0.2, -0.02), 5);
    assertThat(still.change()).isFalse();
    assertThat(Plain.words(still.reason())).contains("same place each lap");
    Proposal none = braking(planted(9, 3, 0), 5);
    assertThat(none.change()).isFalse();
    assertThat(none.strength()).isEqualTo(Proposal.Strength.NONE);
  }

  @Test
  void whoRanDeepInOneRunIsNotSentDeeperByAnother() {
    List<LapData> all = new ArrayList<>();
    for (LapData l : laps(6, 11, new Planted(Mistake.BRAKES_LATE_RUNS_DEEP, SECOND, 1, 1))) {
      all.add(
          new LapData(
              "deep" + l.id(),
              "deep",
              l.number(),
              l.lapTime(),
              l.step(),
              l.times(),
              l.events(),
              true));
    }
    assertThat(debrief(all).corners().get(1).habits())
        .extracting(Debrief.HabitFinding::cause)
        .contains("BRAKED_LATE_RAN_DEEP");
    all.addAll(planted(12, 3, -0.02));
    Proposal p = braking(all, 5);
    assertThat(p.change()).isFalse();
    assertThat(Plain.words(p.reason())).contains("go back to it before it is moved");
  }

  @Test
  void oneChangeACornerAtATime() {
    List<Proposal> all = Proposals.of(Device.DESK, Things.none(), Device.DRAFT, laps(12, 9), 5);
    for (CornerEntry e : Device.DRAFT) {
      assertThat(all.stream().filter(p -> p.change() && p.corner().equals(e.corner())).count())
          .isLessThanOrEqualTo(1);
    }
  }

  /** Laps of a vehicle with known other numbers, driven by the simulation itself. */
  @Test
  void aVehicleWithLessGripAndPowerIsToldFromItsLaps() {
    Vehicle v = Device.DESK.vehicle();
    Vehicle other =
        new Vehicle(
            v.kind(),
            v.mass(),
            v.width(),
            v.wheelbase(),
            v.cogHeight(),
            v.cogToFront(),
            new Vehicle.Engine(
                v.engine().curve().stream()
                    .map(p -> new Vehicle.TorquePoint(p.revs(), 0.9 * p.torque()))
                    .toList(),
                v.engine().shiftRevs(),
                v.engine().limitRevs()),
            v.gearbox(),
            new Vehicle.Tyres(
                0.93 * v.tyres().muX(),
                0.93 * v.tyres().muY(),
                v.tyres().loadSensitivity(),
                v.tyres().rolling()),
            v.aero(),
            v.brakes(),
            v.leanLimit(),
            v.boost());
    LapTrace lap = LapSimulator.lap(Device.DESK.path(), other, Device.DESK.conditions());
    VehicleFit.Lap one =
        new VehicleFit.Lap(
            lap.lapTime(), lap.speed(), lap.along(), lap.across(), lap.throttle(), new double[0]);
    VehicleFit fit = VehicleFit.of(Device.DESK, List.of(one, one));
    assertThat(fit.acrossFactor()).isCloseTo(0.93, within(0.02));
    assertThat(fit.powerFactor()).isCloseTo(0.9, within(0.04));
    assertThat(Math.abs(fit.after() - fit.measured()))
        .isLessThan(0.3 * Math.abs(fit.before() - fit.measured()));
    assertThat(fit.words()).hasSize(3);
  }
}
