package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import marvek.core.circuit.CircuitReading;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.fixtures.Tracks;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleBuilder;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

/** Boost and a drag-reducing device on roads that nobody drew. */
class StraightUseTest {
  private static ComputedLap lap(Vehicle vehicle, long seed) {
    return lap(vehicle, RandomRoads.of(seed, 320));
  }

  private static ComputedLap lap(Vehicle vehicle, CircuitReading read) {
    return Drives.computed(read, vehicle);
  }

  private static Vehicle of(String id) {
    return VehicleClasses.byId(id).vehicle();
  }

  /** 750 kg, 100 kJ, 500 m: the exact gain by hand, and to first order d·E/(m·v³). */
  @Test
  void aJouleIsWorthMostWhereOneIsSlow() {
    assertThat(StraightUse.gained(750, 100_000, 500, 40)).isCloseTo(0.927, within(5e-4));
    assertThat(StraightUse.gained(750, 100_000, 500, 60)).isCloseTo(0.292, within(5e-4));
    double small = StraightUse.gained(750, 100, 500, 40);
    assertThat(small).isCloseTo(500.0 * 100 / (750 * 40.0 * 40 * 40), within(1e-3 * small));
  }

  @Test
  void allIsSharedOutAndRoundingCostsLittle() {
    for (long seed : List.of(91L, 92L, 93L)) {
      ComputedLap then = lap(of("downforce-prototype"), seed);
      StraightUse use = StraightUse.of(then, List.of());
      assertThat(use.budget()).isPositive();
      assertThat(use.shares()).isNotEmpty();
      double parts = use.shares().stream().mapToDouble(StraightUse.Share::part).sum();
      int tenths = use.shares().stream().mapToInt(StraightUse.Share::tenths).sum();
      assertThat(parts).isBetween(0.5, 1.001);
      assertThat(tenths).isLessThanOrEqualTo(StraightUse.TENTHS);
      double gain = use.shares().stream().mapToDouble(StraightUse.Share::seconds).sum();
      assertThat(gain).isPositive();
      assertThat(use.rounding()).isBetween(0.0, 0.25 * gain);
      for (StraightUse.Share s : use.shares()) {
        assertThat(s.seconds()).isGreaterThan(-1e-6);
        // Rounded, no share is another one.
        assertThat(Math.abs(s.tenths() / 10.0 - s.part())).isLessThan(0.2);
      }
      // What it gains is what a lap gains that uses it: within what the lap's own way of spending,
      // below one speed everywhere, leaves.
      Vehicle plain = VehicleBuilder.builder(then.vehicle()).boost(null).build();
      double slower = then.driven(plain).lapTime() - then.lap().lapTime();
      assertThat(gain).isBetween(0.6 * slower, 1.6 * slower);
    }
  }

  /** Two straights that are alike get half each. */
  @Test
  void likeStraightsGetLikeShares() {
    CircuitReading oval = Tracks.stadium(700, 60, 5).survey();
    StraightUse use = StraightUse.of(lap(of("downforce-prototype"), oval), List.of());
    assertThat(use.shares()).hasSize(2);
    assertThat(use.shares().get(0).part()).isCloseTo(use.shares().get(1).part(), within(0.021));
    assertThat(use.shares().get(0).tenths()).isEqualTo(use.shares().get(1).tenths());
  }

  /** Whoever has none is told nothing. */
  @Test
  void withoutBoostThereIsNothingToShare() {
    StraightUse use = StraightUse.of(lap(of("cup-gt"), 91), List.of());
    assertThat(use.shares()).isEmpty();
    assertThat(use.budget()).isZero();
    assertThat(use.device()).isEmpty();
    // Nor does a zone help without a device.
    assertThat(
            StraightUse.of(lap(of("cup-gt"), 91), List.of(new SessionRules.DeviceZone(0, 500)))
                .device())
        .isEmpty();
  }

  /** Less drag arrives faster and is braked for sooner; a longer zone never gives less. */
  @Test
  void aDeviceGivesSpeedWhereItMayBeUsed() {
    int told = 0;
    for (long seed : List.of(91L, 92L, 93L)) {
      Vehicle gt = of("cup-gt");
      Vehicle with = VehicleBuilder.builder(gt).device(new Vehicle.Device(0.75, 1)).build();
      Vehicle none = VehicleBuilder.builder(gt).device(new Vehicle.Device(1, 1)).build();
      ComputedLap then = lap(with, seed);
      for (int c = 0; c < then.corners().size(); c++) {
        for (Brakings.Braking b : then.brakings().of(c)) {
          double to = b.onset() * then.road().step();
          SessionRules.DeviceZone shorter =
              new SessionRules.DeviceZone(then.road().wrap(to - 150), to);
          SessionRules.DeviceZone longer =
              new SessionRules.DeviceZone(then.road().wrap(to - 250), to);
          List<StraightUse.DeviceGain> gains =
              StraightUse.of(then, List.of(shorter, longer)).device();
          assertThat(gains).hasSize(2);
          assertThat(StraightUse.of(then.on(then.conditions()), List.of(shorter)).device().get(0))
              .isEqualTo(gains.get(0));
          // A zone of which most lies in the braking before gives nothing.
          boolean clear =
              then.corners().stream()
                  .flatMap(o -> then.brakings().of(then.indexOf(o.id())).stream())
                  .noneMatch(o -> then.road().loop().ahead(o.slowest(), b.onset()) < 300);
          if (b.from() < 45 || !clear) {
            continue;
          }
          told++;
          assertThat(gains.get(0).faster()).isPositive().isLessThan(12);
          assertThat(gains.get(0).seconds()).isPositive().isLessThan(1);
          assertThat(gains.get(0).metres()).isBetween(0.0, 40.0);
          assertThat(gains.get(1).seconds()).isGreaterThanOrEqualTo(gains.get(0).seconds() - 1e-9);
        }
      }
      ComputedLap shut = lap(none, seed);
      assertThat(StraightUse.of(shut, List.of(new SessionRules.DeviceZone(0, 300))).device().get(0))
          .satisfies(
              g -> {
                assertThat(g.seconds()).isCloseTo(0, within(1e-9));
                assertThat(g.faster()).isCloseTo(0, within(1e-9));
              });
    }
    assertThat(told).isGreaterThan(3);
  }
}
