package marvek.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class KerbTest {
  private static Kerb kerb(KerbProfile profile, double width, double height) {
    return new Kerb(
        "k",
        true,
        10,
        30,
        "",
        Kerb.Part.APEX,
        profile,
        width,
        height,
        Kerb.Behind.GRASS,
        false,
        Kerb.Verdict.OPEN,
        "",
        "");
  }

  private static Vehicle with(Vehicle.Floor floor) {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    return new Vehicle(
        v.kind(),
        v.mass(),
        v.width(),
        v.wheelbase(),
        v.cogHeight(),
        v.cogToFront(),
        v.engine(),
        v.gearbox(),
        v.tyres(),
        v.aero(),
        v.brakes(),
        null,
        null,
        floor,
        null);
  }

  /**
   * Worked by hand. Ramp 1 m wide to 0.10 m; ride height 0.04, floor 1.4 m, track 1.6 m, tyre 0.2
   * m: the floor ends at the tyre's inner face. With the tyre's outer face d past the edge, d ≥ 1,
   * the wheel stands 0.10 m up; the body follows half of it: at the floor's end, 0.1 m inboard of
   * the tyre's middle, 0.04 + 0.05 (1 − 0.1/1.6) = 0.086875. The ramp there is 0.1 (d − 0.2) high:
   * they meet at d = 1.06875.
   */
  @Test
  void theFloorTouchesWhereItIsWorkedOutByHand() {
    KerbClearance c =
        KerbClearance.of(
            kerb(KerbProfile.RAMP, 1, 0.10), with(new Vehicle.Floor(0.04, 1.4, 1.6, 0.2)));
    assertThat(c.reach()).isNotNull();
    assertThat(c.reach()).isCloseTo(1.06875, within(0.0051));
    assertThat(c.wheelRise()).isCloseTo(0.10, within(1e-9));
    assertThat(c.gap()).isZero();
    assertThat(c.vehicle().floorEdge()).isCloseTo(c.vehicle().tyreInner(), within(1e-9));
  }

  /**
   * The same with 0.06 m of ride height clears: at most, d = 1.2, the kerb's far edge stands 0.10 m
   * under a floor of 0.06 + 0.05 (1 − 0.1/1.6) = 0.106875.
   */
  @Test
  void aHigherCarClearsTheSameKerbByWhatIsWorkedOut() {
    KerbClearance c =
        KerbClearance.of(
            kerb(KerbProfile.RAMP, 1, 0.10), with(new Vehicle.Floor(0.06, 1.4, 1.6, 0.2)));
    assertThat(c.reach()).isNull();
    assertThat(c.gap()).isCloseTo(0.006875, within(6e-4));
  }

  @Test
  void aMotorcycleHasNoFloorToTouchAndAFlatKerbStopsNobody() {
    Vehicle motorcycle = VehicleClasses.byId("motorcycle-600").vehicle();
    assertThat(KerbClearance.of(kerb(KerbProfile.SAUSAGE, 0.9, 0.15), motorcycle).reach()).isNull();
    Vehicle gt = VehicleClasses.byId("cup-gt").vehicle();
    assertThat(KerbClearance.of(kerb(KerbProfile.FLAT, 1.5, 0.025), gt).reach()).isNull();
    assertThat(KerbClearance.of(kerb(KerbProfile.SAUSAGE, 0.9, 0.25), gt).reach()).isNotNull();
  }

  @Property(tries = 60)
  void moreRideHeightNeverAllowsLess(
      @ForAll KerbProfile profile,
      @ForAll @DoubleRange(min = 0.02, max = 0.3) double height,
      @ForAll @DoubleRange(min = 0.02, max = 0.15) double ride) {
    Kerb kerb = kerb(profile, 1, height);
    double low = reach(KerbClearance.of(kerb, with(new Vehicle.Floor(ride, 1.4, 1.6, 0.25))));
    double high =
        reach(KerbClearance.of(kerb, with(new Vehicle.Floor(ride + 0.02, 1.4, 1.6, 0.25))));
    assertThat(high).isGreaterThanOrEqualTo(low);
  }

  private static double reach(KerbClearance c) {
    Double reach = c.reach();
    return reach == null ? c.most() : reach;
  }

  @Property(tries = 100)
  void noProfilePassesItsGreatestHeight(
      @ForAll KerbProfile profile, @ForAll @DoubleRange(min = 0, max = 1) double share) {
    assertThat(profile.height(share)).isBetween(0.0, 1.0);
  }

  @Test
  void eachProfileReachesItsHeightWhereItsNameSays() {
    assertThat(KerbProfile.RAMP.height(1)).isEqualTo(1);
    assertThat(KerbProfile.CROWN.height(0.5)).isEqualTo(1);
    assertThat(KerbProfile.SAUSAGE.height(0.775)).isCloseTo(1, within(1e-9));
    assertThat(KerbProfile.STEP.height(0.9)).isEqualTo(1);
    assertThat(KerbProfile.STEP.height(0.6)).isLessThan(0.5);
    assertThat(KerbProfile.FLAT.height(0.5)).isEqualTo(1);
  }
}
