package marvek.core.lap;

import marvek.core.circuit.Loop;

/**
 * A simulated lap at the stations of its path. Arrays are not to be changed by whoever reads them.
 *
 * @param speed m/s
 * @param time seconds since the start/finish line at each station
 * @param along acceleration along the path, m/s², over the step that follows the station
 * @param across acceleration across, m/s², positive to the left
 * @param gear 1 is the lowest
 * @param throttle share of the throttle, 0 to 1: the rest of the pedal brakes with the engine, see
 *     {@link Limits#drive}
 * @param brake share of the deceleration that the vehicle could give there in a straight line, 0 to
 *     1; 0 where the engine alone slows enough
 * @param cornerSpeed speed at which the corner takes all the grip, m/s
 * @param unbraked speed that full throttle from the last corner gives, m/s, before any braking
 * @param lapTime seconds
 * @param boostBelow speed below which the boost was used, m/s; very large without one
 */
public record LapTrace(
    double[] speed,
    double[] time,
    double[] along,
    double[] across,
    int[] gear,
    double[] throttle,
    double[] brake,
    double[] cornerSpeed,
    double[] unbraked,
    double lapTime,
    double boostBelow) {

  /** Number of stations. */
  public int size() {
    return speed.length;
  }

  /** Seconds from one station to another, over the line where it lies between. */
  public double between(int from, int to) {
    double seconds = time[to] - time[from];
    return seconds < 0 ? seconds + lapTime : seconds;
  }

  /** The slowest speed from one station to another, m/s. */
  public double slowest(int from, int to) {
    return new Loop(speed.length)
        .between(from, to)
        .indices()
        .mapToDouble(i -> speed[i])
        .min()
        .orElseThrow();
  }
}
