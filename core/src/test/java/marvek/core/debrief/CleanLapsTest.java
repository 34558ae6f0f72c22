package marvek.core.debrief;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.logger.Plan;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Drafts driven as they are written, on roads that nobody looked at: few habits are told. */
@Tag("slow")
class CleanLapsTest {
  private static final List<VehicleClasses.VehicleClass> CLASSES = VehicleClasses.all();

  @Test
  void whoDrivesAsWrittenIsToldFewHabits() {
    int corners = 0;
    List<String> told = new ArrayList<>();
    for (int k = 0; k < 12; k++) {
      String vehicle = CLASSES.get(k % CLASSES.size()).id();
      long seed = 760 + k / 2;
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 200 + 40 * k), vehicle);
      List<CornerEntry> plan = Drafter.draft(lap, List.of()).corners();
      Plan as = new Plan(lap, plan, List.of(), 6, 1.5, 1, 0, true);
      List<LapData> laps = Drives.read(as, seed).stream().map(l -> Drives.data(l, lap)).toList();
      for (Debrief.CornerFinding c : Debriefer.read(lap, plan, laps).corners()) {
        corners++;
        if (!c.habits().isEmpty()) {
          told.add(seed + " " + vehicle + " " + c.corner() + " " + c.habits().get(0).cause());
        }
      }
    }
    assertThat(corners).isGreaterThan(80);
    assertThat(told).hasSizeLessThanOrEqualTo(corners / 40);
  }

  /** Lines that bend less and more again within a corner, by nearly what a correction is. */
  @ParameterizedTest
  @CsvSource({
    "712, 200, small-hatch, c5",
    "717, 600, motorcycle-600, c9",
    "720, 360, motorcycle-600, c2"
  })
  void whatTheLineNearlyAsksOfTheHandsIsNoCorrection(
      long seed, double radius, String vehicle, String corner) {
    assertThat(causes(seed, radius, vehicle, corner)).doesNotContain("EXTRA_STEERING");
  }

  /** Long flat bends, apexed by the turning of the path far from where the reference has it. */
  @ParameterizedTest
  @CsvSource({"715, 480, cup-gt, c2", "723, 600, motorcycle-1000, c1"})
  void noApexIsMissedThatTheLineDoesNotHaveThereEither(
      long seed, double radius, String vehicle, String corner) {
    assertThat(causes(seed, radius, vehicle, corner)).doesNotContain("KERB_MISSED");
  }

  /** Steep ways to a stage, where a metre or two of place is a good share of the pedal. */
  @ParameterizedTest
  @CsvSource({
    "809, 480, cup-gt, c1",
    "811, 640, motorcycle-1000, c3",
    "821, 280, single-seater, c1"
  })
  void noStageIsBehindThatIsOnlyLate(long seed, double radius, String vehicle, String corner) {
    assertThat(causes(seed, radius, vehicle, corner)).doesNotContain("STAGE_BEHIND");
  }

  /** A quarter of the throttle over a hundred metres: a little more of it is as many metres. */
  @Test
  void noStageIsLateOnAWayThatHardlyRises() {
    assertThat(causes(831, 640, "motorcycle-1000", "c1")).doesNotContain("STAGE_LATE");
  }

  /** A hairpin, where the scatter of the line alone makes the slowest place slower. */
  @Test
  void aTighterLineThroughAHairpinIsNotSlowedTooMuch() {
    assertThat(causes(809, 480, "cup-gt", "c1")).doesNotContain("OVER_SLOWED");
  }

  /** Half of the laps have a correction too many, and no more than that. */
  @Test
  void whatHalfOfTheLapsShowByChanceIsNoHabit() {
    assertThat(causes(826, 240, "cup-gt", "c10")).doesNotContain("EXTRA_STEERING");
  }

  /** Brakings that are so light that most recordings do not show them. */
  @ParameterizedTest
  @CsvSource({
    "834, 400, motorcycle-1000, c3, LIFTED_UNWRITTEN",
    "834, 360, motorcycle-600, c3, LIFTED_UNWRITTEN",
    "834, 360, motorcycle-600, c3, UNEVEN_BRAKING"
  })
  void aPressTooLightToBeSeenIsNeitherALiftNorThePressAfterIt(
      long seed, double radius, String vehicle, String corner, String habit) {
    assertThat(causes(seed, radius, vehicle, corner)).doesNotContain(habit);
  }

  /** What is told of one corner of six clean laps. */
  private static List<String> causes(long seed, double radius, String vehicle, String corner) {
    ComputedLap lap = Drives.computed(RandomRoads.of(seed, radius), vehicle);
    List<CornerEntry> plan = Drafter.draft(lap, List.of()).corners();
    Plan as = new Plan(lap, plan, List.of(), 6, 1.5, 1, 0, true);
    List<LapData> laps = Drives.read(as, seed).stream().map(l -> Drives.data(l, lap)).toList();
    return Debriefer.read(lap, plan, laps).corners().stream()
        .filter(c -> c.corner().equals(corner))
        .findFirst()
        .orElseThrow()
        .habits()
        .stream()
        .map(h -> String.valueOf(h.cause()))
        .toList();
  }
}
