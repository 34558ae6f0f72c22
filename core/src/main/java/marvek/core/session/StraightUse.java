package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Span;
import marvek.core.lap.Conditions;
import marvek.core.lap.ConditionsBuilder;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.Limits;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * What boost and a drag-reducing device are worth between the brakings of a lap. A joule is worth
 * most where it gains most time, dt/dE ≈ d/(m·v³), so that it is spent where the next one gains
 * most until all are alike; and it is spent from the exit on, in one go.
 *
 * @param budget J of boost that a lap may spend; 0 without boost
 * @param shares of the boost, in driving order
 * @param rounding seconds a lap that sharing it out in tenths costs
 * @param device what the device gives in each of its zones
 */
public record StraightUse(
    double budget, List<Share> shares, double rounding, List<DeviceGain> device) {
  /** Parts that a driver can bear in mind. */
  public static final int TENTHS = 10;

  private static final int FINE = 50;
  // Deceleration that there is anywhere, m/s².
  private static final double LEAST = 0.5;
  // Gains below this are none, s.
  private static final double NOTHING = 1e-4;

  public StraightUse {
    shares = List.copyOf(shares);
    device = List.copyOf(device);
  }

  /**
   * The boost from one braking to the next.
   *
   * @param after corner out of which it is used, by its id
   * @param part of the lap's boost by the best sharing out, 0 to 1
   * @param tenths the same as a person can bear it in mind
   * @param seconds that those gain against no boost there
   */
  public record Share(String after, double part, int tenths, double seconds) {}

  /**
   * A zone of the device.
   *
   * @param from station, m
   * @param to station, m
   * @param into corner that is braked for after it, by its id
   * @param faster m/s on arrival
   * @param seconds gained
   * @param metres by which braking comes sooner
   */
  public record DeviceGain(
      double from, double to, String into, double faster, double seconds, double metres) {}

  /**
   * Of a lap.
   *
   * @param zones where the device may be used
   */
  public static StraightUse of(ComputedLap then, List<SessionRules.DeviceZone> zones) {
    return new Straights(then).use(zones);
  }

  /** Time gained by energy where nothing resists: d/v − d/√(v² + 2E/m), s. */
  public static double gained(double mass, double energy, double metres, double speed) {
    return metres / speed - metres / Math.sqrt(speed * speed + 2 * energy / mass);
  }

  /** How a stretch is driven. */
  private record Run(double seconds, double arrival, int braked) {}

  /** The stretches of a lap from one slowest place to the next. */
  private static final class Straights {
    private final ComputedLap then;
    private final int n;
    private final List<Brakings.Braking> brakings = new ArrayList<>();
    private final List<Integer> corner = new ArrayList<>();
    private final Limits with;
    private final Limits without;

    Straights(ComputedLap then) {
      this.then = then;
      n = then.road().size();
      for (int c = 0; c < then.corners().size(); c++) {
        for (Brakings.Braking b : then.brakings().of(c)) {
          brakings.add(b);
          corner.add(c);
        }
      }
      with = then.limits().on(then.conditions(), Double.MAX_VALUE);
      without = then.limits().on(then.conditions(), 0);
    }

    StraightUse use(List<SessionRules.DeviceZone> zones) {
      List<DeviceGain> device = new ArrayList<>();
      Vehicle.Device has = then.vehicle().device();
      if (has != null && !brakings.isEmpty()) {
        zones.forEach(z -> device.add(gain(z, has)));
      }
      Vehicle.Boost boost = then.vehicle().boost();
      if (boost == null || brakings.isEmpty()) {
        return new StraightUse(0, List.of(), 0, device);
      }
      double budget = LapSimulator.budget(then.path(), then.lap(), then.limits());
      double[] best = sharedOut(budget, FINE);
      double[] tenths = sharedOut(budget, TENTHS);
      double lost = 0;
      List<Share> shares = new ArrayList<>();
      for (int b = 0; b < brakings.size(); b++) {
        double plain = run(b, 0, null, without).seconds;
        double rounded = run(b, tenths[b], null, without).seconds;
        lost += rounded - run(b, best[b], null, without).seconds;
        int parts = (int) Math.round(tenths[b] / budget * TENTHS);
        if (parts > 0 || best[b] > 0.5 * budget / TENTHS) {
          shares.add(
              new Share(
                  then.corners().get(corner.get(b)).id(),
                  best[b] / budget,
                  parts,
                  plain - rounded));
        }
      }
      shares.sort(
          Comparator.comparingDouble(s -> then.corners().get(then.indexOf(s.after())).apex()));
      return new StraightUse(budget, shares, Math.max(0, lost), device);
    }

    /** J by stretch, dealt out part by part to where the next one gains most. */
    private double[] sharedOut(double budget, int parts) {
      double quantum = budget / parts;
      double[] spent = new double[brakings.size()];
      double[] seconds = new double[spent.length];
      double[] next = new double[spent.length];
      for (int b = 0; b < spent.length; b++) {
        seconds[b] = run(b, 0, null, without).seconds;
        next[b] = run(b, quantum, null, without).seconds;
      }
      for (int k = 0; k < parts; k++) {
        int most = 0;
        for (int b = 1; b < spent.length; b++) {
          most = seconds[b] - next[b] > seconds[most] - next[most] ? b : most;
        }
        if (seconds[most] - next[most] < NOTHING / parts) {
          break;
        }
        spent[most] += quantum;
        seconds[most] = next[most];
        next[most] = run(most, spent[most] + quantum, null, without).seconds;
      }
      return spent;
    }

    private DeviceGain gain(SessionRules.DeviceZone zone, Vehicle.Device has) {
      int from = then.road().index(then.road().wrap(zone.from()));
      // The stretch that the zone begins in.
      int of = 0;
      for (int b = 1; b < brakings.size(); b++) {
        if (then.road().loop().ahead(brakings.get(b).slowest(), from)
            < then.road().loop().ahead(brakings.get(of).slowest(), from)) {
          of = b;
        }
      }
      Conditions day = then.conditions();
      Conditions open =
          ConditionsBuilder.builder(day)
              .drag(day.drag() * has.drag())
              .downforce(day.downforce() * has.downforce())
              .build();
      double boost = then.lap().boostBelow();
      Limits shut = then.limits().on(day, boost);
      Limits wide = then.limits().on(open, boost);
      Run before = run(of, 0, null, shut);
      Span span = then.road().loop().between(from, then.road().index(then.road().wrap(zone.to())));
      boolean[] in = new boolean[n];
      span.indices().forEach(i -> in[i] = true);
      Run after = run(of, 0, new Opened(in, wide), shut);
      int into = next(of);
      return new DeviceGain(
          zone.from(),
          zone.to(),
          then.corners().get(corner.get(into)).id(),
          after.arrival - before.arrival,
          before.seconds - after.seconds,
          Math.max(0, then.road().loop().apart(after.braked, before.braked)) * then.road().step());
    }

    private record Opened(boolean[] in, Limits wide) {}

    /** The braking after one, round the lap. */
    private int next(int b) {
      int best = b;
      int least = Integer.MAX_VALUE;
      for (int o = 0; o < brakings.size(); o++) {
        int ahead = then.road().loop().ahead(brakings.get(b).slowest(), brakings.get(o).slowest());
        if (o != b && ahead < least) {
          least = ahead;
          best = o;
        }
      }
      return best;
    }

    /**
     * From the slowest place of a braking to that of the next, with so much boost from the exit on.
     */
    private Run run(int b, double energy, @Nullable Opened opened, Limits limits) {
      int from = brakings.get(b).slowest();
      int to = brakings.get(next(b)).slowest();
      int count = then.road().loop().ahead(from, to);
      count = count == 0 ? n : count;
      double[] most = envelope(from, count, limits);
      double v = Math.min(then.lap().speed()[from], most[0]);
      double left = energy;
      double seconds = 0;
      double arrival = v;
      int braked = (from + count) % n;
      for (int k = 0; k < count; k++) {
        int i = (from + k) % n;
        int q = (from + k + 1) % n;
        Limits now = opened != null && opened.in[i] ? opened.wide : limits;
        double free = LapSimulator.ahead(then.path(), now, i, q, v);
        if (left > 0 && free < most[k + 1]) {
          // Where the tyres bear no more than the engine gives, nothing is spent.
          double pushed = LapSimulator.ahead(then.path(), with, i, q, v);
          left -= with.mass() * (pushed * pushed - free * free) / 2;
          free = pushed;
        }
        double on = Math.min(free, most[k + 1]);
        double way = then.path().step()[i];
        seconds += 2 * way / Math.max(1, v + on);
        v = on;
        if (v > arrival) {
          arrival = v;
          braked = q;
        }
      }
      return new Run(seconds, arrival, braked);
    }

    /** What the next corner lets one drive on the way to it, m/s. */
    private double[] envelope(int from, int count, Limits limits) {
      double[] most = new double[count + 1];
      double v = then.lap().speed()[(from + count) % n];
      most[count] = v;
      for (int k = count - 1; k >= 0; k--) {
        int i = (from + k) % n;
        double slows = limits.deceleration(then.path(), i, v);
        // Where the turn takes all of the grip nothing is left to brake with.
        slows = slows > LEAST ? slows : LEAST;
        v =
            Math.min(
                then.lap().cornerSpeed()[i], Math.sqrt(v * v + 2 * slows * then.path().step()[i]));
        most[k] = v;
      }
      return most;
    }
  }
}
