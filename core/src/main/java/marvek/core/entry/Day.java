package marvek.core.entry;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Objects;
import marvek.core.lap.Surface;
import org.jspecify.annotations.Nullable;

/**
 * What a day is like, against a dry, warm, still one.
 *
 * @param grip factor on the tyres' grip
 * @param extraMass kg on top of the vehicle's mass
 * @param windSpeed m/s
 * @param windFrom compass degrees that the wind comes from
 * @param drag factor on the drag
 * @param downforce factor on the downforce
 * @param airTemperature °C, or null for the standard atmosphere
 * @param hour on the circuit's clock like 18:30, or empty; it tells the light, not the grip
 * @param surface of the road, for the places where water gathers; null only in a day that was
 *     stored without, until its variant gives it that of its kind
 * @param gates what it passes across the road otherwise than the reference; null for nothing
 */
@RecordBuilder
public record Day(
    double grip,
    double extraMass,
    double windSpeed,
    double windFrom,
    double drag,
    double downforce,
    @Nullable Double airTemperature,
    String hour,
    @Nullable Surface surface,
    @Nullable OtherGates gates) {
  public Day {
    Objects.requireNonNull(hour, "hour");
  }

  /** The day of the reference itself. */
  public static Day ofBase() {
    return of(1, 0);
  }

  /** Nothing but another grip and mass, on a dry road. */
  static Day of(double grip, double extraMass) {
    return of(grip, extraMass, Surface.DRY);
  }

  static Day of(double grip, double extraMass, Surface surface) {
    return new Day(grip, extraMass, 0, 0, 1, 1, null, "", surface, null);
  }

  Day on(@Nullable Surface other) {
    return DayBuilder.builder(this).surface(other).build();
  }

  /** The same day with another grip, as a factor on the reference's own. */
  public Day withGrip(double other) {
    return DayBuilder.builder(this).grip(other).build();
  }

  /** What water does to the road, dry where nothing is known. */
  public Surface road() {
    return surface == null ? Surface.DRY : surface;
  }
}
