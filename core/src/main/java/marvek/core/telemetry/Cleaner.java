package marvek.core.telemetry;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.ReadReport.Sort;
import org.jspecify.annotations.Nullable;

/**
 * Brings the channels of a recording to even samples that can be trusted: gaps and spikes bridged,
 * pedals scaled to their whole travel, false offsets removed. What it learns of a device from the
 * first block holds for the whole recording.
 */
final class Cleaner {
  static final double LONGEST_BRIDGE = 2;
  private static final double FASTEST = 130;
  private static final double HARDEST = 60;
  private static final int BINS = 26;
  private static final double BIN = 5;
  // Share of a pedal's travel that can be its rest; of the throttle what no foot holds for long.
  private static final double REST = 0.3;
  private static final double NOT_HELD = 0.15;
  // A press that stands out: share of the hardest, seconds of it, and of the shortest one; times
  // what is only noise.
  private static final double FIRM = 0.3;
  private static final double ENOUGH = 0.5;
  private static final double SHORTEST = 0.15;
  // A throttle within so much of its least is at its stop.
  private static final double AT_STOP = 0.05;
  private static final double TIMES_NOISE = 8;

  private static final Set<Channel> ON_BOARD =
      EnumSet.of(
          Channel.BRAKE,
          Channel.FRONT_BRAKE,
          Channel.REAR_BRAKE,
          Channel.THROTTLE,
          Channel.STEERING,
          Channel.GEAR,
          Channel.REVS,
          Channel.ACROSS,
          Channel.VERTICAL,
          Channel.LEAN,
          Channel.WHEEL_FRONT,
          Channel.WHEEL_REAR);

  private final ReadReport report;
  private double lag = Double.NaN;
  private final Map<Channel, Double> full = new EnumMap<>(Channel.class);
  private final Map<Channel, Double> rest = new EnumMap<>(Channel.class);
  private final Map<Channel, double[]> falseOffset = new EnumMap<>(Channel.class);
  private final Map<Channel, Boolean> dead = new EnumMap<>(Channel.class);

  Cleaner(ReadReport report) {
    this.report = report;
  }

  /** Resamples a block evenly, bridging what is missing for a short while. */
  Even even(Samples block) {
    int n = block.size();
    double[] t = block.of(Channel.TIME);
    double[] steps = new double[n - 1];
    for (int i = 1; i < n; i++) {
      steps[i - 1] = t[i] - t[i - 1];
    }
    Arrays.sort(steps);
    double step = steps[steps.length / 2];
    double rate = 1 / Math.max(step, 0.01);
    int count = (int) Math.floor((t[n - 1] - t[0]) * rate + 1e-6) + 1;
    double[] time = new double[count];
    boolean[] gap = new boolean[count];
    for (int k = 0; k < count; k++) {
      time[k] = t[0] + k / rate;
    }
    Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
    for (Channel c : block.channels()) {
      if (c != Channel.TIME && useful(c, block)) {
        columns.put(c, resampled(c, block, time, gap));
      }
    }
    return new Even(rate, time, columns, gap);
  }

  private boolean useful(Channel c, Samples block) {
    Boolean known = dead.get(c);
    if (known != null) {
      return !known;
    }
    double[] v = block.of(c);
    double low = Double.MAX_VALUE;
    double high = -Double.MAX_VALUE;
    for (int i = 0; i < block.size(); i++) {
      if (!Double.isNaN(v[i])) {
        low = Math.min(low, v[i]);
        high = Math.max(high, v[i]);
      }
    }
    boolean none = high < low;
    boolean flat = !none && high - low < 1e-9 && c != Channel.LAP && c != Channel.HEIGHT;
    if (flat) {
      report.add(
          Sort.DROPPED,
          Said.of(
              "report.recording.same_throughout", c.said().beginning(), Value.choice(high == 0)));
    }
    dead.put(c, none || flat);
    return !(none || flat);
  }

  private double[] resampled(Channel c, Samples block, double[] time, boolean[] gap) {
    double[] v = block.of(c);
    double[] t = block.of(Channel.TIME);
    int n = block.size();
    boolean steps = c == Channel.GEAR || c == Channel.LAP;
    int[] known = new int[n];
    int m = 0;
    for (int i = 0; i < n; i++) {
      if (!Double.isNaN(v[i])) {
        known[m++] = i;
      }
    }
    double[] out = new double[time.length];
    int j = 0;
    for (int k = 0; k < time.length; k++) {
      while (j < m && t[known[j]] <= time[k] + 1e-9) {
        j++;
      }
      if (j == 0) {
        out[k] = v[known[0]];
      } else if (j == m || steps) {
        out[k] = v[known[j - 1]];
      } else {
        int before = known[j - 1];
        double span = t[known[j]] - t[before];
        out[k] = v[before] + (time[k] - t[before]) / span * (v[known[j]] - v[before]);
        gap[k] |= span > LONGEST_BRIDGE && time[k] > t[before] + 1e-9;
      }
    }
    return out;
  }

  /** Takes values away that no vehicle reaches, and bridges them. */
  void spikes(Even even, Channel c, double most, double mostSlope) {
    double[] v = even.of(c);
    int n = v.length;
    int found = 0;
    double step = mostSlope / even.rate() + 1e-9;
    int last = -1;
    for (int i = 0; i < n; i++) {
      boolean bad = Double.isNaN(v[i]) || Math.abs(v[i]) > most;
      if (!bad && last >= 0 && i - last < even.rate()) {
        bad = Math.abs(v[i] - v[last]) > step * (i - last) + spare(c);
      }
      if (bad) {
        found++;
        continue;
      }
      if (last >= 0 && i - last > 1) {
        for (int k = last + 1; k < i; k++) {
          v[k] = v[last] + (v[i] - v[last]) * (k - last) / (i - last);
        }
      } else if (last < 0) {
        Arrays.fill(v, 0, i, v[i]);
      }
      last = i;
    }
    if (last >= 0) {
      Arrays.fill(v, last + 1, n, v[last]);
    }
    if (found > 0) {
      report.add(
          Sort.CLEANED, Said.of("report.recording.values_no_vehicle_reaches", c.said().in()));
    }
  }

  private static double spare(Channel c) {
    return c == Channel.SPEED ? 2.5 : 0;
  }

  void speed(Even even) {
    if (even.has(Channel.SPEED)) {
      spikes(even, Channel.SPEED, FASTEST, HARDEST);
    }
  }

  /**
   * Scales the throttle to 0 shut and 1 fully open. What it never falls below is where it is shut
   * only if that is what it shows while the brake is pressed, or so little that no foot holds it:
   * on a circuit that is only lifted for, it is held.
   */
  void throttle(Even even) {
    if (!even.has(Channel.THROTTLE)) {
      return;
    }
    double[] v = even.of(Channel.THROTTLE);
    if (!full.containsKey(Channel.THROTTLE)) {
      Travel t = Travel.of(v);
      boolean share = t.high() > 0.5 && t.high() <= 1.05 && t.low() > -0.03;
      double base = share ? shut(even, t.low()) : Math.min(t.low(), REST * t.high());
      double top = share && t.high() > 0.97 ? 1 : t.high();
      learned(Channel.THROTTLE, base, top);
      if (Math.abs(base) > 0.03 || Math.abs(top - 1) > 0.03) {
        report.add(
            Sort.CLEANED,
            Said.of(
                "report.recording.throttle_runs_from_taken",
                Value.figure(base * 100, 0),
                Value.figure(top * 100, 0)));
      } else if (share && t.low() > NOT_HELD) {
        report.add(
            Sort.READ,
            Said.of(
                "report.recording.throttle_hardly_falls_below", Value.figure(t.low() * 100, 0)));
      }
    }
    scale(v, Channel.THROTTLE);
  }

  /** What the throttle shows when it is shut, by what it does while the brake is pressed. */
  private static double shut(Even even, double low) {
    if (low < 0.03) {
      return 0;
    }
    double[] v = even.of(Channel.THROTTLE);
    for (Channel c : List.of(Channel.BRAKE, Channel.FRONT_BRAKE, Channel.REAR_BRAKE)) {
      if (!even.has(c)) {
        continue;
      }
      double[] brake = even.of(c);
      Travel t = Travel.of(brake);
      if (!t.pressed(brake, even.rate(), null)) {
        continue;
      }
      double firm = t.low() + FIRM * (t.high() - t.low());
      double[] braked =
          IntStream.range(0, v.length)
              .filter(i -> brake[i] > firm && !Double.isNaN(v[i]))
              .mapToDouble(i -> v[i])
              .sorted()
              .toArray();
      boolean shut = braked.length >= ENOUGH * even.rate();
      if (shut && braked[braked.length / 2] < low + AT_STOP) {
        return Math.min(low, REST);
      }
    }
    return low <= NOT_HELD ? low : 0;
  }

  /**
   * Scales a brake to 0 at rest and 1 at its hardest press, and to 0 where it is not pressed at
   * all.
   *
   * @return whether it is pressed
   */
  boolean brake(Even even, Channel c) {
    if (!even.has(c)) {
      return false;
    }
    double[] v = even.of(c);
    if (!full.containsKey(c)) {
      Travel t = Travel.of(v);
      if (!t.pressed(v, even.rate(), even.columns().get(Channel.THROTTLE))) {
        // The hardest of what scatters about nothing is no press.
        Arrays.fill(v, 0);
        return false;
      }
      learned(c, Math.min(t.low(), REST * t.high()), t.high());
      report.add(Sort.READ, Said.of("report.recording.hardest_press_taken", c.said().in()));
    }
    scale(v, c);
    return true;
  }

  private void learned(Channel c, double base, double top) {
    rest.put(c, base);
    full.put(c, top - base > 1e-9 ? top : base + 1);
  }

  /** Between what a pedal is at least and at most, but for a few samples. */
  private record Travel(double low, double high) {
    static Travel of(double[] v) {
      double[] sorted = Arrays.stream(v).filter(x -> !Double.isNaN(x)).sorted().toArray();
      return new Travel(
          sorted[(int) (0.02 * (sorted.length - 1))], sorted[(int) (0.998 * (sorted.length - 1))]);
    }

    /**
     * Whether it is pressed for a while, by far more than it scatters.
     *
     * @param throttle scaled: what a brake shows while it is open is no press; null if not known
     */
    boolean pressed(double[] v, double rate, double @Nullable [] throttle) {
      double half = (low + high) / 2;
      int longest = 0;
      int run = 0;
      for (int i = 0; i < v.length; i++) {
        boolean open = throttle != null && throttle[i] > 0.5;
        run = v[i] > half && !open ? run + 1 : 0;
        longest = Math.max(longest, run);
      }
      return longest >= Math.max(2, SHORTEST * rate)
          && high - low > TIMES_NOISE * LapSketch.noise(v);
    }
  }

  private void scale(double[] v, Channel c) {
    double base = rest.getOrDefault(c, 0.0);
    double span = full.getOrDefault(c, 1.0) - base;
    for (int i = 0; i < v.length; i++) {
      v[i] = Math.max(0, Math.min(1.2, (v[i] - base) / span));
    }
  }

  /**
   * Removes what a brake signal shows while the throttle is open: an offset of the sensor that
   * grows with speed, not braking. Estimated as the median of the signal in steps of speed.
   */
  void brakeOffset(Even even, Channel c, double[] speed) {
    if (!even.has(c) || !even.has(Channel.THROTTLE)) {
      return;
    }
    double[] v = even.of(c);
    double[] offset = falseOffset.get(c);
    if (offset == null) {
      offset = learnOffset(v, even.of(Channel.THROTTLE), speed, c);
      falseOffset.put(c, offset);
    }
    for (int i = 0; i < v.length; i++) {
      double at = Math.max(0, Math.min(BINS - 1.001, speed[i] / BIN - 0.5));
      int k = (int) at;
      double off = offset[k] + (at - k) * (offset[k + 1] - offset[k]);
      v[i] = Math.max(0, v[i] - off);
    }
  }

  private double[] learnOffset(double[] v, double[] throttle, double[] speed, Channel c) {
    double[] offset = new double[BINS];
    double most = 0;
    double noise = 0;
    for (int b = 0; b < BINS; b++) {
      double[] open = new double[v.length];
      int n = 0;
      for (int i = 0; i < v.length; i++) {
        if (throttle[i] > 0.9 && (int) (speed[i] / BIN) == b) {
          open[n++] = v[i];
        }
      }
      if (n < 15) {
        offset[b] = b == 0 ? 0 : offset[b - 1];
        continue;
      }
      double[] sorted = Arrays.copyOf(open, n);
      Arrays.sort(sorted);
      offset[b] = sorted[n / 2];
      noise = Math.max(noise, sorted[(int) (0.9 * (n - 1))] - sorted[n / 2]);
      most = Math.max(most, offset[b]);
    }
    if (most < 0.012) {
      return new double[BINS];
    }
    report.add(
        Sort.CLEANED,
        Said.of(
            "report.recording.shows_up_speed_with",
            c.said().beginning(),
            Value.figure(most * 100, 0)));
    return offset;
  }

  /**
   * Brings what the vehicle measures itself to the clock of the positions, where those come late by
   * what the beginnings of braking and steering agree on.
   */
  void lag(Even even, double[] speed, double[] curvature) {
    if (Double.isNaN(lag)) {
      Optional<Lag> found = Lag.of(even, speed, curvature);
      lag = found.map(Lag::seconds).orElse(0.0);
      found.ifPresent(
          l ->
              report.add(
                  Sort.CLEANED,
                  Said.of(
                      "report.recording.positions_speed_come_s",
                      Value.figure(l.seconds(), 2),
                      Value.figure(l.doubt(), 2))));
    }
    if (lag != 0) {
      for (Map.Entry<Channel, double[]> e : even.columns().entrySet()) {
        if (ON_BOARD.contains(e.getKey())) {
          boolean steps = e.getKey() == Channel.GEAR;
          e.setValue(later(e.getValue(), lag * even.rate(), steps));
        }
      }
    }
  }

  private static double[] later(double[] v, double samples, boolean steps) {
    double[] out = new double[v.length];
    for (int i = 0; i < out.length; i++) {
      double at = Math.max(0, Math.min(v.length - 1, i - samples));
      int k = (int) at;
      int next = Math.min(v.length - 1, k + 1);
      out[i] = steps ? v[(int) Math.round(at)] : v[k] + (at - k) * (v[next] - v[k]);
    }
    return out;
  }

  /** The middle of a channel while the road is straight is its zero. */
  void centre(Even even, Channel c, boolean[] straight) {
    if (!even.has(c)) {
      return;
    }
    double[] v = even.of(c);
    if (!rest.containsKey(c)) {
      double[] quiet = new double[v.length];
      int n = 0;
      for (int i = 0; i < v.length; i++) {
        if (straight[i]) {
          quiet[n++] = v[i];
        }
      }
      double[] sorted = Arrays.copyOf(quiet, n);
      Arrays.sort(sorted);
      rest.put(c, n > 50 ? sorted[n / 2] : 0.0);
    }
    double zero = rest.getOrDefault(c, 0.0);
    for (int i = 0; i < v.length; i++) {
      v[i] -= zero;
    }
  }

  private static String capital(String words) {
    return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
  }
}
