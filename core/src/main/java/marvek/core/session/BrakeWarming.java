package marvek.core.session;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.lap.LapTrace;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Glances;
import marvek.core.survey.Place;

/**
 * How brakes are warmed on the way out: presses on straights that put as much work into them as a
 * flying lap does. No temperature is told: nobody has measured one.
 *
 * @param presses firm ones
 * @param from m/s
 * @param to m/s
 * @param into ids of corners, on the straights before which there is room for them; in driving
 *     order
 */
public record BrakeWarming(int presses, double from, double to, List<String> into) {
  /** Share of the speed at a straight's end that is driven there (common practice, no source). */
  private static final double CALM = 0.7;

  /** Share of that speed that a press takes off (common practice, no source). */
  private static final double FIRM = 0.4;

  private static final int STRAIGHTS = 3;

  public BrakeWarming {
    into = List.copyOf(into);
  }

  /** For a lap; empty where it brakes nowhere, or has no straight. */
  public static Optional<BrakeWarming> of(ComputedLap then) {
    double lap = work(then);
    List<Place> straights =
        Glances.on(then).stream()
            .sorted(Comparator.comparingDouble((Place p) -> -length(then, p)))
            .limit(STRAIGHTS)
            .sorted(Comparator.comparingDouble(Place::from))
            .toList();
    if (straights.isEmpty() || lap <= 0) {
      return Optional.empty();
    }
    double slowest =
        straights.stream()
            .mapToDouble(p -> then.lap().speed()[then.road().index(p.to())])
            .min()
            .orElseThrow();
    double from = CALM * slowest;
    double to = from * (1 - FIRM);
    double press = (from * from - to * to) / 2;
    return Optional.of(
        new BrakeWarming(
            (int) Math.ceil(lap / press),
            from,
            to,
            straights.stream().map(p -> after(then, p)).distinct().toList()));
  }

  /** Joules by the brakes for each kilogram in a lap. */
  static double work(ComputedLap then) {
    LapTrace lap = then.lap();
    double sum = 0;
    for (int i = 0; i < lap.size(); i++) {
      if (lap.brake()[i] > 0) {
        double v = lap.speed()[i];
        double load = then.limits().load(then.path(), i, v * v);
        double drag = then.limits().resistance(then.path(), i, v, load);
        sum += Math.max(0, -lap.along()[i] - drag) * then.path().step()[i];
      }
    }
    return sum;
  }

  private static double length(ComputedLap then, Place p) {
    return then.road().ahead(p.from(), p.to());
  }

  private static String after(ComputedLap then, Place p) {
    return then.corners().stream()
        .min(Comparator.comparingDouble((Corner c) -> then.road().ahead(p.to(), c.apex())))
        .orElseThrow()
        .id();
  }
}
