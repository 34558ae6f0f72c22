package marvek.core.plan;

import java.util.List;
import marvek.core.entry.BrakedAgain;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * What the points of a corner lead to.
 *
 * @param braking the numbers under the braking marker; null where the brakes are not used
 * @param arrivalSpeed m/s at the marker, or at turn-in without one
 * @param arrivalGear gear there
 * @param arrivalRevs revs per minute there
 * @param minimumSpeed m/s at the slowest point
 * @param minimumStation where that is
 * @param exitSpeed m/s at the end of the stretch
 * @param time seconds from the corner before to the braking for the next; null when it cannot be
 *     made
 * @param lapEffect seconds against the computed best of this corner, positive is slower; null when
 *     the corner cannot be made
 * @param gears each gear at the slowest point
 * @param profile the stretch, for drawing
 * @param remarks what does not fit together, in plain words
 * @param cornerTime seconds from 150 m before the computed line's turn-in to its exit; null when it
 *     cannot be made
 * @param tyreWork joules that the tyres turn into heat over the stretch
 * @param pressing the brake under the planned shape; null where braking is scaled evenly
 * @param shifts what the gears ask for
 * @param exit what speed at the exit is worth
 * @param again brakings of the lap after the one that the marker is for
 * @param score every action in driving order, with what became of it
 */
public record CornerAnswer(
    @Nullable BrakingNumbers braking,
    double arrivalSpeed,
    int arrivalGear,
    double arrivalRevs,
    double minimumSpeed,
    double minimumStation,
    double exitSpeed,
    @Nullable Double time,
    @Nullable Double lapEffect,
    List<GearChoice> gears,
    Profile profile,
    List<Said> remarks,
    @Nullable Double cornerTime,
    double tyreWork,
    @Nullable Pressing pressing,
    Shifts shifts,
    ExitWorth exit,
    List<BrakedAgain> again,
    List<ScoredAction> score) {

  public CornerAnswer {
    again = List.copyOf(again);
    score = List.copyOf(score);
    gears = List.copyOf(gears);
    remarks = List.copyOf(remarks);
  }

  /** What of it is written into the entry. */
  public Reached reached() {
    return new Reached(
        arrivalSpeed, arrivalGear, minimumSpeed, pressing == null ? null : pressing.peak(), again);
  }

  /**
   * The numbers under a braking marker.
   *
   * @param makesIt whether full use of the vehicle gets it down to the corner's speed
   * @param needMean m/s², mean deceleration from the marker to turn-in or the slowest point
   * @param needPeak m/s², the largest on the way
   * @param capability m/s², mean of what the vehicle can do over the same metres
   * @param marginMetres by which braking could start later; negative: will not make it
   * @param marginSeconds the same at the speed there
   * @param limitStation the last place to brake
   * @param sensitivity how the last place moves
   */
  public record BrakingNumbers(
      boolean makesIt,
      double needMean,
      double needPeak,
      double capability,
      double marginMetres,
      double marginSeconds,
      double limitStation,
      Sensitivity sensitivity) {}

  /**
   * Metres by which braking must start sooner.
   *
   * @param perKmh for 1 km/h more on arrival
   * @param perPercentGrip for 1 % less grip
   * @param perTenKilograms for 10 kg more
   * @param perPercentGradient for 1 % more downhill
   * @param perTenthSecond for a reaction 0.1 s later
   */
  public record Sensitivity(
      double perKmh,
      double perPercentGrip,
      double perTenKilograms,
      double perPercentGradient,
      double perTenthSecond) {}

  /**
   * The brake under the planned shape.
   *
   * @param peak effort, share of the greatest straight-line braking at the marker
   * @param turnIn effort there
   * @param mid effort half way from turn-in to the release
   * @param asks share of the grip asked for at the hardest place; above 1 is more than there is
   * @param hardest station of that place
   * @param excess m/s too fast for the corner, negative for slower than need be
   */
  public record Pressing(
      double peak, double turnIn, double mid, double asks, double hardest, double excess) {}

  /**
   * What the gears ask for.
   *
   * @param down each downshift on the way in, in driving order
   * @param first station of the first upshift on the way out, or null
   * @param limiterCost seconds that holding the corner's gear to the limiter costs against
   *     shifting, negative where it gains; null where no shift comes before the next braking
   * @param shortShiftCost seconds that a shift at the driver's short-shift point costs; null
   *     without one
   */
  public record Shifts(
      List<Downshift> down,
      @Nullable Double first,
      @Nullable Double limiterCost,
      @Nullable Double shortShiftCost) {
    public Shifts {
      down = List.copyOf(down);
    }
  }

  /**
   * A downshift.
   *
   * @param gear taken
   * @param station where
   * @param speed there, m/s
   * @param revs after it, per minute
   * @param safe whether they stay within what a downshift may reach
   */
  public record Downshift(int gear, double station, double speed, double revs, boolean safe) {}

  /**
   * What speed at the exit is worth.
   *
   * @param seconds won up to the next braking by 1 km/h more where full throttle begins
   * @param atBraking m/s more that it still is there
   * @param metres at the corner's lowest speed that the same seconds are: what may be lost before
   * @param straight metres of full throttle that follow
   */
  public record ExitWorth(double seconds, double atBraking, double metres, double straight) {}

  /**
   * A gear for the slowest point.
   *
   * @param gear 1 is the lowest
   * @param revsAtMinimum revs per minute at the slowest point
   * @param revsAtFull revs per minute where the throttle is fully open
   * @param safeDown fastest speed for the shift down into it, m/s
   * @param usable false when it would pass the limit or fall off the torque curve
   * @param cost seconds to the end of the stretch against the best gear
   * @param lifts whether full throttle in it would lift a motorcycle's front wheel there
   * @param pull m/s² that the engine gives there at full throttle: how sharply the pedal answers
   * @param bears share of that which the tyres bear in the turn there, 0 to 1
   */
  public record GearChoice(
      int gear,
      double revsAtMinimum,
      double revsAtFull,
      double safeDown,
      boolean usable,
      double cost,
      boolean lifts,
      double pull,
      double bears) {}

  /**
   * The stretch at even steps.
   *
   * @param from station of the first value; it may lie before the start/finish line of the lap
   * @param step metres between values
   * @param speed m/s
   * @param brake share of the greatest braking, 0 to 1
   * @param throttle 0 to 1
   * @param gear 1 is the lowest
   * @param offset metres to the left of the centreline
   * @param use share of the grip that braking and turning ask for
   */
  public record Profile(
      double from,
      double step,
      double[] speed,
      double[] brake,
      double[] throttle,
      int[] gear,
      double[] offset,
      double[] use) {}
}
