package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import marvek.core.circuit.Centreline;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;
import marvek.core.survey.Things;
import marvek.core.units.Units;
import org.jspecify.annotations.Nullable;

/**
 * Where to brake for the pits.
 *
 * @param line station at which the limit begins, m
 * @param limit m/s
 * @param aimed speed to have reached {@link #BEFORE} before it, m/s
 * @param from speed at the marker, m/s
 * @param marker station to brake at
 * @param metres from there to the line
 * @param left whether it is on the left; null where the survey does not say
 */
@RecordBuilder
public record PitEntry(
    double line,
    double limit,
    double aimed,
    double from,
    double marker,
    double metres,
    @Nullable Boolean left) {
  /**
   * Metres before the line, and m/s under the limit, that are kept (common practice, no source).
   */
  public static final double BEFORE = 10;

  public static final double UNDER = 3 / 3.6;

  /** Share of the grip that one brakes with for the pits: it is practised, and nothing is won. */
  public static final double CAREFUL = 0.7;

  private static final double FARTHEST = 800;

  /**
   * Where to brake, by the rules of a session; the line is where the survey has the entry if they
   * do not say. Null where nobody says it, and where a lap is slow enough already.
   */
  public static @Nullable PitEntry of(ComputedLap then, SessionRules rules, Things things) {
    Place entry =
        things.places().stream()
            .filter(p -> p.kind() == PlaceKind.PIT_ENTRY)
            .findFirst()
            .orElse(null);
    Double line = rules.pitLine();
    Double limit = rules.pitSpeed();
    if (limit == null || line == null && entry == null) {
      return null;
    }
    double at = then.road().wrap(line != null ? line : entry == null ? 0 : entry.from());
    PitEntry found = of(then, at, limit);
    return found == null || entry == null
        ? found
        : PitEntryBuilder.builder(found).left(entry.left()).build();
  }

  /** The last marker from which a session's lap reaches the limit; null where it never has to. */
  public static @Nullable PitEntry of(ComputedLap then, double line, double limit) {
    Centreline road = then.road();
    double aimed = Math.max(3, limit - UNDER);
    double tyres = then.conditions().grip() * then.vehicle().tyres().muX() * Units.G;
    double brakes = then.vehicle().brakes().mostForce() / then.vehicle().mass();
    double most = CAREFUL * Math.min(tyres, brakes);
    int n = road.size();
    int at = road.index(road.wrap(line - BEFORE));
    double square = aimed * aimed;
    int steps = (int) Math.min(n - 1, FARTHEST / road.step());
    for (int k = 0; k <= steps; k++) {
      int i = Math.floorMod(at - k, n);
      double v = then.lap().speed()[i];
      if (v * v <= square) {
        return k == 0
            ? null
            : new PitEntry(
                line, limit, aimed, v, road.wrap(i * road.step()), k * road.step() + BEFORE, null);
      }
      // Uphill helps, downhill does not.
      double slope = then.path().gradient()[i];
      square += 2 * Math.max(1, most + Units.G * slope) * road.step();
    }
    return null;
  }
}
