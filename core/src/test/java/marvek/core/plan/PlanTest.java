package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Objects;
import marvek.core.anew.LapAsPlanned;
import marvek.core.anew.Refresh;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Example;
import marvek.core.lap.LapTrace;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** A corner driven as planned, held against a solver and against the lap it was cut from. */
class PlanTest {
  private static Example gt;

  @BeforeAll
  static void draft() {
    gt = Example.of("cup-gt");
  }

  private static int at(CornerAnswer.Profile p, Centreline road, double station) {
    return (int) Math.round(road.ahead(p.from(), station) / p.step());
  }

  @Test
  void brakingAtTheLastPlaceFollowsTheSolver() {
    // Hipparchus, Dormand–Prince 8(5,3): v dv/ds = −(what the vehicle can do), from the last place.
    double margin = Objects.requireNonNull(gt.answer(gt.first()).braking()).marginMetres();
    CornerEntry latest = gt.moved(PointKind.BRAKE, margin - 0.4);
    CornerAnswer answer = gt.answer(latest);
    CornerAnswer.Profile p = answer.profile();
    Centreline road = gt.computed.road();
    double brake = latest.station(PointKind.BRAKE).orElseThrow();
    double turnIn = latest.station(PointKind.TURN_IN).orElseThrow();
    // From a place that the drawing has, as soon as the brake is on: no rounding of the marker.
    int first = at(p, road, brake) + 2;
    double begun = road.wrap(p.from() + first * p.step());
    double metres = road.apart(begun, turnIn) - 6;
    int index = road.index(begun);
    double entry = p.speed()[first];
    var end =
        new DormandPrince853Integrator(1e-6, 1, 1e-9, 1e-9)
            .integrate(
                new OrdinaryDifferentialEquation() {
                  @Override
                  public int getDimension() {
                    return 1;
                  }

                  @Override
                  public double[] computeDerivatives(double s, double[] v) {
                    int i = Math.floorMod(index + (int) Math.round(s / road.step()), road.size());
                    double a = gt.computed.limits().deceleration(gt.computed.path(), i, v[0]);
                    return new double[] {-a / v[0]};
                  }
                },
                new ODEState(0, new double[] {entry}),
                metres);
    double planned = p.speed()[at(p, road, begun + metres)];
    assertThat(planned).isCloseTo(end.getPrimaryState()[0], within(0.012 * planned));
  }

  @Test
  void thePlanNeverPassesWhatTheCornerAllowsAndNeverDoesBothPedals() {
    for (CornerEntry e : gt.draft.corners()) {
      CornerAnswer.Profile p = gt.answer(e).profile();
      for (int k = 0; k < p.speed().length; k++) {
        assertThat(p.brake()[k] > 0.05 && p.throttle()[k] > 0.2).isFalse();
        assertThat(p.speed()[k]).isBetween(8.0, 90.0);
        assertThat(p.gear()[k]).isBetween(1, 6);
      }
    }
  }

  @Test
  void beforeTheMarkerThePlanIsTheLapItself() {
    CornerAnswer.Profile p = gt.answer(gt.first()).profile();
    LapTrace lap = gt.computed.lap();
    Centreline road = gt.computed.road();
    double brake = gt.first().station(PointKind.BRAKE).orElseThrow();
    int marker = at(p, road, brake);
    for (int k = marker / 2; k < marker; k += 3) {
      int i = road.index(p.from() + k * p.step());
      assertThat(p.speed()[k]).isCloseTo(lap.speed()[i], within(1.6));
    }
  }

  @Test
  void timeLostGrowsWithMetresGivenAway() {
    double before = -1;
    for (int sooner = 0; sooner <= 60; sooner += 10) {
      Double effect = gt.answer(gt.moved(PointKind.BRAKE, -sooner)).lapEffect();
      assertThat(effect).isNotNull().isGreaterThan(before);
      before = effect;
    }
    // Far less than the braking distance costs: 60 m sooner is under a second and a half.
    assertThat(before).isBetween(0.2, 1.5);
  }

  @Test
  void theLapTimeOfAReferenceIsTheComputedLapAndItsLosses() {
    var answers = gt.draft.corners().stream().map(gt::answer).toList();
    double sum = answers.stream().mapToDouble(a -> Objects.requireNonNull(a.lapEffect())).sum();
    assertThat(Refresh.planned(gt.computed.lap(), answers).seconds())
        .isCloseTo(gt.computed.lap().lapTime() + sum, within(1e-9));
    assertThat(sum).isBetween(0.0, 4 * 0.4);
    assertThat(Refresh.planned(gt.computed.lap(), answers).unmade()).isZero();
  }

  @Test
  void aCornerThatCannotBeMadeIsCountedInTheLap() {
    var answers = new ArrayList<>(gt.draft.corners().stream().map(gt::answer).toList());
    double whole = Refresh.planned(gt.computed.lap(), answers).seconds();
    double own = Objects.requireNonNull(answers.get(0).lapEffect());
    answers.set(0, gt.answer(gt.draft.corners().get(0).copy().slowing(Slowing.FLAT).done()));
    LapAsPlanned lap = Refresh.planned(gt.computed.lap(), answers);
    assertThat(lap.unmade()).isEqualTo(1);
    assertThat(lap.seconds()).isCloseTo(whole - own, within(1e-9));
  }
}
