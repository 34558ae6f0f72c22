package marvek.core.telemetry;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import marvek.core.numeric.SavitzkyGolay;
import marvek.core.telemetry.ReadReport.Sort;

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

  /** Samples at an even rate. */
  record Even(double rate, double[] time, Map<Channel, double[]> columns, boolean[] gap) {
    boolean has(Channel c) {
      return columns.containsKey(c);
    }

    double[] of(Channel c) {
      double[] column = columns.get(c);
      if (column == null) {
        throw new IllegalArgumentException("no " + c);
      }
      return column;
    }
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
          String.format(
              Locale.ROOT,
              "%s is %s throughout; it is taken as not recorded.",
              capital(c.words()),
              high == 0 ? "zero" : "the same"));
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
      report.add(Sort.CLEANED, "Values of " + c.words() + " that no vehicle reaches are bridged.");
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

  /** Scales a pedal to 0 at rest and 1 at its full travel. */
  void pedal(Even even, Channel c) {
    if (!even.has(c)) {
      return;
    }
    double[] v = even.of(c);
    if (!full.containsKey(c)) {
      double[] sorted = Arrays.stream(v).filter(x -> !Double.isNaN(x)).sorted().toArray();
      double low = sorted[(int) (0.02 * (sorted.length - 1))];
      double high = sorted[(int) (0.998 * (sorted.length - 1))];
      boolean throttle = c == Channel.THROTTLE;
      boolean share = high > 0.5 && high <= 1.05 && Math.abs(low) < 0.03;
      double base = share && throttle ? 0 : Math.min(low, 0.3 * high);
      double top = share && throttle && high > 0.97 ? 1 : high;
      rest.put(c, base);
      full.put(c, top - base > 1e-9 ? top : base + 1);
      if (throttle && (Math.abs(base) > 0.03 || Math.abs(top - 1) > 0.03)) {
        report.add(
            Sort.CLEANED,
            String.format(
                Locale.ROOT,
                "Throttle runs from %.0f to %.0f %%; that is taken as shut and fully open.",
                base * 100,
                top * 100));
      } else if (!throttle) {
        report.add(Sort.READ, "The hardest press of the " + c.words() + " is taken as 100 %.");
      }
    }
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
        String.format(
            Locale.ROOT,
            "%s shows up to %.0f %% at speed with the throttle open: an offset of the sensor, taken away.",
            capital(c.words()),
            most * 100));
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
                  String.format(
                      Locale.ROOT,
                      "Positions and speed come %.2f s after the pedals, give or take %.2f s; the"
                          + " two are brought together.",
                      l.seconds(),
                      l.doubt())));
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

  /** A smoother over about so many seconds to each side. */
  static SavitzkyGolay over(double seconds, double rate) {
    return new SavitzkyGolay((int) Math.max(2, Math.round(seconds * rate)));
  }

  private static String capital(String words) {
    return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
  }
}
