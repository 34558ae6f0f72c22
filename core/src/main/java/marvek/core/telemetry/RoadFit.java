package marvek.core.telemetry;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.RoadPosition;
import marvek.core.numeric.SavitzkyGolay;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.ReadReport.Sort;
import org.jspecify.annotations.Nullable;

/**
 * Puts even samples on the road. Along the road the integral of the measured speed gives the shape
 * from sample to sample, the positions give where that is: their slowly varying difference is
 * smoothed over about a second to each side and added.
 */
final class RoadFit {
  // What is farther is another circuit, metres, told from so many samples.
  private static final double NEAR = 25_000;
  private static final int SOME = 41;
  private static final double FAR = 60;
  private static final double LOST = 200;
  private static final double MOVING = 3;
  private static final double SETTLE = 1.0;
  private static final List<Double> FACTORS =
      List.of(
          1.0,
          3.6,
          1 / 3.6,
          Unit.MILE_PER_HOUR.factor() * 3.6,
          1 / (Unit.MILE_PER_HOUR.factor() * 3.6),
          Unit.MILE_PER_HOUR.factor(),
          1 / Unit.MILE_PER_HOUR.factor(),
          Unit.KNOT.factor() * 3.6,
          1 / (Unit.KNOT.factor() * 3.6));

  private final Centreline road;
  private final @Nullable LocalPlane plane;
  private final ReadReport report;
  private final PlaceShift.Found shift;
  private final @Nullable PlaceShift beside;
  private double speedFactor = Double.NaN;
  private boolean saidSwapped;

  RoadFit(
      Centreline road,
      @Nullable LocalPlane plane,
      ReadReport report,
      PlaceShift.Found shift,
      @Nullable PlaceShift beside) {
    this.road = road;
    this.plane = plane;
    this.report = report;
    this.shift = shift;
    this.beside = beside;
  }

  /**
   * Samples on the road.
   *
   * @param station not wrapped, growing with every lap; without positions metres since the start
   * @param away metres from the road's edge where the vehicle left it, else 0
   * @param placed whether the station comes from positions
   */
  record OnRoad(
      Even even,
      double[] station,
      double[] offset,
      double[] speed,
      double[] curvature,
      double[] away,
      boolean placed,
      Set<Channel> derived) {}

  OnRoad fit(Even even) {
    double[][] xy = positions(even);
    return xy == null ? alongOnly(even) : placed(even, xy);
  }

  /** The quickest that positions may follow each other and still be a vehicle, m. */
  private double @Nullable [][] positions(Even even) {
    double[] x;
    double[] y;
    if (even.has(Channel.EAST) && even.has(Channel.NORTH)) {
      x = even.of(Channel.EAST).clone();
      y = even.of(Channel.NORTH).clone();
    } else if (even.has(Channel.LATITUDE) && even.has(Channel.LONGITUDE)) {
      LocalPlane here = plane;
      if (here == null) {
        report.add(Sort.DROPPED, Said.of("report.recording.latitude_longitude_layout_came"));
        return null;
      }
      double[] lat = even.of(Channel.LATITUDE);
      double[] lon = even.of(Channel.LONGITUDE);
      if (swapped(here, lat, lon)) {
        double[] other = lat;
        lat = lon;
        lon = other;
        if (!saidSwapped) {
          saidSwapped = true;
          report.add(Sort.CLEANED, Said.of("report.recording.latitude_longitude_stood_each"));
        }
      }
      x = new double[lat.length];
      y = new double[lat.length];
      toPlane(here, lat, lon, x, y);
    } else {
      return null;
    }
    clean(even, x, y);
    if (beside != null) {
      beside.take(x, y, even.gap());
    }
    for (int i = 0; i < x.length; i++) {
      x[i] -= shift.east();
      y[i] -= shift.north();
    }
    return new double[][] {x, y};
  }

  /** Whether places lie near the road only with latitude and longitude exchanged. */
  private boolean swapped(LocalPlane here, double[] lat, double[] lon) {
    double given = away(here, lat, lon);
    return !(given < NEAR) && away(here, lon, lat) < NEAR;
  }

  /** Metres from the road's first place, middle of some samples; infinite for no place on earth. */
  private double away(LocalPlane here, double[] lat, double[] lon) {
    double[] out = new double[SOME];
    int n = 0;
    for (int k = 0; k < SOME; k++) {
      int i = (int) ((long) k * (lat.length - 1) / (SOME - 1));
      if (Double.isNaN(lat[i]) || Double.isNaN(lon[i])) {
        continue;
      }
      boolean earth = Math.abs(lat[i]) <= 85 && Math.abs(lon[i]) <= 180;
      double[] p = earth ? here.toMetres(lon[i], lat[i]) : new double[0];
      out[n++] =
          earth ? Math.hypot(p[0] - road.x()[0], p[1] - road.y()[0]) : Double.POSITIVE_INFINITY;
    }
    Arrays.sort(out, 0, n);
    return n == 0 ? Double.POSITIVE_INFINITY : out[n / 2];
  }

  /**
   * Near a place the plane is as good as linear: it is asked at the corners of a small grid only.
   * Below 0.1 mm off within a cell of 0.001°.
   */
  private static void toPlane(
      LocalPlane plane, double[] lat, double[] lon, double[] x, double[] y) {
    double cell = 0.001;
    Map<Long, double[]> corners = new java.util.LinkedHashMap<>();
    for (int i = 0; i < lat.length; i++) {
      if (!(Math.abs(lat[i]) <= 90) || !(Math.abs(lon[i]) <= 360)) {
        x[i] = Double.NaN;
        y[i] = Double.NaN;
        continue;
      }
      long a = (long) Math.floor(lat[i] / cell);
      long b = (long) Math.floor(lon[i] / cell);
      double[] c =
          corners.computeIfAbsent(
              a * 1_000_003L + b,
              k -> {
                double[] p = plane.toMetres(b * cell, a * cell);
                double[] q = plane.toMetres((b + 1) * cell, a * cell);
                double[] r = plane.toMetres(b * cell, (a + 1) * cell);
                double[] s = plane.toMetres((b + 1) * cell, (a + 1) * cell);
                return new double[] {p[0], p[1], q[0], q[1], r[0], r[1], s[0], s[1]};
              });
      double u = lon[i] / cell - b;
      double v = lat[i] / cell - a;
      x[i] = (1 - v) * ((1 - u) * c[0] + u * c[2]) + v * ((1 - u) * c[4] + u * c[6]);
      y[i] = (1 - v) * ((1 - u) * c[1] + u * c[3]) + v * ((1 - u) * c[5] + u * c[7]);
    }
  }

  /** Takes away places that jump or stand still while the vehicle moves, and bridges them. */
  private void clean(Even even, double[] x, double[] y) {
    int n = x.length;
    double[] speed = even.has(Channel.SPEED) ? even.of(Channel.SPEED) : null;
    boolean[] bad = new boolean[n];
    int stuck = 0;
    int jumped = 0;
    int last = -1;
    for (int i = 0; i < n; i++) {
      if (Double.isNaN(x[i]) || Double.isNaN(y[i])) {
        bad[i] = true;
        continue;
      }
      boolean jumps =
          last >= 0
              && i - last < 3 * even.rate()
              && Math.hypot(x[i] - x[last], y[i] - y[last]) > 130 * (i - last) / even.rate() + 6;
      if (jumps) {
        bad[i] = true;
        jumped++;
      } else {
        last = i;
      }
    }
    int from = 0;
    for (int i = 1; i <= n; i++) {
      boolean same = i < n && Math.abs(x[i] - x[from]) < 1e-4 && Math.abs(y[i] - y[from]) < 1e-4;
      if (!same) {
        boolean long_ = i - from > Math.max(3, 0.6 * even.rate());
        boolean moves = speed != null && speed[Math.min(n - 1, (from + i) / 2)] > MOVING;
        if (long_ && moves) {
          Arrays.fill(bad, from + 1, i, true);
          stuck += i - from;
        }
        from = i;
      }
    }
    if (jumped > 0) {
      report.add(
          Sort.CLEANED,
          Said.of("report.recording.positions_jump_away_bridged", Value.count(jumped)));
    }
    if (stuck > 0) {
      report.add(
          Sort.CLEANED,
          Said.of("report.recording.position_stood_still_s", Value.figure(stuck / even.rate(), 1)));
    }
    bridge(even, bad, x, y);
  }

  private void bridge(Even even, boolean[] bad, double[] x, double[] y) {
    int n = x.length;
    int last = -1;
    for (int i = 0; i < n; i++) {
      if (bad[i]) {
        continue;
      }
      if (last < 0) {
        Arrays.fill(x, 0, i, x[i]);
        Arrays.fill(y, 0, i, y[i]);
      }
      boolean wide = i - last > Cleaner.LONGEST_BRIDGE * even.rate();
      for (int k = last + 1; k < i && last >= 0; k++) {
        double share = (k - last) / (double) (i - last);
        x[k] = x[last] + share * (x[i] - x[last]);
        y[k] = y[last] + share * (y[i] - y[last]);
        even.gap()[k] |= wide;
      }
      last = i;
    }
    if (last >= 0) {
      Arrays.fill(x, last + 1, n, x[last]);
      Arrays.fill(y, last + 1, n, y[last]);
    }
  }

  private OnRoad placed(Even even, double[][] xy) {
    int n = xy[0].length;
    double rate = even.rate();
    double[] raw = new double[n];
    double[] offset = new double[n];
    double[] away = new double[n];
    double length = road.length();
    boolean known = false;
    int far = 0;
    double unrolled = 0;
    for (int i = 0; i < n; i++) {
      double x = xy[0][i];
      double y = xy[1][i];
      RoadPosition p = null;
      if (known) {
        double reach = 15 + 140 / rate;
        p = RoadPosition.near(road, x, y, road.wrap(unrolled), reach);
        if (Math.abs(p.offset()) > FAR || Math.abs(road.apart(unrolled, p.station())) > reach - 2) {
          p = null;
        }
      }
      if (p == null) {
        RoadPosition anywhere = RoadPosition.nearest(road, x, y);
        double[] back = RoadPosition.toPlane(road, anywhere.station(), anywhere.offset());
        boolean on =
            Math.abs(anywhere.offset()) < FAR && Math.hypot(back[0] - x, back[1] - y) < FAR;
        if (on) {
          p = anywhere;
          known = true;
        } else {
          far += Math.hypot(back[0] - x, back[1] - y) + Math.abs(anywhere.offset()) > LOST ? 1 : 0;
          known = false;
        }
      }
      if (p == null) {
        raw[i] = unrolled;
        offset[i] = 0;
        even.gap()[i] = true;
        continue;
      }
      unrolled += road.apart(road.wrap(unrolled), p.station());
      raw[i] = unrolled;
      offset[i] = p.offset();
      int k = road.index(p.station());
      away[i] = Math.max(0, Math.max(p.offset() - road.left()[k], -p.offset() - road.right()[k]));
    }
    if (far > 0.9 * n) {
      throw Refusal.of("refusal.telemetry.these_positions_lie_from", Value.own(distance(xy)));
    }
    if (far > 0.02 * n) {
      report.add(
          Sort.DROPPED,
          Said.of("report.recording.s_recorded_away_from", Value.figure(far / rate, 0)));
    }
    direction(raw, rate);
    Set<Channel> derived = EnumSet.noneOf(Channel.class);
    SavitzkyGolay across = Even.over(0.3, rate);
    double[] n1 = across.smooth(offset);
    double[] kappa = roadCurvature(raw);
    double[] positional = Even.over(0.5, rate).slope(raw);
    for (int i = 0; i < n; i++) {
      positional[i] *= rate * Math.max(0.2, 1 - n1[i] * kappa[i]);
    }
    double[] speed = speed(even, positional);
    double[] station;
    double[] v;
    if (speed == null) {
      derived.add(Channel.SPEED);
      report.add(Sort.DERIVED, Said.of("report.recording.speed_from_positions"));
      station = Even.over(0.35, rate).smooth(raw);
      v = Arrays.stream(positional).map(u -> Math.max(0, u)).toArray();
    } else {
      v = Even.over(0.12, rate).smooth(speed);
      double[] run = integral(speed, n1, kappa, rate);
      double[] drift = new double[n];
      for (int i = 0; i < n; i++) {
        drift[i] = raw[i] - run[i];
      }
      drift = Even.over(SETTLE, rate).smooth(drift);
      station = new double[n];
      for (int i = 0; i < n; i++) {
        station[i] = run[i] + drift[i];
      }
    }
    for (int i = 1; i < n; i++) {
      station[i] = Math.max(station[i], station[i - 1]);
      v[i] = Math.max(0, v[i]);
    }
    double[] curvature = pathCurvature(station, n1, kappa, v, rate);
    return new OnRoad(even, station, n1, v, curvature, away, true, derived);
  }

  private String distance(double[][] xy) {
    int middle = xy[0].length / 2;
    double d = Math.hypot(xy[0][middle] - road.x()[0], xy[1][middle] - road.y()[0]);
    return d > 2000
        ? String.format(Locale.ROOT, "about %.0f km", d / 1000)
        : String.format(Locale.ROOT, "about %.0f m", d);
  }

  private void direction(double[] raw, double rate) {
    int forward = 0;
    int backward = 0;
    int stride = (int) Math.max(1, rate);
    for (int i = stride; i < raw.length; i += stride) {
      double moved = raw[i] - raw[i - stride];
      forward += moved > 4 ? 1 : 0;
      backward += moved < -4 ? 1 : 0;
    }
    if (backward > 20 && backward > 3 * forward) {
      throw Refusal.of("refusal.telemetry.circuit_driven_other_way");
    }
  }

  private double[] roadCurvature(double[] station) {
    double[] out = new double[station.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = road.curvature()[road.index(station[i])];
    }
    return out;
  }

  /**
   * The measured speed, with its unit held against the positions; null where there is none to use.
   */
  private double @Nullable [] speed(Even even, double[] positional) {
    if (!even.has(Channel.SPEED)) {
      return null;
    }
    double[] v = even.of(Channel.SPEED);
    if (Double.isNaN(speedFactor)) {
      double[] ratio = new double[v.length];
      int n = 0;
      for (int i = 0; i < v.length; i++) {
        if (positional[i] > 8 && positional[i] < 120 && !even.gap()[i] && v[i] > 0.5) {
          ratio[n++] = positional[i] / v[i];
        }
      }
      double[] sorted = Arrays.copyOf(ratio, n);
      Arrays.sort(sorted);
      double middle = n < 30 ? 1 : sorted[n / 2];
      double best =
          FACTORS.stream()
              .min(
                  (a, b) ->
                      Double.compare(
                          Math.abs(Math.log(middle / a)), Math.abs(Math.log(middle / b))))
              .orElse(1.0);
      if (Math.abs(Math.log(middle / best)) > 0.06) {
        speedFactor = 0;
        report.add(
            Sort.DROPPED,
            Said.of("report.recording.speed_does_not_go", Value.figure(1 / middle, 2)));
      } else {
        speedFactor = best;
        if (best != 1) {
          report.add(
              Sort.CLEANED,
              Said.of("report.recording.speed_another_unit_file", Value.figure(best, 4)));
        }
      }
    }
    if (speedFactor == 0) {
      return null;
    }
    double factor = speedFactor;
    return factor == 1 ? v : Arrays.stream(v).map(u -> u * factor).toArray();
  }

  private static double[] integral(double[] speed, double[] offset, double[] kappa, double rate) {
    double[] run = new double[speed.length];
    for (int i = 1; i < run.length; i++) {
      double a = speed[i - 1] / Math.max(0.2, 1 - offset[i - 1] * kappa[i - 1]);
      double b = speed[i] / Math.max(0.2, 1 - offset[i] * kappa[i]);
      run[i] = run[i - 1] + (a + b) / 2 / rate;
    }
    return run;
  }

  /**
   * Curvature of what was driven: that of the road under the offset, and the bend of the offset.
   */
  private static double[] pathCurvature(
      double[] station, double[] offset, double[] kappa, double[] v, double rate) {
    // Few samples a second need a longer look to tell a bend from noise.
    SavitzkyGolay wide = Even.over(rate < 20 ? 0.5 : 0.4, rate);
    double[] first = wide.slope(offset);
    double[] second = wide.slope(first);
    double[] out = new double[offset.length];
    for (int i = 0; i < out.length; i++) {
      double u = Math.max(3, v[i]);
      double bend = second[i] * rate * rate / (u * u);
      out[i] = kappa[i] / Math.max(0.2, 1 - offset[i] * kappa[i]) + bend;
    }
    return Even.over(0.1, rate).smooth(out);
  }

  private OnRoad alongOnly(Even even) {
    int n = even.time().length;
    double rate = even.rate();
    double[] v;
    double[] run = new double[n];
    Set<Channel> derived = EnumSet.noneOf(Channel.class);
    if (even.has(Channel.SPEED)) {
      v = Even.over(0.12, rate).smooth(even.of(Channel.SPEED));
      for (int i = 1; i < n; i++) {
        run[i] = run[i - 1] + (v[i] + v[i - 1]) / 2 / rate;
      }
    } else if (even.has(Channel.DISTANCE)) {
      double[] d = even.of(Channel.DISTANCE);
      for (int i = 1; i < n; i++) {
        double step = d[i] - d[i - 1];
        run[i] = run[i - 1] + Math.max(0, step < -5 ? Math.max(0, d[i]) : step);
      }
      v = Even.over(0.3, rate).slope(run);
      for (int i = 0; i < n; i++) {
        v[i] = Math.max(0, v[i] * rate);
      }
      derived.add(Channel.SPEED);
      report.add(Sort.DERIVED, Said.of("report.recording.speed_from_distance"));
    } else {
      throw Refusal.of("refusal.telemetry.neither_position_nor_speed");
    }
    double[] none = new double[n];
    Arrays.fill(none, Double.NaN);
    return new OnRoad(even, run, none, v, none.clone(), new double[n], false, derived);
  }

  /** The channels of a stretch beside place and speed. */
  Map<Channel, double[]> others(OnRoad on) {
    Map<Channel, double[]> out = new EnumMap<>(Channel.class);
    on.even()
        .columns()
        .forEach(
            (c, v) -> {
              switch (c) {
                case TIME, SPEED, LATITUDE, LONGITUDE, EAST, NORTH, DISTANCE, LAP -> {}
                default -> out.put(c, v);
              }
            });
    return out;
  }
}
