package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.survey.Things;
import marvek.core.survey.Zones;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * The load that the tyres carry along the approach to a corner, on the computed lap, and where that
 * speaks for beginning to brake: tyres give most where they carry most, and least over a crest or
 * bumps.
 *
 * @param from station of the first value, m
 * @param step metres
 * @param load as a share of the weight at rest on the level, downforce included
 * @param begin where the entry begins to brake, m; null where it does not
 * @param atBegin mean load over the first metres of that braking; null without one
 * @param best where beginning to brake finds the most load, between a little before the entry's
 *     place and the last place to brake, m; null without braking
 * @param atBest mean load over the first metres from there; null without one
 * @param light where the vehicle is light or the road bumpy, in driving order
 */
public record LoadAlong(
    double from,
    double step,
    double[] load,
    @Nullable Double begin,
    @Nullable Double atBegin,
    @Nullable Double best,
    @Nullable Double atBest,
    List<Light> light) {
  private static final double BEFORE = 80;
  // Every so many stations are enough to draw it.
  private static final int THIN = 4;
  // Metres of the first press, and how far before the own place another one is looked for.
  private static final int PRESS = 20;
  private static final double SOONER = 25;
  // A place is better when the tyres carry so much more there, as a share.
  private static final double BETTER = 0.03;
  // The vehicle is light below this share of what it carries on the approach on the whole.
  private static final double LIGHT = 0.88;

  public LoadAlong {
    light = List.copyOf(light);
  }

  /** Why the tyres carry less. */
  public enum Why {
    /** The road falls away under the vehicle. */
    CREST,
    /** Bumps shake the load off. */
    BUMPS,
    /** The springs have given all they can: on the stops every unevenness shakes the load off. */
    STROKE,
    /** The wheels hang: they have no more way down to follow the road. */
    DROOP
  }

  /**
   * A stretch where the tyres carry less.
   *
   * @param from station, m
   * @param to station, m
   * @param why they do
   */
  public record Light(double from, double to, Why why) {}

  /** Along the approach of a corner. */
  public static LoadAlong of(
      ComputedLap computed, Things things, CornerEntry entry, CornerAnswer answer) {
    Centreline road = computed.road();
    Corner corner = computed.corners().get(computed.indexOf(entry.corner()));
    CornerAnswer.BrakingNumbers braking = answer.braking();
    double turn = entry.station(PointKind.TURN_IN).orElse(corner.entry());
    double begin = braking == null ? turn : entry.station(PointKind.BRAKE).orElse(turn);
    double start = road.wrap(begin - BEFORE);
    int count = (int) Math.ceil(road.ahead(start, corner.apex()) / road.step()) + 1;
    Loop loop = road.loop();
    int first = road.index(start);
    double[] load = new double[Math.min(count, road.size())];
    for (int k = 0; k < load.length; k++) {
      int i = loop.at(first + k);
      double v = computed.lap().speed()[i];
      load[k] = computed.limits().load(computed.path(), i, v * v) / Units.G;
    }
    List<Light> light = light(computed, things, first, load);
    if (braking == null) {
      return new LoadAlong(start, THIN * road.step(), thinned(load), null, null, null, null, light);
    }
    int own = loop.ahead(first, road.index(begin));
    int earliest = Math.max(0, own - (int) (SOONER / road.step()));
    int latest =
        Math.max(
            own, Math.min(load.length - 1, own + (int) (braking.marginMetres() / road.step())));
    int best = own;
    for (int k = earliest; k <= latest; k++) {
      if (press(load, k) > press(load, best)) {
        best = k;
      }
    }
    if (press(load, best) < (1 + BETTER) * press(load, own)) {
      best = own;
    }
    return new LoadAlong(
        start,
        THIN * road.step(),
        thinned(load),
        begin,
        press(load, own),
        best == own ? begin : road.wrap(start + best * road.step()),
        press(load, best),
        light);
  }

  private static double[] thinned(double[] load) {
    double[] out = new double[(load.length + THIN - 1) / THIN];
    for (int k = 0; k < out.length; k++) {
      out[k] = load[k * THIN];
    }
    return out;
  }

  /** Mean load over the first press from a place on. */
  private static double press(double[] load, int from) {
    double sum = 0;
    int count = 0;
    for (int k = from; k < Math.min(load.length, from + PRESS); k++) {
      sum += load[k];
      count++;
    }
    return sum / Math.max(1, count);
  }

  /** Whether the springs are at an end of their way under a load, where that is known. */
  private static @Nullable Why stroke(ComputedLap computed, double load) {
    Vehicle.Ride ride = computed.vehicle().ride();
    if (ride == null) {
      return null;
    }
    double sinks = ride.sinks(load);
    return sinks > ride.bump() ? Why.STROKE : -sinks > ride.droop() ? Why.DROOP : null;
  }

  private static List<Light> light(ComputedLap computed, Things things, int first, double[] load) {
    Centreline road = computed.road();
    double mean = java.util.Arrays.stream(load).average().orElse(1);
    List<Light> out = new ArrayList<>();
    Why now = null;
    int since = 0;
    for (int k = 0; k <= load.length; k++) {
      Why why = null;
      if (k < load.length) {
        int i = road.loop().at(first + k);
        boolean bumps = Zones.bumps(road, things, i * road.step(), computed.path().offset()[i]);
        why = bumps ? Why.BUMPS : load[k] < LIGHT * mean ? Why.CREST : stroke(computed, load[k]);
      }
      if (why != now) {
        if (now != null) {
          out.add(
              new Light(
                  road.wrap((first + since) * road.step()),
                  road.wrap((first + k) * road.step()),
                  now));
        }
        now = why;
        since = k;
      }
    }
    return out;
  }
}
