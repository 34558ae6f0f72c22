package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Limits;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;
import marvek.core.survey.Things;
import marvek.core.units.Units;
import org.junit.jupiter.api.Test;

/** Starts, tows, pit entries and fuel on roads that nobody drew. */
class RaceNumbersTest {
  private static final double GRID = 500;

  private static ComputedLap lap(String vehicle, long seed) {
    return Drives.computed(RandomRoads.of(seed, 320), vehicle);
  }

  @Test
  void aStandingStartArrivesSlowerAndStopsInTime() {
    int told = 0;
    int hard = 0;
    for (String vehicle : List.of("cup-gt", "small-hatch", "motorcycle-1000")) {
      for (long seed : List.of(61L, 62L)) {
        ComputedLap then = lap(vehicle, seed);
        // Far enough before the line that one arrives with something to lose.
        RaceNumbers.Standing s = RaceNumbers.of(then, 0.95, GRID).start();
        if (s == null) {
          continue;
        }
        told++;
        assertThat(s.arrival()).isPositive().isLessThanOrEqualTo(s.flying() + 0.5);
        // It takes at least as long as with all of the grip from standing, over that way.
        Brakings.Braking b = then.brakings().of(then.indexOf(s.corner())).get(0);
        double metres =
            then.road()
                    .ahead(
                        then.road().wrap(-GRID), then.road().wrap(b.onset() * then.road().step()))
                + s.metres();
        assertThat(s.seconds())
            .isGreaterThan(Math.sqrt(2 * metres / (2.2 * Units.G)) * 0.9)
            .isLessThan(60);
        assertThat(Kinematics.after(metres, 2.2 * Units.G)).isGreaterThan(s.arrival());
        // What is left to the slowest place is enough to stop with two and a half g at most.
        double slow = then.lap().speed()[b.slowest()];
        double left =
            then.road()
                .ahead(
                    then.road().wrap(b.onset() * then.road().step() + s.metres()),
                    b.slowest() * then.road().step());
        assertThat(left).isGreaterThanOrEqualTo(Kinematics.stop(s.arrival(), slow, 2.5 * Units.G));
        // Slower arrived, it is not braked much sooner than on a lap, cold tyres or not.
        if (s.arrival() > slow + 4) {
          hard++;
          assertThat(s.metres()).isGreaterThan(-15.0);
        }
      }
    }
    assertThat(told).isGreaterThan(3);
    assertThat(hard).isGreaterThan(1);
  }

  @Test
  void aColderStartBrakesSooner() {
    ComputedLap then = lap("cup-gt", 61);
    RaceNumbers.Standing warm = RaceNumbers.of(then, 1, 60).start();
    RaceNumbers.Standing cold = RaceNumbers.of(then, 0.8, 60).start();
    assertThat(warm).isNotNull();
    assertThat(cold).isNotNull();
    assertThat(cold.metres()).isLessThanOrEqualTo(warm.metres() + 1);
  }

  /** Each place on the grid is eight metres farther back (common practice, no source). */
  @Test
  void whoStandsFartherBackArrivesFasterAndLater() {
    ComputedLap then = Drives.computed(RandomRoads.of(83, 320), "cup-gt");
    RaceNumbers.Standing before = null;
    for (int place = 1; place <= 5; place++) {
      SessionRules rules = SessionRulesBuilder.builder(SessionRules.unknown()).grid(place).build();
      assertThat(rules.standing()).isCloseTo(8.0 * place, within(1e-9));
      RaceNumbers.Standing now = RaceNumbers.of(then, 1, rules.standing()).start();
      if (before != null) {
        assertThat(now.corner()).isEqualTo(before.corner());
        assertThat(now.arrival()).isGreaterThan(before.arrival());
        assertThat(now.seconds()).isGreaterThan(before.seconds());
      }
      before = now;
    }
  }

  @Test
  void aTowIsFasterAtTheEndOfStraightsAndAsksToBrakeSooner() {
    ComputedLap then = lap("downforce-prototype", 63);
    List<RaceNumbers.Tow> tows = RaceNumbers.of(then, 1, 60).tows();
    for (RaceNumbers.Tow t : tows) {
      assertThat(t.faster()).isBetween(0.8, 15.0);
      assertThat(t.metres()).isGreaterThan(-2.0);
    }
    for (int i = 1; i < tows.size(); i++) {
      assertThat(tows.get(i).faster()).isLessThanOrEqualTo(tows.get(i - 1).faster());
    }
  }

  /** A place after which there is something to brake for. */
  private static double fast(ComputedLap then) {
    int fastest = 0;
    for (int i = 0; i < then.lap().size(); i++) {
      fastest = then.lap().speed()[i] > then.lap().speed()[fastest] ? i : fastest;
    }
    return then.road().wrap(fastest * then.road().step() + 150);
  }

  /** Marker, deceleration and line against the kinematics of an even stop on the level. */
  @Test
  void thePitEntryIsReachedUnderTheLimit() {
    for (long seed : List.of(64L, 65L)) {
      ComputedLap then = lap("cup-gt", seed);
      double line = fast(then);
      PitEntry pits = PitEntry.of(then, line, 60 / 3.6);
      assertThat(pits).isNotNull();
      assertThat(pits.aimed()).isCloseTo(57 / 3.6, within(1e-9));
      double most =
          PitEntry.CAREFUL * then.conditions().grip() * then.vehicle().tyres().muX() * Units.G;
      double level = Kinematics.stop(pits.from(), pits.aimed(), most) + PitEntry.BEFORE;
      // Up or down to some eight per cent on these roads.
      assertThat(pits.metres()).isBetween(level * 0.85, level * 1.2);
      assertThat(then.road().ahead(pits.marker(), line)).isCloseTo(pits.metres(), within(2.5));
    }
    // Where one is slower than the limit anyway nothing is braked.
    assertThat(PitEntry.of(lap("cup-gt", 64), 100, 130)).isNull();
  }

  /** The survey says where the pits are, the rules of the session stand over it. */
  @Test
  void theLineIsTheSurveysWhereTheRulesSayNone() {
    ComputedLap then = lap("cup-gt", 63);
    double line = fast(then);
    Place entry = new Place("p", PlaceKind.PIT_ENTRY, true, line, line, "", "");
    Things things =
        new Things(List.of(), List.of(), List.of(), List.of(), List.of(entry), List.of());
    SessionRules limit =
        SessionRulesBuilder.builder(SessionRules.unknown()).pitSpeed(60 / 3.6).build();
    PitEntry found = PitEntry.of(then, limit, things);
    assertThat(found).isNotNull();
    assertThat(found.line()).isEqualTo(line);
    assertThat(found.left()).isTrue();
    assertThat(found.metres()).isEqualTo(PitEntry.of(then, line, 60 / 3.6).metres());
    SessionRules other = SessionRulesBuilder.builder(limit).pitLine(line - 20).build();
    assertThat(PitEntry.of(then, other, things).line()).isEqualTo(line - 20);
    assertThat(PitEntry.of(then, SessionRules.unknown(), things)).isNull();
    assertThat(PitEntry.of(then, limit, Things.none())).isNull();
  }

  /** Work at the crankshaft: of the order of the power at full throttle, and less at less pace. */
  @Test
  void fuelFollowsTheWorkOfTheEngine() {
    for (String vehicle : List.of("small-hatch", "cup-gt", "motorcycle-600")) {
      ComputedLap then = lap(vehicle, 66);
      Limits limits = new Limits(then.vehicle(), then.conditions(), then.lap().boostBelow());
      double work = FuelNeed.work(then.path(), limits, then.lap());
      double most = 0;
      for (var p : then.vehicle().engine().curve()) {
        most = Math.max(most, p.torque() * p.revs() * 2 * Math.PI / 60);
      }
      assertThat(work).isBetween(0.15 * most * then.lap().lapTime(), most * then.lap().lapTime());
    }
  }
}
