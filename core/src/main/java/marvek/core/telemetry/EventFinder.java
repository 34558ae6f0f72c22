package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntPredicate;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import org.jspecify.annotations.Nullable;

/**
 * Finds what happened in each corner of a lap. Edges of pedal signals are found by going from the
 * middle of the signal outwards and drawing the flank on to where it leaves zero, so that noise at
 * rest does not count.
 */
public final class EventFinder {
  /** Share of the greatest bend of the path at which a turn counts as begun. */
  static final double STEERING_SHARE = 0.3;

  private static final double TOUCH = 0.05;
  private static final double PRESSED = 0.06;
  private static final double FULL = 0.965;

  private static final double INSIDE = 0.2;
  private static final double REST = 22;
  // A rise that was only seen through the speed starts about this long before its middle.
  private static final double HALF_RISE = 0.06;
  private static final double GRAVITY = 9.80665;
  // Speed of a wheel's rim as a share of the vehicle's.
  private static final double LOCKED = 0.75;
  private static final double SPINNING = 1.15;

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

  /** Events of the corners that a lap holds whole, in driving order. */
  public List<CornerEvents> find(DrivenLap lap) {
    Trace trace = withPedals(lap.trace());
    double[] hands = hands(trace);
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
        out.add(new Finder(trace, hands, c).events());
      }
    }
    return out;
  }

  /** Metres before a bend at which the place of arrival is read. */
  public static final double ARRIVAL = 60;

  private double arrival(Corner corner) {
    int c = corners.indexOf(corner);
    return arrival(road, corners, c);
  }

  /** The same, less where the corner before is close. */
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
  private static double @Nullable [] hands(Trace t) {
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
      out[i] = GRAVITY * Math.tan(Math.max(-1.3, Math.min(1.3, lean[i]))) / (v * v);
    }
    return out;
  }

  /** One corner of one lap. */
  private final class Finder {
    private final Trace t;
    private final double @Nullable [] hands;
    private final Corner corner;
    private final double sign;
    private final double[] s;
    private final double[] v;
    private final double[] brake;
    private final double[] throttle;
    private final boolean seenBrake;
    private final boolean seenThrottle;
    private final double from;
    private final double to;
    private final double nextEntry;
    private final int first;
    private final int last;

    Finder(Trace t, double @Nullable [] hands, int c) {
      this.t = t;
      this.hands = hands;
      this.corner = corners.get(c);
      this.sign = corner.left() ? 1 : -1;
      this.s = t.station();
      this.v = t.speed();
      this.brake = t.of(Channel.BRAKE);
      this.throttle = t.of(Channel.THROTTLE);
      this.seenBrake = t.recorded(Channel.BRAKE);
      this.seenThrottle = t.recorded(Channel.THROTTLE);
      int count = corners.size();
      Corner before = corners.get((c + count - 1) % count);
      Corner after = corners.get((c + 1) % count);
      double start = corner.apexes().get(0);
      double back = count == 1 ? road.length() / 2 : road.ahead(before.apex(), start);
      double onward =
          count == 1 ? road.length() / 2 : road.ahead(corner.apex(), after.apexes().get(0));
      double apex = corner.apex();
      // The first apex lies before the last, also where the line lies between them.
      this.from = apex - road.ahead(start, apex) - Math.min(back, 700);
      this.to = apex + Math.min(onward, 700);
      this.nextEntry = count == 1 ? to : apex + road.ahead(apex, after.entry());
      this.first = t.at(from);
      this.last = Math.min(t.size() - 1, t.at(to));
    }

    private double unwrapped(double station) {
      double apex = corner.apex();
      return apex + road.apart(apex, station);
    }

    private @Nullable Double kept(double station) {
      return Double.isNaN(station) ? null : road.wrap(station);
    }

    CornerEvents events() {
      double entry = unwrapped(corner.entry());
      double exit = unwrapped(corner.exit());
      int slowFrom =
          Math.max(
              first,
              t.at(Math.max(from + 5, entry - Math.max(5, Math.min(40, 0.3 * (entry - from))))));
      int slowTo = Math.min(last, t.at(Math.min(to - 5, exit + 25)));
      int slow = slowest(slowFrom, Math.max(slowFrom, beforeNext(slowFrom, slowTo)));
      int fast = fastest(first, slow);

      int pressEnd = lastPress(slow);
      int pressStart = pressEnd < 0 ? -1 : firstPress(pressEnd);
      boolean brakes = pressStart >= 0;
      double brakeAt = brakes ? risen(pressStart, pressEnd) : Double.NaN;
      double releaseAt = brakes ? fallen(pressEnd) : Double.NaN;
      int peak = brakes ? highest(brake, pressStart, pressEnd) : slow;

      int search = brakes ? pressStart : Math.max(first, slow - (int) (3 * t.rate()));
      double[] place = apexes(entry, exit);
      int apexIndex = Double.isNaN(place[1]) ? slow : Math.min(t.size() - 1, t.at(place[1]));
      double turnIn = turnIn(Double.isNaN(place[0]) ? place[1] : place[0], slow);
      int open = throttleOn(search, slow, brakes ? pressEnd : -1);
      int full = open < 0 ? -1 : fullFrom(open);
      double openAt = open < 0 ? Double.NaN : seenThrottle ? touched(open) : s[open];
      double fullAt = full < 0 ? Double.NaN : filled(open, full);
      int exitIndex = Math.min(last, t.at(exit));
      int begin = brakes ? pressStart : open < 0 ? slow : search;
      double lift = lift(begin);
      int shut = brakes ? shut(pressStart) : -1;
      double[] wide = widest(Math.max(apexIndex, slow));
      return new CornerEvents(
          corner.id(),
          kept(lift),
          kept(brakeAt),
          brakes ? brake[peak] : 0,
          brakes ? t.time()[peak] - timeAt(brakeAt) : null,
          kept(releaseAt),
          brakes ? presses(pressStart, pressEnd) : 0,
          shut < 0 || !seenThrottle || !seenBrake ? null : timeAt(brakeAt) - t.time()[shut],
          kept(turnIn),
          t.placed() ? lineShift(entry) : null,
          kept(place[0]),
          kept(place[1]),
          Double.isNaN(place[2]) ? null : place[2],
          t.placed() ? nullable(t.value(t.offset(), entry - arrival(corner))) : null,
          v[slow],
          road.wrap(s[slow]),
          v[fast],
          v[exitIndex],
          Double.isNaN(releaseAt) || Double.isNaN(openAt) || !seenBrake || !seenThrottle
              ? null
              : timeAt(openAt) - timeAt(releaseAt),
          seenBrake && seenThrottle ? coasting(lift, openAt) : 0,
          kept(openAt),
          kept(fullAt),
          open < 0 || !seenThrottle ? 0 : lifts(open, exitIndex),
          kept(wide[0]),
          Double.isNaN(wide[1]) ? null : wide[1],
          gear(brakes ? pressStart : fast),
          gear(slow),
          downshifts(brakes ? pressStart : fast, slow),
          limiter(slow),
          Double.isNaN(turnIn) ? 0 : corrections(turnIn, exit),
          brakes ? locks(pressStart, pressEnd) : 0,
          open < 0 ? 0 : spins(open, Math.min(last, exitIndex + (int) t.rate())),
          strike(entry, exit));
    }

    private @Nullable Double nullable(double value) {
      return Double.isNaN(value) ? null : value;
    }

    private int slowest(int a, int b) {
      int best = a;
      for (int i = a; i <= b; i++) {
        if (v[i] < v[best]) {
          best = i;
        }
      }
      return best;
    }

    private int fastest(int a, int b) {
      int best = b;
      for (int i = b; i >= a; i--) {
        if (v[i] > v[best]) {
          best = i;
        }
      }
      return best;
    }

    /** Where the brake is pressed anew after the apex, the next corner has begun. */
    private int beforeNext(int a, int b) {
      int off = 0;
      for (int i = Math.max(a, t.at(corner.apex() - 10)); i <= b; i++) {
        if (brake[i] > PRESSED && off > 0.12 * t.rate()) {
          return i;
        }
        off = brake[i] > PRESSED ? 0 : off + 1;
      }
      return b;
    }

    private int highest(double[] x, int a, int b) {
      int best = a;
      for (int i = a; i <= b; i++) {
        if (x[i] > x[best]) {
          best = i;
        }
      }
      return best;
    }

    /**
     * The last sample of braking for this corner: of the press that lasts over the slowest place,
     * or of the last one before it.
     */
    private int lastPress(int slow) {
      int near = Math.min(last, slow + (int) (0.12 * t.rate()));
      int end = -1;
      for (int i = near; i > first; i--) {
        if (brake[i] > PRESSED) {
          end = i;
          break;
        }
        if (throttle[i] > 0.5 && s[i] < s[slow] - 60) {
          break;
        }
      }
      while (end >= 0 && end < last && brake[end + 1] > PRESSED) {
        end++;
      }
      // Braking that ended long before the corner belongs to another one.
      return end >= 0 && s[slow] - s[end] < 160 ? end : -1;
    }

    /** The first sample of the same braking; short releases in between belong to it. */
    private int firstPress(int end) {
      int start = end;
      int gap = 0;
      for (int i = end; i >= first; i--) {
        if (brake[i] > PRESSED) {
          start = i;
          gap = 0;
        } else {
          gap++;
          if (gap > 1.2 * t.rate() || throttle[i] > 0.4) {
            break;
          }
        }
      }
      // A press too short to slow anything is noise of the sensor.
      return end - start < 0.08 * t.rate() ? -1 : start;
    }

    private double risen(int start, int end) {
      int to = (int) Math.min(end, start + 0.6 * t.rate());
      double top = brake[highest(brake, start, to)];
      if (!seenBrake) {
        double middle = crossed(brake, start, 0.5 * top, -1);
        return middle - HALF_RISE * v[start];
      }
      double low = crossed(brake, start, Math.max(PRESSED, 0.15 * top), 1);
      double high = crossed(brake, start, 0.6 * top, 1);
      double share = (0.6 * top - Math.max(PRESSED, 0.15 * top));
      double back = share > 1e-6 ? (high - low) * Math.max(PRESSED, 0.15 * top) / share : 0;
      return low - Math.max(0, Math.min(back, 0.5 * v[start]));
    }

    /** Station where a rising signal crosses a level, looked for from a sample near it. */
    private double crossed(double[] x, int near, double level, int way) {
      int i = near;
      if (way > 0 || x[i] < level) {
        while (i < last && x[i] < level) {
          i++;
        }
      }
      while (i > first && x[i - 1] >= level) {
        i--;
      }
      if (i == 0 || x[i] == x[i - 1]) {
        return s[i];
      }
      double share = (level - x[i - 1]) / (x[i] - x[i - 1]);
      return s[i - 1] + Math.max(0, Math.min(1, share)) * (s[i] - s[i - 1]);
    }

    private double fallen(int end) {
      double a = falls(end, 2.5 * PRESSED);
      double b = falls(end, PRESSED);
      double onward = Double.isNaN(a) ? 0 : (b - a) / 1.5;
      return b + Math.max(0, Math.min(onward, seenBrake ? 0.5 * v[end] : 0));
    }

    /** Station where the signal last falls through a level before a sample. */
    private double falls(int end, double level) {
      int i = Math.min(last, end + 1);
      while (i > first && brake[i - 1] < level) {
        i--;
      }
      if (i <= first || i >= s.length || t.time()[end] - t.time()[i] > 1) {
        return Double.NaN;
      }
      double share = (brake[i - 1] - level) / Math.max(1e-9, brake[i - 1] - brake[i]);
      return s[i - 1] + Math.max(0, Math.min(1, share)) * (s[i] - s[i - 1]);
    }

    private int presses(int start, int end) {
      int count = 1;
      int off = 0;
      double top = brake[highest(brake, start, end)];
      for (int i = start; i <= end; i++) {
        if (brake[i] < Math.max(PRESSED, 0.15 * top)) {
          off++;
        } else {
          if (off > 0.12 * t.rate()) {
            count++;
          }
          off = 0;
        }
      }
      return count;
    }

    private double timeAt(double station) {
      return t.value(t.time(), station);
    }

    private double lift(int begin) {
      int i = begin;
      int limit = Math.max(first, begin - (int) (6 * t.rate()));
      while (i > limit && throttle[i] < 0.9) {
        i--;
      }
      return throttle[i] >= 0.9 && i < begin ? s[i] : Double.NaN;
    }

    /** Sample at which the throttle is shut before or after a press begins. */
    private int shut(int start) {
      int i = Math.min(last, start + (int) (0.5 * t.rate()));
      if (throttle[i] > TOUCH) {
        return -1;
      }
      while (i > first && throttle[i - 1] <= TOUCH) {
        i--;
      }
      return t.time()[start] - t.time()[i] > 4 ? -1 : i;
    }

    private double[] apexes(double entry, double exit) {
      if (!t.placed()) {
        return new double[] {Double.NaN, Double.NaN, Double.NaN};
      }
      double slack = 20;
      if (corner.apexes().size() == 2) {
        double a = unwrapped(corner.apexes().get(0));
        double middle = (a + corner.apex()) / 2;
        double[] one = closest(Math.max(from, entry - slack), middle);
        double[] two = closest(middle, Math.min(to, exit + slack));
        return new double[] {one[0], two[0], two[1]};
      }
      double[] only =
          closest(
              Math.max(from, Math.max(entry - slack, corner.apex() - 80)),
              Math.min(to, Math.min(exit + slack, corner.apex() + 80)));
      return new double[] {Double.NaN, only[0], only[1]};
    }

    private double gap(int i) {
      int k = road.index(s[i]);
      return corner.left() ? road.left()[k] - t.offset()[i] : road.right()[k] + t.offset()[i];
    }

    /**
     * Station and gap of the closest approach to the inside: the middle of the stretch that lies
     * within 0.2 m of it, as one runs along the inside for a while.
     */
    private double[] closest(double a, double b) {
      int i = t.at(a);
      int end = Math.min(t.size() - 1, t.at(b));
      int best = i;
      for (int k = i; k <= end; k++) {
        best = gap(k) < gap(best) ? k : best;
      }
      int low = best;
      int high = best;
      while (low > i && gap(low - 1) < gap(best) + INSIDE) {
        low--;
      }
      while (high < end && gap(high + 1) < gap(best) + INSIDE) {
        high++;
      }
      double sum = 0;
      for (int k = low; k <= high; k++) {
        sum += gap(k);
      }
      // The closest of many noisy samples is closer than was driven; their mean is not.
      double mean = sum / (high - low + 1);
      return new double[] {(s[low] + s[high]) / 2, (mean + gap(best)) / 2};
    }

    private double turnIn(double apex, int slow) {
      double[] u = new double[t.size()];
      double[] steered = hands;
      if (steered == null && !t.placed()) {
        return Double.NaN;
      }
      double[] column = steered != null ? steered : t.curvature();
      // Devices disagree on which side is positive: the side of the corner itself tells.
      double around = Double.isNaN(apex) ? s[slow] : apex;
      double side = 0;
      int mid = Math.min(t.size() - 1, t.at(around));
      int lo = Math.max(first, t.at(around - 20));
      int hi = Math.min(last, t.at(around + 20));
      for (int i = lo; i <= hi; i++) {
        side += column[i];
      }
      double turn = steered != null ? Math.signum(side) : sign;
      // A path that was only seen by positions weaves on the straight: far before the bend it is
      // not the corner.
      double begins =
          steered != null ? around - 160 : Math.max(around - 160, unwrapped(corner.entry()) - 50);
      int back = Math.max(first, t.at(Math.max(from, begins)));
      int width = (int) Math.max(1, Math.round(0.04 * t.rate()));
      for (int i = back; i <= hi; i++) {
        double sum = 0;
        int n = 0;
        for (int k = Math.max(0, i - width); k <= Math.min(t.size() - 1, i + width); k++) {
          sum += column[k];
          n++;
        }
        u[i] = turn * sum / n;
      }
      double peak = 0;
      for (int i = lo; i <= hi; i++) {
        peak = Math.max(peak, u[i]);
      }
      // Hands that rest for a moment on the way have not left the corner.
      int begun = mid;
      double rest = steered != null ? REST : 2 * REST;
      for (int k = mid; k > back && s[begun] - s[k] < rest; k--) {
        begun = u[k] > STEERING_SHARE * peak ? k : begun;
      }
      int i = begun - 1;
      if (i <= back || peak <= 0) {
        return Double.NaN;
      }
      double share = (STEERING_SHARE * peak - u[i]) / Math.max(1e-9, u[i + 1] - u[i]);
      return s[i] + Math.max(0, Math.min(1, share)) * (s[i + 1] - s[i]);
    }

    /** The shift along the road at which the usual line fits best what was driven on the way in. */
    private @Nullable Double lineShift(double entry) {
      double a = Math.max(from + 10, entry - 30);
      double b = unwrapped(corner.apexes().get(0));
      if (b - a < 25 || t.at(a) == 0 || t.at(b) >= t.size()) {
        return null;
      }
      double best = 0;
      double least = Double.MAX_VALUE;
      for (double d = -20; d <= 20; d += 0.5) {
        double sum = 0;
        for (double x = a; x <= b; x += 2) {
          double miss = t.value(t.offset(), x) - line.offset()[road.index(x - d)];
          sum += miss * miss;
        }
        if (sum < least) {
          least = sum;
          best = d;
        }
      }
      return best;
    }

    /** The sample from which the throttle is touched for good after the braking or lift. */
    private int throttleOn(int search, int slow, int pressEnd) {
      int i = search;
      while (i < last && throttle[i] > TOUCH) {
        i++;
      }
      if (i >= Math.min(last, slow + (int) (4 * t.rate()))) {
        return -1;
      }
      int hold = (int) Math.max(2, (seenThrottle ? 0.18 : 0.3) * t.rate());
      for (; i < last - hold; i++) {
        if (throttle[i] <= TOUCH) {
          continue;
        }
        int k = i;
        while (k < last && throttle[k] > 0.8 * TOUCH) {
          k++;
        }
        boolean blip = i < slow && pressEnd >= 0 && i < pressEnd && k - i < 0.45 * t.rate();
        if (k - i >= hold && !blip) {
          return i;
        }
        i = k;
      }
      return -1;
    }

    private double touched(int open) {
      double a = crossed(throttle, open, TOUCH, 1);
      return a - 0.02 * v[open];
    }

    /** The sample from which the throttle stays full until the next corner is slowed for. */
    private int fullFrom(int open) {
      int hold = (int) (0.25 * t.rate());
      for (int i = open; i < last - 1; i++) {
        if (throttle[i] < FULL) {
          continue;
        }
        int k = i;
        while (k < last && throttle[k] >= FULL - 0.04) {
          k++;
        }
        if (k - i < hold) {
          i = k;
          continue;
        }
        return i;
      }
      return -1;
    }

    private double filled(int open, int full) {
      if (!seenThrottle) {
        return s[full];
      }
      double b = crossed(throttle, full, 0.93, -1);
      double a = crossed(throttle, full, 0.8, -1);
      double onward = (b - a) * 0.07 / 0.13;
      boolean drawn = a > s[open] - 1 && onward >= 0;
      return drawn ? b + Math.min(onward, 0.5 * v[full]) : s[full];
    }

    private int lifts(int open, int exitIndex) {
      // What is eased for the next corner is not a lift in this one.
      int next = t.at(Math.min(to - 30, nextEntry + 5));
      int end = Math.min(last, Math.min(exitIndex + (int) (1.5 * t.rate()), Math.max(next, open)));
      double top = 0;
      int count = 0;
      boolean eased = false;
      double low = 1;
      for (int i = open; i <= end; i++) {
        if (brake[i] > PRESSED && i > open + t.rate() / 3) {
          break;
        }
        if (!eased) {
          top = Math.max(top, throttle[i]);
          if (throttle[i] < top - 0.18) {
            eased = true;
            low = throttle[i];
          }
        } else {
          low = Math.min(low, throttle[i]);
          if (throttle[i] > low + 0.15) {
            count++;
            eased = false;
            top = throttle[i];
          }
        }
      }
      return count;
    }

    private double coasting(double lift, double open) {
      if (Double.isNaN(open)) {
        return 0;
      }
      double begin = Double.isNaN(lift) ? from : lift;
      int a = Math.max(first, t.at(begin));
      int b = Math.min(last, t.at(open));
      int n = 0;
      for (int i = a; i < b; i++) {
        n += throttle[i] < TOUCH && brake[i] < TOUCH ? 1 : 0;
      }
      return n / t.rate();
    }

    private double[] widest(int apex) {
      if (!t.placed()) {
        return new double[] {Double.NaN, Double.NaN};
      }
      double half = limits.vehicle().width() / 2;
      double reach = Math.min(to - 10, unwrapped(corner.exit()) + 60);
      double at = Double.NaN;
      double least = Double.MAX_VALUE;
      for (int i = apex + 2; i < last && s[i] <= reach; i++) {
        int k = road.index(s[i]);
        double room =
            (corner.left() ? road.right()[k] + t.offset()[i] : road.left()[k] - t.offset()[i])
                - half;
        if (room < least) {
          least = room;
          at = s[i];
        }
      }
      return new double[] {at, Double.isNaN(at) ? Double.NaN : least};
    }

    private @Nullable Integer gear(int i) {
      return t.has(Channel.GEAR) && i >= 0 ? (int) Math.round(t.of(Channel.GEAR)[i]) : null;
    }

    private List<Double> downshifts(int a, int b) {
      List<Double> out = new ArrayList<>();
      if (!t.has(Channel.GEAR)) {
        return out;
      }
      double[] g = t.of(Channel.GEAR);
      for (int i = Math.max(1, a); i <= b; i++) {
        if (g[i] >= 0.5 && g[i] < g[i - 1] - 0.5) {
          out.add(road.wrap(s[i]));
        }
      }
      return out;
    }

    private double limiter(int slow) {
      if (!t.recorded(Channel.REVS)) {
        return 0;
      }
      double[] revs = t.of(Channel.REVS);
      double limit = 0.99 * limits.vehicle().engine().limitRevs();
      int n = 0;
      for (int i = slow; i < last; i++) {
        n += revs[i] >= limit && throttle[i] > 0.8 ? 1 : 0;
      }
      return n / t.rate();
    }

    /** Times the hands went back by a fifth of the most and on again, before they unwind. */
    private int corrections(double turnIn, double exit) {
      boolean steered = t.recorded(Channel.STEERING);
      if (!steered && !t.recorded(Channel.LEAN)) {
        return 0;
      }
      double[] raw = t.of(steered ? Channel.STEERING : Channel.LEAN);
      int a = t.at(turnIn);
      int b = Math.min(last, t.at(exit + 15));
      int width = (int) Math.max(1, Math.round(0.05 * t.rate()));
      double side = 0;
      for (int i = a; i <= b; i++) {
        side += raw[i];
      }
      double turn = Math.signum(side);
      double[] u = new double[Math.max(0, b - a + 1)];
      double peak = 0;
      for (int i = a; i <= b; i++) {
        double sum = 0;
        int n = 0;
        for (int k = Math.max(0, i - width); k <= Math.min(raw.length - 1, i + width); k++) {
          sum += raw[k];
          n++;
        }
        u[i - a] = turn * sum / n;
        peak = Math.max(peak, u[i - a]);
      }
      int count = 0;
      double top = 0;
      double low = 0;
      int topAt = 0;
      int lowAt = 0;
      boolean back = false;
      for (int i = 0; i < u.length; i++) {
        if (!back) {
          if (u[i] >= top) {
            top = u[i];
            topAt = i;
          }
          if (u[i] < top - 0.2 * peak) {
            back = true;
            low = u[i];
            lowAt = i;
          }
        } else {
          if (u[i] <= low) {
            low = u[i];
            lowAt = i;
          }
          if (u[i] > low + 0.15 * peak) {
            // Two bends of one corner are slower than a correction.
            count += lowAt - topAt < 0.8 * t.rate() ? 1 : 0;
            back = false;
            top = u[i];
            topAt = i;
          }
        }
      }
      // Between two apexes the hands come back once on purpose.
      return Math.max(0, count - (corner.apexes().size() - 1));
    }

    private int locks(int a, int b) {
      int count = 0;
      for (Channel c : List.of(Channel.WHEEL_FRONT, Channel.WHEEL_REAR)) {
        if (!t.recorded(c)) {
          continue;
        }
        double[] w = t.of(c);
        count += runs(a, b, i -> w[i] < LOCKED * v[i]);
      }
      return count;
    }

    private int spins(int a, int b) {
      if (!t.recorded(Channel.WHEEL_REAR)) {
        return 0;
      }
      double[] w = t.of(Channel.WHEEL_REAR);
      return runs(a, b, i -> throttle[i] > TOUCH && w[i] > SPINNING * v[i]);
    }

    /** How often something held for long enough not to be noise, while the vehicle moves. */
    private int runs(int a, int b, IntPredicate holds) {
      int enough = (int) Math.ceil(0.08 * t.rate());
      int count = 0;
      int run = 0;
      for (int i = a; i <= b; i++) {
        run = v[i] > 8 && holds.test(i) ? run + 1 : 0;
        count += run == enough ? 1 : 0;
      }
      return count;
    }

    private @Nullable Double strike(double entry, double exit) {
      if (!t.recorded(Channel.VERTICAL)) {
        return null;
      }
      double[] z = t.of(Channel.VERTICAL);
      int a = Math.max(first, t.at(entry - 20));
      int b = Math.min(last, t.at(exit + 40));
      double mean = 0;
      for (int i = a; i < b; i++) {
        mean += z[i] / Math.max(1, b - a);
      }
      double most = 0;
      for (int i = a; i < b; i++) {
        most = Math.max(most, Math.abs(z[i] - mean));
      }
      return most;
    }
  }
}
