package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.Surface;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.survey.Zones;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleBuilder;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Test;

class LoadAlongTest {
  private static final Vehicle BIKE = VehicleClasses.byId("motorcycle-1000").vehicle();

  private static ComputedLap computed(CircuitReading read, List<Zone> zones) {
    Ground ground = Zones.ground(read.centreline(), zones, Surface.DRY);
    return ComputedLap.onLine(
        read.centreline(),
        read.corners(),
        ground,
        BIKE,
        Conditions.dryWarm(),
        MinimumCurvature.offsets(read.centreline(), Room.on(read.centreline(), BIKE)));
  }

  private static LoadAlong along(ComputedLap computed, Things things, CornerEntry e) {
    CornerAnswer answer = Answers.answer(computed, things, e);
    return LoadAlong.of(computed, things, e, answer);
  }

  private static CornerEntry braked(ComputedLap computed) {
    return Drafter.draft(computed, List.of()).corners().stream()
        .filter(e -> e.slowing() == Slowing.BRAKE)
        .max(
            java.util.Comparator.comparingDouble(
                e ->
                    computed.lap()
                        .speed()[computed.road().index(e.station(PointKind.BRAKE).orElseThrow())]))
        .orElseThrow();
  }

  private static Things things(Zone... zones) {
    return new Things(List.of(), List.of(), List.of(zones), List.of(), List.of());
  }

  private static Zone zone(ComputedLap on, ZoneKind kind, double from, double to, double amount) {
    return new Zone(
        "z", kind, Zone.Side.BOTH, on.road().wrap(from), on.road().wrap(to), 2, amount, "", "");
  }

  /** On random roads the own place stays, but where heights or zones speak for another. */
  @Test
  void everyLoadIsWhatTheVehicleCarriesAndTheBestIsNoWorse() {
    for (long seed = 201; seed < 209; seed++) {
      CircuitReading read = RandomRoads.of(seed, 380);
      ComputedLap computed = computed(read, List.of());
      for (CornerEntry e : Drafter.draft(computed, List.of()).corners()) {
        LoadAlong load = along(computed, Things.none(), e);
        for (double n : load.load()) {
          assertThat(n).isBetween(0.0, 6.0);
        }
        Double best = load.best();
        if (best == null) {
          assertThat(e.slowing()).isNotEqualTo(Slowing.BRAKE);
          continue;
        }
        assertThat(load.atBest()).isGreaterThanOrEqualTo(load.atBegin());
        double moved = computed.road().apart(load.begin(), best);
        assertThat(moved).as("%d %s", seed, e.corner()).isBetween(-25.5, 40.0);
        if (moved == 0) {
          assertThat(load.atBest()).isEqualTo(load.atBegin());
        } else {
          assertThat(load.atBest()).isGreaterThan(1.03 * load.atBegin());
        }
      }
    }
  }

  @Test
  void overACrestTheVehicleIsLightAndBrakingIsBetterBegunBeforeIt() {
    CircuitReading read = RandomRoads.of(211, 420);
    ComputedLap plain = computed(read, List.of());
    CornerEntry e = braked(plain);
    double at = e.station(PointKind.BRAKE).orElseThrow();
    double v = plain.lap().speed()[plain.road().index(at)];
    // A third of the weight is gone on the top: v²/R.
    double radius = v * v / (9.80665 / 3);
    Zone crest = zone(plain, ZoneKind.CREST, at - 3, at + 30, radius);
    ComputedLap computed = computed(read, List.of(crest));
    LoadAlong load = along(computed, things(crest), e);
    assertThat(load.light()).anyMatch(l -> l.why() == LoadAlong.Why.CREST);
    assertThat(load.atBest()).isGreaterThan(1.03 * load.atBegin());
    assertThat(computed.road().apart(at, load.best())).isNegative();
    // The press slows it, which gives a little back.
    assertThat(load.atBegin()).isCloseTo(2.0 / 3, within(0.1));
  }

  @Test
  void bumpsAreSaidWhereTheLineCrossesThem() {
    CircuitReading read = RandomRoads.of(213, 420);
    ComputedLap plain = computed(read, List.of());
    CornerEntry e = braked(plain);
    double at = e.station(PointKind.BRAKE).orElseThrow();
    Zone bumps = zone(plain, ZoneKind.BUMP, at + 10, at + 40, 0.9);
    LoadAlong load = along(computed(read, List.of(bumps)), things(bumps), e);
    assertThat(load.light())
        .anySatisfy(
            l -> {
              assertThat(l.why()).isEqualTo(LoadAlong.Why.BUMPS);
              assertThat(plain.road().apart(bumps.from(), l.from())).isBetween(-1.5, 1.5);
              assertThat(plain.road().apart(bumps.to(), l.to())).isBetween(-1.5, 2.0);
            });
    assertThat(along(plain, Things.none(), e).light())
        .noneMatch(l -> l.why() == LoadAlong.Why.BUMPS);
  }

  /**
   * Springs that reach an end of their way are said where the load asks for more: 1.5 times the
   * weight at 2.5 Hz sinks 19.9 mm, by hand; and the same springs with room to spare say nothing.
   */
  @Test
  void springsAtAnEndOfTheirWayAreSaid() {
    assertThat(new Vehicle.Ride(2.5, 0.1, 0.1).sinks(1.5)).isCloseTo(0.0199, within(1e-4));
    assertThat(new Vehicle.Ride(2.5, 0.1, 0.1).sinks(1)).isZero();
    Vehicle winged = VehicleClasses.byId("downforce-prototype").vehicle();
    int found = 0;
    for (long seed = 201; seed < 204; seed++) {
      CircuitReading read = RandomRoads.of(seed, 380);
      ComputedLap roomy = on(read, winged, new Vehicle.Ride(3, 0.4, 0.4));
      ComputedLap unsaid = on(read, winged, null);
      CornerEntry e = braked(roomy);
      LoadAlong free = along(roomy, Things.none(), e);
      assertThat(free.light()).isEqualTo(along(unsaid, Things.none(), e).light());
      double most = java.util.Arrays.stream(free.load()).max().orElseThrow();
      double bump = new Vehicle.Ride(3, 1, 1).sinks(1 + (most - 1) * 0.8);
      if (bump < 0.002) {
        continue;
      }
      List<LoadAlong.Light> hit =
          along(on(read, winged, new Vehicle.Ride(3, bump, 0.4)), Things.none(), e).light();
      assertThat(hit).anyMatch(l -> l.why() == LoadAlong.Why.STROKE);
      found++;
    }
    assertThat(found).isPositive();
  }

  private static ComputedLap on(CircuitReading read, Vehicle winged, Vehicle.Ride ride) {
    return ComputedLap.onLine(
        read.centreline(),
        read.corners(),
        Zones.ground(read.centreline(), List.of(), Surface.DRY),
        VehicleBuilder.builder(winged).ride(ride).build(),
        Conditions.dryWarm(),
        MinimumCurvature.offsets(read.centreline(), Room.on(read.centreline(), winged)));
  }
}
