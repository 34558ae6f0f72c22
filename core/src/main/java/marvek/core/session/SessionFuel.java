package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * Fuel for a session.
 *
 * @param tank litres at the start; null for what is needed
 * @param other litres of another load to hold it against; null for none
 * @param rest litres that the rules want left
 * @param formation laps that burn and do not count
 * @param leader lap of the leader, s, for a race by time; null for one's own
 * @param oneMore whether the rule lets one more lap be driven after the time
 * @param used litres by lap of the driver's own
 */
@RecordBuilder
public record SessionFuel(
    @Nullable Double tank,
    @Nullable Double other,
    double rest,
    int formation,
    @Nullable Double leader,
    boolean oneMore,
    List<Double> used) {
  private static final int MOST_LAPS = 500;

  public SessionFuel {
    used = used == null ? List.of() : List.copyOf(used);
  }

  /** Kilograms more than the vehicle's own mass holds; 0 where that is not told apart. */
  public double more(Vehicle vehicle) {
    Vehicle.Fuel own = vehicle.fuel();
    return tank == null || own == null ? 0 : (tank - own.load()) * own.density();
  }

  /** Kilograms that can be burnt; as many as are needed where nobody has said what is in. */
  public double most(Vehicle vehicle) {
    Vehicle.Fuel own = vehicle.fuel();
    if (own == null) {
      return Double.POSITIVE_INFINITY;
    }
    return (tank == null ? own.load() : tank) * own.density();
  }

  /** Litres by lap that are known: those entered, and those told in the session. */
  public List<Double> used(List<Told> told) {
    List<Double> out = new ArrayList<>(used);
    for (Told t : told) {
      Double litres = t.litres();
      Integer laps = t.laps();
      if (t.about() == Told.About.FUEL && litres != null && laps != null) {
        for (int i = 0; i < laps && out.size() < MOST_LAPS; i++) {
          out.add(litres / laps);
        }
      }
    }
    return out;
  }

  /** Nothing said. */
  public static SessionFuel unknown() {
    return new SessionFuel(null, null, 0, 0, null, false, List.of());
  }
}
