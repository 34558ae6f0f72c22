package marvek.core.session;

import java.util.List;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.plan.ComputedLap;
import marvek.core.vehicle.Vehicle;
import org.hipparchus.stat.StatUtils;
import org.jspecify.annotations.Nullable;

/**
 * Fuel for a number of laps.
 *
 * @param perLap litres, mean
 * @param spread of a lap as a standard deviation, litres
 * @param own laps of the driver's own that this rests on; 0 where it is worked out from the engine
 */
public record FuelNeed(double perLap, double spread, int own) {
  /** Petrol, where the vehicle does not say. */
  private static final Vehicle.Fuel UNSAID = new Vehicle.Fuel(0, 1, 0.745);

  /** How many litres for the whole distance cover all but one time in twenty. */
  private static final double ONE_IN_TWENTY = 1.645;

  /** Spread of a lap where nothing was measured: the engine's efficiency is not known better. */
  private static final double UNKNOWN = 0.08;

  /** Fewest laps of the driver's own that speak for themselves. */
  public static final int FEWEST = 3;

  /** Kilograms of a litre of what a vehicle burns. */
  public static double density(Vehicle vehicle) {
    Vehicle.Fuel fuel = vehicle.fuel();
    return (fuel == null ? UNSAID : fuel).density();
  }

  /**
   * On a lap: by the driver's own entries where there are enough, else by the engine's work.
   *
   * @param used litres by lap
   */
  public static FuelNeed of(ComputedLap then, List<Double> used) {
    if (used.size() >= FEWEST) {
      return measured(used);
    }
    Limits limits = new Limits(then.vehicle(), then.conditions(), then.lap().boostBelow());
    return worked(work(then.path(), limits, then.lap()), then.vehicle().fuel());
  }

  /** By the driver's own entries, litres by lap, at least {@link #FEWEST}. */
  public static FuelNeed measured(List<Double> litres) {
    double[] all = litres.stream().mapToDouble(Double::doubleValue).toArray();
    return new FuelNeed(StatUtils.mean(all), Math.sqrt(StatUtils.variance(all)), all.length);
  }

  /**
   * By the work that the engine does in a lap.
   *
   * @param work J at the crankshaft
   * @param fuel that it burns; null where the vehicle does not say
   */
  public static FuelNeed worked(double work, Vehicle.@Nullable Fuel fuel) {
    double litres = work / (fuel == null ? UNSAID : fuel).gives();
    return new FuelNeed(litres, UNKNOWN * litres, 0);
  }

  /**
   * Litres burnt for work at the crankshaft: m = E/(η·H) (Heywood 1988).
   *
   * @param work J
   * @param efficiency share
   * @param heating MJ/kg
   * @param density kg/l
   */
  public static double litres(double work, double efficiency, double heating, double density) {
    return work / (efficiency * heating * 1e6) / density;
  }

  /** Efficiency that a specific consumption stands for, kg/kWh and MJ/kg. */
  public static double efficiency(double consumption, double heating) {
    return 3.6 / (consumption * heating);
  }

  /**
   * Work at the crankshaft in a lap, J: none with the throttle shut, where the fuel is cut.
   *
   * @param path of the lap
   * @param limits of the vehicle that day
   */
  public static double work(Path path, Limits limits, LapTrace lap) {
    double efficiency = limits.vehicle().gearbox().efficiency();
    double work = 0;
    for (int i = 0; i < lap.size(); i++) {
      double v = lap.speed()[i];
      double push = Math.max(0, lap.throttle()[i]) * limits.engineDrive(v);
      // As much as the vehicle gains and spends, however much the engine could give.
      double spent =
          Math.max(0, lap.along()[i] + limits.resistance(path, i, v, limits.load(path, i, v * v)));
      work += lap.brake()[i] > 0 ? 0 : limits.mass() * Math.min(push, spent) * path.step()[i];
    }
    return work / efficiency;
  }

  /**
   * Litres that reach the end in 95 of 100 races: n·f + 1.645·s·√(n + n²/k).
   *
   * @param laps n
   */
  public double litres(int laps) {
    double k = own == 0 ? 1 : own;
    return laps * perLap + ONE_IN_TWENTY * spread * Math.sqrt(laps + (double) laps * laps / k);
  }

  /** Chance that so many litres reach the end of so many laps. */
  public double reaches(double litres, int laps) {
    double k = own == 0 ? 1 : own;
    double error = spread * Math.sqrt(laps + (double) laps * laps / k);
    double over = litres - laps * perLap;
    return error <= 0
        ? over >= 0 ? 1 : 0
        : new org.hipparchus.distribution.continuous.NormalDistribution()
            .cumulativeProbability(over / error);
  }

  /**
   * Laps of a race by time: the leader crosses the line once more than whole laps fit, and once
   * more again where the rule says so.
   *
   * @param seconds of the race
   * @param leader lap of the leader, s
   */
  public static int laps(double seconds, double leader, boolean oneMore) {
    return (int) Math.floor(seconds / leader) + (oneMore ? 2 : 1);
  }
}
