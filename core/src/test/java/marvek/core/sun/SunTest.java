package marvek.core.sun;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;

class SunTest {
  /**
   * Source: I. Reda, A. Andreas, NREL/TP-560-34302, worked example: 17 October 2003, 12:30:30
   * UTC−7, 39.742476° N, 105.1786° W, 1830.14 m, 820 hPa, 11 °C: zenith 50.11162°, azimuth
   * 194.34024°.
   */
  @Test
  void agreesWithThePublishedExample() {
    SunPosition sun =
        SunPosition.at(
            Instant.parse("2003-10-17T19:30:30Z"), 39.742476, -105.1786, 1830.14, 820, 11);
    assertThat(90 - Math.toDegrees(sun.elevation())).isCloseTo(50.11162, within(2e-4));
    assertThat(Math.toDegrees(sun.azimuth())).isCloseTo(194.34024, within(2e-4));
  }

  /** A second library with another method (commons-suncalc, after Montenbruck and Pfleger). */
  @Test
  void agreesWithASecondLibrary() {
    for (double latitude : new double[] {-34, 8, 39.6, 58}) {
      for (String day : List.of("2026-01-12", "2026-05-16", "2026-09-30")) {
        for (int hour = 0; hour < 24; hour += 3) {
          Instant time = Instant.parse(day + String.format("T%02d:10:00Z", hour));
          SunPosition ours = SunPosition.at(time, latitude, -8.05, 120);
          var theirs =
              org.shredzone.commons.suncalc.SunPosition.compute()
                  .on(time)
                  .at(latitude, -8.05)
                  .execute();
          String what = latitude + " " + time;
          if (Math.abs(theirs.getAltitude()) < 1.5) {
            // At the horizon the two bend the light by different rules.
            continue;
          }
          assertThat(Math.toDegrees(ours.elevation()))
              .as(what)
              .isCloseTo(theirs.getAltitude(), within(0.25));
          if (Math.abs(theirs.getAltitude()) < 75) {
            assertThat(
                    Math.IEEEremainder(Math.toDegrees(ours.azimuth()) - theirs.getAzimuth(), 360))
                .as(what)
                .isCloseTo(0, within(0.25));
          }
        }
      }
    }
  }

  @Test
  void theDaysPathRisesInTheEastAndSetsInTheWest() {
    List<SunPosition.Moment> path =
        SunPosition.path(LocalDate.of(2026, 5, 16), ZoneId.of("Europe/Lisbon"), 39.6, -8, 100);
    assertThat(Math.toDegrees(path.get(0).sun().azimuth())).isBetween(50.0, 90.0);
    assertThat(Math.toDegrees(path.get(path.size() - 1).sun().azimuth())).isBetween(270.0, 310.0);
    double noon = path.stream().mapToDouble(m -> m.sun().elevation()).max().orElse(0);
    // At noon the sun stands 90° − latitude + declination high; the declination in the middle of
    // May
    // is 19° (common knowledge, from memory).
    assertThat(Math.toDegrees(noon)).isCloseTo(90 - 39.6 + 19, within(0.6));
  }

  @Test
  void shadowsByHand() {
    // 10 m high, sun 45° up due south: 10 m to the north.
    Shadow north = Shadow.of(10, new SunPosition(Math.PI, Math.PI / 4)).orElseThrow();
    assertThat(north.north()).isCloseTo(10, within(1e-9));
    assertThat(north.east()).isCloseTo(0, within(1e-9));
    // 30° up due east: 10 / tan 30° = 17.3205 m to the west.
    Shadow west = Shadow.of(10, new SunPosition(Math.PI / 2, Math.PI / 6)).orElseThrow();
    assertThat(west.east()).isCloseTo(-17.3205, within(1e-4));
    assertThat(west.length()).isCloseTo(17.3205, within(1e-4));
    // On a road to the east the tip went from 0 to −17.32 m: back by that much. To the north: −10
    // m.
    assertThat(west.movedAlong(north, 0)).isCloseTo(-17.3205, within(1e-4));
    assertThat(west.movedAlong(north, Math.PI / 2)).isCloseTo(-10, within(1e-9));
    assertThat(Shadow.of(10, new SunPosition(1, Math.toRadians(1)))).isEmpty();
    assertThat(Shadow.of(10, new SunPosition(1, -0.2))).isEmpty();
  }
}
