package marvek.core.lap;

import marvek.core.circuit.Centreline;

/**
 * What two axles leave of the grip that one point would have, at each station of a lap: they carry
 * unequal loads, and the one that has used up its own first sets the limit. Factors on the grip, 1
 * where the two agree. Arrays are not to be changed by whoever reads them.
 *
 * @param turning without braking or driving, at the speed that the corner allows
 * @param braking at the speed and in the bend of the lap
 * @param driving at the speed and in the bend of the lap
 */
public record AxleShares(double[] turning, double[] braking, double[] driving) {
  AxleShares piece(int from, int count) {
    return new AxleShares(
        Centreline.piece(turning, from, count),
        Centreline.piece(braking, from, count),
        Centreline.piece(driving, from, count));
  }
}
