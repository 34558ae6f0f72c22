package marvek.core.technique;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class PedalsTest {
  @Test
  void presetsLieInTheBandsOfTheTrade() {
    // Common practice, no source: at a heavy stop 80–90 % at first, 30–35 % in mid-entry and about
    // 10 % near the apex; 90 m of braking in a line, 25 m more to the release.
    double peak = 0.85;
    Pedals heavy = Pedals.FRONT_LOADED;
    assertThat(peak * heavy.brake(102.5, 90, 115)).isBetween(0.30, 0.35);
    assertThat(peak * heavy.brake(111, 90, 115)).isBetween(0.07, 0.13);
    assertThat(heavy.brake(8, 90, 115)).isEqualTo(1);
    // The other school reaches its peak much later, and holds more of it to the turn.
    assertThat(Pedals.PROGRESSIVE.brake(20, 90, 115)).isLessThan(0.5);
    assertThat(Pedals.PROGRESSIVE.brake(90, 90, 115)).isGreaterThan(heavy.brake(90, 90, 115));
  }

  @Test
  void aDabIsOverWhenTheHandsMove() {
    assertThat(Pedals.DAB.brake(20, 40, 45)).isEqualTo(1);
    assertThat(Pedals.DAB.brake(40, 40, 45)).isZero();
    assertThat(Pedals.of(School.DAB, 0.5)).isEqualTo(Pedals.DAB);
  }

  @Test
  void withDownforceTheFootEasesAsItGoes() {
    Pedals wings = Pedals.of(School.FRONT_LOADED, 0.5);
    assertThat(wings.brake(70, 90, 115)).isLessThan(Pedals.FRONT_LOADED.brake(70, 90, 115));
    assertThat(wings.trail()).isCloseTo(0.5 * Pedals.FRONT_LOADED.trail(), within(1e-12));
  }

  @Property
  void aShapeStaysBetweenNothingAndItsPeakAndEndsAtTheRelease(
      @ForAll @DoubleRange(min = 0, max = 1) double rise,
      @ForAll @DoubleRange(min = 0, max = 1) double more,
      @ForAll @DoubleRange(min = 0, max = 1) double trail,
      @ForAll @DoubleRange(min = -20, max = 200) double at,
      @ForAll @DoubleRange(min = 0, max = 150) double turnIn) {
    Pedals shape = new Pedals(rise, rise + (1 - rise) * more, trail, null, 0);
    double v = shape.brake(at, turnIn, 120);
    assertThat(v).isBetween(0.0, 1.0);
    if (at < 0 || at >= 120) {
      assertThat(v).isZero();
    }
  }

  @Test
  void theThrottleIsHeldAndThenOpenedEvenly() {
    Pedals held = new Pedals(0.1, 0.5, 0.5, null, 0.5);
    assertThat(held.throttle(0.3, 0.4)).isEqualTo(0.3);
    assertThat(held.throttle(0.3, 0.75)).isCloseTo(0.65, within(1e-12));
    assertThat(held.throttle(0.3, 1)).isCloseTo(1, within(1e-12));
  }

  @Test
  void slidingGrowsWithTheShareOfGripAndAsTheBrushModelHasIt() {
    // Pacejka's brush model by hand: F/μN = 0.875 is ψ = 0.5, as 1 − 0.5³ = 0.875.
    assertThat(TyreWork.slip(0.875)).isCloseTo(0.5 * TyreWork.FULL_SLIP, within(1e-12));
    assertThat(TyreWork.slip(0)).isZero();
    assertThat(TyreWork.slip(0.6)).isLessThan(TyreWork.slip(0.9));
    assertThat(TyreWork.slip(1.2)).isEqualTo(TyreWork.slip(0.95));
  }

  @Test
  void aSchoolTakesThePlaceOfTheOtherAnswersToItsQuestion() {
    List<School> chosen =
        School.TO_APEX.in(School.PROGRESSIVE.in(List.of(School.FRONT_LOADED, School.NO_KERBS)));
    assertThat(chosen)
        .containsExactlyInAnyOrder(School.PROGRESSIVE, School.TO_APEX, School.NO_KERBS);
    for (Question question : Question.values()) {
      assertThat(School.answering(question)).hasSizeGreaterThan(1);
    }
  }
}
