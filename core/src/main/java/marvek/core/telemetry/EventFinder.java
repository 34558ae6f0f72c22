package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.units.Units;
import org.jspecify.annotations.Nullable;

/** Finds what happened in each corner of a lap, from what was recorded or can be told from it. */
public final class EventFinder {
  /** Share of a pedal from which on it is taken as pressed. */
  public static final double PRESSED = PedalWork.PRESSED;

  /** Share of the pedal below which most of the beginning and the end of a press is not seen. */
  public static final double FAINT = 2.5 * PRESSED;

  private final Centreline road;
  private final List<Corner> corners;
  private final Limits limits;
  private final Path line;

  /**
   * A finder.
   *
   * @param corners those that count, in driving order
   * @param limits of the vehicle, for what was not recorded
   * @param line usual path, for gradients and grip under the vehicle
   */
  public EventFinder(Centreline road, List<Corner> corners, Limits limits, Path line) {
    this.road = road;
    this.corners = List.copyOf(corners);
    this.limits = limits;
    this.line = line;
  }

  /**
   * Events of the corners that a lap holds whole, in driving order; none where it was recorded too
   * seldom to tell.
   */
  public List<CornerEvents> find(DrivenLap lap) {
    if (lap.trace().sparse()) {
      return List.of();
    }
    Trace trace = withPedals(lap.trace());
    double[] bend = bend(trace);
    List<CornerEvents> out = new ArrayList<>();
    double first = trace.size() == 0 ? 0 : trace.station()[0];
    double last = trace.size() == 0 ? 0 : trace.station()[trace.size() - 1];
    for (int c = 0; c < corners.size(); c++) {
      Corner corner = corners.get(c);
      double apex = corner.apex();
      boolean inside =
          lap.kind().whole()
              || (apex > trace.station()[trace.begin()] + 5
                  && apex < trace.station()[Math.max(0, trace.end() - 1)] - 5);
      if (inside && apex - 30 > first && apex + 30 < last) {
        out.add(events(trace, bend, c));
      }
    }
    return out;
  }

  /**
   * The lap drawn with few knots, from which every action can be read; null where it was recorded
   * too seldom.
   *
   * @param fullPress m/s² of the driver's full press
   */
  public @Nullable LapSketch sketch(DrivenLap lap, double fullPress) {
    return lap.trace().sparse() ? null : LapSketch.of(lap.trace(), road, line, limits, fullPress);
  }

  // Between two apexes so much quicker, and so much slowed for the first, m/s, are two slow places.
  private static final double BETWEEN = 0.4;
  private static final double WORTH_BRAKING = 2.5;
  // Slowed by so much with the brake, m/s, a corner was braked for and not only rolled into.
  private static final double BRAKED_OFF = 1.5;

  /** Metres before a bend at which the place of arrival is read, where there is room. */
  public static final double ARRIVAL = 60;

  /**
   * Metres before a bend at which the place of arrival is read, less where the corner before is
   * close.
   */
  public static double arrival(Centreline road, List<Corner> corners, int c) {
    Corner before = corners.get((c + corners.size() - 1) % corners.size());
    double straight = road.ahead(before.apex(), corners.get(c).entry());
    return Math.min(ARRIVAL, 0.5 * straight);
  }

  /** Adds pedals told from the speed where they were not recorded. */
  private Trace withPedals(Trace t) {
    boolean brake = t.has(Channel.BRAKE);
    boolean throttle = t.has(Channel.THROTTLE);
    if (brake && throttle) {
      return t;
    }
    int n = t.size();
    double[] press = new double[n];
    double[] open = new double[n];
    double[] along = t.of(Channel.ALONG);
    double engine = limits.vehicle().brakes().engineBraking();
    for (int i = 0; i < n; i++) {
      int k = road.index(t.station()[i]);
      double v = Math.max(2, t.speed()[i]);
      double load = limits.load(line, k, v * v);
      double wheels = along[i] + limits.resistance(line, k, v, load);
      press[i] = Math.max(0, -wheels - engine - 0.4) / Math.max(1, limits.brakingMost(load, 1, 1));
      open[i] =
          Math.max(0, Math.min(1, (wheels + 0.3) / Math.max(0.5, limits.driveMost(line, k, v))));
      // What is left over at the end of a straight is within the model's error of being all.
      open[i] = open[i] > 0.85 ? 1 : open[i];
    }
    Map<Channel, double[]> channels = new EnumMap<>(t.channels());
    Set<Channel> derived = EnumSet.copyOf(t.derived());
    if (!brake) {
      channels.put(Channel.BRAKE, press);
      derived.add(Channel.BRAKE);
    }
    if (!throttle) {
      channels.put(Channel.THROTTLE, open);
      derived.add(Channel.THROTTLE);
    }
    return new Trace(
        t.rate(),
        t.sampled(),
        t.time(),
        t.station(),
        t.offset(),
        t.speed(),
        t.curvature(),
        channels,
        derived,
        t.begin(),
        t.end());
  }

  /**
   * Steering as the bend that it makes at the speed driven: with κ the curvature of the path, the
   * angle is close to a·κ + b·v²κ (wheelbase and understeer); a and b by least squares over the
   * lap. Without positions the angle itself; null without steering.
   */
  private static double @Nullable [] bend(Trace t) {
    if (!t.has(Channel.STEERING)) {
      return t.has(Channel.LEAN) ? leaning(t) : null;
    }
    double[] angle = t.of(Channel.STEERING);
    if (!t.placed()) {
      return angle;
    }
    double aa = 0;
    double ab = 0;
    double bb = 0;
    double ay = 0;
    double by = 0;
    for (int i = t.begin(); i < t.end(); i++) {
      double k = t.curvature()[i];
      double w = t.speed()[i] * t.speed()[i] * k;
      aa += k * k;
      ab += k * w;
      bb += w * w;
      ay += k * angle[i];
      by += w * angle[i];
    }
    double det = aa * bb - ab * ab;
    double a = det > 0 ? (ay * bb - by * ab) / det : 0;
    double b = det > 0 ? (by * aa - ay * ab) / det : 0;
    double[] out = new double[angle.length];
    for (int i = 0; i < out.length; i++) {
      double gain = a + b * t.speed()[i] * t.speed()[i];
      // Where noise makes nonsense of the two, the angle stands for itself.
      out[i] = a * gain > 0 && Math.abs(gain) > 0.2 * Math.abs(a) ? angle[i] / gain : angle[i];
    }
    return out;
  }

  /** Lean as the bend that it holds: in balance tan(lean) is v²κ/g. */
  private static double[] leaning(Trace t) {
    double[] lean = t.of(Channel.LEAN);
    double[] out = new double[lean.length];
    for (int i = 0; i < out.length; i++) {
      double v = Math.max(5, t.speed()[i]);
      out[i] = Units.G * Math.tan(Math.max(-1.3, Math.min(1.3, lean[i]))) / (v * v);
    }
    return out;
  }

  private CornerEvents events(Trace t, double @Nullable [] bend, int c) {
    CornerStretch on = new CornerStretch(t, road, corners, c);
    PedalWork feet = new PedalWork(on);
    Placing placing = new Placing(on, line, limits.vehicle().width());
    Hands hands = new Hands(on, bend, line);
    Drivetrain machine = new Drivetrain(on, limits.vehicle());
    double entry = on.unwrapped(on.corner.entry());
    double exit = on.unwrapped(on.corner.exit());
    int slowFrom =
        Math.max(
            on.first,
            t.at(
                Math.max(on.from + 5, entry - Math.max(5, Math.min(40, 0.3 * (entry - on.from))))));
    int slowTo = on.over >= 0 ? on.last : Math.min(on.last, t.at(Math.min(on.to - 5, exit + 25)));
    slowTo = Math.max(slowFrom, feet.beforeNext(slowFrom, slowTo));
    int again = on.pressedAgain(Math.min(slowTo, t.at(on.corner.apex())), slowTo);
    slowTo = again > slowFrom ? again : slowTo;
    int slow = on.slowest(slowFrom, slowTo);
    // What was slow before the brake is pressed belongs to the corner before.
    int pressed =
        feet.lastPress(slow) < 0 ? feet.nextPress(slow, t.at(on.unwrapped(on.corner.apex()))) : -1;
    if (pressed >= 0) {
      int least = on.slowest(pressed, Math.max(pressed, slowTo));
      slow = on.v[pressed] - on.v[least] > BRAKED_OFF ? least : slow;
    }
    if (feet.lastPress(slow) < 0 || feet.firstPress(feet.lastPress(slow)) < 0) {
      // Where it is only lifted or flat, speed may rise all through: what counts is in the bend.
      double middle = (entry + on.unwrapped(on.corner.apexes().get(0))) / 2;
      slow = on.slowest(Math.min(slowTo, Math.max(slowFrom, t.at(middle))), slowTo);
    }
    // Where it is braked on for the next corner, that one's shifts come at once.
    int inGear = slow >= slowTo - 2 ? slow - (int) (0.2 * t.rate()) : slow;
    int fast = on.fastest(on.first, slow);

    int met = met(on, feet, slowFrom, slow);
    int pressEnd = feet.lastPress(met);
    int pressStart = pressEnd < 0 ? -1 : feet.firstPress(pressEnd);
    boolean brakes = pressStart >= 0;
    double brakeAt = brakes ? feet.risen(pressStart, pressEnd) : Double.NaN;
    double releaseAt = brakes ? feet.fallen(pressEnd) : Double.NaN;
    int peak = brakes ? feet.highest(on.brake, pressStart, pressEnd) : slow;

    int search = brakes ? pressStart : Math.max(on.unbraked(), slow - (int) (3 * t.rate()));
    double[] place = placing.apexes(entry, exit);
    int apexIndex = Double.isNaN(place[1]) ? slow : Math.min(t.size() - 1, t.at(place[1]));
    double turnIn = hands.turnIn(Double.isNaN(place[0]) ? place[1] : place[0], slow);
    int open = feet.throttleOn(search, slow, brakes ? pressEnd : -1);
    int exitIndex = Math.min(on.last, t.at(exit));
    int begin = brakes ? pressStart : open < 0 ? slow : search;
    double lift = feet.lift(begin);
    int least = open < 0 && !brakes && on.seenThrottle ? feet.leastOpen(lift, slow) : open;
    int full = least < 0 ? -1 : feet.fullFrom(least);
    double openAt = open < 0 ? Double.NaN : on.seenThrottle ? feet.touched(open) : on.s[open];
    double fullAt = full < 0 ? Double.NaN : feet.filled(least, full);
    int shut = brakes ? feet.shut(pressStart) : -1;
    double[] wide = placing.widest(Math.max(apexIndex, slow));
    return new CornerEvents(
        on.corner.id(),
        kept(lift),
        kept(brakeAt),
        brakes ? on.brake[peak] : 0,
        brakes ? t.time()[peak] - on.timeAt(brakeAt) : null,
        kept(releaseAt),
        brakes ? feet.presses(pressStart, pressEnd) : 0,
        shut < 0 || !on.seenThrottle || !on.seenBrake ? null : on.timeAt(brakeAt) - t.time()[shut],
        kept(turnIn),
        t.placed() ? placing.lineShift(entry) : null,
        kept(place[0]),
        kept(place[1]),
        Double.isNaN(place[2]) ? null : place[2],
        t.placed() ? nullable(t.value(t.offset(), entry - arrival(road, corners, c))) : null,
        on.v[slow],
        road.wrap(on.s[slow]),
        on.v[fast],
        on.v[exitIndex],
        Double.isNaN(releaseAt) || Double.isNaN(openAt) || !on.seenBrake || !on.seenThrottle
            ? null
            : on.timeAt(openAt) - on.timeAt(releaseAt),
        on.seenBrake && on.seenThrottle ? feet.coasting(lift, openAt) : 0,
        kept(openAt),
        kept(fullAt),
        open < 0 || !on.seenThrottle
            ? 0
            : feet.lifts(met < slow ? Math.max(open, slow) : open, exitIndex),
        kept(wide[0]),
        Double.isNaN(wide[1]) ? null : wide[1],
        machine.gear(brakes ? pressStart : fast),
        machine.gear(Math.max(slowFrom, inGear)),
        machine.downshifts(brakes ? pressStart : fast, inGear),
        machine.limiter(slow),
        Double.isNaN(turnIn) ? 0 : hands.corrections(turnIn, exit),
        brakes ? machine.locks(pressStart, pressEnd) : 0,
        open < 0 ? 0 : machine.spins(open, Math.min(on.last, exitIndex + (int) t.rate())),
        machine.strike(entry, exit));
  }

  /**
   * The slowest sample that the corner is braked for: of two apexes the first where it is braked
   * for and left quicker, also where the second is slower.
   */
  private static int met(CornerStretch on, PedalWork feet, int from, int slow) {
    if (on.corner.apexes().size() < 2) {
      return slow;
    }
    double first = on.unwrapped(on.corner.apexes().get(0));
    int middle = on.t.at((first + on.unwrapped(on.corner.apex())) / 2);
    int met = on.slowest(from, Math.max(from, Math.min(middle, slow)));
    int end = feet.lastPress(met);
    int start = end < 0 ? -1 : feet.firstPress(end);
    boolean left = on.v[on.fastest(met, slow)] > on.v[met] + BETWEEN;
    return start >= 0 && left && on.v[start] - on.v[met] > WORTH_BRAKING ? met : slow;
  }

  private @Nullable Double kept(double station) {
    return Double.isNaN(station) ? null : road.wrap(station);
  }

  private static @Nullable Double nullable(double value) {
    return Double.isNaN(value) ? null : value;
  }
}
