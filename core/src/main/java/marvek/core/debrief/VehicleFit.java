package marvek.core.debrief;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Conditions;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.reference.Desk;
import marvek.core.vehicle.Vehicle;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;

/**
 * A vehicle's grip, power and drag told from laps.
 *
 * @param vehicle the vehicle with what was found
 * @param acrossFactor what its grip across is multiplied with
 * @param alongFactor what its braking grip is multiplied with
 * @param powerFactor what its torque is multiplied with
 * @param dragFactor what its drag area is multiplied with
 * @param measured best lap of those used, s
 * @param before computed lap with the vehicle as it was, s
 * @param after computed lap with what was found, s
 * @param words what was found and from how much
 */
public record VehicleFit(
    Vehicle vehicle,
    double acrossFactor,
    double alongFactor,
    double powerFactor,
    double dragFactor,
    double measured,
    double before,
    double after,
    List<String> words) {
  private static final double TOP = 0.5;
  private static final double FULL = 0.97;

  public VehicleFit {
    words = List.copyOf(words);
  }

  /**
   * A lap with its channels on the stations of the road's grid.
   *
   * @param lapTime s
   * @param speed m/s at each station
   * @param along m/s²
   * @param across m/s², unsigned use; empty where not known
   * @param throttle share; empty where not known
   * @param offset m to the left; empty where not known
   */
  public record Lap(
      double lapTime,
      double[] speed,
      double[] along,
      double[] across,
      double[] throttle,
      double[] offset) {}

  /**
   * Fits a vehicle. Grip: in each corner the hardest use over the laps, and of these the median;
   * power and drag: least squares of the acceleration at full throttle on the straights.
   *
   * @param desk with the vehicle as it is
   * @param laps that count, at least one
   */
  public static VehicleFit of(Desk desk, List<Lap> laps) {
    Vehicle v = desk.vehicle();
    List<String> words = new ArrayList<>();
    double across = across(desk, laps, words);
    double along = along(desk, laps, words);
    double[] drive = drive(desk, laps, words);
    double measured = laps.stream().mapToDouble(Lap::lapTime).min().orElse(Double.NaN);
    Vehicle fitted = with(v, across, along, drive[0], drive[1]);
    double after = LapSimulator.lap(desk.path(), fitted, desk.conditions()).lapTime();
    return new VehicleFit(
        fitted, across, along, drive[0], drive[1], measured, desk.lap().lapTime(), after, words);
  }

  /** What was found, on the numbers of a vehicle that may have another set-up sheet on it. */
  public Vehicle on(Vehicle other) {
    return with(other, acrossFactor, alongFactor, powerFactor, dragFactor);
  }

  private static Vehicle with(Vehicle v, double across, double along, double power, double drag) {
    return new Vehicle(
        v.kind(),
        v.mass(),
        v.width(),
        v.wheelbase(),
        v.cogHeight(),
        v.cogToFront(),
        new Vehicle.Engine(
            v.engine().curve().stream()
                .map(p -> new Vehicle.TorquePoint(p.revs(), p.torque() * power))
                .toList(),
            v.engine().shiftRevs(),
            v.engine().limitRevs()),
        v.gearbox(),
        new Vehicle.Tyres(
            v.tyres().muX() * along,
            v.tyres().muY() * across,
            v.tyres().loadSensitivity(),
            v.tyres().rolling()),
        new Vehicle.Aero(v.aero().cdA() * drag, v.aero().clA()),
        v.brakes(),
        v.leanLimit(),
        v.boost(),
        v.floor(),
        v.fuel());
  }

  private static Path pathOf(Desk desk, Lap lap) {
    return lap.offset().length == desk.road().size()
        ? Path.over(desk.road(), lap.offset(), desk.ground())
        : desk.path();
  }

  private static double across(Desk desk, List<Lap> laps, List<String> words) {
    Centreline road = desk.road();
    Limits limits = desk.limits();
    List<Double> most = new ArrayList<>();
    for (var corner : desk.corners()) {
      List<Double> uses = new ArrayList<>();
      int from = road.index(corner.entry());
      int count = (int) (road.ahead(corner.entry(), corner.exit()) / road.step());
      for (Lap lap : laps) {
        double[] u = new double[Math.max(0, count)];
        for (int k = 0; k < count; k++) {
          int i = Math.floorMod(from + k, road.size());
          double v = lap.speed()[i];
          double load = limits.load(desk.path(), i, v * v);
          double need =
              Math.abs(
                  lap.across().length > 0 ? lap.across()[i] : v * v * desk.path().curvature()[i]);
          u[k] = need / Math.max(0.1, limits.sidewaysMost(load, desk.path().grip()[i]));
        }
        // One noisy metre is not the corner's grip; a stretch of it is.
        if (u.length > 8) {
          uses.add(Robust.quantile(u, 0.9));
        }
      }
      if (!uses.isEmpty()) {
        most.add(Robust.quantile(uses.stream().mapToDouble(Double::doubleValue).toArray(), 0.75));
      }
    }
    double[] sorted = most.stream().mapToDouble(Double::doubleValue).sorted().toArray();
    if (sorted.length < 3) {
      words.add("Too few corners to tell the grip across; left as it is.");
      return 1;
    }
    double[] upper =
        java.util.Arrays.copyOfRange(sorted, (int) (TOP * sorted.length), sorted.length);
    // The computed lap itself, read the same way, says what full use looks like.
    double own = Robust.median(upper);
    double full = fullUse(desk);
    double factor = bounded(own / full);
    words.add(
        String.format(
            Locale.ROOT,
            "Grip across: %.0f %% of the computed, from the %d corners that ask most.",
            factor * 100,
            upper.length));
    return factor;
  }

  private static double fullUse(Desk desk) {
    Centreline road = desk.road();
    List<Double> most = new ArrayList<>();
    for (var corner : desk.corners()) {
      int from = road.index(corner.entry());
      int count = (int) (road.ahead(corner.entry(), corner.exit()) / road.step());
      double[] u = new double[Math.max(0, count)];
      for (int k = 0; k < count; k++) {
        int i = Math.floorMod(from + k, road.size());
        double v = desk.lap().speed()[i];
        double load = desk.limits().load(desk.path(), i, v * v);
        u[k] =
            Math.abs(v * v * desk.path().curvature()[i])
                / Math.max(0.1, desk.limits().sidewaysMost(load, desk.path().grip()[i]));
      }
      if (u.length > 8) {
        most.add(Robust.quantile(u, 0.9));
      }
    }
    double[] sorted = most.stream().mapToDouble(Double::doubleValue).sorted().toArray();
    return Robust.median(
        java.util.Arrays.copyOfRange(sorted, (int) (TOP * sorted.length), sorted.length));
  }

  private static double along(Desk desk, List<Lap> laps, List<String> words) {
    Limits limits = desk.limits();
    List<Double> uses = new ArrayList<>();
    for (Lap lap : laps) {
      Path path = pathOf(desk, lap);
      for (int i = 0; i < desk.road().size(); i++) {
        double v = lap.speed()[i];
        double load = limits.load(path, i, v * v);
        double wheels = -lap.along()[i] - limits.resistance(path, i, v, load);
        double most = limits.brakingMost(load, 1, path.grip()[i]);
        boolean straight = Math.abs(path.curvature()[i]) * v * v < 0.2 * 9.81;
        if (straight && wheels > 0.5 * most) {
          uses.add(wheels / most);
        }
      }
    }
    if (uses.size() < 60) {
      words.add(
          "Too little hard braking in a straight line to tell the grip along; left as it is.");
      return 1;
    }
    double factor =
        bounded(Robust.quantile(uses.stream().mapToDouble(Double::doubleValue).toArray(), 0.85));
    words.add(
        String.format(
            Locale.ROOT,
            "Grip in braking: %.0f %% of the computed, from %d m of hard braking.",
            factor * 100,
            (int) (uses.size() * desk.road().step())));
    return factor;
  }

  private static double bounded(double factor) {
    return Math.max(0.6, Math.min(1.4, factor));
  }

  /** Factors on torque and drag. */
  private static double[] drive(Desk desk, List<Lap> laps, List<String> words) {
    Limits limits = desk.limits();
    Conditions day = desk.conditions();
    double air = 0.5 * day.airDensity() / limits.mass() * desk.vehicle().aero().cdA() * day.drag();
    List<double[]> rows = new ArrayList<>();
    List<Double> right = new ArrayList<>();
    double slow = Double.MAX_VALUE;
    double fast = 0;
    for (Lap lap : laps) {
      if (lap.throttle().length == 0) {
        continue;
      }
      Path path = pathOf(desk, lap);
      int held = 0;
      for (int i = 0; i < desk.road().size(); i++) {
        double v = lap.speed()[i];
        held = lap.throttle()[i] >= FULL ? held + 1 : 0;
        boolean straight = Math.abs(path.curvature()[i]) * v * v < 2;
        double load = limits.load(path, i, v * v);
        double drive = limits.engineDrive(v);
        boolean pulls = drive < 0.9 * limits.traction(load, 1, path.grip()[i]);
        if (held > 25 && straight && pulls && v > 15) {
          double other = limits.resistance(path, i, v, load) - air * v * v;
          rows.add(new double[] {drive, -air * v * v});
          right.add(lap.along()[i] + other);
          slow = Math.min(slow, v);
          fast = Math.max(fast, v);
        }
      }
    }
    if (rows.size() < 100 || fast - slow < 8) {
      words.add(
          "Too little full throttle on the straights to tell power and drag; left as they are.");
      return new double[] {1, 1};
    }
    double[] solution =
        new QRDecomposition(new Array2DRowRealMatrix(rows.toArray(double[][]::new)))
            .getSolver()
            .solve(new ArrayRealVector(right.stream().mapToDouble(Double::doubleValue).toArray()))
            .toArray();
    double power = bounded(solution[0]);
    double drag = bounded(solution[1]);
    words.add(
        String.format(
            Locale.ROOT,
            "Power %.0f %% and drag %.0f %% of the vehicle's numbers, from %d m at full throttle.",
            power * 100,
            drag * 100,
            (int) (rows.size() * desk.road().step())));
    return new double[] {power, drag};
  }
}
