package marvek.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.said.Said;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.Zones;
import org.jspecify.annotations.Nullable;

/**
 * A stretch on which something is better not done.
 *
 * @param what is not
 * @param from station at which it begins, m
 * @param to station at which it ends, m
 * @param why not
 */
public record Unwise(What what, double from, double to, Said why) {
  /** Share of the tyres' grip across from which on a shift upsets them (common practice). */
  static final double ACROSS = 0.6;

  /** Share of the load on the level below which a shift or a braking finds too little of it. */
  static final double LIGHT_TO_SHIFT = 0.8;

  static final double LIGHT_TO_BRAKE = 0.85;
  // Shorter than this it is no stretch, and nearer than this it is one, metres.
  private static final double SHORTEST = 4;
  private static final double JOINED = 6;
  private static final double OPEN = 0.98;

  /** What is not done there. */
  public enum What {
    SHIFT,
    BRAKE,
    THROTTLE
  }

  private enum Why {
    ACROSS,
    LIGHT,
    BUMPS,
    KERB,
    LOCKS,
    LAUNCHED,
    TRACTION;

    Said said() {
      return switch (this) {
        case ACROSS -> Said.of("unwise.across");
        case LIGHT -> Said.of("unwise.light");
        case BUMPS -> Said.of("unwise.bumps");
        case KERB -> Said.of("unwise.kerb");
        case LOCKS -> Said.of("unwise.locks");
        case LAUNCHED -> Said.of("unwise.launched");
        case TRACTION -> Said.of("unwise.traction");
      };
    }
  }

  /**
   * Along a stretch of a line.
   *
   * @param from index of its first station
   * @param speed m/s at each of its steps
   */
  static List<Unwise> along(
      ComputedLap computed, Path path, Things things, int from, double[] speed) {
    List<Unwise> out = new ArrayList<>();
    for (What what : What.values()) {
      Why now = null;
      int since = 0;
      int last = 0;
      for (int k = 0; k <= speed.length; k++) {
        Why why =
            k < speed.length
                ? why(what, computed, path, things, path.loop().at(from + k), speed[k])
                : null;
        if (why != null && why == now) {
          last = k;
          continue;
        }
        if (now != null && (why != null || far(computed, last, k, speed.length))) {
          add(out, computed, what, now, from + since, from + last);
          now = null;
        }
        if (why != null && now == null) {
          now = why;
          since = k;
          last = k;
        }
      }
    }
    return List.copyOf(out);
  }

  private static boolean far(ComputedLap computed, int last, int k, int end) {
    return k == end || (k - last) * computed.road().step() > JOINED;
  }

  private static void add(
      List<Unwise> out, ComputedLap computed, What what, Why why, int first, int last) {
    Centreline road = computed.road();
    if ((last - first) * road.step() >= SHORTEST) {
      out.add(
          new Unwise(
              what, road.wrap(first * road.step()), road.wrap(last * road.step()), why.said()));
    }
  }

  private static @Nullable Why why(
      What what, ComputedLap computed, Path path, Things things, int i, double v) {
    Limits limits = computed.limits();
    double square = v * v;
    double load = limits.load(path, i, square);
    double share = load / limits.levelLoad(v);
    Optional<Kerb> kerb =
        Edges.under(computed.road(), things, computed.vehicle(), i, path.offset()[i]);
    if (kerb.filter(k -> k.does().contains(Kerb.Does.LAUNCHES)).isPresent()) {
      return Why.LAUNCHED;
    }
    return switch (what) {
      case SHIFT ->
          limits.sideways(path, i, square) > ACROSS * limits.sidewaysMost(load, path.turning(i))
              ? Why.ACROSS
              : share < LIGHT_TO_SHIFT ? Why.LIGHT : null;
      case BRAKE -> {
        Centreline road = computed.road();
        double offset = path.offset()[i];
        yield share < LIGHT_TO_BRAKE
            ? Why.LIGHT
            : Zones.bumps(road, things, i * road.step(), offset)
                ? Why.BUMPS
                : kerb.map(k -> k.does().contains(Kerb.Does.LOCKS) ? Why.LOCKS : Why.KERB)
                    .orElse(null);
      }
      case THROTTLE -> {
        double pulls =
            limits.traction(load, limits.ellipse(path, i, square, load), path.driving(i));
        yield pulls < OPEN * limits.engineDrive(v) ? Why.TRACTION : null;
      }
    };
  }
}
