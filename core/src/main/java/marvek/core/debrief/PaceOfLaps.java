package marvek.core.debrief;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Driving;
import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;

/**
 * How much of the grip laps use, to be taken for the driver's own pace. What the laps do not tell
 * stays open: traction is not told from them at all, as what holds back the throttle may be the
 * driver or the engine.
 *
 * @param braking share of the most braking; null where the laps brake hard on too little straight
 *     road
 * @param turning share of the most sideways; null where too few corners tell it
 * @param corners that tell it, in driving order
 */
public record PaceOfLaps(
    @Nullable Double braking, @Nullable Double turning, List<TurningUse> corners) {
  private static final int FEW = 3;
  private static final double GOOD = 0.75;
  private static final double LEAST = 0.3;

  public PaceOfLaps {
    corners = List.copyOf(corners);
  }

  /**
   * What laps use in one corner.
   *
   * @param corner id
   * @param turning share of the most sideways
   */
  public record TurningUse(String corner, double turning) {}

  /**
   * Tells it.
   *
   * @param computed at whatever pace; shares come against all that the vehicle can do
   * @param pace that it was computed at, whose corners may have a share of their own
   * @param laps that count
   */
  public static PaceOfLaps of(
      ComputedLap computed, @Nullable OwnPace pace, List<VehicleFit.Lap> laps) {
    Driving driving = computed.conditions().driving();
    List<TurningUse> corners = new ArrayList<>();
    for (Corner corner : computed.corners()) {
      double full = GripUse.in(computed, corner, computed.lap().speed(), new double[0]);
      if (full > GripUse.ASKS && !laps.isEmpty()) {
        double[] uses =
            laps.stream()
                .mapToDouble(l -> GripUse.in(computed, corner, l.speed(), l.across()))
                .toArray();
        double own = driving.turning() * (pace == null ? 1 : pace.in(corner.id()));
        double use = Robust.quantile(uses, GOOD) / full * own;
        corners.add(new TurningUse(corner.id(), Math.min(1, use)));
      }
    }
    double[] uses = VehicleFit.brakingUses(computed, laps);
    return new PaceOfLaps(
        uses.length < VehicleFit.ENOUGH
            ? null
            : share(Robust.quantile(uses, VehicleFit.HARD) * driving.braking()),
        corners.size() < FEW
            ? null
            : share(Robust.median(corners.stream().mapToDouble(TurningUse::turning).toArray())),
        corners);
  }

  private static double share(double use) {
    return Math.max(LEAST, Math.min(1, use));
  }
}
