package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Objects;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.Plain;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.technique.Pedals;
import marvek.core.technique.School;
import marvek.core.ways.Choices;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** A planned shape of the pedals, held against a solver and against what it must do. */
@Tag("slow")
class ShapedPlanTest {
  private static final Example GT = Example.of("cup-gt");

  private static CornerEntry shaped(Pedals pedals, double sooner) {
    CornerEntry e = GT.moved(PointKind.BRAKE, -sooner);
    return e.copy().pedals(pedals).done();
  }

  @Test
  void theSpeedUnderTheShapeIsThatOfTheSolver() {
    // Hipparchus, Dormand–Prince 8(5,3): v dv/ds = −(pedal × most at the marker + drag), in a
    // straight line from marker to turn-in.
    Pedals pedals = new Pedals(0.2, 0.6, 0.5, 0.6, 0);
    CornerEntry entry = shaped(pedals, 40);
    CornerAnswer answer = GT.answer(entry);
    CornerAnswer.Profile p = answer.profile();
    Centreline road = GT.computed.road();
    Path path = GT.computed.path();
    Limits limits = GT.computed.limits();
    double brake = entry.station(PointKind.BRAKE).orElseThrow();
    double turnIn = road.apart(brake, entry.station(PointKind.TURN_IN).orElseThrow());
    double release = road.apart(brake, entry.station(PointKind.RELEASE).orElseThrow());
    int index = road.index(brake);
    double entrySpeed = answer.arrivalSpeed();
    double most = limits.brakingMost(limits.load(path, index, entrySpeed * entrySpeed), 1, 1);
    double metres = turnIn - 8;
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
                    double load = limits.load(path, i, v[0] * v[0]);
                    double a =
                        0.6 * most * pedals.brake(s, turnIn, release)
                            + limits.resistance(path, i, v[0], load);
                    return new double[] {-a / v[0]};
                  }
                },
                new ODEState(0, new double[] {entrySpeed}),
                metres);
    int k = (int) Math.round(road.ahead(p.from(), brake + metres) / p.step());
    assertThat(p.speed()[k]).isCloseTo(end.getPrimaryState()[0], within(0.01 * p.speed()[k]));
  }

  @Test
  void thePeakThatFollowsHoldsTheCornerAndNoLessWould() {
    CornerAnswer free = GT.answer(shaped(Pedals.FRONT_LOADED, 45));
    CornerAnswer.Pressing pressing = Objects.requireNonNull(free.pressing());
    assertThat(Objects.requireNonNull(free.time())).isPositive();
    assertThat(pressing.asks()).isLessThan(1.03);
    CornerAnswer less = GT.answer(shaped(Pedals.FRONT_LOADED.withPeak(0.9 * pressing.peak()), 45));
    assertThat(less.time()).as("a tenth less does not make it").isNull();
    assertThat(less.remarks()).anyMatch(r -> Plain.words(r).startsWith("Too fast by"));
    CornerAnswer more = GT.answer(shaped(Pedals.FRONT_LOADED.withPeak(1.1 * pressing.peak()), 60));
    assertThat(more.remarks()).anyMatch(r -> Plain.words(r).startsWith("Slowed by"));
  }

  @Test
  void askingMoreThanThereIsIsSaidWithItsShareAndPlace() {
    CornerAnswer late = GT.answer(shaped(Pedals.FRONT_LOADED.withPeak(1.15), 0));
    CornerAnswer.Pressing pressing = Objects.requireNonNull(late.pressing());
    assertThat(pressing.asks()).isGreaterThan(1.1);
    assertThat(late.remarks())
        .anyMatch(
            r -> Plain.words(r).matches("Braking (and turning ask|asks) 1\\d\\d % of the grip.*"));
    assertThat(late.time()).isNull();
  }

  @Test
  void aMarkerSetSoonerNeedsALighterFoot() {
    double last = 2;
    for (int sooner = 40; sooner <= 120; sooner += 20) {
      double peak =
          Objects.requireNonNull(GT.answer(shaped(Pedals.FRONT_LOADED, sooner)).pressing()).peak();
      assertThat(peak).isLessThan(last);
      last = peak;
    }
  }

  @Test
  void atEqualMarginTheSchoolsTakeTheirOwnMarkersAndTyres() {
    Choices.Compared compared =
        Choices.compare(
            GT.computed,
            marvek.core.survey.Things.none(),
            GT.first(),
            marvek.core.technique.Question.BRAKE_SHAPE,
            new marvek.core.marker.MarkerJudge.View(null, null, false, 1));
    Choices.Outcome front = outcome(compared, School.FRONT_LOADED);
    Choices.Outcome progressive = outcome(compared, School.PROGRESSIVE);
    assertThat(front.marginSeconds()).isCloseTo(compared.now().marginSeconds(), within(0.03));
    assertThat(progressive.marginSeconds()).isCloseTo(compared.now().marginSeconds(), within(0.03));
    assertThat(progressive.brakingMoved()).isLessThan(front.brakingMoved());
    assertThat(progressive.peak()).isLessThan(front.peak());
    assertThat(progressive.tyreWork()).isLessThan(front.tyreWork());
    // Common practice, no source: a heavy stop begins at 80 to 90 %.
    assertThat(front.peak()).isBetween(0.75, 0.92);
  }

  private static Choices.Outcome outcome(Choices.Compared compared, School school) {
    return compared.outcomes().stream().filter(o -> o.school() == school).findFirst().orElseThrow();
  }

  @Test
  void choosingIsAnEntryThatCanBeMade() {
    List<CornerEntry> chosen =
        Choices.choose(
            GT.computed,
            marvek.core.survey.Things.none(),
            GT.draft.corners(),
            "c1",
            School.PROGRESSIVE);
    assertThat(chosen).hasSize(1);
    CornerEntry e = chosen.get(0);
    assertThat(e.schools()).containsExactly(School.PROGRESSIVE);
    assertThat(e.pedals()).isNotNull();
    assertThat(GT.answer(e).time()).isNotNull();
  }
}
