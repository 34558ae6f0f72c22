package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import marvek.core.axle.Axles;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Span;
import marvek.core.day.Paced;
import marvek.core.lap.Driving;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.vehicle.VehicleKind;

/**
 * What a lap rubs off each tyre: force times slip times way, W = Σ F·σ·Δs, with the slip of a brush
 * model (Pacejka, "Tire and Vehicle Dynamics", chapter 3). Wear goes with it (Archard 1953, from
 * memory). What a tyre stands is not known, so that only shares are told.
 *
 * @param perLap J per kg of the vehicle, all wheels
 * @param wheels share of the lap's work by wheel: front left, front right, rear left, rear right;
 *     of a motorcycle front and rear
 * @param most the wheel that does most
 * @param corners in driving order
 */
public record TyreWork(double perLap, List<Double> wheels, int most, List<InCorner> corners) {
  /**
   * Share of the grip that easing leaves unused in a corner; sparing costs 0.05 to 0.1 s a corner
   * (common practice, no source).
   */
  public static final double EASED = 0.03;

  // Share by which an axle must work more than the other for the balance to go with it.
  private static final double UNEVEN = 0.06;

  public TyreWork {
    wheels = List.copyOf(wheels);
    corners = List.copyOf(corners);
  }

  /**
   * A corner, from the exit of the one before to its own.
   *
   * @param corner id
   * @param share of the work that the most worn tyre does in a lap
   * @param saved share of that tyre's work in a lap that easing in this corner saves
   * @param seconds that easing costs in a lap
   */
  public record InCorner(String corner, double share, double saved, double seconds) {
    /** Seconds that sparing a hundredth of the tyre's work costs; very large where nothing is. */
    public double price() {
      return saved <= 1e-4 ? Double.MAX_VALUE : Math.max(0, seconds) / (100 * saved);
    }
  }

  /** The corners where sparing the most worn tyre costs least, cheapest first. */
  public List<InCorner> cheapest() {
    return corners.stream()
        .filter(c -> c.price() < Double.MAX_VALUE)
        .sorted(Comparator.comparingDouble(InCorner::price))
        .toList();
  }

  /** Share of the work that the left side does. */
  public double left() {
    return wheels.size() < 4 ? 0.5 : wheels.get(0) + wheels.get(2);
  }

  /** Share of the work that the front does. */
  public double front() {
    return wheels.size() < 4 ? wheels.get(0) : wheels.get(0) + wheels.get(1);
  }

  /** Which tyre works most, and how much of all sliding is its. */
  public Said worst() {
    Said tyre =
        wheels.size() < 4
            ? most == 0 ? Said.of("wear.front_one") : Said.of("wear.rear_one")
            : switch (most) {
              case 0 -> Said.of("wear.front_left");
              case 1 -> Said.of("wear.front_right");
              case 2 -> Said.of("wear.rear_left");
              default -> Said.of("wear.rear_right");
            };
    return Said.of("wear.most", tyre.beginning(), Value.percent(wheels.get(most)));
  }

  /** How the balance changes as they wear; nothing where front and rear wear about alike. */
  public Optional<Said> wears() {
    double more = front() - 0.5;
    return Math.abs(more) < UNEVEN
        ? Optional.empty()
        : Optional.of(more > 0 ? Said.of("wear.pushes") : Said.of("wear.turns"));
  }

  /**
   * What a lap rubs off.
   *
   * @param each J per kg by wheel and station
   * @param wheels J per kg by wheel
   * @param most the wheel that does most
   */
  private record Rubbed(double[][] each, double[] wheels, int most) {
    static Rubbed of(ComputedLap then) {
      double[][] along = along(then.path(), then.limits(), then.lap());
      double[] wheels = new double[along.length];
      int most = 0;
      for (int w = 0; w < along.length; w++) {
        wheels[w] = DoubleStream.of(along[w]).sum();
        most = wheels[w] > wheels[most] ? w : most;
      }
      return new Rubbed(along, wheels, most);
    }

    double all() {
      return DoubleStream.of(wheels).sum();
    }

    Eased eased(ComputedLap then, List<String> corners) {
      if (corners.isEmpty()) {
        return new Eased(0, 0);
      }
      LapTrace lap = Paced.eased(then, corners, EASED);
      // The road still holds what the driver leaves unused.
      double left = DoubleStream.of(along(then.path(), then.limits(), lap)[most]).sum();
      return new Eased(
          Math.max(0, (wheels[most] - left) / wheels[most]), lap.lapTime() - then.lap().lapTime());
    }
  }

  /** Of a lap, and what easing in each of its corners would spare. */
  public static TyreWork of(ComputedLap then) {
    Rubbed rubbed = Rubbed.of(then);
    double[] worst = rubbed.each[rubbed.most];
    List<InCorner> corners = new ArrayList<>();
    for (int c = 0; c < then.corners().size(); c++) {
      double share =
          reach(then, c).indices().mapToDouble(i -> worst[i]).sum() / rubbed.wheels[rubbed.most];
      String id = then.corners().get(c).id();
      Eased eased = rubbed.eased(then, List.of(id));
      corners.add(new InCorner(id, share, eased.saved(), eased.seconds()));
    }
    double all = rubbed.all();
    return new TyreWork(
        all,
        DoubleStream.of(rubbed.wheels).map(w -> w / all).boxed().toList(),
        rubbed.most,
        corners);
  }

  /** J per kg that all tyres rub off in a lap. */
  public static double perLap(ComputedLap then) {
    return Rubbed.of(then).all();
  }

  /**
   * Laps of the reference that wear as much as one lap of a day.
   *
   * @param base lap of the reference
   * @param then lap of the day
   * @param spared corners in which the driver eases, by their ids
   */
  public static double rate(ComputedLap base, ComputedLap then, List<String> spared) {
    return perLap(then) / perLap(base) * (1 - eased(then, spared).saved());
  }

  private static Span reach(ComputedLap then, int c) {
    List<Corner> corners = then.corners();
    Corner before = corners.get((c + corners.size() - 1) % corners.size());
    int from = then.road().index(before.exit());
    return corners.size() == 1
        ? then.road().loop().from(from, then.road().size())
        : then.road().loop().between(from, then.road().index(corners.get(c).exit()));
  }

  /**
   * What easing in some corners together does to a lap.
   *
   * @param saved share of the most worn tyre's work in a lap
   * @param seconds that it costs in a lap
   */
  public record Eased(double saved, double seconds) {}

  /** Easing in some corners, by their ids; unknown ones are passed over. */
  public static Eased eased(ComputedLap then, List<String> corners) {
    return Rubbed.of(then).eased(then, corners);
  }

  /** What each wheel rubs off at each station, J per kg. */
  static double[][] along(Path path, Limits limits, LapTrace lap) {
    boolean motorcycle = limits.vehicle().kind() == VehicleKind.MOTORCYCLE;
    // Whoever uses less than all of the grip slips less.
    Axles axles = new Axles(limits.vehicle(), limits.conditions().withDriving(Driving.FULL));
    int n = path.size();
    double[][] out = new double[motorcycle ? 2 : 4][n];
    for (int i = 0; i < n; i++) {
      double v = lap.speed()[i];
      double load = limits.load(path, i, v * v);
      double weight = Math.max(0.1, load - v * v * limits.downforce());
      double turn = limits.sideways(path, i, v * v);
      double force = lap.along()[i] + limits.resistance(path, i, v, load);
      double engine = force < 0 ? limits.vehicle().engineHolds(Math.max(1, lap.gear()[i])) : 0;
      double ground = path.grip()[i];
      Axles.Use use = axles.use(weight, v * v, turn, force, engine, 0, ground);
      double[] rubbed = axles.sliding(use, weight, v * v, turn, force, ground);
      double way = path.step()[i];
      // Turning left the inner wheels are the left ones.
      boolean left = path.curvature()[i] >= 0;
      if (motorcycle) {
        out[0][i] = way * (rubbed[0] + rubbed[1]);
        out[1][i] = way * (rubbed[2] + rubbed[3]);
      } else {
        for (int w = 0; w < 4; w++) {
          out[left ? w : w ^ 1][i] = way * rubbed[w];
        }
      }
    }
    return out;
  }
}
