package marvek.core.lap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.fixtures.RandomRoads;
import marvek.core.line.Room;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.survey.Zones;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

/** How a road lies and what blows over it, against closed forms and on roads not tuned to. */
class RoadActsTest {
  private static final Vehicle BIKE = VehicleClasses.byId("motorcycle-600").vehicle();
  private static final double G = 9.80665;
  private static final double MU = 1.32;

  private static Path bend(double radius, double fall, double vertical, double push) {
    double[] zero = {0};
    return new Path(
        zero,
        new double[] {1},
        new double[] {1 / radius},
        zero,
        new double[] {vertical},
        new double[] {fall},
        zero,
        new double[] {1},
        new double[] {1},
        new double[] {push},
        null);
  }

  private static double speed(Path path) {
    return new Limits(BIKE, Conditions.dryWarm()).cornerSpeed(path, 0);
  }

  /** Banked curve: v² = g r (tan φ + μ) / (1 − μ tan φ). Source: any textbook of mechanics. */
  @Test
  void camberIsTheBankedCurve() {
    for (double fall : new double[] {-0.05, -0.02, 0.03, 0.06}) {
      double angle = Math.atan(fall);
      double expected = Math.sqrt(G * 60 * (fall + MU) / (1 - MU * fall));
      assertThat(speed(bend(60, angle, 0, 0))).isCloseTo(expected, within(0.02 * expected));
    }
  }

  /** Over a crest of radius R the load is g − v²/R: v² = μ g / (1/r + μ/R). */
  @Test
  void aCrestTakesLoad() {
    for (double radius : new double[] {200, 500, 1200}) {
      double expected = Math.sqrt(MU * G / (1.0 / 60 + MU / radius));
      assertThat(speed(bend(60, 0, -1 / radius, 0))).isCloseTo(expected, within(0.02 * expected));
    }
  }

  /** v²/r = μ g + p where the wind pushes into the bend. */
  @Test
  void aSideWindHelpsOrHinders() {
    for (double push : new double[] {-1, 0.7}) {
      double expected = Math.sqrt((MU * G + push) * 60);
      assertThat(speed(bend(60, 0, 0, push))).isCloseTo(expected, within(0.005 * expected));
      assertThat(speed(bend(-60, 0, 0, -push))).isCloseTo(expected, within(0.005 * expected));
    }
  }

  @Test
  void windFromTheLeftPushesToTheRight() {
    Centreline road = RandomRoads.of(3, (2000) / 6.3).centreline();
    for (double from = 0; from < 6; from += 0.7) {
      Conditions windy = new Conditions(1, 1.2, 9, from, 0);
      Limits limits = new Limits(BIKE, windy);
      double[] speed = new double[road.size()];
      Arrays.fill(speed, 40);
      Path path = Path.middle(road);
      double[] push = limits.sideWind(path, speed).push();
      double[] dragged = new double[road.size()];
      for (int i = 0; i < road.size(); i++) {
        double left = road.heading()[i] + Math.PI / 2;
        double fromLeft = Math.cos(from - left);
        if (Math.abs(fromLeft) > 0.1) {
          assertThat(Math.signum(push[i])).isEqualTo(-Math.signum(fromLeft));
        }
        // Across the road at 9 m/s: half of the air times area, air speed and wind, by the mass.
        dragged[i] = Math.abs(push[i]) * BIKE.mass() / (0.5 * 1.2 * 1.5 * 9);
        assertThat(dragged[i]).isLessThanOrEqualTo(40 + 9 + 1e-9);
      }
      assertThat(Arrays.stream(dragged).max().orElseThrow()).isGreaterThan(35);
    }
  }

  @Test
  void bumpsTakeMoreTheQuickerOneIsAndNothingStandingStill() {
    Centreline road = RandomRoads.of(5, (2500) / 6.3).centreline();
    Zone bumps = new Zone("b", ZoneKind.BUMP, Zone.Side.BOTH, 0, road.length() - 1, 2, 0.9, "", "");
    Path smooth = Path.middle(road);
    Path rough =
        Path.over(road, new double[road.size()], Zones.ground(road, List.of(bumps), Surface.DRY));
    Limits limits = new Limits(BIKE, Conditions.dryWarm());
    int i = road.size() / 2;
    double slow = 1 - limits.load(rough, i, 100) / limits.load(smooth, i, 100);
    double quick = 1 - limits.load(rough, i, 2500) / limits.load(smooth, i, 2500);
    assertThat(quick).isBetween(0.08, 0.13);
    assertThat(slow).isCloseTo(quick / 25, within(0.002));
  }

  /** On random roads and vehicles: what takes grip, load or room never makes a lap quicker. */
  @Test
  void whatIsWorseIsNeverQuicker() {
    Random random = new Random(12);
    List<ZoneKind> worse =
        List.of(ZoneKind.BUMP, ZoneKind.CREST, ZoneKind.ADVERSE_CAMBER, ZoneKind.POLISHED);
    for (int t = 0; t < 40; t++) {
      Centreline road = RandomRoads.of(100 + t, (1500 + 100 * t) / 6.3).centreline();
      Vehicle vehicle =
          VehicleClasses.all().get(random.nextInt(VehicleClasses.all().size())).vehicle();
      double from = random.nextDouble() * road.length();
      double to = road.wrap(from + 30 + random.nextInt(60));
      ZoneKind kind = worse.get(t % worse.size());
      Zone zone = new Zone("z", kind, Zone.Side.BOTH, from, to, 3, null, "", "");
      double[] middle = new double[road.size()];
      double plain =
          LapSimulator.lap(Path.over(road, middle), vehicle, Conditions.dryWarm()).lapTime();
      double with =
          LapSimulator.lap(
                  Path.over(road, middle, Zones.ground(road, List.of(zone), Surface.DRY)),
                  vehicle,
                  Conditions.dryWarm())
              .lapTime();
      // An adverse camber over a bend that changes hands helps one of the two.
      // What takes load lets the wheels roll more freely too.
      double least =
          kind == ZoneKind.ADVERSE_CAMBER ? -0.2 : kind == ZoneKind.POLISHED ? -1e-6 : -1e-2;
      assertThat(with - plain).as("%s on road %d", kind, 100 + t).isGreaterThan(least);
    }
  }

  @Test
  void narrowPlacesAndSideWindTakeRoom() {
    Centreline road = RandomRoads.of(8, (2000) / 6.3).centreline();
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    Zone wall = new Zone("w", ZoneKind.WALL, Zone.Side.LEFT, 500, 600, 2, 1.2, "", "");
    Room plain = Room.on(road, v);
    Room walled = Room.on(road, v, Zones.ground(road, List.of(wall), Surface.DRY));
    assertThat(plain.upper()[550] - walled.upper()[550]).isCloseTo(1.2, within(1e-9));
    assertThat(walled.lower()[550]).isEqualTo(plain.lower()[550]);
    assertThat(walled.upper()[800]).isEqualTo(plain.upper()[800]);
    double[] push = new double[road.size()];
    Arrays.fill(push, -2);
    Room lee = Room.on(road, v, Ground.good(road.size()).pushed(new Ground.SideWind(push)));
    assertThat(lee.lower()[550]).isGreaterThan(plain.lower()[550]);
    assertThat(lee.upper()[550]).isEqualTo(plain.upper()[550]);
  }
}
