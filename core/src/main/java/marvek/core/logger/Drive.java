package marvek.core.logger;

/**
 * A whole drive, metre by metre.
 *
 * @param time seconds since the start
 * @param station metres since the line that was crossed first, not wrapped
 * @param offset metres to the left of the centreline
 * @param speed m/s
 * @param brake share of the full press, by what it slows
 * @param throttle share
 * @param steering radians at the wheel, positive to the left
 * @param gear from 1
 * @param revs per minute
 * @param along m/s²
 * @param across m/s², positive to the left
 * @param lean radians from upright, positive to the left; zero for what does not lean
 * @param front m/s at the rim of the front wheel
 * @param rear m/s at the rim of the rear wheel
 * @param vertical m/s², standing still one standard gravity
 * @param leans whether it is a motorcycle
 * @param truth what was done
 */
public record Drive(
    double[] time,
    double[] station,
    double[] offset,
    double[] speed,
    double[] brake,
    double[] throttle,
    double[] steering,
    double[] gear,
    double[] revs,
    double[] along,
    double[] across,
    double[] lean,
    double[] front,
    double[] rear,
    double[] vertical,
    boolean leans,
    Truth truth) {
  /** How long it lasts, s. */
  public double duration() {
    return time[time.length - 1];
  }
}
