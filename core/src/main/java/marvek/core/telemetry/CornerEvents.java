package marvek.core.telemetry;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What happened in one corner of a lap. Stations are in [0, length of the lap); null where
 * something did not happen or cannot be told.
 *
 * @param corner id
 * @param lift station where the throttle starts to close before the corner
 * @param brake station where the brake is first pressed
 * @param brakePeak hardest press, share of the hardest of the recording
 * @param peakAfter seconds from the first press to the hardest
 * @param release station where the brake is let go for the last time
 * @param brakings times the brake was pressed
 * @param handOff seconds from the throttle shut to the brake pressed; below zero they overlap
 * @param turnIn station where steering has come to about three tenths of its most
 * @param lineShift metres by which the way into the corner lies later along the road than the usual
 *     line; below zero earlier
 * @param firstApex of two, station closest to the inside
 * @param apex station closest to the inside
 * @param apexGap metres there from the inside edge to the vehicle's middle
 * @param entryPlace metres left of the centreline on arrival, {@link EventFinder#ARRIVAL} before
 *     the road bends
 * @param minimumSpeed m/s
 * @param minimumAt station of it
 * @param arrivalSpeed fastest before the corner, m/s
 * @param exitSpeed m/s where the road is straight again
 * @param roll seconds from the brake let go to the throttle touched; below zero they overlap
 * @param coasting seconds with neither pedal used
 * @param firstThrottle station
 * @param fullThrottle station from which it stays open
 * @param lifts times the throttle was eased again before it was full for good
 * @param exitAt station of the widest place after the apex
 * @param exitRoom metres there between the outside edge and the vehicle's side; below zero beyond
 * @param approachGear gear on arrival
 * @param gear at the slowest place
 * @param downshifts stations of the shifts down
 * @param limiter seconds at the limiter from the slowest place on
 * @param corrections times the steering was taken back and put on again
 * @param locks times a wheel stood while braking
 * @param spins times the rear wheel spun under the throttle
 * @param strike hardest knock upwards over the corner, m/s²
 */
@RecordBuilder
public record CornerEvents(
    String corner,
    @Nullable Double lift,
    @Nullable Double brake,
    double brakePeak,
    @Nullable Double peakAfter,
    @Nullable Double release,
    int brakings,
    @Nullable Double handOff,
    @Nullable Double turnIn,
    @Nullable Double lineShift,
    @Nullable Double firstApex,
    @Nullable Double apex,
    @Nullable Double apexGap,
    @Nullable Double entryPlace,
    double minimumSpeed,
    double minimumAt,
    double arrivalSpeed,
    double exitSpeed,
    @Nullable Double roll,
    double coasting,
    @Nullable Double firstThrottle,
    @Nullable Double fullThrottle,
    int lifts,
    @Nullable Double exitAt,
    @Nullable Double exitRoom,
    @Nullable Integer approachGear,
    @Nullable Integer gear,
    List<Double> downshifts,
    double limiter,
    int corrections,
    int locks,
    int spins,
    @Nullable Double strike) {
  public CornerEvents {
    downshifts = List.copyOf(downshifts);
  }

  /** The same without what was measured from a usual line. */
  public CornerEvents withoutLine() {
    return CornerEventsBuilder.builder(this).lineShift(null).build();
  }
}
