package marvek.core.sun;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import net.e175.klaus.solarpositioning.DeltaT;
import net.e175.klaus.solarpositioning.SPA;
import net.e175.klaus.solarpositioning.SolarPosition;

/**
 * Where the sun stands. Source of the method: I. Reda, A. Andreas, "Solar Position Algorithm for
 * Solar Radiation Applications", NREL/TP-560-34302.
 *
 * @param azimuth radians clockwise from north
 * @param elevation radians above the horizon, refraction included; negative below it
 */
public record SunPosition(double azimuth, double elevation) {
  private static final double PRESSURE = 1013;
  private static final double TEMPERATURE = 15;
  private static final int PATH_MINUTES = 20;

  /**
   * The sun over a place.
   *
   * @param latitude degrees
   * @param longitude degrees
   * @param height metres above the sea
   */
  public static SunPosition at(Instant time, double latitude, double longitude, double height) {
    return at(time, latitude, longitude, height, PRESSURE, TEMPERATURE);
  }

  /**
   * The sun over a place in given air.
   *
   * @param pressure hPa
   * @param temperature °C
   */
  public static SunPosition at(
      Instant time,
      double latitude,
      double longitude,
      double height,
      double pressure,
      double temperature) {
    ZonedDateTime when = time.atZone(ZoneOffset.UTC);
    SolarPosition p =
        SPA.calculateSolarPosition(
            when,
            latitude,
            longitude,
            height,
            DeltaT.estimate(when.toLocalDate()),
            pressure,
            temperature);
    return new SunPosition(
        Math.toRadians(p.azimuth()), Math.PI / 2 - Math.toRadians(p.zenithAngle()));
  }

  /** A moment of the day's path. */
  public record Moment(Instant time, SunPosition sun) {}

  /** The sun's way over a place while it is up, every twenty minutes. */
  public static List<Moment> path(
      LocalDate day, ZoneId zone, double latitude, double longitude, double height) {
    List<Moment> path = new ArrayList<>();
    ZonedDateTime t = day.atStartOfDay(zone);
    while (t.toLocalDate().equals(day)) {
      SunPosition sun = at(t.toInstant(), latitude, longitude, height);
      if (sun.elevation() > 0) {
        path.add(new Moment(t.toInstant(), sun));
      }
      t = t.plusMinutes(PATH_MINUTES);
    }
    return List.copyOf(path);
  }
}
