package marvek.core.marker;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.Function;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Sight;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * From where along a line a thing is in view: over the heights of the road, past walls, hedges and
 * other long things that stand higher than the eyes, and within the field of view.
 */
public final class Views {
  /** Metres that are looked along the road at most. */
  private static final double FAR = 320;

  /** Metres past a thing at which it may still be seen to leave, by the eye's delay at speed. */
  private static final double PAST = 10;

  private static final double STEP = 1;
  private static final double WALL_STEP = 4;

  private final Centreline road;
  private final double[] offset;
  private final double[] heading;
  private final double eye;
  private final double half;
  private final List<Wall> walls = new ArrayList<>();

  /** A long thing as a chain of points, each x, y and height of its top over all. */
  private record Wall(String id, double from, double length, double[][] chain) {}

  /**
   * Makes them for one line.
   *
   * @param landmarks all there are; the long ones hide what stands behind
   * @param offset metres to the left of the centreline at each station
   * @param heading of the line there, radians anticlockwise from east
   * @param seat from where it is looked
   */
  public Views(
      Centreline road,
      List<Landmark> landmarks,
      double[] offset,
      double[] heading,
      Vehicle.Seat seat) {
    this.road = road;
    this.offset = offset;
    this.heading = heading;
    this.eye = seat.eye();
    this.half = seat.halfAngle();
    for (Landmark l : landmarks) {
      if (l.length() > 0 && l.height() > 0) {
        walls.add(wall(l));
      }
    }
  }

  private Wall wall(Landmark l) {
    int points = (int) Math.ceil(l.length() / WALL_STEP) + 1;
    double[][] chain = new double[points][];
    for (int k = 0; k < points; k++) {
      double s = l.station() + Math.min(l.length(), k * WALL_STEP);
      double[] at = beside(s, l);
      chain[k] = new double[] {at[0], at[1], height(s) + l.height()};
    }
    return new Wall(l.id(), l.station(), l.length(), chain);
  }

  private double[] beside(double station, Landmark l) {
    int i = road.index(station);
    double across = l.left() ? road.left()[i] + l.out() : -road.right()[i] - l.out();
    return at(station, across);
  }

  /** x and y of a place at a station, so many metres to the left of the middle. */
  private double[] at(double station, double across) {
    double s = road.wrap(station) / road.step();
    int i = (int) s % road.size();
    int q = (i + 1) % road.size();
    double part = s - Math.floor(s);
    double x = road.x()[i] + (road.x()[q] - road.x()[i]) * part;
    double y = road.y()[i] + (road.y()[q] - road.y()[i]) * part;
    double h = road.heading()[i];
    return new double[] {x - across * Math.sin(h), y + across * Math.cos(h)};
  }

  private double height(double station) {
    return road.height()[road.index(station)];
  }

  /** Whether a place of a thing is seen from a station of the line, whatever the angle. */
  public boolean clear(double station, Landmark l, double thingStation) {
    double ahead = road.apart(station, thingStation);
    if (ahead > 0 && !Sight.clear(road, station, eye, ahead, Math.max(0, l.height()))) {
      return false;
    }
    double[] from = at(station, offset[road.index(station)]);
    double[] to = beside(thingStation, l);
    double low = height(station) + eye;
    double high = height(thingStation) + l.height();
    for (Wall w : walls) {
      if (!w.id().equals(l.id()) && hides(w, from, to, low, high)) {
        return false;
      }
    }
    return true;
  }

  private static boolean hides(Wall w, double[] from, double[] to, double low, double high) {
    for (int k = 1; k < w.chain().length; k++) {
      double[] a = w.chain()[k - 1];
      double[] b = w.chain()[k];
      double rx = to[0] - from[0];
      double ry = to[1] - from[1];
      double wx = b[0] - a[0];
      double wy = b[1] - a[1];
      double cross = rx * wy - ry * wx;
      if (Math.abs(cross) < 1e-9) {
        continue;
      }
      double along = ((a[0] - from[0]) * wy - (a[1] - from[1]) * wx) / cross;
      double onWall = ((a[0] - from[0]) * ry - (a[1] - from[1]) * rx) / cross;
      if (along > 1e-6
          && along < 1 - 1e-6
          && onWall >= 0
          && onWall <= 1
          && a[2] + (b[2] - a[2]) * onWall > low + (high - low) * along) {
        return true;
      }
    }
    return false;
  }

  /** Radians between where the line heads and where a place of a thing is. */
  public double angle(double station, Landmark l, double thingStation) {
    int i = road.index(station);
    double[] from = at(station, offset[i]);
    double[] to = beside(thingStation, l);
    double towards = Math.atan2(to[1] - from[1], to[0] - from[0]);
    return Math.abs(Math.IEEEremainder(towards - heading[i], 2 * Math.PI));
  }

  /**
   * Station of the line from which on a thing is in view until it is reached, as it was measured,
   * or else computed; empty where it has been in view for as far as one looks, or never is.
   */
  public OptionalDouble comesIntoView(Landmark l) {
    OptionalDouble measured = measured(l, Landmark.Seen::comes);
    if (measured.isPresent()) {
      return measured;
    }
    double seen = -1;
    for (double back = STEP; back <= FAR; back += STEP) {
      if (!clear(l.station() - back, l, l.station())) {
        return seen < 0 ? OptionalDouble.empty() : OptionalDouble.of(road.wrap(l.station() - seen));
      }
      seen = back;
    }
    return OptionalDouble.empty();
  }

  /** Whether a thing is hidden even from where it is all but reached. */
  public boolean seesNothingOf(Landmark l) {
    return !clear(l.station() - STEP, l, l.station());
  }

  /**
   * Station of the line at which the last of a thing leaves the field of view, as it was measured,
   * or else computed; empty where it does not before it is passed.
   */
  public OptionalDouble leavesView(Landmark l) {
    OptionalDouble measured = measured(l, Landmark.Seen::leaves);
    if (measured.isPresent()) {
      return measured;
    }
    double end = l.station() + l.length();
    double before = Double.NaN;
    for (double back = 0; back <= FAR; back += STEP) {
      double angle = angle(end - back, l, end);
      if (angle < half) {
        if (back == 0) {
          return OptionalDouble.empty();
        }
        // Between the last two looks, straight.
        double part = (half - angle) / Math.max(1e-9, before - angle);
        return OptionalDouble.of(road.wrap(end - back + STEP * Math.min(1, part)));
      }
      before = angle;
    }
    return OptionalDouble.empty();
  }

  /** Whether it was measured where a thing leaves the view. */
  public boolean leavingMeasured(Landmark l) {
    return measured(l, Landmark.Seen::leaves).isPresent();
  }

  /**
   * A station that was measured; empty without one, and where the thing cannot have been seen from
   * there: farther before it than one looks, or past its end. Then it was moved since, or another
   * piece of the lap was in the picture.
   */
  private OptionalDouble measured(Landmark l, Function<Landmark.Seen, @Nullable Double> which) {
    Landmark.Seen seen = l.seen();
    Double station = seen == null ? null : which.apply(seen);
    if (station == null) {
      return OptionalDouble.empty();
    }
    double before = road.apart(station, l.station());
    return before <= FAR && before >= -l.length() - PAST
        ? OptionalDouble.of(road.wrap(station))
        : OptionalDouble.empty();
  }

  /** Metres of the road to the side at which a thing stands from the line where it is passed. */
  public double aside(Landmark l) {
    int i = road.index(l.station());
    double across = l.left() ? road.left()[i] + l.out() : -road.right()[i] - l.out();
    return Math.abs(across - offset[i]);
  }
}
