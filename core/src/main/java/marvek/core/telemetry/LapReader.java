package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.numeric.SavitzkyGolay;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.ReadReport.Sort;
import marvek.core.telemetry.RoadFit.OnRoad;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * Cuts a recording into laps, block by block. The time at the line is found between the two samples
 * on either side of it.
 */
public final class LapReader implements Blocks.Taker {
  private static final double LEAD = 14;
  private static final double FOLLOW = 8;
  private static final double MORE_THAN_A_LAP = 1.3;
  private static final double SHORTEST_PART = 0.2;
  private static final double EVENT_RATE = 50;
  private static final double OFF = 3;

  private final Centreline road;
  private final Vehicle vehicle;
  private final ReadReport report;
  private final Consumer<DrivenLap> taker;
  private final Cleaner cleaner;
  private final RoadFit fit;
  private double done = -Double.MAX_VALUE;
  private int laps;
  private int parts;

  /**
   * A reader for one recording.
   *
   * @param road driven on
   * @param plane of the road's metres on the earth, or null where that is not known
   * @param vehicle driven
   * @param report takes what was done
   * @param taker takes each lap as it is found
   */
  public LapReader(
      Centreline road,
      @Nullable LocalPlane plane,
      Vehicle vehicle,
      ReadReport report,
      Consumer<DrivenLap> taker) {
    this(road, plane, vehicle, report, taker, PlaceShift.Found.NONE, null);
  }

  /**
   * A reader that moves all places.
   *
   * @param shift by which they lie beside the road
   * @param beside takes the places as they were recorded, or null
   */
  LapReader(
      Centreline road,
      @Nullable LocalPlane plane,
      Vehicle vehicle,
      ReadReport report,
      Consumer<DrivenLap> taker,
      PlaceShift.Found shift,
      @Nullable PlaceShift beside) {
    this.road = road;
    this.vehicle = vehicle;
    this.report = report;
    this.taker = taker;
    this.cleaner = new Cleaner(report);
    this.fit = new RoadFit(road, plane, report, shift, beside);
  }

  /** Laps from line to line found so far. */
  public int laps() {
    return laps;
  }

  /** Parts of laps found so far. */
  public int parts() {
    return parts;
  }

  private record Crossing(double time, double station) {}

  @Override
  public int take(Samples block, boolean last) {
    if (block.size() < 12) {
      return 0;
    }
    Even even = cleaner.even(block);
    cleaner.speed(even);
    OnRoad on = fit.fit(even);
    pedals(on);
    List<Crossing> lines = on.placed() ? byPlace(on) : byCount(on);
    double[] time = even.time();
    int n = time.length;
    boolean begins = done == -Double.MAX_VALUE || time[0] > done + 1;
    if (lines.isEmpty()) {
      if (last && begins) {
        runsOn(on);
        part(on, 0, n, LapKind.INCOMPLETE, Said.of("remark.lap.no_line"));
      }
      return 0;
    }
    if (begins && lines.get(0).time() - time[0] > 1) {
      part(on, 0, index(on, lines.get(0).time()), LapKind.OUT, Said.NOTHING);
    }
    for (int i = 0; i + 1 < lines.size(); i++) {
      if (lines.get(i).time() > done - 0.5) {
        whole(on, lines.get(i), lines.get(i + 1));
        done = lines.get(i + 1).time();
      }
    }
    Crossing end = lines.get(lines.size() - 1);
    if (last) {
      if (time[n - 1] - end.time() > 1) {
        part(on, index(on, end.time()), n, LapKind.IN, Said.NOTHING);
      }
      done = -Double.MAX_VALUE;
      return 0;
    }
    done = Math.max(done, end.time());
    // The lap that is not over yet, and the approach to its first corner, are needed again.
    double from = end.time() - LEAD;
    double[] t = block.of(Channel.TIME);
    int k = Arrays.binarySearch(t, 0, block.size(), from);
    return Math.max(0, k < 0 ? -k - 1 : k);
  }

  private void pedals(OnRoad on) {
    Even even = on.even();
    cleaner.throttle(even);
    for (Channel c : List.of(Channel.BRAKE, Channel.FRONT_BRAKE, Channel.REAR_BRAKE)) {
      if (cleaner.brake(even, c)) {
        cleaner.brakeOffset(even, c, on.speed());
      }
    }
    together(even);
    cleaner.lag(even, on.speed(), on.curvature());
    boolean[] straight = new boolean[on.speed().length];
    for (int i = 0; i < straight.length; i++) {
      straight[i] = on.placed() && Math.abs(on.curvature()[i]) < 8e-4 && on.speed()[i] > 15;
    }
    cleaner.centre(even, Channel.STEERING, straight);
    cleaner.centre(even, Channel.LEAN, straight);
    SavitzkyGolay slope = Even.over(0.16, even.rate());
    double[] along = slope.slope(on.speed());
    for (int i = 0; i < along.length; i++) {
      along[i] *= even.rate();
    }
    // Worked out even where it was recorded: sensors of acceleration feel gradient and bumps.
    even.columns().put(Channel.ALONG, along);
    on.derived().add(Channel.ALONG);
    if (!even.has(Channel.ACROSS) && on.placed()) {
      double[] across = new double[along.length];
      for (int i = 0; i < across.length; i++) {
        across[i] = on.speed()[i] * on.speed()[i] * on.curvature()[i];
      }
      even.columns().put(Channel.ACROSS, across);
      on.derived().add(Channel.ACROSS);
      report.add(Sort.DERIVED, Said.of("report.recording.acceleration_across_from_path"));
    }
    if (!even.has(Channel.GEAR) && even.has(Channel.REVS)) {
      even.columns().put(Channel.GEAR, gears(even.of(Channel.REVS), on.speed()));
      on.derived().add(Channel.GEAR);
      report.add(Sort.DERIVED, Said.of("report.recording.gear_from_revs_speed"));
    }
    if (even.rate() < Trace.FEWEST) {
      report.add(
          Sort.DROPPED,
          Said.of(
              "report.recording.recorded_hz_tells_lap",
              Value.figure(even.rate(), 0),
              Value.figure(Trace.FEWEST, 0)));
      return;
    }
    for (Channel c : List.of(Channel.BRAKE, Channel.THROTTLE)) {
      if (!even.has(c)) {
        report.add(
            Sort.DERIVED, Said.of("report.recording.not_recorded_points_told", c.said().in()));
      }
    }
  }

  /** Where two brakes were recorded, the vehicle brakes as soon as either of them is pressed. */
  private void together(Even even) {
    boolean front = even.has(Channel.FRONT_BRAKE);
    boolean rear = even.has(Channel.REAR_BRAKE);
    if (even.has(Channel.BRAKE) || !front && !rear) {
      return;
    }
    double[] brake = even.of(front ? Channel.FRONT_BRAKE : Channel.REAR_BRAKE).clone();
    if (front && rear) {
      double[] other = even.of(Channel.REAR_BRAKE);
      for (int i = 0; i < brake.length; i++) {
        brake[i] = Math.max(brake[i], other[i]);
      }
    }
    even.columns().put(Channel.BRAKE, brake);
    report.add(
        Sort.DERIVED,
        Said.of(
            front && rear ? "report.recording.both_brakes" : "report.recording.one_brake",
            Value.choice(front)));
  }

  private double[] gears(double[] revs, double[] speed) {
    double[] out = new double[revs.length];
    double held = 1;
    for (int i = 0; i < out.length; i++) {
      double best = Double.MAX_VALUE;
      double gear = held;
      for (int g = 1; g <= vehicle.gears(); g++) {
        double miss =
            Math.abs(Math.log(Math.max(revs[i], 1) / Math.max(vehicle.revs(speed[i], g), 1)));
        if (miss < best) {
          best = miss;
          gear = g;
        }
      }
      held = best < 0.12 && speed[i] > 3 ? gear : held;
      out[i] = held;
    }
    return out;
  }

  private List<Crossing> byPlace(OnRoad on) {
    double[] s = on.station();
    double[] t = on.even().time();
    double length = road.length();
    List<Crossing> out = new ArrayList<>();
    for (int i = 1; i < s.length; i++) {
      double line = Math.floor(s[i] / length) * length;
      if (s[i - 1] < line && s[i] >= line && !on.even().gap()[i]) {
        double share = (line - s[i - 1]) / (s[i] - s[i - 1]);
        out.add(new Crossing(t[i - 1] + share * (t[i] - t[i - 1]), line));
      }
    }
    return out;
  }

  /** Crossings told from a lap number or from a distance that starts anew. */
  private List<Crossing> byCount(OnRoad on) {
    Even even = on.even();
    double[] t = even.time();
    List<Crossing> out = new ArrayList<>();
    boolean counted = even.has(Channel.LAP);
    boolean measured = even.has(Channel.DISTANCE);
    if (!counted && !measured && even.has(Channel.LATITUDE)) {
      throw Refusal.of("refusal.telemetry.layout_no_place_earth");
    }
    if (!counted && !measured) {
      throw Refusal.of("refusal.telemetry.recording_does_not_say");
    }
    double[] mark = even.of(counted ? Channel.LAP : Channel.DISTANCE);
    for (int i = 1; i < t.length; i++) {
      boolean over = counted ? mark[i] > mark[i - 1] + 0.5 : mark[i] < mark[i - 1] - 50;
      if (!over) {
        continue;
      }
      double time = t[i];
      if (!counted || measured) {
        double[] d = even.of(Channel.DISTANCE);
        // So much was driven since the line when the count began anew.
        time = d[i] < 100 && d[i] >= 0 ? t[i] - d[i] / Math.max(1, on.speed()[i]) : t[i];
      } else {
        time = (t[i] + t[i - 1]) / 2;
      }
      out.add(new Crossing(time, 0));
    }
    return out;
  }

  /** A distance that runs on over several laps does not say where the line is. */
  private void runsOn(OnRoad on) {
    double[] s = on.station();
    double driven = s[s.length - 1] - s[0];
    if (!on.placed() && driven > MORE_THAN_A_LAP * road.length()) {
      throw Refusal.of(
          "refusal.telemetry.distance_runs_laps_circuit", Value.figure(driven / road.length(), 1));
    }
  }

  private static int index(OnRoad on, double time) {
    double[] t = on.even().time();
    int k = Arrays.binarySearch(t, time);
    return k < 0 ? -k - 1 : k;
  }

  private void whole(OnRoad on, Crossing a, Crossing b) {
    double lapTime = b.time() - a.time();
    int from = index(on, a.time());
    int to = index(on, b.time());
    if (lapTime < 5 || to - from < 20) {
      return;
    }
    Trace trace = trace(on, a.time(), a.station(), from, to, on.placed() ? 1 : scale(on, from, to));
    laps++;
    LapKind kind = LapKind.PUSH;
    Said remark = Said.NOTHING;
    boolean gap = false;
    int off = 0;
    for (int i = from; i < to; i++) {
      gap |= on.even().gap()[i];
      off += on.away()[i] > OFF ? 1 : 0;
    }
    double driven = on.station()[to - 1] - on.station()[from];
    if (gap || (on.placed() && Math.abs(driven - road.length()) > 0.05 * road.length())) {
      kind = LapKind.INCOMPLETE;
      remark = Said.of("remark.lap.interrupted");
    } else if (off > 0.4 * on.even().rate()) {
      kind = LapKind.OFF;
      remark = Said.of("remark.lap.beyond", Value.figure(off / on.even().rate(), 1));
    }
    taker.accept(new DrivenLap(laps, kind, a.time(), lapTime, trace, remark));
  }

  private double scale(OnRoad on, int from, int to) {
    double driven = on.station()[to - 1] - on.station()[from];
    return driven > 100 ? road.length() / driven : 1;
  }

  private void part(OnRoad on, int from, int to, LapKind kind, Said remark) {
    double moved = to > from ? on.station()[to - 1] - on.station()[from] : 0;
    if (moved < SHORTEST_PART * road.length() && kind != LapKind.INCOMPLETE) {
      return;
    }
    if (moved < 50) {
      return;
    }
    double[] t = on.even().time();
    parts++;
    double line =
        on.placed()
            ? Math.floor(on.station()[from] / road.length() + 1e-6) * road.length()
            : on.station()[from];
    taker.accept(
        new DrivenLap(
            0, kind, t[from], t[to - 1] - t[from], trace(on, t[from], line, from, to, 1), remark));
  }

  private Trace trace(OnRoad on, double start, double line, int from, int to, double scale) {
    Even even = on.even();
    int n = even.time().length;
    int first = (int) Math.max(0, from - LEAD * even.rate());
    int after = (int) Math.min(n, to + FOLLOW * even.rate());
    double base = on.placed() ? line : on.station()[Math.min(from, n - 1)];
    int factor = even.rate() < EVENT_RATE * 0.8 ? (int) Math.round(EVENT_RATE / even.rate()) : 1;
    int count = (after - first - 1) * factor + 1;
    double[] time = new double[count];
    double[] station = new double[count];
    for (int k = 0; k < count; k++) {
      int i = first + k / factor;
      double u = (k % factor) / (double) factor;
      time[k] = even.time()[first] - start + k / (even.rate() * factor);
      station[k] = scale * (along(on, i, u, even.rate()) - base);
    }
    Map<Channel, double[]> channels = new EnumMap<>(Channel.class);
    fit.others(on)
        .forEach((c, v) -> channels.put(c, finer(v, first, count, factor, c == Channel.GEAR)));
    return new Trace(
        even.rate() * factor,
        even.rate(),
        time,
        station,
        finer(on.offset(), first, count, factor, false),
        finer(on.speed(), first, count, factor, false),
        finer(on.curvature(), first, count, factor, false),
        channels,
        on.derived(),
        (from - first) * factor,
        Math.min(count, (to - first) * factor));
  }

  /** Station between two samples, by the cubic that has the speeds at its ends. */
  private static double along(OnRoad on, int i, double u, double rate) {
    double[] s = on.station();
    if (u == 0 || i + 1 >= s.length) {
      return s[i];
    }
    double a = (s[i + 1] - s[i]);
    double p = on.speed()[i] / rate;
    double q = on.speed()[i + 1] / rate;
    boolean plain = Math.abs(p - a) > 0.2 * a || Math.abs(q - a) > 0.2 * a;
    if (plain) {
      return s[i] + u * a;
    }
    double h = u * u * (3 - 2 * u);
    return s[i] + h * a + u * (1 - u) * (1 - u) * p - u * u * (1 - u) * q;
  }

  private static double[] finer(double[] v, int first, int count, int factor, boolean steps) {
    double[] out = new double[count];
    for (int k = 0; k < count; k++) {
      int i = first + k / factor;
      double u = (k % factor) / (double) factor;
      out[k] = steps || u == 0 || i + 1 >= v.length ? v[i] : v[i] + u * (v[i + 1] - v[i]);
    }
    return out;
  }

  /**
   * Says of whole laps which were slow: cold tyres where they are the first, otherwise for a reason
   * that the recording does not tell.
   */
  public static List<DrivenLap> judged(List<DrivenLap> laps) {
    double[] times =
        laps.stream()
            .filter(l -> l.kind() == LapKind.PUSH)
            .mapToDouble(DrivenLap::lapTime)
            .sorted()
            .toArray();
    if (times.length < 3) {
      return laps;
    }
    double best = times[0];
    double middle = times[times.length / 2];
    List<DrivenLap> out = new ArrayList<>();
    int flying = 0;
    for (DrivenLap l : laps) {
      if (l.kind() != LapKind.PUSH) {
        out.add(l);
        continue;
      }
      flying++;
      double over = l.lapTime() / best - 1;
      boolean first = flying <= 3 && l.lapTime() > middle * 1.01;
      if (over > 0.07) {
        out.add(l.as(LapKind.SLOW, Said.of("remark.lap.slower", Value.figure(over * 100, 0))));
      } else if (first && over > 0.02) {
        out.add(
            l.as(
                LapKind.COLD,
                Said.of("remark.lap.cold", Value.count(flying), Value.figure(over * 100, 1))));
      } else {
        out.add(l);
      }
    }
    return out;
  }
}
