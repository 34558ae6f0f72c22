package marvek.core.lap;

import io.soabase.recordbuilder.core.RecordBuilder;
import marvek.core.vehicle.AirDensity;

/**
 * What the day gives.
 *
 * @param grip factor on the tyres' grip, 1 for a warm dry track
 * @param airDensity kg/m³
 * @param windSpeed m/s
 * @param windFrom direction the wind comes from, radians anticlockwise from east
 * @param extraMass fuel or ballast on top of the vehicle's mass, kg; negative for less
 * @param drag factor on the drag, below 1 in the air of a vehicle ahead
 * @param downforce factor on the downforce, below 1 in the air of a vehicle ahead
 * @param driving how much of it all the driver uses
 */
@RecordBuilder
public record Conditions(
    double grip,
    double airDensity,
    double windSpeed,
    double windFrom,
    double extraMass,
    double drag,
    double downforce,
    Driving driving) {

  /** In free air. */
  public Conditions(
      double grip, double airDensity, double windSpeed, double windFrom, double extraMass) {
    this(grip, airDensity, windSpeed, windFrom, extraMass, 1, 1, Driving.FULL);
  }

  /** A warm, dry, still day at sea level in the standard atmosphere. */
  public static Conditions dryWarm() {
    return new Conditions(1, AirDensity.atAltitude(0), 0, 0, 0);
  }

  /** The same day with another factor on the grip. */
  public Conditions withGrip(double factor) {
    return ConditionsBuilder.builder(this).grip(factor).build();
  }

  /** The same day with another mass on top of the vehicle's, kg. */
  public Conditions withExtraMass(double kg) {
    return ConditionsBuilder.builder(this).extraMass(kg).build();
  }

  /** The same day, driven otherwise. */
  public Conditions withDriving(Driving other) {
    return ConditionsBuilder.builder(this).driving(other).build();
  }
}
