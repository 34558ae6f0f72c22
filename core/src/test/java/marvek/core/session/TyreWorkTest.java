package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.axle.Axles;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Driving;
import marvek.core.lap.Limits;
import marvek.core.plan.ComputedLap;
import marvek.core.units.Units;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What tyres rub off, by the brush model and on roads that nobody drew. */
class TyreWorkTest {
  private static final List<String> VEHICLES =
      List.of("cup-gt", "small-hatch", "downforce-prototype", "motorcycle-1000");

  private static ComputedLap lap(String vehicle, long seed) {
    return Drives.computed(RandomRoads.of(seed, 320), vehicle);
  }

  /** Brush model, σ at full sliding 0.12: worked by hand. */
  @ParameterizedTest
  @CsvSource({"0.5, 0.0248", "0.8, 0.0498", "0.95, 0.0758", "0, 0", "1, 0.12", "1.3, 0.12"})
  void slipGrowsWithUse(double use, double slip) {
    assertThat(Axles.slip(use)).isCloseTo(slip, within(5e-5));
  }

  /** A wheel pulls by what it bears: the outer one more, both of a straight alike. */
  @Test
  void theOuterWheelRubsOffMore() {
    ComputedLap then = lap("cup-gt", 81);
    Axles axles = new Axles(then.limits());
    Axles.Use use = new Axles.Use(0.8, 0.7);
    double[] turning = axles.sliding(use, Units.G, 900, 8, 0, 1);
    assertThat(turning[1]).isGreaterThan(1.3 * turning[0]);
    assertThat(turning[3]).isGreaterThan(1.3 * turning[2]);
    double[] straight = axles.sliding(use, Units.G, 900, 0, -6, 1);
    assertThat(straight[0]).isCloseTo(straight[1], within(1e-9));
    // Braked, the front bears more.
    assertThat(straight[0]).isGreaterThan(straight[2]);
    // On half of the grip half of the force makes the same slip.
    assertThat(axles.sliding(use, Units.G, 900, 0, -6, 0.5)[0])
        .isCloseTo(straight[0] / 2, within(1e-9));
  }

  @Test
  void sharesAddUpAndEasingSparesAndCosts() {
    int corners = 0;
    int costs = 0;
    List<Double> seconds = new ArrayList<>();
    for (String vehicle : VEHICLES) {
      for (long seed : List.of(81L, 82L, 83L)) {
        ComputedLap then = lap(vehicle, seed);
        TyreWork work = TyreWork.of(then);
        assertThat(work.wheels().stream().mapToDouble(Double::doubleValue).sum())
            .isCloseTo(1, within(1e-9));
        assertThat(work.wheels().get(work.most()))
            .isEqualTo(work.wheels().stream().mapToDouble(Double::doubleValue).max().orElseThrow());
        assertThat(work.corners().stream().mapToDouble(TyreWork.InCorner::share).sum())
            .isCloseTo(1, within(0.02));
        assertThat(work.perLap()).isPositive().isCloseTo(TyreWork.perLap(then), within(1e-9));
        for (TyreWork.InCorner c : work.corners()) {
          corners++;
          // Easing in one corner never wears the tyre more, and is never quicker.
          assertThat(c.saved()).isBetween(0.0, 1.0);
          assertThat(c.seconds()).isGreaterThan(-1e-3);
          costs += c.seconds() > 0.01 ? 1 : 0;
          seconds.add(c.seconds());
        }
        List<TyreWork.InCorner> cheapest = work.cheapest();
        for (int i = 1; i < cheapest.size(); i++) {
          assertThat(cheapest.get(i).price()).isGreaterThanOrEqualTo(cheapest.get(i - 1).price());
        }
      }
    }
    assertThat(costs).isGreaterThan(corners / 2);
    // Sparing costs 0.05 to 0.1 s a corner (common practice, no source).
    assertThat(seconds.stream().sorted().toList().get(corners / 2)).isBetween(0.05, 0.1);
  }

  /** Easing in several corners together spares about what each of them spares. */
  @Test
  void easingAddsUp() {
    ComputedLap then = lap("cup-gt", 82);
    List<TyreWork.InCorner> two = TyreWork.of(then).cheapest().subList(0, 2);
    TyreWork.Eased both =
        TyreWork.eased(then, two.stream().map(TyreWork.InCorner::corner).toList());
    double saved = two.get(0).saved() + two.get(1).saved();
    assertThat(saved).isPositive();
    assertThat(both.saved()).isCloseTo(saved, within(0.3 * saved));
    assertThat(TyreWork.eased(then, List.of("nowhere")).saved()).isZero();
    assertThat(TyreWork.eased(then, List.of())).isEqualTo(new TyreWork.Eased(0, 0));
  }

  /** Whoever turns mostly left wears the right side, and mirrored the left side. */
  @Test
  void aMirroredRoadWearsTheOtherSide() {
    ComputedLap then = lap("cup-gt", 84);
    double turned = 0;
    for (int i = 0; i < then.path().size(); i++) {
      turned += then.path().curvature()[i] * then.path().step()[i];
    }
    TyreWork work = TyreWork.of(then);
    // Once round to the left there is more turning to the left.
    assertThat(work.left() < 0.5).isEqualTo(turned > 0);
  }

  /** Half of the grip used is far less than half of the work. */
  @Test
  void whoDrivesWithinTheGripSparesTheTyres() {
    ComputedLap then = lap("cup-gt", 85);
    ComputedLap easy = then.on(then.conditions().withDriving(new Driving(0.8, 0.8, 0.8, 0.15)));
    assertThat(TyreWork.perLap(easy)).isLessThan(0.75 * TyreWork.perLap(then));
    Limits wet = new Limits(then.vehicle(), then.conditions().withGrip(0.6));
    assertThat(TyreWork.perLap(then.on(wet.conditions()))).isLessThan(TyreWork.perLap(then));
  }
}
