package marvek.core.axle;

import java.util.List;
import marvek.core.lap.AxleShares;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.units.Units;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/**
 * What two axles leave of the grip that a lap of one point uses. The factors are taken at the
 * speeds of a lap and held while the next one is driven; they change so little with the speed that
 * one round settles a lap within 0.01 %.
 */
public final class AxleGrip {
  // Nearer to the limit across than this the ellipse leaves so little along that a ratio says
  // nothing.
  private static final double NEAREST = 0.95;
  private static final double LEAST = 0.7;
  private static final double MOST = 1.3;

  // Metres between the neighbours of a station over which the shares are straight.
  private static final double CLOSE = 3;

  private AxleGrip() {}

  /** The factors along a lap; null for a motorcycle, which moves no load across. */
  public static @Nullable AxleShares of(Path path, Limits limits, LapTrace lap) {
    if (limits.vehicle().kind() == VehicleKind.MOTORCYCLE) {
      return null;
    }
    Factors as = new Factors(limits, new Axles(limits));
    Axles entered = Axles.asEntered(limits);
    Factors was = entered.limits() == limits ? as : new Factors(entered.limits(), entered);
    Entered level = new Entered(entered);
    int n = path.size();
    AxleShares out = new AxleShares(new double[n], new double[n], new double[n]);
    for (int i = 0; i < n; i++) {
      if (between(path, i)) {
        continue;
      }
      double square = lap.speed()[i] * lap.speed()[i];
      double load = limits.load(path, i, square);
      double weight = load - square * limits.downforce();
      boolean grips = weight > 0 && limits.sidewaysMost(load, path.grip()[i]) > 0;
      if (grips) {
        as.at(level, weight, square, limits.sideways(path, i, square), path.grip()[i]);
      }
      if (grips && was != as) {
        was.at(level, weight, square, limits.sideways(path, i, square), path.grip()[i]);
      }
      out.turning()[i] = grips ? held(was.turning, as.turning) : 1;
      out.braking()[i] = grips ? held(was.braking, as.braking) : 1;
      out.driving()[i] = grips ? held(was.driving, as.driving) : 1;
    }
    for (int i = 0; i < n; i++) {
      if (between(path, i)) {
        for (double[] shares : List.of(out.turning(), out.braking(), out.driving())) {
          shares[i] = (shares[i - 1] + shares[i + 1]) / 2;
        }
      }
    }
    return out;
  }

  /**
   * Whether the shares at a station are the mean of its neighbours': every second one where both
   * are near and have the same ground.
   */
  private static boolean between(Path path, int i) {
    double[] grip = path.grip();
    return i % 2 == 1
        && i + 1 < grip.length
        && path.step()[i - 1] + path.step()[i] < CLOSE
        && grip[i - 1] == grip[i]
        && grip[i] == grip[i + 1];
  }

  /**
   * Of a vehicle as it was entered two axles take, but they give nothing: what is not entered is a
   * guess, and nobody may brake later on a guess. What moves its balance afterwards counts both
   * ways.
   */
  private static double held(double entered, double now) {
    double factor = Math.min(1, entered) * now / entered;
    return Double.isFinite(factor) ? Math.max(LEAST, Math.min(MOST, factor)) : 1;
  }

  /** The factors of one balance at one place. */
  private static final class Factors {
    private final Limits limits;
    private final Axles axles;
    private double turning = 1;
    private double braking = 1;
    private double driving = 1;

    Factors(Limits limits, Axles axles) {
      this.limits = limits;
      this.axles = axles;
    }

    void at(Entered level, double weight, double square, double across, double ground) {
      double load = weight + square * limits.downforce();
      double most = axles.sidewaysMost(weight, square, ground, near(turning));
      turning = most / limits.sidewaysMost(load, ground);
      double turn = Math.min(NEAREST * most, across);
      double share = turn / most;
      double left = Math.sqrt(1 - share * share);
      double brakes = limits.brakingGrip(load, ground);
      double ofBrakes = left * brakes * level.braking(share, ground);
      braking =
          axles.brakingMost(weight, square, turn, ground, brakes, near(braking) * ofBrakes)
              / ofBrakes;
      double drives = limits.drivingGrip(load, 1, ground);
      double ofDrive = limits.drivingGrip(load, left, ground) * level.driving(share, ground);
      driving =
          axles.drivingMost(weight, square, turn, ground, drives, near(driving) * ofDrive)
              / ofDrive;
    }

    /** The last station's factor is where the next one's is sought from. */
    private static double near(double factor) {
      return Double.isFinite(factor) ? Math.max(LEAST, Math.min(MOST, factor)) : 1;
    }
  }

  /**
   * What two axles leave of the ellipse on the level at walking speed, by the share across and the
   * grip of the ground. The grip that was entered is that of the whole vehicle there, the ellipse
   * with it: what counts is what speed, air, slopes and another balance change of it.
   */
  private static final class Entered {
    private static final int NODES = 20;
    private static final double GROUND = 0.1;
    private final Axles axles;
    private final double[][] braking = new double[25][];
    private final double[][] driving = new double[25][];

    Entered(Axles axles) {
      this.axles = axles;
    }

    /** By the share across at so many tenths of the ground's grip. */
    private void fill(int tenths) {
      if (braking[tenths] != null) {
        return;
      }
      Limits limits = axles.limits();
      double ground = GROUND * tenths;
      double most = axles.sidewaysMost(Units.G, 0, ground);
      double[] brakes = new double[NODES + 1];
      double[] drives = new double[NODES + 1];
      for (int k = 0; k <= NODES; k++) {
        double share = NEAREST * k / NODES;
        double left = Math.sqrt(1 - share * share);
        brakes[k] =
            axles.brakingMost(Units.G, 0, share * most, ground)
                / (left * limits.brakingGrip(Units.G, ground));
        drives[k] =
            axles.drivingMost(Units.G, 0, share * most, ground)
                / limits.drivingGrip(Units.G, left, ground);
      }
      braking[tenths] = brakes;
      driving[tenths] = drives;
    }

    double braking(double share, double ground) {
      return at(braking, share, ground);
    }

    double driving(double share, double ground) {
      return at(driving, share, ground);
    }

    private double at(double[][] values, double share, double ground) {
      double y = Math.max(1, Math.min(values.length - 2, ground / GROUND));
      int g = (int) y;
      fill(g);
      fill(g + 1);
      return at(values[g], share) + (at(values[g + 1], share) - at(values[g], share)) * (y - g);
    }

    private static double at(double[] values, double share) {
      double x = share / NEAREST * NODES;
      int k = Math.min(NODES - 1, (int) x);
      return values[k] + (values[k + 1] - values[k]) * (x - k);
    }
  }
}
