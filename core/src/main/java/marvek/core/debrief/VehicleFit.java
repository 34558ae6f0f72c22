package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.DoubleSummaryStatistics;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.lap.Conditions;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.lap.VehicleFigures;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.LapGrid;
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
 * @param reaches what the vehicle gives at three speeds and what the laps did there
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
    List<DrivenReach> reaches,
    List<Said> words) {
  // Of the laps, those that go well.
  private static final double GOOD = 0.75;
  // Steps that are taken together.
  private static final int LONG = 25;
  // Steps of hard braking that tell its grip, and which of them.
  static final int ENOUGH = 60;
  static final double HARD = 0.85;
  private static final double FULL = 0.97;
  private static final double FAR = 3;
  private static final int ROUNDS = 6;
  // Seconds over which an acceleration told from speeds is smoothed to each side, and after which
  // the pull has come to full.
  private static final double SMOOTHED = 0.28;
  private static final double SETTLED = 0.6;
  // Shares of the way that is driven slower than the speeds drawn, the speeds taken together,
  // stations averaged to each side, and points of one drawing.
  private static final double[] SPEEDS = {0.12, 0.5, 0.85};
  private static final double NEARLY = 0.08;
  private static final int AROUND = 3;
  private static final int MOST_POINTS = 160;

  public VehicleFit {
    words = List.copyOf(words);
    reaches = List.copyOf(reaches);
  }

  /**
   * What a vehicle gives at about one speed, and what laps did there.
   *
   * @param before the vehicle as it was
   * @param after with what was found
   * @param along m/s² of each measured place, positive forwards
   * @param across m/s² of each, to either side
   */
  public record DrivenReach(
      VehicleFigures.Envelope before,
      VehicleFigures.Envelope after,
      double[] along,
      double[] across) {}

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
      double[] offset) {
    /**
     * A lap as it is kept, on another number of stations.
     *
     * @param n stations of the road's grid
     */
    public static Lap of(double lapTime, LapGrid grid, int n) {
      boolean placed = !Double.isNaN(grid.offset()[0]);
      double[] throttle = grid.channels().get(Channel.THROTTLE);
      double[] along = grid.channels().get(Channel.ALONG);
      double[] across = grid.channels().get(Channel.ACROSS);
      return new Lap(
          lapTime,
          stretched(grid.speed(), n),
          along == null ? new double[n] : stretched(along, n),
          across == null ? new double[0] : stretched(across, n),
          throttle == null ? new double[0] : stretched(throttle, n),
          placed ? stretched(grid.offset(), n) : new double[0]);
    }

    /** Even samples on another number of stations of the same closed lap. */
    private static double[] stretched(double[] column, int n) {
      double[] out = new double[n];
      for (int i = 0; i < n; i++) {
        double at = i * (double) column.length / n;
        int k = (int) at;
        double b = column[(k + 1) % column.length];
        out[i] = column[k] + (at - k) * (b - column[k]);
      }
      return out;
    }
  }

  /**
   * Fits a vehicle. Grip across: in each corner the use of the better laps against that of the
   * computed lap, and of these the median, so that a mistake in some corners does not count; it is
   * the grip that is used, and less than there is for who keeps a margin. Power and drag: robust
   * least squares of the acceleration at full throttle on the straights.
   *
   * @param computed with the vehicle as it is
   * @param laps that count, at least one
   */
  public static VehicleFit of(ComputedLap computed, List<Lap> laps) {
    Vehicle v = computed.vehicle();
    List<Said> words = new ArrayList<>();
    double across = across(computed, laps, words);
    double along = along(computed, laps, words);
    double[] drive = drive(computed, laps, words);
    double measured = laps.stream().mapToDouble(Lap::lapTime).min().orElse(Double.NaN);
    Vehicle fitted = with(v, across, along, drive[0], drive[1]);
    double after = LapSimulator.lap(computed.path(), fitted, computed.conditions()).lapTime();
    double before = computed.lap().lapTime();
    if (Math.abs(after - measured) >= Math.abs(before - measured)) {
      words.add(Said.of("fit.no_nearer"));
    }
    return new VehicleFit(
        fitted,
        across,
        along,
        drive[0],
        drive[1],
        measured,
        before,
        after,
        reaches(computed, fitted, laps),
        words);
  }

  /** At three speeds that the laps have: slow, middling and quick. */
  private static List<DrivenReach> reaches(ComputedLap computed, Vehicle fitted, List<Lap> laps) {
    double[] speeds =
        laps.stream().flatMapToDouble(l -> Arrays.stream(l.speed())).sorted().toArray();
    List<DrivenReach> out = new ArrayList<>();
    for (double part : SPEEDS) {
      double speed = Math.round(speeds[(int) (part * (speeds.length - 1))]);
      List<double[]> points = new ArrayList<>();
      for (Lap lap : laps) {
        for (int i = AROUND; i < lap.speed().length - AROUND; i += 2 * AROUND + 1) {
          if (Math.abs(lap.speed()[i] / speed - 1) < NEARLY) {
            points.add(
                new double[] {
                  Arrays.stream(lap.along(), i - AROUND, i + AROUND + 1).average().orElse(0),
                  meanAcross(computed, lap, i)
                });
          }
        }
      }
      int stride = 1 + points.size() / MOST_POINTS;
      int count = points.size() / stride;
      double[] along = new double[count];
      double[] across = new double[count];
      for (int k = 0; k < count; k++) {
        along[k] = Math.round(points.get(k * stride)[0] * 100) / 100.0;
        across[k] = Math.round(points.get(k * stride)[1] * 100) / 100.0;
      }
      out.add(
          new DrivenReach(
              VehicleFigures.envelope(computed.vehicle(), computed.conditions(), speed),
              VehicleFigures.envelope(fitted, computed.conditions(), speed),
              along,
              across));
    }
    return out;
  }

  private static double meanAcross(ComputedLap computed, Lap lap, int i) {
    double sum = 0;
    for (int k = i - AROUND; k <= i + AROUND; k++) {
      sum += across(computed, lap, k);
    }
    return sum / (2 * AROUND + 1);
  }

  /** What was found, on the numbers of a vehicle that may have another set-up sheet on it. */
  public Vehicle on(Vehicle other) {
    return with(other, acrossFactor, alongFactor, powerFactor, dragFactor);
  }

  private static Vehicle with(Vehicle v, double across, double along, double power, double drag) {
    return v.copy()
        .engine(
            new Vehicle.Engine(
                v.engine().curve().stream()
                    .map(p -> new Vehicle.TorquePoint(p.revs(), p.torque() * power))
                    .toList(),
                v.engine().shiftRevs(),
                v.engine().limitRevs(),
                v.engine().cylinders(),
                v.engine().strokes()))
        .tyres(
            new Vehicle.Tyres(
                v.tyres().muX() * along,
                v.tyres().muY() * across,
                v.tyres().loadSensitivity(),
                v.tyres().rolling()))
        .aero(new Vehicle.Aero(v.aero().cdA() * drag, v.aero().clA()))
        .build();
  }

  /**
   * m/s² across at a station, as measured, or told from the computed line: the bend of measured
   * places is mostly their noise.
   */
  private static double across(ComputedLap computed, Lap lap, int i) {
    double v = lap.speed()[i];
    return Math.abs(
        lap.across().length > 0 ? lap.across()[i] : computed.path().curvature()[i] * v * v);
  }

  /**
   * In each corner what the laps use against what the computed lap does, and of these the middle.
   */
  private static double across(ComputedLap computed, List<Lap> laps, List<Said> words) {
    List<Double> shares = new ArrayList<>();
    for (Corner corner : computed.corners()) {
      double full = GripUse.in(computed, corner, computed.lap().speed(), new double[0]);
      double[] uses =
          laps.stream()
              .mapToDouble(l -> GripUse.in(computed, corner, l.speed(), l.across()))
              .toArray();
      if (full > GripUse.ASKS) {
        shares.add(Robust.quantile(uses, GOOD) / full);
      }
    }
    if (shares.size() < 3) {
      words.add(Said.of("fit.across_few"));
      return 1;
    }
    double factor =
        bounded(Robust.median(shares.stream().mapToDouble(Double::doubleValue).toArray()));
    words.add(Said.of("fit.across", Value.percent(factor), Value.count(shares.size())));
    return factor;
  }

  private static double along(ComputedLap computed, List<Lap> laps, List<Said> words) {
    double[] uses = brakingUses(computed, laps);
    if (uses.length < ENOUGH) {
      words.add(Said.of("fit.along_few"));
      return 1;
    }
    double factor = bounded(Robust.quantile(uses, HARD));
    words.add(
        Said.of(
            "fit.along",
            Value.percent(factor),
            Value.length((int) (uses.length * computed.road().step()))));
    return factor;
  }

  /** Shares of the most braking that laps keep up on straight pieces of road. */
  static double[] brakingUses(ComputedLap computed, List<Lap> laps) {
    Limits limits = computed.limits();
    List<Double> uses = new ArrayList<>();
    Path path = computed.path();
    for (Lap lap : laps) {
      List<Double> run = new ArrayList<>();
      for (int i = 0; i < computed.road().size(); i++) {
        double v = lap.speed()[i];
        double load = limits.load(path, i, v * v);
        double wheels = -lap.along()[i] - limits.resistance(path, i, v, load);
        double most = limits.brakingMost(load, 1, path.braking(i));
        boolean straight = across(computed, lap, i) < 0.2 * 9.81;
        if (straight && wheels > 0.5 * most) {
          run.add(wheels / most);
        } else {
          run.clear();
        }
        if (run.size() >= LONG) {
          // As over one noisy metre no vehicle brakes.
          uses.add(
              run.subList(run.size() - LONG, run.size()).stream()
                  .mapToDouble(Double::doubleValue)
                  .average()
                  .orElseThrow());
        }
      }
    }
    return uses.stream().mapToDouble(Double::doubleValue).toArray();
  }

  private static double bounded(double factor) {
    return Math.max(0.6, Math.min(1.4, factor));
  }

  /**
   * A station at full throttle.
   *
   * @param time s, by which those of one run stand in order
   * @param drive m/s² of the engine
   * @param air m/s² of the air's resistance
   * @param need m/s² that drive less air has to make
   */
  private record Pull(double time, double speed, double drive, double air, double need) {}

  /** Factors on torque and drag. */
  private static double[] drive(ComputedLap computed, List<Lap> laps, List<Said> words) {
    List<Pull> pulls = new ArrayList<>();
    double clock = 0;
    for (Lap lap : laps) {
      clock = pulls(computed, lap, clock + 2 * SMOOTHED, pulls);
    }
    DoubleSummaryStatistics speeds = pulls.stream().mapToDouble(Pull::speed).summaryStatistics();
    if (pulls.size() < 100 || speeds.getMax() - speeds.getMin() < 8) {
      words.add(Said.of("fit.drive_few"));
      return new double[] {1, 1};
    }
    double[] solution = robust(pulls);
    double power = bounded(solution[0]);
    double drag = bounded(solution[1]);
    words.add(
        Said.of(
            "fit.drive",
            Value.percent(power),
            Value.percent(drag),
            Value.length((int) (pulls.size() * computed.road().step()))));
    return new double[] {power, drag};
  }

  /** Adds the stations of a lap where the throttle was full for long enough; gives the time. */
  private static double pulls(ComputedLap computed, Lap lap, double begin, List<Pull> out) {
    Limits limits = computed.limits();
    Conditions day = computed.conditions();
    double air =
        0.5 * day.airDensity() / limits.mass() * computed.vehicle().aero().cdA() * day.drag();
    double clock = begin;
    if (lap.throttle().length == 0) {
      return clock;
    }
    Path path = computed.path();
    double full = clock;
    for (int i = 0; i < computed.road().size(); i++) {
      double v = lap.speed()[i];
      clock += path.step()[i] / Math.max(1, v);
      if (lap.throttle()[i] < FULL) {
        // The acceleration, smoothed, has begun to follow the foot before it moved.
        while (!out.isEmpty() && clock - out.get(out.size() - 1).time() < SMOOTHED) {
          out.remove(out.size() - 1);
        }
        full = clock;
        continue;
      }
      boolean straight = across(computed, lap, i) < 2;
      double load = limits.load(path, i, v * v);
      double drive = limits.engineDrive(v);
      boolean pulls = drive < 0.9 * limits.traction(load, 1, path.driving(i));
      if (clock - full > SETTLED && straight && pulls && v > 15) {
        double other = limits.resistance(path, i, v, load) - air * v * v;
        out.add(new Pull(clock, v, drive, air * v * v, lap.along()[i] + other));
      }
    }
    return clock;
  }

  /**
   * Least squares without what lies far off, a shift, a tow, a bump, and without what the smoothing
   * mixes with it.
   */
  private static double[] robust(List<Pull> all) {
    double[] found = solved(all);
    for (int round = 0; round < ROUNDS; round++) {
      double[] now = found;
      double[] miss =
          all.stream().mapToDouble(p -> p.drive() * now[0] - p.air() * now[1] - p.need()).toArray();
      double middle = Robust.median(miss);
      double[] apart = Arrays.stream(miss).map(m -> Math.abs(m - middle)).toArray();
      double far = Math.max(0.02, FAR * Robust.median(apart));
      List<Pull> kept = new ArrayList<>();
      double spoilt = Double.NEGATIVE_INFINITY;
      for (int i = 0; i < apart.length; i++) {
        double time = all.get(i).time();
        if (apart[i] <= far) {
          if (time - spoilt > SMOOTHED) {
            kept.add(all.get(i));
          }
          continue;
        }
        spoilt = time;
        while (!kept.isEmpty() && time - kept.get(kept.size() - 1).time() < SMOOTHED) {
          kept.remove(kept.size() - 1);
        }
      }
      found = kept.size() < 100 ? found : solved(kept);
    }
    return found;
  }

  private static double[] solved(List<Pull> pulls) {
    double[][] a =
        pulls.stream().map(p -> new double[] {p.drive(), -p.air()}).toArray(double[][]::new);
    double[] b = pulls.stream().mapToDouble(Pull::need).toArray();
    return new QRDecomposition(new Array2DRowRealMatrix(a))
        .getSolver()
        .solve(new ArrayRealVector(b))
        .toArray();
  }
}
