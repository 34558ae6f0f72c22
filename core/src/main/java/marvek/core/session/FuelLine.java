package marvek.core.session;

import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;

/**
 * Fuel that a session takes.
 *
 * @param laps that it is for, formation and what the rule asks besides
 * @param litres to the end with the rest, in 95 of 100
 * @param reaches chance that what is in the tank does; null where nothing is said
 * @param otherReaches the same of the other load
 * @param otherCosts seconds a lap that the other load costs at the start
 * @param weighed whether what is in the tank is told apart from the vehicle's mass
 */
public record FuelLine(
    FuelNeed need,
    int laps,
    double litres,
    @Nullable Double reaches,
    @Nullable Double otherReaches,
    @Nullable Double otherCosts,
    boolean weighed) {
  /** On the day of a session. */
  public static FuelLine of(TrackSession session, OnTheDay day) {
    ComputedLap then = day.then();
    FuelNeed need = day.need();
    SessionFuel fuel = session.fuel();
    Double leader = fuel.leader();
    double lap = then.lap().lapTime();
    boolean race = session.kind() == SessionKind.RACE && session.timing().minutes() != null;
    int laps =
        race
            ? FuelNeed.laps(
                60.0 * session.timing().length(), leader == null ? lap : leader, fuel.oneMore())
            : session.timing().fits(lap) + 1;
    laps += fuel.formation();
    Double tank = fuel.tank();
    Double other = fuel.other();
    return new FuelLine(
        need,
        laps,
        need.litres(laps) + fuel.rest(),
        tank == null ? null : (Double) need.reaches(tank - fuel.rest(), laps),
        other == null ? null : (Double) need.reaches(other - fuel.rest(), laps),
        day.heavier(),
        then.vehicle().fuel() != null);
  }
}
