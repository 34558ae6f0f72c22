package marvek.core.lap;

import marvek.core.vehicle.Vehicle;

/** Energies of a lap, for tests of other packages. */
public final class LapSimulatorAccess {
  private LapSimulatorAccess() {}

  public static double spent(Path path, LapTrace lap, Vehicle vehicle) {
    return LapSimulator.spends(
        path, lap, new Limits(vehicle, Conditions.dryWarm(), lap.boostBelow()));
  }

  /**
   * Braking energy by the speeds alone: half m v² lost where the brakes are on, times the share.
   */
  public static double stored(Path path, LapTrace lap, Vehicle vehicle) {
    double joules = 0;
    for (int i = 0; i < lap.size(); i++) {
      if (lap.brake()[i] > 0) {
        double v = lap.speed()[i];
        double w = lap.speed()[(i + 1) % lap.size()];
        joules += Math.max(0, vehicle.mass() * (v * v - w * w) / 2);
      }
    }
    return joules * vehicle.boost().recovery();
  }
}
