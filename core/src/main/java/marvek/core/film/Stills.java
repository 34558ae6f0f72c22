package marvek.core.film;

import marvek.core.circuit.Centreline;
import marvek.core.circuit.RoadPosition;
import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * Places things that stills of a film show, from where the vehicle was in each: two rays from the
 * path driven meet at the thing (triangulation). On a straight with bearings θ from stations s that
 * is S = (s₂·tan θ₂ − s₁·tan θ₁)/(tan θ₂ − tan θ₁).
 */
public final class Stills {
  /** Radians by which camera, lens and slip of the vehicle are wrong alike in both stills. */
  private static final double ALIKE = Math.toRadians(1);

  /** Radians by which each press on the picture is off (a few pixels). */
  private static final double EACH = Math.toRadians(0.2);

  /** Metres across the road by which a path is unknown that no receiver recorded. */
  private static final double UNPLACED = 1.5;

  private static final double LEAST_TURN = Math.toRadians(0.7);
  private static final double FARTHEST = 400;
  private static final double SPAN = 3;

  private final Centreline road;
  private final Offsets path;
  private final boolean placed;

  /** Metres to the left of the centreline at a station. */
  @FunctionalInterface
  public interface Offsets {
    /** Metres at a station in metres. */
    double at(double station);
  }

  /**
   * A thing in a still.
   *
   * @param station of the vehicle then
   * @param across -1 at the left edge of the picture, 1 at the right one
   */
  public record Sighting(double station, double across) {}

  /**
   * Where a thing stands.
   *
   * @param station metres from the line
   * @param left whether on the left
   * @param out metres outside the edge of the road there, negative on it
   * @param along metres along the road by which this may be off
   * @param beside metres across it
   */
  public record Placed(double station, boolean left, double out, double along, double beside) {}

  /**
   * Makes it for a lap.
   *
   * @param path that was driven
   * @param placed whether it was recorded; else it is the line of the reference
   */
  public Stills(Centreline road, Offsets path, boolean placed) {
    this.road = road;
    this.path = path;
    this.placed = placed;
  }

  /**
   * Where a thing stands that two stills show.
   *
   * @param frame metres between two frames there
   * @throws Refusal where they do not tell it
   */
  public Placed place(Lens lens, Sighting first, Sighting second, double frame) {
    double[] bearings = {lens.bearing(first.across()), lens.bearing(second.across())};
    double[] stations = {first.station(), second.station()};
    RoadPosition at = met(bearings, stations);
    if (at == null) {
      throw Refusal.of("refusal.film.two_stills_do_not");
    }
    double along = 0;
    double beside = placed ? 0 : UNPLACED * UNPLACED;
    double[][] errors = {{ALIKE, ALIKE, 0}, {EACH, 0, 0}, {0, EACH, 0}, {0, 0, frame / 2}};
    for (double[] e : errors) {
      RoadPosition other =
          met(
              new double[] {bearings[0] + e[0], bearings[1] + e[1]},
              new double[] {stations[0] + e[2], stations[1] + e[2]});
      double off = other == null ? FARTHEST : road.apart(at.station(), other.station());
      along += off * off;
      double aside = other == null ? FARTHEST : other.offset() - at.offset();
      beside += aside * aside;
    }
    int i = road.index(at.station());
    boolean left = at.offset() > (road.left()[i] - road.right()[i]) / 2;
    double out = left ? at.offset() - road.left()[i] : -at.offset() - road.right()[i];
    return new Placed(at.station(), left, out, Math.sqrt(along), Math.sqrt(beside));
  }

  /**
   * Radians to the right of the vehicle's way at which a place beside the road is.
   *
   * @param station of the vehicle
   */
  public double bearing(double station, double thingStation, double thingOffset) {
    double[] from = pose(station);
    double[] to = RoadPosition.toPlane(road, thingStation, thingOffset);
    double towards = Math.atan2(to[1] - from[1], to[0] - from[0]);
    return Math.IEEEremainder(from[2] - towards, 2 * Math.PI);
  }

  private @Nullable RoadPosition met(double[] bearings, double[] stations) {
    double[] a = pose(stations[0]);
    double[] b = pose(stations[1]);
    double one = a[2] - bearings[0];
    double two = b[2] - bearings[1];
    double cross = Math.sin(two - one);
    if (Math.abs(cross) < Math.sin(LEAST_TURN)) {
      return null;
    }
    double dx = b[0] - a[0];
    double dy = b[1] - a[1];
    double fromFirst = (dx * Math.sin(two) - dy * Math.cos(two)) / cross;
    double fromSecond = (dx * Math.sin(one) - dy * Math.cos(one)) / cross;
    // Also where the path is not known.
    if (!(fromFirst > 0 && fromSecond > 0 && fromSecond < FARTHEST && fromFirst < FARTHEST)) {
      return null;
    }
    double x = a[0] + fromFirst * Math.cos(one);
    double y = a[1] + fromFirst * Math.sin(one);
    // The road may come by again behind a hedge: what is ahead is meant.
    double reach = FARTHEST / 2;
    return RoadPosition.near(road, x, y, road.wrap(stations[1] + reach - SPAN), reach);
  }

  /** Place {x, y} of the vehicle and the heading of its way there. */
  private double[] pose(double station) {
    double[] at = RoadPosition.toPlane(road, station, path.at(road.wrap(station)));
    double[] before =
        RoadPosition.toPlane(road, station - SPAN, path.at(road.wrap(station - SPAN)));
    double[] after = RoadPosition.toPlane(road, station + SPAN, path.at(road.wrap(station + SPAN)));
    return new double[] {at[0], at[1], Math.atan2(after[1] - before[1], after[0] - before[0])};
  }
}
