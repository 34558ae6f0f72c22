package marvek.core.logger;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.PointKind;
import marvek.core.lap.Conditions;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.line.CornerLine;
import marvek.core.line.SearchStopped;
import marvek.core.line.Warp;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.score.ActionKind;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/**
 * Drives laps metre by metre: pedals by the driver's intent, speed by the forces on the vehicle,
 * gears by revs. Braking is pressed in a rising, falling and trailing shape whose height the driver
 * chooses so that the corner is reached at the speed that the path allows.
 */
public final class SimulatedDriver {
  private static final double REACH = 90;
  // Metres around a turn-in over which another one is made good, and to each side over which hands
  // make any change of the line.
  private static final double LEAST_REACH = 25;
  private static final double MOST_REACH = 110;
  private static final double HANDS = 20;
  // Metres from which on turning in elsewhere is a way of driving and not chance.
  private static final double MEANT = 5;
  private static final double RISE = 0.12;
  // Hands press by so much more than what they take for the limit.
  private static final double HARDEST = 1.08;
  private static final double STEERING_RATIO = 13;
  private static final double UNDERSTEER = 0.0006;
  private static final double SHIFT_DOWN_PAUSE = 0.28;
  // Between two apexes: metres looked ahead, slowing that easing gives, throttle never let go of.
  private static final double LOOKS_AHEAD = 20;
  private static final double EASES = 1;
  private static final double LEAST_HELD = 0.1;
  // Throttle given back for each m/s too fast where a corner is only lifted for.
  private static final double FEATHERS = 0.6;
  private static final double LEAST_FELT = 0.05;
  // Seconds in which a foot comes two thirds of its way.
  private static final double PRESSES = 0.05;
  private static final double SQUEEZES = 0.2;
  private static final double LETS = 0.04;
  private static final double OPENS = 0.07;
  private static final double EASES_OFF = 0.27;
  // Seconds between the pedals beyond which a driver waits.
  private static final double USUAL_HAND = 0.1;
  // Steps before a press is felt, and how much too fast is borne where nothing else is left.
  private static final int FEELS = 8;
  private static final double BORNE = 1.4;
  // Share by which a place is quicker than the slowest where nobody is slow for that one.
  private static final double QUICK = 0.25;
  // A wheel that stands or spins grips less, for about this long; a kerb is struck this hard.
  private static final double SLIDE_BEGINS = 0.12;
  private static final double SLIDE_ENDS = 0.45;
  private static final double SLIDING_GRIP = 0.7;
  private static final double KNOCK = 32;
  // Who arrives too fast scrubs so much, m/s², and is slower by his share of it until so far past
  // the apex, m.
  private static final double SCRUBBED = 12;
  private static final double SLIDES_ON = 1.2;
  private static final double MOST_SLID = 0.15;
  private static final double GATHERED = 15;

  private final Plan plan;
  private final ComputedLap computed;
  private final Centreline road;
  private final Vehicle vehicle;
  private final Random chance;
  private final int n;
  private final Loop loop;
  private final List<Double> time = new ArrayList<>();
  private final Columns out = new Columns();
  private final List<Truth.Lap> truths = new ArrayList<>();
  private double clock;
  private double speed;
  private int gear = 1;
  private double shifting;
  private double sinceDown = 1;
  private double onLimiter;
  private List<Intent> coming = List.of();
  // Lap that is thought of next; 0 leaves the pits.
  private int meant;
  private @Nullable Stint driven;

  private SimulatedDriver(Plan plan, Random chance) {
    this.plan = plan;
    this.computed = plan.computed();
    this.road = computed.road();
    this.vehicle = computed.vehicle();
    this.chance = chance;
    this.n = road.size();
    this.loop = road.loop();
    this.meant = plan.outAndIn() ? 0 : 1;
  }

  /** Drives the plan. */
  public static Drive drive(Plan plan, Random chance) {
    return drive(plan, chance, Watch.NOBODY);
  }

  /**
   * Drives a plan lap by lap.
   *
   * @param watch is told after each lap how far it is, and may end the drive
   */
  public static Drive drive(Plan plan, Random chance, Watch watch) {
    return new SimulatedDriver(plan, chance).drive(watch);
  }

  private static final class Columns {
    final List<double[]> rows = new ArrayList<>();

    double[] column(int i) {
      return rows.stream().mapToDouble(r -> r[i]).toArray();
    }
  }

  private Drive drive(Watch watch) {
    int lap = 0;
    coming = meant();
    if (plan.outAndIn()) {
      int start = n / 3;
      speed = 18;
      lap(0, 0.86, start, n, -n);
    } else {
      speed = computed.lap().speed()[0] * 0.97;
    }
    gear = computed.limits().bestGear(speed);
    for (int l = 1; l <= plan.laps(); l++) {
      if (!watch.goesOn((l - 1) / (plan.laps() + 1.0))) {
        throw new SearchStopped();
      }
      double grip = l <= plan.coldLaps() ? 0.94 + 0.06 * (l - 1) / plan.coldLaps() : 1;
      lap(l, plan.pace() * grip, 0, n, lap * n);
      lap++;
    }
    if (plan.outAndIn()) {
      lap(0, 0.84, 0, 3 * n / 4, lap * n);
    }
    return new Drive(
        time.stream().mapToDouble(Double::doubleValue).toArray(),
        out.column(0),
        out.column(1),
        out.column(2),
        out.column(3),
        out.column(4),
        out.column(5),
        out.column(6),
        out.column(7),
        out.column(8),
        out.column(9),
        out.column(10),
        out.column(11),
        out.column(12),
        out.column(13),
        vehicle.kind() == VehicleKind.MOTORCYCLE,
        new Truth(truths));
  }

  /** The line of a lap: that of the reference's points, bent by the driver. */
  private double[] line(List<Intent> intents) {
    double[] offset = computed.path().offset();
    for (int c = 0; c < intents.size(); c++) {
      Intent i = intents.get(c);
      CornerLine l = computed.lines().get(c);
      boolean left = computed.corners().get(c).left();
      double out = left ? -1 : 1;
      double turnIn = i.entry.station(PointKind.TURN_IN).orElse(l.turnIn());
      offset = shifted(offset, l.turnIn(), turnIn);
      if (l.apexes().size() > 1) {
        double a = l.apexes().get(0);
        offset = shifted(offset, a, i.entry.station(PointKind.FIRST_APEX).orElse(a));
      }
      double apex = i.entry.station(PointKind.APEX).orElse(l.apex());
      offset = shifted(offset, l.apex(), apex);
      double exit = i.entry.station(PointKind.EXIT).orElse(l.exit());
      offset = shifted(offset, l.exit(), exit);
      if (Math.abs(i.turnInBy) > 0.3) {
        // Who turns in early is early all the way to the apex.
        double way = road.apart(turnIn, apex);
        boolean means = Math.abs(i.turnInBy) > MEANT;
        double reach =
            means ? MOST_REACH : Math.max(LEAST_REACH, Math.min(MOST_REACH, 0.6 * Math.abs(way)));
        offset = Warp.shifted(road, offset, turnIn + 0.4 * way, i.turnInBy, reach, reach);
      }
      offset = bumped(offset, apex, out * (i.apexOut + i.entry.apexOff()), 60);
      offset = bumped(offset, exit, out * i.exitOut, 55);
      offset = bumped(offset, computed.corners().get(c).entry() - 45, out * i.entryOut, 110);
    }
    for (Aside a : plan.asides()) {
      offset = chance.nextDouble() < a.share() ? bumped(offset, a.station(), a.by(), 60) : offset;
    }
    return Warp.eased(road, computed.path().offset(), offset, HANDS);
  }

  private double[] shifted(double[] offset, double was, double now) {
    double by = road.apart(was, now);
    return Math.abs(by) < 0.3 ? offset : Warp.shifted(road, offset, was, by, REACH, REACH);
  }

  private double[] bumped(double[] offset, double at, double by, double reach) {
    return Math.abs(by) < 0.01 ? offset : Warp.bumped(road, offset, at, by, reach);
  }

  /** What is meant in a lap. */
  private List<Intent> meant() {
    List<Intent> intents = Intent.lap(plan, meant++, chance);
    for (int c = 0; c < intents.size(); c++) {
      intents.get(c).settle(computed, computed.lines().get(c));
      if (c > 0) {
        intents.get(c).after(intents.get(c - 1));
      }
    }
    int last = intents.size() - 1;
    if (last > 0 && intents.get(last).apex < intents.get(last - 1).apex) {
      // The lap's last corner is over after the line.
      intents.get(last).move(n);
    }
    return intents;
  }

  private void lap(int number, double pace, int from, int to, int base) {
    List<Intent> intents = coming;
    coming = meant();
    double[] offset = line(intents);
    Path path = Path.over(road, offset, computed.ground());
    Conditions day = computed.conditions();
    Limits limits =
        new Limits(vehicle, day.withGrip(day.grip() * pace * pace), computed.lap().boostBelow());
    // The next lap's first corner may begin before the line.
    List<Intent> ahead = new ArrayList<>(intents);
    Stint last = from == 0 ? driven : null;
    Intent still = last == null ? null : last.unfinished();
    int added = 0;
    if (still != null) {
      still.move(-n);
      ahead.add(0, still);
      added = 1;
    }
    Intent over = coming.get(0);
    over.move(n);
    over.after(intents.get(intents.size() - 1));
    ahead.add(over);
    int rowsBefore = out.rows.size();
    double began = clock;
    Stint d = new Stint(path, limits, ahead, from, last, still != null);
    for (int k = from; k < to; k++) {
      d.metre(k, base);
    }
    over.move(-n);
    driven = d;
    truths.add(
        new Truth.Lap(
            number,
            clock - began,
            truth(
                path,
                intents,
                rowsBefore,
                from,
                to,
                Arrays.copyOfRange(d.touched, added, d.touched.length))));
  }

  private List<Truth.Done> truth(
      Path path, List<Intent> intents, int rows, int from, int to, int[] touched) {
    List<Truth.Done> done = new ArrayList<>();
    for (int c = 0; c < intents.size(); c++) {
      Intent i = intents.get(c);
      Corner corner = computed.corners().get(c);
      double sign = corner.left() ? 1 : -1;
      int entry = near(i.apex, corner.entry());
      int exit = entry + (int) (road.ahead(corner.entry(), corner.exit()) / road.step());
      int around = i.apex;
      int apex =
          inside(path, corner, Math.max(entry - 20, around - 80), Math.min(exit + 20, around + 80));
      if (around < from + 60 || around > to - 60) {
        continue;
      }
      int firstApex = apex;
      if (corner.apexes().size() == 2) {
        int middle = (near(i.apex, corner.apexes().get(0)) + near(i.apex, corner.apex())) / 2;
        firstApex = inside(path, corner, entry - 20, middle);
        apex = inside(path, corner, middle, exit + 20);
      }
      double turn =
          CornerLine.turnIn(
              road, path, corner, road.wrap(firstApex * road.step()), turns(c, firstApex, from));
      int before = c > 0 ? intents.get(c - 1).apex : entry - 200;
      int low = Math.max(from, entry - (int) Math.max(5, Math.min(40, 0.3 * (entry - before))));
      int slow = low;
      int next = c + 1 < intents.size() ? intents.get(c + 1).brake : Intent.NONE;
      int high = Math.max(exit + 25, i.release + 10);
      high = next > Math.max(i.brake, low) ? Math.min(high, next) : high;
      // What was slow before the brake is pressed belongs to the corner before.
      low = i.brake > low && i.brake < i.apex ? i.brake : low;
      low = !i.brakes() ? Math.max(low, (entry + near(i.apex, corner.apexes().get(0))) / 2) : low;
      slow = low;
      for (int k = low; k <= Math.min(to - 1, high); k++) {
        if (out.rows.get(rows + k - from)[2] < out.rows.get(rows + slow - from)[2]) {
          slow = k;
        }
      }
      double step = road.step();
      done.add(
          new Truth.Done(
              corner.id(),
              begun(i, rows, from) ? wrap(i.brake * step) : null,
              begun(i, rows, from) ? wrap(i.release * step) : null,
              touched[c] == Intent.NONE ? null : wrap(touched[c] * step),
              touched[c] == Intent.NONE || !opened(i.full, rows - from, to)
                  ? null
                  : wrap(i.full * step),
              near(i.apex, turn) <= from ? null : turn,
              wrap(apex * step),
              out.rows.get(rows + slow - from)[2],
              // Where it is braked on for the next corner, that one's shifts come at once.
              (int)
                  out.rows.get(rows + Math.max(low, slow >= high - 2 ? slow - 8 : slow) - from)[6],
              i.mistakes,
              acts(i, rows - from, to)));
    }
    return done;
  }

  /** What was done of a written score, as far as it lies in what was driven. */
  private List<Truth.Act> acts(Intent i, int rows, int to) {
    WrittenScore score = i.written;
    if (score == null) {
      return List.of();
    }
    List<Truth.Act> acts = new ArrayList<>();
    for (WrittenScore.Doing d : score.all()) {
      if (d.at + rows < 0 || d.at >= to) {
        continue;
      }
      double amount = d.amount;
      if (d.kind == ActionKind.BRAKE) {
        int stop = Math.min(to, Math.min(score.stops(d), d.at + (int) (400 / road.step())));
        amount = 0;
        for (int k = d.at; k < stop; k++) {
          amount = Math.max(amount, out.rows.get(rows + k)[3]);
        }
      }
      acts.add(new Truth.Act(d.id, d.kind, wrap(d.at * road.step()), amount, d.gear));
    }
    return acts;
  }

  /** Metres before the first apex within which a corner is turned into. */
  private double turns(int c, int firstApex, int from) {
    List<Corner> corners = computed.corners();
    double back = (firstApex - from) * road.step();
    Corner before = corners.get((c + corners.size() - 1) % corners.size());
    return corners.size() == 1
        ? back
        : Math.min(back, CornerLine.turnsWithin(road, before, corners.get(c), back));
  }

  /** Whether a corner's braking was driven in this lap, or at the end of the one before. */
  private static boolean begun(Intent i, int rows, int from) {
    return i.brakes() && i.brake - from + rows >= 0 && (i.brake >= from || from == 0);
  }

  /** Whether the throttle was as good as full where it was meant to be. */
  private boolean opened(int full, int rows, int to) {
    return full + rows >= 0 && full < to && out.rows.get(rows + full)[4] > 0.95;
  }

  /** The index of a station on the same turn round the lap as another index. */
  private int near(int index, double station) {
    return index + (int) Math.round(road.apart(index * road.step(), station) / road.step());
  }

  private double wrap(double station) {
    return road.wrap(station);
  }

  /** The middle of the stretch that lies within 0.2 m of the closest to the inside. */
  private int inside(Path path, Corner corner, int a, int b) {
    int best = a;
    for (int k = a; k <= b; k++) {
      best = gap(path, corner, k) < gap(path, corner, best) ? k : best;
    }
    int low = best;
    int high = best;
    while (low > a && gap(path, corner, low - 1) < gap(path, corner, best) + 0.2) {
      low--;
    }
    while (high < b && gap(path, corner, high + 1) < gap(path, corner, best) + 0.2) {
      high++;
    }
    return (low + high) / 2;
  }

  private double gap(Path path, Corner corner, int k) {
    int i = loop.at(k);
    return corner.left() ? road.left()[i] - path.offset()[i] : road.right()[i] + path.offset()[i];
  }

  private interface Agreed {
    boolean with(int k, double v);
  }

  /** One lap on its way. */
  private final class Stint {
    private final Path path;
    private final Limits limits;
    private final List<Intent> intents;
    private int corner;
    private @Nullable Intent before;
    private double peak;
    private double trail = 0.5;
    private double pressedAt = -1;
    private double openedAt = -1;
    private double slid;
    private double slow = -1;
    // Throttle between two apexes.
    private double holds = LEAST_HELD;
    private boolean lifted;
    // Where a lifted corner is slowest, and the throttle that held its speed before it is opened.
    private int slowAt;
    private double heldBefore;
    // Whether the throttle of the corner was opened.
    private boolean opened;
    private boolean shut;
    // Where both feet are in a written corner.
    private double throttleFoot = 1;
    private double brakeFoot;
    // Where the throttle was touched again in each corner; NONE where it never was shut.
    private final int[] touched;

    /**
     * A lap.
     *
     * @param last the lap that ended at the line, or null
     * @param still whether the first of the intents was begun in that lap
     */
    Stint(
        Path path,
        Limits limits,
        List<Intent> intents,
        int from,
        @Nullable Stint last,
        boolean still) {
      this.path = path;
      this.limits = limits;
      this.intents = intents;
      this.touched = new int[intents.size()];
      Arrays.fill(touched, Intent.NONE);
      if (last != null) {
        follow(last, still);
      }
      while (corner < intents.size() - 1 && end(corner) < from) {
        corner++;
      }
    }

    /** Goes on with what was begun before the line. */
    private void follow(Stint last, boolean still) {
      shut = last.shut;
      throttleFoot = last.throttleFoot;
      brakeFoot = last.brakeFoot;
      if (still || last.corner == last.intents.size() - 1) {
        // The first corner was begun; what it meant counts from this line now.
        peak = last.peak;
        trail = last.trail;
        pressedAt = last.pressedAt;
        openedAt = last.openedAt;
        int at = last.touched[last.corner];
        touched[0] = at == Intent.NONE ? at : at - n;
        before = last.before;
        if (still) {
          slid = last.slid;
          slow = last.slow;
          slowAt = last.slowAt - n;
          lifted = last.lifted;
          holds = last.holds;
          heldBefore = last.heldBefore;
        }
      } else {
        before = last.intents.get(last.corner);
      }
      if (before != null) {
        before.move(-n);
      }
    }

    /** The corner that the lap ends in, begun and not over; null where it is none. */
    @Nullable Intent unfinished() {
      boolean own = corner == intents.size() - 2;
      return own && pressedAt >= 0 && end(corner) >= n ? intents.get(corner) : null;
    }

    private int end(int c) {
      Intent i = intents.get(c);
      WrittenScore score = i.written;
      return Math.max(i.apex + 5, score == null ? i.full : Math.max(i.full, score.last()));
    }

    /** Where the feet begin with a corner. */
    private boolean begins(Intent next, int k) {
      double hand = next.handOff * speed / road.step() + 1;
      WrittenScore score = next.written;
      boolean usual = next.brakes() ? k >= next.brake - hand : k >= next.turnIn - 30;
      return usual || score != null && score.first() != Intent.NONE && k >= score.first() - hand;
    }

    void metre(int k, int base) {
      Intent i = intents.get(corner);
      Intent next = corner + 1 < intents.size() ? intents.get(corner + 1) : null;
      boolean nextBegins = next != null && begins(next, k);
      WrittenScore now = i.written;
      // Who still brakes is not yet in the next corner.
      boolean braked = now == null ? !i.brakes() || k >= i.release : now.pressed(k) == null;
      // What is driven flat keeps nobody from the next.
      boolean flat = !i.brakes() && !i.opens() && now == null;
      if (next != null
          && braked
          && (flat && nextBegins
              || k > end(corner) && (nextBegins || !next.brakes() && k > i.apex + 5)
              || nextBegins && (k > i.apex || next.brakes()))) {
        before = i;
        corner++;
        i = intents.get(corner);
        pressedAt = -1;
        openedAt = -1;
        slid = 0;
        slow = -1;
        heldBefore = 0;
        opened = false;
      }
      int p = loop.at(k);
      int q = loop.at(k + 1);
      double ds = path.step()[p];
      double brake = 0;
      double throttle = opening(k);
      WrittenScore score = i.written;
      if (score != null) {
        throttle = wanted(i, score, k, throttle);
        throttleFoot = throttle;
        brake = brakeFoot;
        pressedAt = brake > 0 && pressedAt < 0 ? clock : pressedAt;
      } else if (i.brakes() && k >= i.brake && k < i.release) {
        if (pressedAt < 0) {
          pressedAt = clock;
          peak = peak(i, k);
        }
        brake = peak * shape(i, k, clock - pressedAt);
        throttle = 0;
      } else if (i.brakes() && k < i.brake && (i.brake - k) * road.step() < i.handOff * speed) {
        throttle = 0;
      } else if (i.brakes() && k >= i.brake && k < i.first) {
        throttle = 0;
      } else if (!i.brakes() && i.opens() && k < i.first && eased(i, k)) {
        throttle = Math.min(1, holding(p) - FEATHERS * (speed - slow));
        throttle = throttle < LEAST_FELT ? 0 : throttle;
        heldBefore = throttle;
      } else if (i.opens() && k >= i.first && k < i.full) {
        double way = (k - i.first) / (double) Math.max(1, i.full - i.first);
        // What is open already out of the corner before is not shut to be opened again.
        heldBefore = opened ? heldBefore : Math.max(heldBefore, throttleFoot);
        opened = true;
        double begin = Math.max(Math.max(0.12, i.entry.firstThrottle()), heldBefore);
        throttle = begin + (1 - begin) * way;
        // The foot takes a moment from nothing to its first pressure.
        double pressed = Math.min(1, (k - i.first + 1) * ds / speed / 0.1);
        throttle = Math.max(Math.min(throttle, heldBefore), throttle * pressed);
        if (i.dip && way > 0.45 && way < 0.75) {
          throttle = 0.15;
        }
        if (k < i.last) {
          throttle = Math.min(throttle, Math.max(LEAST_HELD, held(i, k)));
          holds = throttle;
        } else if (i.last != Intent.NONE) {
          throttle = holds + (1 - holds) * (k - i.last) / (double) Math.max(1, i.full - i.last);
        }
      }
      if (score == null) {
        throttleFoot = throttle;
        brakeFoot = brake;
      }
      if (throttle == 0) {
        shut = true;
      } else if (shut && throttle > 0) {
        shut = false;
        touched[corner] = touched[corner] == Intent.NONE ? k : touched[corner];
        openedAt = clock;
      }
      drive(i, p, q, ds, k, base, brake, throttle);
    }

    /**
     * Moves both feet as a written score asks; {@code brakeFoot} is where the brake is then.
     *
     * @param most that the corner before leaves of the throttle
     * @return the throttle
     */
    private double wanted(Intent i, WrittenScore score, int k, double most) {
      for (WrittenScore.Doing d : score.all()) {
        if (d.at <= k && Double.isNaN(d.amount)) {
          choose(i, score, d, k);
        }
      }
      int p = loop.at(k);
      double dt = path.step()[p] / speed;
      double all = full(k);
      WrittenScore.Doing press = score.pressed(k);
      double brake = press == null ? 0 : Math.min(HARDEST, pressing(i, score, press, k, all));
      boolean hard = press == null || !press.slowly;
      brakeFoot =
          led(brakeFoot, brake, dt / (brake < brakeFoot ? LETS : hard ? PRESSES : SQUEEZES));
      double open = Math.min(most, score.throttle(k));
      if (i.dip && k > i.first && k < i.full) {
        double way = (k - i.first) / (double) Math.max(1, i.full - i.first);
        // Too much, too soon, and then less.
        open = way > 0.45 && way < 0.75 ? 0.15 : way <= 0.45 ? Math.min(1, open + 0.25) : open;
      }
      // Who waits between the pedals waits with the throttle shut.
      double wait = i.handOff > USUAL_HAND ? i.handOff + 3 * OPENS : i.handOff;
      open = (score.nextPress(k) - k) * road.step() < wait * speed ? 0 : open;
      // Two feet are not on both pedals.
      open = brakeFoot > 0.02 ? 0 : open;
      double before = brakeFoot > 0.02 ? 0 : throttleFoot;
      WrittenScore.Doing by = score.throttled(k);
      boolean slowly = by != null && by.slowly && by.kind == ActionKind.LIFT;
      return led(before, open, dt / (slowly ? EASES_OFF : OPENS));
    }

    /** m/s² of the hardest braking in a straight line. */
    private double full(int k) {
      int p = loop.at(k);
      return limits.brakingMost(limits.load(path, p, speed * speed), 1, path.braking(p));
    }

    /** A share of the grip that a press asks for. */
    private double pressing(
        Intent i, WrittenScore score, WrittenScore.Doing press, int k, double all) {
      double share = press.amount * score.shape(press, k, i.apex);
      if (i.twoPresses && press.open) {
        double way = (k - i.brake) / (double) Math.max(1, i.release - i.brake);
        share = way > 0.4 && way < 0.52 ? 0 : share;
      }
      // What is written as an effort is a share of the full press.
      return press.open && press.kind == ActionKind.BRAKE
          ? share
          : share * computed.fullPress() / Math.max(0.1, all);
    }

    private static double led(double from, double to, double steps) {
      double at = to + (from - to) * Math.exp(-steps);
      return Math.abs(at - to) < 0.008 ? to : at;
    }

    /** Chooses what is left open: as little as meets the places up to the next press. */
    private void choose(Intent i, WrittenScore score, WrittenScore.Doing d, int k) {
      if (d.kind == ActionKind.EASE || d.kind == ActionKind.THROTTLE) {
        // What there is is held; of the throttle a half.
        d.amount = d.kind == ActionKind.EASE ? brakeFoot * full(k) / computed.fullPress() : 0.5;
        return;
      }
      boolean brakes = d.kind == ActionKind.BRAKE;
      double slowest = slowest(i, score, d, k);
      // Where even all of it does not do, a little too fast is borne.
      double borne = 1;
      d.amount = brakes ? HARDEST : 0;
      while (borne < BORNE && !fits(i, score, d, k, borne, slowest)) {
        borne += 0.03;
      }
      double low = 0;
      double high = brakes ? HARDEST : 1;
      for (int round = 0; round < 12; round++) {
        double middle = (low + high) / 2;
        d.amount = brakes ? middle : 1 - middle;
        if (fits(i, score, d, k, borne, slowest)) {
          high = middle;
        } else {
          low = middle;
        }
      }
      d.amount = brakes ? high : 1 - high;
    }

    /** Whether each place up to the next press is met with what is done. */
    private boolean fits(
        Intent i,
        WrittenScore score,
        WrittenScore.Doing d,
        int from,
        double borne,
        double slowest) {
      int end = met(i, score, d);
      int first = Math.max(i.turnIn, from + FEELS);
      double v = speed;
      for (int k = from; k < end; k++) {
        int p = loop.at(k);
        if (k >= first && v > slower(i, limits.cornerSpeed(path, p), slowest) * borne) {
          return false;
        }
        double load = limits.load(path, p, v * v);
        double all = limits.brakingMost(load, 1, path.braking(p));
        double resist = limits.resistance(path, p, v, load);
        WrittenScore.Doing press = score.pressed(k);
        double a;
        if (press != null) {
          double share = Double.isNaN(press.amount) ? 0 : pressing(i, score, press, k, all);
          a = -slowing(Math.min(HARDEST, share), all) - resist;
        } else {
          double u = score.throttle(k);
          a =
              u * limits.wheelForce().at(v, gear) / limits.mass()
                  - (1 - u) * vehicle.brakes().engineBraking()
                  - resist;
        }
        v = Math.sqrt(Math.max(9, v * v + 2 * a * path.step()[p]));
      }
      return true;
    }

    /** The step up to which what is done is to meet its places. */
    private int met(Intent i, WrittenScore score, WrittenScore.Doing d) {
      return Math.min(score.nextPress(d.at), Math.max(i.apex + 5, score.braked() + 2));
    }

    /** m/s of the slowest place that is to be met. */
    private double slowest(Intent i, WrittenScore score, WrittenScore.Doing d, int from) {
      return IntStream.range(Math.max(i.turnIn, from + FEELS), met(i, score, d))
          .mapToDouble(k -> limits.cornerSpeed(path, loop.at(k)))
          .min()
          .orElse(Double.POSITIVE_INFINITY);
    }

    /**
     * What a driver who is slow there makes of the speed of a place: all of that at the slowest,
     * nothing where the corner is quick by {@link #QUICK}.
     */
    private double slower(Intent i, double speed, double slowest) {
      double share = Math.max(0, 1 - (speed / slowest - 1) / QUICK);
      return speed * (1 - (1 - i.slower) * share);
    }

    /** Where a corner's own pedals begin. */
    private int acts(Intent i) {
      WrittenScore score = i.written;
      return score != null && score.first() != Intent.NONE
          ? score.first()
          : i.brakes() ? i.brake : i.turnIn;
    }

    /** The throttle on the way to full out of the corner before. */
    private double opening(int k) {
      Intent b = before;
      WrittenScore written = b == null ? null : b.written;
      if (written != null) {
        // A lift that nothing opens again lasts until the next corner has its own.
        return written.opens() || k < acts(intents.get(corner)) ? written.throttle(k) : 1;
      }
      if (b == null || !b.opens() || k >= b.full) {
        return 1;
      }
      double way = (k - b.first) / (double) Math.max(1, b.full - b.first);
      double begin = Math.max(0.12, b.entry.firstThrottle());
      return Math.max(0, Math.min(1, begin + (1 - begin) * way));
    }

    /** Without brakes the throttle is shut as late as engine braking allows, once. */
    private boolean eased(Intent i, int k) {
      if (slow < 0) {
        double lowest = Double.MAX_VALUE;
        for (int j = i.turnIn; j <= i.apex + 20; j++) {
          double v = limits.cornerSpeed(path, loop.at(j));
          slowAt = v < lowest ? j : slowAt;
          lowest = Math.min(lowest, v);
        }
        slow = lowest * i.slower * 1.01;
        lifted = false;
      }
      int p = loop.at(k);
      double load = limits.load(path, p, speed * speed);
      double a =
          Math.max(
              0.5,
              vehicle.brakes().engineBraking() + limits.resistance(path, p, speed, load) * 0.95);
      double metres = Math.max(0, (speed * speed - slow * slow) / (2 * a));
      lifted |= speed > slow && (slowAt - 10 - k) * road.step() < metres;
      return lifted;
    }

    /** Between two apexes: the throttle that leads to the speed of the second by rolling. */
    private double held(Intent i, int k) {
      double ahead = Double.MAX_VALUE;
      double metres = 0;
      for (int j = k; j <= i.last + 10; j++) {
        double v = limits.cornerSpeed(path, loop.at(j)) * i.slower;
        if (j >= k + LOOKS_AHEAD / road.step()) {
          ahead = Math.min(ahead, v * v + 2 * EASES * (metres - LOOKS_AHEAD));
        }
        metres += path.step()[loop.at(j)];
      }
      if (ahead > 1e9) {
        // The second apex is too near to wait for.
        return 1;
      }
      int p = loop.at(k);
      double load = limits.load(path, p, speed * speed);
      double along = (ahead - speed * speed) / (2 * LOOKS_AHEAD);
      return keeping(along + limits.resistance(path, p, speed, load));
    }

    /** The throttle that keeps the speed. */
    private double holding(int p) {
      double load = limits.load(path, p, speed * speed);
      return Math.max(0.06, keeping(limits.resistance(path, p, speed, load)));
    }

    /** The share of the throttle that gives so much, m/s². */
    private double keeping(double along) {
      double engine = vehicle.brakes().engineBraking();
      double all = limits.wheelForce().at(speed, gear) / limits.mass();
      return Math.max(0, Math.min(1, (along + engine) / Math.max(0.01, all + engine)));
    }

    private double shape(Intent i, int k, double since) {
      int begin = i.brake;
      double rise = Math.min(1, since / RISE);
      double hold = begin + 0.45 * Math.max(2, i.turnIn - begin);
      double s;
      if (k <= hold) {
        s = 1;
      } else if (k <= i.turnIn) {
        s = 1 - (1 - trail) * (k - hold) / Math.max(1, i.turnIn - hold);
      } else {
        s = trail * (i.release - k) / Math.max(1, i.release - Math.max(i.turnIn, hold));
      }
      if (i.release < i.turnIn && k > hold) {
        s = (i.release - k) / Math.max(1, i.release - hold);
      }
      if (i.twoPresses) {
        double way = (k - begin) / (double) Math.max(1, i.release - begin);
        if (way > 0.4 && way < 0.52) {
          s = 0;
        }
      }
      return rise * Math.max(0, Math.min(1, s));
    }

    /**
     * How hard to press, and how much of it to keep at turn-in, so that the corner is reached at
     * its speed and no slower than need be.
     */
    private double peak(Intent i, int k) {
      int end = Math.max(i.apex + 5, i.release + 2);
      double best = HARDEST;
      double bestTrail = 0.5;
      double fastest = 0;
      for (double t = 0.4; t < 0.85; t += 0.1) {
        trail = t;
        double press = least(i, k, end);
        double reached = slowest(i, k, end, press);
        if (press < HARDEST - 0.01 && reached > fastest) {
          fastest = reached;
          best = press;
          bestTrail = t;
        }
      }
      trail = bestTrail;
      return best;
    }

    private double least(Intent i, int k, int end) {
      double low = 0;
      double high = HARDEST;
      for (int round = 0; round < 12; round++) {
        double middle = (low + high) / 2;
        if (tooFast(i, k, end, middle)) {
          low = middle;
        } else {
          high = middle;
        }
      }
      return high;
    }

    private double slowest(Intent i, int from, int end, double press) {
      double[] least = {Double.MAX_VALUE};
      run(
          i,
          from,
          end,
          press,
          (k, v) -> {
            least[0] = Math.min(least[0], v);
            return true;
          });
      return least[0];
    }

    /** Whether some place is not met; what the arrival is too fast for already does not count. */
    private boolean tooFast(Intent i, int from, int end, double press) {
      boolean[] arriving = {true};
      boolean met =
          run(
              i,
              from,
              end,
              press,
              (k, v) -> {
                if (k < i.bendsFrom()) {
                  return true;
                }
                boolean over = v > limits.cornerSpeed(path, loop.at(k)) * i.slower;
                boolean agreed = !over || arriving[0];
                arriving[0] &= over;
                return agreed;
              });
      return !met || arriving[0] && i.bendsFrom() < end;
    }

    /**
     * Looks ahead under a press of the brake, for as long as each place and speed are agreed to.
     */
    private boolean run(Intent i, int from, int end, double press, Agreed agreed) {
      double v = speed;
      double t = 0;
      for (int k = from; k < end; k++) {
        if (!agreed.with(k, v)) {
          return false;
        }
        int p = loop.at(k);
        double s = k < i.release ? press * shape(i, k, t) : 0;
        double load = limits.load(path, p, v * v);
        double a =
            slowing(s, limits.brakingMost(load, 1, path.braking(p)))
                + limits.resistance(path, p, v, load);
        t += path.step()[p] / v;
        v = Math.sqrt(Math.max(9, v * v - 2 * a * path.step()[p]));
      }
      return true;
    }

    /** m/s² by which brake and shut engine slow, no more than the tyres bear. */
    private double slowing(double brake, double all) {
      return Math.max(brake * all, Math.min(all, brake * all + vehicle.brakes().engineBraking()));
    }

    private void drive(
        Intent i, int p, int q, double ds, int k, int base, double brake, double throttle) {
      double v = speed;
      double load = limits.load(path, p, v * v);
      double resist = limits.resistance(path, p, v, load);
      gears(i, k, v, brake, throttle);
      boolean locked = i.locks && brake > 0 && slides(pressedAt);
      boolean spinning = i.spins && throttle > 0 && slides(openedAt);
      double a;
      if (brake > 0) {
        double grip = locked ? SLIDING_GRIP : 1;
        a = -grip * slowing(brake, limits.brakingMost(load, 1, path.braking(p))) - resist;
      } else if (throttle <= 0) {
        a = -vehicle.brakes().engineBraking() - resist;
      } else {
        double most = limits.traction(load, limits.ellipse(path, p, v * v, load), path.driving(p));
        double engine = (1 - throttle) * vehicle.brakes().engineBraking();
        double pull =
            shifting > 0 ? 0 : throttle * limits.wheelForce().at(v, gear) / limits.mass() - engine;
        pull +=
            shifting > 0
                ? 0
                : Math.max(
                        0,
                        limits.engineDrive(v)
                            - limits.wheelForce().at(v, limits.bestGear(v)) / limits.mass())
                    * throttle;
        a = Math.min(pull, most) * (spinning ? SLIDING_GRIP : 1) - resist;
      }
      double next = Math.sqrt(Math.max(9, v * v + 2 * a * ds));
      double top = limits.cornerSpeed(path, q);
      if (next > top * 1.01 && k >= i.bendsFrom() - 5) {
        // Too fast for the bend: the tyres scrub it off and slide wide, which costs more later on.
        slid = Math.max(slid, Math.min(MOST_SLID, SLIDES_ON * (v / top - 1.01)));
        next = Math.max(top * 0.985, Math.sqrt(Math.max(9, v * v - 2 * SCRUBBED * ds)));
      } else if (slid > 0 && k < i.apex + GATHERED / road.step()) {
        double held = top * (1 - slid);
        next = Math.min(next, Math.max(held, Math.sqrt(Math.max(9, v * v - 2 * SCRUBBED * ds))));
      }
      double limit = vehicle.speed(vehicle.engine().limitRevs(), gear);
      next = Math.min(next, Math.max(limit, v - 0.05));
      double dt = 2 * ds / (v + next);
      onLimiter = v > limit - 0.1 ? onLimiter + dt : 0;
      double kappa = path.curvature()[p];
      double across = v * v * kappa;
      double steer =
          (Math.atan(vehicle.wheelbase() * kappa) + UNDERSTEER * across) * STEERING_RATIO;
      double lean = Math.atan(across / Units.G);
      lean += corrections(i, k, lean);
      steer += corrections(i, k, steer);
      time.add(clock);
      out.rows.add(
          new double[] {
            (base + k) * road.step(),
            path.offset()[p],
            v,
            brake * limits.brakingMost(load, 1, path.braking(p)) / computed.fullPress(),
            throttle,
            steer,
            gear,
            Math.min(vehicle.engine().limitRevs(), vehicle.revs(v, gear)),
            (next * next - v * v) / (2 * ds),
            across,
            lean,
            locked ? 0.15 * v : v * (1 - 0.04 * brake),
            spinning ? 1.3 * v : v * (1 - 0.03 * brake + (a > 0 ? 0.03 * throttle : 0)),
            Units.G + (i.strikes ? knock(k - i.apex) : 0)
          });
      clock += dt;
      shifting = Math.max(0, shifting - dt);
      sinceDown += dt;
      speed = next;
    }

    private boolean slides(double since) {
      return since >= 0 && clock - since > SLIDE_BEGINS && clock - since < SLIDE_ENDS;
    }

    /** A kerb lifts the wheels for three metres round the apex. */
    private double knock(int metres) {
      double x = metres * road.step() / 3;
      return Math.abs(x) < 1 ? KNOCK * Math.cos(x * Math.PI / 2) : 0;
    }

    private double corrections(Intent i, int k, double steer) {
      if (i.corrections == 0) {
        return 0;
      }
      double sum = 0;
      for (int j = 0; j < i.corrections; j++) {
        double at = i.apex - 6 + 16 * j;
        double x = (k - at) * road.step() / Math.max(8, speed) / 0.16;
        sum += Math.abs(x) < 1 ? -0.55 * steer * Math.pow(Math.cos(x * Math.PI / 2), 2) : 0;
      }
      return sum;
    }

    private void gears(Intent i, int k, double v, double brake, double throttle) {
      double limit = vehicle.engine().limitRevs();
      WrittenScore score = i.written;
      WrittenScore.Doing told = score == null ? null : score.shifted(k);
      int meant = (told == null ? i.entry.gear() : told.gear) + i.gearBy;
      int wanted = Math.max(1, Math.min(vehicle.gears(), meant));
      if (told != null && gear == wanted) {
        told.taken = true;
      }
      boolean takes = told != null && !told.taken;
      if (takes && gear < wanted) {
        if (shifting <= 0) {
          gear++;
          shifting = vehicle.gearbox().shiftTime();
        }
        return;
      }
      if (brake > 0 || throttle < 0.05 || takes) {
        if (gear > wanted
            && sinceDown > SHIFT_DOWN_PAUSE
            && vehicle.revs(v, gear - 1) < 0.95 * limit) {
          gear--;
          sinceDown = 0;
        }
        return;
      }
      double revs = vehicle.revs(v, gear);
      boolean holds = i.limiter && k < i.apex + 400 || score != null && score.holds(k);
      boolean up = holds ? i.limiter && onLimiter > 0.55 : revs > vehicle.engine().shiftRevs();
      if (up && gear < vehicle.gears() && shifting <= 0) {
        gear++;
        shifting = vehicle.gearbox().shiftTime();
        onLimiter = 0;
      }
    }
  }
}
