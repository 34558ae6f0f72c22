package marvek.core.vehicle;

/**
 * What the engine pushes with at the wheels, by speed and gear: the same numbers as {@link
 * Vehicle#wheelForce}, laid out for whoever asks a million times.
 */
public final class WheelForce {
  private static final int CELLS = 128;

  private final double[] revs;
  private final double[] torque;
  // Engine turns per wheel turn, by gear from 0.
  private final double[] overall;
  private final double radius;
  private final double efficiency;
  private final double limitRevs;
  // The first point of the curve that is not before each of so many even steps along it.
  private final int[] first = new int[CELLS + 1];
  private final double perRev;

  /** Of a vehicle's engine and gearbox. */
  public WheelForce(Vehicle vehicle) {
    Vehicle.Gearbox box = vehicle.gearbox();
    revs = vehicle.engine().curve().stream().mapToDouble(Vehicle.TorquePoint::revs).toArray();
    torque = vehicle.engine().curve().stream().mapToDouble(Vehicle.TorquePoint::torque).toArray();
    overall = box.ratios().stream().mapToDouble(r -> r * box.finalDrive()).toArray();
    radius = box.rollingRadius();
    efficiency = box.efficiency();
    limitRevs = vehicle.engine().limitRevs();
    int last = revs.length - 1;
    perRev = CELLS / (revs[last] - revs[0]);
    int i = 1;
    for (int c = 0; c <= CELLS; c++) {
      while (i < last && revs[i] < revs[0] + c / perRev) {
        i++;
      }
      first[c] = Math.min(i, last);
    }
  }

  /** Engine revs per minute at a speed in m/s in a gear (1 is the lowest). */
  public double revs(double speed, int gear) {
    return speed / radius * overall[gear - 1] * 30 / Math.PI;
  }

  /** Whether the engine is held by its limiter at a speed in m/s in a gear. */
  public boolean limited(double speed, int gear) {
    return revs(speed, gear) > limitRevs;
  }

  /** Force in N at full throttle at a speed in m/s in a gear; nothing past the limiter. */
  public double at(double speed, int gear) {
    double turns = revs(speed, gear);
    return turns > limitRevs ? 0 : torque(turns) * overall[gear - 1] * efficiency / radius;
  }

  private double torque(double turns) {
    int last = revs.length - 1;
    if (turns <= revs[0]) {
      return torque[0];
    }
    if (turns > revs[last]) {
      return torque[last];
    }
    int i = first[(int) ((turns - revs[0]) * perRev)];
    while (revs[i] < turns) {
      i++;
    }
    while (i > 1 && revs[i - 1] >= turns) {
      i--;
    }
    return torque[i - 1]
        + (torque[i] - torque[i - 1]) * (turns - revs[i - 1]) / (revs[i] - revs[i - 1]);
  }
}
