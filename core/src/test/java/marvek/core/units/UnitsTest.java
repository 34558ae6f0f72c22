package marvek.core.units;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class UnitsTest {
  @Test
  void factorsAreThoseOfNist() {
    // NIST SP 811 (2008), Appendix B.
    assertThat(Units.METRES_PER_MILE).isEqualTo(1609.344);
    assertThat(Units.METRES_PER_FOOT).isEqualTo(0.3048);
    assertThat(Units.PASCALS_PER_PSI).isEqualTo(6894.757);
    assertThat(Units.WATTS_PER_PS).isEqualTo(735.49875);
    assertThat(Units.METRES_PER_YARD).isCloseTo(3 * Units.METRES_PER_FOOT, within(1e-12));
    assertThat(Units.PASCALS_PER_BAR).isEqualTo(100_000);
    assertThat(Units.WATTS_PER_PS).isCloseTo(75 * Units.G, within(1e-9));
  }

  @ParameterizedTest
  @CsvSource({"50,80", "65,105", "80,130", "100,160", "125,200", "140,225", "160,255", "190,305"})
  void speedPairsThatDriversQuoteRoundToFive(double mph, long kmh) {
    // Common practice, no source: pairs rounded to 5 km/h.
    double exact = Units.kmh(mph * Units.METRES_PER_MILE / 3600);
    assertThat(5 * Math.round(exact / 5)).isEqualTo(kmh);
    assertThat(Units.mph(Units.fromKmh(exact))).isCloseTo(mph, within(1e-9));
  }

  @Test
  void showsWhatTheDriverChose() {
    Display imperial = new Display(Display.Speed.MPH, Display.Length.FT);
    assertThat(imperial.speed(44.704)).isEqualTo("100 mph");
    assertThat(imperial.length(-30.48)).isEqualTo("100 ft");
    assertThat(Display.METRIC.speed(27.7778)).isEqualTo("100 km/h");
    assertThat(new Display(Display.Speed.KMH, Display.Length.YD).length(9.144)).isEqualTo("10 yd");
  }

  @Test
  void bothUnitsOfSpeedAreSaidWithTheChosenOneFirst() {
    Display first = new Display(Display.Speed.KMH_MPH, Display.Length.M);
    assertThat(first.speed(25.8333)).isEqualTo("93 km/h (58 mph)");
    assertThat(new Display(Display.Speed.MPH_KMH, Display.Length.FT).speed(44.704))
        .isEqualTo("100 mph (161 km/h)");
  }
}
